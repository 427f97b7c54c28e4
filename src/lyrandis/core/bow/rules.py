"""Judging the bow: the rules of the stage and their findings, gathered."""

from lyrandis.core import judgement as j
from lyrandis.core.bow import judge_condition, judge_draw, judge_energy, judge_weight
from lyrandis.core.computed import Computed

_CHAPTERS = (judge_weight, judge_draw, judge_energy, judge_condition)
RULES: tuple[j.Rule, ...] = tuple(rule for chapter in _CHAPTERS for rule in chapter.RULES)


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the bow."""
    return [finding for chapter in _CHAPTERS for finding in chapter.judge(c)]
