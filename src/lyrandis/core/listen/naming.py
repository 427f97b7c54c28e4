"""What a sound points to: separate evidences, each with its own threshold, never one classifier.

Shot faults are named only against the same bow's own earlier takes, by differences of features; a
rattle and a second pitch may be told without. "Points to", never "is": all of it was proved on
made-up sound only.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache
from importlib.resources import files

import numpy as np
from pydantic import BaseModel, ConfigDict

from lyrandis.core.listen.compare import LEAST_TAKES, Compared, compared
from lyrandis.core.listen.readings import SoundHeard, TakeHeard
from lyrandis.core.listen.second import POINTS
from lyrandis.core.listen.words import Fault

FITTED = "naming.json"
"""Beside this file: a constant that ships, written by a tool."""
CLIPPED = 3.0
RATTLE_NEAR, SECOND_NEAR, LOUDER_NEAR_DB, ARROW_NEAR = 0.8, 2.0, 0.7, 0.4
"""How far under a threshold a thing is "not enough"."""
NEARLY_LOOSE = 2
"""Signs of a rattle, of three, that a lone pluck shows."""
SILENT = -9.0
"""Score of an arrow that nothing speaks of: its odds are nought."""
LOUD_DB, VERY_LOUD_DB = 2.7, 3.5
"""Assumption: a rise of the shot that points somewhere, and one that shakes everything."""
SAME_RATIO, LIMB_MODE = 0.008, 6.0
PLAIN_LINE_DB, PLAIN_UNREP, PLAIN_EXCESS_DB = 8.0, 0.6, 7.5
"""Assumption: a rattle without a before: all three are plain, two are maybe."""
WIDTH_SECOND, WIDTH_LOGISTIC = 2.0, 0.7
"""Assumption: width of the step from unlikely to likely."""
MOST_ODDS = 4.0
"""Nothing is surer than 98 in a hundred: it was proved on made-up sound only."""
PLAIN_ODDS = (0.0, 0.1, 0.7, 4.0)
"""Assumption: odds of a rattle by how many of three signs a lone pluck shows."""
SURE_ENOUGH = 0.5
"""Under one half nothing is named."""


class LogisticTerm(BaseModel):
    """One feature of a logistic: (x - centre)/scale, clipped at 3, times its weight."""

    name: str
    weight: float
    centre: float
    scale: float


class Logistic(BaseModel):
    """A score, and from where on it speaks."""

    bias: float
    terms: tuple[LogisticTerm, ...]
    threshold: float

    def score(self, features: Mapping[str, float]) -> float:
        """Return w0 + sum w clip((x - centre)/scale); what is missing counts nought.

        Source: logistic regression, its figures fitted by `tools/fit_naming.py`.

        >>> term = LogisticTerm(name="level", weight=2.0, centre=1.0, scale=0.5)
        >>> rule = Logistic(bias=-1.0, terms=(term,), threshold=0.0)
        >>> rule.score({"level": 1.5}), rule.score({})
        (1.0, -1.0)
        """
        total = self.bias
        for term in self.terms:
            if term.name in features:
                off = (features[term.name] - term.centre) / term.scale
                total += term.weight * min(max(off, -CLIPPED), CLIPPED)
        return total


class _Fitted(BaseModel):
    """The file as `tools/fit_naming.py` writes it."""

    model_config = ConfigDict(extra="ignore")

    scores: dict[str, Logistic]


@cache
def fitted() -> dict[str, Logistic]:
    """Return the scores as `tools/fit_naming.py` fitted them to the simulated microphone.

    Source: ridge logistic regression on made-up recordings; see the file.

    >>> sorted(fitted())
    ['arrow', 'arrow_over_brace', 'rattle']
    """
    return _Fitted.model_validate_json(
        files(__package__).joinpath(FITTED).read_text(encoding="utf-8")
    ).scores


def per_take(take: TakeHeard) -> dict[str, float]:
    """Return one take's features by the names the scores know.

    Source: definition.

    >>> from lyrandis.core.example import take
    >>> per_take(take(unrep=1.5))["unrep"]
    1.5
    """
    return {
        "excess": take.excess_db,
        "unrep": take.unrep,
        "rep": take.rep,
        "d32": take.cells_db[3 * 5 + 2] - take.cells_db[3 * 5 + 1],
        "spread": take.spread_ms,
        "bursts": float(take.bursts),
        "slap": take.slap,
        "crest": take.crest_db,
        "level": take.level_db,
        **{f"first{b}": take.cells_db[5 * b + 1] - take.cells_db[5 + 1] for b in range(5)},
    }


def medians(heard: SoundHeard) -> dict[str, float]:
    """Return the medians over a recording's takes, and its own line.

    Source: definition.

    >>> from lyrandis.core.example import sound
    >>> medians(sound(levels=(-41.0, -39.0, -40.0), line_db=2.0))["level"]
    -40.0
    """
    rows = [per_take(take) for take in heard.counting]
    result = (
        {name: float(np.median([row[name] for row in rows])) for name in rows[0]} if rows else {}
    )
    return {**result, "line": heard.line_db}


def differences(
    pluck: tuple[SoundHeard, SoundHeard] | None, shot: tuple[SoundHeard, SoundHeard] | None
) -> dict[str, float]:
    """Return after less before, `p_` of the pluck and `s_` of the shot.

    x3, x4: the shot's first 12 ms over 1.8 and 4 kHz, freed of phone and room by the pluck's.
    Source: definition.

    >>> from lyrandis.core.example import sound
    >>> louder = sound(2, levels=(-37.0, -36.0, -38.0))
    >>> differences(None, (sound(1), louder))["s_level"]
    3.0
    """
    result: dict[str, float] = {}
    for letter, pair in (("p", pluck), ("s", shot)):
        if pair is None:
            continue
        before, after = medians(pair[0]), medians(pair[1])
        for name in before.keys() & after.keys():
            result[f"{letter}_{name}"] = after[name] - before[name]
    if pluck and shot:
        for b in (3, 4):
            result[f"x{b}"] = result[f"s_first{b}"] - result[f"p_first{b}"]
    return result


@dataclass(frozen=True)
class Odds:
    """What the rig's own facts say beforehand: a factor each, with the reason."""

    factors: Mapping[Fault, float] = field(default_factory=dict)
    because: tuple[str, ...] = ()


