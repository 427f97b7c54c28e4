"""Words that say nothing of a reading, and words that turn one round.

Nothing that could turn a line round is filler: no on, off, in, out, up, down, not, no, more, less.
"""


def _words(text: str) -> frozenset[str]:
    return frozenset(text.split())


FILLER = _words("""
    my mine our the a an is are was were be been am it its this that these those i im ive we he she
    you of and then now just so have has had got get gets give gives measured measure measures
    measuring at with for from by please use using shoot shooting me currently exactly since where
    whole sits sit stands stand comes come seems there here say says show shows showing reading
    came set altogether full really actually again already still finally nice good well bit little
    some any being new swapped can will one his her him us them their your our also very
    quite only which what when while as but therefore club
    : = , . ; ! ( ) ~ ? ' "
""")
IDIOMS = frozenset(
    {
        ("came", "out"), ("comes", "out"), ("come", "out"), ("came", "in"), ("comes", "in"),
        ("come", "in"), ("in", "total"), ("in", "all"), ("works", "out"), ("ended", "up"),
        ("settled", "in"), ("on", "average"), ("measured", "to"), ("had", "to"), ("up", "front"),
        ("of", "course"), ("so", "far"), ("for", "now"), ("right", "now"),
    }
)  # fmt: skip
"""Pairs that say nothing, though one of their words alone might."""
HEDGES = _words("""
    about around approx approximately roughly maybe perhaps probably nearly think guess reckon
    circa ca ish ~
""")
"""Words that make a reading an estimate."""
DENIALS = _words("no not nor none nothing neither hardly without")
"""Words that deny: they must belong to a phrase of the row, or the line is refused."""
TURNING = _words("""
    no not none nor off out in on up down more less added add adding took take extra higher lower
    heavier lighter raised lowered reduced increased moved left right over under past before until
    between than without high low max min maximum minimum least most limit each both twice double
    half two
""")
"""Words that may turn what a line says: none is ever left out of it unasked."""
