"""What people type: how many lines are right, how fast a line is heard."""

import statistics
from collections import Counter
from time import process_time

from tests.core.hearing.test_lines import DANGEROUS, SPOKEN, alike, heard, told, verdict
from tools.bench.rows import Row

from lyrandis.core.jot import Jotted

LONGEST = ("tail left 2 at 3 paces and bare 3cm left 1cm high @ 18m " * 8)[:399]
ROUNDS = 5


def bench_lines() -> list[Row]:
    """Count the lines of the corpus that are taken, or rightly asked."""
    found = [(line["stage"], verdict(line)) for line in SPOKEN]
    right = Counter(stage for stage, how in found if how == "right")
    every = Counter(stage for stage, _ in found)
    least = min(every, key=lambda stage: right[stage] / every[stage])
    wrong = sum(how == "wrong" for _, how in found)
    dangerous = 0
    for line in DANGEROUS:
        taken = heard(line)
        if isinstance(taken, Jotted):
            kind, fields = told(taken.reading)
            meant = [one for one in line["right"] if one["kind"] == kind]
            dangerous += not any(alike(fields, one["values"]) for one in meant)
    return [
        Row("lines taken or rightly asked", 100 * sum(right.values()) / len(found), 97, "%",
            f"{len(found)} lines over all stages", least=True),
        Row("the same on the stage that does worst", 100 * right[least] / every[least], 90, "%",
            least, least=True),
        Row("lines recorded as something else", wrong, 0, "lines", f"of {len(found)}"),
        Row("dangerous lines recorded as something else", dangerous, 0, "lines",
            f"of {len(DANGEROUS)}"),
    ]  # fmt: skip


def bench_hearing() -> list[Row]:
    """Time hearing, in processor time: the lines of the corpus, and the longest there may be."""
    times = [_time(line) for _ in range(ROUNDS) for line in SPOKEN][len(SPOKEN) :]
    longest = [_time({"text": LONGEST, "units": "inch"}) for _ in range(40)][5:]
    return [
        Row("hearing a line, median", statistics.median(times), 1, "ms", "our own limit"),
        Row("hearing a line, p99", statistics.quantiles(times, n=100)[-1], 2, "ms",
            f"{len(times)} lines, questions with their answers read too"),
        Row("a line of 400 characters", statistics.median(longest), 5, "ms", "median of 35"),
    ]  # fmt: skip


def _time(line: dict[str, str]) -> float:
    start = process_time()
    heard(line)
    return 1000 * (process_time() - start)
