"""What archers say of themselves: the rows of the archer's words."""

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
from lyrandis.core.hearing.matching import Matching
from lyrandis.core.hearing.table import Slot, Word

DATUMS = {
    "pivot": "pivot; to the pivot; true; true draw; grip; throat; to the grip; to the deepest part of the grip; to deepest part of the grip; to the throat; to pivot",
    "back": "back; to the back; to back; to back of bow; to the back of the bow; back of the bow; to back of the bow; to the back of the riser",
    "belly": "belly; to the belly; to belly",
    "trade": "trade",
    "unsure": "unsure",
}
"""Where a length along the arrow is read to."""
PLAIN_WORDS = "archer arms arm fingers finger shooter"

_DRAW = "draw length; drawlength; dl; draws; full draw; drawing length; drawing; zuglänge; draw len; pull length; my pull; i pull; amo draw; trade draw; draw len is; arrow draw; i draw"
_SAID = "said; told; they say; they said; they told; told me; they told me; was told; were told; supposedly; shop said; shop says; somebody said; someone told me"


def _span(matching: Matching) -> bool:
    """Two ends of a draw: recorded as their middle and half of what lies between."""
    if not matching.fill() or matching.questions:
        return bool(matching.questions) and not matching.lacks
    low, high = sorted((matching.values["_low"], matching.values["_high"]))
    matching.values["draw_length_mm"] = round((low + high) / 2, 6)
    matching.values["half_mm"] = round((high - low) / 2, 6)
    return True


