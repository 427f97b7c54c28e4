"""A recording that was brought, listened to as what it is: takes, shots at a butt, or taps.

What comes out is said as drafts of entries, which are recorded only when somebody says so.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple

import numpy as np

from lyrandis.core.bow.readings import ArrowSpeed
from lyrandis.core.by_ear import ByEar
from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError
from lyrandis.core.estimate import Estimate
from lyrandis.core.listen.hear import Listened, Progress, StringVoice, as_take, hear
from lyrandis.core.listen.quality import may, quality_of
from lyrandis.core.listen.readings import (
    MOST_TAKES,
    MovedOnset,
    PartialHeard,
    ShaftTapped,
    SoundHeard,
    TapHeard,
)
from lyrandis.core.listen.shafts import Ringing
from lyrandis.core.listen.shot_marks import TOO_SOFT_S, HeardShot, heard_shots
from lyrandis.core.listen.shot_time import (
    SPEED_SHARE,
    Range,
    agrees,
    flight_s,
    launch_mps,
    several,
)
from lyrandis.core.listen.sound import (
    Samples,
    Sound,
    at_working_rate,
    best_channel,
    frames,
    level,
    levels,
)
from lyrandis.core.listen.takes import Take, added_takes, takes_of
from lyrandis.core.listen.tap import APART_SHARE, FITS_BETTER, LEAST_OVER_DB, Tapped, tapped
from lyrandis.core.listen.traces import Trace, overview, traces
from lyrandis.core.listen.words import TROUBLE_WORDS, TappedState, What
from lyrandis.core.phrase import Phrase, percent, phrase
from lyrandis.core.string.sweep import loudness_of

SHOT_FROM_S, SHOT_TO_S = -0.1, 1.0
SHOT_COLUMNS = 550
LEAST_FLIGHT_S = 0.03
LEAST_AFTER_S = 0.1
"""So much of a recording is left behind a place where something begins."""
ROOM_MS, ROOM_PERCENTILE = 20, 20
"""The room between taps: a quiet one of all stretches of 20 ms."""
LEAST_RING_HZ, MOST_RING_HZ = 20.0, 600.0
"""What a shaft may be recorded to ring at."""


class WholeSound(Drawn):
    """A recording from end to end, and where its takes begin [s]."""

    seconds: float = 0.0
    at_s: tuple[float, ...] = ()
    overview: tuple[int, ...] = ()
    """Its loudness, in hundredths of 60 dB."""


class Hearing(Drawn):
    """Takes that were found, and the reading they would be."""

    draft: SoundHeard | None
    """None where nothing may be recorded of it; `troubles` then say why."""
    troubles: tuple[str, ...]
    traces: tuple[Trace, ...]
    level_half_db: float | None = None
    """How well the takes' level is known; None where it compares with nothing."""
    others: tuple[int, ...] = ()
    """Numbers of takes that sound like another bow's."""
    whole: WholeSound = WholeSound()


class Sounded(NamedTuple):
    """What names a recording in the readings made of it."""

    mark: str
    name: str
    lossy: bool


def check_places(places: Iterable[float], seconds: float) -> None:
    """Raise `DomainError` for a place behind a recording's end [s]. Source: definition.

    >>> check_places([600.0], 8.2)
    Traceback (most recent call last):
    ...
    lyrandis.core.errors.DomainError: There is nothing at 600.0 s: the recording ends at 8.2 s.
    """
    for place in places:
        if place > seconds - LEAST_AFTER_S:
            raise DomainError(
                "out_of_range",
                f"There is nothing at {place:.1f} s: the recording ends at {seconds:.1f} s.",
                "Put it where the sound begins, or strike the take out.",
                "at_s",
            )


