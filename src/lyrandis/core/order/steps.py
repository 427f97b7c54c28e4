"""What to do at each setting: in a check, and in finding it anew; and where that is done."""

from typing import NamedTuple

from lyrandis.core.order.words import Node
from lyrandis.core.reading import StageKey


class Step(NamedTuple):
    """How one setting is checked and found."""

    stage: StageKey
    control: str
    check: str
    find: str
    how: str
    """What is done to find it."""
    unit: str = "mm"
    """In what its value is said: mm, gap, lbf, gr, word, grams or nothing."""


STEPS: dict[Node, Step] = {
    "draw": Step("archer", "draw", "Mark your draw again", "Mark your draw",
                 "Draw a light bow with a long arrow and mark it."),
    "hold": Step("archer", "hold", "Say how you hold the string", "Say how you hold the string",
                 "Say whether split, three under or thumb.", "word"),
    "anchor": Step("archer", "anchor", "Say where you anchor", "Say where you anchor",
                   "Say where the drawing hand stops.", "word"),
    "grip": Step("nock", "side", "Read the grip mark", "Mark the grip",
                 "Mark the top of the hand and read it under the rest.", "gap"),
    "string": Step("string", "sheet", "Look the string over", "Enter the string",
                   "Strands, fibre and length: what the next string is ordered by.", "word"),
    "settled": Step("string", "settling", "Read the brace again", "Say whether it has settled",
                    "An old string has. A new one: read the brace after 1, 3 and 6 hours.", "gap"),
    "silencers": Step("string", "silencers", "Weigh the silencers", "Enter the silencers",
                      "Both together, and how far from the loops they sit.", "gr"),
    "weight_rough": Step("bow", "scale", "Weigh the bow again", "Weigh the bow",
                         "Hang it on a scale, the string at your draw.", "lbf"),
    "tiller_rough": Step("nock", "tiller", "Measure the tiller", "Measure the tiller",
                         "Both gaps square from the string, at one place on each limb.", "gap"),
    "limb_alignment": Step("nock", "alignment", "Sight the string over the limbs",
                           "Bring the limbs in line",
                           "The string runs through the middle of both limbs' roots.", "gap"),
    "centre_shot": Step("nock", "alignment", "Sight the point from behind", "Set the centre shot",
                        "The point stands just outside the string's line.", "gap"),
    "riser_weights": Step("nock", "weights", "Look at the riser weights", "Enter the riser weights",
                          "Each weight and where it sits from the grip.", "grams"),
    "tiller": Step("nock", "tiller", "Measure the tiller again", "Set the tiller",
                   "Both gaps square from the string, at one place on each limb.", "gap"),
    "bare_rough": Step("nock", "order", "Shoot one bare shaft near", "Shoot one bare shaft near",
                       "One bare beside two fletched, from 5 to 10 m.", "word"),
    "brace": Step("string", "brace", "Read the brace", "Find the quiet brace",
                  "Shoot three at a few heights, rate sound and hand shock.", "mm"),
    "nock": Step("nock", "height", "Check the nock with the square", "Set the nock height",
                 "Square on the rest; read the arrow's underside. Then flight.", "gap"),
    "arrows": Step("arrow", "masses", "Weigh the arrows again", "Weigh the arrows",
                   "Each finished arrow on the grain scale.", "arrows"),
    "walk_back": Step("nock", "order", "Walk back", "Walk back",
                      "Same aim from growing distances; read the column's drift.", "drift"),
    "bare_final": Step("nock", "order", "Shoot bare shafts at your distance",
                       "Shoot bare shafts at your distance",
                       "Two bare beside four fletched.", "word"),
    "fine": Step("nock", "order", "Shoot groups", "Shoot groups",
                 "One change at a time, two groups each.", "word"),
    "crawls": Step("nock", "order", "Shoot two crawls again", "Shoot two crawls",
                   "One near, one far; the marks go on the tab.", "word"),
}  # fmt: skip
