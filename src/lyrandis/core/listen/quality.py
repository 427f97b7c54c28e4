"""What is wrong with a recording, in words that say what to do; and what may still be said."""

from collections.abc import Sequence
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.listen.features import LOW_HZ, Features
from lyrandis.core.listen.sound import Samples, Sound, band, frames, levels
from lyrandis.core.listen.takes import Take
from lyrandis.core.listen.words import Trouble
from lyrandis.core.numeric import Array

ALIKE_SAMPLES, ALIKE_SHARE, LOUD = 4, 0.0005, 0.2
CROWD_DB, CROWD_BINS, CROWD_LEAST, CROWD_TIMES = 1.0, 7, 40, 1.15
"""Samples crowd at the level they were cut off at: so many times more than a little lower."""
DIP_HZ, DIP_DB, DIP_MS = (2500.0, 6500.0), 2.5, 30
"""Under a gain that rides, the room itself grows fainter behind a loud shot."""
DIP_AFTER_S, DIP_BEFORE_S = (0.03, 0.9), (0.35, 0.05)
FAINT = 0.004
FEW_TAKES = 3
NOISY_DB = 6.0
LOW_RATE_HZ = 15_900.0
PLUCK_SHOT_DB = 3.0
STEADY_TAKES, STEADY_DB = 5, 3.0
VOICE_HZ, VOICE_FRAME_S, VOICE_RATE_HZ = (150.0, 400.0), 0.02, (3.0, 8.0)
VOICE_DB, VOICE_HARMONIC, VOICE_LEAST_S = 6.0, 0.5, 0.5
"""Between takes: loudness swinging by 6 dB three to eight times a second, in harmonic notes."""
LEAST_FRAMES = 5
GAP_BEFORE_S, GAP_AFTER_S = 0.1, 1.25
EARLY_S, LATE_S = 0.3, (0.7, 1.0)

May = Literal["levels", "rattle", "comparison", "note"]
"""What may be said of a recording."""
FORBIDS: dict[Trouble, frozenset[May]] = {
    "clipped": frozenset({"levels"}),
    "too_quiet": frozenset({"levels", "rattle", "comparison", "note"}),
    "few_takes": frozenset({"comparison"}),
    "no_takes": frozenset({"levels", "rattle", "comparison", "note"}),
    "noisy": frozenset({"levels", "comparison"}),
    "low_rate": frozenset({"rattle"}),
    "gain_rides": frozenset({"levels"}),
    "voice": frozenset(),
    "others": frozenset({"levels", "comparison"}),
}


def may(troubles: Sequence[Trouble], what: May) -> bool:
    """Return whether something may be said of a recording with such troubles.

    Source: definition.

    >>> may(("clipped",), "levels"), may(("clipped",), "note")
    (False, True)
    """
    return not any(what in FORBIDS[trouble] for trouble in troubles)


class Quality(NamedTuple):
    """What is wrong, gravest first."""

    troubles: tuple[Trouble, ...]

    def may(self, what: May) -> bool:
        """Return whether something may be said of the recording all the same.

        Source: `may`.

        >>> Quality(("gain_rides",)).may("levels"), Quality(()).may("levels")
        (False, True)
        """
        return may(self.troubles, what)


def quality_of(samples: Samples, rate: float, heard: Sequence[Features]) -> Quality:
    """Return what is wrong with a recording, `samples` as they were read, full scale 1.

    Clipped: four samples alike within 0.05 % at its largest, and that over 0.2, or samples that
    crowd near it. Gain that rides: levels that go one way, or a room fainter behind the takes than
    before them. Source: our own;
    the check of gain that rides was never tried on a real phone.

    >>> quality_of(np.zeros(48000), 48000.0, ()).troubles
    ('too_quiet', 'no_takes')
    """
    peak = float(max(samples.max(initial=0.0), -samples.min(initial=0.0)))
    result: list[Trouble] = []
    if peak < FAINT:
        result.append("too_quiet")
    if not heard:
        result.append("no_takes")
    if _clipped(samples, peak):
        result.append("clipped")
    if heard and float(np.median([item.snr for item in heard])) < NOISY_DB:
        result.append("noisy")
    spoken = heard and "noisy" not in result
    if spoken and (_goes_on(heard) or _spoken(heard[0].sound, [item.take for item in heard])):
        result.append("voice")
    if _rides([item.level for item in heard]) or _dips(heard):
        result.append("gain_rides")
    if 0 < len(heard) < FEW_TAKES:
        result.append("few_takes")
    if rate < LOW_RATE_HZ:
        result.append("low_rate")
    return Quality(tuple(result))


def _clipped(samples: Samples, peak: float) -> bool:
    if peak <= LOUD:
        return False
    top = peak * (1 - ALIKE_SHARE)
    at_top = (samples >= top) | (samples <= -top)
    run = at_top[ALIKE_SAMPLES - 1 :].copy()
    for sooner in range(ALIKE_SAMPLES - 1):
        run &= at_top[sooner : sooner + len(run)]
    return bool(run.any()) or _crowded(samples, peak)


def _crowded(samples: Samples, peak: float) -> bool:
    """Return whether samples crowd near the top: cut off, then brought to another rate or level.

    What dies away has fewer samples the louder they are; what was cut off has a ridge at that
    level, however it was turned after.
    """
    loud = np.abs(samples)
    loud = loud[loud > peak * 10 ** (-(CROWD_BINS + 5) * CROWD_DB / 20)]
    under = -20 * np.log10(np.maximum(loud / peak, 1e-9))
    counts = np.histogram(under, bins=np.arange(CROWD_BINS + 5) * CROWD_DB)[0]
    return any(
        counts[at] >= CROWD_LEAST
        and counts[at] > CROWD_TIMES * max(float(counts[at + 2 : at + 5].mean()), 1.0)
        for at in range(CROWD_BINS)
    )


