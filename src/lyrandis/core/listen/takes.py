"""Takes: where in a recording plucks and shots begin, and where an arrow's blow ends one."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.listen.sound import Sound, band, frames, levels
from lyrandis.core.numeric import Array

FRAME_MS = 5
FLOOR_PERCENTILE = 15
OVER_FLOOR_DB, UNDER_LOUDEST_DB, RISE_DB = 9.0, 26.0, 7.0
BEFORE_FRAMES, GAP_FRAMES = 18, 2
"""The 90 ms before, ending 10 ms earlier."""
APART_S, LONGEST_S, BEFORE_NEXT_S = 1.0, 1.3, 0.03
FAINT_DB = 12.0
"""A take fainter than the median by so much is none."""
BY_EYE_S = 0.05
LOUDER_DB, LOUDER_HZ = 1.5, 600.0
"""Of two beginnings within a second the louder counts; an arrow's blow in the butt is low."""
BLOW_FROM_S, BLOW_TO_S, BLOW_RISE_DB, BLOW_BEFORE_S = 0.09, 1.0, 6.0, 0.02
BLOW_BAND_HZ = (90.0, 600.0)
"""Low on purpose: a rattle must not cut its own window."""


@dataclass(frozen=True)
class Take:
    """A pluck or a shot."""

    onset_s: float
    end_s: float
    blow_s: float | None
    """A second, low event: the arrow's blow in the butt."""


def takes_of(sound: Sound, *, louder: bool = True) -> tuple[Take, ...]:
    """Return the takes of a recording, in order.

    Of two beginnings within a second the louder over 600 Hz is kept; where `louder` is false the
    first, as the loose comes before the blow in the butt.
    Frames of 5 ms over 90 Hz: an onset stands 9 dB over the floor and within 26 of the loudest, 7
    over the 90 ms before, and a second after the last. Source: found on made-up recordings of two
    kinds, none missed and none invented down to 10 dB over the room.

    >>> at = np.arange(40000) / 16000
    >>> tone = np.where(at > 0.5, np.sin(2 * np.pi * 200 * at) * np.exp(-8 * (at - 0.5)), 0)
    >>> heard = Sound(tone + 1e-4 * np.cos(at * 9e3), 16000.0)
    >>> [round(take.onset_s, 2) for take in takes_of(heard)]
    [0.5]
    """
    heard = band(sound, 90.0, sound.top_hz)
    said = levels(frames(heard, FRAME_MS))
    if len(said) <= BEFORE_FRAMES + GAP_FRAMES:
        return ()
    floor = float(np.percentile(said, FLOOR_PERCENTILE))
    threshold = max(floor + OVER_FLOOR_DB, float(said.max()) - UNDER_LOUDEST_DB)
    step = FRAME_MS * sound.per_ms / sound.rate
    high = levels(frames(band(sound, LOUDER_HZ, sound.top_hz), FRAME_MS)) if louder else said
    near = round(0.15 / step)
    onsets: list[int] = []
    for at in np.nonzero(said > threshold)[0].tolist():
        if onsets and at - onsets[-1] <= GAP_FRAMES:
            continue
        before = said[max(at - BEFORE_FRAMES - GAP_FRAMES, 0) : max(at - GAP_FRAMES, 0)]
        if not len(before) or said[at] <= float(np.median(before)) + RISE_DB:
            continue
        if not onsets or (at - onsets[-1]) * step > APART_S:
            onsets.append(at)
        elif louder and at - onsets[-1] > near:
            last = onsets[-1]
            was, now = (float(high[one : one + near].max()) for one in (last, at))
            if now > was + LOUDER_DB:
                onsets[-1] = at
    fine = frames(heard)
    peaks = [float(said[at : at + round(0.15 / step)].max()) for at in onsets]
    loud = [
        at
        for at, peak in zip(onsets, peaks, strict=True)
        if peak > float(np.median(peaks)) - FAINT_DB
    ]
    starts = [_refined(fine, at * step, sound) for at in loud]
    low = levels(frames(band(sound, *BLOW_BAND_HZ), FRAME_MS))
    return tuple(
        _take(sound, low, start, starts[number + 1 : number + 2])
        for number, start in enumerate(starts)
    )


def added_takes(sound: Sound, at_s: Sequence[float], found: Sequence[Take]) -> tuple[Take, ...]:
    """Return takes that begin about where somebody says so, each ending before the next.

    The eye is good to a twentieth of a second: there the loudest begins. Source: as `takes_of`.

    >>> heard = Sound(np.zeros(40000), 16000.0)
    >>> added_takes(heard, [1.0], [Take(1.5, 2.0, None)])
    (Take(onset_s=1.0, end_s=1.47, blow_s=None),)
    """
    low = levels(frames(band(sound, *BLOW_BAND_HZ), FRAME_MS)) if at_s else np.zeros(0)
    fine = frames(band(sound, 90.0, sound.top_hz)) if at_s else np.zeros(0)
    result = []
    for at in at_s:
        start = min(max(at, 0.0), sound.seconds)
        near = fine[round(max(start - BY_EYE_S, 0.0) * 1000) : round((start + BY_EYE_S) * 1000)]
        if len(near) and near.max() > 0:
            start = _refined(fine, max(start - BY_EYE_S, 0.0) + int(near.argmax()) / 1000, sound)
        others = [*(take.onset_s for take in found), *(one for one in at_s if one != at)]
        following = sorted(one for one in others if one > start + BY_EYE_S)[:1]
        result.append(_take(sound, low, start, following))
    return tuple(result)


def _take(sound: Sound, low: Array, start: float, following: Sequence[float]) -> Take:
    end = min([start + LONGEST_S, sound.seconds, *(one - BEFORE_NEXT_S for one in following)])
    step = FRAME_MS * sound.per_ms / sound.rate
    blow = _blow(low, start, min(end, start + BLOW_TO_S), step)
    return Take(start, end if blow is None else blow - BLOW_BEFORE_S, blow)


def _refined(fine: Array, near_s: float, sound: Sound) -> float:
    """Return the first millisecond that reaches a tenth of the window's highest power."""
    ms = sound.per_ms / sound.rate
    first = min(max(round((near_s - 0.01) / ms), 0), max(len(fine) - 1, 0))
    window = fine[first : first + 60]
    return float(first + int(np.argmax(window >= window.max() / 10))) * ms


def _blow(low: Array, start_s: float, end_s: float, step: float) -> float | None:
    """Return where a low event rises out of a take that rings off."""
    floor = float(np.percentile(low, FLOOR_PERCENTILE)) + OVER_FLOOR_DB
    for at in range(round((start_s + BLOW_FROM_S) / step), round(end_s / step)):
        if at >= len(low) or at < 6:
            continue
        # the highest of the four frames that end 5 ms earlier
        if low[at] > floor and low[at] > float(low[at - 5 : at - 1].max()) + BLOW_RISE_DB:
            return at * step
    return None
