"""The arrow's stage specification."""

from lyrandis.core.arrow.doubts import doubts
from lyrandis.core.arrow.jots import PLAIN_WORDS, WORDS
from lyrandis.core.arrow.page import page
from lyrandis.core.arrow.quiver import look_over_arrows
from lyrandis.core.arrow.rules import RULES, judge
from lyrandis.core.arrow.stage import ASKS, missing, stage, unchecked
from lyrandis.core.look_over import LooksOver
from lyrandis.core.stage_spec import StageSpec

SPEC = StageSpec(
    key="arrow",
    name="Arrow",
    needs=("archer", "bow"),
    words=WORDS,
    plain_words=PLAIN_WORDS,
    bare=("shaft", "arrow"),
    rules=RULES,
    judge=judge,
    stage=stage,
    missing=missing,
    page=page,
    unchecked=unchecked,
    looks_over=LooksOver("arrow_set", ("numbered_arrow", "arrow_mass"), look_over_arrows),
    asks=ASKS,
    doubts=doubts,
)
