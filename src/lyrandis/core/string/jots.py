"""The jot line's words for the string and its brace."""

from typing import get_args

from lyrandis.core import entries as e
from lyrandis.core.errors import Guess
from lyrandis.core.free_order import Choice, Hears, Slot
from lyrandis.core.spoken import Line, number_from
from lyrandis.core.stage_spec import Word
from lyrandis.core.string.readings import (
    BraceHeight,
    BraceTried,
    StringBuild,
    StringSettled,
    StringStrung,
    StringTurned,
    StringTurns,
)
from lyrandis.core.string.words import (
    STRING_MATERIAL_WORDS,
    BraceDatum,
    StringMaterial,
    StringType,
    Tail,
)

_DATUMS: dict[str, BraceDatum] = {
    "grip": "pivot", "pivot": "pivot", "throat": "pivot", "back": "back", "plunger": "plunger",
    "button": "plunger",
}  # fmt: skip
_ASKED: tuple[tuple[str, str], ...] = (
    ("grip", "the deepest part of the grip"),
    ("back", "the back of the riser"),
    ("plunger", "the plunger's line"),
)
_MATERIALS: dict[str, StringMaterial] = {
    **{words: material for material, words in STRING_MATERIAL_WORDS.items()},
    "low stretch": "low_stretch",
}
_TYPES: dict[str, StringType] = {
    "endless loop": "endless", "endless": "endless", "twisted bundles": "twisted",
    "twisted": "twisted", "laid in": "twisted",
}  # fmt: skip


def _brace_datum(line: Line) -> BraceDatum:
    """Take where a brace was read to: said, or as on this rig last time; never guessed."""
    line.take_word("to")
    line.take_word("the")
    token = line.peek()
    said = _DATUMS.get(token.text.lower()) if token else None
    if said is not None:
        line.take()
        line.take_word("line")
        return said
    if line.brace_datum is not None:
        return line.brace_datum  # type: ignore[return-value]
    error = line.error(
        "which_datum", "Brace is measured to three places.", "Say to which: grip, back or plunger."
    )
    error.guesses = tuple(
        Guess(f"{line.text.strip()} {word}", f"To {words}?") for word, words in _ASKED
    )
    raise error


def _hours(line: Line) -> float | None:
    if not line.take_word("after"):
        return None
    hours = _number(line, "The hours strung are missing.", "Type after 3h.")
    line.take_word("h", "hours", "hour", "hrs")
    line.take_word("strung")
    return hours


def _number(line: Line, reason: str, instruction: str) -> float:
    token = line.peek()
    if token is None or token.kind != "number":
        raise line.error("missing_number", reason, instruction)
    line.take()
    return number_from(token.text)


def _brace(line: Line) -> e.Reading:
    height = line.length("brace_height")
    datum = _brace_datum(line)
    return BraceHeight(brace_height_mm=height, datum=datum, hours_strung=_hours(line))


def _string(line: Line) -> e.Reading:
    length = line.length("string_length")
    strands = None
    if not line.done:
        strands = line.whole("number of strands", 4, 60)
        line.take_word("strands", "strand")
    return StringBuild(string_length_mm=length, strands=strands)


_IN = ("more", "added", "add", "extra")
_OUT = ("out", "less", "fewer", "off", "removed")


def _turns(line: Line) -> e.Reading:
    """Take a count of turns, or with a sign or a word that turns it a change of them."""
    token = line.peek()
    signed = token is not None and token.text[:1] in "+-−"
    line.take_word("+")
    turns = _number(line, "The turns are missing.", "Type turns 19 1/2, or turns 10 more.")
    if line.take_word(*_OUT):
        return StringTurned(turns_by=-abs(turns))
    if line.take_word(*_IN) or signed:
        return StringTurned(turns_by=turns)
    return StringTurns(turns=turns)


def _strung(line: Line) -> e.Reading:
    line.take_word("now")
    return StringStrung(strung=True)


def _unstrung(line: Line) -> e.Reading:
    line.take_word("now")
    return StringStrung(strung=False)


def _settled(line: Line) -> e.Reading:
    new = line.take_word("not", "new")
    line.take_word("string", "yet")
    return StringSettled(settled=not new)


def _silencers(line: Line) -> e.Reading:
    mass = line.mass("part_mass")
    place = line.length("silencer_place") if line.take_word("@", "at") else None
    return StringBuild(silencers_gr=mass, silencers_mm=place)


def _ratings(line: Line) -> tuple[float, ...]:
    result = []
    while (token := line.peek()) is not None and token.kind == "number":
        result.append(number_from(line.take().text))
    return tuple(result)


