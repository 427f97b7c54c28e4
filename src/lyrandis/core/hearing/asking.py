"""What is asked or refused: errors with the place in the line, and lines that would be taken."""

import difflib
import re
from collections.abc import Iterable, Iterator, Sequence

from lyrandis.core.errors import Code, DomainError, Guess, Understood
from lyrandis.core.hearing.hear import LineHearing, sentences
from lyrandis.core.hearing.items import Amount, Item
from lyrandis.core.hearing.matching import Matching, RowFit
from lyrandis.core.hearing.plain_words import DENIALS, FILLER, TURNING
from lyrandis.core.hearing.table import NAME, Slot, Word, spellings_of
from lyrandis.core.hearing.writing import POUND_SIGNS, SPOKEN_UNITS
from lyrandis.core.quantities import check
from lyrandis.core.units import POUNDS_TIMES_THOUSANDTHS, UnitSet

MOST_GUESSES = 3
MOST_CLAUSES = 6
_WORTH_ASKING = 10.0
"""A row of less than one name is not asked to be completed."""
_MOST_LEFT = 3
_CLAUSES = re.compile(r"[;,](?!\d)|\band\b(?! an? )", re.IGNORECASE)
_BEFORE_A_NOUN = frozenset({"in", "on"})
_NAMES_A_NUMBER = {
    "length": '27 3/8, 27.375" or 69.5cm', "force": "36.2 lb, 161 N or 16.4 kg",
    "mass": "431gr or 27.9g", "grains per pound": "9 gpp", "grains per inch": "9.2 gpi",
    "speed": "168 fps or 51.2 m/s", "spine": "500 or 63 lb", "distance": "20m, 20yd or 3 paces",
}  # fmt: skip


def answer(hearing: LineHearing) -> DomainError:
    """Return what is asked of a line that is not taken as it stands, or why it is refused.

    >>> from lyrandis.core.jot import EAR
    >>> [guess.text for guess in answer(EAR.hear("45 lb at 28")).guesses]
    ['mark 45 lb at 28', 'scale 45 lb at 28']
    """
    if hearing.rivals:
        asked = _question(hearing)
        if asked.guesses:
            return asked
    weakly = _weakly(hearing)
    if weakly is not None:
        return weakly
    denied = _denied(hearing)
    if denied is not None:
        return denied
    clauses = _clauses(hearing)
    if clauses:
        return DomainError(
            "two_readings", f"That is {len(clauses)} readings.", "Record them one by one.",
            guesses=_guesses(clauses), span=(0, len(hearing.text)),
        )  # fmt: skip
    return (
        _incomplete(hearing) or _choice_lacks(hearing) or _left_over(hearing) or _unknown(hearing)
    )


def _guesses(lines: Iterable[str]) -> tuple[Guess, ...]:
    return tuple(Guess(line, f"{line}?") for line in list(dict.fromkeys(lines))[:MOST_GUESSES])


def _note(hearing: LineHearing) -> tuple[Guess, ...]:
    """Offer to keep a line of several words as a note."""
    line = hearing.text.strip()
    return (Guess(f"note {line}", "Keep it as a note?"),) if " " in line else ()


# what is asked


def _question(hearing: LineHearing) -> DomainError:
    best = hearing.rivals[0]
    guesses = _guesses(hearing.offered)
    whole = (0, len(hearing.text))
    if not hearing.surely_mended:
        slip = hearing.slips[0]
        lines = hearing.offered or [line for line in sentences(best) if hearing.ear.reads(line)]
        return DomainError(
            "unknown_word", f"“{slip.word}” is not a word the jot line knows.",
            "Did you mean this?", guesses=_guesses(lines), span=(slip.start, slip.end),
        )  # fmt: skip
    if len(hearing.rivals) > 1:
        return DomainError(
            "two_readings", f"“{hearing.text.strip()}” could be several things.",
            "Choose what it is.", guesses=guesses, span=whole, heard=hearing.understood(best),
        )  # fmt: skip
    if best.word.asks_which:
        return DomainError(
            "which_quantity", best.word.question or "Which of these is meant?", "Choose one.",
            guesses=guesses, span=whole,
        )  # fmt: skip
    return _one_question(hearing, best, guesses)


