"""The jot line: a bench shorthand turned into readings. Its words come from the stages."""

import difflib
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date

from pydantic import ValidationError

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import Noted, PartFitted
from lyrandis.core.errors import DomainError, Guess, Understood
from lyrandis.core.free_order import HeardFreely, hear_freely, told_of
from lyrandis.core.reading import PARTS, PartKind, Source, SubjectKind
from lyrandis.core.refusals import refusal_of
from lyrandis.core.spoken import Line, Token
from lyrandis.core.spoken_days import day_in
from lyrandis.core.stage_spec import Word
from lyrandis.core.stages import STAGES
from lyrandis.core.units import UnitSet

_KINDS: dict[str, PartKind] = {
    **{part.replace("_", " "): part for part in PARTS}, "arrows": "arrow_set",
}  # fmt: skip


def _fit(line: Line) -> e.Reading:
    """Read which part is put on the rig, by its name; or that there is none."""
    start = line.peek()
    said = line.rest().casefold()
    if said.startswith("no ") and said[3:] in _KINDS:
        return PartFitted(part=_KINDS[said[3:]], part_id=None)
    known: dict[str, list[tuple[str, str]]] = {}
    for kind, part_id, name in line.parts:
        known.setdefault(name.casefold(), []).append((kind, part_id))
    begun = [name for name in known if said and name.startswith(said)]
    meant = said if said in known else begun[0] if len(begun) == 1 else None
    span = (start.start if start else len(line.text), len(line.text))
    if meant is None:
        near = begun or difflib.get_close_matches(said, known, n=3, cutoff=0.5)
        raise DomainError(
            "unknown_choice" if said else "missing_choice",
            f"No part is called “{said}”." if said else "Which part is put on?",
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


_OF_NO_STAGE = (
    Word(
        "note",
        "rig",
        "note new tab today",
        "words worth keeping",
        lambda line: Noted(text=line.rest()),
    ),
    Word("fit", "rig", "fit no string", "a part put on this rig, by its name; or none", _fit),
)
WORDS: tuple[Word, ...] = (*(word for spec in STAGES for word in spec.words), *_OF_NO_STAGE)
_BY_WORD = {name: word for word in WORDS for name in (word.word, *word.also)}
_HEARS = {word.word: word.hears for word in WORDS if word.hears}
_FREE_TEXT = re.compile(r"^\s*(?:note\b|arrow\s+\d+\s+remark\b|fit\b)", re.IGNORECASE)
"""Lines whose words are kept as they are said."""
_NAMES_PARTS = re.compile(r"\s*fit\b", re.IGNORECASE)


def names_parts(text: str) -> bool:
    """Return whether a line may name a part, so that the listener has to know which there are.

    >>> names_parts("Fit carbon set a"), names_parts("draw 28")
    (True, False)
    """
    return _NAMES_PARTS.match(text) is not None


@dataclass(frozen=True)
class Jotted:
    """What a jot line would record, and on which kind of subject."""

    subject: SubjectKind
    reading: e.Reading
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

    def line(self, text: str) -> Line:
        return Line(text, self.units, self.parts, self.brace_datum)


_ON_RIG = re.compile(r"\s+(?:here|on this rig)\s*$", re.IGNORECASE)
_GUESSED = re.compile(r"\s*\?\s*$")


def parse(text: str, *, stage: str | None = None, to: Listener | None = None) -> Jotted:
    """Turn a jot line into a reading.

    The kind comes first, or the line is said in any order and the kind whose slots are filled is
    taken. `stage` says what a bare number means; without a listener braces are read to the deepest
    grip. A "?" at the end marks an
    estimate; "here" records on the rig instead of the part. Raises `DomainError` with the span of
    the word at fault and the nearest forms.

    >>> parse("scale 36.2 @ 27").reading.draw_weight_lbf
    36.2
    >>> parse("69.5cm").reading.draw_length_mm
    695.0
    >>> parse("my draw length is 27 and a half").reading.draw_length_mm
    698.5
    >>> parse("draw 28 here ?").subject, parse("draw 28 ?").source
    ('rig', 'estimated')
    """
    to = to or Listener(stage, brace_datum="pivot")
    to.line(text)  # refuses a line that is too long before any pattern runs over it
    said = None if to.today is None or _FREE_TEXT.match(text) else day_in(text, to.today)
    if said is not None:
        text = text[: said.start] + " " * (said.end - said.start) + text[said.end :]
    plain = _GUESSED.sub("", text)
    line = _ON_RIG.sub("", plain)
    jotted = _read(line, to)
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
    return replace(jotted, day=said.day if said else None)


def _read(text: str, to: Listener) -> Jotted:
    """Read a line in its own form; else hear it in any order; else say what is wrong with it."""
    try:
        return _in_form(text, to)
    except DomainError as refused:
        if _FREE_TEXT.match(text):
            raise
        heard = _heard(text, to, refused)
        if heard is not None:
            return heard
        instead = _measure_instead(text)
        if instead is not None:
            raise instead from None
        raise


_NO_READINGS = {word: said for spec in STAGES for word, said in spec.no_readings.items()}


def _measure_instead(text: str) -> DomainError | None:
    """Answer a line about something that nothing is reckoned from with what to measure."""
    said = list(re.finditer(r"[a-z]+", text.lower()))
    offered = next((match for match in said if match[0] in _NO_READINGS), None)
    if offered is None or any(match[0] in _BY_WORD for match in said):
        return None
    return DomainError("no_reading", *_NO_READINGS[offered[0]], span=offered.span())


def _in_form(text: str, to: Listener) -> Jotted:
    line = to.line(text)
    head = line.peek()
    if head is None:
        raise DomainError("empty", "Nothing is typed yet.", "Type a reading, e.g. draw 27 3/8.")
    return _bare(text, line, to) if head.kind == "number" else _worded(text, line, head, to)


def _heard(text: str, to: Listener, refused: DomainError) -> Jotted | None:
    """Hear a line in any order. Raises when it could be several things, or nearly is one."""
    result = hear_freely(text, _HEARS)
    denied = next((heard.denied for heard in result if heard.denied), None)
    if denied is not None:
        raise DomainError(
            "unknown_word",
            f"“{denied.text}” turns the line round, and what is not so is not recorded.",
            "Say what is so, e.g. arrow 4 cracked.",
            span=(denied.start, denied.end),
        )
    whole = [(heard, jotted) for heard in result if not heard.left for jotted in _tried(heard, to)]
    if whole:
        best = whole[0][0]
        equal = {
            jotted.reading: (heard, jotted)
            for heard, jotted in reversed(whole)
            if (heard.rank, heard.name_words) == (best.rank, best.name_words)
        }
        if len(equal) == 1:
            heard, jotted = whole[0]
            source = "estimated" if heard.hedged else jotted.source
            return replace(jotted, source=source, understood=told_of(heard))
        raise _several(text, [heard.line for heard, _ in reversed(equal.values())])
    swapped = [line for heard in result if not heard.left for line in heard.swapped]
    swapped = [line for line in dict.fromkeys(swapped) if _reads(line, to)]
    if swapped and refused.code == "out_of_range":
        refused.guesses = (*refused.guesses, *_questions(swapped))
    elif swapped:
        raise _several(text, swapped)
    near = [heard for heard in result if 0 < len(heard.left) <= (2 if heard.named else 1)]
    near = [heard for heard in near if heard.rank == near[0].rank and _reads(heard.line, to)]
    if near and refused.code in _MISHEARD:
        raise _left_over(text, near)
    return None


_MISHEARD = frozenset({"unknown_word", "too_much", "not_a_number", "which_quantity"})
"""Refusals of words, not of values: then the line may have been meant another way."""


def _tried(heard: HeardFreely, to: Listener) -> list[Jotted]:
    try:
        return [_in_form(heard.line, to)]
    except DomainError:
        return []


def _reads(line: str, to: Listener) -> bool:
    try:
        _in_form(line, to)
    except DomainError:
        return False
    return True


def _several(text: str, lines: Sequence[str]) -> DomainError:
    return DomainError(
        "which_quantity",
        f"“{text.strip()}” could be several things.",
        "Choose what it is.",
        guesses=_questions(lines),
        span=(0, len(text)),
    )


def _questions(lines: Sequence[str]) -> tuple[Guess, ...]:
    return tuple(Guess(line, f"Did you mean “{line}”?") for line in lines[:3])


def _left_over(text: str, near: Sequence[HeardFreely]) -> DomainError:
    heard = near[0]
    start, end = heard.left[0]
    return DomainError(
        "too_much",
        f"“{text[start:end]}” is left over.",
        "Take it out, or put it in a note.",
        guesses=_questions([item.line for item in near]),
        span=(start, end),
        heard=told_of(heard),
    )


def _worded(text: str, line: Line, head: Token, to: Listener) -> Jotted:
    word = _BY_WORD.get(head.text.lower())
    if word is None:
        raise _unknown(text, head, to)
    line.take()
    try:
        reading = word.read(line)
    except ValidationError as error:
        raise refusal_of(error.errors()).error from None
    line.end()
    return Jotted(word.subject, reading, word.word, understood=tuple(line.understood))


def _unknown(text: str, head: Token, to: Listener) -> DomainError:
    rest = text[head.end :]
    near = difflib.get_close_matches(head.text.lower(), _BY_WORD, n=3, cutoff=0.55)
    near = [word for word in near if _reads(word + rest, to)] or near
    return DomainError(
        "unknown_word",
        f"“{head.text}” is not a word the jot line knows.",
        "Start with what it is, e.g. draw, scale, arrow, brace.",
        guesses=tuple(
            Guess(word + rest, f"Did you mean “{(word + rest).strip()}”?") for word in near
        ),
        span=(head.start, head.end),
    )


def _bare(text: str, line: Line, to: Listener) -> Jotted:
    """Read a line that starts with a number, by its unit, its size and the stage it is typed on."""
    if "@" in text:
        # a weight at a draw: what is written on the bow, or what the scale said
        raise _several(text, [f"{word.word} {text.strip()}" for word in WORDS if word.at])
    for word in _bare_candidates(text, line, to):
        try:
            return _in_form(f"{word} {text}", to)
        except DomainError:
            continue
    raise DomainError(
        "which_quantity",
        f"“{text.strip()}” could be several things.",
        "Say first what it is.",
        guesses=tuple(
            Guess(f"{word} {text.strip()}", f"Did you mean “{word} {text.strip()}”?")
            for word in (item.word for item in WORDS if item.offered)
            if _reads(f"{word} {text}", to)
        ),
        span=(0, len(text)),
    )


def _bare_candidates(text: str, line: Line, to: Listener) -> list[str]:
    kinds = line.measure("length").kinds
    of_mass = [word.word for word in WORDS if word.takes == "mass"]
    if kinds == ("mass",):
        return of_mass
    if "length" not in kinds or (len(kinds) > 1 and to.stage is None):
        return [word for word in of_mass if len(kinds) > 1 and _reads(f"{word} {text}", to)]
    return list(next((spec.bare for spec in STAGES if spec.key == to.stage), STAGES[0].bare))
