"""Reference signals written from their formulas: onsets, levels, rings, spikes, notes, strands."""

import numpy as np
import pytest

from lyrandis.core.listen.features import Features, line_of
from lyrandis.core.listen.noise import room_of
from lyrandis.core.listen.pitch import note_of
from lyrandis.core.listen.second import second_pitch
from lyrandis.core.listen.sound import (
    Array,
    Sound,
    at_working_rate,
    band,
    best_channel,
    cells_hz,
    gains,
)
from lyrandis.core.listen.takes import takes_of
from tests.core.listen.signals import RATE, r1, r2, r3, r9

PERIOD = 1 / 96
SERIES = tuple(range(1, 14))


class Heard:
    """A signal listened to: medians over its takes."""

    def __init__(self, samples: Array, rate: float = RATE) -> None:
        self.sound = at_working_rate(samples, rate)
        self.takes = takes_of(self.sound)
        room = room_of(self.sound, self.takes)
        self.features = [Features(self.sound, one, room, PERIOD) for one in self.takes]

    def median(self, name: str) -> float:
        return float(np.median([getattr(one, name) for one in self.features]))

    def t60(self, octave: float) -> float:
        return float(np.median([one.t60(octave) for one in self.features]))

    def spike(self, name: str) -> float:
        return float(np.median([getattr(one.spikes, name) for one in self.features]))


SIGNALS = {"r1": r1, "r2": r2, "r3": r3, "r9": r9, "quieter": lambda: 0.70711 * r1()}


@pytest.fixture(scope="module")
def heard() -> dict[str, Heard]:
    return {name: Heard(make()) for name, make in SIGNALS.items()}


@pytest.mark.parametrize("name", SIGNALS)
def test_every_take_is_found_and_none_invented(heard: dict[str, Heard], name: str) -> None:
    onsets = [one.onset_s for one in heard[name].takes]
    assert onsets == pytest.approx([0.597, 2.197, 3.797, 5.397], abs=0.002)


def test_the_blow_of_an_arrow_ends_the_take(heard: dict[str, Heard]) -> None:
    for one in heard["r9"].takes:
        assert one.blow_s is not None
        assert one.blow_s - one.onset_s == pytest.approx(0.313, abs=0.005)
        assert one.end_s < one.blow_s
    assert all(one.blow_s is None for one in heard["r3"].takes), "a rattle is no blow"


@pytest.mark.parametrize(
    ("name", "level", "peak", "snr"),
    [("r1", -40.44, -12.86, 48.5), ("r2", -39.67, -10.24, 49.6), ("r3", -40.13, -12.86, 48.5),
     ("r9", -40.44, -12.86, 48.6), ("quieter", -43.45, -15.87, 48.5)],
)  # fmt: skip
def test_levels(heard: dict[str, Heard], name: str, level: float, peak: float, snr: float) -> None:
    one = heard[name]
    assert one.median("level") == pytest.approx(level, abs=0.1)
    assert one.median("peak") == pytest.approx(peak, abs=0.1)
    assert one.median("snr") == pytest.approx(snr, abs=0.2)


@pytest.mark.parametrize(
    ("name", "rings"),
    [("r1", (0.567, 0.458, 0.350)), ("r2", (0.550, 0.458, 0.348)), ("r3", (0.570, 0.464, 0.353)),
     ("r9", (0.554, 0.456, 0.350))],
)  # fmt: skip
def test_how_long_each_octave_rings(
    heard: dict[str, Heard], name: str, rings: tuple[float, ...]
) -> None:
    found = [heard[name].t60(octave) for octave in (250.0, 500.0, 1000.0)]
    assert found == pytest.approx(rings, rel=0.02)


@pytest.mark.parametrize(
    ("name", "unrep", "rep", "excess", "line", "fall"),
    [("r1", 0, 0, 0, 1.4, -34.6), ("r2", 0, 0, 0, 1.4, -37.4), ("r3", 3.1, 2.8, 20, 10.9, 8.2),
     ("r9", 0, 0, 0, 1.4, -34.6)],
)  # fmt: skip
def test_what_rattles(
    heard: dict[str, Heard],
    name: str, unrep: float, rep: float, excess: float, line: float, fall: float,
) -> None:  # fmt: skip
    one = heard[name]
    assert one.spike("unrep") == pytest.approx(unrep, abs=0.5)
    assert one.spike("rep") == pytest.approx(rep, abs=0.5)
    assert one.spike("excess") == pytest.approx(excess, abs=0.5)
    assert line_of(one.sound, one.takes) == pytest.approx(line, abs=1.0)
    assert np.median([f.d(3, 2) for f in one.features]) == pytest.approx(fall, abs=0.5)


@pytest.mark.parametrize(
    ("name", "strength", "ratio"),
    [("r1", 0.0, None), ("r2", 19.1, 0.960), ("r3", 0.0, None), ("r9", 0.0, None)],
)
def test_the_note_and_a_slack_strand_beside_it(
    heard: dict[str, Heard], name: str, strength: float, ratio: float | None
) -> None:
    one = heard[name]
    note = note_of(one.sound, one.takes, SERIES, 100.0)
    assert note is not None
    assert note.value == pytest.approx(96.0, abs=0.05)
    found = second_pitch(one.sound, one.takes, SERIES, note.value)
    assert found.strength == pytest.approx(strength, abs=3)
    if ratio is not None:
        assert found.ratio == pytest.approx(ratio, abs=0.002)


