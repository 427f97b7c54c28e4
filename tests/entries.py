"""Making entries for tests: by hand, in a line, and by strategy."""

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from types import NoneType, SimpleNamespace, UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin

import hypothesis
from hypothesis import strategies as st
from pydantic import BaseModel

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import PartFitted, Retraction
from lyrandis.core.computed import compute
from lyrandis.core.crawls.readings import CrawlCounted
from lyrandis.core.jot import parse
from lyrandis.core.quantities import PLAUSIBLE, Plausible, Quantity
from lyrandis.core.reading import BaseReading, PartKind, Source, Subject, SubjectKind
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.core.stages import STAGES

NOW = datetime(2026, 3, 1, 12, 0, tzinfo=UTC)
IDS: dict[SubjectKind, str] = {
    "archer": "ann", "bow": "yew", "string": "cord", "arrow_set": "set-a", "rig": "rig-1",
}  # fmt: skip


def draft(
    said: str | BaseReading,
    *,
    on: SubjectKind | None = None,
    subject: str | None = None,
    days: float = 0,
    **more: Any,
) -> e.EntryDraft:
    """A draft from a jot line or a reading, `days` after the start."""
    kind: Any = on
    source = more.pop("source", None)
    if isinstance(said, str):
        jotted = parse(said)
        reading: Any = jotted.reading
        kind, source = on or jotted.subject, source or jotted.source
    else:
        reading = said
        kind = on or sorted(said.of)[0]
    return e.PostedEntry(
        subject=Subject(kind=kind, id=subject or IDS[kind]),
        reading=reading,
        source=source,
        happened_at=NOW + timedelta(days=days),
        **more,
    )


def fitting(**parts: str | None) -> list[e.EntryDraft]:
    """Drafts that put parts on the rig (all the usual ones by default)."""
    wanted = parts or {kind: IDS[kind] for kind in get_args(PartKind)}  # type: ignore[misc]
    return [
        draft(PartFitted(part=part, part_id=part_id), on="rig")  # type: ignore[arg-type]
        for part, part_id in wanted.items()
    ]


def entries(*said: str | BaseReading | e.EntryDraft, fitted: bool = True) -> list[e.Entry]:
    """Entries of one rig from jot lines, readings or drafts, a day apart."""
    drafts = fitting() if fitted else []
    for day, one in enumerate(said, start=1):
        drafts.append(one if isinstance(one, e.EntryDraft) else draft(one, days=day))
    return as_entries(drafts, now=NOW)


def drawn(*said: str | BaseReading | e.EntryDraft) -> SimpleNamespace:
    """All that the pages of all stages draw, of one rig."""
    c = compute(fold(entries(*said)))
    return SimpleNamespace(**{k: v for spec in STAGES for k, v in dict(spec.page(c)).items()})


_OF_EACH: dict[type, st.SearchStrategy[Any]] = {
    Retraction: st.integers(1, 16).map(lambda n: Retraction(entry_id=f"posted-{n}")),
    CrawlCounted: st.builds(
        CrawlCounted,
        mark=st.integers(1, 30).map(lambda n: f"entry-{n:08}"),
        counted=st.booleans(),
    ),
    PartFitted: st.sampled_from(sorted(get_args(PartKind))).flatmap(
        lambda part: st.sampled_from([IDS[part], f"{IDS[part]}-2", None]).map(
            lambda part_id: PartFitted(part=part, part_id=part_id)
        )
    ),
}
"""Kinds that speak of what is there: an entry, a part."""
_ONE_OF = ({"crawl_mm", "fingers", "stitches"}, {"grains_per_pound", "arrow_mass_gr"},
           {"across", "across_mm"}, {"high_mm", "struck"})  # fmt: skip
"""Fields of which a reading gives one at the most."""
_TOGETHER = ({"upper_lbf", "lower_lbf"}, {"upper_length_mm", "lower_length_mm"})
"""Fields that are given together or not at all."""


def reading_of(kind: type[BaseReading]) -> st.SearchStrategy[Any]:
    """Any reading of a kind, within the limits its own fields tell."""
    return _OF_EACH[kind] if kind in _OF_EACH else _model(kind)


