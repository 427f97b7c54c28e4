"""The crawls' stage specification."""

from lyrandis.core.crawls.jots import PLAIN_WORDS, WORDS
from lyrandis.core.crawls.page import page
from lyrandis.core.crawls.rules import RULES, judge
from lyrandis.core.crawls.stage import ASKS, applies, missing, stage
from lyrandis.core.stage_spec import StageSpec

SPEC = StageSpec(
    key="crawls",
    name="Crawls",
    needs=("flight",),
    words=WORDS,
    plain_words=PLAIN_WORDS,
    bare=(),
    rules=RULES,
    judge=judge,
    stage=stage,
    missing=missing,
    page=page,
    asks=ASKS,
    applies=applies,
)
