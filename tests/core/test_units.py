"""Units against their legal definitions, and the way figures are said."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core import constants
from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.readings import BowLength
from lyrandis.core.bow.words import Family
from lyrandis.core.errors import DomainError, in_words
from lyrandis.core.jot import Listener, parse
from lyrandis.core.quantities import PLAUSIBLE, check
from lyrandis.core.units import (
    FORCE_UNITS_LBF,
    LENGTH_UNITS_MM,
    MASS_UNITS_GR,
    SPEED_UNITS_MPS,
    UnitSet,
    in_from_mm,
    mm_from_in,
    say,
    sixteenths,
)


def test_constants_are_the_legal_definitions() -> None:
    assert constants.MM_PER_IN == 25.4
    assert pytest.approx(15.43235835) == constants.GRAINS_PER_GRAM
    assert pytest.approx(0.45359237 * 9.80665) == constants.NEWTONS_PER_LBF
    assert pytest.approx(44.45) == constants.TRADE_OFFSET_MM


@pytest.mark.parametrize(
    ("table", "unit", "factor"),
    [
        (LENGTH_UNITS_MM, "ft", 304.8),
        (LENGTH_UNITS_MM, "cm", 10.0),
        (FORCE_UNITS_LBF, "n", 0.22480894),
        (FORCE_UNITS_LBF, "kg", 2.2046226),
        (MASS_UNITS_GR, "oz", 437.5),
        (MASS_UNITS_GR, "g", 15.4323584),
        (SPEED_UNITS_MPS, "fps", 0.3048),
        (SPEED_UNITS_MPS, "km/h", 1 / 3.6),
    ],
)
def test_unit_tables_hold_known_factors(table: dict[str, float], unit: str, factor: float) -> None:
    assert table[unit] == pytest.approx(factor, rel=1e-7)


@given(st.integers(-16 * 90, 16 * 90))
def test_sixteenths_of_an_inch_survive_storing(count: int) -> None:
    assert round(in_from_mm(mm_from_in(count / 16)) * 16) == count


@pytest.mark.parametrize(
    ("length_mm", "said"),
    [
        (0.0, "0"),
        (1.5875, "1/16"),
        (12.7, "1/2"),
        (695.325, "27 3/8"),
        (711.2, "28"),
        (711.19, "28"),
        (-14.2875, "-9/16"),
        (25.3, "1"),
        (-0.5, "0"),
        (25.4 * 5 / 32, "3/16"),
        (25.4 * 7 / 32, "1/4"),
    ],
)
def test_sixteenths_reads_like_a_bench_rule(length_mm: float, said: str) -> None:
    assert sixteenths(length_mm) == said


@pytest.mark.parametrize(
    ("value", "unit", "plus_minus", "units", "said"),
    [
        (695.325, "mm", None, "inch", "27 3/8 in"),
        (695.325, "mm", 0.2, "inch", "27 3/8 ± 1/16 in"),
        (695.325, "mm", 3.0, "metric", "69.5 ± 0.3 cm"),
        (14.2, "mm", None, "centimetre", "14 mm"),
        (42.64, "lbf", 1.1, "inch", "42.6 ± 1.1 lb"),
        (42.64, "lbf", 1.1, "centimetre", "42.6 ± 1.1 lb"),
        (42.64, "lbf", None, "metric", "190 N (42.6 lb)"),
        (7.9, "lbf", None, "metric", "35 N"),
        (0.5, "/in", None, "inch", "0.50 to the inch"),
        (0.5, "/in", None, "metric", "0.20 to the cm"),
        (468.2, "gr", None, "inch", "468 gr"),
        (468.2, "gr", None, "metric", "30.3 g"),
        (558.5, "gr", None, "inch", "559 gr"),
        (557.5, "gr", 0.5, "inch", "558 ± 1 gr"),
        (10.98, "gr/lbf", 0.01, "metric", "11.0 ± 0.1 gr/lb"),
        (51.2, "m/s", 1.0, "inch", "168 ± 3 fps"),
        (51.2, "m/s", 1.0, "metric", "51.2 ± 1.0 m/s"),
        (48.25, "J", None, "metric", "48.3 J"),
        (127.4, "deg", None, "inch", "127°"),
        (10.4, "%", None, "inch", "10 %"),
        (2.2, "lbf/in", None, "metric", "3.9 N/cm"),
        (9.7, "gr/in", None, "metric", "0.25 g/cm"),
        (3, "count", None, "inch", "3"),
    ],
)
def test_say_uses_the_archers_units(value, unit, plus_minus, units, said) -> None:  # type: ignore[no-untyped-def]
    assert say(value, unit, plus_minus, units=units) == said


# limits, and refusals in the reader's units


@pytest.mark.parametrize("key", PLAUSIBLE)
def test_every_limit_is_inclusive_however_it_was_rounded(key: str) -> None:
    meant = PLAUSIBLE[key]
    low = meant.low + 1e-3 * (meant.high - meant.low) if meant.above else meant.low
    if meant.above:
        with pytest.raises(DomainError):
            check(key, meant.low)
    for limit in (low, meant.high):
        for places in (4, 6, 9):
            check(key, round(limit, places) if places > 4 or meant.unit != "mm" else limit)
    step = max(abs(meant.high), 1.0) * 1e-3
    for beyond in (meant.low - step, meant.high + step):
        with pytest.raises(DomainError):
            check(key, beyond)


@pytest.mark.parametrize("family", FAMILIES)
def test_a_bow_at_either_end_of_its_familys_lengths_is_inside(family: Family) -> None:
    low, high = FAMILIES[family].lengths_in
    for inches in (low, high):
        read = parse(f"bow {inches:g}").reading
        assert isinstance(read, BowLength)
        assert FAMILIES[family].has_length(read.bow_length_mm)
    assert not FAMILIES[family].has_length((high + 0.1) * 25.4)
    assert not FAMILIES[family].has_length((low - 0.1) * 25.4)


_INCHES = re.compile(r"\bin(?:ch(?:es)?)?\b", re.IGNORECASE)


@pytest.mark.parametrize("key", PLAUSIBLE)
def test_a_metric_reader_sees_no_inches_in_a_refusal(key: str) -> None:
    meant = PLAUSIBLE[key]
    for beyond in (meant.high * 1.5, meant.low - 0.5 * abs(meant.low) - 1.0):
        with pytest.raises(DomainError) as caught:
            check(key, beyond)
        said = [*caught.value.says, *(guess.says for guess in caught.value.guesses)]
        words = " ".join(in_words(one, "metric") for one in said)
        if meant.unit != "gr/in":  # said so by every maker
            assert not _INCHES.search(words), words


@pytest.mark.parametrize(
    ("text", "units", "meant"),
    [
        ("brace 19", "metric", "brace 19cm"),
        ("brace 19", "centimetre", "brace 19cm"),
        ("brace 7 1/2", "metric", "brace 7 1/2 in"),
        ("draw 27 ½", "centimetre", "draw 27 1/2 in"),
        ("scale 160 @ 70", "metric", "scale 160N @ 70cm"),
        ("scale 36 @ 70", "centimetre", "scale 36lb @ 70cm"),
        ("arrow 4 27.9", "metric", "arrow 4 27.9g"),
        ("arrow 4 431", "centimetre", "arrow 4 431gr"),
        ("speed 51", "metric", "speed 51 m/s"),
        ("window 3", "metric", "window 3mm"),
        ("window 1/8", "metric", "window 1/8in"),
        ("my draw is 70", "metric", "draw 70cm"),
    ],
)
def test_a_bare_number_is_in_the_unit_the_reader_reads(
    text: str, units: UnitSet, meant: str
) -> None:
    assert (
        parse(text, to=Listener(units=units, brace_datum="pivot")).reading == parse(meant).reading
    )