def hearing(
    samples: Samples,
    rate: float,
    what: What,
    voice: StringVoice,
    sounded: Sounded,
    *,
    struck: Sequence[int] = (),
    moved: Mapping[int, float] | None = None,
    added: Sequence[float] = (),
    same_place: bool = False,
    progress: Progress = lambda _: None,
) -> Hearing:
    """Listen to plucks, shots or knocks, and say what would be recorded.

    Source: `hear`.

    >>> named = Sounded("0" * 16, "a", False)
    >>> hearing(np.zeros(9000), 16000.0, "pluck", StringVoice(), named).draft is None
    True
    """
    moved = moved or {}
    result = hear(samples, rate, what, voice, struck=struck, moved=moved, added=added,
                  progress=progress)  # fmt: skip
    seconds = len(samples) / rate
    said = tuple(TROUBLE_WORDS[trouble] for trouble in result.quality.troubles)
    takes = []
    for number, feature in enumerate(result.features, 1):
        takes.append(as_take(feature))
        progress(0.6 + 0.35 * number / len(result.features))
    heard = Hearing(
        draft=None, troubles=said, traces=traces(result.sound, [take.at_s for take in takes]),
        others=result.others, whole=_whole(result.sound, [take.at_s for take in takes]),
    )  # fmt: skip
    if not takes or not may(result.quality.troubles, "note"):
        return heard
    draft = _draft(result, what, sounded, seconds, rate, same_place=same_place).model_copy(
        update={
            "takes": tuple(takes),
            "added": tuple(round(at, 5) for at in added),
            "struck": tuple(sorted(n for n in set(struck) if n <= len(takes))),
            "moved": tuple(
                MovedOnset(take=n, at_s=at) for n, at in sorted(moved.items()) if n <= len(takes)
            ),
        }
    )
    levels = tuple(mark.level_db for mark in draft.counting)
    half = None
    if levels and may(result.quality.troubles, "levels"):
        half = round(2 * loudness_of(levels).sd, 3)
    return heard.model_copy(update={"draft": draft, "level_half_db": half})


def _whole(sound: Sound, at_s: Sequence[float]) -> WholeSound:
    return WholeSound(seconds=round(sound.seconds, 3), at_s=tuple(at_s), overview=overview(sound))


def _in_order(sound: Sound, added: Sequence[float], *, louder: bool = True) -> list[Take]:
    """Return takes as they follow each other, those added by hand among them."""
    alone = takes_of(sound, louder=louder)[: MOST_TAKES - len(added)]
    both = (*alone, *added_takes(sound, added, alone))
    return sorted(both, key=lambda take: take.onset_s)


def _draft(
    found: Listened, what: What, sounded: Sounded, seconds: float, rate: float, *, same_place: bool
) -> SoundHeard:
    note = found.note
    return SoundHeard(
        mark=sounded.mark,
        name=sounded.name,
        what=what,
        same_place=same_place,
        seconds=round(seconds, 3),
        rate_hz=rate,
        lossy=sounded.lossy,
        takes=tuple(as_take(feature) for feature in found.features[:1]),
        note_hz=round(note.value, 3) if note else None,
        note_half_hz=round(note.plus_minus, 3) if note else None,
        partials=tuple(PartialHeard(number=n, hz=round(hz, 3)) for n, hz in note.partials)
        if note
        else (),
        second=round(min(found.second.strength, 100.0), 2),
        second_ratio=found.second.ratio,
        line_db=round(found.line_db, 2),
        troubles=found.quality.troubles,
    )


def restruck(told: SoundHeard, struck: Sequence[int]) -> SoundHeard:
    """Return a reading with other takes struck out, where its recording is forgotten.

    What was pooled over all takes stays as it was. Source: definition.

    >>> from lyrandis.core.example import sound
    >>> len(restruck(sound(), (2, 9)).counting)
    2
    """
    wanted = tuple(sorted({number for number in struck if number <= len(told.takes)}))
    return told.model_copy(update={"struck": wanted})


class ShotSaid(Drawn):
    """One shot at a butt: where release and strike are heard, and the speed they make."""

    number: int
    release_s: float
    strike_s: float | None
    other_s: float | None
    """Another place where the strike may be as well."""
    over_db: float | None
    soft: bool
    """The strike rises slowly: a soft butt."""
    moved: bool
    speed_mps: float | None
    half_mps: float | None
    counts: bool
    why_not: str | None
    trace: Trace
    """From 100 ms before the release to a second after it."""


class SpeedHearing(Drawn):
    """Shots at a butt, and the speed they make together."""

    shots: tuple[ShotSaid, ...]
    speed_mps: float | None
    half_mps: float | None
    draft: ArrowSpeed | None
    because: tuple[Phrase, ...]
    expected_mps: float | None
    whole: WholeSound = WholeSound()
    agrees: bool = True
    """False where the mechanics expect another speed, by more than both are doubtful."""


