"""What archers say of the order of work: its rows."""

import re

from lyrandis.core.errors import DomainError
from lyrandis.core.hearing.table import Parts, Slot, Word
from lyrandis.core.order.readings import (
    LevelCircle,
    OrderHabit,
    SettingChecked,
    SettingFound,
    SettingMoved,
    StepSetAside,
)
from lyrandis.core.order.words import ByFlight

PLAIN_WORDS = ""

_NODES = {
    "draw": "draw length; draw", "hold": "hold", "anchor": "anchor", "grip": "grip mark; grip",
    "silencers": "silencers", "string": "string", "settled": "string settled; settled",
    "weight_rough": "weight first; weight , first; weight rough", "tiller_rough": "tiller first; tiller , first; tiller rough",
    "limb_alignment": "limbs in line; limb alignment", "centre_shot": "centre shot",
    "riser_weights": "riser weights", "tiller": "tiller",
    "bare_rough": "bare shaft first; bare shaft , first; bare rough", "brace": "brace; brace height",
    "nock": "nock height; nock; nocking point", "arrows": "arrows", "walk_back": "walk back; walkback; walk-back",
    "bare_final": "bare shaft last; bare shaft , last; bare final", "fine": "fine tuning; fine", "crawls": "crawls",
}  # fmt: skip

_FOUND: dict[str, ByFlight] = {
    "first bare shaft": "bare_rough", "last bare shaft": "bare_final", "bare shaft": "bare_final",
    "walk back": "walk_back", "walkback": "walk_back", "walk-back": "walk_back",
    "fine tuning": "fine", "fine": "fine", "crawls": "crawls",
}  # fmt: skip
_FLIGHT = re.compile(
    rf"\s*flight\s+(?P<setting>{'|'.join(_FOUND)})\b(?:\s+(?P<drift>-?\d+(?:[.,]\d+)?)\s*(?:mm)?\s*$)?(?P<word>.*)",
    re.IGNORECASE | re.DOTALL,
)


def _found(line: str, _parts: Parts) -> SettingFound | None:
    """A setting found by shooting, in the archer's own words; of a walk-back, its drift."""
    match = _FLIGHT.fullmatch(line)
    if match is None and re.match(r"\s*flight\s+\S", line, re.IGNORECASE):
        raise DomainError(
            "missing_choice",
            "Which setting was found is not said.",
            "Say bare shaft, first bare shaft, walk back, fine tuning or crawls.",
            span=(0, len(line)),
        )
    if match is None:
        return None
    setting = _FOUND[match["setting"].lower()]
    if setting == "walk_back" and match["drift"]:
        return SettingFound(setting=setting, drift_mm=float(match["drift"].replace(",", ".")))
    words = f"{match['drift'] or ''}{match['word']}".strip()
    return SettingFound(setting=setting, word=words or None)


WORDS: tuple[Word, ...] = (
    Word("stands", "rig", SettingChecked, "stands {setting}", "a setting was measured and is still so", "stands brace",
         "still so; still right; not changed; unchanged; as it was", choices={"setting": _NODES}, need=("setting",)),
    Word("moved", "rig", SettingMoved, "moved {setting}", "a setting was moved and not measured", "moved nock height",
         "changed; was moved; shifted; has moved", choices={"setting": _NODES}, need=("setting",)),
    Word("circle", "archer", LevelCircle, "circle {circle_mm} [at {distance_m}]", "the circle in which all shafts count as level to begin with", "circle 16cm @ 30m",
         slots=(Slot("circle_mm", "length", "level_circle"), Slot("distance_m", "distance", "shooting_distance", needed=False, before="at", label="distance"))),
    Word("flight", "rig", SettingFound, "flight {setting} {word}", "a setting found by shooting, and how it came out", "flight bare shaft level at 18 m",
         choices={"setting": {setting: "; ".join(one for one, of in _FOUND.items() if of == setting) for setting in dict.fromkeys(_FOUND.values())}},
         reads=_found, text="word"),
    Word("order", "rig", OrderHabit, "order {habit}", "the order of work kept here: short or workbench", "order short",
         "order of work", choices={"habit": {"short": "short", "workbench": "workbench; whole"}}, need=("habit",)),
    Word("aside", "rig", StepSetAside, "aside {step}", "a step set aside for now: draw, hook, shaft, arrow, brace, nock, scale, window", "aside scale",
         choices={"step": {
             "draw": "draw", "hook": "hook", "shaft": "shaft", "arrow_mass": "arrow", "brace": "brace", "nock": "nock",
             "scale": "scale", "window": "window"}}, need=("step",)),
)  # fmt: skip
