"""The string's room."""

from lyrandis.core.room import Room
from lyrandis.core.string.jots import WORDS
from lyrandis.core.string.page import page
from lyrandis.core.string.rules import RULES, judge
from lyrandis.core.string.stage import ASKS, missing, stage

ROOM = Room(
    key="string",
    name="String",
    needs=("bow",),
    words=WORDS,
    bare=("brace",),
    rules=RULES,
    judge=judge,
    stage=stage,
    missing=missing,
    page=page,
    asks=ASKS,
)
