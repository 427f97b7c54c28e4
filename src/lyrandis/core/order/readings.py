"""What is recorded of the order of work: that a setting still stands, or that it was moved."""

from typing import Annotated, Literal

from pydantic import model_validator

from lyrandis.core.errors import DomainError
from lyrandis.core.flight.readings import DistanceM, metres
from lyrandis.core.order.words import HABIT_WORDS, NODE_WORDS, ByFlight, Habit, Node
from lyrandis.core.phrase import Phrase, mm, phrase, plain
from lyrandis.core.quantities import Quantity
from lyrandis.core.reading import AsideStep, BaseReading, Name


class SettingChecked(BaseReading):
    """A setting was looked at and stands as it was."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    kind: Literal["setting_checked"] = "setting_checked"
    setting: Node

    def say(self) -> Phrase:
        return phrase(f"Checked, still so: {NODE_WORDS[self.setting]}")


class SettingMoved(BaseReading):
    """A setting was moved and not measured: what it is now, nobody knows."""

    of = frozenset({"rig"})
    settles = False
    kind: Literal["setting_moved"] = "setting_moved"
    setting: Node

    def say(self) -> Phrase:
        return phrase(f"Moved, not measured: {NODE_WORDS[self.setting]}")


class SettingFound(BaseReading):
    """A setting that is found by shooting, and how it came out."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    kind: Literal["setting_found"] = "setting_found"
    setting: ByFlight
    word: Name | None = None
    """How it came out, e.g. level at 18 m."""
    drift_mm: Annotated[float, Quantity("drift")] | None = None
    """Of a walk-back: drift of the column over 10 m, + to the arrow's side."""

    @model_validator(mode="after")
    def _said(self) -> "SettingFound":
        if self.word is None and self.drift_mm is None:
            raise DomainError(
                "nothing_given", "How it came out is missing.", "Say it in a word or two.", "word"
            )
        if self.drift_mm is not None and self.setting != "walk_back":
            raise DomainError(
                "wrong_subject", "Only a walk-back drifts.", "Say it in a word or two.", "drift_mm"
            )
        return self

    def say(self) -> Phrase:
        said = plain(self.word) if self.word else f"drift {self.drift_mm:g} mm in 10 m"
        return phrase(f"{NODE_WORDS[self.setting].capitalize()}: {said}")


class OrderHabit(BaseReading):
    """Which order of work the archer keeps on this rig."""

    of = frozenset({"rig"})
    kind: Literal["order_habit"] = "order_habit"
    habit: Habit

    def say(self) -> Phrase:
        return phrase(f"Order of work: {HABIT_WORDS[self.habit]}")


class LevelCircle(BaseReading):
    """The circle in which all shafts of an end count as level to begin with."""

    of = frozenset({"archer"})
    kind: Literal["level_circle"] = "level_circle"
    circle_mm: Annotated[float, Quantity("level_circle")]
    distance_m: DistanceM = 30.0

    @property
    def radius_per_m(self) -> float:
        """Half of it per metre of distance [mm/m]."""
        return self.circle_mm / 2 / self.distance_m

    def say(self) -> Phrase:
        return phrase(
            f"Level: all in a circle of {{circle}} at {metres(self.distance_m)}",
            circle=mm(self.circle_mm),
        )


ASIDE_WORDS: dict[AsideStep, str] = {
    "window": "where the plate stands",
    "draw": "marking the draw", "hook": "measuring the hook", "shaft": "measuring the shafts",
    "arrow_mass": "weighing an arrow", "brace": "reading the brace",
    "nock": "tying on a nock", "scale": "weighing the bow",
}  # fmt: skip


class StepSetAside(BaseReading):
    """A step that was asked for and is set aside: no scale at hand, or not now."""

    of = frozenset({"rig"})
    settles = False
    kind: Literal["step_set_aside"] = "step_set_aside"
    step: AsideStep
    aside: bool = True
    """False takes it up again."""

    def key(self) -> tuple[str, ...]:
        return (self.step,)

    def say(self) -> Phrase:
        how = "Set aside for now" if self.aside else "Taken up again"
        return phrase(f"{how}: {ASIDE_WORDS[self.step]}")


OrderReading = (
    SettingChecked | SettingMoved | SettingFound | OrderHabit | LevelCircle | StepSetAside
)
