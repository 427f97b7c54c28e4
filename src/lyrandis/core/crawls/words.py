"""The trade's words for a crawl, how it is counted, and how sure of it an archer is."""

from typing import Literal

Notation = Literal["mm", "fingers", "stitches"]
NOTATION_WORDS: dict[Notation, str] = {
    "mm": "millimetres",
    "fingers": "fingers by feel",
    "stitches": "stitches of the tab",
}

Sureness = Literal["sure", "ordinary", "about"]
SURENESS_WORDS: dict[Sureness, str] = {
    "sure": "sure of it",
    "ordinary": "as usual",
    "about": "about",
}
SURE_SD_MM: dict[Sureness, float] = {"sure": 1.0, "ordinary": 2.0, "about": 4.0}
"""Assumption: how well a crawl is known that was shot and read off the tab."""
Struck = Literal["high", "fine", "low"]
STRUCK_WORDS: dict[Struck, str] = {
    "high": "struck high",
    "fine": "struck fine",
    "low": "struck low",
}
STRUCK_SDS: dict[Struck, float] = {"high": 1.42, "fine": 0.0, "low": -1.42}
STRUCK_SD = 1.115
"""Where it struck, told without a figure, in standard deviations of the group's mean. Assumption:
called high or low from half a deviation on. Then P(high) - P(low) grows by 2 phi(1/2) = 0.704 a
deviation, and 1/0.704 for each is without bias; its own spread is 1.42 sqrt(0.617)."""
FEEL_SD_MM = 3.0
"""Assumption: a crawl counted in fingers by feel."""

DistanceUnit = Literal["m", "yd"]
DISTANCE_UNIT_WORDS: dict[DistanceUnit, str] = {"m": "metres", "yd": "yards"}
