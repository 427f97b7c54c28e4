"""The jot line: a bench shorthand turned into readings. Its words come from the stages."""

import difflib
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from functools import cache

from pydantic import ValidationError

from lyrandis.core.bench_readings import Noted, PartFitted
from lyrandis.core.entries import Reading
from lyrandis.core.errors import DomainError, Guess, Understood
from lyrandis.core.hearing.asking import answer, bare_number
from lyrandis.core.hearing.forms import example_in
from lyrandis.core.hearing.hear import Ear, LineHearing, Table
from lyrandis.core.hearing.matching import RowFit
from lyrandis.core.hearing.table import Parts, Word
from lyrandis.core.hearing.writing import LONGEST_LINE
from lyrandis.core.reading import PARTS, PartKind, Source, StageKey, SubjectKind
from lyrandis.core.refusals import refusal_of
from lyrandis.core.spoken_days import day_in
from lyrandis.core.stages import STAGES
from lyrandis.core.units import UnitSet

_KINDS: dict[str, PartKind] = {
    **{part.replace("_", " "): part for part in PARTS}, "arrows": "arrow_set",
}  # fmt: skip
_FIT = re.compile(r"\s*fit\b\s*(.*)", re.IGNORECASE | re.DOTALL)
_NOTE = re.compile(r"\s*note\b\s*:?\s*(.*)", re.IGNORECASE | re.DOTALL)


def names_parts(text: str) -> bool:
    """Return whether a line may name a part, so that the listener has to know which there are.

    >>> names_parts("Fit carbon set a"), names_parts("draw 28")
    (True, False)
    """
    return _FIT.match(text) is not None


def _fitted(line: str, parts: Parts) -> PartFitted | None:
    """Read which part is put on the rig, by its name; or that there is none."""
    match = _FIT.fullmatch(line)
    if match is None:
        return None
    named = match[1].strip().casefold()
    if named.startswith("no ") and named[3:] in _KINDS:
        return PartFitted(part=_KINDS[named[3:]], part_id=None)
    known: dict[str, list[tuple[str, str]]] = {}
    for kind, part_id, name in parts:
        known.setdefault(name.casefold(), []).append((kind, part_id))
    begun = [name for name in known if named and name.startswith(named)]
    meant = named if named in known else begun[0] if len(begun) == 1 else None
    span = (match.start(1), len(line))
    if meant is None:
        near = begun or difflib.get_close_matches(named, known, n=3, cutoff=0.5)
        raise DomainError(
            "unknown_choice" if named else "missing_choice",
            f"No part is called “{match[1].strip()}”." if named else "Which part is put on?",
            "Give its name as it stands under Fitted now.",
            guesses=tuple(Guess(f"fit {item}", f"Did you mean “{item}”?") for item in near[:3]),
            span=span,
        )
    if len(known[meant]) > 1:
        raise DomainError(
            "which_quantity",
            f"{len(known[meant])} parts are called “{meant}”.",
            "Choose it under Fitted now, or give one of them another name.",
            span=span,
        )
    [(kind, part_id)] = known[meant]
    return PartFitted.model_validate({"part": kind, "part_id": part_id})


def _noted(line: str, _parts: Parts) -> Noted | None:
    match = _NOTE.fullmatch(line)
    return match and Noted(text=match[1])


_OF_NO_STAGE = (
    Word("note", "rig", Noted, "note {text}", "words worth keeping", "note new tab today",
         reads=_noted, text="text"),
    Word("fit", "rig", PartFitted, "fit {part}", "a part put on this rig, by its name; or none",
         "fit no string", reads=_fitted, text="part"),
)  # fmt: skip
ROWS: tuple[Word, ...] = (*(word for spec in STAGES for word in spec.words), *_OF_NO_STAGE)
"""Every row of the table, in the order of the stages."""
_IN_OWN_WORDS = tuple(row for row in ROWS if row.reads is not None)
TABLE = Table(
    tuple(row for row in ROWS if row.reads is None),
    tuple(
        frozenset(spec.plain_words.split())
        for spec in STAGES
        for row in spec.words
        if row.reads is None
    ),
)
EAR = Ear(TABLE, brace_datum=None)
"""Listens to who has said nothing of a rig yet."""
STAGE_OF: Mapping[str, StageKey] = {
    row.key: spec.key for spec in STAGES for row in spec.words if row.records
}
"""The stage a row belongs to, by its key; those of no stage are not among them."""


def row_of(key: str) -> Word:
    """Return the row of a key. Raises `DomainError` where there is none.

    >>> row_of("riser: riser {riser_length_mm}").example
    'riser 17'
    """
    row = next((row for row in ROWS if row.records and row.key == key), None)
    if row is None:
        raise DomainError(
            "unknown_word", f"“{key}” is no word of the table.", "Choose one from the list.", "row"
        )
    return row


_BARE_WORDS = ("draw", "bow", "arrow", "mark", "wish", "brace", "spine", "shaft", "lift")
"""What a bare number is offered as, after the words of the stage it is typed on."""


@dataclass(frozen=True)
class Jotted:
    """What a jot line would record, and on which kind of subject."""

    subject: SubjectKind
    reading: Reading
    word: str
    source: Source | None = None
    day: date | None = None
    """The day it is said to have happened."""
    understood: tuple[Understood, ...] = ()
    """What each part of the line was taken for, where it was said in its own order."""


@dataclass(frozen=True)
class Listener:
    """Who types, and where: what a bare number means, which parts there are, which day it is."""

    stage: str | None = None
    units: UnitSet = "inch"
    today: date | None = None
    parts: Sequence[tuple[str, str, str]] = ()
    """Kind, id and name of what could be fitted."""
    brace_datum: str | None = None
    """Where this rig's brace was read to last; asked for while nobody has said it."""
    table: Table = field(default=TABLE, repr=False)
    """The words it knows: its bench's own ones too."""

    @property
    def ear(self) -> Ear:
        return Ear(self.table, self.units, self.brace_datum)