def _one_question(hearing: LineHearing, fit: RowFit, guesses: tuple[Guess, ...]) -> DomainError:
    """Return the first question of a row that fits: a datum, a way, or a unit."""
    asked = fit.questions[0]
    slot = next((slot for slot in fit.word.slots if slot.field == asked.field), None)
    end = (len(hearing.text), len(hearing.text))
    if slot is None:
        what = asked.field.strip("_").replace("_", " ")
        ways = ", ".join(asked.ways[:-1]) + f" or {asked.ways[-1]}"
        return DomainError(
            "which_datum", fit.word.question or f"The {what} is not said.", f"Say {ways}.",
            guesses=guesses, span=end, heard=hearing.understood(fit),
        )  # fmt: skip
    item = next(
        item for item, used in zip(hearing.items, fit.taken_for, strict=True)
        if used == slot.field and item.amount is not None
    )  # fmt: skip
    assert item.amount is not None
    out_of_range = _beyond(slot, item, hearing.ear.units)
    if out_of_range is not None:
        more = list(_in_place(hearing, item, out_of_range.guesses))
        mine = {guess.text.replace(" ", "") for guess in guesses}
        others = tuple(guess for guess in more if guess.text.replace(" ", "") not in mine)
        out_of_range.guesses = (*guesses, *others)[:MOST_GUESSES]
        return out_of_range
    return DomainError(
        "which_unit", f"“{item.amount.text}” in which unit?", "Add the unit.", guesses=guesses,
        span=(item.start, item.end), heard=hearing.understood(fit),
    )  # fmt: skip


def _weakly(hearing: LineHearing) -> DomainError | None:
    """Ask a line whose words alone do not say enough: corner, plate, left."""
    if any(fit.fits for fit in hearing.found):
        return None
    lines = [line for fit in hearing.ear.weakly(hearing.items) for line in sentences(fit)]
    lines = [line for line in dict.fromkeys(lines) if hearing.ear.reads(line)]
    if not lines:
        return None
    return DomainError(
        "two_readings", f"“{hearing.text.strip()}” alone does not say what it is of.",
        "Choose what it is.", guesses=_guesses(lines), span=(0, len(hearing.text)),
    )  # fmt: skip


# what is refused


def _denied(hearing: LineHearing) -> DomainError | None:
    """Return the refusal of a line that denies something no row has a phrase for."""
    best = hearing.found[0] if hearing.found else None
    for at, item in enumerate(hearing.items):
        accounted = best is not None and best.taken_for[at] is not None
        if item.amount is None and item.word in DENIALS and not accounted:
            return DomainError(
                "unknown_word",
                f"“{hearing.text[item.start : item.end]}” turns the line round, and what is not "
                "so is not recorded.",
                "Say what is so, e.g. arrow 4 cracked.",
                guesses=_note(hearing), span=(item.start, item.end),
            )  # fmt: skip
    return None


def _clauses(hearing: LineHearing) -> list[str]:
    parts = [stripped for part in _CLAUSES.split(hearing.text) if (stripped := part.strip())]
    several = 1 < len(parts) <= MOST_CLAUSES
    return parts if several and all(map(hearing.ear.reads, parts)) else []


def _incomplete(hearing: LineHearing) -> DomainError | None:
    """Return what is wrong with, or lacks in, a line whose words are all understood."""
    for fit in _own_word_first(hearing):
        numbers = [hearing.items[at] for at in fit.left]
        if fit.score < _WORTH_ASKING or fit.word.reading is None:
            continue
        if not fit.whole and fit.lacks in fit.word.lacks and _is_first(hearing, fit) and numbers:
            return _wrong_number(hearing, fit, _amounts(numbers)) or _missing(hearing, fit)
        if any(item.amount is None for item in numbers):
            error = _no_number(hearing, fit, numbers)
            if error is not None:
                return error
            continue
        if fit.wrong is not None and not numbers:
            return fit.wrong
        wrong = _wrong_number(hearing, fit, numbers)
        if wrong is not None:
            return wrong
        if not fit.whole and (not numbers or fit.lacks in fit.word.lacks):
            return _missing(hearing, fit)
        if numbers:
            return _too_much(hearing, fit)
    return None


