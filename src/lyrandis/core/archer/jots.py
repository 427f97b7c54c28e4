"""The jot line's words for the archer."""

from typing import get_args

from lyrandis.core import entries as e
from lyrandis.core.room import Word
from lyrandis.core.spoken import Line

_DATUMS: dict[str, e.Datum] = {
    "trade": "trade", "pivot": "pivot", "true": "pivot", "back": "back", "belly": "belly",
}  # fmt: skip
_HOLDS: dict[str, e.Hold] = {
    "split": "split", "one over two under": "split", "mediterranean": "split",
    "three under": "three_under", "under": "three_under", "three": "three_under",
    "thumb": "thumb", "ring": "thumb", "thumb ring": "thumb",
}  # fmt: skip
_ANCHORS: dict[str, e.Anchor] = {
    "chin": "under_chin", "under chin": "under_chin", "corner": "corner", "mouth": "corner",
    "corner of the mouth": "corner", "cheek": "cheekbone", "cheekbone": "cheekbone",
}  # fmt: skip
_HANDS: dict[str, e.Hand] = {"right": "right", "left": "left", "rh": "right", "lh": "left"}
_PURPOSES: dict[str, e.Purpose] = {purpose: purpose for purpose in get_args(e.Purpose)}


def read_datum(line: Line) -> e.Datum:
    """Take what a length is read to; the trade datum where nothing is said."""
    line.take_word("to")
    token = line.peek()
    if token is None or token.text.lower() not in _DATUMS:
        return "trade"
    return _DATUMS[line.take().text.lower()]


def _draw(line: Line) -> e.Reading:
    at_hook = line.take_word("hook")
    said = line.take_word("said", "about", "told")
    length = line.length("hook_position" if at_hook else "draw_length")
    datum = read_datum(line)
    if line.take_word("at"):
        at_hook = line.take_word("hook")
        if not at_hook:
            raise line.error("unknown_word", "“at” wants “hook”.", "Type draw 27 7/8 at hook.")
    if at_hook:
        return e.DrawOnScale(hook_position_mm=length, datum=datum)
    if said:
        return e.DrawStated(draw_length_mm=length, datum=datum)
    return e.DrawMarked(draw_length_mm=length, datum=datum)


def _grip(line: Line) -> e.Reading:
    depth = line.length("grip_depth")
    to = read_datum(line)
    return e.GripDepth(to="belly" if to == "belly" else "back", depth_mm=depth)


WORDS: tuple[Word, ...] = (
    Word("draw", "archer", "draw 27 3/8", "draw length on a marked arrow; add pivot, back or belly for another datum, “at hook” for the string on a scale, “said” for hearsay", _draw, offered=True),
    Word("tape", "archer", "tape 27 1/2", "fingertip to shoulder hollow", lambda line: e.ArmTape(arm_length_mm=line.length("arm_length"))),
    Word("span", "archer", "span 70", "arm span", lambda line: e.ArmSpan(arm_span_mm=line.length("arm_span"))),
    Word("hook", "archer", "hook 1/2", "hook depth: string at the hook behind the nock groove", lambda line: e.HookDepth(hook_depth_mm=line.length("hook_depth"))),
    Word("hold", "archer", "hold three under", "how the string is held", lambda line: e.HoldChosen(hold=line.choice(_HOLDS))),
    Word("anchor", "archer", "anchor cheekbone", "where the drawing hand stops", lambda line: e.AnchorChosen(anchor=line.choice(_ANCHORS))),
    Word("hand", "archer", "hand left", "the hand that draws", lambda line: e.HandChosen(hand=line.choice(_HANDS))),
    Word("purpose", "archer", "purpose woods", "what the rig is for", lambda line: e.PurposeChosen(purpose=line.choice(_PURPOSES))),
    Word("wish", "archer", "wish 38", "draw weight wished for at full draw", lambda line: e.WeightWished(draw_weight_lbf=line.weight()), offered=True),
    Word("grip", "bow", "grip 1 3/4 back", "pivot to the back (or belly) where the arrow passes", _grip),
)  # fmt: skip
