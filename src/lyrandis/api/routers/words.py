"""The words of the jot line: listed with their forms, refused lines, and what they taught."""

from datetime import datetime
from typing import Annotated, Literal

from fastapi import Response
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.bounded import api_router
from lyrandis.api.context import OwnWordsOf, RigsOf, as_json
from lyrandis.api.problems import NOT_FOUND
from lyrandis.core.hearing.forms import form_of, line_from_form
from lyrandis.core.hearing.table import Word, spellings_of
from lyrandis.core.hearing.taught import learn, with_taught
from lyrandis.core.jot import (
    ROWS,
    STAGE_OF,
    TABLE,
    Listener,
    example_of,
    example_reading,
    parse_as,
    row_of,
)
from lyrandis.core.reading import StageKey, SubjectId, SubjectKind
from lyrandis.core.units import UnitSet
from lyrandis.store.own_words import TaughtWord

router = api_router("words")
MOST_EXAMPLES = 3


class WordField(BaseModel):
    """One field of a word's form."""

    name: str
    label: str
    takes: Literal["number", "choice", "text"]
    needed: bool
    options: tuple[str, ...] = ()


class JotWord(BaseModel):
    """One way to say a word of the jot line: what it records, its example and its form."""

    key: str
    word: str
    stage: StageKey | None
    example: str
    records: str
    subject: SubjectKind
    names: tuple[str, ...]
    """What people call it beside its word."""
    fields: tuple[WordField, ...]


class RefusedOut(BaseModel):
    """A line that could not be read."""

    id: int
    line: str
    times: int
    last_at: datetime


class TaughtOut(BaseModel):
    """A phrase of this bench, what it stands for and the line it was learnt from."""

    id: int
    phrase: str
    word: str
    stands_for: str
    line: str
    fits: bool
    """False where the table has no such row any more: it says nothing then."""


class OwnWordsOut(BaseModel):
    """What this bench alone has heard and learnt."""

    keeps: bool
    refused: tuple[RefusedOut, ...]
    taught: tuple[TaughtOut, ...]


class Keeps(BaseModel):
    """Whether refused lines are kept."""

    model_config = ConfigDict(extra="forbid")

    keep: bool


class RefusedLineIn(BaseModel):
    """A line that was entered and could not be read."""

    model_config = ConfigDict(extra="forbid")

    line: Annotated[str, Field(min_length=1, max_length=400)]


class Meant(BaseModel):
    """What a refused line meant: a word, and what was filled into its form."""

    model_config = ConfigDict(extra="forbid")

    line: Annotated[str, Field(min_length=1, max_length=400)]
    row: Annotated[str, Field(max_length=200)]
    fields: Annotated[dict[str, Annotated[str, Field(max_length=200)]], Field(max_length=20)]
    units: UnitSet = "inch"
    rig: SubjectId | None = None


class Learnt(BaseModel):
    """The line that means the same, and the phrase that is understood from now on, if any."""

    line: str
    phrase: str | None
    stands_for: str | None = None


@router.get("/readings/words")
def list_jot_words(units: UnitSet = "inch") -> list[JotWord]:
    """List the words the jot line knows, with their forms; examples in the reader's units."""
    return [_word(row, units) for row in ROWS if row.records]


def _word(row: Word, units: UnitSet) -> JotWord:
    return JotWord(
        key=row.key,
        word=row.word,
        stage=STAGE_OF.get(row.key),
        example=example_of(row, units),
        records=row.records,
        subject=row.subject,
        names=spellings_of(row.names),
        fields=tuple(
            WordField(name=one.name, label=one.label, takes=one.takes, needed=one.needed,
                      options=one.options)
            for one in form_of(row)
        ),
    )  # fmt: skip


