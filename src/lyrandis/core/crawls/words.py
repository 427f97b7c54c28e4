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
FEEL_SD_MM = 3.0
"""Assumption: a crawl counted in fingers by feel."""

DistanceUnit = Literal["m", "yd"]
DISTANCE_UNIT_WORDS: dict[DistanceUnit, str] = {"m": "metres", "yd": "yards"}
M_PER_YD = 0.9144
