"""Recordings as they are: a club, a phone that rides its gain, sounds cut off and resampled."""

import numpy as np

from lyrandis.core.listen.hear import StringVoice, as_take, hear
from lyrandis.core.listen.naming import Pointed
from lyrandis.core.listen.quality import quality_of
from lyrandis.core.listen.readings import SoundHeard
from tests.core.listen.third_bow import RATE, Array, ThirdBow


def resampled(samples: Array, rate: float, wished: float) -> Array:
    """Bring samples to another rate, as an editor does."""
    count, other = len(samples), round(len(samples) * wished / rate)
    spectrum = np.fft.rfft(samples)
    kept = np.zeros(other // 2 + 1, dtype=complex)
    least = min(len(spectrum), len(kept))
    kept[:least] = spectrum[:least]
    return np.fft.irfft(kept, other) * other / count


def known_as_cut_off(seed: int, times: float) -> bool:
    """Overload a bow, bring it to 48 kHz, turn it down; zero times: not overloaded at all."""
    made = ThirdBow(seed).bow_alone("shot" if seed % 2 else "pluck", 4)
    made = made / np.abs(made).max()
    if times:
        made = np.clip(times * made, -1, 1)
    later = 0.7 * resampled(made, RATE, 48_000.0)
    return "clipped" in quality_of(later, 48_000.0, ()).troubles


def session(seed: int, *, rides: bool) -> dict[str, SoundHeard]:
    """A pluck and a shot, before and after the shot grew louder by 6 dB."""
    told = {}
    for side, louder in (("before", 1.0), ("after", 2.0)):
        for what in ("pluck", "shot"):
            bow = ThirdBow(seed, rides=rides)
            bow.world = np.random.default_rng([seed, len(side), len(what)])
            samples = bow.bow_alone(what, 5, louder=louder if what == "shot" else 1.0)  # type: ignore[arg-type]
            found = hear(samples, float(RATE), what, StringVoice())  # type: ignore[arg-type]
            told[f"{what} {side}"] = SoundHeard(
                mark=f"{len(told):016x}", name="third", what=what, same_place=True,  # type: ignore[arg-type]
                seconds=found.sound.seconds, rate_hz=RATE,
                takes=tuple(as_take(one) for one in found.features),
                troubles=found.quality.troubles,
            )  # fmt: skip
    return told


def pointed_in_the_order_of_the_page(told: dict[str, SoundHeard]) -> Pointed | None:
    """Record them all on a rig, as the page does, and see what it says."""
    from lyrandis.core.computed import compute
    from lyrandis.core.setup import fold
    from tests.entries import entries

    order = ("pluck before", "shot before", "pluck after", "shot after")
    return compute(fold(entries(*(told[one] for one in order)))).listen.pointed


def cannot_be_told(seed: int) -> bool:
    """Under a gain that rides nothing is called "nothing found"."""
    found = pointed_in_the_order_of_the_page(session(seed, rides=True))
    return found is not None and (found.blind or found.fault is not None)
