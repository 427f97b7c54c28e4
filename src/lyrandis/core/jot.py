"""The jot line: a bench shorthand turned into readings. Its words come from the rooms."""

import difflib
import re
from dataclasses import dataclass, replace

from pydantic import ValidationError

from lyrandis.core import entries as e
from lyrandis.core.errors import DomainError, Guess
from lyrandis.core.room import Word
from lyrandis.core.rooms import ROOMS
from lyrandis.core.spoken import Line, Token

_OF_NO_STAGE = (
    Word(
        "note",
        "rig",
        "note new tab today",
        "words worth keeping",
        lambda line: e.Noted(text=line.rest()),
    ),
)
WORDS: tuple[Word, ...] = (*(word for room in ROOMS for word in room.words), *_OF_NO_STAGE)
_BY_WORD = {name: word for word in WORDS for name in (word.word, *word.also)}


@dataclass(frozen=True)
class Jotted:
    """What a jot line would record, and on which kind of subject."""

    subject: e.SubjectKind
    reading: e.Reading
    word: str
    source: e.Source | None = None


_ON_RIG = re.compile(r"\s+(?:here|on this rig)\s*$", re.IGNORECASE)
_GUESSED = re.compile(r"\s*\?\s*$")


def parse(text: str, *, stage: str | None = None) -> Jotted:
    """Turn a jot line into a reading.

    `stage` says what a bare number means. A "?" at the end marks an
    estimate; "here" records on the rig instead of the part. Raises `DomainError` with the span of
    the word at fault and the nearest forms.

    >>> parse("scale 36.2 @ 27").reading.draw_weight_lbf
    36.2
    >>> parse("69.5cm").reading.draw_length_mm
    695.0
    >>> parse("draw 28 here ?").subject, parse("draw 28 ?").source
    ('rig', 'estimated')
    """
    plain = _GUESSED.sub("", text)
    guessed = plain != text
    said = _ON_RIG.sub("", plain)
    line = Line(said)
    head = line.peek()
    if head is None:
        raise DomainError("empty", "Nothing is typed yet.", "Type a reading, e.g. draw 27 3/8.")
    bare = head.kind == "number"
    jotted = _bare(said, line, stage) if bare else _worded(said, line, head)
    if said != plain:
        if "rig" not in jotted.reading.of:
            raise DomainError(
                "wrong_subject",
                f"“{jotted.word}” belongs to the part, not to this rig.",
                "Leave out “here”.",
                span=(len(said), len(plain)),
            )
        jotted = replace(jotted, subject="rig")
    return replace(jotted, source="estimated") if guessed else jotted


def _worded(text: str, line: Line, head: Token) -> Jotted:
    word = _BY_WORD.get(head.text.lower())
    if word is None:
        raise _unknown(text, head)
    line.take()
    try:
        reading = word.read(line)
    except ValidationError as error:
        raise _first_domain_error(error) from None
    line.end()
    return Jotted(word.subject, reading, word.word)


def _unknown(text: str, head: Token) -> DomainError:
    rest = text[head.end :]
    near = difflib.get_close_matches(head.text.lower(), _BY_WORD, n=3, cutoff=0.55)
    near = [word for word in near if _parses(word + rest)] or near
    return DomainError(
        "unknown_word",
        f"“{head.text}” is not a word the jot line knows.",
        "Start with what it is, e.g. draw, scale, arrow, brace.",
        guesses=tuple(
            Guess(word + rest, f"Did you mean “{(word + rest).strip()}”?") for word in near
        ),
        span=(head.start, head.end),
    )


def _first_domain_error(error: ValidationError) -> DomainError:
    cause = error.errors()[0].get("ctx", {}).get("error")
    if isinstance(cause, DomainError):
        return cause
    return DomainError("invalid", error.errors()[0]["msg"], "Check what was typed.")


def _bare(text: str, line: Line, stage: str | None) -> Jotted:
    """Read a line that starts with a number, by its unit, its size and the stage it is typed on."""
    for word in _bare_candidates(text, line, stage):
        try:
            return parse(f"{word} {text}")
        except DomainError:
            continue
    raise DomainError(
        "which_quantity",
        f"“{text.strip()}” could be several things.",
        "Say first what it is.",
        guesses=tuple(
            Guess(f"{word} {text.strip()}", f"Did you mean “{word} {text.strip()}”?")
            for word in (one.word for one in WORDS if one.offered)
            if _parses(f"{word} {text}")
        ),
        span=(0, len(text)),
    )


def _bare_candidates(text: str, line: Line, stage: str | None) -> list[str]:
    kinds = line.measure("length").kinds
    of_mass = [word.word for word in WORDS if word.takes == "mass"]
    if "@" in text:
        return [word.word for word in WORDS if word.takes == "@"]
    if kinds == ("mass",):
        return of_mass
    if "length" not in kinds or (len(kinds) > 1 and stage is None):
        return [word for word in of_mass if len(kinds) > 1 and _parses(f"{word} {text}")]
    return list(next((room.bare for room in ROOMS if room.key == stage), ROOMS[0].bare))


def _parses(text: str) -> bool:
    try:
        parse(text)
    except DomainError:
        return False
    return True
