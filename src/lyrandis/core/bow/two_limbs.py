"""Two limbs on one string with the hook anywhere on it: walking, tiller, a grip that heels.

Lengths in mm, forces over EI of the upper limb's root. The upper limb and its mirror below are the
chain of `statics`; what joins them is the hook. Static: it says nothing of timing or sound.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from lyrandis.core.bow.statics import BowShape, Pass, draw_curve, pass_down
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.numeric import border

Held = Literal["free", "square"]
"""The bow free to tip in the hand, or kept square to the arrow by a heeled grip."""

HOOK_STEP_MM = 15.0
_GOOD = 1e-8
EXTRA_DRAW = 0.71
"""Short rule: extra draw of the lower limb over hook offset and bow length, [in in/mm]; within a
tenth of the kernel over recurves and longbows."""


@dataclass(frozen=True)
class TwoLimbs:
    """A bow drawn with the hook below (or above) the middle of its string."""

    force: float
    """Pull of the hook over EI."""
    tensions: tuple[float, float]
    """Upper, lower, over EI."""
    angles: tuple[float, float]
    """String from the upright on either side of the hook [rad]."""
    hook: tuple[float, float]
    """From the pivot, x toward the archer, y up [mm]."""
    energies: tuple[float, float]
    """Bent into upper and lower limb, brace included, over EI."""
    root_moments: tuple[float, float]
    """Bending moment at the root of upper and lower limb, over EI [1/mm]."""
    moment: float
    """What the grip has to hold, over EI; nought when free [1/mm]."""

    @property
    def line(self) -> float:
        """The hook's place from the pivot, as an angle [rad]; below 0 it stands low."""
        return math.atan2(self.hook[1], self.hook[0])

    @property
    def share(self) -> float:
        """Lower less upper limb's energy, over both."""
        upper, lower = self.energies
        return (lower - upper) / (upper + lower)


_Unknown = tuple[float, float, float, float]


def _ends(here: Pass, string: float) -> tuple[float, float]:
    """Return where a piece of string of some length, tied to a limb, ends."""
    # leaving point (x_t, y_t), free length S - w along gamma
    up = here.free_string * math.cos(here.gamma)
    out = here.draw - here.free_string * math.sin(here.gamma)
    free = string - (here.half_string - here.free_string)
    return out + free * math.sin(here.gamma), up - free * math.cos(here.gamma)


@dataclass(frozen=True)
class _Bow:
    shape: BowShape
    draw: float
    half: float
    ratio: float
    held: Held
    pivot: float
    """Pressure point of the hand above the pivot."""

    def passes(self, x: _Unknown) -> tuple[Pass, Pass]:
        chain = draw_curve(self.shape).chain
        return pass_down(chain, x[0], x[1]), pass_down(chain, x[2] / self.ratio, x[3])

    def residual(self, x: _Unknown, offset: float) -> list[float]:
        upper, lower = self.passes(x)
        xu, yu = _ends(upper, self.half + offset)
        xl, yl = _ends(lower, self.half - offset)
        across, up = xu, (yu - yl) / 2
        pull_x = -x[0] * math.sin(upper.gamma) - x[2] * math.sin(lower.gamma)
        pull_y = x[0] * math.cos(upper.gamma) - x[2] * math.cos(lower.gamma)
        meets = [xu - xl, yu + yl]
        if self.held == "square":
            return [*meets, across - self.draw, up + offset]
        along = up - self.pivot
        size = (x[0] + x[2]) / self.draw
        return [*meets, math.hypot(across, along) - self.draw,
                (across * pull_y - along * pull_x) / size]  # fmt: skip


def drawn_off_middle(
    shape: BowShape,
    draw_mm: float,
    offset_mm: float,
    *,
    held: Held = "free",
    ratio: float = 1.0,
    pressure_mm: float = 0.0,
) -> TwoLimbs | None:
    """Return the bow drawn with the hook `offset_mm` below the middle of the string.

    Four unknowns, T and p of either limb: both pieces of string end at the hook, the hook is
    `draw_mm` from the pivot, and the pull passes through it (free) or the hook stands square.
    `ratio` is the lower limb's stiffness over the upper's; `pressure_mm` the hand above the pivot.
    None where Newton's method finds nothing. Errors: those of `draw_curve`.
    Range: offsets to 100 mm either way.
    Source: balance of two elastic chains and a string without stretch (docs/MECHANICS.md).

    >>> shape = BowShape("hunting_recurve", 58 * 25.4, 15 * 25.4, 7.75 * 25.4)
    >>> round(math.degrees(drawn_off_middle(shape, 26.25 * 25.4, 60.0).line), 1)
    -6.9
    """
    return _solved(
        shape, round(draw_mm, 3), round(offset_mm, 3), held, round(ratio, 6), round(pressure_mm, 3)
    )


