"""Blind trials: bows made to sound by the second synthesiser, known to the code by numbers only.

A few of each here with a fixed seed; many in `make bench`.
"""

import math
from concurrent.futures import Executor
from functools import lru_cache

import numpy as np
import pytest

from lyrandis.core.estimate import Estimate
from lyrandis.core.listen.compare import compared
from lyrandis.core.listen.hear import Listened, StringVoice, as_take, hear
from lyrandis.core.listen.naming import Pointed, point
from lyrandis.core.listen.partials import ServedString, partials_hz, tension_of
from lyrandis.core.listen.pitch import note_change
from lyrandis.core.listen.readings import SoundHeard
from tests.core.listen.other_bow import RATE, OtherBow

FAULTS = ("none", "rattle", "slack", "brace")
EACH, TAKES = 4, 5


def known_string(bow: OtherBow) -> ServedString:
    """The string as its owner knows it: weighed, a usual serving, usual tips."""
    return ServedString(1.36, 1.47, bow.mass, 0.00117, 0.18)


def voice_of(bow: OtherBow) -> StringVoice:
    """What the statics say: the tension some per cent off."""
    hz = partials_hz(known_string(bow), bow.tension, 13)
    off = float(np.random.default_rng(bow.seed).uniform(0.9, 1.1))
    return StringVoice(tuple((hz / hz[0]).tolist()), float(hz[0]) * off)


def listened(bow: OtherBow, what: str, takes: int = TAKES, **fault: float) -> tuple[Listened, bool]:
    samples, at = bow.record(what, takes, **fault)
    found = hear(samples, RATE, what, voice_of(bow))  # type: ignore[arg-type]
    onsets = [one.onset_s for one in found.takes]
    right = len(onsets) == len(at) and all(
        abs(a - b) < 0.02 for a, b in zip(onsets, at, strict=True)
    )
    return found, right


def reading(found: Listened, what: str) -> SoundHeard:
    return SoundHeard(
        mark="0" * 16, name="blind", what=what, seconds=found.sound.seconds, rate_hz=RATE,  # type: ignore[arg-type]
        takes=tuple(as_take(one) for one in found.features),
        second=min(found.second.strength, 100.0), second_ratio=found.second.ratio,
        line_db=found.line_db, troubles=found.quality.troubles,
    )  # fmt: skip


@lru_cache(maxsize=64)
def trial(number: int) -> tuple[str, Pointed, bool]:
    """One bow before and after something went wrong; the fault goes with the number."""
    kind = FAULTS[number % len(FAULTS)]
    world = np.random.default_rng([number, 5])
    bow = OtherBow(number + 7000, snr_db=20.0)
    fault = {
        "none": {},
        "rattle": {"rattle": world.uniform(0.15, 1.0)},
        "slack": {"slack": world.uniform(0.2, 1.0)},
        "brace": {"brace": world.choice([-1, 1]) * world.uniform(0.4, 0.8)},
    }[kind]
    sides: dict[str, list[SoundHeard]] = {}
    all_found = True
    for what in ("pluck", "shot"):
        for one in ({}, fault):
            found, right = listened(bow, what, **one)
            all_found &= right
            sides.setdefault(what, []).append(reading(found, what))
        del bow.noise
    pluck, shot = sides["pluck"], sides["shot"]
    pointed = point(
        pluck=pluck[1], pluck_before=pluck[0], shot=shot[1], shot_before=shot[0], levels=True
    )
    assert pointed is not None
    return kind, pointed, all_found


def blind_trials(pool: Executor, each: int) -> list[tuple[str, Pointed, bool]]:
    """So many bows of each fault, none of them among those tested here."""
    seed = 3000
    numbers = range(seed * len(FAULTS), (seed + each) * len(FAULTS))
    return list(pool.map(trial, numbers, chunksize=4))


def trials(kind: str) -> list[Pointed]:
    first = FAULTS.index(kind)
    return [trial(first + len(FAULTS) * n)[1] for n in range(EACH)]


