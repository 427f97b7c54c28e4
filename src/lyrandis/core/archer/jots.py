"""The jot line's words for the archer."""

from typing import get_args

from lyrandis.core import entries as e
from lyrandis.core.archer.readings import (
    AnchorChosen,
    ArmSpan,
    ArmTape,
    DrawMarked,
    DrawOnScale,
    DrawStated,
    GripDepth,
    HandChosen,
    HoldChosen,
    HookDepth,
    PurposeChosen,
    WeightWished,
)
from lyrandis.core.archer.words import Anchor, Datum, Hand, Hold, Purpose
from lyrandis.core.free_order import Choice, Hears, Slot
from lyrandis.core.spoken import Line
from lyrandis.core.stage_spec import Word

_DATUMS: dict[str, Datum] = {
    "trade": "trade", "pivot": "pivot", "true": "pivot", "back": "back", "belly": "belly",
}  # fmt: skip
_HOLDS: dict[str, Hold] = {
    "split": "split", "one over two under": "split", "mediterranean": "split",
    "three under": "three_under", "under": "three_under", "three": "three_under",
    "thumb": "thumb", "ring": "thumb", "thumb ring": "thumb",
}  # fmt: skip
_ANCHORS: dict[str, Anchor] = {
    "chin": "under_chin", "under chin": "under_chin", "corner": "corner", "mouth": "corner",
    "corner of the mouth": "corner", "cheek": "cheekbone", "cheekbone": "cheekbone",
}  # fmt: skip
_HANDS: dict[str, Hand] = {"right": "right", "left": "left", "rh": "right", "lh": "left"}
_PURPOSES: dict[str, Purpose] = {
    **{purpose: purpose for purpose in get_args(Purpose)},
    "3d": "course", "3-d": "course", "3 d": "course", "3d course": "course", "3-d course": "course",
    "forest": "woods", "garden": "backyard",
    "target": "indoor", "hall": "indoor", "field round": "field", "clout": "distance",
    "flight": "distance",
}  # fmt: skip

_DATUM_SAID = Choice("datum", {
    "pivot": "pivot", "throat": "pivot", "grip": "pivot", "true draw": "pivot",
    "back": "back", "back of the bow": "back", "belly": "belly",
})  # fmt: skip
_LENGTH = (Slot("length", "length"),)
_DRAW = (
    Hears(
        "draw hook {length} {datum}",
        ("draw", "draw length", "drawlength", "drawing", "string stands", "string at"),
        _LENGTH,
        (Choice("hook", {"at the hook": "hook", "at hook": "hook", "hook": "hook"}, needed=True), _DATUM_SAID),
    ),
    Hears(
        "draw said {length} {datum}",
        ("draw", "draw length"),
        _LENGTH,
        (Choice("said", {"said": "said", "told": "said", "they say": "said", "supposedly": "said"}, needed=True), _DATUM_SAID),
    ),
    Hears(
        "draw {low} to {high} {datum}",
        ("draw", "draw length", "drawlength", "draws", "drawing", "i draw", "between"),
        (Slot("low", "length"), Slot("high", "length")),
        (_DATUM_SAID,),
    ),
    Hears("draw {length} {datum}", ("draw length", "drawlength", "draws", "drawing", "i draw", "full draw"), _LENGTH, (_DATUM_SAID,)),
)  # fmt: skip
_TAPE = (
    Hears(
        "tape {length}",
        ("arm", "arm length", "fingertip to shoulder", "shoulder", "tape measure"),
        _LENGTH,
    ),
)
_SPAN = (
    Hears(
        "span {length}",
        ("arm span", "arms", "armspan", "wing span", "wingspan", "fingertip to fingertip"),
        _LENGTH,
    ),
)
_HOOK = (Hears("hook {length}", ("hook depth", "deep hook", "finger depth"), _LENGTH),)
_HOLD = (
    Hears("hold {hold}", ("holding", "grip the string", "fingers", "release"), (), (
        Choice("hold", {
            "split": "split", "split finger": "split", "split fingers": "split",
            "mediterranean": "split", "one over two under": "split", "one over": "split",
            "1 over 2 under": "split", "three under": "three under", "3 under": "three under",
            "three fingers under": "three under", "thumb": "thumb", "thumb ring": "thumb",
            "thumb draw": "thumb",
        }, needed=True),), implied=True),
)  # fmt: skip
_ANCHOR = (
    Hears("anchor {anchor}", ("anchored", "anchoring", "anchor point"), (), (
        Choice("anchor", {
            "chin": "chin", "under chin": "chin", "under the chin": "chin", "jaw": "chin",
            "corner": "corner", "corner of the mouth": "corner", "corner of my mouth": "corner",
            "mouth": "corner", "cheek": "cheek", "cheekbone": "cheekbone",
        }, needed=True),), implied=True),
)  # fmt: skip
_HAND = (
    Hears("hand {hand}", ("handed", "hander", "drawing hand"), (), (
        Choice("hand", {
            "left": "left", "left handed": "left", "lefthanded": "left", "left hand": "left",
            "lefty": "left", "lh": "left", "right": "right", "right handed": "right",
            "righthanded": "right", "right hand": "right", "righty": "right", "rh": "right",
        }, needed=True),), implied=True),
)  # fmt: skip
_PURPOSE = (
    Hears("purpose {purpose}", ("shoot", "shooting", "for", "mostly", "course"), (), (
        Choice("purpose", {**_PURPOSES, "hunt": "hunting", "indoor target": "indoor", "target indoor": "indoor", "woods course": "course"}, needed=True),), implied=True),
)  # fmt: skip
_WISH = (
    Hears(
        "wish {weight}",
        ("want to hold", "want", "wanted", "like to hold", "would like", "comfortable", "comfortable with", "target weight", "aim for"),
        (Slot("weight", "force"),),
        (),
        ("draw", "weight"),
    ),
)  # fmt: skip
_GRIP = (
    Hears(
        "grip {length} {to}",
        ("grip depth", "pivot to", "throat"),
        _LENGTH,
        (Choice("to", {"back": "back", "belly": "belly"}),),
    ),
)


