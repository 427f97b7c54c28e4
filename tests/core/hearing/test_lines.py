"""The corpora: lines that archers type, dangerous ones, and all that was typed before.

`spoken_lines.jsonl` are 319 lines over all stages with what each records, or that it is asked;
`dangerous_lines.jsonl` must never be recorded as anything but what stands beside them;
`typed_before.jsonl` are lines that tests, demo and page typed when each word had a reader of its
own, with what they recorded then: a regression;
`newcomers_lines.jsonl` were worded after the table stood, and looked over one by one: what each
records, or that nothing is recorded.
"""

import json
from collections import Counter
from datetime import date
from pathlib import Path
from typing import Any

import pytest

from lyrandis.core.errors import DomainError
from lyrandis.core.jot import Jotted, Listener, parse
from lyrandis.core.reading import BaseReading

HERE = Path(__file__).parent
TODAY = date(2026, 11, 25)
PARTS = (
    ("arrow_set", "carbon-set-a", "Carbon, set A"),
    ("string", "spare-string", "Spare string"),
    ("bow", "marram", "Marram longbow"),
)


def lines_of(name: str) -> list[dict[str, Any]]:
    text = (HERE / name).read_text(encoding="utf-8")
    return [json.loads(line) for line in text.splitlines()]


SPOKEN = lines_of("spoken_lines.jsonl")
DANGEROUS = lines_of("dangerous_lines.jsonl")
BEFORE = lines_of("typed_before.jsonl")
NEWCOMERS = lines_of("newcomers_lines.jsonl")


def heard(line: dict[str, Any]) -> Jotted | DomainError:
    listener = Listener(None, line["units"], TODAY, (), line.get("brace_datum"))
    try:
        return parse(line["text"], to=listener)
    except DomainError as error:
        return error


def told(reading: BaseReading) -> tuple[str, dict[str, Any]]:
    """Kind and fields; every change is {what, by}, whichever kind records it."""
    fields = reading.model_dump(mode="json")
    kind = fields.pop("kind")
    change = reading.changes()
    return (
        (kind, fields)
        if change is None
        else ("changed", dict(zip(("what", "by"), change, strict=True)))
    )


def alike(found: Any, wanted: Any) -> bool:
    if isinstance(wanted, dict):
        return isinstance(found, dict) and all(alike(found.get(k), v) for k, v in wanted.items())
    if isinstance(wanted, list):
        return len(found) == len(wanted) and all(map(alike, found, wanted))
    if isinstance(wanted, int | float) and not isinstance(wanted, bool):
        return isinstance(found, int | float) and abs(found - wanted) <= 0.02 + 1e-3 * abs(wanted)
    return bool(found == wanted)


def is_meant(jotted: Jotted, line: dict[str, Any]) -> bool:
    kind, fields = told(jotted.reading)
    day = jotted.day.isoformat() if jotted.day else None
    return (
        kind == line["kind"]
        and alike(fields, line.get("values", {}))
        and line.get("source") in (None, jotted.source)
        and line.get("day") in (None, day)
    )


def offers(error: DomainError) -> bool:
    """Whether it asks: for a part that lacks, or between lines that are no note."""
    lines = [guess.text for guess in error.guesses if not guess.text.startswith("note ")]
    return bool(lines) or error.code == "missing_slot"


def verdict(line: dict[str, Any]) -> str:
    found = heard(line)
    if isinstance(found, Jotted):
        return "right" if is_meant(found, line) else "wrong"
    asked = offers(found)
    if line["kind"] == "note":
        return "right"
    if line["kind"] == "ask" or line.get("or") == "ask":
        return "right" if asked else "refused"
    return "asked" if asked else "refused"


def test_of_what_archers_type_97_in_100_is_right_and_nothing_is_recorded_as_something_else() -> (
    None
):
    found = [(line["stage"], verdict(line), line["text"]) for line in SPOKEN]
    assert len(found) == 319
    assert [text for _, how, text in found if how == "wrong"] == []
    missed = [text for _, how, text in found if how != "right"]
    assert len(missed) <= 0.03 * len(found), missed
    everything = Counter(stage for stage, _, _ in found)
    right = Counter(stage for stage, how, _ in found if how == "right")
    for stage, count in everything.items():
        assert right[stage] >= 0.9 * count, stage


@pytest.mark.parametrize("line", DANGEROUS, ids=lambda line: line["text"])
def test_what_could_hurt_is_never_recorded_as_something_else(line: dict[str, Any]) -> None:
    found = heard(line)
    if isinstance(found, Jotted):
        kind, fields = told(found.reading)
        right = [one for one in line["right"] if one["kind"] == kind]
        assert any(alike(fields, one["values"]) for one in right), found.reading


def test_what_was_typed_before_still_records_the_same() -> None:
    assert len(BEFORE) > 850
    otherwise = []
    for line in BEFORE:
        listener = Listener(None, line["units"], TODAY, PARTS, "pivot")
        jotted = parse(line["text"], to=listener)
        fields = jotted.reading.model_dump(mode="json", exclude_none=True)
        day = jotted.day.isoformat() if jotted.day else None
        same = (
            alike(fields, line["reading"])
            and jotted.subject == line["subject"]
            and jotted.source == line.get("source")
            and day == line.get("day")
        )
        if not same:
            otherwise.append((line["text"], fields))
    assert otherwise == []


