"""What was done to the settings of a rig, in order, from everything that is recorded of it."""

import math
from collections.abc import Callable, Iterable
from datetime import UTC, datetime
from functools import cache
from operator import itemgetter
from typing import TYPE_CHECKING, Any

from lyrandis.core.archer.draw import Draw
from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.arrow.practice import PER_25_GR, PER_INCH
from lyrandis.core.arrow.readings import ArrowBuild, ArrowMassed, ArrowPass
from lyrandis.core.arrow.shooting import outward_is_left
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.constants import MARKED_DRAW_MM, MM_PER_IN, TRADE_OFFSET_MM
from lyrandis.core.effective import At, Recorded, when
from lyrandis.core.flight.evidence import FAR_BARE_M, LEAST_GROUP
from lyrandis.core.flight.readings import BareApart, ButtHits, WalkedBack, apart_of
from lyrandis.core.memo import memo_by_equality
from lyrandis.core.nock.height import lift_of
from lyrandis.core.nock.numbers import NockNumbers
from lyrandis.core.nock.readings import CentreShot, LimbsInLine, NockHeight
from lyrandis.core.order.circle import enclosing_radius
from lyrandis.core.order.doubt import (
    LEVEL,
    LEVEL_MM_PER_M,
    SCATTERED,
    Did,
    Event,
    RiserLoad,
    Setting,
)
from lyrandis.core.order.facts import OrderFacts
from lyrandis.core.order.graph import KITS
from lyrandis.core.order.words import Node
from lyrandis.core.string.braces import brace_read_to_pivot
from lyrandis.core.string.facts import StringFacts
from lyrandis.core.string.numbers import StringNumbers
from lyrandis.core.string.readings import BraceHeight, BraceTried

if TYPE_CHECKING:
    from lyrandis.core.bow.numbers import BowNumbers
    from lyrandis.core.setup import Setup

MOMENT_MM = 100.0
"""A gram moved this far along the riser counts as a gram put on it."""


_Done = tuple[At, Event]
"""An event, and where it stands in the order."""


def _done(recorded: Recorded[Any], node: Node, done: Did, value: Setting | None) -> _Done:
    at = when(recorded.entry)
    return at, Event(node, done, value, at[0])


def history(
    setup: "Setup",
    *,
    draw: Draw | None,
    bow: "BowNumbers",
    string: StringNumbers,
    nock: NockNumbers,
) -> list[tuple[At, Event]]:
    """Return all that was set, checked or moved on a rig, in order, each with its place in it.

    Source: definition; a part that is put on is another word of its setting.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> [event.node for event in c.order.events][:2]
    ['draw', 'hold']
    """
    facts = setup.order
    done: list[_Done] = [
        *_draws(draw),
        *_set("hold", facts.holds, lambda item: item.hold),
        *_set("anchor", facts.anchors, lambda item: item.anchor),
        *_set("grip", facts.grips, lambda item: item.grip_under_rest_mm),
        *_string(setup),
        *_silencers(setup),
        *_settled(string),
        *(_weights_of_bow(bow) if nock.kit in KITS["weight_rough"] else ()),
        *_braces(string.facts, facts.others, string.grips),
        *_nocks(setup, nock),
        *_arrows(facts.masses, setup.arrows.builds, facts.fitted, setup.fitted.arrow_set),
        *_centres(facts.centres, setup.arrows.passes),
        *_riser(setup),
        *_by_flight(setup),
        *(_done(mark, "crawls", "set", None) for mark in setup.crawls.marks),
        *(_done(item, item.reading.setting, "checked", None) for item in facts.checked),
        *(_done(item, item.reading.setting, "touched", None) for item in facts.moved),
        *(_done(item, item.reading.setting, "set", _found(item.reading)) for item in facts.found),
    ]
    done.sort(key=itemgetter(0))
    return done