class Marks(Drawn):
    """Release and strike of a shot as they were put by hand."""

    release_s: float
    strike_s: float


def speed_hearing(
    samples: Samples,
    rate: float,
    where: Range,
    drag: float,
    sounded: Sounded,
    *,
    expected_mps: float | None = None,
    marks: Mapping[int, Marks] | None = None,
    struck: Sequence[int] = (),
    added: Sequence[float] = (),
    arrow_mass_gr: float | None = None,
    same_place: bool = False,
    progress: Progress = lambda _: None,
) -> SpeedHearing:
    """Listen to shots at a butt, and say the speed they make.

    Shots are found as takes, those `added` by hand [s] among them; release and strike at the
    recording's own rate. Those struck out, or without a strike, do not count. The mechanics' speed
    only checks what comes out.
    Source: `heard_shots`, `launch_mps`, `several`.

    >>> speed_hearing(np.zeros(9000), 16000.0, Range(18.0, 0.75), 0.0018,
    ...               Sounded("0" * 16, "a", False)).shots
    ()
    """
    marks = marks or {}
    channel = best_channel(samples, rate)
    whole = Sound(channel - channel.mean() if len(channel) else channel, rate)  # type: ignore[arg-type]
    low = at_working_rate(channel, rate)
    takes = _in_order(low, added, louder=False)
    drawn = _whole(low, [take.onset_s for take in takes])
    progress(0.3)
    found = _heard_together(whole, takes, struck)
    progress(0.7)
    shots: list[ShotSaid] = []
    speeds: list[Estimate] = []
    for number, (take, heard) in enumerate(zip(takes, found, strict=True), 1):
        put = marks.get(number)
        if put is not None:
            # put by hand it is where the eye sees it; what is soft stays as doubtful
            by_hand = HeardShot(put.release_s, put.strike_s)
            heard = by_hand if heard is None else replace(
                heard, release_s=put.release_s, strike_s=put.strike_s, other_s=None
            )  # fmt: skip
        shot, speed = _shot(whole, number, take, heard, where, drag,
                            moved=put is not None, struck=number in struck)  # fmt: skip
        shots.append(shot)
        if speed is not None and shot.counts:
            speeds.append(speed)
        progress(0.7 + 0.3 * number / len(takes))
    if not speeds:
        return SpeedHearing(shots=tuple(shots), speed_mps=None, half_mps=None, draft=None,
                            because=(), expected_mps=expected_mps, whole=drawn)  # fmt: skip
    together = several(speeds)
    draft = ArrowSpeed(
        speed_mps=round(together.value, 3),
        arrow_mass_gr=arrow_mass_gr,
        ear=ByEar(mark=sounded.mark, half=round(together.plus_minus, 3), same_place=same_place),
    )
    return SpeedHearing(
        shots=tuple(shots),
        speed_mps=together.value,
        half_mps=together.plus_minus,
        draft=draft,
        because=_speed_sum(
            len(speeds), where, together, soft=any(one.soft and one.counts for one in shots)
        ),
        whole=drawn,
        agrees=expected_mps is None or agrees(together, expected_mps),
        expected_mps=expected_mps,
    )


def _heard_together(
    whole: Sound, takes: Sequence[Take], struck: Sequence[int]
) -> list[HeardShot | None]:
    """Return each take's release and strike; those struck out are no measure for the others."""
    ends = [
        min([whole.seconds, *(t.onset_s - 0.1 for t in takes if t.onset_s > take.onset_s)])
        for take in takes
    ]
    result: list[HeardShot | None] = [None] * len(takes)
    out = [[n] for n in range(len(takes)) if n + 1 in struck]
    for numbers in ([n for n in range(len(takes)) if n + 1 not in struck], *out):
        onsets = [takes[n].onset_s for n in numbers]
        for n, heard in zip(
            numbers, heard_shots(whole, onsets, [ends[n] for n in numbers]), strict=True
        ):
            result[n] = heard
    return result