def _no_number(hearing: LineHearing, fit: RowFit, left: Sequence[Item]) -> DomainError | None:
    """Return that words stand where a number belongs: spine stiff."""
    slot = next((slot for slot in fit.word.slots if slot.field == fit.lacks), None)
    given = any(one.field in fit.texts for one in fit.word.slots)
    if slot is None or given or not _is_first(hearing, fit) or _amounts(left):
        return None
    said = _words(hearing, fit)
    return DomainError(
        "not_a_number", f"“{said}” is not a number.",
        f"Type {_NAMES_A_NUMBER.get(slot.dimension, 'a plain number')}.",
        span=(left[0].start, left[-1].end), guesses=_note(hearing),
    )  # fmt: skip


def _is_first(hearing: LineHearing, fit: RowFit) -> bool:
    return hearing.items[0].word == fit.word.word


def _own_word_first(hearing: LineHearing) -> list[RowFit]:
    """Return the rows in order, those of the word that the line begins with before others."""
    return sorted(hearing.found, key=lambda fit: not _is_first(hearing, fit))


def _amounts(items: Iterable[Item]) -> list[Item]:
    return [item for item in items if item.amount is not None]


def _missing(hearing: LineHearing, fit: RowFit) -> DomainError:
    """Return that something is missing; the caret goes where it belongs."""
    slot = next((slot for slot in fit.word.slots if slot.field == fit.lacks), None)
    end = (len(hearing.text), len(hearing.text))
    reason, instruction = fit.word.lacks.get(
        fit.lacks,
        (
            f"The {slot.name if slot else fit.lacks.strip('_').replace('_', ' ')} is missing.",
            f"Add it, e.g. {fit.word.example}.",
        ),
    )
    return DomainError("missing_slot", reason, instruction, span=end, heard=hearing.understood(fit))


def _wrong_number(hearing: LineHearing, fit: RowFit, numbers: Sequence[Item]) -> DomainError | None:
    """Return why a number that is left over fits none of the row's empty slots."""
    empty = [slot for slot in fit.word.slots if slot.field not in fit.texts]
    for item in numbers:
        amount = item.amount
        assert amount is not None
        fitting = [slot for slot in empty if _may_be(slot, amount)]
        needed = [slot for slot in empty if slot.needed]
        if needed and not any(slot.needed for slot in fitting):
            fitting = []
        for slot in fitting:
            error = _beyond(slot, item, hearing.ear.units)
            if error is not None:
                error.guesses = tuple(_in_place(hearing, item, error.guesses))[:MOST_GUESSES]
                return error
        if amount.unit is not None and not fitting and needed:
            return DomainError(
                "wrong_unit", f"“{amount.text}” is no {needed[0].name}.",
                f"Type {_NAMES_A_NUMBER.get(needed[0].dimension, 'a plain number')}.",
                span=(item.start, item.end),
            )  # fmt: skip
    return None


def _in_place(hearing: LineHearing, item: Item, guesses: Iterable[Guess]) -> Iterator[Guess]:
    """Yield the guesses that are taken: as they stand, or put in the number's place."""
    for guess in guesses:
        figure = guess.text[len(guess.text.split(" ")[0]) :].strip()
        line = f"{hearing.text[: item.start]}{figure}{hearing.text[item.end :]}"
        if hearing.ear.reads(line):
            yield Guess(line, f"{line}?")
        elif hearing.ear.reads(guess.text):
            yield guess


def _may_be(slot: Slot, amount: Amount) -> bool:
    return amount.unit is None or slot.dimension in SPOKEN_UNITS[amount.unit]


