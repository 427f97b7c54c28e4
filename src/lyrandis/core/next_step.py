"""The one thing most worth doing: danger first, then what is missing, then what is least sure.

No stage is named here: the stages say what is missing, what is doubtful and what to ask for.
"""

import math
from collections.abc import Sequence
from operator import itemgetter

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import phrase, plain
from lyrandis.core.stage_spec import Doubt, StageSpec

LEAST_SHARPENING = 1.2
"""A reading that would shrink its own part of the ± by less than this is not worth its trouble."""


def next_step(
    c: Computed,
    findings: list[j.Finding],
    specs: Sequence[StageSpec],
    unchecked: Sequence[j.Unchecked] = (),
) -> j.NextStep:
    """Return the next step for a rig with these findings; `specs` in order of work.

    What is looked at before the first shot comes before anything is measured; a setting that is in
    doubt because something moved comes before what nobody has checked yet, that in a coach's
    order, and both before a number is made sharper. What is begun goes before what it is begun to
    settle. What was set aside for now is not asked for.
    """
    aside = c.setup.order.aside
    checks = sorted(
        (
            (item.turn, item.step)
            for item in unchecked
            if item.turn is not None and item.step and item.step.aside not in aside
        ),
        key=itemgetter(0),
    )

    def doubts() -> list[Doubt]:
        """What keeps numbers vague; asked for only where nothing goes before it."""
        every = (doubt for spec in specs for doubt in spec.doubts(c))
        return [doubt for doubt in every if doubt.step.aside not in aside]

    # what is looked at before shooting, and what a coach asks first, waits for no sharper number
    urgent = max((item.turn or 0 for item in unchecked if item.before_shooting), default=-1)
    missing = (spec.missing(c) for spec in specs)
    going = next(((spec, step) for spec in specs if (step := spec.under_way(c))), None)
    waits = going[0].settles if going else frozenset()
    return (
        _from_finding(findings, "stop")
        or next((step for turn, step in checks if turn == 0), None)
        or next(filter(None, (spec.left_changed(c) for spec in specs)), None)
        or next((step for step in missing if step and step.aside not in aside), None)
        or _from_finding([finding for finding in findings if finding.rule not in waits], "mend")
        or (going[1] if going else None)
        or next((_with_tells(step, doubts()) for turn, step in checks if turn <= urgent), None)
        or (c.order.step if c.order.doubted else None)
        or next((_with_tells(step, doubts()) for _, step in checks), None)
        or _sharpen(doubts())
        or _ask(c, specs)
    )


def _from_finding(findings: list[j.Finding], severity: j.Severity) -> j.NextStep | None:
    for finding in findings:
        if finding.severity == severity and finding.action:
            # the answer on top of the page says a Stop's sentence: here stands what to do of it
            stop = severity == "stop"
            title = finding.title or finding.action.label
            put_right = "Nothing else is worth doing on this rig until it is put right."
            return j.NextStep(
                title=phrase(plain(finding.action.label if stop else title)),
                why=phrase(put_right) if stop else finding.sentence,
                tells=phrase(""),
                minutes=5,
                action=finding.action,
                finding=finding.id,
            )
    return None


def _sharpen(doubts: list[Doubt]) -> j.NextStep | None:
    """Return the reading that takes most off the ± of the target that is furthest from sharp."""
    targets = {doubt.of.key: doubt.of for doubt in doubts}
    best: tuple[float, j.NextStep] | None = None
    for key, target in targets.items():
        causes = [doubt for doubt in doubts if doubt.of.key == key]
        vague = 2 * math.hypot(*(doubt.share for doubt in causes)) / target.sharp_enough
        step = _sharpest(causes) if vague >= 1 else None
        if step is not None and (best is None or vague > best[0]):
            best = vague, step
    return best[1] if best else None


def _sharpest(causes: list[Doubt]) -> j.NextStep | None:
    """Return the reading that takes most off one target's variance, if it is worth it."""
    best = max(causes, key=lambda doubt: doubt.share**2 - doubt.after**2)
    if best.share < LEAST_SHARPENING * best.after:
        return None
    return _gaining(best, causes)


def _with_tells(step: j.NextStep, doubts: list[Doubt]) -> j.NextStep:
    """Return a check with how much sharper it makes a target, where a doubt asks for the same."""
    same = next((doubt for doubt in doubts if doubt.step.action == step.action), None)
    if same is None:
        return step
    gain = _gaining(same, [doubt for doubt in doubts if doubt.of.key == same.of.key])
    return step.model_copy(update={"tells": gain.tells})


def _gaining(best: Doubt, causes: list[Doubt]) -> j.NextStep:
    """Return a doubt's step with what it takes off its target's ±."""
    target = best.of
    after = math.hypot(best.after, *(doubt.share for doubt in causes if doubt is not best))
    sharper = Estimate(target.value.value, after * target.value.value)
    tells = phrase(
        f"{target.name} would go from ± {{before}} to about ± {{after}}.",
        before=target.figure(target.value.plus_minus),
        after=target.figure(sharper.plus_minus),
    )
    return best.step.model_copy(update={"tells": tells})


def _ask(c: Computed, specs: Sequence[StageSpec]) -> j.NextStep:
    """Return the first ask in turn; the last one is always there."""
    asks = sorted((ask for spec in specs for ask in spec.asks), key=lambda ask: ask.turn)
    aside = c.setup.order.aside
    steps = (ask.step(c) for ask in asks)
    return next(step for step in steps if step is not None and step.aside not in aside)