def example_of(row: Word, units: UnitSet = "inch") -> str:
    """Return a row's example as it is typed in a set of units.

    >>> example_of(next(row for row in ROWS if row.word == "bow"), "centimetre")
    'bow 157.5cm'
    """
    fit = None if row.reads is not None or units == "inch" else EAR.hear(row.example).taken
    return row.example if fit is None else example_in(fit, units)


_ON_RIG = re.compile(r"\s+(?:here|on this rig)\s*$", re.IGNORECASE)
_GUESSED = re.compile(r"\s*\?\s*$")


def parse(text: str, *, stage: str | None = None, to: Listener | None = None) -> Jotted:
    """Turn a jot line into a reading.

    It may be said in any order. `stage` says what a bare number is offered as first; without a
    listener braces are read to the deepest grip. A "?" at the end marks an estimate; "here" records
    on the rig instead of the part. Raises `DomainError` with the span of the word at fault, and
    with lines that would be taken.

    >>> parse("scale 36.2 @ 27").reading.draw_weight_lbf
    36.2
    >>> parse("my draw length is 27 and a half").reading.draw_length_mm
    698.5
    >>> parse("draw 28 here ?").subject, parse("draw 28 ?").source
    ('rig', 'estimated')
    """
    to = to or Listener(stage, brace_datum="pivot")
    if len(text) > LONGEST_LINE:
        raise DomainError(
            "too_much", "That is too long for one reading.", "Put the rest in a note."
        )
    kept = _in_own_words(text, to)
    if kept is not None:
        return kept
    happened = None if to.today is None else day_in(text, to.today)
    if happened is not None:
        blank = " " * (happened.end - happened.start)
        text = text[: happened.start] + blank + text[happened.end :]
    plain = _GUESSED.sub("", text)
    line = _ON_RIG.sub("", plain)
    jotted = _heard(line, to)
    if line != plain:
        if "rig" not in jotted.reading.of:
            raise DomainError(
                "wrong_subject",
                f"“{jotted.word}” belongs to the part, not to this rig.",
                "Leave out “here”.",
                span=(len(line), len(plain)),
            )
        jotted = replace(jotted, subject="rig")
    if plain != text:
        jotted = replace(jotted, source="estimated")
    return replace(jotted, day=happened.day if happened else None)


def parse_as(row: Word, line: str, to: Listener) -> Jotted:
    """Turn the line that a row's form makes into a reading, never into one of another kind.

    >>> parse_as(row_of("riser: riser {riser_length_mm}"), "riser 17", Listener()).reading.kind
    'riser_length'
    """
    jotted = parse(line, to=to)
    if jotted.reading.kind != row.kind:
        raise DomainError(
            "missing_slot", f"“{line}” would be something else.", "Fill in what is missing.",
            "fields",
        )  # fmt: skip
    return jotted


@cache
def example_reading(key: str) -> Reading:
    """Return the reading that the example of a row says; by the row's key.

    >>> example_reading("riser: riser {riser_length_mm}").riser_length_mm
    431.8
    """
    return parse(row_of(key).example).reading


def _in_own_words(text: str, to: Listener) -> Jotted | None:
    """Read a line whose words are kept as they are said: a note, a remark, a part's name."""
    for row in _IN_OWN_WORDS:
        assert row.reads is not None
        try:
            reading = row.reads(text, to.parts)
        except ValidationError as error:
            raise refusal_of(error.errors()).error from None
        if reading is not None:
            return Jotted(row.subject, reading, row.word)  # type: ignore[arg-type]
    return None


_NO_READINGS: Mapping[str, tuple[str, str]] = {
    word: said for spec in STAGES for word, said in spec.no_readings.items()
}


def _heard(text: str, to: Listener) -> Jotted:
    """Hear a line; raise what is asked of it, or why it is refused."""
    hearing = to.ear.hear(text)
    if not hearing.items:
        raise DomainError("empty", "Nothing is typed yet.", "Type a reading, e.g. draw 27 3/8.")
    fit = hearing.taken
    if fit is not None and fit.reading is not None:
        return Jotted(
            fit.word.subject,
            fit.reading,  # type: ignore[arg-type]
            fit.word.word,
            source="estimated" if _is_estimate(hearing, fit) else None,
            understood=_told(hearing, fit),
        )
    if not hearing.rivals:
        if all(item.amount is not None for item in hearing.items):
            own = next((spec.bare for spec in STAGES if spec.key == to.stage), ())
            raise bare_number(hearing, (*own, *_BARE_WORDS))
        instead = _measure_instead(hearing)
        if instead is not None:
            raise instead
    raise answer(hearing)


def _is_estimate(hearing: LineHearing, fit: RowFit) -> bool:
    """Whether it is said as a guess; “about” of a crawl says how sure it is, not that."""
    return hearing.hedged and "sure" not in fit.values


def _told(hearing: LineHearing, fit: RowFit) -> tuple[Understood, ...]:
    """Return what was taken for what, where it was not typed in its own order or was assumed."""
    typed = " ".join(hearing.text.lower().replace("@", " at ").split())
    if not fit.assumed and typed == " ".join(fit.sentence().lower().replace("@", " at ").split()):
        return ()
    return hearing.understood(fit)


def _measure_instead(hearing: LineHearing) -> DomainError | None:
    """Answer a line about something that nothing is reckoned from with what to measure."""
    offered = next((item for item in hearing.items if item.word in _NO_READINGS), None)
    if offered is None or hearing.found:
        return None
    return DomainError("no_reading", *_NO_READINGS[offered.word], span=(offered.start, offered.end))
