"""How the judgement takes ordinary rigs and dangerous ones, by the population of the tests."""

from concurrent.futures import ProcessPoolExecutor
from functools import partial

from tests.core.population.rigs import (
    DANGERS,
    FOUND_BY,
    TOLD,
    Danger,
    SpineRule,
    Told,
    endangered,
    rig_of,
)
from tests.entries import entries
from tools.bench.rows import Row

from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.setup import fold

RIGS, ENDANGERED = 200, 20
_NAMES: dict[Told, str] = {
    "all": "all told and weighed", "newcomer": "told as a newcomer does",
    "middling": "a random half told",
}  # fmt: skip
_MOST_MENDED: dict[Told, float] = {"all": 2.0, "newcomer": 1.0, "middling": 2.0}


def _judged(lines: tuple[str, ...]) -> Assessment:
    return assess(fold(entries(*lines)))


def worst(seed: int, how: Told, rule: SpineRule) -> str:
    """Return the worst severity of an ordinary rig; the findings come worst first."""
    found = _judged(rig_of(seed, rule).told(how, seed)).findings
    return found[0].severity if found else "good"


def named(seed: int, danger: Danger) -> bool:
    """Return whether a dangerous rig is stopped or sent to be mended for its own cause."""
    found = _judged(endangered(seed, danger).lines()).findings
    return any(f.severity in ("stop", "mend") and f.id in FOUND_BY[danger] for f in found)


def bench_rigs() -> list[Row]:
    """Count verdicts over the seeded population, its spines drawn by two rules."""
    rows = []
    rules: tuple[SpineRule, ...] = ("practice", "in proportion")
    with ProcessPoolExecutor(2) as pool:
        for how in TOLD:
            found = [
                severity
                for rule in rules
                for severity in pool.map(
                    partial(worst, how=how, rule=rule), range(RIGS), chunksize=25
                )
            ]
            count = len(found)
            what = f"{count} sound rigs, {_NAMES[how]}"
            stopped = 100 * found.count("stop") / count
            mended = 100 * found.count("mend") / count
            how_drawn = "spines by practice and in proportion, half each"
            rows += [
                Row(f"{what}: stopped", stopped, 0.0, "%", how_drawn),
                Row(f"{what}: to be mended", mended, _MOST_MENDED[how], "%", how_drawn),
            ]
        shares = {
            danger: sum(pool.map(partial(named, danger=danger), range(ENDANGERED), chunksize=5))
            for danger in DANGERS
        }
    least = min(shares, key=lambda danger: shares[danger])
    rows.append(
        Row(
            f"{ENDANGERED * len(DANGERS)} dangerous rigs named with their cause",
            100 * sum(shares.values()) / (ENDANGERED * len(DANGERS)),
            97.0,
            "%",
            f"one cause each; least often: {least}, {shares[least]} of {ENDANGERED}",
            least=True,
        )
    )
    return rows
