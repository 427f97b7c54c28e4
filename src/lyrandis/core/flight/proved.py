"""How good the judgement of flight is, on virtual rigs: what was shot, and what came out.

The figures are written by `make prove` (tools/prove_flight.py); a test shoots some of them again.
"""

import math

from lyrandis.core.drawn import Drawn


class WayProved(Drawn):
    """One way to judge, over so many rigs."""

    key: str
    name: str
    rigs: int
    right: float
    near: float
    """Right, or the cause of a shaft 3 % off."""
    false_weak: int
    """How many of them were false weak."""
    found: float | None
    called_weak: float | None
    """Of those, found as such, and called weak: the harmful one."""
    said: float | None
    said_right: float | None
    tests: float
    arrows: float | None


class WordProved(Drawn):
    """What is said in a word, and how often it came true."""

    word: str
    low: float
    high: float
    said: float
    came: float
    least: float
    most: float
    """Nine times in ten the true share lies between."""
    times: int


class KindProved(Drawn):
    name: str
    rigs: int
    right: float
    near: float
    found: float | None


class WorldProved(Drawn):
    """A world that is not as the engine assumes."""

    name: str
    rigs: int
    right: float
    near: float
    found: float | None
    sure: float
    came: float
    """What was said over 90 %, and how often that came true."""
    least_right: float
    """What the specification's own trial came to, less twice its error."""


class EveningProved(Drawn):
    """Whole evenings, flown by the page's own next step from the first tail to the end."""

    key: str
    name: str
    how: str
    """What is asked there of the page."""
    rigs: int
    ended: float
    """Came to tuned, or were kept as near as can be told."""
    tuned: float
    near: float
    empty: int
    """Next steps that were none."""
    within: float | None
    """Of tuned, within a tenth of stiffness."""
    within_all: float
    """Of all rigs, ended and within a tenth."""
    near_said: float | None
    near_came: float | None
    """Of those kept as near as can be told: chance of a tenth that was said, and what came."""
    named: float | None
    """Of stiff and false weak rigs, named as either."""
    false_weak: int
    false_weak_tuned: float | None
    false_weak_within: float | None
    far_weak_tuned: int
    """A quarter and more too weak, and called tuned."""
    arrows: float
    most_arrows: float
    """Nine in ten shot fewer."""
    minutes: float
    corrections: float
    nock_within: float | None
    """Within 3 mm, where the nock was looked at too."""


class Proved(Drawn):
    """All that was shot."""

    ways: tuple[WayProved, ...]
    words: tuple[WordProved, ...]
    kinds: tuple[KindProved, ...]
    worlds: tuple[WorldProved, ...]
    evenings: tuple[EveningProved, ...]
    first_verdicts: tuple[str, ...]
    """Causes named for the first rigs: a test shoots them again."""
    first_evenings: tuple[str, ...]
    """How the first evenings of the population ended, and after how many arrows: flown again."""


def wilson(share: float, times: int, z: float = 1.645) -> tuple[float, float]:
    """Return where the true share lies nine times in ten.

    Source: Wilson (1927), score interval of a proportion.

    >>> low, high = wilson(0.9, 100)
    >>> round(low, 2), round(high, 2)
    (0.84, 0.94)
    """
    if times == 0:
        return 0.0, 1.0
    middle = share + z * z / (2 * times)
    spread = z * math.sqrt(share * (1 - share) / times + z * z / (4 * times * times))
    below = 1 + z * z / times
    return max((middle - spread) / below, 0.0), min((middle + spread) / below, 1.0)
