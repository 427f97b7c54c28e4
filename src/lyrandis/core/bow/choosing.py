"""Choosing a bow: lengths side by side for one archer, judged by schools and mechanics.

Lengths in mm, weights in lbf, energies in joules, angles in degrees, speeds in m/s.
"""

import math
from functools import lru_cache
from typing import NamedTuple

from lyrandis.core.archer.draw import hook_along, usual_hook
from lyrandis.core.archer.words import Hold
from lyrandis.core.bow import schools
from lyrandis.core.bow.board import (
    Asking,
    BoardRow,
    ChoosingBoard,
    Combination,
    FamilyBoard,
    SchoolView,
    Verdict,
    Wish,
)
from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.likeness import usual_shape
from lyrandis.core.bow.schools import School, SchoolsAsked
from lyrandis.core.bow.stack import stack_of
from lyrandis.core.bow.stack_read import stack_of_limbs
from lyrandis.core.bow.statics import BowShape, DrawCurve, draw_curve
from lyrandis.core.bow.thrust import RETURNED_SD, typical_thrust, usual_floor
from lyrandis.core.bow.words import FAMILY_WORDS, Family
from lyrandis.core.computed import Computed
from lyrandis.core.constants import (
    M_PER_FT,
    MARKED_DRAW_MM,
    MM_PER_IN,
    TRADE_OFFSET_MM,
    USUAL_GPP,
)
from lyrandis.core.errors import DomainError
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import Phrase, degrees, mm, mps, phrase
from lyrandis.core.quantities import within

BOARD_SEGMENTS = 24
"""Enough for a board of bows whose string does not lie on the limb: force within 0.01 %, energy
within 0.06 % of a chain of 640 pieces, stack within 1/16 in. Recurves get the rig's own pieces."""
LENGTHS_IN = tuple(range(48, 73, 2))
NEAR_FIT_IN = 2.0
DEFAULT_FAMILIES: tuple[Family, ...] = (
    "straight_longbow",
    "reflex_deflex_longbow",
    "hunting_recurve",
    "target_recurve",
)

THUMB_FAMILIES: tuple[Family, ...] = (
    "short_rigid_tip",
    "long_rigid_tip",
    "large_rigid_tip",
    "hunting_recurve",
)
SCHOOLS: dict[School, str] = {
    "stack_margin": "Stack margin",
    "range": "Range by draw",
    "limb_first": "Limb first",
    "ladder": "Ladder by draw",
}
USUAL_HOLD_LBF = 40.0
"""Weight the board is reckoned with where none is wished for and none is known."""
TARGET_FADES_IN = 2.0
"""A target riser of 25 in is 27 in stiff with the fades of its limbs."""


def wish_of(c: Computed, *, asked: Asking) -> Wish:
    """Return what a rig wishes for, with what is asked instead put in its place.

    Raises `DomainError` where no draw is known and none is asked.

    Assumption: a usual hold and depth of hook where nothing is told.

    >>> from lyrandis.core.bow.board import Asking
    >>> from lyrandis.core.example import rig
    >>> wish_of(rig(), asked=Asking()).hold
    'split'
    """
    draw = asked.draw_mm or (c.archer.draw.length.value if c.archer.draw else None)
    if draw is None:
        raise DomainError(
            "no_draw",
            "No draw length is known yet.",
            "Measure your draw first, or type one to try.",
            "draw_mm",
        )
    archer = c.setup.archer
    own_hold = archer.hold.reading.hold if archer.hold else None
    hold = asked.hold or own_hold
    purpose = asked.purpose or (archer.purpose.reading.purpose if archer.purpose else None)
    hook = c.archer.hook if hold == own_hold else _hook_of(c, hold, draw)
    wished = archer.wished_weight
    weight = asked.hold_lbf or (wished.reading.draw_weight_lbf if wished else None)
    if weight is None:
        weight = (
            c.bow.weight.weight.value if c.bow.weight and c.bow.weight_is_own else USUAL_HOLD_LBF
        )
    return Wish(
        draw_mm=round(draw, 1),
        hook_mm=round(hook.value, 1),
        hold=hold,
        purpose=purpose,
        hold_lbf=round(weight, 1),
        grains_per_pound=round(c.arrow.gpp.value, 1) if c.arrow.gpp else USUAL_GPP,
        own=c.bow.likeness.shape if c.bow.likeness.known else None,
        riser_told="riser" not in c.bow.likeness.assumed,
        own_later_mm=_own_later(c),
        draw_plus_minus_mm=_draw_doubt(c, asked),
    )


