"""The choices of the flight: causes, planes, what is looked at, what is changed for it, care."""

from typing import Literal

AxisName = Literal["spine", "upright"]
Class = Literal["tuned", "weak", "stiff", "false_weak"]
CLASSES: tuple[Class, ...] = ("tuned", "weak", "stiff", "false_weak")
"""On the upright axis: right, nock too high, too low, and bouncing (low, and reads high)."""
Doubtful = Literal["unsure", "contradict"]
"""Not enough is known; the readings contradict each other."""
Sees = Literal["tail", "bare", "mark", "slap"]
Pushed = Literal["draw_short", "draw_extra", "silencers", "plate", "other_shafts", "nock"]
Care = Literal["kind", "ordinary", "careless"]
Means = Literal["lever", "shafts", "nock"]
"""Something on the rig moved; other shafts; the nock moved by millimetres."""
