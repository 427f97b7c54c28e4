"""A population of ordinary rigs, and of rigs with one danger each: seeded, told three ways.

Not the reference rigs: what the trade shoots, drawn at random. Spines are drawn by the practice
school, or by another in proportion to weight and length, so that no rule is proved by itself.
"""

import math
from dataclasses import dataclass, replace
from typing import Literal, TypeVar

import numpy as np
from numpy.random import Generator

from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.schools import range_by_draw
from lyrandis.core.bow.words import Family

_T = TypeVar("_T")
Told = Literal["all", "newcomer", "middling"]
SpineRule = Literal["practice", "in proportion"]
TOLD: tuple[Told, ...] = ("all", "newcomer", "middling")

SHARES: dict[Family, float] = {
    "hunting_recurve": 0.25, "target_recurve": 0.25, "reflex_deflex_longbow": 0.20,
    "straight_longbow": 0.15, "selfbow": 0.08, "short_rigid_tip": 0.03,
    "long_rigid_tip": 0.02, "large_rigid_tip": 0.02,
}  # fmt: skip
WINDOWS_MM: dict[Family, tuple[float, float]] = {
    "target_recurve": (-4, 0), "hunting_recurve": (0, 4), "reflex_deflex_longbow": (1, 6),
    "straight_longbow": (4, 10), "selfbow": (8, 14),
}  # fmt: skip
STATIC_WINDOW_MM = (6.0, 12.0)
USUAL_GPP: dict[Family, tuple[float, float]] = {
    "target_recurve": (6, 9), "short_rigid_tip": (9.5, 12), "long_rigid_tip": (11, 13.5),
    "large_rigid_tip": (13, 15.5),
}  # fmt: skip
OTHER_GPP = (8.0, 12.0)
MATERIALS: dict[Family, tuple[tuple[str, float], ...]] = {
    "target_recurve": (("carbon", 0.85), ("aluminium", 0.15)),
    "hunting_recurve": (("carbon", 0.7), ("wood", 0.3)),
    "reflex_deflex_longbow": (("wood", 0.6), ("carbon", 0.4)),
}
WOODEN = (("wood", 0.85), ("cane", 0.15))
ACROSS_MM = {"wood": 8.7, "cane": 8.5, "carbon": 6.5, "aluminium": 7.5}
SOLD_THOUSANDTHS = (
    250, 300, 340, 400, 450, 500, 550, 600, 650, 700, 750, 800, 850, 900, 1000, 1100, 1200, 1300,
    1500, 1800, 2000,
)  # fmt: skip
POUNDS_BY_THOUSANDTHS = 31_500.0


@dataclass(frozen=True)
class Rig:
    """One made-up rig, in inches, pounds, grains and mm as archers speak of it."""

    family: Family
    length_in: int
    draw_in: float
    weight_lbf: float
    hand: str
    hold: str
    brace_in: float
    strands: int
    low_stretch: bool
    window_mm: float
    material: str
    shaft_in: float
    point_gr: int
    spine: str
    spine_lbf: float
    mass_gr: float
    more: tuple[str, ...] = ()

    def lines(self) -> tuple[str, ...]:
        """All that is known of it, as it is typed."""
        said = f"draw {self.draw_in:.2f}"
        hook = self.draw_in + 0.5
        weights = (self.weight_lbf, self.weight_lbf - 2.2)
        arrows = [self.mass_gr + off for off in (-3, 0, 4)]
        kind = self.family.replace("_", " ")
        window = f"{abs(self.window_mm):.1f}mm"
        return (
            f"hand {self.hand}", f"hold {self.hold}", said, f"family {kind}",
            f"bow {self.length_in}",
            *(f"scale {w:.1f} @ {at:.2f}" for w, at in zip(weights, (hook, hook - 1), strict=True)),
            f"brace {self.brace_in:.2f}in grip",
            f"string {self.length_in - 3} {self.strands} strands",
            f"fibre {'low stretch' if self.low_stretch else 'polyester'}",
            f"window {window}{' past' if self.window_mm < 0 else ''}",
            *(("window plunger",) if self.family == "target_recurve" else ()),
            f"material {self.material}", f"shaft {self.shaft_in:.2f}", f"point {self.point_gr}",
            f"diameter {ACROSS_MM[self.material]}mm", f"spine {self.spine}", "inspect all good",
            *(f"arrow {n} {mass:.0f}gr" for n, mass in enumerate(arrows, 1)),
            *self.more,
        )  # fmt: skip

    def newcomer(self) -> tuple[str, ...]:
        """What somebody knows who has just bought it."""
        kind = self.family.replace("_", " ")
        mark = self.weight_lbf - 2.2 * (self.draw_in + 0.5 - 28)
        return (
            f"hand {self.hand}", f"hold {self.hold}", f"draw {round(2 * self.draw_in) / 2:g}",
            f"family {kind}", f"bow {self.length_in}", f"mark {max(round(mark), 8)}",
            f"material {self.material}", f"shaft {round(2 * self.shaft_in) / 2:g}",
            f"point {self.point_gr}", f"spine {self.spine}", *self.more,
        )  # fmt: skip

    def told(self, how: Told, seed: int = 0) -> tuple[str, ...]:
        """What is told of it: all, a newcomer's words, or a random half of all."""
        if how == "newcomer":
            return self.newcomer()
        if how == "all":
            return self.lines()
        world = np.random.default_rng(seed)
        return tuple(line for line in self.lines() if line in self.more or world.random() < 0.5)


