"""Measure speed and memory, print the tables and write them to docs/BENCH.md.

Every number is of this machine, the production build, and a database on disk. Areas named behind
the command are measured alone: the sections of the others stay as they are.
"""

import argparse
import re
import statistics
import sys
import tempfile
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path

from tools.bench import mechanics, page, rigs, served, spoken, strain, trials
from tools.bench.rows import REFERENCE_PACE_S, Row, machine, paced, table

REPORT = Path(__file__).resolve().parents[2] / "docs" / "BENCH.md"
_HEAD = (
    "# Bench\n\nWritten by `make bench`: {machine}.\nBefore and behind each group of rows a loop "
    f"of 5 million additions is timed. Times are also given at the pace of {REFERENCE_PACE_S} s, "
    "and it is those that are held against the limits. `make bench AREAS='page served'` measures "
    "some areas alone.\n"
)


def of_served() -> list[Row]:
    """Return the rows of one server, in the order its memory is read in."""
    with tempfile.TemporaryDirectory() as folder, served.Served(Path(folder)) as server:
        parts = (
            served.bench_start,
            served.bench_posting,
            served.bench_questions,
            served.bench_memory,
            served.bench_other_rig,
            served.bench_beside,
        )
        rows = [row for part in parts for row in paced(lambda part=part: part(server))]  # type: ignore[misc]
        usual = statistics.median(served.post_many(server)[0].at_reference())
    return rows + paced(lambda: served.bench_growth(usual))


def of_page() -> list[Row]:
    """Return the rows of the page in a browser."""
    with tempfile.TemporaryDirectory() as folder, served.Served(Path(folder)) as server:
        return paced(lambda: page.bench_page(server))


def each(*parts: Callable[[], list[Row]]) -> Callable[[], list[Row]]:
    """Return what measures some groups of rows, one after the other."""
    return lambda: [row for part in parts for row in paced(part)]


AREAS: dict[str, tuple[str, Callable[[], list[Row]]]] = {
    "mechanics": ("The core and its mechanics", each(
        mechanics.bench_core, mechanics.bench_mechanics, mechanics.bench_arrow,
        mechanics.bench_numbered,
    )),
    "trials": ("Made-up archers, bows and sounds", each(
        trials.bench_string, trials.bench_worlds, trials.bench_crawls, trials.bench_listen,
        trials.bench_flight,
    )),
    "rigs": ("Ordinary rigs and dangerous ones", each(rigs.bench_rigs)),
    "spoken": ("What people type", each(spoken.bench_lines, spoken.bench_hearing)),
    "served": ("The server", of_served),
    "page": ("The page", of_page),
    "strain": ("Long logs, odd requests, a sudden stop", each(
        strain.bench_logs, strain.bench_long_recording, strain.bench_stop, strain.bench_fuzz,
    )),
}  # fmt: skip


def section(title: str, rows: list[Row]) -> str:
    """Return an area's part of the report: its table, and why a limit is not kept."""
    paces = [row.pace_s for row in rows]
    day = datetime.now(UTC).date().isoformat()
    reasons = [f"- {row.what}: {row.why}" for row in rows if not row.kept and row.why]
    because = ["", "Not kept, and why:", "", *reasons] if reasons else []
    head = f"Measured on {day}; the loop took {min(paces):.2f} to {max(paces):.2f} s."
    return "\n".join([f"## {title}", "", head, "", table(rows), *because, ""])


def main(asked: list[str]) -> int:
    known = REPORT.read_text(encoding="utf-8") if REPORT.exists() else ""
    found = re.findall(r"^(## ([^\n]*)\n.*?)(?=^## |\Z)", known, re.M | re.S)
    sections = {title: whole.rstrip() + "\n" for whole, title in found}
    kept = True
    for area in asked or AREAS:
        title, measure = AREAS[area]
        rows = measure()
        sections[title] = section(title, rows)
        kept = kept and all(row.kept for row in rows)
        print(sections[title], flush=True)
    parts = [sections[title] for title, _ in AREAS.values() if title in sections]
    REPORT.write_text("\n".join([_HEAD.format(machine=machine()), *parts]), encoding="utf-8")
    return 0 if kept else 1


if __name__ == "__main__":
    reader = argparse.ArgumentParser(description=__doc__)
    reader.add_argument("areas", nargs="*", choices=[*AREAS, []], metavar="area")
    sys.exit(main(reader.parse_args().areas))
