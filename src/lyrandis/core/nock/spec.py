"""The nock's stage specification."""

from lyrandis.core.nock.jots import PLAIN_WORDS, WORDS
from lyrandis.core.nock.page import page
from lyrandis.core.nock.rules import RULES, judge
from lyrandis.core.nock.stage import ASKS, missing, stage, unchecked
from lyrandis.core.order.jots import WORDS as ORDER_WORDS
from lyrandis.core.stage_spec import StageSpec

SPEC = StageSpec(
    key="nock",
    name="Nock",
    needs=("arrow", "string"),
    words=(*WORDS, *ORDER_WORDS),
    plain_words=PLAIN_WORDS,
    bare=("lift",),
    rules=RULES,
    judge=judge,
    stage=stage,
    missing=missing,
    page=page,
    unchecked=unchecked,
    asks=ASKS,
)
