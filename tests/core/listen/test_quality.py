"""What is wrong with a recording is named, and it forbids no more than it must."""

import numpy as np
import pytest

from lyrandis.core.listen.features import Features
from lyrandis.core.listen.noise import room_of
from lyrandis.core.listen.quality import FORBIDS, Quality, quality_of
from lyrandis.core.listen.sound import at_working_rate
from lyrandis.core.listen.takes import takes_of
from lyrandis.core.listen.words import TROUBLE_WORDS
from lyrandis.core.numeric import Array
from tests.core.listen.signals import AT, RATE, q, r1


def judged(samples: Array, rate: float = RATE) -> Quality:
    sound = at_working_rate(samples, rate)
    takes = takes_of(sound)
    room = room_of(sound, takes)
    return quality_of(samples, rate, [Features(sound, one, room, 1 / 96) for one in takes])


def swelling(per_take_db: float) -> Array:
    """Six takes, each so much louder than the last."""
    one = r1()[round((AT[0] - 0.3) * RATE) : round((AT[0] + 1.2) * RATE)]
    return np.concatenate([one * 10 ** (per_take_db * number / 20) for number in range(6)]) * 0.3


@pytest.mark.parametrize(
    ("samples", "rate", "troubles"),
    [
        (r1(), RATE, ()),
        (np.clip(8 * r1(), -1, 1), RATE, ("clipped",)),
        (0.005 * r1(), RATE, ("too_quiet",)),
        (0.02 * r1(), RATE, ()),
        (r1() + 0.2 * q(len(r1())), RATE, ("noisy",)),
        (r1()[: round(3.5 * RATE)], RATE, ("few_takes",)),
        (r1(8000.0), 8000.0, ("low_rate",)),
        (np.zeros(32000), RATE, ("too_quiet", "no_takes")),
        (swelling(1.5), RATE, ("gain_rides",)),
        (swelling(0.0), RATE, ()),
    ],
    ids=["good", "clipped", "faint", "quiet but there", "noisy", "two takes", "8 kHz", "silence",
         "gain rides", "six alike"],
)  # fmt: skip
def test_what_is_wrong_is_named(samples: Array, rate: float, troubles: tuple[str, ...]) -> None:
    assert judged(samples, rate).troubles == troubles


def test_every_trouble_says_what_to_do_and_forbids_something() -> None:
    assert set(TROUBLE_WORDS) == set(FORBIDS)
    assert all(FORBIDS[one] for one in FORBIDS if one != "voice"), "a voice only warns"


def test_a_clipped_recording_still_tells_its_note() -> None:
    told = judged(np.clip(8 * r1(), -1, 1))
    assert (told.may("note"), told.may("levels"), told.may("comparison")) == (True, False, True)
    assert not judged(np.zeros(32000)).may("note")
    assert judged(r1()).may("levels")
