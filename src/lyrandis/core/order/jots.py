"""The jot line's words for the order of work."""

from lyrandis.core import entries as e
from lyrandis.core.order.readings import (
    ASIDE_WORDS,
    LevelCircle,
    OrderHabit,
    SettingChecked,
    SettingFound,
    SettingMoved,
    StepSetAside,
)
from lyrandis.core.order.words import NODE_WORDS, ByFlight, Habit, Node
from lyrandis.core.reading import AsideStep
from lyrandis.core.spoken import Line, number_from
from lyrandis.core.stage_spec import Word

_NODES: dict[str, Node] = {
    **{node.replace("_", " "): node for node in NODE_WORDS},
    **{words: node for node, words in NODE_WORDS.items()},
}
_FOUND: dict[str, ByFlight] = {
    "first bare shaft": "bare_rough", "bare shaft": "bare_final", "last bare shaft": "bare_final",
    "walk back": "walk_back", "walkback": "walk_back", "fine tuning": "fine", "fine": "fine",
    "crawls": "crawls",
}  # fmt: skip
_ASIDE: dict[str, AsideStep] = {step.replace("_mass", ""): step for step in ASIDE_WORDS}
_HABITS: dict[str, Habit] = {"short": "short", "workbench": "workbench", "whole": "workbench"}


def _found(line: Line) -> e.Reading:
    """Take which setting was found, then how: a word or two, or a walk-back's drift."""
    said: list[str] = []
    while (token := line.peek()) is not None and " ".join([*said, token.text.lower()]) in {
        " ".join(name.split()[: len(said) + 1]) for name in _FOUND
    }:
        said.append(line.take().text.lower())
    setting = _FOUND.get(" ".join(said))
    if setting is None:
        raise line.error(
            "missing_choice",
            "Which setting was found is not said.",
            "Say bare shaft, first bare shaft, walk back, fine tuning or crawls.",
        )
    token = line.peek()
    if setting == "walk_back" and token is not None and token.kind == "number":
        drift = number_from(line.take().text)
        line.take_word("mm")
        return SettingFound(setting=setting, drift_mm=drift)
    return SettingFound(setting=setting, word=line.rest() or None)


def _circle(line: Line) -> e.Reading:
    size = line.length("level_circle")
    if line.done:
        return LevelCircle(circle_mm=size)
    line.take_word("@", "at")
    return LevelCircle(circle_mm=size, distance_m=line.distance().metres)


WORDS: tuple[Word, ...] = (
    Word("stands", "rig", "stands brace", "a setting was measured and is still so", lambda line: SettingChecked(setting=line.choice(_NODES))),
    Word("moved", "rig", "moved nock height", "a setting was moved and not measured", lambda line: SettingMoved(setting=line.choice(_NODES))),
    Word("flight", "rig", "flight bare shaft level at 18 m", "a setting found by shooting, and how it came out", _found),
    Word("circle", "archer", "circle 16cm @ 30m", "the circle in which all shafts count as level to begin with", _circle),
    Word("order", "rig", "order short", "the order of work kept here: short or workbench", lambda line: OrderHabit(habit=line.choice(_HABITS))),
    Word("aside", "rig", "aside scale", "a step set aside for now: draw, hook, shaft, arrow, brace, nock, scale, window", lambda line: StepSetAside(step=line.choice(_ASIDE))),
)  # fmt: skip