def _own_later(c: Computed) -> float:
    """Return how much later the rig's own bow stacks than its kind, where it was read [mm].

    What its archer measured outranks the kind: every row of the kind is moved by as much.
    """
    stack, likeness = c.bow.stack, c.bow.likeness
    if not likeness.known or not (stack.read or stack.felt) or stack.onset_mm is None:
        return 0.0
    usual = stack_of_limbs(likeness.shape).onset_mm
    return 0.0 if usual is None else round(stack.onset_mm - usual, 1)


LEAST_DRAW_DOUBT_MM = MM_PER_IN / 4
"""A draw known this well or better is not spoken of as a span."""


def _draw_doubt(c: Computed, asked: Asking) -> float:
    if asked.draw_mm is not None or c.archer.draw is None:
        return 0.0
    doubt = round(c.archer.draw.length.plus_minus, 1)
    return doubt if doubt > LEAST_DRAW_DOUBT_MM else 0.0


def _hook_of(c: Computed, hold: Hold | None, draw_mm: float) -> Estimate:
    """Return the hook depth of another hold, from the string's angle on the rig's own bow."""
    usual, likeness = usual_hook(hold), c.bow.likeness
    if not likeness.known:
        return usual
    curve = likeness.curve
    pivot = draw_mm + usual.value - TRADE_OFFSET_MM
    angle = curve.gamma.at(min(max(pivot, curve.first_mm), curve.last_mm))
    return hook_along(hold, angle)


def families_for(c: Computed) -> tuple[Family, ...]:
    """Return the kinds of bow worth comparing: the rig's own first, four in all.

    A thumb ring is compared among bows with static tips, fingers among the others.

    Assumption: own kind first, then those of like use.

    >>> from lyrandis.core.example import rig
    >>> families_for(rig())[0]
    'hunting_recurve'
    """
    own = c.setup.bow.family.reading.family if c.setup.bow.family else None
    thumb = c.setup.archer.hold is not None and c.setup.archer.hold.reading.hold == "thumb"
    others = THUMB_FAMILIES if thumb else DEFAULT_FAMILIES
    result = ((own,) if own else ()) + tuple(family for family in others if family != own)
    return result[: len(DEFAULT_FAMILIES)]


def choosing_board(wish: Wish, families: tuple[Family, ...] = DEFAULT_FAMILIES) -> ChoosingBoard:
    """Return the board for an archer. Never raises: what cannot be computed says why.

    Source: statics of each length; the schools are rules of thumb.

    >>> board = choosing_board(Wish(711.2, 14.0, "split", "woods", 40.0), ("hunting_recurve",))
    >>> round(board.families[0].best_mm / 25.4, 1)
    58.0
    """
    least, most = schools.MARGIN_IN[wish.purpose]
    return ChoosingBoard(
        draw_mm=wish.draw_mm,
        at_mm=wish.at_mm,
        hold=wish.hold,
        purpose=wish.purpose,
        hold_lbf=wish.hold_lbf,
        grains_per_pound=wish.grains_per_pound,
        least_margin_mm=least * MM_PER_IN,
        most_margin_mm=most * MM_PER_IN,
        pinch_deg=schools.PINCH_DEG[wish.hold],
        families=tuple(_family_board(wish, family) for family in families),
    )


