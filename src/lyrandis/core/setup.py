"""Folding entries into the setup: what is known of a rig, each fact with its entry."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from operator import attrgetter
from typing import Any, Generic, NamedTuple, TypeVar, cast

from lyrandis.core import entries as e

R = TypeVar("R", bound=e.BaseReading)
R_co = TypeVar("R_co", bound=e.BaseReading, covariant=True)


class Recorded(NamedTuple, Generic[R_co]):
    """A reading in force, with where it came from."""

    reading: R_co
    entry: e.Entry
    on_rig: bool = False
    """True when it was recorded on this rig rather than on the part in general."""

    @property
    def source(self) -> e.Source:
        return self.entry.source


def _newest(told: Sequence[Recorded[R]], name: str) -> tuple[Any, Recorded[R] | None]:
    for recorded in reversed(told):
        value = getattr(recorded.reading, name)
        if value is not None:
            return value, recorded
    return None, None


@dataclass(frozen=True)
class ArcherSetup:
    name: str | None = None
    marked: tuple[Recorded[e.DrawMarked], ...] = ()
    on_scale: tuple[Recorded[e.DrawOnScale], ...] = ()
    stated: tuple[Recorded[e.DrawStated], ...] = ()
    arm_tapes: tuple[Recorded[e.ArmTape], ...] = ()
    arm_spans: tuple[Recorded[e.ArmSpan], ...] = ()
    hook_depth: Recorded[e.HookDepth] | None = None
    hold: Recorded[e.HoldChosen] | None = None
    anchor: Recorded[e.AnchorChosen] | None = None
    hand: Recorded[e.HandChosen] | None = None
    purpose: Recorded[e.PurposeChosen] | None = None
    wished_weight: Recorded[e.WeightWished] | None = None


@dataclass(frozen=True)
class BowSetup:
    name: str | None = None
    family: Recorded[e.BowFamily] | None = None
    length: Recorded[e.BowLength] | None = None
    riser_length: Recorded[e.RiserLength] | None = None
    mark: Recorded[e.BowMark] | None = None
    weighed: tuple[Recorded[e.BowWeighed], ...] = ()
    draw_limit: Recorded[e.DrawLimit] | None = None
    arrow_minimum: Recorded[e.ArrowMinimum] | None = None
    brace_range: Recorded[e.BraceRange] | None = None
    limb_pair: Recorded[e.LimbPair] | None = None
    inspections: tuple[Recorded[e.Inspected], ...] = ()
    arrow_pass: tuple[Recorded[e.ArrowPass], ...] = ()
    back_depth: Recorded[e.GripDepth] | None = None
    belly_depth: Recorded[e.GripDepth] | None = None

    def passing(self, name: str) -> tuple[Any, Recorded[e.ArrowPass] | None]:
        """Return the newest value told of the arrow pass, and the entry that gave it."""
        return _newest(self.arrow_pass, name)


@dataclass(frozen=True)
class StringSetup:
    name: str | None = None
    builds: tuple[Recorded[e.StringBuild], ...] = ()
    fitted_at: datetime | None = None
    """When this string came onto the rig."""


@dataclass(frozen=True)
class ArrowSetup:
    name: str | None = None
    masses: tuple[Recorded[e.ArrowMassed], ...] = ()
    builds: tuple[Recorded[e.ArrowBuild], ...] = ()
    numbered: tuple[Recorded[e.NumberedArrow], ...] = ()
    tapers: tuple[Recorded[e.TaperShot], ...] = ()

    @property
    def material(self) -> e.ShaftMaterial | None:
        """What the shafts are made of, as last said."""
        return next((b.reading.material for b in reversed(self.builds) if b.reading.material), None)

    def part(self, name: str) -> tuple[Any, Recorded[e.ArrowBuild] | None]:
        """Return the newest value given for one part of the arrow, and the entry that gave it."""
        return _newest(self.builds, name)

    @property
    def spine_told(self) -> bool:
        """True when the set's spine, or that of one of its arrows, is known."""
        told, _ = self.part("spine_lbf")
        return told is not None or any(one.reading.spine_lbf for one in self.numbered)

    @property
    def out_of_use(self) -> frozenset[int]:
        """Numbers of the arrows that are cracked or retired."""
        out: dict[int, dict[str, bool]] = {}
        for recorded in self.numbered:
            reading = recorded.reading
            told = out.setdefault(reading.arrow_number, {})
            if reading.state is not None:
                told["cracked"] = reading.state == "cracked"
            if reading.retired is not None:
                told["retired"] = reading.retired
        return frozenset(number for number, told in out.items() if any(told.values()))


