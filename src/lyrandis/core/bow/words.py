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

AssemblyStep = Literal[
    "limbs_seated",
    "bolts_tight",
    "marks_up",
    "larger_loop",
    "with_stringer",
    "loops_seated",
    "rest_fixed",
    "brace_read",
    "twang_listened",
]
BowMade = Literal["one_piece", "take_down"]
LimbsMade = Literal["laminated", "solid_glass", "natural"]
LengthTaken = Literal["along_back", "strung"]

FAMILY_WORDS: dict[Family, str] = {
    "selfbow": "selfbow",
    "straight_longbow": "straight longbow",
    "reflex_deflex_longbow": "reflex-deflex longbow",
    "hunting_recurve": "hunting recurve",
    "target_recurve": "target recurve",
    "short_rigid_tip": "bow with short static tips",
    "long_rigid_tip": "bow with long static tips",
    "large_rigid_tip": "bow with large static tips",
}
LIMBS_ARE_WORDS: dict[LimbsAre, str] = {
    "matched": "matched limbs",
    "two_bottoms": "two bottom limbs",
    "two_tops": "two top limbs",
    "two_makers": "limbs of two makers",
}
INSPECTION_WORDS: dict[InspectionItem, tuple[str, str]] = {
    "limbs": ("limbs straight, no cracks", "a limb is twisted or cracked"),
    "tips": ("tips sound", "a tip is cracked or loose"),
    "finish": ("finish clear", "the finish is crazed"),
    "laminations": ("laminations tight", "a lamination lifts"),
    "string": ("string whole, loops and serving too", "the string, a loop or its serving is worn"),
    "string_grooves": ("string grooves smooth", "a string groove is worn or sharp"),
    "right_way_up": ("top limb on top, larger loop on it", "limbs or loops are upside down"),
    "stringer": ("strung with a stringer", "strung without a stringer"),
    "twang": ("twanged: nothing rattles", "something rattles when twanged"),
}
"""What an item looks like when it is good, and when it is not."""
LIMBS_MADE_WORDS: dict[LimbsMade, str] = {
    "laminated": "laminated with glass",
    "solid_glass": "solid glass",
    "natural": "all natural: wood, horn, sinew",
}
LENGTH_TAKEN_WORDS: dict[LengthTaken, str] = {
    "along_back": "unstrung, along the back",
    "strung": "strung, straight from nock to nock",
}
ASSEMBLY_WORDS: dict[AssemblyStep, tuple[str, str]] = {
    "limbs_seated": ("limbs seated", "Push each limb home in its pocket; it does not rock."),
    "bolts_tight": ("bolts turned in", "Both alike, within what the maker allows."),
    "marks_up": (
        "the upper limb on top",
        "Its mark tells it; on a one-piece bow the arrow passes above the hand.",
    ),
    "larger_loop": (
        "larger loop on the upper limb",
        "It slides down that limb; the smaller one sits in the lower groove.",
    ),
    "with_stringer": ("strung with a stringer", "A foot through the bow twists limbs."),
    "loops_seated": ("both loops in their grooves", "Look at each before you let the stringer go."),
    "rest_fixed": ("rest or shelf in order", "Felt whole, rest tight; the arrow lies on it."),
    "brace_read": ("brace height read", "Inside the maker's range before the first shot."),
    "twang_listened": (
        "twanged for rattles",
        "Pluck the string lightly, never draw and let go: what buzzes is loose.",
    ),
}
"""What is done to put a bow together, and how."""
BOW_MADE_WORDS: dict[BowMade, str] = {
    "one_piece": "in one piece",
    "take_down": "to be taken down",
}
