"""An evening in a club: one's own shots, and the neighbours' among them."""

from typing import NamedTuple

import numpy as np

from lyrandis.core.listen.hear import StringVoice, hear
from tests.core.listen.third_bow import RATE, Array, ThirdBow

NEAR_S = 0.05


class Evening(NamedTuple):
    """A recording in a club."""

    samples: Array
    own_s: list[float]
    others_s: list[float]


def evening(seed: int, *, own: int = 5, others: int = 4, seconds: float = 14.0) -> Evening:
    """Own shots some seconds apart, and others', fainter and from further into the room."""
    world = np.random.default_rng([seed, 71])
    mine = ThirdBow(seed)
    whole = np.zeros(round(seconds * RATE))
    at = [1.0 + (seconds - 2.5) / own * (n + world.uniform(0.1, 0.6)) for n in range(own)]
    for one in at:
        mine._shot(whole, one, 10 ** (world.normal(0, 0.8) / 20))
    whole = mine._place(whole)
    else_at = sorted(world.uniform(0.8, seconds - 1.4, others).tolist())
    for number, one in enumerate(else_at):
        other = ThirdBow(seed * 31 + number % 2 + 500)
        other.room_share, other.room_t60 = world.uniform(0.5, 0.9), mine.room_t60
        first = round((one - 0.5) * RATE)
        far = np.zeros(min(4 * RATE, len(whole) - first))
        other._shot(far, one - first / RATE, 10 ** (-world.uniform(2, 12) / 20))
        whole[first : first + len(far)] += other._place(far)
    own_power = float((whole[round(at[0] * RATE) : round((at[0] + 0.3) * RATE)] ** 2).mean())
    whole += mine._hiss(len(whole)) * np.sqrt(own_power / 10**2.2)
    return Evening(whole * 0.4 / np.abs(whole).max(), at, else_at)


class ClubHeard(NamedTuple):
    """What was made of it."""

    right: bool
    """Every own shot is a take, and nothing else is one that was not flagged."""
    own_found: float
    own_flagged: int
    others_taken: int
    others_flagged: int


def club_heard(seed: int, others: int = 4) -> ClubHeard:
    """Listen to an evening as the page does."""
    made = evening(seed, others=others)
    found = hear(made.samples, float(RATE), "shot", StringVoice())
    own = [any(abs(take.onset_s - at) < NEAR_S for at in made.own_s) for take in found.takes]
    flagged = [number + 1 in found.others for number in range(len(found.takes))]
    missed = sum(all(abs(take.onset_s - at) >= NEAR_S for take in found.takes) for at in made.own_s)
    taken = sum(not mine for mine in own)
    caught = sum(flag and not mine for flag, mine in zip(flagged, own, strict=True))
    wrongly = sum(flag and mine for flag, mine in zip(flagged, own, strict=True))
    return ClubHeard(
        not missed and caught == taken and not wrongly, 1 - missed / len(made.own_s), wrongly,
        taken, caught,
    )  # fmt: skip
