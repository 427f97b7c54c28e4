"""What Listen's pages draw: the recordings, two beside each other, the list, and tapped shafts."""

import math
from datetime import datetime
from typing import Literal

from lyrandis.core.computed import Computed
from lyrandis.core.constants import NEWTONS_PER_LBF
from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError
from lyrandis.core.listen.checklist import Check, checks
from lyrandis.core.listen.compare import Compared
from lyrandis.core.listen.numbers import HeardSound, Levels, Pair, Ring, note_in
from lyrandis.core.listen.readings import SoundHeard, TapHeard
from lyrandis.core.listen.rules import CHECKS, beforehand
from lyrandis.core.listen.shafts import (
    TAP_PLACE_MM,
    TappedSet,
    beam_as_tapped,
    best_band,
    first_mode,
    resting_nodes,
)
from lyrandis.core.listen.words import TROUBLE_WORDS, Fault, TappedState, What
from lyrandis.core.phrase import Phrase
from lyrandis.core.reading import Source
from lyrandis.core.stage_spec import Page

USUAL_BAND_LBF = 1.5
MOST_RECORDINGS = 40
SAME_SPINE_LBF = 0.02


class TakeSeen(Drawn):
    """One take of a recording."""

    number: int
    at_s: float
    struck: bool
    moved: bool
    level_db: float
    ring_s: float | None
    """At 250 Hz."""
    spikes_ms: tuple[int, ...]
    bursts_ms: tuple[int, ...]
    blow_s: float | None


class RecordingSeen(Drawn):
    """A recording as its numbers stand."""

    entry_id: str
    mark: str
    name: str
    what: What
    session: int
    same_place: bool
    at: datetime
    source: Source
    seconds: float
    rate_hz: float
    lossy: bool
    takes: tuple[TakeSeen, ...]
    added: tuple[float, ...]
    """Where takes were added by hand [s]."""
    note_hz: float | None
    note_half_hz: float | None
    troubles: tuple[str, ...]
    levels_hold: bool
    """False where its levels compare with nothing: overloaded, or the phone adjusts its gain."""


class Difference(Drawn):
    """A difference with its 95 % interval."""

    change: float
    half: float
    told: bool
    would_show: float
    sure: float


class RingSeen(Drawn):
    octave_hz: float
    before_s: float | None
    after_s: float | None
    half_s: float | None
    told: bool
    why_not: str | None


class PairBoard(Drawn):
    """Two recordings beside each other."""

    what: What
    before: str
    after: str
    before_count: int
    after_count: int
    how: Levels
    few: bool
    level: Difference | None
    rings: tuple[RingSeen, ...]
    bright_before_hz: float | None
    bright_after_hz: float | None
    bright: Difference | None
    """In per cent of the frequency."""
    note_before_hz: float | None
    note_after_hz: float | None
    note_cents: Difference | None
    changed: tuple[Phrase, ...]


class PointedSeen(Drawn):
    """What the sound points to."""

    fault: Fault | None
    sure: float
    enough: bool
    blind: bool
    """Nothing can be told with this recording: the phone adjusts its gain."""
    hint: bool
    proof: str | None
    because: tuple[Phrase, ...]
    """What the rig's own facts said beforehand; what the sound showed stands in the check list."""
    second: float
    second_ratio: float
    has_before: bool


class TensionSeen(Drawn):
    """The note and the tension, by ear and by the statics [lbf]."""

    note_hz: float
    expected_hz: float | None
    by_note_lbf: float
    by_note_half: float
    by_statics_lbf: float | None
    by_statics_half: float | None
    apart: float | None
    mass_weighed: bool
    serving_known: bool


class HoldPlaces(Drawn):
    """Where to hold and tap a shaft, from its nock's end [mm]."""

    length_mm: float
    nodes_mm: tuple[float, ...]
    tap_mm: float
    microphone_mm: float
    swing: tuple[float, ...]
    """The lowest note's shape along the shaft, largest 1."""


