"""The bow as a spring: a limb as a chain of stiff pieces, bent by its string.

Half a symmetric bow. x runs toward the archer, y up the limb, origin at the grip's pivot; a draw is
from the pivot to the string's middle. Lengths in mm, angles in radians. Bending stiffness is in
units of the limb root's EI, so forces come out per EI [1/mm2] and are scaled by one weighed point.

The chain is shot backwards from the tip: from the string's tension T (over EI) and the angle p
between free string and outermost piece, one pass gives draw, string length, force, and their
derivatives; p < 0 means that the string lies on a recurved tip. Two unknowns, two conditions:
Newton's method finds the brace, then follows the draw.
Source: statics of an inextensible elastic limb (Euler's elastica) in finite pieces; the elliptic
integral and the stored energy check it in the tests.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Literal, NamedTuple

from lyrandis.core.bow.families import FAMILIES, FamilyShape
from lyrandis.core.bow.hermite import Hermite
from lyrandis.core.bow.words import FAMILY_WORDS, Family
from lyrandis.core.constants import MM_PER_IN, TRADE_OFFSET_MM
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import mm, phrase

SEGMENTS = 40
LONG_RECURVE_MM, LONG_SEGMENTS = 63.9 * MM_PER_IN, 80
"""A long recurve's string lifts off its tips piece by piece: it wants finer ones."""
STEP_MM = 0.9 * MM_PER_IN
LONGEST_DRAW_MM = 35 * MM_PER_IN - TRADE_OFFSET_MM
LEAST_LIMB_MM = 9 * MM_PER_IN
LEAST_WORKING_SHARE = 0.4
STEEPEST_STRING = math.radians(65)
STEEPEST_TIP = math.radians(140)
"""Past these angles no limb survives; the curve ends there and says so."""

End = Literal["asked", "string_angle", "tip_angle"]
_STARTS = tuple((p, t) for p in (0.4, 0.1, -0.3, 0.7, -0.7) for t in (2.0, 4.0, 8.0))


class BowShape(NamedTuple):
    """What the shape of a bow depends on. Lengths in mm; brace height to the pivot."""

    family: Family
    bow_length_mm: float
    riser_length_mm: float
    brace_height_mm: float

    @property
    def limb_mm(self) -> float:
        return (self.bow_length_mm - self.riser_length_mm) / 2


def pieces_for(shape: BowShape) -> int:
    """Return how many pieces a limb of this shape is computed in.

    Assumption: stack onset then moves by less than 1/16 in with twice as many.

    >>> pieces_for(BowShape("selfbow", 1676.0, 200.0, 165.0))
    40
    """
    recurve = shape.family in ("hunting_recurve", "target_recurve")
    return LONG_SEGMENTS if recurve and shape.bow_length_mm >= LONG_RECURVE_MM else SEGMENTS


Piece = tuple[float, float, float]
"""Length [mm], compliance over EI [mm], built-in kink [rad]. A plain tuple: quickest to unpack."""


@dataclass(frozen=True)
class Chain:
    """One limb at rest: pieces from tip to root, and where the root stands."""

    pieces: tuple[Piece, ...]
    root_x: float
    root_y: float
    root_lean: float
    length: float


class Pass(NamedTuple):
    """One pass down the chain: quantities and their derivatives by T and p."""

    gamma: float
    gamma_t: float
    gamma_p: float
    half_string: float
    half_t: float
    half_p: float
    draw: float
    draw_t: float
    draw_p: float
    energy: float
    moment_arm: float
    free_string: float
    """Half the string less what lies on the limb."""


class _State(NamedTuple):
    """One solved draw: T, p, their rates per mm of draw, and the pass that holds there."""

    draw: float
    t: float
    p: float
    t_rate: float
    p_rate: float
    here: Pass


@dataclass(frozen=True)
class DrawCurve:
    """A bow drawn from brace: everything per EI of the limb root, against true draw [mm]."""

    shape: BowShape
    chain: Chain
    string_length_mm: float
    force: Hermite
    """Draw force over EI [1/mm2]."""
    energy: Hermite
    """Stored energy over EI [1/mm], both limbs, from brace."""
    gamma: Hermite
    """String from the vertical at the hook [rad]."""
    tip: Hermite
    """Between free string and limb tip [rad]; below 0 the string lies on the limb."""
    tension: Hermite
    states: tuple[_State, ...]
    ends: End

    @property
    def first_mm(self) -> float:
        return self.force.x[0]

    @property
    def last_mm(self) -> float:
        return self.force.x[-1]

    def finger_angle(self, draw_mm: float) -> float:
        """Return the angle the string encloses at the hook [rad].

        Source: geometry: twice the angle between string and upright taken from 180 degrees.

        >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
        >>> round(math.degrees(draw_curve(shape).finger_angle(667.0)))
        126
        """
        return math.pi - 2 * self.gamma.at(draw_mm)

    def limb_energy(self, state: int) -> float:
        """Return the energy bent into both limbs since brace, over EI [1/mm].

        Source: energy of the bent springs, k theta^2/2 summed.

        >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
        >>> curve = draw_curve(shape)
        >>> curve.limb_energy(len(curve.states) - 1) > curve.limb_energy(0)
        True
        """
        return self.states[state].here.energy - self.states[0].here.energy