def _by_flight(setup: "Setup") -> list[_Done]:
    """What was shot: walk-backs by their drift, bare shafts by where they strike; no trials."""
    result = []
    outward = -1 if outward_is_left(setup.archer) else 1
    near = level_per_m(setup.order)
    for sighting in setup.flight.seen:
        reading = sighting.reading
        if isinstance(reading, WalkedBack):
            result.append(_done(sighting, "walk_back", "set", outward * reading.drift_mm))
        elif isinstance(reading, BareApart | ButtHits) and reading.trial is None:
            far = reading.distance_m >= FAR_BARE_M
            if isinstance(reading, ButtHits):
                rough = _in_circle(reading, near * reading.distance_m)
                if rough is not None:
                    result.append(_done(sighting, "bare_rough", "set", rough))
            said = _bare_word(reading, near * reading.distance_m)
            if said is not None and (far or isinstance(reading, BareApart)):
                node: Node = "bare_final" if far else "bare_rough"
                result.append(_done(sighting, node, "set", said))
    return result


def level_per_m(facts: OrderFacts) -> float:
    """Return half the circle in which shafts count as level, per metre of distance [mm/m].

    Source: as the archer named it; else `LEVEL_MM_PER_M`.

    >>> round(level_per_m(OrderFacts()), 2)
    2.67
    """
    return facts.circle.reading.radius_per_m if facts.circle else LEVEL_MM_PER_M


def _in_circle(reading: ButtHits, near: float) -> str | None:
    """Return how a first end came out: level where all shafts, bare and fletched, lie in a circle.

    Else where the bare ones struck; scattered, where they struck elsewhere on no one side.
    """
    apart = apart_of(reading.hits)
    if apart is None:
        return None
    places = [complex(hit.right_mm, hit.up_mm) for hit in reading.hits]
    if enclosing_radius(places) <= near:
        return LEVEL
    return _sides(apart.right_mm, apart.up_mm, near) or SCATTERED


def _bare_word(reading: BareApart | ButtHits, near: float) -> str | None:
    """Return where bare shafts struck, in a word; None where they are not compared."""
    if isinstance(reading, BareApart):
        right, up = reading.right_mm or 0.0, reading.up_mm or 0.0
    else:
        apart = apart_of(reading.hits)
        if apart is None:
            return None
        right, up = apart.right_mm, apart.up_mm
    if isinstance(reading, ButtHits) and reading.distance_m >= FAR_BARE_M:
        near = _spread(reading) or near
    if math.hypot(right, up) <= near:
        return LEVEL
    return _sides(right, up, near)


def _sides(right: float, up: float, near: float) -> str:
    """Return the sides on which bare shafts struck, for who should have struck within `near`."""
    sides = [
        word
        for off, more, less in ((right, "right", "left"), (up, "high", "low"))
        if abs(off) > near / 2
        for word in (more if off > 0 else less,)
    ]
    return " and ".join(sides)


def _spread(reading: ButtHits) -> float | None:
    """Return how far fletched arrows of an end strike from their middle, the furthest [mm]."""
    fletched = [hit for hit in reading.hits if not hit.bare]
    if len(fletched) < LEAST_GROUP:
        return None
    right = sum(hit.right_mm for hit in fletched) / len(fletched)
    up = sum(hit.up_mm for hit in fletched) / len(fletched)
    return max(math.hypot(hit.right_mm - right, hit.up_mm - up) for hit in fletched)


def _found(reading: Any) -> Setting:
    return reading.drift_mm if reading.drift_mm is not None else reading.word  # type: ignore[no-any-return]


def _set(
    node: Node, told: Iterable[Recorded[Any]], value: Callable[[Any], Setting | None]
) -> list[_Done]:
    result = []
    for recorded in told:
        said = value(recorded.reading)
        if said is not None:
            result.append(_done(recorded, node, "set", said))
    return result


@memo_by_equality
def _draws(draw: Draw | None) -> list[_Done]:
    """The draw as it was known after each reading that counts."""
    result: list[_Done] = []
    total = 0.0
    used = sorted(draw.used, key=lambda item: when(item.recorded.entry)) if draw else []
    for number, reading in enumerate(used, start=1):
        total += reading.length.value
        result.append(_done(reading.recorded, "draw", "set", total / number))
    return result


