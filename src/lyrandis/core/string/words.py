"""What a string can be, and the trade's words for it."""

from typing import Literal

StringMaterial = Literal["polyester", "low_stretch", "linen", "other"]