def read_datum(line: Line) -> Datum:
    """Take what a length is read to; the trade datum where nothing is said."""
    line.take_word("to")
    token = line.peek()
    if token is None or token.text.lower() not in _DATUMS:
        return "trade"
    return _DATUMS[line.take().text.lower()]


def _draw(line: Line) -> e.Reading:
    at_hook = line.take_word("hook")
    said = line.take_word("said", "about", "told")
    span = None if at_hook else line.length_span("draw_length")
    if span is not None:
        low, high = span
        datum = read_datum(line)
        middle, half = round((low + high) / 2, 6), round((high - low) / 2, 6)
        return DrawStated(draw_length_mm=middle, half_mm=half, datum=datum)
    length = line.length("hook_position" if at_hook else "draw_length")
    datum = read_datum(line)
    if line.take_word("at"):
        at_hook = line.take_word("hook")
        if not at_hook:
            raise line.error("unknown_word", "“at” wants “hook”.", "Type draw 27 7/8 at hook.")
    if at_hook:
        return DrawOnScale(hook_position_mm=length, datum=datum)
    if said:
        return DrawStated(draw_length_mm=length, datum=datum)
    return DrawMarked(draw_length_mm=length, datum=datum)


def _grip(line: Line) -> e.Reading:
    depth = line.length("grip_depth")
    if line.take_word("plunger", "button"):
        return GripDepth(to="plunger", depth_mm=depth)
    to = read_datum(line)
    return GripDepth(to="belly" if to == "belly" else "back", depth_mm=depth)


NO_READINGS: dict[str, tuple[str, str]] = dict.fromkeys(
    ("height", "tall"),
    (
        "Height says too little of a draw: people as tall as each other draw inches apart.",
        "Mark an arrow at full draw (draw 27 3/8), or measure fingertip to shoulder hollow "
        "(tape 27 1/2) or fingertip to fingertip (span 70).",
    ),
)
"""What people offer that nothing is reckoned from, and what to measure instead."""

WORDS: tuple[Word, ...] = (
    Word("draw", "archer", "draw 27 3/8", "draw length on a marked arrow; add pivot, back or belly for another datum, “at hook” for the string on a scale, “said” for hearsay; or a span, “draw 27 to 28”", _draw, offered=True, hears=_DRAW),
    Word("tape", "archer", "tape 27 1/2", "fingertip to shoulder hollow", lambda line: ArmTape(arm_length_mm=line.length("arm_length")), hears=_TAPE),
    Word("span", "archer", "span 70", "arm span", lambda line: ArmSpan(arm_span_mm=line.length("arm_span")), hears=_SPAN),
    Word("hook", "archer", "hook 1/2", "hook depth: string at the hook behind the nock groove", lambda line: HookDepth(hook_depth_mm=line.length("hook_depth")), hears=_HOOK),
    Word("hold", "archer", "hold three under", "how the string is held", lambda line: HoldChosen(hold=line.choice(_HOLDS)), hears=_HOLD),
    Word("anchor", "archer", "anchor cheekbone", "where the drawing hand stops", lambda line: AnchorChosen(anchor=line.choice(_ANCHORS)), hears=_ANCHOR),
    Word("hand", "archer", "hand left", "the hand that draws", lambda line: HandChosen(hand=line.choice(_HANDS)), hears=_HAND),
    Word("purpose", "archer", "purpose woods", "what the rig is for", lambda line: PurposeChosen(purpose=line.choice(_PURPOSES)), hears=_PURPOSE),
    Word("wish", "archer", "wish 38", "draw weight wished for at full draw", lambda line: WeightWished(draw_weight_lbf=line.weight()), offered=True, hears=_WISH),
    Word("grip", "bow", "grip 1 3/4 back", "pivot to the back (or belly, or plunger) where the arrow passes", _grip, hears=_GRIP),
)  # fmt: skip
