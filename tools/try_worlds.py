"""Shoot the trials of string, sweep and sound in other worlds: `make worlds`, some ten minutes.

Writes `src/lyrandis/core/tried.json`, which the rules read their figures from, and the chapter of
docs/CALIBRATION.md that tells it.
"""

import sys
from collections.abc import Callable, Iterable
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import Any

import numpy as np

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

from tests.core.listen.club import club_heard
from tests.core.listen.sound_worlds import cannot_be_told, known_as_cut_off
from tests.core.listen.speed_worlds import SPEED_WORLDS, speed_heard
from tests.core.listen.tap_worlds import TAP_WORLDS, tap_heard
from tests.core.listen.test_blind import FAULTS, blind_trials
from tests.core.string.settling_worlds import WORLDS, called
from tests.core.string.sweep_worlds import KINDS, swept

from lyrandis.core.tried import TRIED, TriedRow, TriedSubject, TriedTable

OUT = Path(__file__).resolve().parents[1] / "src/lyrandis/core" / TRIED
BOOK = Path(__file__).resolve().parents[1] / "docs" / "CALIBRATION.md"
STRINGS, SWEEPS, SOUNDS, CLUBS, BOWS = 300, 300, 40, 24, 25
NEVER_H = 999.0
FRESH = 40_000
"""The engines were chosen on smaller seeds: none of these was looked at before."""


def each(pool: ProcessPoolExecutor, do: Callable[..., Any], asked: Iterable[Any]) -> list[Any]:
    return list(pool.map(do, *zip(*asked, strict=True), chunksize=4))


def mean(values: Iterable[float]) -> float:
    told = list(values)
    return round(float(np.mean(told)), 4) if told else 0.0


def of_settling(pool: ProcessPoolExecutor) -> list[TriedRow]:
    rows = []
    for world in WORLDS:
        found = each(pool, called, [(world, seed) for seed in range(FRESH, FRESH + STRINGS)])
        hours = [NEVER_H if one.hours is None else one.hours for one in found]
        figures = {"early": mean(one.early for one in found), "hours": float(np.median(hours)),
                   "called": mean(one.hours is not None for one in found)}  # fmt: skip
        rows.append(row("settling", world.name, STRINGS, figures))
    return rows


def _swept(kind: Any, seed: int, sound: bool) -> Any:
    return swept(kind, seed, sound=sound)


def of_sweep(pool: ProcessPoolExecutor) -> list[TriedRow]:
    rows = []
    names = {"one": "one valley", "sloped": "on a slope", "flat": "a flat floor", "two": "two dips",
             "outside": "outside the range"}  # fmt: skip
    for sound, how in ((True, "recorded"), (False, "rated alone")):
        for kind in KINDS:
            found = each(
                pool, _swept, [(kind, seed, sound) for seed in range(FRESH, FRESH + SWEEPS)]
            )
            said, came = mean(one.said for one in found), mean(one.came for one in found)
            figures = {"said": said, "came": came, "off": round(abs(said - came), 4),
                       "two": mean(one.two for one in found),
                       "flat": mean(one.flat for one in found)}  # fmt: skip
            rows.append(row("sweep", f"{names[kind]}, {how}", SWEEPS, figures))
    return rows


def by_ear(
    pool: ProcessPoolExecutor, subject: TriedSubject, worlds: Iterable[Any], do: Callable[..., Any]
) -> list[TriedRow]:
    rows = []
    for world in worlds:
        found = each(pool, do, [(world, seed) for seed in range(FRESH, FRESH + SOUNDS)])
        told = [one for one in found if one.off is not None]
        figures = {"said": len(told) / len(found)}
        if told:
            figures |= {
                "inside": mean(one.inside for one in told),
                "off": round(float(np.median([abs(one.off) for one in told])), 4),
                "half": round(float(np.median([one.half for one in told])), 4),
            }
        rows.append(row(subject, world.name, SOUNDS, figures))
    return rows


def of_speed(pool: ProcessPoolExecutor) -> list[TriedRow]:
    return by_ear(pool, "speed", SPEED_WORLDS, speed_heard)


def of_taps(pool: ProcessPoolExecutor) -> list[TriedRow]:
    return by_ear(pool, "tap", TAP_WORLDS, tap_heard)


def of_takes(pool: ProcessPoolExecutor) -> list[TriedRow]:
    rows = []
    for name, others in (("a quiet room", 0), ("a club, four others", 4)):
        found = each(pool, club_heard, [(seed, others) for seed in range(FRESH, FRESH + CLUBS)])
        taken = sum(one.others_taken for one in found)
        figures = {"right": mean(one.right for one in found),
                   "own": mean(one.own_found for one in found)}  # fmt: skip
        if taken:
            figures["flagged"] = round(sum(one.others_flagged for one in found) / taken, 4)
        rows.append(row("takes", name, CLUBS, figures))
    return rows