@pytest.mark.parametrize(
    ("line", "offered"),
    [
        ("45@28", ["mark 45 at 28", "scale 45 at 28"]),
        ("brace 7 1/2", ["brace 7 1/2 grip", "brace 7 1/2 back", "brace 7 1/2 plunger"]),
        ("nock height 3/8", ["lift 3/8", "locator 3/8 over", "locator 3/8 under"]),
        ("nock 5", ["lift 5", "locator 5 over", "locator 5 under"]),
        ("draw 71", ["draw 71cm", "bow 71 in", "span 71 in"]),
        ("crawl 20 34mm", ["crawl 20m 34mm", "crawl 20yd 34mm"]),
        ("tail left at 3m", ["tail slightly left at 3m", "tail clearly left at 3m",
                             "tail strongly left at 3m"]),
        ("tiller 181mm 177mm", ["tiller 181mm 177mm fade", "tiller 181mm 177mm pocket"]),
        ("spine 63", ["spine 63lb"]),
        ("centre shot is 1 mm left of string", ["centreshot 1 mm out", "centreshot 1 mm in"]),
        ("lift -4mm", ["nock 4mm down", "lift 4mm under square"]),
        ("plate", ["window plate", "wear plate"]),
    ],
)  # fmt: skip
def test_what_lacks_is_asked_with_lines_that_answer_it(line: str, offered: list[str]) -> None:
    with pytest.raises(DomainError) as asked:
        parse(line, to=Listener())
    assert [guess.text for guess in asked.value.guesses] == offered


@pytest.mark.parametrize(
    ("line", "readings"),
    [
        ("draw 27 1/2, hold split", ["draw_marked", "hold_chosen"]),
        ("bow 62; riser 17; family recurve", ["bow_length", "riser_length", "bow_family"]),
        ("arrow 4 cracked and arrow 5 sound", ["numbered_arrow", "numbered_arrow"]),
    ],
)
def test_several_readings_in_one_line_are_offered_one_by_one(
    line: str, readings: list[str]
) -> None:
    with pytest.raises(DomainError) as asked:
        parse(line)
    assert asked.value.code == "two_readings"
    assert [parse(guess.text).reading.kind for guess in asked.value.guesses] == readings


@pytest.mark.parametrize(
    ("line", "value"),
    [
        ("draw 70,5", 705.0), ("draw 27 1/2", 698.5), ("draw 695mm", 695.0), ("draw 71cm", 710.0),
        ("draw 28in", 711.2), ("zuglänge 70,5 cm", 705.0), ("draw 1m 2", None),
    ],
)  # fmt: skip
def test_metric_lists_have_commas_and_fractions_stay_inches(line: str, value: float | None) -> None:
    found = heard({"text": line, "units": "metric"})
    length = getattr(found.reading, "draw_length_mm", None) if isinstance(found, Jotted) else None
    assert length == (None if value is None else pytest.approx(value))


@pytest.mark.parametrize(
    ("line", "field", "value"),
    [
        ("no slap", "heard", False),
        ("felt shows no mark", "mark", False),
        ("no taper", "tail_taper_mm", 0.0),
        ("hard plate, no plunger", "plunger", False),
        ("do not draw past 29", "draw_length_mm", 736.6),
        ("no lighter than 430 grains", "arrow_mass_gr", 430.0),
        ("string has not settled", "settled", False),
    ],
)
def test_what_is_denied_belongs_to_a_phrase_of_its_row(
    line: str, field: str, value: object
) -> None:
    found = getattr(parse(line).reading, field)
    assert found == (pytest.approx(value) if isinstance(value, float) else value)


@pytest.mark.parametrize(
    ("line", "source"),
    [
        ("brace 7 1/2 grip?", "estimated"),
        ("draw is roughly 28", "estimated"),
        ("crawl 20m about 2 fingers", None),  # “about” is how sure the crawl is
        ("draw 28", None),
    ],
)
def test_a_question_mark_or_a_hedge_makes_an_estimate(line: str, source: str | None) -> None:
    assert parse(line).source == source


@pytest.mark.parametrize(
    ("line", "kind", "value"),
    [
        ("gray handle is 17", "riser_length", None),  # a colour is nobody's word: it is asked
        ("nocking point locator 3/8 over", "nock_height", 9.525),
        ("nock set 3/8 high", "nock_height", 9.525),
        ("center shot 1mm out", "centre_shot", 1.0),
        ("aluminum arrows", "arrow_build", None),
        ("fiberglass shafts", "arrow_build", None),
    ],
)
def test_words_of_both_sides_of_the_ocean(line: str, kind: str, value: float | None) -> None:
    found = heard({"text": line, "units": "inch"})
    if isinstance(found, DomainError):
        offered = [parse(guess.text).reading.kind for guess in found.guesses]
        assert kind in offered
        return
    assert found.reading.kind == kind
    figures = [one.value for one in found.reading.say().figures.values()]
    assert value is None or figures[0] == pytest.approx(value)


@pytest.mark.parametrize("line", NEWCOMERS, ids=lambda line: line["text"])
def test_newcomers_words_record_what_they_mean_or_nothing(line: dict[str, Any]) -> None:
    found = heard(line)
    if line["kind"] == "none":
        assert isinstance(found, DomainError), found
        assert found.instruction
    else:
        assert isinstance(found, Jotted), found
        assert is_meant(found, line), found
