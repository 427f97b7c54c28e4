"""The parts by name: what each is called and means, for the drawings that name them."""

from typing import Literal

from lyrandis.core.drawn import Drawn

Drawing = Literal["bench", "side"]


class Term(Drawn):
    """One part by name."""

    key: str
    word: str
    means: str
    drawing: Drawing


def _terms(drawing: Drawing, *rows: tuple[str, str, str]) -> tuple[Term, ...]:
    return tuple(Term(key=k, word=word, means=means, drawing=drawing) for k, word, means in rows)


TERMS: tuple[Term, ...] = (
    *_terms(
        "bench",
        ("limb", "limb", "What bends. The upper one is marked; the arrow passes next to it."),
        ("tip", "tip", "The limb's end; static tips do not bend."),
        (
            "string_groove",
            "string groove, a nock of the bow",
            "Where the loop sits. Bow length is measured from one to the other along the back. "
            "One of four things called nock.",
        ),
        ("fade", "fade", "Where the stiff riser runs out into the limb."),
        ("riser", "riser", "The stiff middle. On a take-down bow the limbs come off it."),
        ("pivot", "grip's pivot", "The deepest part of the grip; draw and brace are read to it."),
        ("back", "back", "The side away from the archer."),
        ("belly", "belly", "The side toward the archer."),
        ("string", "string", "With a loop at either end; the larger goes on the upper limb."),
        ("brace", "brace height", "String to the deepest part of the grip, at rest."),
        (
            "nocking_point",
            "nocking point",
            "Where the arrow is put on the string: the second thing called nock.",
        ),
    ),
    *_terms(
        "side",
        ("window", "window", "The part cut away so that the arrow passes near the middle."),
        ("shelf", "shelf", "The ledge under the arrow; without a rest it lies there."),
        ("rest", "rest", "What the arrow lies on: a rest, the shelf, or the hand."),
        ("square", "square", "The line from rest or shelf square to the string."),
        ("lift", "lift", "The arrow's underside at the string above square: nock height."),
        (
            "locator",
            "locator",
            "Tied or clamped on the serving, it keeps the arrow's height; its edge is read.",
        ),
        (
            "arrow_nock",
            "the arrow's nock",
            "The slotted end that clips on the string: the third thing called nock.",
        ),
        ("grip_mark", "grip mark", "For the top of the hand: 1 mm up is 1 mm of lift gone."),
        (
            "to_nock",
            "to nock",
            "To put the arrow on the string: the fourth. Which is meant is said each time.",
        ),
    ),
)
"""In the order they are numbered on the drawing."""
