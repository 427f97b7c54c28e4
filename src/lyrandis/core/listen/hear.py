"""Listening to one recording of plucks, shots or knocks: samples in, the reading's numbers out."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from lyrandis.core.listen.features import OCTAVES_HZ, Features, line_of
from lyrandis.core.listen.noise import room_of
from lyrandis.core.listen.others import of_another_bow
from lyrandis.core.listen.pitch import StringNote, note_of
from lyrandis.core.listen.quality import Quality, quality_of
from lyrandis.core.listen.readings import MOST_TAKES, MOST_TIMES, TakeHeard
from lyrandis.core.listen.second import Second, second_pitch
from lyrandis.core.listen.sound import Samples, Sound, at_working_rate, best_channel
from lyrandis.core.listen.takes import BEFORE_NEXT_S, Take, added_takes, takes_of
from lyrandis.core.listen.words import What

USUAL_NOTE_HZ = 90.0
"""Assumption: a braced string's lowest note where nothing is known of the rig."""
PLAIN_SERIES = tuple(float(n) for n in range(1, 14))
Progress = Callable[[float], None]


@dataclass(frozen=True)
class StringVoice:
    """How the rig's string would sound: its series over the lowest note, and that note."""

    series: tuple[float, ...] = PLAIN_SERIES
    expected_hz: float | None = None


@dataclass(frozen=True)
class Listened:
    """A recording, listened to."""

    sound: Sound
    takes: tuple[Take, ...]
    features: tuple[Features, ...]
    note: StringNote | None
    second: Second
    line_db: float
    quality: Quality
    others: tuple[int, ...] = ()
    """Numbers of takes that sound like another bow."""


def hear(
    samples: Samples,
    rate: float,
    what: What,
    voice: StringVoice,
    *,
    struck: Sequence[int] = (),
    moved: Mapping[int, float] | None = None,
    added: Sequence[float] = (),
    progress: Progress = lambda _: None,
) -> Listened:
    """Listen to a recording of shape (samples,) or (samples, channels), full scale 1.

    `struck` are numbers of takes that do not count where takes are pooled, `moved` onsets put by
    hand; both number the takes from 1 as they are found, then those `added` by hand [s], in the
    order they were added. `progress` is told shares from 0 to 1.
    Errors: none; a recording without a take has none, and its quality says so.
    Source: the order of mechanics here; each step names its own.

    >>> import numpy as np
    >>> at = np.arange(40000) / 16000
    >>> tone = np.where(at > 0.5, np.sin(600 * at) * np.exp(-8 * (at - 0.5)), 0) + 1e-3
    >>> len(hear(tone, 16000.0, "pluck", StringVoice()).takes)
    1
    """
    channel = best_channel(samples, rate)
    sound = at_working_rate(channel, rate)
    progress(0.2)
    alone = takes_of(sound)[: MOST_TAKES - len(added)]
    by_hand = added_takes(sound, added, alone)
    alone = tuple(_before(take, [one.onset_s for one in by_hand]) for take in alone)
    takes = [_placed(take, number, moved or {}, sound)
             for number, take in enumerate((*alone, *by_hand), 1)]  # fmt: skip
    room = room_of(sound, takes)
    progress(0.4)
    counting = [take for number, take in enumerate(takes, 1) if number not in struck]
    note = note_of(sound, counting, voice.series, voice.expected_hz) if what == "pluck" else None
    progress(0.5)
    second = Second(0.0, 1.0)
    if note is not None:
        second = second_pitch(sound, counting, voice.series, note.value)
    progress(0.6)
    hz = note.value if note else voice.expected_hz or USUAL_NOTE_HZ
    features = tuple(Features(sound, take, room, 1 / hz) for take in takes)
    line = line_of(sound, counting)
    heard = [feature for number, feature in enumerate(features, 1) if number not in struck]
    by_time = sorted(heard, key=lambda feature: feature.take.onset_s)
    # a take somebody added by hand is theirs
    others = tuple(number for number in of_another_bow(features) if number <= len(alone))
    quality = quality_of(channel, rate, by_time)
    if any(number not in struck for number in others):
        quality = Quality((*quality.troubles, "others"))
    return Listened(sound, tuple(takes), features, note, second, line, quality, others)


def _before(take: Take, starts: Sequence[float]) -> Take:
    """Return a take that ends before one that was added by hand begins."""
    later = [start - BEFORE_NEXT_S for start in starts if start > take.onset_s]
    return replace(take, end_s=min([take.end_s, *later]))


def _placed(take: Take, number: int, moved: Mapping[int, float], sound: Sound) -> Take:
    at = moved.get(number)
    if at is None:
        return take
    at = min(max(at, 0.0), sound.seconds)
    return replace(take, onset_s=at, end_s=max(take.end_s, at))


def as_take(one: Features) -> TakeHeard:
    """Return one take's features as they are recorded.

    Source: definition.

    >>> import numpy as np
    >>> at = np.arange(40000) / 16000
    >>> tone = np.where(at > 0.5, np.sin(600 * at) * np.exp(-8 * (at - 0.5)), 0) + 1e-3
    >>> round(as_take(hear(tone, 16000.0, "shot", StringVoice()).features[0]).at_s, 2)
    0.5
    """
    spikes, crack = one.spikes, one.crack
    rings = tuple(_rounded(one.t60(octave)) for octave in OCTAVES_HZ)
    blow = one.take.blow_s
    return TakeHeard(
        at_s=round(one.take.onset_s, 5),
        level_db=round(one.level, 2),
        peak_db=round(one.peak, 2),
        snr_db=round(one.snr, 1),
        centroid_hz=round(one.centroid, 1),
        ring_s=rings,
        cells_db=tuple(round(float(cell), 1) for cell in one.z.ravel()),
        rep=round(spikes.rep, 2),
        unrep=round(spikes.unrep, 2),
        excess_db=round(spikes.excess, 1),
        bursts=crack.bursts,
        spread_ms=round(crack.spread_ms, 2),
        crest_db=round(crack.crest_db, 1),
        sync=round(one.sync, 3),
        slap=round(one.slap, 3),
        spikes_ms=spikes.at_ms[:MOST_TIMES],
        bursts_ms=crack.at_ms[:MOST_TIMES],
        blow_s=None if blow is None else round(blow - one.take.onset_s, 4),
    )


def _rounded(ring: float | None) -> float | None:
    return None if ring is None else round(ring, 4)