def _string(setup: "Setup") -> list[_Done]:
    """A string counts as set once something of it is told; a new one in its place at once."""
    fitted = [
        item
        for at, item in enumerate(of for of in setup.order.fitted if of.reading.part == "string")
        if at or item.reading.part_id
    ]
    result = [_done(item, "string", "set", item.reading.part_id or "none") for item in fitted[1:]]
    builds = setup.string.builds
    if builds and (not fitted or fitted[-1] is fitted[0] or not result):
        name = setup.fitted.string or "string"
        result.append(_done(builds[0], "string", "set", name))
    return result


def _silencers(setup: "Setup") -> list[_Done]:
    """Mass on the string as it was told; none told before counts as none there."""
    told = _set("silencers", setup.string.builds, lambda build: build.silencers_gr)
    if not told:
        return []
    before = (datetime.min.replace(tzinfo=UTC), 0, "")
    return [(before, Event("silencers", "set", 0.0)), *told]


def _settled(string: StringNumbers) -> list[_Done]:
    told = string.facts.settled
    result = []
    if string.settling is not None and string.facts.braces:
        left = string.settling.now.p90_mm
        result.append(_done(string.facts.braces[-1], "settled", "set", left))
    if told is not None and told.reading.settled:
        result.append(_done(told, "settled", "set", 0.0))
    return result


def _weights_of_bow(bow: "BowNumbers") -> list[_Done]:
    """Every weighing, brought along the curve to one draw."""
    if bow.weight is None:
        return []
    curve = bow.weight.fitted
    force = cache(lambda draw_mm: curve.at(draw_mm - TRADE_OFFSET_MM))
    result = []
    for point in bow.weight.points:
        if point.recorded.reading.kind == "bow_weighed":
            there = max(force(point.draw_mm), 1e-9)
            value = point.weight.value * force(MARKED_DRAW_MM) / there
            result.append(_done(point.recorded, "weight_rough", "set", value))
    return result


@memo_by_equality
def _braces(
    facts: StringFacts, others: tuple[Recorded[Any], ...], grips: ArcherFacts
) -> list[_Done]:
    read = [
        *facts.braces,
        *facts.tried,
        *(other for other in others if isinstance(other.reading, BraceHeight | BraceTried)),
    ]
    return _set(
        "brace",
        read,
        lambda item: brace_read_to_pivot(item.brace_height_mm, item.datum, grips).value,
    )


def _nocks(setup: "Setup", nock: NockNumbers) -> list[_Done]:
    others = [other for other in setup.order.others if isinstance(other.reading, NockHeight)]
    return _set(
        "nock",
        [*setup.order.heights, *others],
        lambda item: lift_of(item.height_mm, item.datum, nock.arrow_nock).value,
    )


LN_PER_INCH, LN_PER_25_GR = PER_INCH, PER_25_GR
"""Source: the practice school of spine, an inch of shaft and 25 gr of point."""


class _Set:
    """One set of arrows as it is known so far: how heavy, and how stiff it stands on the bow."""

    def __init__(self) -> None:
        self.latest: dict[object, float] = {}
        self.total = 0.0
        self.stiffness = 0.0
        """ln, over what it was when first told."""
        self.parts: dict[str, float] = {}

    @property
    def value(self) -> tuple[float, float]:
        return math.log(self.total / len(self.latest)), self.stiffness

    def weigh(self, which: object, mass: float) -> None:
        self.total += mass - self.latest.get(which, 0.0)
        self.latest[which] = mass

    def build(self, told: ArrowBuild) -> bool:
        """Take parts as told; True where the arrows are others by it."""
        new = {name: getattr(told, name) for name in _PARTS}
        new = {name: value for name, value in new.items() if value is not None}
        more = {n: v - self.parts[n] for n, v in new.items() if self.parts.get(n, v) != v}
        tip = more.get("point_gr", 0.0) + more.get("insert_gr", 0.0)
        inches = more.get("shaft_length_mm", 0.0) / MM_PER_IN
        self.stiffness -= LN_PER_25_GR * tip / 25 + LN_PER_INCH * inches
        if "spine_lbf" in more:
            self.stiffness += math.log(new["spine_lbf"] / self.parts["spine_lbf"])
        self.parts |= new
        if not more or not self.latest:
            return False
        grains = tip + inches * self.parts.get("shaft_gr_per_in", 0.0)
        grains = max(grains, -min(self.latest.values()) / 2)  # no arrow weighs nothing
        for which, mass in self.latest.items():
            self.latest[which] = mass + grains
        self.total = sum(self.latest.values())
        return True


