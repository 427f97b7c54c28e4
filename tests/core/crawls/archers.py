"""Made-up string walkers: what is true of them, the marks they would make, and their prior.

Truth is drawn and struck here, not by the fit's own code. `richer` adds what the fit's family does
not have: the nock moves forward with the crawl, the eye stands before or behind it, deep crawls
cost speed, and the launch is not along the shaft.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.crawls.fit import CrawlFit, FitMark, Prior, fit_crawls, odd_one
from lyrandis.core.crawls.plan import EYE_MM
from lyrandis.core.estimate import Estimate

G = 9.80665
TABLE_M = tuple(range(5, 55, 5))
MECHANICS, CHRONOGRAPH = 0.058, 0.032
"""How well speed is known before any mark, launch along the shaft or not in it."""


@dataclass(frozen=True)
class Walker:
    """One archer: what is so, and what the rig says of it."""

    speed: float
    eye_mm: float
    drag: float
    deep_mm: float
    kappa: float
    tip_mm: float
    prior: Prior
    forward: float = 0.0
    """How far the nock moves forward per mm of crawl."""
    behind_mm: float = 0.0
    slower: float = 0.0
    """Share of speed lost by a crawl of 60 mm."""
    launch: float = 0.0
    launch_per_mm: float = 0.0

    def crawl(self, distance_m: float) -> float:
        """The crawl that strikes the mark, by bisection of where it strikes."""
        low, high = -120.0, self.eye_mm / self.kappa + 20.0
        for _ in range(36):
            middle = (low + high) / 2
            low, high = (middle, high) if self._high(distance_m, middle) > 0 else (low, middle)
        return (low + high) / 2

    def _high(self, distance_m: float, crawl: float) -> float:
        rise = crawl  # c = u + q (u/60)^2, solved for u
        if abs(self.deep_mm) > 1e-9:
            root = math.sqrt(max(1 + self.deep_mm * crawl / 900, 0.0))
            rise = (root - 1) * 1800 / self.deep_mm
        eye = (self.eye_mm - self.kappa * rise) / 1000
        tip = self.tip_mm / 1000
        over = eye * tip / (tip + (self.behind_mm + self.forward * crawl) / 1000)
        speed = self.speed * (1 - self.slower * max(crawl, 0.0) / 60)
        lean = math.asin(over / tip) + self.launch + self.launch_per_mm * crawl
        z = 2 * self.drag * distance_m
        fall = G * (math.expm1(z) - z) / (4 * (self.drag * speed) ** 2)
        return distance_m * math.tan(lean) - fall / math.cos(lean) ** 2 - over

    def marks(
        self, distances_m: Sequence[float], rng: np.random.Generator, repeat_mm: float = 2.0
    ) -> list[FitMark]:
        return [FitMark(d, self.crawl(d) + rng.normal(0, repeat_mm)) for d in distances_m]

    def fit(self, marks: Sequence[FitMark], *, told: bool = True) -> CrawlFit:
        return fit_crawls(self.prior, marks, told=told)


def walker(
    rng: np.random.Generator, *, richer: bool = False, speed_sd: float = MECHANICS
) -> Walker:
    """Draw one archer with a table from 5 to 50 m that is not steep anywhere."""
    ways = [EYE_MM[a][h] for a in ("cheekbone", "corner", "under_chin")
            for h in ("split", "three_under")]  # fmt: skip
    usual = ways[rng.integers(len(ways))]
    speed, kappa = rng.uniform(42, 64), rng.uniform(0.84, 0.92)
    told_kappa = kappa + rng.normal(0, 0.02)
    eye = usual.value + rng.normal(0, usual.sd)
    tip = rng.uniform(700, 820)
    told_speed = speed * math.exp(rng.normal(0, speed_sd)) * math.sqrt(told_kappa)
    prior = Prior(
        Estimate(told_speed, told_speed * speed_sd),
        Estimate(usual.value / told_kappa, math.hypot(usual.sd, 0.02 * usual.value) / told_kappa),
        Estimate(0.0017, 0.25),
        tip + rng.normal(0, 4.0),
    )
    more = (
        {
            "forward": rng.normal(0.15, 0.1), "behind_mm": rng.normal(0, 15.0),
            "slower": abs(rng.normal(0, 0.02)), "launch": rng.normal(0, 0.003),
            "launch_per_mm": rng.normal(0, 0.00005),
        }
        if richer
        else {}
    )  # fmt: skip
    return Walker(speed, eye, 0.0017 * math.exp(rng.normal(0, 0.25)), rng.normal(0, 2.0), kappa,
                  tip, prior, **more)  # fmt: skip


@dataclass(frozen=True)
class Trial:
    """How many bands hold the truth, by distance, and by how much tables are off."""

    covered: np.ndarray
    off_mm: float
    half_mm: float

    @property
    def share(self) -> float:
        return float(self.covered.mean())


def named(count: int, marks: int, off_sds: float, seed: int = 11) -> float:
    """Return how often the one mark that is off by so much is the one that is named."""
    rng = np.random.default_rng(seed)
    found = 0
    for _ in range(count):
        one = walker(rng)
        at = [float(d) for d in rng.choice(TABLE_M, marks, replace=False)]
        made = one.marks(at, rng)
        which = int(rng.integers(marks))
        made[which] = FitMark(at[which], one.crawl(at[which]) + rng.choice([-1, 1]) * off_sds * 2.0)
        found += odd_one(one.fit(made)) == which
    return found / count


def false_alarms(count: int, marks: int, seed: int = 12) -> float:
    """Return how often a mark is named in a table where none is off."""
    rng = np.random.default_rng(seed)
    found = 0
    for _ in range(count):
        one = walker(rng)
        at = [float(d) for d in rng.choice(TABLE_M, marks, replace=False)]
        found += odd_one(one.fit(one.marks(at, rng))) is not None
    return found / count


def tried(
    count: int, marks: int | Sequence[float], seed: int, *, richer: bool = False,
    repeat_mm: float = 2.0, told: bool = True, speed_sd: float = MECHANICS,
) -> Trial:  # fmt: skip
    """Draw archers, let each make marks, and hold every band against the truth."""
    rng = np.random.default_rng(seed)
    held, off, half = [], [], []
    for _ in range(count):
        one = walker(rng, richer=richer, speed_sd=speed_sd)
        at = rng.choice(TABLE_M, marks, replace=False) if isinstance(marks, int) else marks
        fit = one.fit(one.marks([float(d) for d in at], rng, repeat_mm), told=told)
        rows = fit.table(TABLE_M)
        truth = np.array([one.crawl(d) for d in TABLE_M])
        found = np.array([row.crawl_mm for row in rows])
        band = np.array([row.half_mm for row in rows])
        held.append(np.abs(found - truth) <= band)
        off.append(np.abs(found - truth))
        half.append(band)
    return Trial(np.array(held).mean(axis=0), float(np.median(off)), float(np.median(half)))