def chain_of(shape: BowShape, segments: int = SEGMENTS) -> Chain:
    """Return the limb of a bow as a chain of `segments` pieces and, if it has one, a rigid tip.

    Piece i of the working limb bends at its inner end with compliance (length)/(relative
    stiffness there). Raises `DomainError` where there is hardly a limb left to bend.

    Source: an elastic limb as a chain of stiff pieces on rotary springs; the profile is Assumption.

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> len(chain_of(shape, 40).pieces)
    40
    """
    family = FAMILIES[shape.family]
    rigid = family.rigid_tip_in * MM_PER_IN
    working = shape.limb_mm - rigid
    _require_limb(shape, family, working)
    piece = working / segments
    root_lean = math.radians(family.root_lean_deg)
    lengths = [piece] * segments
    compliances = [piece / _stiffness(family, i / segments) for i in range(segments)]
    compliances[0] = piece / 2 / _stiffness(family, 1 / (4 * segments))
    leans = [_lean(family, (i + 0.5) / segments) for i in range(segments)]
    if rigid:
        lengths.append(rigid)
        compliances.append(piece / 2 / _stiffness(family, 1 - 1 / (4 * segments)))
        leans.append(_lean(family, 1.0) - math.radians(family.rigid_tip_deg))
    kinks = [inner - outer for inner, outer in pairwise([root_lean, *leans])]
    return Chain(
        pieces=tuple(zip(lengths, compliances, kinks, strict=True))[::-1],
        root_x=family.root_x_in * MM_PER_IN,
        root_y=shape.riser_length_mm / 2,
        root_lean=root_lean,
        length=shape.limb_mm,
    )


def _require_limb(shape: BowShape, family: FamilyShape, working: float) -> None:
    figures = {
        "bow": mm(shape.bow_length_mm),
        "riser": mm(shape.riser_length_mm),
        "limb": mm(shape.limb_mm),
        "tip": mm(family.rigid_tip_in * MM_PER_IN),
    }
    if shape.riser_length_mm >= shape.bow_length_mm:
        raise DomainError(
            "riser_longer_than_bow",
            phrase("A riser of {riser} is longer than the bow of {bow}.", **figures),
            "Enter the bow's length nock to nock, and the riser's with its fades.",
            "riser_length_mm",
        )
    if shape.limb_mm < LEAST_LIMB_MM or working < LEAST_WORKING_SHARE * shape.limb_mm:
        tips = " with stiff tips of {tip}" if family.rigid_tip_in else ""
        raise DomainError(
            "limb_too_short",
            phrase(
                "A bow of {bow} with a riser of {riser} leaves limbs of {limb}"
                f"{tips}: too little to bend.",
                **figures,
            ),
            "Check the bow's length and the riser's.",
            "bow_length_mm",
        )


def _stiffness(family: FamilyShape, u: float) -> float:
    """Return bending stiffness at the share `u` of the working limb, over the root's."""
    return family.tip_stiffness + (1 - family.tip_stiffness) * (1 - u)


def _lean(family: FamilyShape, u: float) -> float:
    """Return the unstrung limb's lean at the share `u` of it [rad]."""
    lean = family.root_lean_deg
    for bend in family.bends:
        along = min(max((u - bend.start) / (bend.end - bend.start), 0.0), 1.0)
        lean -= bend.deg * along**bend.power
    return math.radians(lean)


