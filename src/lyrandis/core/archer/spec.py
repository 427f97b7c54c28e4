"""The archer's stage specification."""

from lyrandis.core.archer.jots import NO_READINGS, PLAIN_WORDS, WORDS
from lyrandis.core.archer.page import page
from lyrandis.core.archer.rules import RULES, judge
from lyrandis.core.archer.stage import ASKS, missing, stage, unchecked
from lyrandis.core.stage_spec import StageSpec

SPEC = StageSpec(
    key="archer",
    name="Archer",
    needs=(),
    words=WORDS,
    plain_words=PLAIN_WORDS,
    no_readings=NO_READINGS,
    bare=("draw", "bow"),
    rules=RULES,
    judge=judge,
    stage=stage,
    missing=missing,
    page=page,
    unchecked=unchecked,
    asks=ASKS,
)
