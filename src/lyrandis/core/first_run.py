"""A first run: three questions answered as people type them, and what follows at once.

Nothing is invented: what nobody answered is recorded nowhere, and what stands in for it is said.
"""

from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from lyrandis.core import entries as e
from lyrandis.core import judgement as j
from lyrandis.core.archer.readings import ArmSpan, ArmTape, DrawMarked, DrawStated
from lyrandis.core.archer.words import Datum
from lyrandis.core.arrow.questioned import question_mass
from lyrandis.core.arrow.readings import ArrowBuild, ArrowMassed
from lyrandis.core.assessment import judge
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.bow.drawing import HeldBow, held_bow
from lyrandis.core.bow.readings import BowFamily, BowLength, BowMark
from lyrandis.core.bow.words import Family
from lyrandis.core.computed import compute
from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError, Guess
from lyrandis.core.jot import Jotted, Listener, parse
from lyrandis.core.known import KnownNumber, numbers_of, with_draw
from lyrandis.core.phrase import Phrase
from lyrandis.core.reading import PARTS, BaseReading, Source, Subject, SubjectKind
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.core.units import UnitSet

FirstQuestion = Literal["draw", "span", "tape", "family", "mark", "length", "mass", "spine"]
"""The fields of the first run."""
_Typed = Annotated[str, Field(max_length=60)]


class FirstAnswers(BaseModel):
    """What stands in the fields of a first run, as it was typed; empty where nothing is."""

    model_config = ConfigDict(extra="forbid")

    draw: _Typed = ""
    draw_to: Datum = "trade"
    """What the draw was measured to."""
    marked: bool = False
    """True where the draw was marked on an arrow at full draw; else it was told."""
    span: _Typed = ""
    """Arm span."""
    tape: _Typed = ""
    """Fingertip to the hollow of the shoulder."""
    family: Family | None = None
    mark: _Typed = ""
    """What is written on the bow."""
    length: _Typed = ""
    mass: _Typed = ""
    """The whole arrow on a scale."""
    mass_told: bool = False
    """True where the mass was told, not weighed."""
    spine: _Typed = ""
    """The number on the shaft."""
    units: UnitSet = "inch"


class Answered(Drawn):
    """An answer as it is understood."""

    says: Phrase
    subject: SubjectKind
    reading: e.Reading
    source: Source
    as_typed: str


class GuessFor(Drawn):
    """Another meaning of what was typed, and the field it belongs to."""

    question: FirstQuestion
    text: str


class FirstRun(Drawn):
    """What three answers give at once."""

    answered: dict[FirstQuestion, Answered]
    numbers: tuple[KnownNumber, ...]
    least_arrow_gr: float | None
    """An arrow at the floor of this bow."""
    bow: HeldBow
    """The bow as it stands at this draw."""
    stages: tuple[j.Stage, ...]
    """The three stages that are asked about."""
    findings: tuple[j.Finding, ...]
    """What is judged of them, the gravest first."""


_ON: Mapping[FirstQuestion, SubjectKind] = {
    "draw": "archer", "span": "archer", "tape": "archer", "family": "bow", "mark": "bow",
    "length": "bow", "mass": "arrow_set", "spine": "arrow_set",
}  # fmt: skip
_HEADS: Mapping[FirstQuestion, str] = {
    "span": "span", "tape": "tape", "mark": "mark", "length": "bow", "mass": "arrow",
    "spine": "spine",
}  # fmt: skip
_RECORDS: Mapping[FirstQuestion, tuple[type[BaseReading], ...]] = {
    "draw": (DrawStated, DrawMarked), "span": (ArmSpan,), "tape": (ArmTape,),
    "family": (BowFamily,), "mark": (BowMark,), "length": (BowLength,), "mass": (ArrowMassed,),
    "spine": (ArrowBuild,),
}  # fmt: skip
"""What an answer may record."""
_FIELD_OF: Mapping[str, FirstQuestion] = {
    "draw": "draw", "span": "span", "tape": "tape", "mark": "mark", "bow": "length",
    "arrow": "mass", "spine": "spine", "family": "family",
}  # fmt: skip
"""The field a word of the jot line is asked in."""


def lines_of(answers: FirstAnswers) -> dict[FirstQuestion, str]:
    """Return the jot line of each answer; a field that already names its word keeps it.

    >>> lines_of(FirstAnswers(draw="25 5/8", draw_to="pivot", mark="44", family="selfbow"))
    {'draw': 'draw said 25 5/8 pivot', 'family': 'family selfbow', 'mark': 'mark 44'}
    """
    lines: dict[FirstQuestion, str] = {}
    if draw := answers.draw.strip():
        to = "" if answers.draw_to == "trade" else f" {answers.draw_to}"
        said = "" if answers.marked else "said "
        lines["draw"] = f"draw {said}{_without('draw', draw)}{to}"
    for question, head in _HEADS.items():
        if text := getattr(answers, question).strip():
            lines[question] = f"{head} {_without(head, text)}"
    if answers.family is not None:
        lines["family"] = f"family {answers.family.replace('_', ' ')}"
    return {question: lines[question] for question in _ON if question in lines}