@lru_cache(maxsize=64)
def _family_board(wish: Wish, family: Family) -> FamilyBoard:
    asked = _asked(family, wish)
    rows = [_row(wish, family, length * MM_PER_IN, asked) for length in LENGTHS_IN]
    best = _best(rows, wish, family)
    fitting = [row.bow_length_mm for row in rows if row.verdicts["stack_margin"] == "fits"]
    if fitting:
        asked["stack_margin"] = SchoolsAsked(min(fitting) / MM_PER_IN, max(fitting) / MM_PER_IN)
    views = tuple(_view(school, asked[school], rows, best, wish, family) for school in SCHOOLS)
    agree = best is not None and all(
        best.verdicts[school] in ("fits", "silent") for school in SCHOOLS
    )
    return FamilyBoard(
        family=family,
        words=FAMILY_WORDS[family],
        rows=tuple(rows),
        schools=views,
        combinations=_combinations(wish, family),
        best_mm=best.bow_length_mm if best else None,
        summary=_summary(best, rows, agree=agree, wish=wish, family=family),
        speed_says=_speed_says(rows),
        agree=agree,
    )


def _asked(family: Family, wish: Wish) -> dict[School, SchoolsAsked | None]:
    inches = wish.draw_mm / MM_PER_IN
    return {
        "stack_margin": None,
        "range": schools.range_by_draw(family, inches, wish.purpose),
        "limb_first": schools.limb_first(family, inches, wish.purpose),
        "ladder": schools.ladder(family, inches),
    }


class _Drawn(NamedTuple):
    """A bow of the board at the archer's full draw."""

    curve: DrawCurve
    pivot_mm: float
    margin_mm: float
    margin_is_least: bool
    finger_angle_deg: float


def _segments(shape: BowShape) -> int | None:
    recurve = shape.family in ("hunting_recurve", "target_recurve")
    return None if recurve else BOARD_SEGMENTS


def _drawn(shape: BowShape, wish: Wish) -> _Drawn:
    curve = draw_curve(shape, segments=_segments(shape))
    pivot = wish.at_mm - TRADE_OFFSET_MM
    if pivot <= curve.first_mm + MM_PER_IN:
        raise DomainError("draw_below_brace", "The draw is not past brace.", "Check the draw.")
    if pivot > curve.last_mm:
        spent = curve.ends != "asked"
        reason = (
            "The limbs are bent too far before this draw."
            if spent
            else "This draw is beyond what bows are computed to."
        )
        raise DomainError("draw_beyond_curve", reason, "Choose a longer bow, or check the draw.")
    usual = shape.brace_height_mm == FAMILIES[shape.family].brace_in * MM_PER_IN
    onset = (stack_of(curve) if usual else stack_of_limbs(shape)).onset_mm
    own = wish.own is not None and wish.own.family == shape.family
    margin = (onset or curve.last_mm) - pivot + (wish.own_later_mm if own and onset else 0.0)
    return _Drawn(curve, pivot, margin, onset is None, math.degrees(curve.finger_angle(pivot)))


def _row(
    wish: Wish, family: Family, length_mm: float, asked: dict[School, SchoolsAsked | None]
) -> BoardRow:
    verdicts: dict[School, Verdict] = {
        school: _verdict(asked[school], length_mm / MM_PER_IN) for school in SCHOOLS
    }
    low, high = FAMILIES[family].lengths_mm
    if not FAMILIES[family].has_length(length_mm):
        verdicts["stack_margin"] = "no"
        return BoardRow(
            bow_length_mm=length_mm,
            verdicts=verdicts,
            outside_family=True,
            missing=phrase("Made from {low} to {high}.", low=mm(low), high=mm(high)),
        )
    shape = _as_own(usual_shape(family, length_mm), wish)
    if wish.riser_told and wish.own is not None and wish.own.family == family:
        shape = shape._replace(riser_length_mm=wish.own.riser_length_mm)
    try:
        drawn = _drawn(shape, wish)
    except DomainError as error:
        verdicts["stack_margin"] = "no"
        return BoardRow(bow_length_mm=length_mm, verdicts=verdicts, missing=error.sentence())
    verdicts["stack_margin"] = _by_margin(drawn, wish)
    segments = _segments(shape)
    thrust = typical_thrust(shape, drawn.pivot_mm, wish.hold_lbf, segments=segments)
    arrow = wish.grains_per_pound * wish.hold_lbf
    force = drawn.curve.force
    ratio = force.at(MARKED_DRAW_MM - TRADE_OFFSET_MM) / force.at(drawn.pivot_mm)
    return BoardRow(
        bow_length_mm=length_mm,
        margin_mm=drawn.margin_mm,
        margin_is_least=drawn.margin_is_least,
        outside_family=False,
        finger_angle_deg=drawn.finger_angle_deg,
        pinches=_pinches(drawn, wish),
        stored_j=thrust.stored_j.value,
        speed_mps=thrust.speed(arrow),
        left_j=thrust.left_behind(arrow),
        floor_gpp=schools.held_in_band(
            usual_floor(shape, drawn.pivot_mm, segments=segments).per_pound.value, family
        ),
        mark_lbf=wish.hold_lbf * ratio,
        verdicts=verdicts,
    )