def _beyond(slot: Slot, item: Item, units: UnitSet) -> DomainError | None:
    """Return the refusal of a number that is beyond what its slot can be, as it would be taken."""
    amount = item.amount
    assert amount is not None
    other = _other_standard(slot, amount) if slot.dimension == "spine" else None
    if other is not None:
        other.span = (item.start, item.end)
        return other
    value = amount.signed * _factor(slot, amount, units)
    in_thousandths = amount.unit in ("thou", "thousandths") or value >= 200
    if slot.dimension == "spine" and in_thousandths and value > 0:
        value = POUNDS_TIMES_THOUSANDTHS / value
    try:
        check(slot.key, round(value, 6))
    except DomainError as error:
        error.span = (item.start, item.end)
        return error
    return None


def _other_standard(slot: Slot, amount: Amount) -> DomainError | None:
    """Return the question whether a spine was meant in the other standard."""
    value, in_pounds = amount.value, amount.unit in POUND_SIGNS
    stiff = in_pounds and value > slot.range.high
    thousandths = amount.unit is not None and not in_pounds and slot.range.holds(value)
    if not stiff and not thousandths:
        return None
    reason = (
        f"No shaft is {value:g} lb stiff on the wood scale."
        if stiff
        else f"{value:g} thousandths would be far too stiff for any shaft."
    )
    guess = f"spine {value:g}" if stiff else f"spine {value:g} lb"
    return DomainError(
        "wrong_standard", reason,
        "Give pounds on the wood scale (15 to 160) or thousandths of an inch (200 to 2000).",
        guesses=(Guess(guess, f"{guess}?"),),
    )  # fmt: skip


def _factor(slot: Slot, amount: Amount, units: UnitSet) -> float:
    if amount.unit is not None:
        return SPOKEN_UNITS[amount.unit].get(slot.dimension, 1.0)
    bare = {
        "length": "in" if amount.fraction or units == "inch" else "cm", "mass": "gr", "force": "lb",
    }  # fmt: skip
    if slot.dimension == "length" and slot.range.small and not amount.fraction:
        return 1.0 if amount.value >= slot.range.inches_below else SPOKEN_UNITS["in"]["length"]
    if units == "metric":
        bare["mass"] = "g"
    unit = bare.get(slot.dimension)
    return 1.0 if unit is None else SPOKEN_UNITS[unit][slot.dimension]


def _choice_lacks(hearing: LineHearing) -> DomainError | None:
    """Return that a row's choice is missing, or is none of its words."""
    ear, items = hearing.ear, hearing.items
    for number in ear.table.rows_in(items):
        word = ear.table.words[number]
        matching = Matching(word, items, ear.units, ear.brace_datum)
        named = matching.used[0] == NAME if matching.used else False
        lacks = [need for need in word.need if need not in matching.chosen]
        if named and matching.clashes:
            return DomainError(
                "twice", "That is said two ways at once.", "Say one of them.",
                span=(0, len(hearing.text)),
            )  # fmt: skip
        if not named or not lacks or not word.records or _is_found(hearing, word):
            continue
        values = [
            value
            for row in ear.table.words
            if row.word == word.word
            for need in row.need[:1]
            for value in row.choices[need].values()
        ]
        rest = [
            item for at, item in enumerate(items)
            if matching.used[at] is None and item.amount is None and item.word not in FILLER
        ]  # fmt: skip
        first = spellings_of(values[0])[0]
        ways = ", ".join(dict.fromkeys(spellings_of(spellings)[0] for spellings in values))
        if not rest:
            end = (len(hearing.text), len(hearing.text))
            return DomainError(
                "missing_choice", f"What {word.word} is, is missing.", f"Say one of: {ways}.",
                span=end,
            )  # fmt: skip
        head, tail = hearing.text[: rest[0].start], hearing.text[rest[0].start : rest[-1].end]
        spellings = {one: None for value in values for one in spellings_of(value)}
        near = difflib.get_close_matches(tail.lower(), spellings, n=2, cutoff=0.5)
        lines = [f"{head}{one}" for one in near]
        return DomainError(
            "unknown_choice", f"“{tail}” is not one of the choices.",
            f"Say one of: {ways}." if len(ways) < 200 else f"Say it like {word.word} {first}.",
            guesses=_guesses(line for line in lines if ear.reads(line)),
            span=(rest[0].start, rest[-1].end),
        )  # fmt: skip
    return None


