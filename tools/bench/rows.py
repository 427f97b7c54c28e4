"""What a bench measures: rows against their limits, times at a reference pace."""

import os
import platform
import statistics
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

REFERENCE_PACE_S = 0.25
"""What the loop of additions takes on this machine in an ordinary spell."""


_TIMES = frozenset({"ms", "s"})


@dataclass
class Row:
    """One measured number against its limit."""

    what: str
    measured: float
    limit: float
    unit: str
    how: str
    least: bool = False
    """True when the limit is to be reached, not kept under."""
    pace_s: float = REFERENCE_PACE_S
    """What the loop of additions took meanwhile, on the average."""
    paced: float | None = None
    """The figure at the reference pace, where every run has a pace of its own."""
    why: str = ""
    """Why the limit is not kept, where that is known."""

    @property
    def at_reference(self) -> float:
        """The figure at the reference pace: times only; sizes do not depend on it."""
        if self.paced is not None:
            return self.paced
        share = REFERENCE_PACE_S / self.pace_s
        return self.measured * share if self.unit in _TIMES else self.measured

    @property
    def kept(self) -> bool:
        said = self.at_reference
        return said >= self.limit if self.least else said <= self.limit


_PACES: list[float] = []
"""Paces since the present rows began."""


def paced(measure: Callable[[], list[Row]]) -> list[Row]:
    """Run the loop of additions before, behind and while rows are measured: their mean pace."""
    _PACES[:] = [pace()]
    rows = measure()
    _PACES.append(pace())
    for row in rows:
        row.pace_s = statistics.mean(_PACES)
    return rows


class Times(list[float]):
    """The milliseconds of each run, with what the loop of additions took just before it [s]."""

    def __init__(self) -> None:
        self.paces: list[float] = []

    def run(self, what: Callable[[], Any]) -> None:
        self.paces.append(50 * pace(100_000))
        self.append(once(what))

    def at_reference(self) -> list[float]:
        """A shared machine halves its pace for a second, then has it back: run by run."""
        return [ms * REFERENCE_PACE_S / now for ms, now in zip(self, self.paces, strict=True)]


def p95(times: list[float]) -> float:
    return statistics.quantiles(times, n=20)[-1]


def slowest(what: str, times: Times, limit: float, how: str, why: str = "") -> Row:
    """Return a row of the p95 of some questions to the server, which has a pace of its own."""
    return Row(f"{what}, p95", p95(times), limit, "ms", how, why=why)


def timed(run: Callable[[], Any], times: int) -> Times:
    """Return the milliseconds of each run, after a few to warm up."""
    for _ in range(5):
        run()
    found = Times()
    for _ in range(times):
        found.run(run)
    _PACES.extend(found.paces)
    return found


def once(run: Callable[[], Any]) -> float:
    start = time.perf_counter()
    run()
    return (time.perf_counter() - start) * 1000


def pace(additions: int = 5_000_000) -> float:
    """Return the seconds a fixed loop takes now: a shared machine is not always equally fast."""
    start = time.perf_counter()
    total = 0
    for number in range(additions):
        total += number
    return time.perf_counter() - start


def machine() -> str:
    model = next(
        (
            line.split(":")[1].strip()
            for line in Path("/proc/cpuinfo").read_text().splitlines()
            if line.startswith("model name")
        ),
        platform.machine(),
    )
    memory = os.sysconf("SC_PAGE_SIZE") * os.sysconf("SC_PHYS_PAGES") / 2**30
    return (
        f"{model}, {os.cpu_count()} cores, {memory:.0f} GiB, {platform.system()}, "
        f"Python {platform.python_version()}"
    )


def table(rows: list[Row]) -> str:
    lines = [
        "| what | measured | at 0.25 s | limit | kept | how |",
        "| --- | --- | --- | --- | --- | --- |",
    ]
    for row in rows:
        places = 2 if row.unit == "s" else 1
        lines.append(
            f"| {row.what} | {row.measured:.{places}f} {row.unit} "
            f"| {row.at_reference:.{places}f} {row.unit} | {row.limit:g} {row.unit} "
            f"| {'yes' if row.kept else 'NO'} | {row.how} |"
        )
    return "\n".join(lines)
