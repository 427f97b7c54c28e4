"""The match laid open: both schools side by side, what moves it, and ways to close a gap.

Spines in pounds of the wood scale, masses in grains. Computed on demand; nothing is recorded.
"""

import math
from typing import Literal

from lyrandis.core.arrow.after import Size, bare_against_fletched, size_of
from lyrandis.core.arrow.closing import MatchChange, moves_of
from lyrandis.core.arrow.match import Stiffness, straight_spines
from lyrandis.core.arrow.matched import MECHANICS_SD, SpineMatch
from lyrandis.core.arrow.practice import PracticeTerm, TermName
from lyrandis.core.arrow.shooting import Shooting, outward_is_left
from lyrandis.core.arrow.ways import Undo, ways_to_close
from lyrandis.core.computed import Computed
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Phrase, phrase, spine


class MovesMatch(Drawn):
    """How far the match moves for one step of one thing."""

    change: MatchChange
    step: Phrase
    pounds: float | None
    rough: bool
    """True where only a band is honest: point mass and brace."""


class PointSpine(Drawn):
    """Matched spine at one mass of point and insert."""

    tip_gr: float
    matched_lbf: float


class WayToClose(Drawn):
    """One thing to change, and what is left to close afterwards."""

    key: str
    what: Phrase
    undo: Undo
    index: float
    word: Stiffness
    pounds: float
    mass_gr: float
    grains_per_pound: float
    under_floor: bool
    closes: bool


class SchoolSpine(Drawn):
    """What one school wants, with its own doubt."""

    wants_lbf: float
    low_lbf: float
    high_lbf: float


class BareSide(Drawn):
    """Where a bare shaft of this set would strike beside the fletched at 18 m."""

    size: Size
    side: Literal["left", "right"] | None


class SpineBoard(Drawn):
    """All that is computed of a rig's match."""

    own_lbf: float | None
    matched_lbf: float
    low_lbf: float
    high_lbf: float
    mechanics: SchoolSpine | None
    """None where no spine leaves straight by the mechanics alone."""
    practice: SchoolSpine
    practice_terms: tuple[PracticeTerm, ...]
    why_apart: Phrase
    moves: tuple[MovesMatch, ...]
    points: tuple[PointSpine, ...]
    tip_gr: float
    ways: tuple[WayToClose, ...]
    bare: BareSide | None
    plateau: tuple[float, ...] | None
    """For a shaft without a point: spines that all leave straight, weakest and stiffest."""
    assumed: tuple[str, ...]


_STEPS: tuple[tuple[MatchChange, str, bool], ...] = (
    ("length", "{1 in} longer", False),
    ("point", "{25 gr} more point", True),
    ("weight", "{1 lb} more weight", False),
    ("window", "1 mm further out", False),
    ("brace", "{1/4 in} more brace", True),
    ("string", "{20 gr} on the string", False),
)
_APART = 0.1


def shot_of(c: Computed) -> tuple[Shooting, SpineMatch]:
    """Return the rig's shot and its match. Raises `DomainError` that names what is missing.

    Source: `shooting_of`.

    >>> from lyrandis.core.example import rig
    >>> shot_of(rig(["draw 28"]))
    Traceback (most recent call last):
    lyrandis.core.errors.DomainError: The shot needs the bow's weight.
    """
    if c.arrow.shooting is not None and c.match is not None:
        return c.arrow.shooting, c.match
    needs, enter = [], []
    if c.archer.draw is None:
        needs.append("your draw")
        enter.append("the draw")
    if c.bow.weight is None:
        needs.append("the bow's weight")
        enter.append("the bow's weight or its mark")
    if not needs:
        raise DomainError(
            "nothing_to_shoot",
            "At this draw the string hardly travels past its brace height.",
            "Look at the draw and the brace height: one of them is not right.",
        )
    raise DomainError(
        "nothing_to_shoot",
        f"The shot needs {' and '.join(needs)}.",
        f"Enter {', and '.join(enter)}.",
    )