@dataclass(frozen=True)
class Setup:
    """All that is in force for one rig. Lengths in mm, forces in lbf, masses in grains."""

    rig: str | None = None
    name: str | None = None
    put_away: bool = False
    revision: int = 0
    """Order number of the newest entry that was folded in."""
    entry_count: int = 0
    fitted: e.Fitted = field(default_factory=e.Fitted)
    archer: ArcherSetup = field(default_factory=ArcherSetup)
    bow: BowSetup = field(default_factory=BowSetup)
    string: StringSetup = field(default_factory=StringSetup)
    arrows: ArrowSetup = field(default_factory=ArrowSetup)
    brace_height: Recorded[e.BraceHeight] | None = None
    speeds: tuple[Recorded[e.ArrowSpeed], ...] = ()
    notes: tuple[Recorded[e.Noted], ...] = ()


def in_order(entries: Iterable[e.Entry]) -> list[e.Entry]:
    """Sort by when it happened, then by the order of recording."""
    return sorted(entries, key=attrgetter("happened_at", "seq", "id"))


def retracted_ids(entries: Sequence[e.Entry]) -> frozenset[str]:
    """Return the ids of entries that are taken back.

    A retraction counts against earlier entries only, and not when it is itself taken back.
    """
    retractions = [
        (entry.seq, entry.id, entry.reading.entry_id)
        for entry in entries
        if isinstance(entry.reading, e.Retraction)
    ]
    if not retractions:
        return frozenset()
    order = {entry.id: entry.seq for entry in entries}
    taken_back: set[str] = set()
    for seq, entry_id, target in sorted(retractions, reverse=True):
        if entry_id not in taken_back and order.get(target, seq) < seq:
            taken_back.add(target)
    return frozenset(taken_back)


def in_force(entries: Sequence[e.Entry]) -> list[e.Entry]:
    """Return the entries that stand, in order, retractions themselves left out."""
    gone = retracted_ids(entries)
    return in_order(
        entry
        for entry in entries
        if entry.id not in gone and not isinstance(entry.reading, e.Retraction)
    )


def parts_fitted(entries: Iterable[e.Entry], rig: str | None) -> e.Fitted:
    """Return the parts on the rig after these ordered entries.

    Without a rig the last subject of each kind stands for the fitted part, so that a bare list of
    readings can be judged.
    """
    parts: dict[str, str | None] = {}
    for entry in entries:
        if rig is None and entry.subject.kind != "rig":
            parts[entry.subject.kind] = entry.subject.id
        elif entry.subject.id == rig and isinstance(entry.reading, e.PartFitted):
            parts[entry.reading.part] = entry.reading.part_id
    return e.Fitted(**parts)


def fold(
    entries: Sequence[e.Entry], *, rig: str | None = None, as_of: datetime | None = None
) -> Setup:
    """Fold entries into the setup of one rig.

    `entries` may hold other rigs' and parts' entries and come in any order. `rig` defaults to the
    last rig spoken of; `as_of` leaves out what happened later. Never raises.
    """
    if as_of is not None:
        entries = [entry for entry in entries if entry.happened_at <= as_of]
    standing = in_force(entries)
    if rig is None:
        rig = next((s.subject.id for s in reversed(standing) if s.subject.kind == "rig"), None)
    fitted = parts_fitted(standing, rig)
    chosen = _of_rig(standing, rig, fitted)
    on_rig = chosen["rig"]
    away = _last(on_rig, e.PutAway)
    return Setup(
        rig=rig,
        name=_name(on_rig),
        put_away=away is not None and away.reading.away,
        revision=max((entry.seq for entry in entries), default=0),
        entry_count=len(entries),
        fitted=fitted,
        archer=_fold_archer(chosen["archer"], on_rig),
        bow=_fold_bow(chosen["bow"]),
        string=_fold_string(chosen["string"], on_rig),
        arrows=_fold_arrows(chosen["arrow_set"]),
        brace_height=_last(on_rig, e.BraceHeight),
        speeds=_all(on_rig, e.ArrowSpeed),
        notes=tuple(note for pile in chosen.values() for note in _all(pile, e.Noted)),
    )


Pile = dict[type[e.BaseReading], list[e.Entry]]
"""Standing entries of one subject, in order, by kind of reading."""


def _of_rig(standing: list[e.Entry], rig: str | None, fitted: e.Fitted) -> dict[str, Pile]:
    """Pile up the standing entries that speak of this rig as it is now, by kind of subject.

    A rig's own reading of bow or draw counts only with the parts it was made with.
    """
    wanted: dict[str, str | None] = {"rig": rig, **dict(fitted)}
    chosen: dict[str, Pile] = {kind: defaultdict(list) for kind in wanted}
    so_far: dict[str, str | None] = {}
    for entry in standing:
        kind, reading = entry.subject.kind, entry.reading
        if wanted[kind] != entry.subject.id:
            continue
        if kind == "rig":
            if isinstance(reading, e.PartFitted):
                so_far[reading.part] = reading.part_id
            elif not _same_parts(reading, entry.fitted or e.Fitted(**so_far), fitted):
                continue
        chosen[kind][type(reading)].append(entry)
    return chosen


