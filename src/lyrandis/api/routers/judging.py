"""Judging without storing, reading the jot line, and the rulebook."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import UTC, date, datetime
from functools import cache
from typing import Annotated

from fastapi import Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.bounded import api_router
from lyrandis.api.context import BenchOf, OwnWordsOf, RigsOf, as_json
from lyrandis.api.long_work import LONG, LongWorkOf
from lyrandis.api.problems import NOT_FOUND, HeardPart, heard_parts
from lyrandis.api.rig_cache import Judged, assessment_json
from lyrandis.core import entries as e
from lyrandis.core.arrow.questioned import question_mass
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.bow.questioned import question_weight
from lyrandis.core.computed import compute
from lyrandis.core.flight.facts import with_trial
from lyrandis.core.glossary import GLOSSARY, GlossaryTerm
from lyrandis.core.hearing.forms import line_from_form
from lyrandis.core.hearing.taught import with_taught
from lyrandis.core.jot import TABLE, Listener, names_parts, parse, parse_as, row_of
from lyrandis.core.phrase import Phrase, as_written, plain
from lyrandis.core.reading import NEW_PART, Source, StageKey, Subject, SubjectId, SubjectKind
from lyrandis.core.record import as_entries, check_instant
from lyrandis.core.setup import Setup, fold
from lyrandis.core.stages import RULEBOOK
from lyrandis.core.terms import TERMS, Term
from lyrandis.core.units import UnitSet
from lyrandis.store.bench import Bench

router = api_router("judging")


class WhatIf(BaseModel):
    """Entries to judge; with a rig, they are laid over what is recorded of it."""

    model_config = ConfigDict(extra="forbid")

    entries: Annotated[list[e.PostedEntry], Field(max_length=5000)]
    rig: SubjectId | None = None
    page: StageKey | None = None


class JotLine(BaseModel):
    """A line to read, and where it was typed."""

    model_config = ConfigDict(extra="forbid")

    text: Annotated[str, Field(max_length=400)]
    row: Annotated[str, Field(max_length=200)] | None = None
    """The word whose form was filled in, by its key, instead of a text."""
    fields: Annotated[dict[str, Annotated[str, Field(max_length=200)]], Field(max_length=20)] = (
        Field(default_factory=dict)
    )
    """What was filled in, by the fields' names."""
    rig: SubjectId | None = None
    stage: StageKey | None = None
    units: UnitSet = "inch"
    """The reader's: they say what a number without a unit is."""
    weight_lbf: Annotated[float, Field(gt=0, le=500)] | None = None
    """What the arrow is shot from, where there is no rig yet that knows."""
    today: date | None = None
    """The reader's day: with it, days that are said are understood."""


class ParsedJot(BaseModel):
    """What the line would record, and how it reads."""

    word: str
    line: str
    """The line as it is typed; of a form, the line it makes."""
    says: Phrase
    sum: Phrase | None = None
    """Of a change, what it makes of the whole where that is known: 20 + 4 = 24."""
    subject_kind: SubjectKind
    subject_name: str | None
    draft: e.EntryDraft | None
    """Ready to record when the rig has such a part."""
    reading: e.Reading
    source: Source
    day: date | None = None
    """The day it is said to have happened."""
    heard: tuple[HeardPart, ...] = ()
    """What each part of the line was taken for, where it was said in its own order."""


@router.post("/assessments", response_model=Judged, responses=LONG)
async def judge_entries(bench: BenchOf, work: LongWorkOf, what_if: WhatIf) -> Response:
    """Judge a list of entries without storing anything."""
    newest = await run_in_threadpool(bench.newest)
    key = ("what-if", newest, what_if.model_dump_json())
    return await work.take(key, lambda _: _judged(bench, what_if))


def _judged(bench: Bench, what_if: WhatIf) -> bytes:
    now = datetime.now(UTC)
    for draft in what_if.entries:
        if draft.happened_at is not None:
            check_instant(draft.happened_at, now)
    stored = bench.entries_of_rig(what_if.rig) if what_if.rig else []
    after = max((entry.seq for entry in stored), default=0)
    tried = as_entries(what_if.entries, now=now, after=after)
    computed = compute(fold([*stored, *tried], rig=what_if.rig))
    return assessment_json(computed, what_if.page)