def pass_down(chain: Chain, t: float, p: float) -> Pass:
    """Go down the chain from tip to root with tension `t` and tip angle `p`, derivatives along.

    Source: moment balance of the elastica, joint by joint; derivatives by the chain rule.

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> pass_down(chain_of(shape), 1e-6, 0.5).half_string > 0
    True
    """
    # From the tip, in the string's frame (x along the string, arm across it), piece by piece:
    #   arm += l sin(phi), M = T arm, phi += kink - c M, 2U += c M^2
    # _t and _p are the derivatives by T and by the tip angle, carried along. While the angle is
    # below nought the string lies on the limb: the piece bears no arm, it only shortens the string.
    sin, cos = math.sin, math.cos
    phi, phi_t, phi_p = p, 0.0, 1.0
    arm = arm_t = arm_p = along = along_t = along_p = wrapped = energy = 0.0
    lying = p < 0
    for length, compliance, kink in chain.pieces:
        if lying and phi < 0:
            wrapped += length
        else:
            lying = False
            dx, dy = length * cos(phi), length * sin(phi)
            along += dx
            arm += dy
            along_t -= dy * phi_t
            along_p -= dy * phi_p
            arm_t += dx * phi_t
            arm_p += dx * phi_p
        moment = t * arm
        phi += kink - compliance * moment
        phi_t -= compliance * (arm + t * arm_t)
        phi_p -= compliance * t * arm_p
        energy += compliance * moment * moment
    # at the root, turned by gamma into the bow's frame: the hook stands where the string meets the
    # middle line, half the string is y/cos(gamma) + wrapped, the draw is x + y tan(gamma)
    gamma = phi - chain.root_lean
    s, c = sin(gamma), cos(gamma)
    x = chain.root_x - along * s + arm * c
    y = chain.root_y + along * c + arm * s
    x_g, y_g = -along * c - arm * s, -along * s + arm * c
    x_t, x_p = arm_t * c - along_t * s + x_g * phi_t, arm_p * c - along_p * s + x_g * phi_p
    y_t, y_p = along_t * c + arm_t * s + y_g * phi_t, along_p * c + arm_p * s + y_g * phi_p
    tangent, secant2 = s / c, 1 / (c * c)
    turn = y * s * secant2
    swing = y * secant2
    return Pass(
        gamma, phi_t, phi_p,
        y / c + wrapped, y_t / c + turn * phi_t, y_p / c + turn * phi_p,
        x + y * tangent, x_t + y_t * tangent + swing * phi_t, x_p + y_p * tangent + swing * phi_p,
        energy, arm, y / c,
    )  # fmt: skip


def _damped(t: float, step_t: float, step_p: float) -> float:
    """Return the share of a Newton step that keeps it near: |dp| <= 0.3, |dT| <= T/2."""
    share = 1.0
    if abs(step_p) > 0.3:
        share = 0.3 / abs(step_p)
    if abs(step_t) * share > 0.5 * t:
        share = 0.5 * t / abs(step_t)
    return share


def _brace(chain: Chain, brace_mm: float) -> tuple[float, float, Pass] | None:
    """Find T and p of the strung bow at rest: string straight up, at its brace height."""
    for p0, t0 in _STARTS:
        t, p = t0 / chain.length**2, p0
        for _ in range(30):
            here = pass_down(chain, t, p)
            off = here.draw - brace_mm
            if abs(here.gamma) < 1e-12 and abs(off) < 1e-9 * chain.length:
                if here.moment_arm > 0 and here.half_string > 0 and abs(p) < 1.6:
                    return t, p, here
                break
            det = here.gamma_t * here.draw_p - here.gamma_p * here.draw_t
            if det == 0 or not math.isfinite(det):
                break
            step_t = -(here.gamma * here.draw_p - here.gamma_p * off) / det
            step_p = -(here.gamma_t * off - here.draw_t * here.gamma) / det
            share = _damped(t, step_t, step_p)
            t, p = t + share * step_t, p + share * step_p
    return None


def _state(draw: float, t: float, p: float, here: Pass) -> _State | None:
    """Return the solved draw with its tangent, the string's length held."""
    det = here.half_t * here.draw_p - here.half_p * here.draw_t
    if det == 0 or not math.isfinite(det):
        return None
    return _State(draw, t, p, -here.half_p / det, here.half_t / det, here)


def _next(chain: Chain, last: _State, half_string: float, step: float) -> _State | None:
    """Draw `step` further by the tangent, then Newton on string length and draw."""
    target = last.draw + step
    t, p = last.t + last.t_rate * step, last.p + last.p_rate * step
    for _ in range(12):
        if t <= 0:
            return None
        here = pass_down(chain, t, p)
        slack, off = here.half_string - half_string, here.draw - target
        if abs(slack) < 1e-9 * chain.length and abs(off) < 1e-9 * chain.length:
            return _state(target, t, p, here)
        det = here.half_t * here.draw_p - here.half_p * here.draw_t
        if det == 0 or not math.isfinite(det):
            return None
        step_t = -(slack * here.draw_p - here.half_p * off) / det
        step_p = -(here.half_t * off - here.draw_t * slack) / det
        share = _damped(t, step_t, step_p)
        t, p = t + share * step_t, p + share * step_p
    return None


