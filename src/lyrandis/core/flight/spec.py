"""The flight's stage specification."""

from lyrandis.core.flight.jots import PLAIN_WORDS, WORDS
from lyrandis.core.flight.page import page
from lyrandis.core.flight.plan import left_changed, under_way
from lyrandis.core.flight.rules import RULES, judge
from lyrandis.core.flight.stage import ASKS, missing, stage
from lyrandis.core.stage_spec import StageSpec

SPEC = StageSpec(
    key="flight",
    name="Flight",
    needs=("arrow", "string", "nock"),
    words=WORDS,
    plain_words=PLAIN_WORDS,
    bare=(),
    rules=RULES,
    judge=judge,
    stage=stage,
    missing=missing,
    page=page,
    left_changed=left_changed,
    under_way=under_way,
    waits=lambda c: c.flight.basis.waiting,
    settles=frozenset({"spine-match", "spine-clearance"}),
    asks=ASKS,
)