class ShaftSeen(Drawn):
    """A shaft that was tapped."""

    entry_id: str
    number: int
    state: TappedState
    mass_gr: float | None
    weighed: bool
    ring_hz: float
    taps: int
    spine_lbf: float | None
    half_lbf: float | None
    uneven: float | None
    kept: bool
    """Its spine by ear stands in the quiver as it is."""
    mark: str
    source: Source
    heard: tuple[TapHeard, ...]


class ShaftsBoard(Drawn):
    """Tapped shafts on one axis of spine, and the band that holds the most of them."""

    shafts: tuple[ShaftSeen, ...]
    width_lbf: float
    low_lbf: float | None
    high_lbf: float | None
    inside: tuple[int, ...]
    ratio: float
    ratio_half: float
    calibrated: tuple[int, ...]
    shared_half_lbf: float | None


class SpeedHeard(Drawn):
    entry_id: str
    mark: str
    speed_mps: float
    half_mps: float
    at: datetime


class BraceAt(Drawn):
    """The brace as it stands, for a shot that is recorded into the sweep."""

    brace_mm: float | None
    low_mm: float
    high_mm: float
    next_mm: float | None


class ListenPage(Page):
    """What Listen's pages draw."""

    stage: Literal["listen"] = "listen"
    recordings: tuple[RecordingSeen, ...]
    pair: PairBoard | None
    checks: tuple[Check, ...]
    pointed: PointedSeen | None
    tension: TensionSeen | None
    expected_hz: float | None
    """The string's note by the statics, before anything is heard."""
    plucked: bool
    """A pluck was heard, though perhaps of another brace or string."""
    hold_bare: HoldPlaces
    hold_finished: HoldPlaces
    shafts: ShaftsBoard | None
    speeds: tuple[SpeedHeard, ...]
    expected_mps: float | None
    arrow_mass_gr: float | None
    brace: BraceAt


def page(c: Computed) -> ListenPage:
    """Return what Listen's pages draw."""
    listen = c.listen
    mass = c.arrow.finished.mass.value if c.arrow.finished else None
    thrust = c.bow.thrust
    low, high = c.string.limits
    quiet = c.string.quiet
    return ListenPage(
        recordings=tuple(_recording(c, item) for item in listen.facts.heard[-MOST_RECORDINGS:]),
        pair=pair_board(listen.pair) if listen.pair else None,
        checks=checks(c),
        pointed=_pointed(c),
        tension=_tension(c),
        expected_hz=listen.braced.expected_hz if listen.braced else None,
        plucked=bool(listen.of("pluck")),
        hold_bare=_places(c, "bare"),
        hold_finished=_places(c, "finished"),
        shafts=shafts_board(c, USUAL_BAND_LBF),
        speeds=tuple(
            SpeedHeard(
                entry_id=speed.entry.id, mark=speed.reading.ear.mark,
                speed_mps=speed.reading.speed_mps,
                half_mps=speed.reading.ear.half, at=speed.entry.happened_at,
            )
            for speed in listen.speeds
            if speed.reading.ear is not None
        ),
        expected_mps=thrust.speed(mass) if thrust and mass else None,
        arrow_mass_gr=mass,
        brace=BraceAt(
            brace_mm=c.string.brace.value if c.string.brace else None,
            low_mm=low, high_mm=high, next_mm=quiet.next_mm if quiet else None,
        ),
    )  # fmt: skip