def _march(chain: Chain, first: _State, to_mm: float) -> tuple[list[_State], End]:
    """Draw the bow step by step until `to_mm`, or until an angle no limb survives."""
    steps = max(math.ceil((to_mm - first.draw) / STEP_MM), 1)
    step = (to_mm - first.draw) / steps
    states, half_string = [first], first.here.half_string
    while states[-1].draw < to_mm - 1e-6:
        last = states[-1]
        reach = min(step, to_mm - last.draw)
        result = next(
            (s for n in range(4) if (s := _next(chain, last, half_string, reach / 2**n))), None
        )
        if result is None or abs(result.p) > STEEPEST_TIP:
            return states, "tip_angle"
        if result.here.gamma > STEEPEST_STRING:
            return states, "string_angle"
        states.append(result)
    return states, "asked"


def draw_chain(chain: Chain, brace_mm: float, to_mm: float) -> tuple[list[_State], End]:
    """Return the solved draws of a chain from brace to `to_mm`, and how it ends.

    Empty where no string braces it at that height.

    Source: Newton's method on draw and string length.

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> states, ends = draw_chain(chain_of(shape), 203.0, 700.0)
    >>> ends
    'asked'
    """
    strung = _brace(chain, brace_mm)
    first = _state(brace_mm, *strung) if strung else None
    return _march(chain, first, to_mm) if first else ([], "asked")


@lru_cache(maxsize=512)
def string_length_at(shape: BowShape, *, segments: int | None = None) -> float | None:
    """Return the length of the string that braces a shape [mm]; None where none does.

    Errors: those of `chain_of`. Source: the strung bow at rest, Newton's method.

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> round(string_length_at(shape)) == round(draw_curve(shape).string_length_mm)
    True
    """
    strung = _brace(chain_of(shape, segments or pieces_for(shape)), shape.brace_height_mm)
    return None if strung is None else 2 * strung[2].half_string


def force_of(states: list[_State]) -> Hermite:
    """Return the draw force over EI [1/mm2] against true draw [mm].

    Source: force = dU/dd of a string that does not stretch: 2 T sin(gamma).

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> states, _ = draw_chain(chain_of(shape), 203.0, 700.0)
    >>> round(force_of(states).at(203.0), 9)
    0.0
    """
    forces = [_force(state) for state in states]
    return Hermite(
        tuple(state.draw for state in states),
        tuple(force for force, _ in forces),
        tuple(slope for _, slope in forces),
    )


def _force(state: _State) -> tuple[float, float]:
    """Return draw force over EI and its slope: F = 2 T sin gamma, exactly differentiated."""
    here = state.here
    gamma_rate = _gamma_rate(state)
    force = 2 * state.t * math.sin(here.gamma)
    slope = (
        2 * math.sin(here.gamma) * state.t_rate + 2 * state.t * math.cos(here.gamma) * gamma_rate
    )
    return force, slope


def _gamma_rate(state: _State) -> float:
    return state.here.gamma_t * state.t_rate + state.here.gamma_p * state.p_rate


def draw_curve(shape: BowShape, *, segments: int | None = None) -> DrawCurve:
    """Return the draw curve of a bow shape, from brace to 35 in (trade) or as far as it goes.

    Range: the families' typical shapes, 48 to 72 in bows, brace 5 to 9 1/2 in; second order in the
    number of segments, 0.01 % in force at 40.
    Raises `DomainError`: riser longer than the bow, limbs too short to bend, a brace height that
    no string gives, a shape whose weight would fall while it is drawn.

    Source: docs/MECHANICS.md, the bow as a spring.

    >>> curve = draw_curve(BowShape("hunting_recurve", 58 * 25.4, 15 * 25.4, 7.75 * 25.4))
    >>> ratio = curve.force.at(22.25 * 25.4) / curve.force.at(26.25 * 25.4)
    >>> round(45 * ratio, 1)
    36.3
    """
    result = solve_curve(shape, segments or pieces_for(shape))
    if isinstance(result, DomainError):
        raise result.with_traceback(None)
    return result


@lru_cache(maxsize=512)
def solve_curve(shape: BowShape, segments: int) -> DrawCurve | DomainError:
    """Return the draw curve, or why there is none; either is kept and not sought twice.

    Source: as `draw_curve`, which it is kept for.

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> solve_curve(shape, 40) is solve_curve(shape, 40)
    True
    """
    try:
        return _solve(shape, segments)
    except DomainError as refused:
        return refused


