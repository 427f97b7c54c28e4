"""Judging a setup: stages, findings and the next step, in one value. Pages come apart."""

from collections.abc import Mapping, Sequence

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
    titles = {rule.id: rule.title for spec in open_specs for rule in spec.rules}
    findings = [_titled(finding, titles) for finding in findings]
    unchecked = [item for spec in open_specs for item in spec.unchecked(c)]
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
        next_step=next_step(c, findings, open_specs, unchecked),
        reckoning=any(spec.waits(c) for spec in open_specs),
    )


def _titled(finding: j.Finding, titles: Mapping[str, str]) -> j.Finding:
    """Give a finding its rule's title where it has none of its own."""
    title = finding.title or titles.get(finding.rule)
    return finding if title == finding.title else finding.model_copy(update={"title": title})


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
