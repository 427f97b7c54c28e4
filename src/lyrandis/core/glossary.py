"""The trade's words where they stand: what each means in one sentence, and why one needs it."""

from typing import Literal

from lyrandis.core.drawn import Drawn

Sketch = Literal[
    "draw", "marked_arrow", "hook", "brace", "stack", "lift", "locator", "tiller", "spine",
    "tail", "bare", "crawl", "point_on", "window", "pivot", "bow_length", "nock", "handle",
]  # fmt: skip
"""A small drawing beside a term."""


class GlossaryTerm(Drawn):
    """One term: how it is found in a sentence, what it means, and what it is for."""

    key: str
    word: str
    spellings: tuple[str, ...]
    """How it stands in a sentence, in lower case; the word itself among them."""
    also: tuple[str, ...] = ()
    """What else it is called, on either side of the ocean."""
    means: str
    why: str
    sketch: Sketch | None = None


def _term(
    key: str, word: str, also: str, means: str, why: str, sketch: Sketch | None = None,
    *, stands: str = "", alone: bool = True,
) -> GlossaryTerm:  # fmt: skip
    """`alone` is False where the word by itself says other things too."""
    spellings = dict.fromkeys((*((word,) if alone else ()), *_parts(stands)))
    return GlossaryTerm(
        key=key, word=word, spellings=tuple(spellings), also=_parts(also), means=means, why=why,
        sketch=sketch,
    )  # fmt: skip


def _parts(text: str) -> tuple[str, ...]:
    return tuple(part.strip() for part in text.split(";") if part.strip())