def _recording(c: Computed, one: HeardSound) -> RecordingSeen:
    told: SoundHeard = one.reading
    moved = {each.take for each in told.moved}
    return RecordingSeen(
        entry_id=one.entry.id,
        mark=told.mark,
        name=told.name,
        what=told.what,
        session=c.listen.sessions[told.mark],
        same_place=told.same_place,
        at=one.entry.happened_at,
        source=one.entry.source,
        seconds=told.seconds,
        rate_hz=told.rate_hz,
        lossy=told.lossy,
        added=told.added,
        takes=tuple(
            TakeSeen(
                number=number, at_s=take.at_s, struck=number in told.struck,
                moved=number in moved, level_db=take.level_db, ring_s=take.ring_s[1],
                spikes_ms=take.spikes_ms, bursts_ms=take.bursts_ms, blow_s=take.blow_s,
            )
            for number, take in enumerate(told.takes, 1)
        ),
        note_hz=told.note_hz,
        note_half_hz=told.note_half_hz,
        troubles=tuple(TROUBLE_WORDS[trouble] for trouble in told.troubles),
        levels_hold=not ({"clipped", "gain_rides"} & set(told.troubles))
        and not c.listen.gain_rides(one),
    )  # fmt: skip


def _change(found: Compared | None, per: float = 1.0) -> Difference | None:
    if found is None:
        return None
    return Difference(
        change=per * found.change_db, half=per * found.half_db, told=found.told_apart,
        would_show=per * found.would_show_db, sure=found.sure,
    )  # fmt: skip


def _ring(one: Ring) -> RingSeen:
    after = one.after_s
    half = after * one.change.half_db if after is not None and one.change else None
    missing = one.before_s is None or after is None
    return RingSeen(
        octave_hz=one.octave_hz,
        before_s=one.before_s,
        after_s=after,
        half_s=half,
        told=one.change.told_apart if one.change else False,
        why_not="too noisy, or cut by the arrow's blow" if missing else None,
    )


def pair_board(pair: Pair) -> PairBoard:
    """Return two recordings beside each other.

    Source: `ListenNumbers.beside`.

    >>> from lyrandis.core.example import rig
    >>> rig().listen.pair is None
    True
    """
    before, after = pair.before.reading, pair.after.reading
    first, last = note_in(before), note_in(after)
    cents = None
    if pair.note is not None:
        change, half = 1200 * math.log2(pair.note.value), 1200 * 2 * pair.note.sd / math.log(2)
        cents = Difference(change=change, half=half, told=abs(change) > half, would_show=1.7 * half,
                       sure=0.95)  # fmt: skip
    return PairBoard(
        what=after.what,
        before=before.mark,
        after=after.mark,
        before_count=len(before.counting),
        after_count=len(after.counting),
        how=pair.how,
        few=pair.few,
        level=_change(pair.level),
        rings=tuple(_ring(ring) for ring in pair.rings),
        bright_before_hz=_middle(before, "centroid_hz"),
        bright_after_hz=_middle(after, "centroid_hz"),
        bright=_change(pair.bright, 100.0),
        note_before_hz=first.value if first else None,
        note_after_hz=last.value if last else None,
        note_cents=cents,
        changed=tuple(item.says for item in pair.changed),
    )


