"""The listening stage specification."""

from lyrandis.core.listen.jots import PLAIN_WORDS, WORDS
from lyrandis.core.listen.page import page
from lyrandis.core.listen.rules import RULES, judge
from lyrandis.core.listen.stage import ASKS, missing, stage
from lyrandis.core.stage_spec import StageSpec

SPEC = StageSpec(
    key="listen",
    name="Listen",
    needs=("arrow", "string"),
    words=WORDS,
    plain_words=PLAIN_WORDS,
    bare=(),
    rules=RULES,
    judge=judge,
    stage=stage,
    missing=missing,
    page=page,
    asks=ASKS,
)