GLOSSARY: tuple[GlossaryTerm, ...] = (
    _term("draw_length", "draw length", "draw; pull length",
          "From the string at the nock groove to the deepest part of the grip at full draw, and "
          "1¾ in (4.4 cm) more.",
          "Bow, weight, arrow and crawls all follow from it.", "draw"),
    _term("marked_arrow", "marked arrow", "arrow marked at full draw",
          "Draw a light bow with a long arrow and have somebody mark the shaft over the deepest "
          "part of the grip; measure from the nock groove to that mark.",
          "It is the real thing: tape and arm span are only guesses.", "marked_arrow",
          stands="mark an arrow; arrow drawn and marked; marked on an arrow"),
    _term("datum", "datum", "reference point; what it is measured to",
          "The place a length is read to: the grip's deepest part, that and 1¾ in, or the back.",
          "The same draw is nearly 2 in longer on one than on another.", "pivot"),
    _term("pivot", "pivot", "throat of the grip; deepest part of the grip",
          "The deepest part of the grip, where the hand pushes.",
          "Draw and brace height are read to it.", "pivot", stands="pivot + 1¾ in"),
    _term("hook_depth", "hook depth", "finger depth",
          "How far the string at your fingers stands behind the arrow's nock at full draw.",
          "The bow is drawn that much further than the arrow says: weigh it there.", "hook",
          stands="behind the nock; string at the hook"),
    _term("hold", "hold", "hook; finger placement",
          "How the fingers sit on the string: one over and two under the arrow, three under, or a "
          "thumb.", "It sets hook depth, tiller and nock height.",
          stands="three under; one over, two under", alone=False),
    _term("anchor", "anchor", "anchor point; face position",
          "Where the drawing hand stops on the face, the same each shot.",
          "A higher anchor brings point-on nearer."),
    _term("draw_weight", "draw weight", "poundage; pull",
          "The force on the string at your own full draw.",
          "Arrow, stack and control hang on it; what is written on the bow holds for another draw.",
          stands="weight at your draw; weight on your fingers; held weight"),
    _term("mark", "bow's mark", "marked weight; the number on the limb",
          "The weight written on the bow, with the draw it is written for, mostly 28 in (71 cm).",
          "It will do to begin with; marks can be wrong both ways.",
          stands="marked weight; from the mark"),
    _term("stack", "stack", "stacking; hitting the wall",
          "Near the end of a limb's travel weight grows steeply with each inch.",
          "Past it the draw pinches, and far past it limbs fail.", "stack",
          stands="before stack; stacks; stacking; onset of stack"),
    _term("bow_length", "bow length", "bow size; AMO length",
          "Along the back, unstrung, from string groove to string groove.",
          "A longer bow stacks later and pinches less; a shorter one is handier.", "bow_length",
          stands="bow's length"),
    _term("draw_limit", "maker's longest draw", "maximum draw",
          "How far the maker lets this bow be drawn.", "Nobody draws past it: limbs fail there.",
          stands="maker's limit; draw limit"),
    _term("finger_angle", "finger angle", "string angle at the fingers",
          "The angle the drawn string makes at your fingers.",
          "A sharp one pinches fingers and arrow.", stands="pinch; pinches"),
    _term("string_groove", "string groove", "limb nock; string nock; tip notch",
          "The cut at the limb's tip that the loop sits in.",
          "Bow length runs from one to the other."),
    _term("riser", "riser", "handle section; middle section",
          "The stiff middle of the bow.", "With the limbs it makes the bow's length."),
    _term("static_tips", "static tips", "rigid tips; siyahs; ears",
          "Limb ends that do not bend, set at an angle.",
          "They are heavy: such bows want heavier arrows."),
    _term("virtual_mass", "virtual mass", "equivalent mass",
          "What of the bow moves with the arrow, counted as if it were arrow.",
          "It says how much of the energy the arrow gets."),
    _term("grains_per_pound", "grains per pound", "gpp; gr/lb",
          "The finished arrow's mass over the weight on your fingers.",
          "Too few is half a dry fire; many are slow and quiet.", stands="gr/lb; grains a pound"),
    _term("floor", "floor", "minimum arrow weight",
          "The fewest grains per pound this bow should be given.",
          "Under it the bow keeps energy that shakes it and the hand.",
          stands="bowyer's minimum; lightest arrow"),
    _term("grain", "grain", "gr",
          "What arrows are weighed in: 15.4 grains are a gram.",
          "Kitchen scales read grams; both are understood.", stands="grains"),
    _term("spine", "spine", "stiffness; deflection",
          "How stiff a shaft is: in pounds (more is stiffer) or thousandths of an inch it sags "
          "(fewer is stiffer).",
          "Too stiff or too weak, and the arrow leaves sideways.", "spine",
          stands="shafts' spine; matched spine"),
    _term("matched", "matched shaft", "dynamic spine",
          "The spine that lets this bow's arrow bend round it and fly straight.",
          "It is what to buy or make.", stands="this rig wants; matched"),
    _term("point", "point", "tip; pile; head",
          "The arrow's front end, given by its mass.",
          "A heavier one makes the shaft act weaker."),
    _term("forward", "forward of the middle", "FOC; front of centre",
          "How far the balance point lies ahead of the middle, as a share of the length.",
          "More steadies near shots and shortens far ones."),
    _term("string_length", "string length", "length of the string",
          "From loop end to loop end, under tension.",
          "Too long a string cannot be twisted short enough."),
    _term("strands", "strands", "threads of the string",
          "How many threads lie in the string.",
          "Enough to be safe, and to fill the arrow's nock."),
    _term("serving", "serving", "whipping",
          "Thread wound round the string where arrow and fingers sit.",
          "It makes the arrow's nock fit, and wears."),
    _term("turns", "turns in the string", "twists",
          "How often the string is twisted round itself.",
          "A few more raise the brace height.", stands="turns; twists"),
    _term("settling", "settling", "creep; stretch; shooting in",
          "A new string lets the brace height down for hours or days.",
          "Nothing is tuned before it stands still.", stands="settles; settled"),
    _term("brace_height", "brace height", "fistmele; string height",
          "From the string at rest to the deepest part of the grip.",
          "It is tuned by sound, and moves arrow and nock.", "brace", stands="brace"),
    _term("quiet_brace", "quiet brace", "sweet spot",
          "The brace height where noise and shock in the hand are least.",
          "It is the one to keep."),
    _term("dry_fire", "dry fire", "blank loose",
          "Letting go of a string without an arrow on it.",
          "All the energy goes into the bow: it can break.", stands="dry-fire"),
    _term("square", "square", "at right angles to the string",
          "The line from rest or shelf at a right angle to the string.",
          "Nock height is counted from it.", "lift"),
    _term("lift", "lift", "nock height; nocking point height",
          "How far the arrow's underside at the string stands above square.",
          "Wrong, and the arrow waves up and down.", "lift", stands="nock height"),
    _term("locator", "nock locator", "nock set; nocking point; brass nock",
          "What is tied or clamped to the string to hold the arrow's height.",
          "Its edge is what one reads.", "locator", stands="locator"),
    _term("nock", "arrow's nock", "nock",
          "The slotted end of the arrow. The string's groove on the limb and the place on the "
          "string are called nock too: we say which.",
          "It should clip, hold, and come off at a tap.", "nock", stands="arrow nock; nock groove"),
    _term("tiller", "tiller", "limb balance",
          "How much further the upper limb stands from the string than the lower.",
          "Both limbs should come home together.", "tiller"),
    _term("bolts", "limb bolts", "tiller bolts",
          "Screws that hold the limbs and set their angle.",
          "A turn moves weight and tiller; never beyond the maker's."),
    _term("centre_shot", "centre shot", "alignment of the arrow",
          "How far the point stands beside the string's line, seen from behind.",
          "It sets which way the arrow starts.", "window"),
    _term("window", "window", "sight window; cut-out; strike plate side",
          "The part of the riser cut away so that the arrow passes near the middle.",
          "The less is cut, the weaker a shaft is wanted.", "window"),
    _term("plunger", "plunger", "cushion plunger; pressure button",
          "A sprung pin the arrow lies against.", "It takes up what the shaft pushes."),
    _term("plate", "side plate", "strike plate; arrow plate",
          "Where the arrow's side passes the bow.", "Marks on it show a tail that strikes.",
          stands="plate"),
    _term("tail", "tail reading", "nock kick; tail left, tail right",
          "Which way the arrow's nock points once it sticks in a butt.",
          "It tells stiff from weak and high from low, close by.", "tail",
          stands="read the tail; the tail"),
    _term("bare", "bare shaft", "unfletched arrow",
          "An arrow shot without feathers beside fletched ones.",
          "Where it lands shows what feathers hide.", "bare", stands="bare shafts; bare beside"),
    _term("walk_back", "walk-back", "walk back tuning",
          "The same aim shot from further and further away.",
          "A column that leans shows spine or centre shot."),
    _term("false_weak", "false weak", "false reading",
          "A shaft too stiff whose tail strikes the bow and comes back: it reads weak.",
          "Believed, it sells you still stiffer shafts."),
    _term("clearance", "clearance", "arrow clearance",
          "How the tail passes the bow: clear, close, or with a slap.",
          "What strikes cannot be read.", stands="tail slaps; slaps"),
    _term("porpoising", "porpoising", "up-and-down waving",
          "The arrow swims up and down on its way.", "The nock height is wrong."),
    _term("crawl", "crawl", "string walk",
          "Taking the hook down the string for a nearer mark.",
          "One crawl serves one distance.", "crawl", stands="crawls"),
    _term("point_on", "point-on", "point on distance; POD",
          "The distance where the tip stands in the mark without any crawl.",
          "Further away one holds over.", "point_on"),
    _term("gap", "gap", "gap shooting; hold-under",
          "How far under or over the mark the tip is held.",
          "It grows to half way to point-on, then shrinks.",
          stands="largest gap; gap card", alone=False),
    _term("ring", "ring", "after-ring; vibration",
          "What the bow still sounds after the shot.", "Loose things and slack strands ring on.",
          stands="rings on; ring of the string", alone=False),
    _term("hand_shock", "hand shock", "kick in the hand",
          "The jolt left in the bow hand after the shot.",
          "Energy that did not go into the arrow."),
    _term("plus_minus", "±", "plus or minus; margin",
          "Nineteen times in twenty the true number lies inside it.",
          "A verdict is only as sure as its ± allows.", stands="the ±", alone=False),
    _term("school", "school", "way of doing it",
          "A way practitioners choose or judge, shown beside others.",
          "Where they disagree you see it, and which we prefer.", stands="schools"),
)  # fmt: skip
"""In the order of work. The sentences are our own."""