@router.get("/readings/examples", responses=NOT_FOUND)
def list_examples(
    rigs: RigsOf, rig: SubjectId, stage: StageKey | None = None, units: UnitSet = "inch"
) -> list[str]:
    """Return two or three lines of a stage that this rig lacks, in the reader's units."""
    effective = rigs.computed(rig).setup.effective
    told = effective.topics_told()
    lacking = [
        row
        for row in ROWS
        if row.records and row.reads is None and (stage is None or STAGE_OF.get(row.key) == stage)
        if not _is_told(row, told)
    ]
    # kinds nothing is told of come first: turns before one more fact of the string's build
    lacking.sort(key=lambda row: row.reading is not None and bool(effective.last(row.reading)))
    words = dict.fromkeys(row.word for row in lacking)
    firsts = [next(row for row in lacking if row.word == word) for word in words]
    return [example_of(row, units) for row in firsts[:MOST_EXAMPLES]]


def _is_told(row: Word, told: frozenset[str]) -> bool:
    """Whether a rig has what the row's example says; a change is nothing that it lacks."""
    reading = example_reading(row.key)
    if reading.changes() is not None:
        return True
    return bool(reading.topics() & told) or reading.kind in told


@router.get("/readings/own", response_model=OwnWordsOut)
def read_own_words(own: OwnWordsOf) -> Response:
    """Return the lines this bench refused, and the phrases it was taught."""
    rows = {row.key: row for row in ROWS if row.records}
    taught = [_taught(word, rows.get(word.taught.row)) for word in own.words()]
    refused = [
        RefusedOut(id=one.id, line=one.line, times=one.times, last_at=one.last_at)
        for one in own.refused()
    ]
    return as_json(OwnWordsOut(keeps=own.keeps, refused=tuple(refused), taught=tuple(taught)))


def _taught(word: TaughtWord, row: Word | None) -> TaughtOut:
    said = word.taught.said or (row.records if row else "")
    return TaughtOut(
        id=word.id, phrase=word.taught.phrase, word=row.word if row else word.taught.row,
        stands_for=said, line=word.line, fits=row is not None,
    )  # fmt: skip


@router.post("/readings/own/refused")
def keep_refused_line(own: OwnWordsOf, refused: RefusedLineIn) -> Keeps:
    """Keep a line that could not be read; says whether lines are kept at all."""
    return Keeps(keep=own.keep(refused.line.strip()))


@router.put("/readings/own/keeps")
def keep_refused_lines(own: OwnWordsOf, keeps: Keeps) -> Keeps:
    """Turn the keeping of refused lines on or off."""
    own.keep_or_not(keeps.keep)
    return keeps


@router.delete("/readings/own/refused", status_code=204)
def wipe_refused_lines(own: OwnWordsOf, line: int | None = None) -> None:
    """Wipe the refused lines, or one of them."""
    own.wipe(line)


@router.post("/readings/own/taught", response_model=Learnt, responses=NOT_FOUND)
def teach_words(rigs: RigsOf, own: OwnWordsOf, meant: Meant) -> Response:
    """Learn from a refused line and what was meant by it. Nothing of it is recorded."""
    row = row_of(meant.row)
    line = line_from_form(row, meant.fields)
    datum = None
    if meant.rig is not None:
        datum = rigs.computed(meant.rig).setup.order.brace_datum
    table = with_taught(TABLE, own.taught())
    listener = Listener(None, meant.units, None, (), datum, table)
    jotted = parse_as(row, line, listener)
    taught = None
    if row.reads is None:
        taught = learn(listener.ear, meant.line, row, jotted.reading, meant.fields)
    if taught is None:
        return as_json(Learnt(line=line, phrase=None))
    own.teach(taught, meant.line.strip())
    return as_json(Learnt(line=line, phrase=taught.phrase, stands_for=taught.said or row.word))


@router.delete("/readings/own/taught/{taught}", status_code=204)
def unteach_words(own: OwnWordsOf, taught: int) -> None:
    """Take a phrase away again."""
    own.unteach(taught)