def _as_own(shape: BowShape, wish: Wish) -> BowShape:
    """Brace a bow as the archer's own of the same kind."""
    if wish.own is None or wish.own.family != shape.family:
        return shape
    return shape._replace(brace_height_mm=wish.own.brace_height_mm)


def _pinches(drawn: _Drawn, wish: Wish) -> bool:
    pinch = schools.PINCH_DEG[wish.hold]
    return pinch is not None and drawn.finger_angle_deg < pinch


def _by_margin(drawn: _Drawn, wish: Wish) -> Verdict:
    """Return how a computed bow stands by stack margin and finger angle."""
    least, most = schools.margin_for(drawn.curve.shape.family, wish.purpose)
    inches = drawn.margin_mm / MM_PER_IN
    if least <= inches <= most and not _pinches(drawn, wish):
        return "fits"
    near = least - 1 <= inches <= most + 1
    return "near" if near else "no"


def _verdict(asked: SchoolsAsked | None, length_in: float) -> Verdict:
    if asked is None:
        return "silent"
    off = max(asked.low - length_in, length_in - asked.high)
    if off <= 0.5:
        return "fits"
    return "near" if off <= NEAR_FIT_IN + 0.5 else "no"


def _best(rows: list[BoardRow], wish: Wish, family: Family) -> BoardRow | None:
    """Return the length to name; None where none has anything to spare.

    In cover the shortest that keeps the margin; elsewhere, of those that do, where most schools
    meet. Else the one whose margin comes nearest, never one that stacks.
    """
    spare = [row for row in rows if (row.margin_mm or 0.0) >= 0]
    fitting = [row for row in spare if row.verdicts["stack_margin"] == "fits"]
    if fitting and wish.purpose in schools.SHORT_END:
        return fitting[0]
    if fitting:
        return max(fitting, key=lambda row: sum(v == "fits" for v in row.verdicts.values()))
    least, _ = schools.margin_for(family, wish.purpose)
    near = [row for row in spare if row.verdicts["stack_margin"] == "near"]
    return min(near, key=lambda row: abs((row.margin_mm or 0) - least * MM_PER_IN), default=None)


