"""The jot line's words for the string and its brace."""

from lyrandis.core import entries as e
from lyrandis.core.archer.jots import read_datum
from lyrandis.core.heard import Choice, Hears, Slot
from lyrandis.core.room import Word
from lyrandis.core.spoken import Line


def _brace(line: Line) -> e.Reading:
    height = line.length("brace_height")
    return e.BraceHeight(
        brace_height_mm=height, datum="back" if read_datum(line) == "back" else "pivot"
    )


def _string(line: Line) -> e.Reading:
    length = line.length("string_length")
    strands = None
    if not line.done:
        strands = line.whole("number of strands", 4, 60)
        line.take_word("strands", "strand")
    return e.StringBuild(string_length_mm=length, strands=strands)


_HEIGHT = (
    Hears(
        "brace {length}", ("brace height", "braced", "bh", "fistmele"), (Slot("length", "length"),)
    ),
)
_BUILD = (
    Hears(
        "string {length} {strands} strands",
        ("string length", "bowstring"),
        (Slot("length", "length"), Slot("strands", "whole")),
        (Choice("of", {"strands": "", "strand": ""}),),
    ),
    Hears("string {length}", ("string length", "bowstring"), (Slot("length", "length"),)),
)

WORDS: tuple[Word, ...] = (
    Word("brace", "rig", "brace 7 5/8", "brace height", _brace, hears=_HEIGHT),
    Word("string", "string", "string 59 16 strands", "string length and strands", _string, hears=_BUILD),
)  # fmt: skip
