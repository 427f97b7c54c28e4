"""What a bow can be, and the trade's words for it."""

from typing import Literal

Family = Literal[
    "selfbow",
    "straight_longbow",
    "reflex_deflex_longbow",
    "hunting_recurve",
    "target_recurve",
    "short_rigid_tip",
    "long_rigid_tip",
    "large_rigid_tip",
]
LimbsAre = Literal["matched", "two_bottoms", "two_tops", "two_makers"]
InspectionItem = Literal[
    "limbs",
    "tips",
    "finish",
    "laminations",
    "string",
    "string_grooves",
    "right_way_up",
    "stringer",
    "twang",
]
