"""What several rows make of their numbers: a change and which way it goes."""

from lyrandis.core.hearing.matching import A_UNIT, Builder, Matching

MORE = (
    "added; add; adding; another; put; more; extra; up; raised; raise; higher; increased; heavier; "
    "moved up"
)
LESS = (
    "took; take; taken; removed; less; fewer; down; lowered; lower; reduced; lighter; unwound; "
    "untwisted; off; moved down"
)
"""Words of a change: it is never a total."""
WAY = "_way"
"""The choice that says which way a change goes: 1 or -1."""


def changed_by(field: str, more: str, less: str) -> Builder:
    """Return what fills a row's change: it has a size, and a sign or a word for its way.

    `more` and `less` are how each way is said back.

    >>> from lyrandis.core.jot import parse
    >>> parse("+10 turns").reading.turns_by, parse("let out 4 twists").reading.turns_by
    (10.0, -4.0)
    """

    def build(matching: Matching) -> bool:
        if not matching.fill():
            return False
        size = matching.values[field]
        signed = any(item.amount is not None and item.amount.sign for item in matching.items)
        way = matching.chosen.get(WAY) or (0 if not signed else 1 if size > 0 else -1)
        if way == 0:
            return False
        matching.values[field] = way * abs(size)
        matching.texts[WAY] = more if way > 0 else less
        matching.texts[field] = matching.texts[field].lstrip("+-−")
        matching.score += A_UNIT
        return True

    return build


def with_way(field: str) -> Builder:
    """Return what fills a row whose size has a sign, or a word for its way; else it is positive.

    >>> from lyrandis.core.jot import parse
    >>> parse("handrise 1mm low").reading.hand_at_full_mm
    -1.0
    """

    def build(matching: Matching) -> bool:
        if not matching.fill():
            return False
        size = matching.values[field]
        way = matching.chosen.get(WAY) or (-1 if size < 0 else 1)
        matching.values[field] = way * abs(size)
        matching.texts[field] = matching.texts[field].lstrip("+-−")
        matching.texts[WAY] = matching.word.own_words[WAY][way] if size else ""
        return True

    return build
