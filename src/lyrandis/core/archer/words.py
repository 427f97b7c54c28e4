"""The archer's choices, and the trade's words for them."""

from typing import Literal

Datum = Literal["trade", "pivot", "back", "belly", "unsure"]
Hold = Literal["split", "three_under", "thumb"]
Anchor = Literal["under_chin", "corner", "cheekbone"]
Hand = Literal["right", "left"]
Purpose = Literal["backyard", "woods", "course", "field", "indoor", "hunting", "distance"]

DATUM_WORDS: dict[Datum, str] = {
    "trade": "",
    "pivot": " to the pivot",
    "back": " to the back of the bow",
    "belly": " to the belly",
    "unsure": ", to what is not known",
}
"""What is said behind a length that was read to it."""
HOLD_WORDS: dict[Hold, str] = {
    "split": "one over, two under",
    "three_under": "three under",
    "thumb": "thumb",
}
ANCHOR_WORDS: dict[Anchor, str] = {
    "under_chin": "under the chin",
    "corner": "corner of the mouth",
    "cheekbone": "cheekbone",
}
HAND_WORDS: dict[Hand, str] = {
    "right": "right",
    "left": "left",
}
PURPOSE_WORDS: dict[Purpose, str] = {
    "backyard": "backyard",
    "woods": "woods",
    "course": "3-D course",
    "field": "field round",
    "indoor": "indoor target",
    "hunting": "hunting from tight cover",
    "distance": "distance",
}