def rig_of(seed: int, rule: SpineRule = "practice") -> Rig:
    """Return the ordinary rig of a seed."""
    world = np.random.default_rng(seed)
    family = _choose(world, tuple(SHARES.items()))
    static = "rigid" in family
    draw = float(np.clip(world.normal(27.3, 1.5), 22, 32))
    middle, sd = (32, 7) if family == "target_recurve" else (38, 9)
    weight = float(np.clip(world.normal(middle, sd), 16, 75))
    asked = range_by_draw(family, draw, None)
    low, high = FAMILIES[family].lengths_in
    length = 2 * round(float(world.uniform(asked.low, asked.high)) / 2)
    length += 2 * int(world.choice((-1, 0, 0, 0, 1)))
    length = int(min(max(length, asked.low - 1, low), min(asked.high + 2, high)))
    hold = _choose(world, (("split", 0.45), ("three under", 0.40), ("thumb", 0.15)))
    material = _choose(world, MATERIALS.get(family, WOODEN))
    window = float(world.uniform(*WINDOWS_MM.get(family, STATIC_WINDOW_MM)))
    points = (70, 120) if family == "target_recurve" else (100, 175)
    point = 250.0 if world.random() < 0.05 else float(world.uniform(*points))
    shaft = draw + float(world.uniform(0.5, 2.5))
    low_stretch = bool(world.random() < (0.8 if "recurve" in family else 0.4))
    thumb = static or hold == "thumb"
    wanted = (_practice if rule == "practice" else _in_proportion)(
        weight, shaft, point + (15 if material == "carbon" else 0), window, low_stretch, thumb
    )
    spine, pounds = _sold(material, wanted * math.exp(float(world.normal(0, 0.10))))
    usual = USUAL_GPP.get(family, OTHER_GPP)
    parts = point + 33 + (15 if material == "carbon" else 0)
    mass = _per_inch(material, pounds) * float(world.normal(1, 0.10)) * shaft + parts
    brace = FAMILIES[family].brace_in + float(world.uniform(-0.5, 0.5))
    return Rig(
        family=family,
        length_in=length,
        draw_in=draw,
        weight_lbf=weight,
        hand="left" if world.random() < 0.12 else "right",
        hold="thumb" if static else hold,
        brace_in=brace,
        strands=int(world.integers(12, 21)),
        low_stretch=low_stretch,
        window_mm=window,
        material=material,
        shaft_in=shaft,
        point_gr=round(point),
        spine=spine,
        spine_lbf=pounds,
        mass_gr=float(np.clip(mass, usual[0] * weight + 4, usual[1] * weight)),
    )


def _choose(world: Generator, shares: tuple[tuple[_T, float], ...]) -> _T:
    at = float(world.random()) * sum(share for _, share in shares)
    for item, share in shares:
        at -= share
        if at <= 0:
            return item
    return shares[-1][0]


