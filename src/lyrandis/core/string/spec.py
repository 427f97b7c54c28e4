"""The string's stage specification."""

from lyrandis.core.stage_spec import StageSpec
from lyrandis.core.string.jots import PLAIN_WORDS, WORDS
from lyrandis.core.string.page import page
from lyrandis.core.string.rules import RULES, judge
from lyrandis.core.string.stage import ASKS, missing, stage, unchecked

SPEC = StageSpec(
    key="string",
    name="String",
    needs=("bow",),
    words=WORDS,
    plain_words=PLAIN_WORDS,
    bare=("brace",),
    rules=RULES,
    judge=judge,
    stage=stage,
    missing=missing,
    page=page,
    unchecked=unchecked,
    asks=ASKS,
)