def test_bows_of_another_kind_are_judged_as_well_as_is_said() -> None:
    """One test on purpose: the trials are made once, whoever runs beside."""
    assert all(trial(number)[2] for number in range(EACH * len(FAULTS))), "a take was missed"

    loose = [one.fault for one in trials("rattle")]
    assert loose.count("rattle") >= EACH - 1, loose
    invented = [one.fault for kind in ("none", "brace") for one in trials(kind)]
    assert invented.count("rattle") == 0, invented

    healthy = [one.fault for one in trials("none")]
    assert healthy.count(None) == EACH, healthy

    braced = [one.fault for one in trials("brace")]
    assert braced.count("brace") >= 0.85 * EACH - 1, braced

    spoken = [(kind, one) for kind in FAULTS for one in trials(kind) if one.fault == "slack"]
    assert len(spoken) >= EACH / 2
    assert sum(kind == "slack" for kind, _ in spoken) >= 0.9 * len(spoken)
    assert all(one.hint for _, one in spoken), "a slack strand stays a hint"


def test_without_a_before_no_fault_of_the_shot_is_named() -> None:
    for number in range(4):
        bow = OtherBow(number + 7000, snr_db=20.0)
        found, _ = listened(bow, "shot", brace=0.7)
        pointed = point(pluck=None, shot=reading(found, "shot"))
        assert pointed is not None
        assert pointed.fault is None


def test_the_interval_holds_the_true_change_in_95_of_100() -> None:
    world = np.random.default_rng(15)
    held = 0
    for _ in range(1000):
        true = world.uniform(-6, 6)
        before = world.normal(-40, 1.0, 5) + world.normal(0, 0.4)
        after = world.normal(-40 + true, 1.0, 5) + world.normal(0, 0.4)
        found = compared(before.tolist(), after.tolist())
        held += abs(found.change_db - true) <= found.half_db
    assert 0.93 <= held / 1000 <= 0.985


def test_the_note_and_the_tension_are_as_good_as_is_said() -> None:
    cents, off, changed = [], [], []
    count = 10
    for number in range(count):
        bow = OtherBow(number + 8000, snr_db=20.0)
        one, other = (listened(bow, "pluck")[0].note for _ in range(2))
        notes = [note for note in (one, other) if note is not None]
        cents += [abs(1200 * math.log2(note.value / bow.notes[0])) for note in notes]
        if one is None or other is None:
            continue
        told = tension_of(
            known_string(bow), Estimate(one.value, one.sd), mass_share=0.009, free_share=0.004
        )
        off.append(abs(told.value / bow.tension - 1))
        ratio = note_change(one, other)
        if ratio is not None:
            changed.append(abs(ratio.value**2 - 1))
    assert len(cents) >= 0.85 * 2 * count, "found in nine of ten"
    assert np.median(cents) <= 8
    assert np.median(off) <= 0.06
    assert max(off) <= 0.12
    assert np.quantile(changed, 0.9) <= 0.01


@pytest.mark.parametrize("kind", ["music", "talk"])
def test_music_or_talk_is_no_bow(kind: str) -> None:
    at = np.arange(8 * RATE) / RATE
    world = np.random.default_rng(4)
    if kind == "music":
        sound = np.zeros(len(at))
        for beat in range(16):
            u = at - 0.5 * beat
            for hz in world.choice([196.0, 220.0, 261.6, 329.6, 392.0], 3):
                sound += np.where(u > 0, 0.1 * np.sin(2 * np.pi * hz * u) * np.exp(-2 * u), 0)
    else:
        syllables = np.maximum(np.sin(2 * np.pi * 4.0 * at), 0) ** 2
        sound = syllables * sum(
            np.sin(2 * np.pi * 140 * n * at + n) / n for n in range(1, 12)
        ) * 0.1  # fmt: skip
    found = hear(sound + 1e-4 * world.normal(0, 1, len(at)), RATE, "shot", StringVoice())
    troubles = set(found.quality.troubles)
    assert troubles & {"voice", "noisy", "no_takes"}, troubles