_NEEDS_SAME_ARCHER = (
    e.DrawMarked,
    e.DrawOnScale,
    e.DrawStated,
    e.HookDepth,
    e.HoldChosen,
    e.AnchorChosen,
    e.HandChosen,
    e.WeightWished,
    e.ArrowSpeed,
)
_NEEDS_SAME_BOW = (
    e.DrawMarked,
    e.DrawOnScale,
    e.DrawStated,
    e.HookDepth,
    e.BraceHeight,
    e.ArrowSpeed,
)


def _same_parts(reading: e.Reading, then: e.Fitted, now: e.Fitted) -> bool:
    if isinstance(reading, _NEEDS_SAME_ARCHER) and then.archer != now.archer:
        return False
    if isinstance(reading, e.BraceHeight) and then.string != now.string:
        return False
    if isinstance(reading, e.ArrowSpeed) and reading.arrow_mass_gr is None:
        return then.bow == now.bow and then.arrow_set == now.arrow_set
    return not isinstance(reading, _NEEDS_SAME_BOW) or then.bow == now.bow


def _all(pile: Pile, kind: type[R], *, on_rig: bool = False) -> tuple[Recorded[R], ...]:
    return tuple(Recorded(cast(R, entry.reading), entry, on_rig) for entry in pile.get(kind, ()))


def _last(pile: Pile, kind: type[R], *, on_rig: bool = False) -> Recorded[R] | None:
    entries = pile.get(kind)
    return Recorded(cast(R, entries[-1].reading), entries[-1], on_rig) if entries else None


def _name(entries: Pile) -> str | None:
    named = _last(entries, e.Named)
    return None if named is None else named.reading.name


def _fold_archer(entries: Pile, on_rig: Pile) -> ArcherSetup:
    def every(kind: type[R]) -> tuple[Recorded[R], ...]:
        return _all(entries, kind) + _all(on_rig, kind, on_rig=True)

    def chosen(kind: type[R]) -> Recorded[R] | None:
        return _last(on_rig, kind, on_rig=True) or _last(entries, kind)

    return ArcherSetup(
        name=_name(entries),
        marked=every(e.DrawMarked),
        on_scale=every(e.DrawOnScale),
        stated=every(e.DrawStated),
        arm_tapes=every(e.ArmTape),
        arm_spans=every(e.ArmSpan),
        hook_depth=chosen(e.HookDepth),
        hold=chosen(e.HoldChosen),
        anchor=chosen(e.AnchorChosen),
        hand=chosen(e.HandChosen),
        purpose=chosen(e.PurposeChosen),
        wished_weight=chosen(e.WeightWished),
    )


def _fold_bow(entries: Pile) -> BowSetup:
    def depth(to: str) -> Recorded[e.GripDepth] | None:
        return _last_where(entries, e.GripDepth, lambda reading: reading.to == to)

    return BowSetup(
        name=_name(entries),
        family=_last(entries, e.BowFamily),
        length=_last(entries, e.BowLength),
        riser_length=_last(entries, e.RiserLength),
        mark=_last(entries, e.BowMark),
        weighed=_all(entries, e.BowWeighed),
        draw_limit=_last(entries, e.DrawLimit),
        arrow_minimum=_last(entries, e.ArrowMinimum),
        brace_range=_last(entries, e.BraceRange),
        limb_pair=_merged_limbs(entries),
        inspections=_all(entries, e.Inspected),
        arrow_pass=_all(entries, e.ArrowPass),
        back_depth=depth("back"),
        belly_depth=depth("belly"),
    )


def _merged_limbs(entries: Pile) -> Recorded[e.LimbPair] | None:
    """Return all that is told of the limbs: what a newer entry leaves out stays as it was."""
    told = _all(entries, e.LimbPair)
    if not told:
        return None
    given = {
        name: value
        for recorded in told
        for name, value in recorded.reading
        if value is not None and name != "kind"
    }
    return Recorded(e.LimbPair(**given), told[-1].entry)


def _last_where(entries: Pile, kind: type[R], wanted: Callable[[R], bool]) -> Recorded[R] | None:
    return next((r for r in reversed(_all(entries, kind)) if wanted(r.reading)), None)


def _fold_string(entries: Pile, on_rig: Pile) -> StringSetup:
    fitted = _last_where(on_rig, e.PartFitted, lambda reading: reading.part == "string")
    return StringSetup(
        name=_name(entries),
        builds=_all(entries, e.StringBuild),
        fitted_at=fitted.entry.happened_at if fitted else None,
    )


def _fold_arrows(entries: Pile) -> ArrowSetup:
    """Fold an arrow set: one mass per number, the newest; unnumbered readings add up."""
    newest: dict[object, Recorded[e.ArrowMassed]] = {}
    for mass in _all(entries, e.ArrowMassed):
        number = mass.reading.arrow_number
        newest[number if number is not None else mass.entry.id] = mass
    return ArrowSetup(
        name=_name(entries),
        masses=tuple(newest.values()),
        builds=_all(entries, e.ArrowBuild),
        numbered=_all(entries, e.NumberedArrow),
        tapers=_all(entries, e.TaperShot),
    )