@router.post("/readings/parse", response_model=ParsedJot, responses=NOT_FOUND)
def parse_reading(bench: BenchOf, rigs: RigsOf, own: OwnWordsOf, line: JotLine) -> Response:
    """Read a jot line without recording it."""
    row = None if line.row is None else row_of(line.row)
    text = line.text if row is None else line_from_form(row, line.fields)
    subjects = bench.subjects() if names_parts(text) else ()
    parts = [(one.kind, one.id, one.name) for one in subjects if one.kind != "rig"]
    computed = rigs.computed(line.rig) if line.rig is not None else None
    datum = computed.setup.order.brace_datum if computed else None
    table = with_taught(TABLE, own.taught())
    listener = Listener(line.stage, line.units, line.today, parts, datum, table)
    jotted = parse(text, to=listener) if row is None else parse_as(row, text, listener)
    trial = computed.setup.flight.trial if computed else None
    jotted = replace(jotted, reading=with_trial(jotted.reading, trial))
    subject_id = name = None
    weight = line.weight_lbf
    if computed is not None:
        subject_id, name = _subject_on(computed.setup, jotted.subject)
        weight = computed.bow.weight.weight.value if computed.bow.weight else weight
    question_mass(jotted.reading, text, weight)
    question_weight(jotted.reading, text, computed.bow.weight if computed else None)
    source = jotted.source or jotted.reading.by
    draft = None
    if subject_id is not None:
        draft = e.EntryDraft(
            subject=Subject(kind=jotted.subject, id=subject_id),
            reading=jotted.reading,
            source=source,
            as_typed=text,
        )
    parsed = ParsedJot(
        word=jotted.word,
        line=text,
        sum=computed.setup.effective.sum_with(jotted.reading) if computed else None,
        says=_said(jotted.reading, parts),
        subject_kind=jotted.subject,
        subject_name=name,
        draft=draft,
        reading=jotted.reading,
        source=source,
        day=jotted.day,
        heard=heard_parts(jotted.understood),
    )
    return as_json(parsed)


def _said(reading: e.Reading, parts: Sequence[tuple[str, str, str]]) -> Phrase:
    """Return what a reading records; a part that is put on is called by its name."""
    if isinstance(reading, PartFitted) and reading.part_id is not None:
        name = next((name for _, part_id, name in parts if part_id == reading.part_id), None)
        return Phrase(f"Puts on: {plain(name or reading.part_id)}")
    return reading.say()


def _subject_on(setup: Setup, kind: SubjectKind) -> tuple[str, str]:
    """Return id and name of what a rig has of a kind of subject; one that lacks is made new."""
    found, name = setup.subject(kind)
    if found is None:
        return NEW_PART, _NEW[kind]
    return found, name or found


_NEW: Mapping[SubjectKind, str] = {
    "archer": "a new archer",
    "bow": "a new bow",
    "string": "a new string",
    "arrow_set": "new arrows",
    "rig": "this rig",
}
"""What a reading makes and fits where the rig has no such part."""


@router.get("/terms")
def list_terms() -> list[Term]:
    """Return the parts by name, as the drawings number them."""
    return list(TERMS)


@router.get("/glossary")
def list_glossary() -> list[GlossaryTerm]:
    """Return the trade's words: what each means, what else it is called, and why one needs it."""
    return list(GLOSSARY)


class RuleOut(BaseModel):
    """A rule of the trade, its figures to be said in the reader's units."""

    id: str
    stage: StageKey
    title: str
    statement: Phrase
    school: Phrase
    source: Phrase


@cache
def _rulebook() -> tuple[RuleOut, ...]:
    return tuple(
        RuleOut(
            id=rule.id,
            stage=rule.stage,
            title=rule.title,
            statement=as_written(rule.statement),
            school=as_written(rule.school),
            source=as_written(rule.source),
        )
        for rule in RULEBOOK
    )


@router.get("/rules")
def list_rules() -> list[RuleOut]:
    """Return the rulebook: every rule a finding can cite."""
    return list(_rulebook())