def _speed_sum(count: int, where: Range, together: Estimate, *, soft: bool) -> tuple[Phrase, ...]:
    shots = "One shot" if count == 1 else f"{count} shots"
    beside = "butt" if where.at_butt else "bow"
    return (
        phrase(f"{shots} at {where.butt_m:g} m, heard {where.microphone_m:g} m from the {beside}; "
               f"air {where.celsius:g} °C; the arrow's tip is {where.arrow_m:.2f} m ahead."),
        phrase(f"Air within 4 °C, distance within {2 * where.distance_sd_m:.2g} m, drag within "
               "half, onsets within 4 ms, and never better than {least}: {share} in all.",
               least=percent(2 * SPEED_SHARE),
               share=percent(together.plus_minus / together.value)),
        *([] if where.taped else [phrase("Measure the distance with a tape: it is most of the "
                                         "doubt.")]),
        *([phrase("The butt is soft: the strike rises slowly, and the ± is as wide as that makes "
                  "it.")] if soft else []),
    )  # fmt: skip


def _shot(
    whole: Sound, number: int, take: Take, found: HeardShot | None, where: Range, drag: float,
    *, moved: bool, struck: bool,
) -> tuple[ShotSaid, Estimate | None]:  # fmt: skip
    release = found.release_s if found else take.onset_s
    drawn = traces(whole, [release], from_s=SHOT_FROM_S, to_s=SHOT_TO_S, columns=SHOT_COLUMNS)
    why, speed = None, None
    if found is None:
        why = "No strike was heard: drag it there, or strike the shot out."
    else:
        if flight_s(found.release_s, found.strike_s, where) < LEAST_FLIGHT_S:
            why = "The strike comes before the arrow can be there."
        else:
            onsets = float(np.hypot(found.release_sd_s, found.strike_sd_s))
            speed = launch_mps(found.release_s, found.strike_s, where, drag, onsets)
            if found.rise_s > TOO_SOFT_S and not moved:
                why = "The butt is too soft: its sound does not say when the arrow struck. Drag it."
            if not 15 <= speed.value <= 120:
                why, speed = "No arrow is as fast or slow as that: see distance and marks.", None
    if why is None and struck:
        why = "Struck out."
    return (
        ShotSaid(
            number=number,
            release_s=release,
            strike_s=found.strike_s if found else None,
            other_s=found.other_s if found else None,
            over_db=found.over_db if found else None,
            soft=found is not None and found.soft,
            moved=moved,
            speed_mps=speed.value if speed else None,
            half_mps=speed.plus_minus if speed else None,
            counts=why is None,
            why_not=why,
            trace=drawn[0],
        ),
        speed,
    )


class TapSaid(Drawn):
    """One tap, and the shaft it is of."""

    take: int
    at_s: float
    number: int
    quarter: bool
    ring_hz: float | None
    half_hz: float | None
    lines: int
    over_db: float
    why_not: str | None


class TapHearing(Drawn):
    """Taps of shafts one after another, and the readings they would be."""

    taps: tuple[TapSaid, ...]
    drafts: tuple[ShaftTapped, ...]
    troubles: tuple[str, ...]
    whole: WholeSound = WholeSound()


OTHER_STATE: dict[TappedState, str] = {
    "bare": "It rings as one with its point on: was the point on? Then say finished.",
    "finished": "It rings as a bare one: was the point off? Then say bare.",
}


def _fits_better(sound: Sound, onset_s: float, otherwise: Ringing, told: Tapped) -> bool:
    """Return whether the comb of the other state explains a tap better."""
    other = tapped(sound, onset_s, otherwise.notes, otherwise.doubts)
    return other is not None and other.fits > FITS_BETTER * told.fits


def numbered(
    count: int, first: int, again: Sequence[int], struck: Sequence[int]
) -> tuple[int, ...]:
    """Return the shaft of each tap: one after another, `again` repeats the one before it.

    Taps are counted from 1; one that is struck out takes no number of its own.
    Source: definition.

    >>> numbered(5, 1, (2, 4), ()), numbered(4, 3, (), (2,))
    ((1, 1, 2, 2, 3), (3, 3, 4, 5))
    """
    result: list[int] = []
    shaft = first - 1
    for tap in range(1, count + 1):
        if tap not in struck and (tap not in again or shaft < first):
            shaft += 1
        result.append(max(shaft, first))
    return tuple(result)


