"""How numbers, units and signs are written: the tables that `items` reads a line with."""

import re

from lyrandis.core.units import (
    DISTANCE_UNITS_M,
    FORCE_UNITS_LBF,
    GPI_UNITS,
    GPP_UNITS,
    LENGTH_UNITS_MM,
    MASS_UNITS_GR,
    SPEED_UNITS_MPS,
    SPINE_UNITS,
)

LONGEST_LINE = 400
"""A longer line is no reading; checked before any pattern runs over it."""
_COUNTED = {
    "finger": "finger fingers",
    "stitch": "stitch stitches",
    "turn": "turn turns twist twists times",
    "strand": "strand strands ply",
    "arrow": "arrow arrows",
    "degree": "deg degree degrees °",
    "hour": "h hr hrs hour hours",
}
"""Nouns that are counted at the bench: they are the unit of their number."""
SPOKEN_UNITS: dict[str, dict[str, float]] = {}
"""By spelling: the dimensions it is a unit of, with the factor to what is stored."""
for _dimension, _factors in (
    ("length", LENGTH_UNITS_MM), ("distance", DISTANCE_UNITS_M), ("force", FORCE_UNITS_LBF),
    ("mass", MASS_UNITS_GR), ("grains per pound", GPP_UNITS), ("grains per inch", GPI_UNITS),
    ("speed", SPEED_UNITS_MPS), ("spine", SPINE_UNITS),
):  # fmt: skip
    for _spelling, _factor in _factors.items():
        SPOKEN_UNITS.setdefault(_spelling, {})[_dimension] = _factor
for _dimension, _spellings in _COUNTED.items():
    for _spelling in _spellings.split():
        SPOKEN_UNITS.setdefault(_spelling, {})[_dimension] = 1.0

INCHES = frozenset({"in", "inch", "inches", '"', "″", "”", "''"})
FEET = frozenset({"ft", "foot", "feet", "'"})
POUND_SIGNS = frozenset({"lb", "lbs", "lbf", "#", "pound", "pounds"})
_BELOW_TWENTY = (
    "zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen "
    "sixteen seventeen eighteen nineteen"
)
ONES = {word: value for value, word in enumerate(_BELOW_TWENTY.split(" "))}
_TENS = "twenty thirty forty fifty sixty seventy eighty ninety"
TENS = {word: 10 * tens for tens, word in enumerate(_TENS.split(" "), 2)}
PARTS_OF_ONE = {
    "half": 1 / 2, "halves": 1 / 2, "third": 1 / 3, "quarter": 1 / 4, "quarters": 1 / 4,
    "eighth": 1 / 8, "eighths": 1 / 8, "sixteenth": 1 / 16, "sixteenths": 1 / 16,
}  # fmt: skip
VULGAR = {
    "½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
    "⅓": "1/3", "⅔": "2/3",
}  # fmt: skip
_SIGNS = "".join(VULGAR)
_FRACTION = r"\d+[/⁄](?:64|32|16|8|4|3|2)(?!\d)"
TOKEN = re.compile(
    rf"(?P<number>\d+[ -]{_FRACTION}|{_FRACTION}|\d+ ?[{_SIGNS}]|[{_SIGNS}]"
    r"|\d+(?:[.,]\d+)?|[.,]\d+)"
    r"|(?P<word>w/|r/d|ft/s|m/s|gr/in|gr/lb|km/h|3-?d\b|''"
    r"|[^\W\d_]+(?:['’](?:t|s|m|ve|re|ll)\b)?)"
    r"|(?P<sign>[\"″”'’#°]|[^\w\s])",
    re.IGNORECASE,
)
"""A number, a word or a sign. 27 3/8 is one number, and so is 3/8; 38/40 is two."""
SHORT_FORM = re.compile(r"'(s|m|ve|re|ll)$")
SAME: dict[str, str] = {
    "hi": "high", "lo": "low", "ea": "each", "avg": "about", "atm": "now", "r/d": "rd",
    "ft/s": "fps", "m/s": "mps", "gr/in": "gpi", "gr/lb": "gpp", "km/h": "kmh", "3-d": "3d",
    "center": "centre", "centered": "centred", "aluminum": "aluminium", "fiber": "fibre",
    "fibreglass": "glass", "fiberglass": "glass", "dont": "not", "don't": "not", "never": "not",
    "isn't": "not", "isnt": "not", "aren't": "not", "arent": "not", "wasn't": "not",
    "cannot": "not", "can't": "not", "won't": "not", "doesn't": "not", "didn't": "not",
    "haven't": "not", "hasn't": "not", "@": "at", "w": "with", "w/": "with", "’": "'",
    "–": "-", "—": "-", "−": "-",
}  # fmt: skip
"""Spellings that are one word: both sides of the ocean, short forms, denials."""
