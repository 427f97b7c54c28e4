"""The match laid open: both schools side by side, what moves it, and ways to close a gap.

Spines in pounds of the wood scale, masses in grains. Computed on demand; nothing is recorded.
"""

from typing import Literal

from lyrandis.core.arrow.after import Size, bare_against_fletched, size_of
from lyrandis.core.arrow.closing import MatchChange, moves_of
from lyrandis.core.arrow.match import SpineMatch, Stiffness, straight_spines
from lyrandis.core.arrow.shooting import Shooting, outward_is_left
from lyrandis.core.arrow.thumb_rule import ThumbRule, ThumbTerm, thumb_rule
from lyrandis.core.arrow.ways import Undo, no_match, ways_into_range, ways_to_close
from lyrandis.core.computed import Computed
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Phrase, phrase, spine


class MovesMatch(Drawn):
    """How far the match moves for one step of one thing."""

    change: MatchChange
    step: str
    pounds: float | None
    rough: bool
    """True where only a band is honest: point mass and brace."""


class PointSpine(Drawn):
    """Matched spine at one mass of point and insert."""

    tip_gr: float
    matched_lbf: float | None


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


class WayIntoRange(Drawn):
    """One thing to change where nothing matches, and what the rig would want afterwards."""

    what: Phrase
    undo: Undo
    low_lbf: float
    high_lbf: float


class NoMatch(Drawn):
    """Why there is no match, and what brings one within reach."""

    said: Phrase
    ways: tuple[WayIntoRange, ...]


class BareSide(Drawn):
    """Where a bare shaft of this set would strike beside the fletched at 18 m."""

    size: Size
    side: Literal["left", "right"] | None


class SpineBoard(Drawn):
    """All that is computed of a rig's match."""

    own_lbf: float | None
    matched_lbf: float | None
    low_lbf: float
    high_lbf: float
    rule_lbf: float | None
    """None where the rule's sum comes to no spine at all."""
    rule_terms: tuple[ThumbTerm, ...]
    why_apart: Phrase
    moves: tuple[MovesMatch, ...]
    points: tuple[PointSpine, ...]
    tip_gr: float
    ways: tuple[WayToClose, ...]
    no_match: NoMatch | None
    bare: BareSide | None
    plateau: tuple[float, ...] | None
    """For a shaft without a point: spines that all leave straight, weakest and stiffest."""
    assumed: tuple[str, ...]


_STEPS: tuple[tuple[MatchChange, str, bool], ...] = (
    ("length", "1 in longer", False),
    ("point", "25 gr more point", True),
    ("weight", "1 lb more weight", False),
    ("window", "1 mm further out", False),
    ("brace", "¼ in more brace", True),
    ("string", "20 gr on the string", False),
)
_APART = 0.1
LEAST_RULE_LBF = 10.0
"""Under this the rule of thumb has taken off more than there is."""


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

    Source: the computed shot beside the rule of thumb.

    >>> from lyrandis.core.example import rig
    >>> round(rule_of(rig(), rig().arrow.shooting).wants)
    49
    """
    shooting, match = shot_of(c)
    rule = rule_of(c, shooting)
    moves, model = None, c.arrow.model
    if model is not None and model.matched is not None:
        moves = moves_of(shooting.shot, round(shooting.weight_lbf, 1), model.matched)
    return SpineBoard(
        own_lbf=shooting.own_lbf,
        matched_lbf=match.matched,
        low_lbf=match.low,
        high_lbf=match.high,
        rule_lbf=rule.wants if rule.wants >= LEAST_RULE_LBF else None,
        rule_terms=rule.terms,
        why_apart=why_apart(match, rule),
        moves=tuple(
            MovesMatch(change=change, step=step, pounds=item.pounds, rough=rough)
            for (change, step, rough), item in zip(
                _STEPS, moves.sensitivities if moves else (), strict=False
            )
        ),
        points=tuple(
            PointSpine(tip_gr=tip, matched_lbf=matched)
            for tip, matched in (moves.points if moves else ())
        ),
        tip_gr=shooting.shot.beam.tip / KG_PER_GRAIN,
        ways=_ways(c, shooting),
        no_match=_no_match(shooting, match),
        bare=_bare(c, shooting, match),
        plateau=straight_spines(shooting.shot) if shooting.sheet.pointless else None,
        assumed=shooting.assumed,
    )


def rule_of(c: Computed, shooting: Shooting) -> ThumbRule:
    """Return what the rule of thumb says of this rig.

    Source: a school's rule of thumb (thumb_rule.py).

    >>> from lyrandis.core.example import rig
    >>> round(rule_of(rig(), rig().arrow.shooting).wants)
    49
    """
    builds = reversed(c.setup.string.builds)
    material = next((b.reading.material for b in builds if b.reading.material), None)
    return thumb_rule(
        weight_lbf=shooting.weight_lbf,
        length_mm=shooting.sheet.length_mm,
        tip_gr=shooting.shot.beam.tip / KG_PER_GRAIN,
        window_mm=shooting.side.window.value,
        low_stretch=material == "low_stretch",
    )


def why_apart(match: SpineMatch, rule: ThumbRule) -> Phrase:
    """Say in one sentence why the two schools differ, by the largest reason.

    Source: the largest of the rule's own terms.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> why_apart(c.match, rule_of(c, c.arrow.shooting)).template[:12]
    'The rule of '
    """
    if match.matched is None:
        return phrase("The mechanics find no match in range; the rule never says so.")
    apart = rule.wants / match.matched - 1
    figures = {"rule": spine(rule.wants), "matched": spine(match.matched)}
    if abs(apart) < _APART:
        return phrase("The two agree within a tenth.", **figures)
    tip = rule.pounds("point over 125 gr")
    length = rule.pounds("length over 28 in")
    more = apart > 0
    reasons: list[tuple[float, str]] = [
        (abs(tip) if (tip > 0) == more else 0.0,
         "it counts every 25 gr of point as 5 lb, where the computed shot hardly changes"),
        (abs(rule.pounds("window")) if (rule.pounds("window") > 0) == more else 0.0,
         "it knows the window only in three steps, where the shot is computed round yours"),
        (abs(rule.pounds("low-stretch string")) if more else 0.0,
         "it adds 5 lb for the string, where only its speed is computed"),
        (abs(length) / 4 if (length > 0) == more else 0.0,
         "it counts 5 lb an inch from 28 in, whatever the draw"),
        (1.5, "it knows draw weight only, not your bow's speed, brace and how it stores energy"),
    ]  # fmt: skip
    _, reason = max(reasons, key=lambda reason: reason[0])
    return phrase(
        f"The rule of thumb wants {'more' if more else 'less'}, {{rule}} against {{matched}}: "
        f"{reason}.",
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


def _no_match(shooting: Shooting, match: SpineMatch) -> NoMatch | None:
    if match.out_of_range is None:
        return None
    result = ways_into_range(shooting, shooting.pivot_mm)
    return NoMatch(
        said=no_match(match),
        ways=tuple(
            WayIntoRange(what=way.what, undo=way.undo, low_lbf=way.low, high_lbf=way.high)
            for way in result
        ),
    )


def _bare(c: Computed, shooting: Shooting, match: SpineMatch) -> BareSide | None:
    """Return where a bare shaft would strike, against one of a matched set."""
    own = shooting.own_lbf
    if own is None or match.matched is None or shooting.sheet.pointless:
        return None
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