def tap_hearing(
    samples: Samples,
    rate: float,
    ringing: Ringing,
    sounded: Sounded,
    *,
    state: TappedState = "bare",
    otherwise: Ringing | None = None,
    first: int = 1,
    again: Sequence[int] = (),
    quarter: Sequence[int] = (),
    struck: Sequence[int] = (),
    added: Sequence[float] = (),
    progress: Progress = lambda _: None,
) -> TapHearing:
    """Listen to shafts that are tapped one after another.

    Those `added` by hand [s] count in their order. `otherwise` are the notes with the point on
    where it is told to be off, or off for on: a tap they fit better is asked about. One that stands
    less than 15 dB out of the room, or whose lines are no comb, is refused.
    Source: `tapped`; the comb's lowest note of a usual shaft's series, which its own mass scales.

    >>> comb = Ringing((60.0, 165.4), (0.0, 0.0), 0.01)
    >>> tap_hearing(np.zeros(9000), 16000.0, comb, Sounded("0" * 16, "a", False)).drafts
    ()
    """
    channel = best_channel(samples, rate)
    low = at_working_rate(channel, rate)
    takes = _in_order(low, added)
    quality = quality_of(channel, rate, ())
    troubles = tuple(
        TROUBLE_WORDS[trouble]
        for trouble in quality.troubles
        if trouble in ("too_quiet", "clipped") or (trouble == "no_takes" and not takes)
    )
    shafts = numbered(len(takes), first, again, struck)
    taps: list[TapSaid] = []
    room = float(np.percentile(levels(frames(low, ROOM_MS)), ROOM_PERCENTILE)) if takes else 0.0
    for number, (take, shaft) in enumerate(zip(takes, shafts, strict=True), 1):
        part = low.samples[round(take.onset_s * low.rate) : round((take.onset_s + 0.1) * low.rate)]
        over = level(float(np.mean(part**2))) - room if len(part) else 0.0
        result = tapped(low, take.onset_s, ringing.notes, ringing.doubts)
        ring = half = None
        why = "Struck out." if number in struck else None
        if over < LEAST_OVER_DB:
            why = why or f"Only {over:.0f} dB over the room: tap harder, nearer to the microphone."
        if result is None:
            why = why or "Not heard: hold it at the marks, tap harder."
        elif otherwise is not None and _fits_better(low, take.onset_s, otherwise, result):
            why = why or OTHER_STATE[state]
        elif result.apart > APART_SHARE:
            why = why or "Its lines do not belong together: hold it at the marks, tap again."
        else:
            ring = ringing.notes[0] * result.ei.value**0.5
            # the note goes with the root of the stiffness
            half = max(ring * max(result.ei.sd / result.ei.value, ringing.floor), 0.01)
            if not LEAST_RING_HZ <= ring <= MOST_RING_HZ:
                ring = half = None
                why = why or "No shaft rings like that: see its length and what it weighs."
        taps.append(
            TapSaid(
                take=number, at_s=take.onset_s, number=shaft, quarter=number in quarter,
                ring_hz=ring, half_hz=half, lines=len(result.lines) if result else 0,
                over_db=over, why_not=why,
            )
        )  # fmt: skip
        progress(number / len(takes))
    return TapHearing(
        taps=tuple(taps), drafts=_shafts(taps, sounded, state), troubles=troubles,
        whole=_whole(low, [take.onset_s for take in takes]),
    )  # fmt: skip


def _shafts(
    taps: Sequence[TapSaid], sounded: Sounded, state: TappedState
) -> tuple[ShaftTapped, ...]:
    by_shaft: dict[int, list[TapHeard]] = {}
    for tap in taps:
        if tap.why_not is None and tap.ring_hz is not None and tap.half_hz is not None:
            by_shaft.setdefault(tap.number, []).append(
                TapHeard(
                    at_s=round(tap.at_s, 4), ring_hz=round(tap.ring_hz, 3),
                    half_hz=round(tap.half_hz, 3), lines=tap.lines, quarter=tap.quarter,
                )
            )  # fmt: skip
    return tuple(
        ShaftTapped(arrow_number=number, state=state, mark=sounded.mark, taps=tuple(heard[:12]))
        for number, heard in sorted(by_shaft.items())
    )