def _middle(heard: SoundHeard, name: str) -> float | None:
    values = sorted(getattr(take, name) for take in heard.counting)
    return float(values[len(values) // 2]) if values else None


def board_of(c: Computed, before: str, after: str) -> PairBoard:
    """Return two chosen recordings beside each other.

    Raises `DomainError` where one of them is not known or they are of two kinds.
    Source: `ListenNumbers.beside`.

    >>> from lyrandis.core.example import rig
    >>> board_of(rig(), "0" * 16, "1" * 16)
    Traceback (most recent call last):
    ...
    lyrandis.core.errors.DomainError: That recording is not here.
    """
    sides = [c.listen.heard(mark) for mark in (before, after)]
    one, other = sides
    if one is None or other is None or not (one.reading.counting and other.reading.counting):
        raise DomainError(
            "no_such_entry", "That recording is not here.", "Choose one of the list.", "before"
        )
    if one.reading.what != other.reading.what:
        raise DomainError(
            "unlike_places",
            "A pluck and a shot are not compared.",
            "Choose two of one kind.",
            "after",
        )
    return pair_board(c.listen.beside(one, other))


def _pointed(c: Computed) -> PointedSeen | None:
    result = c.listen.pointed
    if result is None:
        return None
    return PointedSeen(
        fault=result.fault,
        sure=result.sure,
        enough=result.enough,
        blind=result.blind,
        hint=result.hint,
        proof=CHECKS[result.fault] if result.fault else None,
        because=beforehand(c),
        second=result.second,
        second_ratio=result.second_ratio,
        has_before=result.louder is not None or result.rattle is not None,
    )


def _tension(c: Computed) -> TensionSeen | None:
    result, braced = c.listen.tension, c.listen.braced
    if result is None or braced is None:
        return None
    statics = result.by_statics
    return TensionSeen(
        note_hz=result.note.value,
        expected_hz=braced.expected_hz,
        by_note_lbf=result.by_note.value / NEWTONS_PER_LBF,
        by_note_half=result.by_note.plus_minus / NEWTONS_PER_LBF,
        by_statics_lbf=statics.value / NEWTONS_PER_LBF if statics else None,
        by_statics_half=statics.plus_minus / NEWTONS_PER_LBF if statics else None,
        apart=result.apart,
        mass_weighed=braced.mass_weighed,
        serving_known=braced.serving_known,
    )


def _places(c: Computed, state: TappedState) -> HoldPlaces:
    beam = beam_as_tapped(c.arrow.sheet, state, None)
    low, high = resting_nodes(beam)
    return HoldPlaces(
        length_mm=1000 * beam.length,
        nodes_mm=(1000 * low, 1000 * high),
        tap_mm=1000 * beam.length - TAP_PLACE_MM,
        microphone_mm=500 * beam.length,
        swing=first_mode(beam),
    )


def _same(kept_lbf: float | None, heard_lbf: float) -> bool:
    return kept_lbf is not None and abs(kept_lbf - heard_lbf) < SAME_SPINE_LBF


def shafts_board(c: Computed, width_lbf: float) -> ShaftsBoard | None:
    """Return the tapped shafts and the place of a band of some width; None where none was tapped.

    Source: `tapped_set`, `best_band`.

    >>> from lyrandis.core.example import rig
    >>> shafts_board(rig(), 1.5) is None
    True
    """
    result: TappedSet | None = c.listen.shafts
    if result is None:
        return None
    kept = {arrow.number: arrow.spine_lbf for arrow in c.arrow.quiver}
    told = {shaft.entry.id: shaft for shaft in c.listen.facts.tapped}
    band = best_band(result.shafts, width_lbf)
    known = [shaft.spine.value for shaft in result.shafts if shaft.spine is not None]
    return ShaftsBoard(
        shafts=tuple(
            ShaftSeen(
                entry_id=shaft.entry_id, number=shaft.number, state=shaft.state,
                mass_gr=shaft.mass_gr,
                weighed=shaft.weighed, ring_hz=shaft.ring_hz, taps=shaft.taps,
                spine_lbf=shaft.spine.value if shaft.spine else None,
                half_lbf=shaft.spine.plus_minus if shaft.spine else None,
                uneven=shaft.uneven,
                kept=shaft.spine is not None and _same(kept.get(shaft.number), shaft.spine.value),
                mark=told[shaft.entry_id].reading.mark, source=told[shaft.entry_id].source,
                heard=told[shaft.entry_id].reading.taps,
            )
            for shaft in result.shafts
        ),
        width_lbf=width_lbf,
        low_lbf=band.low if band else None,
        high_lbf=band.high if band else None,
        inside=band.numbers if band else (),
        ratio=result.ratio.value,
        ratio_half=result.ratio.plus_minus,
        calibrated=result.calibrated,
        shared_half_lbf=2 * result.shared * sum(known) / len(known) if known else None,
    )  # fmt: skip