_TAILS: dict[str, Tail] = {word: word for word in get_args(Tail)}
_PARTS = ("sound", "shock", "turns", "tail")


def _tail(line: Line) -> Tail:
    token = line.peek()
    if token is None or token.text.lower() not in _TAILS:
        raise line.error(
            "missing_choice",
            "Where the tail pointed is not said.",
            "Say straight, left, right, high or low.",
        )
    return _TAILS[line.take().text.lower()]


def _tried(line: Line) -> e.Reading:
    token = line.peek()
    if token is None or token.text.lower() in _PARTS:
        raise line.error(
            "missing_number",
            "The brace it was shot at is missing.",
            "Read it and give it, e.g. 7 1/2 grip.",
        )
    height = line.length("brace_height")
    token = line.peek()
    told = token is not None and token.text.lower() not in _PARTS
    datum = _brace_datum(line) if told or line.brace_datum is None else line.brace_datum
    said: dict[str, tuple[float, ...]] = {"sound": (), "shock": ()}
    turns = tail = None
    while not line.done:
        if line.take_word("sound"):
            said["sound"] = _ratings(line)
        elif line.take_word("shock"):
            said["shock"] = _ratings(line)
        elif line.take_word("tail"):
            tail = _tail(line)
        elif line.take_word("turns"):
            turns = _number(line, "The turns are missing.", "Type turns 19 1/2.")
        else:
            break
    return BraceTried(brace_height_mm=height, datum=datum, turns=turns, tail=tail, **said)


_HEIGHT = (
    Hears(
        "brace {length} {datum}",
        ("brace height", "braced", "bh", "fistmele"),
        (Slot("length", "length"),),
        (Choice("datum", {"to the back": "back", "to the grip": "grip", "to the plunger": "plunger",
                          "deepest grip": "grip"}),),
    ),
)  # fmt: skip
_BUILD = (
    Hears(
        "string {length} {strands} strands",
        ("string length", "bowstring"),
        (Slot("length", "length"), Slot("strands", "whole")),
        (Choice("of", {"strands": "", "strand": ""}),),
    ),
    Hears("string {length}", ("string length", "bowstring"), (Slot("length", "length"),)),
)
_CHANGED = Choice("way", {
    "more": "more", "added": "more", "add": "more", "put in": "more", "extra": "more",
    "out": "out", "took out": "out", "taken out": "out", "take out": "out", "less": "out",
    "fewer": "out", "removed": "out",
}, needed=True)  # fmt: skip
_TURNED = (
    Hears(
        "turns {turns} {way}",
        ("turns", "turn", "twists", "twist"),
        (Slot("turns", "any"),),
        (_CHANGED,),
        ("string",),
    ),
    Hears("turns {turns}", ("twists",), (Slot("turns", "any"),), (), ("string",)),
)

WORDS: tuple[Word, ...] = (
    Word("brace", "rig", "brace 7 5/8 grip", "brace height, to the grip, the back or the plunger; add “after 3h” while a new string settles", _brace, hears=_HEIGHT),
    Word("string", "string", "string 59 16 strands", "string length and strands", _string, hears=_BUILD),
    Word("fibre", "string", "fibre polyester", "what the string is made of", lambda line: StringBuild(material=line.choice(_MATERIALS))),
    Word("stringtype", "string", "stringtype twisted bundles", "endless loop or twisted bundles", lambda line: StringBuild(string_type=line.choice(_TYPES))),
    Word("turns", "string", "turns 19 1/2", "turns in the string now; or a change of them, “turns 10 more”, “turns 5 out”", _turns, ("twists",), hears=_TURNED),
    Word("bundle", "string", "bundle 2.1mm", "the unserved string's thickness", lambda line: StringBuild(bundle_mm=line.small("bundle_diameter", inches_below=0.3))),
    Word("thread", "string", "thread 0.46mm", "the serving thread's thickness", lambda line: StringBuild(thread_mm=line.small("thread_diameter", inches_below=0.06))),
    Word("serving", "string", "serving 5 1/2", "length of the middle serving", lambda line: StringBuild(serving_mm=line.length("serving_length"))),
    Word("silencers", "string", "silencers 24gr @ 12", "both silencers' mass, and how far from the loops they sit", _silencers),
    Word("strung", "string", "strung now", "the bow was strung: the string's hours begin", _strung),
    Word("unstrung", "string", "unstrung now", "the bow was unstrung: its hours stop", _unstrung),
    Word("settled", "string", "settled string", "an old string that no longer stretches; “settled not yet” for a new one", _settled),
    Word("tried", "rig", "tried 7 1/2 sound 3 4 3 shock 2 3 2", "a brace height that was shot, rated 0 still to 10 harsh", _tried),
)  # fmt: skip
