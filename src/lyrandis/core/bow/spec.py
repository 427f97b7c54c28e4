"""The bow's stage specification."""

from lyrandis.core.bow.inspection import look_over
from lyrandis.core.bow.jots import PLAIN_WORDS, WORDS
from lyrandis.core.bow.page import page
from lyrandis.core.bow.rules import RULES, judge
from lyrandis.core.bow.stage import ASKS, missing, stage, unchecked
from lyrandis.core.look_over import LooksOver
from lyrandis.core.stage_spec import StageSpec

SPEC = StageSpec(
    key="bow",
    name="Bow",
    needs=("archer",),
    words=WORDS,
    plain_words=PLAIN_WORDS,
    bare=("bow",),
    rules=RULES,
    judge=judge,
    stage=stage,
    missing=missing,
    page=page,
    unchecked=unchecked,
    looks_over=LooksOver("bow", ("inspected",), look_over),
    asks=ASKS,
)