def _is_found(hearing: LineHearing, word: Word) -> bool:
    """Return whether another way to say the same word is in the line."""
    return any(fit.word.word == word.word for fit in hearing.found)


def _left_over(hearing: LineHearing) -> DomainError | None:
    """Return what is left over, with the lines that would be taken without it."""
    if not hearing.found:
        return None
    best = min(
        hearing.found, key=lambda fit: (not _is_first(hearing, fit), len(fit.left), -fit.score)
    )
    lines = [
        line
        for fit in hearing.found
        if fit.whole and fit.score >= _WORTH_ASKING and 0 < len(fit.left) <= _MOST_LEFT
        if not any(_bars(hearing, at) for at in fit.left)
        for line in sentences(fit)
        if hearing.ear.reads(line)
    ]
    error = _too_much(hearing, best)
    if lines:
        error.says = (
            f"“{_words(hearing, best)}” says nothing to me.", "Without it? Else put it in a note.",
        )  # fmt: skip
    error.guesses = (*_guesses(lines), *_note(hearing))
    return error if best.left else None


def _bars(hearing: LineHearing, at: int) -> bool:
    """Return whether a word left over may turn the line, or be what it is about."""
    item = hearing.items[at]
    if item.amount is not None or item.word in hearing.ear.table.nouns:
        return True
    behind = hearing.items[at + 1] if at + 1 < len(hearing.items) else None
    before_noun = behind is not None and behind.amount is None and behind.word not in TURNING
    return item.word in TURNING and not (item.word in _BEFORE_A_NOUN and before_noun)


def _words(hearing: LineHearing, fit: RowFit) -> str:
    return " ".join(
        hearing.text[hearing.items[at].start : hearing.items[at].end] for at in fit.left
    )


def _too_much(hearing: LineHearing, fit: RowFit) -> DomainError:
    left = [hearing.items[at] for at in fit.left]
    heard = (
        *hearing.understood(fit),
        *(Understood(item.start, item.end, "left over") for item in left),
    )
    return DomainError(
        "too_much", f"“{_words(hearing, fit)}” is left over.", "Take it out, or put it in a note.",
        span=(left[0].start, left[0].end) if left else (0, len(hearing.text)),
        heard=tuple(sorted(heard, key=lambda part: part.start)),
    )  # fmt: skip


def _unknown(hearing: LineHearing) -> DomainError:
    words = [item for item in hearing.items if item.amount is None]
    strange = [item for item in words if not hearing.ear.table.knows(item.word)]
    first = next(iter([*strange, *words]), hearing.items[0])
    code: Code = "unknown_word"
    return DomainError(
        code, f"“{hearing.text[first.start : first.end]}” is not a word the jot line knows.",
        "Start with what it is, e.g. draw, scale, arrow, brace.",
        guesses=_note(hearing), span=(first.start, first.end),
    )  # fmt: skip


def bare_number(hearing: LineHearing, words: Sequence[str]) -> DomainError:
    """Return the question what a line of nothing but a number is; `words` are tried in order.

    >>> from lyrandis.core.jot import EAR
    >>> [guess.text for guess in bare_number(EAR.hear("62"), ("bow", "draw")).guesses]
    ['bow 62']
    """
    line = hearing.text.strip()
    lines = [f"{word} {line}" for word in words]
    return DomainError(
        "which_quantity", f"“{line}” could be several things.", "Say first what it is.",
        guesses=_guesses(one for one in lines if hearing.ear.reads(one)),
        span=(0, len(hearing.text)),
    )  # fmt: skip
