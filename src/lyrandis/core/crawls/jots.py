"""The jot line's words for crawls: marks as shot, what they are counted with, the table wanted."""

from lyrandis.core import entries as e
from lyrandis.core.archer.words import Anchor
from lyrandis.core.crawls.readings import (
    ArrowReach,
    CrawlHabit,
    CrawlMark,
    CrawlUnits,
    EyeHeight,
    FingerWidth,
    TabStitches,
)
from lyrandis.core.crawls.words import DistanceUnit, Notation
from lyrandis.core.spoken import Line, number_from
from lyrandis.core.stage_spec import Word
from lyrandis.core.units import YARDS

_FINGERS = ("finger", "fingers")
_STITCHES = ("stitch", "stitches")
_ANCHORS: dict[str, Anchor] = {
    "cheekbone": "cheekbone", "cheek": "cheekbone", "corner": "corner", "mouth": "corner",
    "chin": "under_chin", "under chin": "under_chin",
}  # fmt: skip
_NOTATIONS: dict[str, Notation] = {
    "mm": "mm", "millimetres": "mm", "fingers": "fingers", "stitches": "stitches",
}  # fmt: skip
_UNITS: dict[str, DistanceUnit] = {
    **dict.fromkeys(("m", "metre", "metres", "meter", "meters"), "m"),
    **dict.fromkeys(sorted(YARDS), "yd"),
}  # fmt: skip


def _far(line: Line) -> tuple[float, DistanceUnit]:
    """Take a distance and what it was said in."""
    distance = line.distance()
    return distance.metres, "yd" if distance.in_yards else "m"


def _crawl(line: Line) -> e.Reading:
    line.take_word("@", "at")
    guessed = line.take_word("guessed", "unmarked")
    distance, unit = _far(line)
    told: dict[str, object] = {"distance_m": distance, "unit": unit, **_how_deep(line)}
    while (token := line.peek()) is not None:
        word = token.text.lower()
        behind = line.after_next()
        if word in ("sure", "about"):
            told["sure"] = line.take().text.lower()
        elif word in ("guessed", "unmarked"):
            line.take()
            guessed = True
        elif token.kind == "number" and behind and behind.text.lower() in ("arrow", "arrows"):
            told["arrows"] = line.whole("number of arrows", 1, 36)
            line.take()
        elif token.kind == "number":
            off = line.length("hit_aside")
            if line.take_word("low", "under", "short"):
                off = -off
            elif not line.take_word("high", "over"):
                raise line.error(
                    "missing_choice", "Did it strike high or low?", "Say high or low behind it."
                )
            told["high_mm"] = off
        elif word in ("high", "low", "fine"):
            told["struck"] = line.take().text.lower()
        elif word in ("right", "hit"):
            line.take()
        else:
            break
    return CrawlMark(guessed=guessed, **told)


def _how_deep(line: Line) -> dict[str, object]:
    """Take a crawl: mm, inches, fingers or stitches; none is no crawl."""
    if line.take_word("none", "no", "point"):
        line.take_word("crawl", "on")
        return {"crawl_mm": 0.0}
    token, behind = line.peek(), line.after_next()
    if token is None or token.kind != "number":
        raise line.error(
            "missing_number", "The crawl is missing.",
            "Add it, e.g. 34mm, 2 3/4 fingers or 11 stitches.",
        )  # fmt: skip
    word = behind.text.lower() if behind is not None else ""
    for name, words in (("fingers", _FINGERS), ("stitches", _STITCHES)):
        if word in words:
            line.take()
            line.take()
            sign = -1.0 if line.take_word("above", "over") else 1.0
            return {name: sign * number_from(token.text)}
    crawl = line.small("hook_place", inches_below=5)
    return {"crawl_mm": -crawl if line.take_word("above") else crawl}


def _finger(line: Line) -> e.Reading:
    """One finger, or three of them closed."""
    three = line.take_word("three", "3")
    if three:
        line.take_word("fingers", "of")
        return FingerWidth(width_mm=round(line.small("three_fingers") / 3, 4))
    return FingerWidth(width_mm=line.small("finger_width", inches_below=1.5))


def _eye(line: Line) -> e.Reading:
    eye = line.small("eye_height", inches_below=6)
    token = line.peek()
    anchor = line.choice(_ANCHORS) if token is not None else None
    return EyeHeight(eye_mm=eye, anchor=anchor)


def _table(line: Line) -> e.Reading:
    first, unit = _far(line)
    line.take_word("to", "-")
    last, _ = _far(line)
    line.take_word("every", "by", ",")
    step, _ = _far(line)
    return CrawlHabit(from_m=first, to_m=last, step_m=step, unit=unit)


WORDS: tuple[Word, ...] = (
    Word("crawl", "rig", "crawl 20m 34mm", "a crawl as shot at a distance: mm, inches, fingers or stitches; “12cm high”, or only “high”, where it struck elsewhere, “sure” or “about”, “guessed”", _crawl),
    Word("finger", "archer", "finger 19mm", "one finger's width across the tab, a third of three closed", _finger),
    Word("stitches", "archer", "stitches 33mm", "ten stitches of the tab, measured over all ten", lambda line: TabStitches(ten_mm=line.small("ten_stitches", inches_below=3.5))),
    Word("eye", "archer", "eye 62mm", "eye over the nock at full draw without a crawl, from a mirror; the anchor behind it if another", _eye),
    Word("reach", "arrow_set", "reach 31in", "nock groove to the point's very end", lambda line: ArrowReach(reach_mm=line.length("arrow_reach"))),
    Word("crawlunits", "rig", "crawlunits yards", "what the distances of all crawls until now were meant in", lambda line: CrawlUnits(unit=line.choice(_UNITS))),
    Word("crawlsin", "archer", "crawlsin stitches", "how crawls are counted: mm, fingers or stitches", lambda line: CrawlHabit(notation=line.choice(_NOTATIONS))),
    Word("repeats", "archer", "repeats 2mm", "how well a crawl repeats, one standard deviation", lambda line: CrawlHabit(repeat_mm=line.small("run_out"))),
    Word("crawltable", "archer", "crawltable 5m to 50m every 5m", "the distances the table is wanted for", _table),
)  # fmt: skip