def _practice(
    weight: float, shaft: float, tip: float, window: float, low_stretch: bool, thumb: bool
) -> float:
    off = min(-0.03 * window, 0.15) if window < 0 else -min(0.02 * max(window - 1, 0), 0.24)
    return (
        51
        * (weight / 45) ** (2 / 3)
        * max(1 + 0.06 * (tip - 125) / 25, 0.6)
        * math.exp(0.06 * (shaft - 28) + 0.07 * low_stretch + off - 0.10 * thumb)
    )


def _in_proportion(
    weight: float, shaft: float, tip: float, window: float, low_stretch: bool, thumb: bool
) -> float:
    """In proportion to weight and to length squared over the usual, and little else."""
    off = -0.015 * window
    return (
        52
        * (weight / 45) ** 0.9
        * (shaft / 28.5)
        * (1 + 0.0015 * (tip - 125))
        * math.exp(0.05 * low_stretch + off - 0.10 * thumb)
    )


def _sold(material: str, pounds: float) -> tuple[str, float]:
    """Return the next class that is sold, as it is called, and its pounds."""
    if material in ("wood", "cane"):
        group = max(5 * round(pounds / 5), 20)
        return f"{group} lb", float(group)
    off = [abs(math.log(POUNDS_BY_THOUSANDTHS / t / pounds)) for t in SOLD_THOUSANDTHS]
    found = SOLD_THOUSANDTHS[int(np.argmin(off))]
    return str(found), POUNDS_BY_THOUSANDTHS / found


def _per_inch(material: str, pounds: float) -> float:
    if material == "wood":
        return 8.5 + 0.055 * (pounds - 45)
    if material == "carbon":
        thousandths = POUNDS_BY_THOUSANDTHS / pounds
        return min(max(10.6 - 0.0072 * (thousandths - 340), 5.2), 12.0)
    return 8.5 if material == "aluminium" else 9.5


LEAST_DANGEROUS_LBF = 30.0
"""Lighter bows have hardly an arrow too light or too weak for them that anybody types."""
Danger = Literal[
    "limit", "mass", "short", "weak", "cracked", "limbs", "lamination", "turns", "brace"
]
DANGERS: tuple[Danger, ...] = (
    "limit", "mass", "short", "weak", "cracked", "limbs", "lamination", "turns", "brace",
)  # fmt: skip
FOUND_BY: dict[Danger, tuple[str, ...]] = {
    "limit": ("past-draw-limit",),
    "mass": ("arrow-floor",),
    "short": ("arrow-length",),
    "weak": ("spine-match",),
    "cracked": ("arrow-cracked",),
    "limbs": ("limb-pair",),
    "lamination": ("inspection",),
    "turns": ("string-turns",),
    "brace": ("brace-range",),
}
"""Which findings name each danger."""


def endangered(seed: int, danger: Danger) -> Rig:
    """Return the ordinary rig of a seed with one thing about it that hurts bow or archer."""
    world, rig = np.random.default_rng(seed + 90_000), rig_of(seed)
    while danger in ("mass", "weak") and rig.weight_lbf < LEAST_DANGEROUS_LBF:
        seed += 1_000
        rig = rig_of(seed)
    if danger == "limit":
        return replace(rig, more=(f"limit {rig.draw_in - float(world.uniform(1, 3)):.1f}",))
    if danger == "mass":
        return replace(rig, mass_gr=float(world.uniform(3.4, 4.8)) * rig.weight_lbf)
    if danger == "short":
        return replace(rig, shaft_in=rig.draw_in - 1.75 - float(world.uniform(0.5, 2.0)))
    if danger == "weak":
        thousandths = round(POUNDS_BY_THOUSANDTHS / (0.45 * rig.spine_lbf))
        return replace(
            rig, material="carbon", spine=str(thousandths), spine_lbf=0.45 * rig.spine_lbf
        )
    if danger == "brace":
        off = float(world.choice((-1, 1)) * world.uniform(2.6, 3.5))
        wrong = FAMILIES[rig.family].brace_in + off
        return replace(rig, brace_in=min(max(wrong, 3.1), 11.9))
    said: dict[Danger, tuple[str, ...]] = {
        "cracked": ("arrow 2 cracked",),
        "limbs": ("limbs 40 22",),
        "lamination": ("inspect bad laminations",),
        "turns": ("stringtype twisted bundles", "turns 0"),
    }
    return replace(rig, more=said[danger])
