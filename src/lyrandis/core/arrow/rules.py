"""Judging the arrow: the rules of the stage and their findings, gathered."""

from lyrandis.core import judgement as j
from lyrandis.core.arrow import judge_mass, judge_quiver, judge_spine
from lyrandis.core.computed import Computed

_CHAPTERS = (judge_mass, judge_spine, judge_quiver)
RULES: tuple[j.Rule, ...] = tuple(rule for chapter in _CHAPTERS for rule in chapter.RULES)


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the arrow."""
    return [finding for chapter in _CHAPTERS for finding in chapter.judge(c)]