def _view(
    school: School,
    asked: SchoolsAsked | None,
    rows: list[BoardRow],
    best: BoardRow | None,
    wish: Wish,
    family: Family,
) -> SchoolView:
    if asked is None:
        silent = (
            "No length here has the margin."
            if school == "stack_margin"
            else f"Does not speak of a {FAMILY_WORDS[family]}."
        )
        return SchoolView(
            school=school,
            name=SCHOOLS[school],
            preferred=school == "stack_margin",
            says=phrase(silent),
        )
    low, high = mm(asked.low * MM_PER_IN), mm(asked.high * MM_PER_IN)
    one = asked.high - asked.low < 0.5
    span = "{low}" if one else "{low} to {high}"
    least, most = schools.margin_for(family, wish.purpose)
    texts: dict[School, str] = {
        "stack_margin": f"{span}: {{least}} to {{most}} before stack, and no pinch.",
        "range": f"{span} for a {{draw}} draw and this purpose.",
        "limb_first": f"{span}: {_limb_words(wish)} limbs, "
        "then a riser of {riser_low} to {riser_high}.",
        "ladder": f"{span} for a {{draw}} draw.",
    }
    riser = schools.riser_for(family, wish.purpose)
    return SchoolView(
        school=school,
        name=SCHOOLS[school],
        preferred=school == "stack_margin",
        says=phrase(
            texts[school],
            low=low,
            high=high,
            draw=mm(wish.draw_mm),
            least=mm(least * MM_PER_IN),
            most=mm(most * MM_PER_IN),
            riser_low=mm(riser.low * MM_PER_IN),
            riser_high=mm(riser.high * MM_PER_IN),
        ),
        low_mm=asked.low * MM_PER_IN,
        high_mm=asked.high * MM_PER_IN,
        gives_up=_gives_up(asked, rows, best),
    )


def _gives_up(asked: SchoolsAsked, rows: list[BoardRow], best: BoardRow | None) -> Phrase | None:
    """Say what the school's nearest length costs beside the preferred one; None where nothing."""
    if best is None or within(best.bow_length_mm, asked.low * MM_PER_IN, asked.high * MM_PER_IN):
        return None
    ends = (asked.low, asked.high)
    wanted = min(ends, key=lambda end: abs(end - best.bow_length_mm / MM_PER_IN)) * MM_PER_IN
    row = min(rows, key=lambda row: abs(row.bow_length_mm - wanted))
    if row is best:
        return None
    if row.margin_mm is None or row.speed_mps is None or row.finger_angle_deg is None:
        why = row.missing or Phrase("")
        return phrase(f"At {{length}}: {why.template}", length=mm(row.bow_length_mm), **why.figures)
    margin = (best.margin_mm or 0) - row.margin_mm
    speed = (best.speed_mps or 0) - row.speed_mps
    angle = (best.finger_angle_deg or 0) - row.finger_angle_deg
    losses = [
        words
        for words, lost, least in (
            ("{margin} less before stack", margin, LEAST_MARGIN_MM),
            ("{speed} slower", speed, _least_said(best.speed_mps or 0.0)),
            ("{angle} sharper at the fingers", angle, LEAST_ANGLE_DEG),
        )
        if lost >= least
    ]
    if not losses:
        return None
    figures = {
        "margin": mm(margin),
        "speed": mps(speed),
        "angle": degrees(math.radians(angle)),
    }
    text = ", ".join(losses)
    return phrase(
        f"At {{length}}: {text}.",
        length=mm(row.bow_length_mm),
        **{name: figure for name, figure in figures.items() if f"{{{name}}}" in text},
    )


LEAST_MARGIN_MM, LEAST_SPEED_MPS, LEAST_ANGLE_DEG = MM_PER_IN / 8, 2 * M_PER_FT, 1.0
"""Differences under an eighth of an inch, two feet per second and a degree are not said."""


def _least_said(speed_mps: float) -> float:
    """Return the least difference of speed that is said: two feet per second, or its own ±."""
    return max(LEAST_SPEED_MPS, RETURNED_SD * speed_mps)


def _limb_words(wish: Wish) -> str:
    return " or ".join(schools.limbs_for(wish.draw_mm / MM_PER_IN))


def _speed_says(rows: list[BoardRow]) -> Phrase | None:
    """Say how the trade's "shorter is faster" stands with what is computed, at one weight held."""
    fair = [row for row in rows if row.speed_mps is not None and (row.margin_mm or -1.0) >= 0]
    if len(fair) < 2:
        return None
    speeds = [row.speed_mps or 0.0 for row in fair]
    apart, longer = max(speeds) - min(speeds), speeds[-1] - speeds[0]
    if apart < _least_said(max(speeds)):
        text = "{low} to {high} are equal within {apart}."
        apart = max(apart, LEAST_SPEED_MPS)
    else:
        which = "longer" if longer > 0 else "shorter"
        text = f"from {{low}} to {{high}} the {which} is faster, by {{apart}} in all."
    return phrase(
        f"The trade says shorter is faster. Computed at one weight held, {text}",
        low=mm(fair[0].bow_length_mm),
        high=mm(fair[-1].bow_length_mm),
        apart=mps(apart),
    )


