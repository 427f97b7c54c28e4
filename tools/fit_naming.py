"""Fit the scores that name a rattle and tell an arrow from a brace, to simulated recordings.

Writes `src/lyrandis/core/listen/naming.json`. How good they are is tested on another synthesiser
that shares nothing with it (tests/core/listen/test_blind.py, `make bench`).
"""

import json
import sys
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

import numpy as np

from lyrandis.core.listen import naming
from lyrandis.core.listen.hear import StringVoice, as_take, hear
from lyrandis.core.listen.naming import FITTED, differences
from lyrandis.core.listen.partials import ServedString, partials_hz
from lyrandis.core.listen.readings import SoundHeard
from lyrandis.instruments.microphone import Faults, PhonePlace, RecordingKind, Sounding, record

CASES = 300
SEED = 20_261_126
RIDGE, STEPS, RATE = 0.01, 1500, 0.3
CLASSES = ("none", "rattle", "slack", "brace", "arrow")
TERMS = {
    "rattle": ("p_line", "s_line", "p_excess", "p_unrep", "s_unrep", "p_d32", "p_spread"),
    "arrow_over_brace": ("x3", "x4", "s_bursts", "s_slap", "s_d32", "s_spread", "s_crest",
                         "s_level"),
    "arrow": ("x3", "x4", "s_bursts", "s_slap", "s_d32", "s_spread", "s_crest"),
}  # fmt: skip
GR = 6.479891e-5


def heard(kind: RecordingKind, rig: Sounding, seed: int, take_seed: int, faults: Faults,
          place: PhonePlace, takes: int) -> SoundHeard:  # fmt: skip
    """Return a simulated recording as the reading it would be."""
    made = record(
        kind, rig, seed=seed, take_seed=take_seed, takes=takes, faults=faults, place=place
    )
    notes = rig.notes_hz
    voice = StringVoice(tuple(one / notes[0] for one in notes), notes[0])
    found = hear(made.samples, made.rate, "pluck" if kind == "pluck" else "shot", voice)
    return SoundHeard(
        mark="0" * 16, name="fit", what="pluck" if kind == "pluck" else "shot",
        seconds=len(made.samples) / made.rate, rate_hz=made.rate,
        takes=tuple(as_take(one) for one in found.features),
        second=min(found.second.strength, 100.0), second_ratio=found.second.ratio,
        line_db=found.line_db,
    )  # fmt: skip


def case(number: int) -> tuple[str, dict[str, float]] | None:
    """Return one made-up bow before and after something went wrong with it."""
    world = np.random.default_rng([SEED, number])
    kind = CLASSES[number % len(CLASSES)]
    string = ServedString(world.uniform(1.2, 1.45), world.uniform(1.3, 1.56),
                          world.uniform(80, 130) * GR, world.uniform(12, 22) * GR, 0.18,
                          )  # fmt: skip
    notes = tuple(partials_hz(string, world.uniform(280, 460), 13).tolist())
    rig = Sounding(notes, left_j=world.uniform(10, 18), recurve=world.uniform(0, 1))
    place = PhonePlace(
        noise_db=world.uniform(12, 32), away_m=world.uniform(0.6, 3),
        room_share=world.uniform(0.05, 0.5),
        room_s=world.uniform(0.15, 0.6), high_pass_hz=world.uniform(40, 130),
        low_pass_hz=world.uniform(6000, 12000), tilt_db=world.uniform(-1.5, 1.5),
    )  # fmt: skip
    faults = Faults()
    if kind == "rattle":
        faults = Faults(rattle=world.uniform(0.12, 1.0))
    elif kind == "slack":
        faults = Faults(slack=world.uniform(0.2, 1.0))
    elif kind == "brace":
        faults = Faults(brace_in=world.choice([-1, 1]) * world.uniform(0.35, 0.8))
    elif kind == "arrow":
        light = world.uniform() < 0.5
        faults = (
            Faults(light=world.uniform(0.1, 0.4))
            if light
            else Faults(contact=world.uniform(0.3, 1.0))
        )
    seed, takes = int(world.integers(1 << 30)), int(world.integers(3, 6))
    pairs = []
    for what in ("pluck", "shot"):
        sides = [
            heard(what, rig, seed, seed + add, one, place, takes)  # type: ignore[arg-type]
            for add, one in ((1, Faults()), (2, faults))
        ]
        pairs.append((sides[0], sides[1]))
    return kind, differences(pairs[0], pairs[1])


def fit(
    rows: list[dict[str, float]], truth: list[bool], names: tuple[str, ...]
) -> dict[str, object]:
    """Return a ridge logistic regression by plain descent, on medians and spreads."""
    raw = np.array([[row[name] for name in names] for row in rows])
    centre = np.median(raw, axis=0)
    scale = np.maximum(raw.std(axis=0), 1e-3)
    x = np.clip((raw - centre) / scale, -3, 3)
    y = np.array(truth, dtype=float)
    # both classes weigh the same
    share = np.where(y > 0, 0.5 / y.mean(), 0.5 / (1 - y.mean()))
    weight, bias = np.zeros(len(names)), 0.0
    for _ in range(STEPS):
        off = share * (1 / (1 + np.exp(-(x @ weight + bias))) - y)
        weight -= RATE * (x.T @ off / len(y) + RIDGE * weight)
        bias -= RATE * float(off.mean())
    score = x @ weight + bias
    return {
        "bias": round(float(bias), 4),
        "terms": [
            {"name": name, "weight": round(float(w), 4), "centre": round(float(c), 4),
             "scale": round(float(s), 4)}
            for name, w, c, s in zip(names, weight, centre, scale, strict=True)
        ],
        "scores": (score, y),
    }  # fmt: skip


def threshold(score: np.ndarray, y: np.ndarray, false: float) -> float:
    """Return where the score leaves out all but a share of the others."""
    return round(float(np.quantile(score[y == 0], 1 - false)), 4)


def main() -> None:
    """Make the cases, fit, and write the file."""
    target = Path(sys.argv[1]) if len(sys.argv) > 1 else Path(naming.__file__).with_name(FITTED)
    with ProcessPoolExecutor() as pool:
        cases = [one for one in pool.map(case, range(CASES), chunksize=5) if one]
    # what was wrong and is mended sounds the other way round, and is no fault
    mended = [("mended", {name: -x for name, x in row.items()}) for kind, row in cases
              if kind != "none"]  # fmt: skip
    cases += mended
    rows, kinds = [row for _, row in cases], [kind for kind, _ in cases]
    found = {"rattle": fit(rows, [kind == "rattle" for kind in kinds], TERMS["rattle"])}
    shot = [i for i, kind in enumerate(kinds) if kind in ("brace", "arrow")]
    found["arrow_over_brace"] = fit(
        [rows[i] for i in shot], [kinds[i] == "arrow" for i in shot], TERMS["arrow_over_brace"]
    )
    found["arrow"] = fit(rows, [kind == "arrow" for kind in kinds], TERMS["arrow"])
    for name, one in found.items():
        score, y = one.pop("scores")  # type: ignore[misc]
        allowed = {"rattle": 0.01, "arrow": 0.01}.get(name)
        one["threshold"] = 0.0 if allowed is None else threshold(score, y, allowed)
        right = np.mean((score > one["threshold"]) == (y > 0))
        caught = np.mean(score[y > 0] > one["threshold"])
        print(f"{name}: threshold {one['threshold']}, right {right:.2f}, caught {caught:.2f}")
    told = {"cases": CASES, "mended": len(mended), "seed": SEED, "ridge": RIDGE, "scores": found}
    target.write_text(json.dumps(told, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