def _solve(shape: BowShape, segments: int) -> DrawCurve:
    chain = chain_of(shape, segments)
    states, ends = draw_chain(chain, shape.brace_height_mm, LONGEST_DRAW_MM)
    if not states:
        raise _brace_unreachable(shape)
    force = force_of(states)
    if len(states) < 4 or any(b <= a for a, b in pairwise(force.y)):
        raise _does_not_hold(shape)
    x = force.x
    return DrawCurve(
        shape=shape,
        chain=chain,
        string_length_mm=2 * states[0].here.half_string,
        force=force,
        energy=force.integral(),
        gamma=Hermite(x, tuple(s.here.gamma for s in states), tuple(map(_gamma_rate, states))),
        tip=Hermite(x, tuple(s.p for s in states), tuple(s.p_rate for s in states)),
        tension=Hermite(x, tuple(s.t for s in states), tuple(s.t_rate for s in states)),
        states=tuple(states),
        ends=ends,
    )


def _brace_unreachable(shape: BowShape) -> DomainError:
    return DomainError(
        "brace_unreachable",
        phrase(
            f"No string braces a {FAMILY_WORDS[shape.family]} of {{bow}} at {{brace}}.",
            bow=mm(shape.bow_length_mm),
            brace=mm(shape.brace_height_mm),
        ),
        "Check the brace height, the bow's length and the riser's.",
        "brace_height_mm",
    )


def _does_not_hold(shape: BowShape) -> DomainError:
    low, high = FAMILIES[shape.family].lengths_mm
    return DomainError(
        "shape_does_not_hold",
        phrase(
            f"The computed {FAMILY_WORDS[shape.family]} does not hold at {{bow}} with a riser of "
            "{riser} and a brace of {brace}. It is meant for bows of {low} to {high}.",
            bow=mm(shape.bow_length_mm),
            riser=mm(shape.riser_length_mm),
            brace=mm(shape.brace_height_mm),
            low=mm(low),
            high=mm(high),
        ),
        "Check the family, the lengths and the brace height.",
        "bow_length_mm",
    )


class LimbPoint(NamedTuple):
    """A joint of the limb, x toward the archer, y up the limb [mm]."""

    x: float
    y: float


def limb_at(curve: DrawCurve, draw_mm: float | None) -> list[LimbPoint]:
    """Return the joints of the upper limb from root to tip, drawn so far; None for unstrung.

    Source: the chain's own joints at that draw.

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> len(limb_at(draw_curve(shape), None)) == SEGMENTS + 1
    True
    """
    if draw_mm is None:
        leans = _unstrung_leans(curve.chain)
    else:
        within = min(max(draw_mm, curve.first_mm), curve.last_mm)
        leans = _leans(curve.chain, curve.tension.at(within), curve.tip.at(within))
    x, y = curve.chain.root_x, curve.chain.root_y
    points = [LimbPoint(x, y)]
    for (length, _, _), lean in zip(reversed(curve.chain.pieces), reversed(leans), strict=True):
        x += length * math.sin(lean)
        y += length * math.cos(lean)
        points.append(LimbPoint(x, y))
    return points


def leaving_point(curve: DrawCurve, draw_mm: float) -> LimbPoint:
    """Return where the free string leaves the limb: the tip, or further down a recurve.

    Source: geometry of the string lying on the limb.

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> leaving_point(draw_curve(shape), 203.0).y > 0
    True
    """
    within = min(max(draw_mm, curve.first_mm), curve.last_mm)
    gamma = curve.gamma.at(within)
    here = pass_down(curve.chain, curve.tension.at(within), curve.tip.at(within))
    free = here.draw - here.free_string * math.sin(gamma)
    return LimbPoint(free, here.free_string * math.cos(gamma))


def _unstrung_leans(chain: Chain) -> list[float]:
    """Return each piece's lean without a string, tip first."""
    lean, leans = chain.root_lean, []
    for _, _, kink in reversed(chain.pieces):
        lean -= kink
        leans.append(lean)
    return leans[::-1]


def _leans(chain: Chain, t: float, p: float) -> list[float]:
    """Return each piece's lean toward the archer under tension `t`, tip angle `p`; tip first."""
    phi, arm, lying = p, 0.0, p < 0
    angles = []
    for length, compliance, kink in chain.pieces:
        angles.append(phi)
        lying = lying and phi < 0
        if not lying:
            arm += length * math.sin(phi)
        phi += kink - compliance * t * arm
    gamma = phi - chain.root_lean
    return [angle - gamma for angle in angles]