@lru_cache(maxsize=256)
def _solved(
    shape: BowShape, draw_mm: float, offset_mm: float, held: Held, ratio: float, pressure: float
) -> TwoLimbs | None:
    curve = draw_curve(shape)
    bow = _Bow(shape, draw_mm, curve.string_length_mm / 2, ratio, held, pressure)
    tension, tip = curve.tension.at(draw_mm), curve.tip.at(draw_mm)
    x: _Unknown = (tension, tip, tension, tip)
    steps = max(math.ceil(abs(offset_mm) / HOOK_STEP_MM), 1)
    for step in range(1, steps + 1):
        result = _newton(bow, x, offset_mm * step / steps)
        if result is None:
            return None
        x = result
    upper, lower = bow.passes(x)
    place, height = _ends(upper, bow.half + offset_mm)
    pull_x = -x[0] * math.sin(upper.gamma) - x[2] * math.sin(lower.gamma)
    pull_y = x[0] * math.cos(upper.gamma) - x[2] * math.cos(lower.gamma)
    return TwoLimbs(
        force=math.hypot(pull_x, pull_y),
        tensions=(x[0], x[2]),
        angles=(upper.gamma, lower.gamma),
        hook=(place, height),
        energies=(upper.energy / 2, ratio * lower.energy / 2),
        root_moments=(x[0] * upper.moment_arm, x[2] * lower.moment_arm),
        moment=place * pull_y - (height - pressure) * pull_x,
    )


def _newton(bow: _Bow, x: _Unknown, offset: float) -> _Unknown | None:
    now = list(x)
    for _ in range(40):
        off = bow.residual(tuple(now), offset)  # type: ignore[arg-type]
        if max(map(abs, off)) < _GOOD * bow.draw:
            return tuple(now)  # type: ignore[return-value]
        slopes = np.empty((4, 4))
        for column in range(4):
            step = 1e-6 * (abs(now[column]) if column % 2 == 0 else 1.0)
            moved = list(now)
            moved[column] += step
            there = bow.residual(tuple(moved), offset)  # type: ignore[arg-type]
            slopes[:, column] = [(b - a) / step for a, b in zip(off, there, strict=True)]
        try:
            change = np.linalg.solve(slopes, -np.array(off))
        except np.linalg.LinAlgError:
            return None
        limits = [0.4 * now[0], 0.2, 0.4 * now[2], 0.2]
        reaches = zip(limits, change, strict=True)
        share = min(1.0, *(limit / max(abs(c), 1e-30) for limit, c in reaches))
        now = [a + share * float(c) for a, c in zip(now, change, strict=True)]
    return None


def worst_extra_draw(shape: BowShape, draw_mm: float, offset_mm: float) -> float | None:
    """Return how much further a draw bends the lower limb as much, the bow held square [mm].

    The draw at which the bow held in its middle has the lower limb's moment at its root.
    None where nothing is found. Errors: those of `draw_curve`.
    Source: as `drawn_off_middle`.

    >>> shape = BowShape("hunting_recurve", 58 * 25.4, 15 * 25.4, 7.75 * 25.4)
    >>> round(worst_extra_draw(shape, 26.25 * 25.4, 60.0) / 25.4, 2)
    0.75
    """
    off = drawn_off_middle(shape, draw_mm, offset_mm, held="square")
    if off is None:
        return None
    curve = draw_curve(shape)
    lower = off.root_moments[1]

    def bends_less(at: float) -> bool:
        t = curve.tension.at(at)
        return t * pass_down(curve.chain, t, curve.tip.at(at)).moment_arm < lower

    return border(bends_less, curve.first_mm, curve.last_mm)[0] - draw_mm


HOOK_UNDER_NOCK_MM, NOCK_OVER_MIDDLE_MM = 25.0, 45.0
"""Assumption: where three fingers pull under the nock, and the nock over the string's middle."""


def crawl_draw(bow_length_mm: float, crawl_mm: float) -> float:
    """Return how much further the lower limb is bent by a crawl, held square [mm].

    Source: `extra_draw`, with the hook a crawl and half a hand under the nock.

    >>> crawl_draw(58 * 25.4, 20.0), round(crawl_draw(58 * 25.4, 80.0) / 25.4, 2)
    (0.0, 0.73)
    """
    return extra_draw(bow_length_mm, max(crawl_mm + HOOK_UNDER_NOCK_MM - NOCK_OVER_MIDDLE_MM, 0.0))


def extra_draw(bow_length_mm: float, offset_mm: float) -> float:
    """Return how much further the lower limb is bent by a hook below the middle, held square [mm].

    X = 0.71 in x offset [mm]/length [in]: the worst case, for the stack margin.
    Source: our own fit to `drawn_off_middle`, held square.

    >>> round(extra_draw(58 * 25.4, 60.0) / 25.4, 2)
    0.73
    """
    return EXTRA_DRAW * offset_mm / (bow_length_mm / MM_PER_IN) * MM_PER_IN
