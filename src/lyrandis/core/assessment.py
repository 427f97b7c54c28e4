"""Judging a setup: stages, findings and the next step, in one value. Pages come apart."""

from collections.abc import Mapping, Sequence

from pydantic import BaseModel, ConfigDict

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed, compute
from lyrandis.core.next_step import next_step
from lyrandis.core.reading import PARTS, PartKind
from lyrandis.core.room import Room
from lyrandis.core.rooms import ROOMS
from lyrandis.core.setup import Setup


class FittedPart(BaseModel):
    """A part on the rig and its name."""

    model_config = ConfigDict(frozen=True)

    part: PartKind
    id: str | None = None
    name: str | None = None


class Assessment(BaseModel):
    """All that Lyrandis says of a rig. Lengths in mm, forces in lbf, masses in grains."""

    model_config = ConfigDict(frozen=True, allow_inf_nan=False)

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


def judge(c: Computed, rooms: Sequence[Room] = ROOMS) -> Assessment:
    """Judge what was computed of a rig, room by room in order of work."""
    open_rooms = [room for room in rooms if room.applies(c.setup)]
    found = [(room, room.judge(c)) for room in open_rooms]
    findings = sorted(
        (finding for _, group in found for finding in group),
        key=lambda finding: j.SEVERITIES.index(finding.severity),
    )
    titles = {rule.id: rule.title for room in open_rooms for rule in room.rules}
    findings = [_titled(finding, titles) for finding in findings]
    unchecked = [one for room in open_rooms for one in room.unchecked(c)]
    setup = c.setup
    return Assessment(
        rig=setup.rig,
        name=setup.name,
        put_away=setup.put_away,
        revision=setup.revision,
        entry_count=setup.entry_count,
        fitted=_fitted(setup),
        stages=tuple(
            _stage(room, number, group, _by_order(c, room, room.stage(c, group)))
            for number, (room, group) in enumerate(found, start=1)
        ),
        may_shoot=_may_shoot(findings, unchecked),
        findings=tuple(findings),
        next_step=next_step(c, findings, open_rooms, unchecked),
        reckoning=any(room.waits(c) for room in open_rooms),
    )


def _titled(finding: j.Finding, titles: Mapping[str, str]) -> j.Finding:
    """Give a finding its rule's title where it has none of its own."""
    title = finding.title or titles.get(finding.rule)
    return finding if title == finding.title else finding.model_copy(update={"title": title})


def _may_shoot(findings: Sequence[j.Finding], unchecked: Sequence[j.Unchecked]) -> j.MayShoot:
    """Answer plainly: no, not yet, or nothing known against it, with what is not checked."""
    stops = tuple(finding.sentence for finding in findings if finding.severity == "stop")
    before = tuple(one.what for one in unchecked if one.before_shooting)
    return j.MayShoot(
        answer="no" if stops else "not_yet" if before else "nothing_against",
        because=stops or before,
        unchecked=tuple(one.what for one in unchecked if not one.before_shooting),
    )


_OF_ORDER: dict[str, j.Mark] = {"direct": "in_doubt", "waits": "waits", "rests": "rests"}


def _by_order(c: Computed, room: Room, standing: j.Standing) -> j.Standing:
    """Mark a stage by the order of work, where something it rests on moved since."""
    node = c.order.doubt_in(room.key)
    if node is None or standing.mark in ("in_doubt", "unset"):
        return standing
    mark = _OF_ORDER[c.order.states[node].mark]
    return standing.model_copy(
        update={"mark": mark, "moved": c.order.sentence(node), "reason": c.order.reason(node)}
    )


def _stage(room: Room, number: int, findings: list[j.Finding], standing: j.Standing) -> j.Stage:
    stop = any(finding.severity == "stop" for finding in findings)
    return j.Stage(key=room.key, number=number, name=room.name, stop=stop, **dict(standing))


def _fitted(setup: Setup) -> tuple[FittedPart, ...]:
    return tuple(
        FittedPart(part=part, id=subject, name=name)
        for part in PARTS
        for subject, name in (setup.subject(part),)
    )