def of_recordings(pool: ProcessPoolExecutor) -> list[TriedRow]:
    rows = []
    for name, times in (("cut off four times over, resampled", 4.0),
                        ("cut off eight times over, resampled", 8.0)):  # fmt: skip
        found = each(
            pool, known_as_cut_off, [(seed, times) for seed in range(FRESH, FRESH + CLUBS)]
        )
        rows.append(row("recording", name, CLUBS, {"found": mean(found)}))
    sound = each(pool, known_as_cut_off, [(seed, 0.0) for seed in range(FRESH, FRESH + CLUBS)])
    rows.append(row("recording", "sound, resampled", CLUBS, {"called": mean(sound)}))
    return rows


def of_naming(pool: ProcessPoolExecutor) -> list[TriedRow]:
    words = {"none": "healthy bows", "rattle": "loose parts", "slack": "slack strands",
             "brace": "brace off"}  # fmt: skip
    found = blind_trials(pool, BOWS)
    rows = []
    for kind in FAULTS:
        named = [one.fault for told, one, _ in found if told == kind]
        right = mean(fault == (None if kind == "none" else kind) for fault in named)
        rows.append(row("naming", words[kind], BOWS, {"right": right}))
    told = each(pool, cannot_be_told, [(seed,) for seed in range(FRESH, FRESH + BOWS)])
    rows.append(row("naming", "a gain that rides", BOWS, {"cannot": mean(told)}))
    return rows


def row(subject: TriedSubject, world: str, times: int, figures: dict[str, float]) -> TriedRow:
    found = TriedRow(subject=subject, world=world, times=times, figures=figures)
    print(subject, world, figures, flush=True)
    return found


NAMES = {
    "early": "called too soon", "hours": "median, h strung", "called": "called at all",
    "said": "said", "came": "came true", "off": "off by", "two": "two spots said",
    "flat": "a floor said", "inside": "inside the said ±", "half": "said ±", "right": "all right",
    "own": "own takes found", "flagged": "others' flagged", "found": "known as cut off",
    "cannot": "cannot be told",
}  # fmt: skip
TITLES: dict[TriedSubject, str] = {
    "settling": "Settling: strings called settled with more than 1/16 in to come",
    "sweep": "Quiet brace: how often what was said came true",
    "speed": "Speed by ear: three shots a recording, third synthesiser",
    "tap": "Spine by tap: stiffness, two taps a shaft; the rest was asked about or refused",
    "takes": "Takes", "recording": "Cut off, then brought to another rate",
    "naming": "What a sound points to: second synthesiser, the last row the third",
}  # fmt: skip
HEADING = "## In other worlds"


def chapter(table: TriedTable) -> str:
    """Return the chapter of CALIBRATION that tells the table."""
    parts = [HEADING, "", ABOUT]
    for subject, title in TITLES.items():
        rows = table.of(subject)
        names = list(dict.fromkeys(name for one in rows for name in one.figures))
        parts += ["", f"**{title}.**", ""]
        parts.append("| world | times | " + " | ".join(NAMES[name] for name in names) + " |")
        parts.append("| --- " * (len(names) + 2) + "|")
        for one in rows:
            told = " | ".join(figure(name, one.figures.get(name)) for name in names)
            parts.append(f"| {one.world} | {one.times} | {told} |")
    return "\n".join(parts) + "\n\n"


def figure(name: str, value: float | None) -> str:
    if value is None:
        return ""
    if name == "hours":
        return f"{value:g}"
    return f"{100 * value:.1f} %" if value < 0.1 else f"{100 * value:.0f} %"


ABOUT = """Written by `make worlds`; the rules quote it, `make bench` holds it against its limits.
The first row of a subject is nearest to the engine's own world, the others are not. Worlds and
engines have one author, and no string, bow, shaft or shot was measured: this says how the engines
stand what they did not expect, not how real bows sound. Constants were chosen on other seeds of
the same worlds."""


def told_in(text: str, table: TriedTable) -> str:
    """Return CALIBRATION with its chapter as the table has it."""
    start = text.index(HEADING)
    end = text.index("\n## ", start + len(HEADING)) + 1
    return text[:start] + chapter(table) + text[end:]


def main() -> None:
    """Shoot them all, and write the table."""
    ways = (of_settling, of_sweep, of_speed, of_taps, of_takes, of_recordings, of_naming)
    rows: list[TriedRow] = []
    with ProcessPoolExecutor(2) as pool:
        for way in ways:
            rows += way(pool)
    table = TriedTable(rows=tuple(rows))
    OUT.write_text(table.model_dump_json(indent=1) + "\n", encoding="utf-8")
    BOOK.write_text(told_in(BOOK.read_text(encoding="utf-8"), table), encoding="utf-8")


if __name__ == "__main__":
    main()
