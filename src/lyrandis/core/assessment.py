"""Judging a setup: stages, findings and the next step, in one value. Pages come apart."""

from collections.abc import Sequence

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed, compute
from lyrandis.core.drawn import Drawn
from lyrandis.core.next_step import next_step
from lyrandis.core.reading import PARTS, PartKind
from lyrandis.core.setup import Setup
from lyrandis.core.stage_spec import StageSpec
from lyrandis.core.stages import STAGES


class FittedPart(Drawn):
    """A part on the rig and its name."""

    part: PartKind
    id: str | None = None
    name: str | None = None


class Assessment(Drawn):
    """All that Lyrandis says of a rig. Lengths in mm, forces in lbf, masses in grains."""

    rig: str | None = None
    name: str | None = None
    put_away: bool
    revision: int
    entry_count: int
    fitted: tuple[FittedPart, ...]
    stages: tuple[j.Stage, ...]
    may_shoot: j.MayShoot
    findings: tuple[j.Finding, ...]
    """By the harm: what hurts first; within it what the next step is about, then in order of
    work."""
    first_things: tuple[str, ...] | None = None
    """On a first evening, the ids of the few findings that are enough: one to mend, one to know,
    one that is well. None later."""
    next_step: j.NextStep
    reckoning: bool = False
    """True while something heavy is still being worked out: ask again in a moment."""


def assess(setup: Setup) -> Assessment:
    """Judge a setup. Never raises: what cannot be known is missing, with a reason."""
    return judge(compute(setup))


def judge(c: Computed, specs: Sequence[StageSpec] = STAGES) -> Assessment:
    """Judge what was computed of a rig, spec by spec in order of work."""
    open_specs = [spec for spec in specs if spec.applies(c.setup)]
    result = [(spec, spec.judge(c)) for spec in open_specs]
    findings = sorted(
        (finding for _, group in result for finding in group),
        key=lambda finding: j.SEVERITIES.index(finding.severity),
    )
    rules = {rule.id: rule for spec in open_specs for rule in spec.rules}
    findings = [_placed(finding, rules.get(finding.rule)) for finding in findings]
    unchecked = unchecked_of(c, open_specs)
    step = next_step(c, findings, open_specs, unchecked)
    findings.sort(key=lambda one: (j.SEVERITIES.index(one.severity), one.id != step.finding))
    setup = c.setup
    return Assessment(
        rig=setup.rig,
        name=setup.name,
        put_away=setup.put_away,
        revision=setup.revision,
        entry_count=setup.entry_count,
        fitted=_fitted(setup),
        stages=tuple(
            _stage(spec, number, group, _by_order(c, spec, spec.stage(c, group)))
            for number, (spec, group) in enumerate(result, start=1)
        ),
        may_shoot=_may_shoot(findings, unchecked),
        findings=tuple(findings),
        first_things=_first_things(c, findings, step),
        next_step=step,
        reckoning=any(spec.waits(c) for spec in open_specs),
    )


def unchecked_of(c: Computed, specs: Sequence[StageSpec] = STAGES) -> list[j.Unchecked]:
    """Return what nobody has checked yet of a rig, stage by stage.

    >>> from lyrandis.core.example import rig
    >>> [item.what.text() for item in unchecked_of(rig())][:2]
    ['which hand draws', 'the bow is not looked over']
    """
    return [item for spec in specs if spec.applies(c.setup) for item in spec.unchecked(c)]


def _placed(finding: j.Finding, rule: j.Rule | None) -> j.Finding:
    """Give a finding its rule's title where it has none, and the stages it belongs to."""
    homes = dict.fromkeys((finding.stage, *(rule.also if rule else ())))
    title = finding.title or (rule.title if rule else None)
    return finding.model_copy(update={"title": title, "homes": tuple(homes)})


FIRST_EVENING = 12
"""With fewer readings than this somebody is new here, and three things are enough."""
_NOT_TOLD = ("named", "part_fitted", "put_away", "step_set_aside")
"""Kinds that tell nothing of bow, archer or arrow."""


def _first_things(
    c: Computed, findings: Sequence[j.Finding], step: j.NextStep
) -> tuple[str, ...] | None:
    """Return one finding to mend, one to know and one that is well; the next step is said apart."""
    if c.setup.effective.count(*_NOT_TOLD) >= FIRST_EVENING:
        return None
    others = [finding for finding in findings if finding.id != step.finding]
    firsts = (next((f for f in others if f.severity == kind), None) for kind in j.SEVERITIES[1:])
    return tuple(finding.id for finding in firsts if finding is not None)


def _may_shoot(findings: Sequence[j.Finding], unchecked: Sequence[j.Unchecked]) -> j.MayShoot:
    """Answer plainly: no, not yet, or nothing known against it, with what is not checked."""
    stops = tuple(finding.sentence for finding in findings if finding.severity == "stop")
    known = tuple(finding.sentence for finding in findings if finding.before_shooting)
    before = (*known, *(item.what for item in unchecked if item.before_shooting))
    return j.MayShoot(
        answer="no" if stops else "not_yet" if before else "nothing_against",
        because=stops or before,
        unchecked=tuple(
            j.OpenCheck(what=item.what, action=item.step.action if item.step else None)
            for item in unchecked
            if not item.before_shooting
        ),
        to_mend=sum(
            finding.severity == "mend" and not finding.before_shooting for finding in findings
        ),
    )


_OF_ORDER: dict[str, j.Mark] = {"direct": "in_doubt", "waits": "waits", "rests": "rests"}


def _by_order(c: Computed, spec: StageSpec, standing: j.Standing) -> j.Standing:
    """Mark a stage by the order of work, where something it rests on moved since."""
    node = c.order.doubt_in(spec.key)
    if node is None or standing.mark in ("in_doubt", "unset"):
        return standing
    mark = _OF_ORDER[c.order.states[node].mark]
    return standing.model_copy(
        update={"mark": mark, "moved": c.order.sentence(node), "reason": c.order.reason(node)}
    )


def _stage(
    spec: StageSpec, number: int, findings: list[j.Finding], standing: j.Standing
) -> j.Stage:
    stop = any(finding.severity == "stop" for finding in findings)
    return j.Stage(key=spec.key, number=number, name=spec.name, stop=stop, **dict(standing))


def _fitted(setup: Setup) -> tuple[FittedPart, ...]:
    return tuple(
        FittedPart(part=part, id=subject, name=name)
        for part in PARTS
        for subject, name in (setup.subject(part),)
    )