@dataclass(frozen=True)
class Pointed:
    """What a sound points to; `fault` None where nothing was found or there is not enough."""

    fault: Fault | None
    sure: float
    """Likelihood beside the others, with the rig's odds."""
    enough: bool
    """False where one more set of takes is wanted."""
    louder: Compared | None = None
    rattle: float | None = None
    """Score less its threshold."""
    second: float = 0.0
    second_ratio: float = 1.0
    blind: bool = False
    """True where the phone adjusted its gain: that nothing was found then says nothing."""
    hint: bool = False
    """True where it is only a hint: a slack strand, a rattle without a before."""


def _odds(score: float, threshold: float, width: float) -> float:
    """Return odds against nothing being found: one at the threshold, e-fold a width."""
    return math.exp(min(max((score - threshold) / width, -MOST_ODDS), MOST_ODDS))


def second_against(now: SoundHeard, before: SoundHeard | None) -> float:
    """Return how strongly a second pitch speaks: one that was there before is a limb's own note.

    min(second, 8 + 0.8 (now - before)) where the before had the same ratio within 0.008.
    Source: our own.

    >>> from lyrandis.core.example import sound
    >>> now = sound(2, "pluck", second=18.0, second_ratio=0.96)
    >>> second_against(now, None), second_against(now, now.model_copy())
    (18.0, 8.0)
    """
    if before is None or before.second <= LIMB_MODE:
        return now.second
    if abs(before.second_ratio - now.second_ratio) > SAME_RATIO:
        return now.second
    return min(now.second, 8 + 0.8 * (now.second - before.second))


def plain_rattle(heard: SoundHeard) -> int:
    """Return how many of three signs of a rattle a pluck shows, without a before.

    Source: Assumption; all three are plain, two are maybe.

    >>> from lyrandis.core.example import sound, take
    >>> loose = tuple(take(unrep=1.0, excess_db=9.0) for _ in range(3))
    >>> plain_rattle(sound(takes=loose, line_db=9.0)), plain_rattle(sound())
    (3, 0)
    """
    told = medians(heard)
    return (
        (told["line"] > PLAIN_LINE_DB)
        + (told.get("unrep", 0.0) > PLAIN_UNREP)
        + (told.get("excess", 0.0) > PLAIN_EXCESS_DB)
    )


