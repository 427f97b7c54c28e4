"""What cannot be is refused in words of ours: every field of every kind, beyond every limit."""

from collections.abc import Sequence
from types import UnionType
from typing import Annotated, Any, Union, get_args, get_origin

import hypothesis
import pytest
from pydantic import BaseModel, TypeAdapter, ValidationError

from lyrandis.api.problems import problem_of_validation
from lyrandis.core import entries as e
from lyrandis.core.quantities import PLAUSIBLE, Quantity
from lyrandis.core.reading import BaseReading
from tests.entries import IDS, reading_of

DRAFTS = TypeAdapter(list[e.EntryDraft])
WRONG: tuple[Any, ...] = (
    1e12, -1e12, 1e308, 0.123, "wide", "x" * 5000, "", True, None, [], [[]] * 400, {},
    {"kind": "bow"}, "\x00", "2026-13-40",
)  # fmt: skip
_LIBRARY = ("Input should", "validation", "pydantic", "Value error", "Field required", "input_")


def placed(value: Any, path: tuple[Any, ...], wrong: Any) -> Any:
    """The same with something wrong at one place."""
    if not path:
        return wrong
    first, *rest = path
    if isinstance(value, dict):
        return {**value, first: placed(value.get(first), tuple(rest), wrong)}
    changed = list(value)
    changed[first] = placed(changed[first], tuple(rest), wrong)
    return changed


def places(value: Any) -> list[tuple[Any, ...]]:
    """Every place inside a reading."""
    found: list[tuple[Any, ...]] = []
    if isinstance(value, dict):
        for name, inner in value.items():
            found += [(name,), *((name, *more) for more in places(inner))]
    elif isinstance(value, list) and value:
        found += [(0,), *((0, *more) for more in places(value[0]))]
    return found


def refused(reading: Any, kind: type[BaseReading]) -> str | None:
    """The words a person would read; None where it is taken."""
    of = sorted(kind.of)[0]
    body = [{"subject": {"kind": of, "id": IDS[of]}, "reading": reading}]
    try:
        DRAFTS.validate_python(body)
    except ValidationError as error:
        problem = problem_of_validation(error.errors())
        assert problem.instruction
        return f"{problem.reason} {problem.instruction}"
    return None


@pytest.mark.parametrize("kind", e.READINGS, ids=lambda kind: kind.__name__)
def test_no_text_of_the_validation_library_reaches_a_person(kind: type[BaseReading]) -> None:
    samples: list[Any] = []

    @hypothesis.settings(max_examples=6)
    @hypothesis.given(reading_of(kind))
    def take(reading: BaseReading) -> None:
        samples.append(reading.model_dump(mode="json"))

    take()
    tried = {place: sample for sample in samples for place in places(sample)}
    for place, sample in tried.items():
        for wrong in WRONG:
            said = refused(placed(sample, place, wrong), kind)
            assert said is None or not any(word in said for word in _LIBRARY), (place, wrong, said)
    said = refused({**samples[0], "never_heard_of": 1}, kind)
    assert said == "This is not known here. Leave it out."


def quantity_in(annotation: Any, metadata: Sequence[Any]) -> str | None:
    """Which quantity a field is, wherever its type says so."""
    for one in metadata:
        if isinstance(one, Quantity):
            return one.key
    inner = get_args(annotation)
    if get_origin(annotation) is Annotated:
        return quantity_in(inner[0], inner[1:])
    if get_origin(annotation) in (Union, UnionType):
        return next(filter(None, (quantity_in(one, ()) for one in inner)), None)
    return None


def quantities_of(model: type[BaseModel]) -> list[tuple[str, str]]:
    """Every field of a model that is a quantity, and which."""
    fields = model.model_fields.items()
    keys = {name: quantity_in(field.annotation, field.metadata) for name, field in fields}
    return [(name, key) for name, key in keys.items() if key is not None]


def test_the_api_document_tells_the_range_of_every_quantity() -> None:
    for kind in e.READINGS:
        schema = kind.model_json_schema()
        for name, key in quantities_of(kind):
            told = schema["properties"][name]
            told = next((one for one in told.get("anyOf", []) if "maximum" in one), told)
            assert told["maximum"] == pytest.approx(PLAUSIBLE[key].high)
            assert told.get("minimum", told.get("exclusiveMinimum")) == pytest.approx(
                PLAUSIBLE[key].low
            )
            assert PLAUSIBLE[key].name in told["description"]


@pytest.mark.parametrize(
    ("kind", "name", "key"),
    [(kind, name, key) for kind in e.READINGS for name, key in quantities_of(kind)],
    ids=lambda told: getattr(told, "__name__", told),
)
def test_a_quantity_out_of_its_range_says_the_range(
    kind: type[BaseReading], name: str, key: str
) -> None:
    samples: list[Any] = []

    @hypothesis.settings(max_examples=1)
    @hypothesis.given(reading_of(kind))
    def take(reading: BaseReading) -> None:
        samples.append(reading.model_dump(mode="json"))

    take()
    meant = PLAUSIBLE[key]
    whole = kind.model_fields[name].annotation is int
    step = 1 if whole else max(1.0, 0.01 * abs(meant.high))
    for beyond in (meant.high + step, meant.low - step):
        said = refused({**samples[0], name: int(beyond) if whole else beyond}, kind)
        assert said is not None, beyond
        assert "ive " in said or PLAUSIBLE[key].instead.split("{")[0] in said, said


def test_every_field_with_a_unit_in_its_name_is_a_quantity() -> None:
    units = ("_mm", "_gr", "_lbf", "_mps", "_m", "_deg", "_per_in", "_per_pound", "_hz")
    bare = [
        f"{kind.__name__}.{name}"
        for kind in e.READINGS
        for name, field in kind.model_fields.items()
        if name.endswith(units) and quantity_in(field.annotation, field.metadata) is None
    ]
    assert bare == []