def _model(kind: type[BaseModel]) -> st.SearchStrategy[Any]:
    """Any value of a model that its own checks let through."""
    fields = {name: field for name, field in kind.model_fields.items() if name != "kind"}
    given = {name: _value(field.annotation, field.metadata) for name, field in fields.items()}
    optional = {name for name, field in fields.items() if not field.is_required()}

    @st.composite
    def made(draw: st.DrawFn) -> Any:
        chosen = draw(st.sets(st.sampled_from(sorted(optional)))) if optional else set()
        for rivals in _ONE_OF:
            there = sorted(rivals & fields.keys())
            if len(there) > 1:
                one = draw(st.sampled_from(there))
                chosen = chosen - rivals | ({one} & optional)
        for both in _TOGETHER:
            if both & chosen:
                chosen |= both & optional
        told = {n: draw(given[n]) for n in fields if n not in optional or n in chosen}
        try:
            return kind.model_validate(told)
        except ValueError:
            hypothesis.reject()

    return made()


def _value(annotation: Any, metadata: Sequence[Any]) -> st.SearchStrategy[Any]:
    """Any value of a field: within its quantity's limits, of its choices, as many as it takes."""
    key = next((one.key for one in metadata if isinstance(one, Quantity)), None)
    if key is not None:
        return _number(PLAUSIBLE[key], annotation)
    origin, inner = get_origin(annotation), get_args(annotation)
    if origin is Annotated:
        return _value(inner[0], [*inner[1:], *metadata])
    if origin in (Union, UnionType):
        return st.one_of([_value(one, ()) for one in inner])
    if origin is Literal:
        return st.sampled_from(sorted(inner))
    if origin is tuple:
        least = next((one.min_length for one in metadata if hasattr(one, "min_length")), 0)
        most = min(next((one.max_length for one in metadata if hasattr(one, "max_length")), 6), 25)
        each = _value(inner[0], ())
        short = least + 2 if most > least else most
        return st.lists(each, min_size=least, max_size=short, unique=_plain(inner[0])).map(tuple)
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return _model(annotation)
    for kind, values in _PLAIN.items():
        if annotation is kind:
            return values if kind is not str else _text(metadata)
    raise TypeError(f"no strategy for {annotation}")


_PLAIN: dict[Any, st.SearchStrategy[Any]] = {
    bool: st.booleans(), NoneType: st.none(), float: st.floats(-60, 60), int: st.integers(30, 350),
    str: st.just("x"),
}  # fmt: skip


def _plain(annotation: Any) -> bool:
    return get_origin(annotation) is Literal


def _number(meant: Plausible, annotation: Any) -> st.SearchStrategy[Any]:
    high = min(meant.high, 1e4)
    if annotation is int:
        return st.integers(int(meant.low), int(min(high, 400)))
    return st.floats(meant.low, high, exclude_min=meant.above, allow_subnormal=False)


def _text(metadata: Sequence[Any]) -> st.SearchStrategy[str]:
    """A short word, or what the field's pattern asks for."""
    patterns = [one.pattern for one in metadata if getattr(one, "pattern", None)]
    if patterns:
        return st.from_regex(patterns[0], fullmatch=True)
    return st.just("x")


_ANY_READING = st.one_of([reading_of(kind) for kind in e.READINGS])


@st.composite
def any_draft(draw: st.DrawFn) -> e.EntryDraft:
    """Any valid entry, on any of the subjects it can be recorded on."""
    reading = draw(_ANY_READING)
    kind = draw(st.sampled_from(sorted(reading.of)))
    suffix = draw(st.sampled_from(["", "", "", "-2"])) if kind != "rig" else ""
    return e.PostedEntry(
        subject=Subject(kind=kind, id=IDS[kind] + suffix),
        reading=reading,  # type: ignore[arg-type]
        source=draw(st.none() | st.sampled_from(sorted(get_args(Source)))),
        happened_at=NOW + timedelta(hours=draw(st.integers(0, 200))),
    )


def any_entries() -> st.SearchStrategy[list[e.Entry]]:
    """Any list of valid entries, with parts fitted now and then."""
    return st.lists(any_draft(), max_size=16).map(lambda drafts: as_entries(drafts, now=NOW))
