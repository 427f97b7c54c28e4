"""The choices of the flight: causes, planes, what is looked at, what is changed for it, care."""

from typing import Literal

AxisName = Literal["spine", "upright"]
Class = Literal["tuned", "weak", "stiff", "false_weak"]
CLASSES: tuple[Class, ...] = ("tuned", "weak", "stiff", "false_weak")
"""On the upright axis: right, nock too high, too low, and bouncing (low, and reads high)."""
CAUSE_WORDS: dict[Class, str] = {
    "false_weak": "false weak",
    "stiff": "stiff",
    "weak": "weak",
    "tuned": "matched",
}
"""Of the shaft, in the order they are drawn."""
HEIGHT_WORDS: dict[Class, str] = {
    "tuned": "right height",
    "stiff": "too low",
    "weak": "too high",
    "false_weak": "low, bounces",
}
"""Of the nock."""
Doubtful = Literal["unsure", "contradict"]
"""Not enough is known; the readings contradict each other."""
Sees = Literal["tail", "bare", "mark", "slap"]

Pushed = Literal[
    "draw_short", "draw_extra", "silencers", "plate", "point", "brace", "other_shafts", "nock"
]
PUSHED_WORDS: dict[Pushed, str] = {
    "draw_short": "draw short",
    "draw_extra": "draw extra",
    "silencers": "silencers",
    "plate": "plate or window",
    "point": "another point",
    "brace": "another brace",
    "other_shafts": "other shafts",
    "nock": "nock moved",
}
Means = Literal["lever", "shafts", "nock"]
"""Something on the rig moved; other shafts; the nock moved by millimetres."""

Care = Literal["steady", "ordinary", "beginning"]
CARE_WORDS: dict[Care, str] = {
    "steady": "steady: tight groups, a sharp eye",
    "ordinary": "ordinary",
    "beginning": "beginning: wide groups",
}
MatchFrom = Literal["flight", "model"]
MATCH_FROM_WORDS: dict[MatchFrom, str] = {
    "flight": "what this rig's flight says",
    "model": "the computed match alone",
}
