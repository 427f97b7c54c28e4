"""Let the simulated microphone record the demo's rig, and write down what is heard.

Writes the two recordings that ship (src/lyrandis/demo/*.wav) and the readings made of all
(src/lyrandis/demo/heard.json). Run it anew when what is heard of a sound changes.
"""

import hashlib
import json
from pathlib import Path

import numpy as np

from lyrandis import demo
from lyrandis.api.routers.sounds import SHAFT_SPREAD
from lyrandis.core.computed import Computed, compute
from lyrandis.core.listen.brought import Sounded, hearing, tap_hearing
from lyrandis.core.listen.shafts import ringing_as_tapped
from lyrandis.core.listen.sound import at_working_rate
from lyrandis.core.listen.words import What
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.demo.scenario import HEARD, START, WITHOUT_SOUND, drafts
from lyrandis.instruments.microphone import Faults, PhonePlace, record
from lyrandis.instruments.sounding import sounding_of
from lyrandis.sounds.reading import read_channel, wav_of

RIG = "tideway-recurve"
HERE = Path(demo.__file__).parent
SEED, RATE = 41, 16_000
MASSES_GR = (353.0, 352.0, 351.0, 352.4, 350.6, 353.8, 351.4, 352.2)


def wav(samples: np.ndarray, rate: int) -> bytes:
    """Return a recording at 16 kHz: the shipped files stay small."""
    low = at_working_rate(samples, float(rate))
    return wav_of(low.samples, round(low.rate))


def heard(c: Computed, what: What, take_seed: int, name: str, brace_in: float,
          *, same_place: bool, kept: bool) -> dict[str, object]:  # fmt: skip
    """Return what is heard of some takes; those that are kept are written beside the scenario."""
    made = record(what, sounding_of(c), seed=SEED, take_seed=take_seed,
                  takes=5 if what == "pluck" else 4, faults=Faults(brace_in=brace_in),
                  place=PhonePlace(noise_db=32))  # fmt: skip
    data = wav(made.samples, made.rate)
    if kept:
        (HERE / name).write_bytes(data)
    mark = hashlib.sha256(data).hexdigest()[:16]
    read = read_channel(data)
    found = hearing(read.samples, float(read.head.rate_hz), what, c.listen.braced.voice,
                    Sounded(mark, name, False), same_place=same_place).draft  # fmt: skip
    assert found is not None
    return found.model_dump(mode="json", exclude_defaults=True) | {"kind": found.kind}


def tapped(c: Computed) -> list[dict[str, object]]:
    """Return what is heard of the finished arrows, tapped one after another, twice each."""
    notes = ringing_as_tapped(c.arrow.sheet, "finished", None)
    shafts = [off for off in SHAFT_SPREAD[: len(MASSES_GR)] for _ in range(2)]
    made = record("taps", sounding_of(c, shafts=shafts, state="finished"), seed=SEED, take_seed=7,
                  place=PhonePlace(noise_db=34))  # fmt: skip
    mark = hashlib.sha256(made.samples.tobytes()).hexdigest()[:16]
    again = list(range(2, len(shafts) + 1, 2))
    found = tap_hearing(made.samples, float(made.rate), notes, Sounded(mark, "taps.wav", False),
                        state="finished", again=again, quarter=again)  # fmt: skip
    return [
        one.model_dump(mode="json", exclude_defaults=True)
        | {"kind": one.kind, "mass_gr": MASSES_GR[one.arrow_number - 1]}
        for one in found.drafts
    ]


def main() -> None:
    """Record, listen, and write."""
    entries = as_entries(drafts(sounds=WITHOUT_SOUND), now=START.replace(year=START.year + 1))
    before = compute(fold([one for one in entries if (one.happened_at - START).days < 14], rig=RIG))
    after = compute(fold(entries, rig=RIG))
    told = {
        "pluck": heard(before, "pluck", 3, "pluck.wav", 0.0, same_place=False, kept=False),
        "before": heard(before, "shot", 4, "tideway-before.wav", -0.52, same_place=True, kept=True),
        "pluck_after": heard(after, "pluck", 6, "pluck.wav", 0.0, same_place=True, kept=False),
        "after": heard(after, "shot", 5, "tideway-after.wav", 0.0, same_place=True, kept=True),
        "taps": tapped(after),
    }
    (HERE / HEARD).write_text(json.dumps(told, indent=1) + "\n", encoding="utf-8")
    for name in ("pluck", "before", "pluck_after", "after"):
        print(name, told[name].get("troubles"), [t["level_db"] for t in told[name]["takes"]])
    print("taps", [(t["arrow_number"], len(t["taps"])) for t in told["taps"]])


if __name__ == "__main__":
    main()