_PARTS = ("point_gr", "insert_gr", "shaft_length_mm", "spine_lbf", "shaft_gr_per_in")


@memo_by_equality
def _arrows(
    masses: tuple[Recorded[ArrowMassed], ...],
    builds: tuple[Recorded[ArrowBuild], ...],
    put_on: tuple[Recorded[PartFitted], ...],
    own: str | None,
) -> list[_Done]:
    """Arrows as they were known after each weighing and change; another set is another word."""
    arrows = _Set()
    result = []
    told: list[Recorded[Any]] = sorted([*masses, *builds], key=lambda mass: when(mass.entry))
    for number, recorded in enumerate(told):
        if isinstance(recorded.reading, ArrowMassed):
            key = recorded.reading.arrow_number
            which = key if key is not None else f"unnumbered {number}"
            arrows.weigh(which, recorded.reading.arrow_mass_gr)
        elif not arrows.build(recorded.reading):
            continue
        result.append(_done(recorded, "arrows", "set", arrows.value))
    known = result[-1][1].value if result else None
    fitted = [part for part in put_on if part.reading.part == "arrow_set"]
    for one_set in fitted[1:]:
        part = one_set.reading.part_id
        value_now = known if part == own and known is not None else part or "none"
        result.append(_done(one_set, "arrows", "set", value_now))
    return result


def _centres(
    centres: tuple[Recorded[CentreShot], ...], passes: tuple[Recorded[ArrowPass], ...]
) -> list[_Done]:
    """Where the arrow stands across the bow: as measured, and moved with the face it lies on.

    The face alone says it where nobody measured; a face that never moved says nothing.
    """
    faces = [item for item in passes if item.reading.window_mm is not None]
    if len({face.reading.window_mm for face in faces}) < 2:
        return _set("centre_shot", centres, lambda item: item.out_mm)
    told: list[Recorded[Any]] = sorted([*centres, *faces], key=lambda centre: when(centre.entry))
    face, apart = faces[0].reading.window_mm or 0.0, 0.0
    for recorded in told:
        if isinstance(recorded.reading, CentreShot):
            apart = (
                recorded.reading.out_mm - face
            )  # what is measured first says where the face stood
            break
        face = recorded.reading.window_mm
    result: list[_Done] = []
    face = faces[0].reading.window_mm or 0.0
    for recorded in told:
        if isinstance(recorded.reading, CentreShot):
            apart = recorded.reading.out_mm - face
        else:
            face = recorded.reading.window_mm
        result.append(_done(recorded, "centre_shot", "set", face + apart))
    return result


def _off(reading: LimbsInLine) -> float:
    return max(reading.upper_mm, reading.lower_mm, key=abs)


def _riser(setup: "Setup") -> list[_Done]:
    facts = setup.order
    result = [
        *_set("limb_alignment", facts.in_line, _off),
        *_set("tiller_rough", facts.tillers, lambda item: item.more_mm),
    ]
    in_line = min((when(item.entry) for item in facts.in_line), default=None)
    final = [
        tiller for tiller in facts.tillers if in_line is not None and when(tiller.entry) > in_line
    ]
    result += _set("tiller", final, lambda item: item.more_mm)
    on: dict[str, tuple[float, float]] = {}
    for weight in facts.weights:
        on[weight.reading.place] = (
            weight.reading.mass_g,
            weight.reading.mass_g * weight.reading.up_mm,
        )
        grams = sum(mass for mass, _ in on.values())
        moment = sum(moment for _, moment in on.values()) / MOMENT_MM
        result.append(_done(weight, "riser_weights", "set", RiserLoad(grams, moment)))
    return result
