"""Write the core's choices and units for the page: web/src/lib/{choices,units}.gen.ts.

With a folder as argument they are written there instead, to be compared.
"""

import json
import re
import sys
from pathlib import Path
from types import ModuleType
from typing import get_args

from lyrandis.core import constants, units
from lyrandis.core.archer import words as archer
from lyrandis.core.arrow import words as arrow
from lyrandis.core.bow import words as bow
from lyrandis.core.crawls import words as crawls
from lyrandis.core.flight import words as flight
from lyrandis.core.listen import words as listen
from lyrandis.core.nock import words as nock
from lyrandis.core.order import words as order
from lyrandis.core.string import words as string

HERE = Path(__file__).resolve().parents[1] / "web" / "src" / "lib"
HEAD = "/** Written by `make types` from the core. Do not edit. */\n"
CONSTANTS = {
    "MM_PER_IN": constants.MM_PER_IN,
    "M_PER_FT": constants.M_PER_FT,
    "M_PER_YD": constants.M_PER_YD,
    "NEWTONS_PER_LBF": constants.NEWTONS_PER_LBF,
    "GRAINS_PER_GRAM": constants.GRAINS_PER_GRAM,
    "SPINE_THOUSANDTHS": units.SPINE_THOUSANDTHS,
    "SMALL_LENGTH_MM": units.SMALL_LENGTH_MM,
    "LEAST_BOW_LBF": units.LEAST_BOW_LBF,
}


def choices() -> str:
    """Return every table of words whose values are plain, in the order they are offered."""
    parts = [HEAD]
    for words in (archer, bow, string, arrow, nock, flight, crawls, order, listen):
        parts += [_choices(words, name) for name in vars(words) if name.endswith("_WORDS")]
    return "".join(part for part in parts if part)


def _choices(words: ModuleType, name: str) -> str:
    table = getattr(words, name)
    if not all(isinstance(value, str) for value in table.values()):
        return ""
    rows = "".join(f"  [{_quoted(key)}, {_quoted(value)}],\n" for key, value in table.items())
    return f"export const {name} = [\n{rows}] as const;\n"


def scales() -> str:
    """Return factor, decimals and label of every unit in every set of units."""
    parts = [HEAD]
    parts += [f"export const {name} = {value!r};\n" for name, value in CONSTANTS.items()]
    parts.append("/** Metres of each word a distance that is shot may be said in. */\n")
    words = ", ".join(f"{word}: {metres!r}" for word, metres in units.DISTANCE_UNITS_M.items())
    parts.append(f"export const DISTANCE_UNITS_M = {{ {words} }} as const;\n")
    parts.append("/** Factor from the stored unit, decimals, and label, by set of units. */\n")
    parts.append("export const SCALES = {\n")
    for unit in get_args(units.Unit):
        sets = ", ".join(
            f"{chosen}: [{factor!r}, {places}, {_quoted(label)}]"
            for chosen in get_args(units.UnitSet)
            for factor, places, label in (units.scale_of(unit, chosen),)
        )
        parts.append(f"  {_key(unit)}: {{ {sets} }},\n")
    return "".join([*parts, "} as const;\n"])


def _key(name: str) -> str:
    return name if re.fullmatch(r"[a-zA-Z_]\w*", name) else _quoted(name)


def _quoted(text: str) -> str:
    return "'" + json.dumps(text, ensure_ascii=False)[1:-1].replace("'", "\\'") + "'"


def main() -> None:
    """Write both files."""
    folder = Path(sys.argv[1]) if len(sys.argv) > 1 else HERE
    (folder / "choices.gen.ts").write_text(choices(), encoding="utf-8")
    (folder / "units.gen.ts").write_text(scales(), encoding="utf-8")


if __name__ == "__main__":
    main()