def _without(head: str, text: str) -> str:
    """Drop the field's own word in front of what was typed in it: spine 500 under spine."""
    first, _, rest = text.partition(" ")
    return rest.strip() if first.lower() == head and rest.strip() else text


def first_run(answers: FirstAnswers) -> tuple[FirstRun, dict[FirstQuestion, DomainError]]:
    """Read the answers, and return what follows with the fields that cannot be read.

    A field that cannot be read is left out of what follows, never guessed. Never raises.

    >>> run, wrong = first_run(FirstAnswers(draw="27 3/8", mark="44 @ 28", length="abc"))
    >>> sorted(run.answered), sorted(wrong)
    (['draw', 'mark'], ['length'])
    """
    answered: dict[FirstQuestion, Answered] = {}
    wrong: dict[FirstQuestion, DomainError] = {}
    weight: float | None = None
    for question, line in lines_of(answers).items():
        try:
            jotted = parse(line, to=Listener(units=answers.units))
            _check(question, jotted, line)
            question_mass(jotted.reading, line, weight)
        except DomainError as error:
            wrong[question] = error
            continue
        if isinstance(jotted.reading, BowMark):
            weight = jotted.reading.draw_weight_lbf
        hearsay = question == "mass" and answers.mass_told
        answered[question] = Answered(
            says=jotted.reading.say(),
            subject=jotted.subject,
            reading=jotted.reading,
            source="told" if hearsay else jotted.source or jotted.reading.by,
            as_typed=line,
        )
    log = _log(answered)
    told = compute(fold(log, rig=_RIG))
    assumed = told.archer.draw is None
    computed = compute(fold(with_draw(log, told), rig=_RIG)) if assumed else told
    assessment = judge(computed)
    weight_now = computed.bow.weight
    floor = computed.arrow.floor.grains_per_pound
    asked = {one.subject for one in answered.values()}
    run = FirstRun(
        answered=answered,
        numbers=numbers_of(computed, assumed=assumed),
        least_arrow_gr=floor * weight_now.weight.value if weight_now else None,
        bow=held_bow(computed),
        stages=assessment.stages[:3],
        findings=tuple(f for f in assessment.findings if _concerns(f, asked)),
    )
    return run, wrong


def _check(question: FirstQuestion, jotted: Jotted, line: str) -> None:
    """Refuse a line that says something its field does not ask for."""
    if not isinstance(jotted.reading, _RECORDS[question]):
        raise DomainError(
            "which_quantity",
            "That is something else than is asked for here.",
            "Write only what is asked for.",
            question,
            guesses=(Guess(line, "It is something else."),),
        )


def guess_for(guess: Guess) -> GuessFor | None:
    """Return the field a guess belongs to and what is to stand in it; None where there is none.

    >>> guess_for(Guess("spine 700", "700 is the number on the shaft?"))
    GuessFor(question='spine', text='700')
    """
    word, _, rest = guess.text.partition(" ")
    question = _FIELD_OF.get(word)
    if question is None or not rest:
        return None
    return GuessFor(question=question, text=rest.removeprefix("said ").strip())


# what is judged while it is typed

_RIG = "first-run"
_WHEN = datetime(2026, 1, 1, tzinfo=UTC)


def _log(answered: Mapping[FirstQuestion, Answered]) -> list[e.Entry]:
    fits = [
        e.PostedEntry(
            subject=Subject(kind="rig", id=_RIG),
            reading=PartFitted(part=part, part_id=_RIG),
            happened_at=_WHEN,
        )
        for part in PARTS
        if part != "string"
    ]
    told = [
        e.PostedEntry(
            subject=Subject(kind=one.subject, id=_RIG),
            reading=one.reading,
            source=one.source,
            happened_at=_WHEN,
        )
        for one in answered.values()
    ]
    return as_entries([*fits, *told], now=_WHEN)


_SAID_BY_THE_QUESTION = frozenset({"draw-guess", "hook-assumed"})
"""Findings that say nothing beside the question itself."""


_OF_STAGE: Mapping[str, SubjectKind] = {"archer": "archer", "bow": "bow", "arrow": "arrow_set"}


def _concerns(finding: j.Finding, answered: set[SubjectKind]) -> bool:
    """Return whether a finding is said while one types: of what was answered, not of guesses."""
    said = _OF_STAGE.get(finding.stage) in answered
    return said and finding.id not in _SAID_BY_THE_QUESTION