WORDS: tuple[Word, ...] = (
    Word("draw", "archer", DrawMarked, "draw {draw_length_mm} {datum}",
         "draw length on a marked arrow; to the pivot, the back or the belly where another datum is meant", "draw 27 3/8",
         _DRAW, (Slot("draw_length_mm", "length", "draw_length"),), {"datum": DATUMS},
         "marked arrow; on a marked arrow; on an arrow; marked on an arrow; length; bow"),
    Word("draw", "archer", DrawOnScale, "draw {hook_position_mm} at hook {datum}",
         "where the string at the hook stood at full draw on a scale", "draw 28 at hook",
         f"{_DRAW}; string stands; string at", (Slot("hook_position_mm", "length", "hook_position"),),
         {"_hook": {1: "hook; at the hook; at hook; string at the hook"}, "datum": DATUMS},
         "length; on the scale; on a scale; string", need=("_hook",)),
    Word("draw", "archer", DrawStated, "draw said {draw_length_mm} {datum}",
         "a draw length somebody said", "draw said 28",
         _DRAW, (Slot("draw_length_mm", "length", "draw_length"),),
         {"_said": {1: _SAID}, "datum": DATUMS}, "length", need=("_said",)),
    Word("draw", "archer", DrawStated, "draw {_low} to {_high} {datum}",
         "a draw known no better than between two lengths", "draw 27 to 28",
         f"{_DRAW}; between",
         (Slot("_low", "length", "draw_length", label="from"), Slot("_high", "length", "draw_length", label="to")),
         {"datum": DATUMS}, "length; between; to; or", build=_span,
         needs=lambda m: m.says("to", "or", "between", "and")),
    Word("tape", "archer", ArmTape, "tape {arm_length_mm}", "fingertip to shoulder hollow", "tape 27 1/2",
         "arm length; arm; finger tip to shoulder; fingertip to shoulder; fingertip to the shoulder; fingertip to shoulder hollow; shoulder hollow; shoulder; tape measure",
         (Slot("arm_length_mm", "length", "arm_length"),)),
    Word("span", "archer", ArmSpan, "span {arm_span_mm}", "arm span", "span 70",
         "arm span; armspan; wingspan; wing span; arms; fingertip to fingertip; reach across; finger tip to finger tip; arms outstretched; spread arms",
         (Slot("arm_span_mm", "length", "arm_span"),)),
    Word("hook", "archer", HookDepth, "hook {hook_depth_mm}",
         "hook depth: string at the hook behind the nock groove", "hook 1/2",
         "hook depth; deep hook; finger depth; behind the nock groove; string sits",
         (Slot("hook_depth_mm", "length", "hook_depth"),), beside="string; behind the nock"),
    Word("hold", "archer", HoldChosen, "hold {hold}", "how the string is held", "hold three under",
         "holding; release; grip the string",
         choices={"hold": {
             "three_under": "three under; three fingers under; all under; 3 fingers under; under; three",
             "split": "split; split finger; split fingers; one over two under; one over; mediterranean; med; two under",
             "thumb": "thumb; thumb ring; thumb draw; ring",
         }},
         beside="fingers; finger; shoot; shooter; draw; release; style; string",
         implied=True, need=("hold",), weak="one over; ring; two under; under; three"),
    Word("anchor", "archer", AnchorChosen, "anchor {anchor}", "where the drawing hand stops", "anchor cheekbone",
         "anchoring; anchored; anchor point",
         choices={"anchor": {
             "under_chin": "chin; under the chin; under chin; under my chin; jaw; under the jaw",
             "corner": "corner; corner of mouth; corner of the mouth; corner of my mouth; mouth; in the corner of my mouth",
             "cheekbone": "cheekbone; cheek; cheek bone; to the cheekbone; high anchor",
         }},
         beside="high; middle finger; index finger; in; to; on; finger",
         implied=True, need=("anchor",), weak="corner; mouth"),
    Word("hand", "archer", HandChosen, "hand {hand}", "the hand that draws", "hand left",
         "drawing hand; handed; hander",
         choices={"hand": {
             "left": "left; lefty; southpaw; left handed; lefthanded; left hand; left hander; lh",
             "right": "right; righty; right handed; righthanded; right hand; right hander; rh",
         }},
         beside="draw; draws; shooter; archer; shoot", implied=True, need=("hand",), weak="left; right"),
    Word("purpose", "archer", PurposeChosen, "purpose {purpose}", "what the rig is for", "purpose woods",
         "mostly; courses; course; mainly",
         choices={"purpose": {
             "woods": "woods; forest",
             "course": "course; 3d; 3d courses; 3d course; 3 d",
             "indoor": "indoor; indoor target; target indoor; hall; indoors; target",
             "hunting": "hunting; hunt; hunting bow",
             "field": "field; field round; field rounds",
             "backyard": "backyard; garden",
             "distance": "distance; clout; flight",
         }},
         beside="bow; target; shooting", implied=True, need=("purpose",), weak="distance; flight; target; course"),
    Word("wish", "archer", WeightWished, "wish {draw_weight_lbf}", "draw weight wished for at full draw", "wish 38",
         "like to hold; want to hold; want; wanted; would like; would like to hold; comfortable; comfortable with; aim for; target weight; would love; hope to hold; looking for; i can hold; happy with; happy holding",
         (Slot("draw_weight_lbf", "force", "draw_weight"),),
         beside="on fingers; on my fingers; on the fingers; draw weight; hold; to hold"),
    Word("grip", "bow", GripDepth, "grip {depth_mm} {to}",
         "pivot to the back, the belly or the plunger, where the arrow passes", "grip 1 3/4 back",
         "grip depth; pivot to back; pivot to the back; pivot to belly; pivot; pivot to plunger; throat to back",
         (Slot("depth_mm", "length", "grip_depth"),),
         {"to": {
             "back": "back; to back; to the back; pivot to back; pivot to the back",
             "belly": "belly; to belly; to the belly; pivot to belly; pivot to the belly",
             "plunger": "plunger; to the plunger; pivot to plunger; button",
         }}, asks="to"),
)  # fmt: skip

NO_READINGS: dict[str, tuple[str, str]] = dict.fromkeys(
    ("height", "tall"),
    (
        "Height says too little of a draw: people as tall as each other draw inches apart.",
        "Mark an arrow at full draw (draw 27 3/8), or measure fingertip to shoulder hollow "
        "(tape 27 1/2) or fingertip to fingertip (span 70).",
    ),
)
"""What people offer that nothing is reckoned from, and what to measure instead."""
