"""The archer's choices, and the trade's words for them."""

from typing import Literal

Datum = Literal["trade", "pivot", "back", "belly"]
Hold = Literal["split", "three_under", "thumb"]
Anchor = Literal["under_chin", "corner", "cheekbone"]
Hand = Literal["right", "left"]
Purpose = Literal["backyard", "woods", "field", "indoor", "hunting", "distance"]