def _summary(
    best: BoardRow | None, rows: list[BoardRow], *, agree: bool, wish: Wish, family: Family
) -> Phrase:
    kind = FAMILY_WORDS[family]
    computed = [row.bow_length_mm for row in rows if row.margin_mm is not None]
    if best is None and not computed:
        return phrase(f"No {kind} can be computed for a {{draw}} draw.", draw=mm(wish.draw_mm))
    if best is None:
        return phrase(
            f"No {kind} from {{low}} to {{high}} has room enough for a {{draw}} draw.",
            low=mm(computed[0]),
            high=mm(computed[-1]),
            draw=mm(wish.draw_mm),
        )
    figures = {"length": mm(best.bow_length_mm), "margin": mm(best.margin_mm or 0.0)}
    if best.verdicts["stack_margin"] != "fits":
        return phrase(
            f"No {kind} fits outright. {{length}} comes nearest, {{margin}} before stack.",
            **figures,
        )
    text = (
        f"All schools that speak of a {kind} allow {{length}}."
        if agree
        else "The schools disagree. We prefer the stack margin, computed for this kind of bow: "
        "{length} leaves {margin} before stack."
    )
    if wish.draw_plus_minus_mm:
        # a draw told as a span, or measured vaguely: what is left at its long end
        left = (best.margin_mm or 0.0) - wish.draw_plus_minus_mm
        text += " If your draw is {long}, the long end of what is known, "
        text += "{left} is left." if left >= 0 else "it stacks by {left}: mark an arrow first."
        long = wish.draw_mm + wish.draw_plus_minus_mm
        figures |= {"long": mm(long), "left": mm(abs(left))}
    return phrase(
        text, **{name: figure for name, figure in figures.items() if f"{{{name}}}" in text}
    )


def _combinations(wish: Wish, family: Family) -> tuple[Combination, ...]:
    """Return risers with limbs for a take-down."""
    if family not in schools.TAKEDOWN_FAMILIES:
        return ()
    target = family == "target_recurve"
    risers = [riser for riser in schools.RISERS_IN if riser == 21 or (riser > 21) == target]
    return tuple(
        _combination(wish, family, riser, limbs)
        for riser in risers
        for limbs in schools.LIMBS_OVER_RISER_IN
    )


def _combination(wish: Wish, family: Family, riser_in: float, limbs: schools.Limbs) -> Combination:
    fades = TARGET_FADES_IN if family == "target_recurve" else 0.0
    length = (riser_in + schools.LIMBS_OVER_RISER_IN[limbs]) * MM_PER_IN
    shape = usual_shape(family)._replace(
        bow_length_mm=length, riser_length_mm=(riser_in + fades) * MM_PER_IN
    )
    shape = _as_own(shape, wish)
    told = wish.own.riser_length_mm if wish.own and wish.riser_told else None
    if told is not None and within(told, riser_in * MM_PER_IN, shape.riser_length_mm):
        # the archer's own riser, told with or without its fades, is the same riser here
        shape = shape._replace(riser_length_mm=told)
    margin = angle = None
    verdict: Verdict = "no"
    try:
        drawn = _drawn(shape, wish)
    except DomainError:
        pass
    else:
        margin, angle = drawn.margin_mm, drawn.finger_angle_deg
        verdict = _by_margin(drawn, wish)
    riser = schools.riser_for(family, wish.purpose)
    return Combination(
        riser_mm=riser_in * MM_PER_IN,
        limbs=limbs,
        bow_length_mm=length,
        margin_mm=margin,
        finger_angle_deg=angle,
        verdict=verdict,
        asked=limbs in schools.limbs_for(wish.draw_mm / MM_PER_IN)
        and riser.low <= riser_in <= riser.high,
    )