def _dips(heard: Sequence[Features]) -> bool:
    """Return whether the room grows fainter behind the takes than it was before them."""
    if not heard:
        return False
    sound = heard[0].sound
    step = DIP_MS / 1000
    said = levels(frames(band(sound, *DIP_HZ), DIP_MS))
    found = []
    for number, item in enumerate(heard):
        at = item.take.onset_s
        before = said[max(round((at - DIP_BEFORE_S[0]) / step), 0) : round(
            (at - DIP_BEFORE_S[1]) / step)]  # fmt: skip
        following = [later.take.onset_s - 0.03 for later in heard[number + 1 : number + 2]]
        end = min([at + DIP_AFTER_S[1], *following])
        after = said[round((at + DIP_AFTER_S[0]) / step) : round(end / step)]
        if len(before) >= LEAST_FRAMES and len(after) >= LEAST_FRAMES:
            # three frames together: one alone dips by chance
            smooth = np.convolve(after, np.ones(3) / 3, mode="valid")
            found.append(float(np.median(before) - smooth.min()))
    return bool(found) and float(np.median(found)) > DIP_DB


def _goes_on(heard: Sequence[Features]) -> bool:
    """Return whether it does not die away as a bow does: talk, music, an engine."""
    falls = []
    for number, item in enumerate(heard):
        at = item.take.onset_s
        following = [later.take.onset_s for later in heard[number + 1 : number + 2]]
        end = min([at + LATE_S[1], *(onset - 0.03 for onset in following)])
        part = band(item.sound.part(at, end), LOW_HZ, item.sound.top_hz)
        first, late = part.part(0, EARLY_S).samples, part.part(*LATE_S).samples
        if len(late) > 0.1 * part.rate and len(first):
            said = levels(np.array([(first**2).mean(), (late**2).mean()]))
            falls.append(float(said[0] - said[1]))
    return bool(falls) and float(np.median(falls)) < NOISY_DB


def _gaps(sound: Sound, takes: Sequence[Take]) -> list[tuple[float, float]]:
    """Return the spans between takes in which nothing of them rings."""
    starts = [0.0, *(take.onset_s + GAP_AFTER_S for take in takes)]
    ends = [*(take.onset_s - GAP_BEFORE_S for take in takes), sound.seconds]
    spans = zip(starts, ends, strict=True)
    return [(start, end) for start, end in spans if end - start >= VOICE_LEAST_S]


def _spoken(sound: Sound, takes: Sequence[Take]) -> bool:
    """Return whether somebody speaks between takes, or music plays.

    Loudness of 150 to 400 Hz swings by 6 dB at the rate of syllables, in notes that repeat.
    """
    heard = band(sound, *VOICE_HZ)
    for start, end in _gaps(sound, takes):
        part = heard.part(start, end)
        size = max(round(VOICE_FRAME_S * part.rate), 1)
        count = len(part.samples) // size
        said = levels((part.samples[: count * size].reshape(count, size) ** 2).mean(axis=1))
        swing = np.abs(np.fft.rfft((said - said.mean()) * np.hanning(count)))
        hz = np.fft.rfftfreq(count, size / part.rate)
        syllables = (hz >= VOICE_RATE_HZ[0]) & (hz <= VOICE_RATE_HZ[1])
        if not syllables.any():
            continue
        # a Hann window halves a sine's height; its swing from peak to peak is twice its amplitude
        rise = 8 * float(swing[syllables].max()) / count
        loud = part.part(float(np.argmax(said)) * VOICE_FRAME_S - 0.04,
                         float(np.argmax(said)) * VOICE_FRAME_S + 0.06).samples  # fmt: skip
        if rise > VOICE_DB and _harmonic(loud, part.rate) > VOICE_HARMONIC:
            return True
    return False


def _harmonic(samples: Array, rate: float) -> float:
    """Return how well a piece repeats at a voice's pitch: 0 noise, 1 a note."""
    if len(samples) < 0.05 * rate:
        return 0.0
    power = np.abs(np.fft.rfft(samples - samples.mean(), 2 * len(samples))) ** 2
    again = np.fft.irfft(power)[: len(samples)]
    # freed of the falling overlap
    again = again / np.arange(len(samples), 0, -1) * len(samples)
    # past the first lobe, which noise of this band has too
    first, last = round(rate / 120), min(round(rate / 70), len(again) // 2)
    return float(again[first:last].max() / again[0]) if again[0] > 0 and last > first else 0.0


def _rides(levels: Sequence[float]) -> bool:
    """Return whether takes of one file grow louder or fainter steadily, and by 3 dB at least.

    Kendall's tau, p < 0.05.
    """
    count = len(levels)
    if count < STEADY_TAKES:
        return False
    signs = sum(
        float(np.sign(levels[later] - levels[sooner]))
        for sooner in range(count)
        for later in range(sooner + 1, count)
    )
    # the sum's variance where order means nothing: n (n - 1)(2n + 5)/18
    spread = (count * (count - 1) * (2 * count + 5) / 18) ** 0.5
    far = abs(levels[-1] - levels[0]) >= STEADY_DB
    return far and bool((abs(signs) - 1) / spread > 1.96)