def spine_board(c: Computed) -> SpineBoard:
    """Return the board of a rig. Raises `DomainError` until draw and weight are known.

    Source: the computed shot beside practice.

    >>> from lyrandis.core.example import rig
    >>> board = spine_board(rig())
    >>> board.low_lbf < board.matched_lbf < board.high_lbf
    True
    """
    shooting, match = shot_of(c)
    model = c.arrow.model or match
    moves = moves_of(shooting.shot, shooting.habit, round(shooting.weight_lbf, 1))
    own_root = model.shot.matched
    return SpineBoard(
        own_lbf=shooting.own_lbf,
        matched_lbf=match.matched,
        low_lbf=match.low,
        high_lbf=match.high,
        mechanics=_school(own_root, MECHANICS_SD) if own_root else None,
        practice=_school(model.practice.wants, model.practice.sd),
        practice_terms=model.practice.terms,
        why_apart=why_apart(model),
        moves=tuple(
            MovesMatch(change=change, step=phrase(step), pounds=item.pounds, rough=rough)
            for (change, step, rough), item in zip(_STEPS, moves.sensitivities, strict=True)
        ),
        points=tuple(PointSpine(tip_gr=tip, matched_lbf=matched) for tip, matched in moves.points),
        tip_gr=shooting.shot.beam.tip / KG_PER_GRAIN,
        ways=_ways(c, shooting),
        bare=_bare(c, shooting, match),
        plateau=straight_spines(shooting.shot) if shooting.sheet.pointless else None,
        assumed=shooting.assumed,
    )


def _school(wants: float, sd: float) -> SchoolSpine:
    return SchoolSpine(
        wants_lbf=wants, low_lbf=wants * math.exp(-sd), high_lbf=wants * math.exp(sd)
    )


_REASONS: dict[TermName, str] = {
    "point": "it counts every {25 gr} of point as 6 %, where the computed shot hardly changes",
    "window": "it knows the window by its distance alone, where the shot is computed round yours",
    "string": "it adds 7 % for the string, where only its speed is computed",
    "shaft length": "it counts 6 % for {1 in} from {28 in} on, whatever the draw",
    "brace": "it counts 4 % for {1 in} of brace, where the shot feels the shorter stroke",
    "thumb": "it takes a tenth off for a thumb, where the computed fingers are the same",
}
_AT_LARGE = "it knows draw weight only, not your bow's speed and how it stores energy"
_LEAST_REASON = 0.03


def why_apart(match: SpineMatch) -> Phrase:
    """Say in one sentence why the two schools differ, by the largest of the practice's factors.

    Source: the factors of `practice_of`.

    >>> from lyrandis.core.example import rig
    >>> why_apart(rig().match).template[:13]
    'The two agree'
    """
    wants = match.practice.wants
    if match.shot.matched is None:
        return phrase(
            "By the mechanics alone no shaft leaves straight: practice decides, and your own "
            "flight outranks it."
        )
    figures = {"rule": spine(wants), "matched": spine(match.shot.matched)}
    if abs(wants / match.shot.matched - 1) < _APART:
        return phrase("The two agree within a tenth.", **figures)
    more = wants > match.shot.matched
    found = [
        (abs(math.log(term.factor)), _REASONS[term.name])
        for term in match.practice.terms[1:]
        if (term.factor > 1) == more
    ]
    size, reason = max(found, default=(0.0, _AT_LARGE))
    return phrase(
        f"Practice wants {'more' if more else 'less'}, {{rule}} against {{matched}}: "
        f"{reason if size > _LEAST_REASON else _AT_LARGE}.",
        **figures,
    )


def _ways(c: Computed, shooting: Shooting) -> tuple[WayToClose, ...]:
    limits = c.setup.bow.brace_range
    result = ways_to_close(
        shooting,
        shooting.pivot_mm,
        (limits.reading.low_mm, limits.reading.high_mm) if limits else None,
    )
    floor = c.arrow.floor.grains_per_pound
    return tuple(
        WayToClose(
            key=way.key,
            what=way.what,
            undo=way.undo,
            index=way.index,
            word=way.word,
            pounds=way.pounds,
            mass_gr=way.mass_gr,
            grains_per_pound=way.mass_gr / shooting.weight_lbf,
            under_floor=way.mass_gr / shooting.weight_lbf < floor,
            closes=way.closes,
        )
        for way in result
    )


def _bare(c: Computed, shooting: Shooting, match: SpineMatch) -> BareSide | None:
    """Return where a bare shaft would strike, against one of a matched set."""
    own = shooting.own_lbf
    if own is None or shooting.sheet.pointless:
        return None
    seen = c.flight.bare_right_m
    if seen is not None:
        # what was seen in flight outranks what the shot computes to
        size = size_of(seen)
        return BareSide(size=size, side=None if size == "none" else "right" if seen > 0 else "left")
    across = shooting.sheet.diameter_mm / 1000
    shot = shooting.shot
    outward = (
        bare_against_fletched(shot, own, across).outward_m
        - bare_against_fletched(shot, round(match.matched, 1), across).outward_m
    )
    size = size_of(outward)
    if size == "none" or match.word(own) == "matched":
        return BareSide(size="none", side=None)
    left = (outward > 0) == outward_is_left(c.setup.archer)
    return BareSide(size=size, side="left" if left else "right")