def point(
    *,
    pluck: SoundHeard | None,
    pluck_before: SoundHeard | None = None,
    shot: SoundHeard | None = None,
    shot_before: SoundHeard | None = None,
    levels: bool = False,
    odds: Odds = Odds(),
) -> Pointed | None:
    """Return what the newest pluck and shot point to against the bow's own earlier ones.

    `levels` says whether both shots were recorded with the same phone, place and gain, which does
    not adjust itself. None where nothing was recorded. Without a before no fault of the shot is
    named. A shot louder by over 3.5 dB shakes everything and goes first; else the likeliest.
    Source: our own, proved on made-up sound of a second kind (docs/MECHANICS.md).

    >>> from lyrandis.core.example import sound
    >>> before, after = sound(1), sound(2, levels=(-33.0, -33.5, -32.5))
    >>> point(pluck=None, shot=after, shot_before=before, levels=True).fault
    'brace'
    >>> point(pluck=None, shot=after).fault is None
    True
    """
    if pluck is None and shot is None:
        return None
    scores = fitted()
    plucks = (pluck_before, pluck) if pluck_before and pluck else None
    shots = (shot_before, shot) if shot_before and shot else None
    delta = differences(plucks, shots)
    louder = _louder(shots) if levels else None
    second = second_against(pluck, pluck_before) if pluck else 0.0
    ratio = pluck.second_ratio if pluck else 1.0
    rattle = scores["rattle"].score(delta) - scores["rattle"].threshold if plucks else None
    signs = plain_rattle(pluck) if pluck and not plucks else 0

    rises = louder.change_db if louder else 0.0
    told = louder is not None and louder.told_apart and rises > LOUD_DB
    over = scores["arrow_over_brace"].score(delta)
    which: Fault = "arrow" if over > scores["arrow_over_brace"].threshold else "brace"
    arrow = scores["arrow"].score(delta) - scores["arrow"].threshold if plucks and shots else SILENT
    if louder is not None and louder.told_apart and rises < 0:
        # what is quieter than before has no new fault of the shot
        arrow = SILENT
    loud = _odds(rises, LOUD_DB, louder.error_db) if louder else 0.0
    share = 1 / (1 + _odds(-over, 0.0, WIDTH_LOGISTIC))
    # Odds of each fault against none, e-fold a width past its threshold; the loudness of the shot
    # is shared between brace and arrow by the score that tells one from the other:
    #   P(fault) = odds/(1 + sum of odds), each times what the rig's facts say
    likely: dict[Fault, float] = {
        "slack": _odds(second, POINTS, WIDTH_SECOND) if pluck else 0.0,
        "rattle": _odds(rattle, 0.0, WIDTH_LOGISTIC) if rattle is not None else PLAIN_ODDS[signs],
        "brace": loud * (1 - share),
        "arrow": max(loud * share, _odds(arrow, 0.0, WIDTH_LOGISTIC)),
    }
    likely = {name: item * odds.factors.get(name, 1.0) for name, item in likely.items()}
    speaks: dict[Fault, bool] = {
        "slack": second > POINTS,
        "rattle": (rattle is not None and rattle > 0) or signs == len(PLAIN_ODDS) - 1,
        which: told,
        "arrow": arrow > 0 or (told and which == "arrow"),
    }
    # a loud shot shakes everything; otherwise the likeliest of what speaks
    heard: list[Fault] = [fault for fault, item in speaks.items() if item]
    if told and rises > VERY_LOUD_DB:
        heard = [which]
    fault = max(heard, key=lambda item: likely[item], default=None)
    near = (
        second > POINTS - SECOND_NEAR
        or (rattle is not None and rattle > -RATTLE_NEAR)
        or signs == NEARLY_LOOSE
        or (louder is not None and rises > LOUD_DB - LOUDER_NEAR_DB)
        or arrow > -ARROW_NEAR
    )
    whole = 1.0 + sum(likely.values())
    sure = (likely[fault] if fault else 1.0) / whole
    if fault is not None and sure < SURE_ENOUGH:
        fault, near = None, True
    return Pointed(
        fault=fault,
        sure=sure,
        enough=fault is not None or not near,
        louder=louder,
        rattle=rattle,
        second=second,
        second_ratio=ratio,
        hint=fault == "slack" or (fault == "rattle" and plucks is None),
    )


def _louder(shots: tuple[SoundHeard, SoundHeard] | None) -> Compared | None:
    if shots is None:
        return None
    before, after = ([mark.level_db for mark in side.counting] for side in shots)
    if min(len(before), len(after)) < LEAST_TAKES:
        return None
    return compared(before, after)