@pytest.mark.parametrize("rate", [8000.0, 22050.0, 44100.0, 48000.0, 96000.0])
def test_the_rate_it_was_recorded_at_hardly_matters(rate: float) -> None:
    one = Heard(r1(rate), rate)
    assert [take.onset_s for take in one.takes] == pytest.approx(
        [0.597, 2.197, 3.797, 5.397], abs=0.002
    )
    assert one.median("level") == pytest.approx(-40.44, abs=0.1)
    note = note_of(one.sound, one.takes, SERIES, 100.0)
    assert note is not None
    assert note.value == pytest.approx(96.0, abs=0.05)


@pytest.mark.parametrize(("hz", "ring"), [(125.0, 0.5), (250.0, 0.4), (1000.0, 0.3), (4000.0, 0.1)])
def test_a_single_tone_rings_as_long_as_it_does(hz: float, ring: float) -> None:
    from tests.core.listen.signals import q

    t = np.arange(48000) / RATE
    u = t - 0.6
    tone = np.where(u >= 0, 0.4 * np.sin(2 * np.pi * hz * u) * np.exp(-6.908 * u / ring), 0.0)
    assert Heard(tone + 0.0003 * q(len(t))).t60(hz) == pytest.approx(ring, rel=0.02)


def test_clipping_moves_no_note() -> None:
    one = Heard(np.clip(8 * r1(), -1, 1))
    note = note_of(one.sound, one.takes, SERIES, 100.0)
    assert note is not None
    assert note.value == pytest.approx(96.0, abs=0.05)


# what is hardly a sound


@pytest.mark.parametrize(
    "samples",
    [np.zeros(16000), np.full(16000, 0.3), np.full(16000, np.nan), np.zeros(0), np.zeros(10),
     np.r_[np.inf, np.zeros(9000)]],
    ids=["silence", "offset", "no numbers", "nothing", "ten samples", "infinite"],
)  # fmt: skip
def test_no_sound_has_no_take_and_breaks_nothing(samples: Array) -> None:
    one = Heard(samples)
    assert one.takes == ()
    assert note_of(one.sound, one.takes, SERIES, 100.0) is None
    assert second_pitch(one.sound, one.takes, SERIES, 96.0).strength == 0.0


def test_the_channel_that_hears_is_taken_never_their_mean() -> None:
    good = r1()
    both = np.column_stack([0.0001 * good, -good])
    assert (best_channel(both, RATE) == -good).all()
    assert len(takes_of(Sound(best_channel(both, RATE), RATE))) == 4


def test_a_long_recording_is_brought_down_in_pieces_as_it_would_be_whole() -> None:
    rng = np.random.default_rng(4)
    for rate in (48_000.0, 44_100.0):
        at = np.arange(round(61.3 * rate)) / rate
        long = np.sin(2 * np.pi * 440 * at) + np.sin(2 * np.pi * 11_000 * at) + 0.1
        long[rng.integers(0, len(long), 40)] += 1.0
        found = at_working_rate(long, rate)
        assert found.rate == 16_000
        assert abs(len(found.samples) - 61.3 * 16_000) <= 1
        # held against the whole, taken at instants both have
        short = at_working_rate(long[: round(20 * rate)], rate)
        ahead, pieces = (
            np.interp(np.arange(5_000, 15_000) / 1000, np.arange(len(one.samples)) / one.rate,
                      one.samples)
            for one in (short, found)
        )  # fmt: skip
        assert np.abs(ahead - pieces).mean() < 2e-3
        seam = found.samples[8 * 16_000 - 40 : 8 * 16_000 + 40]
        assert np.abs(np.diff(seam)).max() < 2 * np.pi * 440 / 16_000 + 0.35
        assert float(np.mean(found.samples**2)) == pytest.approx(0.5, abs=0.01)


def test_single_and_double_samples_are_heard_alike() -> None:
    at = np.arange(3 * 48_000) / 48_000
    tone = np.where(at > 1, np.sin(600 * at) * np.exp(-8 * (at - 1)), 0) + 1e-4 * np.cos(at * 9e3)
    double = at_working_rate(tone, 48_000.0)
    single = at_working_rate(tone.astype(np.float32), 48_000.0)
    assert np.abs(single.samples - double.samples).max() < 1e-6


@pytest.mark.parametrize(("low", "high"), [(90.0, 7000.0), (90.0, 600.0), (150.0, 400.0)])
def test_a_band_of_a_long_recording_is_what_it_would_be_whole(low: float, high: float) -> None:
    rng = np.random.default_rng(8)
    long = Sound(rng.normal(size=61 * 16_000) * 1e-2, 16_000.0)
    long.samples[7 * 16_000 : 9 * 16_000] += np.sin(600 * np.arange(32_000) / 16_000)
    pieces = band(long, low, high).samples
    spectrum, count = long.padded
    whole = np.fft.irfft(spectrum * gains(cells_hz(count, long.rate), low, high), count)
    assert np.abs(pieces - whole[: len(pieces)])[16_000:-16_000].max() < 2e-4
