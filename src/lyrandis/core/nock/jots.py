"""The jot line's words for the nock, the tiller and the riser."""

from lyrandis.core import entries as e
from lyrandis.core.constants import GRAINS_PER_GRAM
from lyrandis.core.errors import Guess
from lyrandis.core.nock.readings import (
    ArrowNock,
    BowKitTold,
    CentreShot,
    LimbBolts,
    LimbsInLine,
    NockHeight,
    NockLocked,
    NockShot,
    RiserSide,
    RiserWeight,
    TillerGaps,
    UsualCrawl,
)
from lyrandis.core.nock.words import BowKit, LimbPlace, NockFlight
from lyrandis.core.quantities import check
from lyrandis.core.spoken import Line, number_from
from lyrandis.core.stage_spec import Word

_PLACES: dict[str, LimbPlace] = {"fade": "fade", "fades": "fade", "pocket": "pocket"}
_FLIGHTS: dict[str, NockFlight] = {
    "clean": "clean", "bounced": "bounced", "bare level": "bare_level", "level": "bare_level",
    "bare high": "bare_high", "bare low": "bare_low",
}  # fmt: skip
_KITS: dict[str, BowKit] = {
    "plain": "plain", "nothing": "plain", "rest": "rest", "plunger": "rest", "full": "full",
    "bolts": "full",
}  # fmt: skip


def _lift(line: Line) -> e.Reading:
    return NockHeight(height_mm=line.small("nock_height", inches_below=1.2), datum="lift")


def _locator(line: Line) -> e.Reading:
    height = line.small("nock_height", inches_below=1.2)
    under = line.take_word("under", "below")
    if not under:
        line.take_word("over", "above")
    return NockHeight(height_mm=height, datum="locator_under" if under else "locator_over")


def _nock(line: Line) -> e.Reading:
    """A bare nock height could be three things: it is asked for."""
    rest = line.rest()
    error = line.error(
        "which_datum",
        "A nock height is read in three ways.",
        "Say lift (the arrow's underside), or locator over or under the arrow.",
    )
    error.guesses = (
        Guess(f"lift {rest}", "The arrow's underside over square?"),
        Guess(f"locator {rest} over", "Lower edge of a locator above the arrow?"),
        Guess(f"locator {rest} under", "Upper edge of a locator below it?"),
    )
    raise error


def _lock(line: Line) -> e.Reading:
    free = line.take_word("free", "off")
    if not free:
        line.take_word("on", "fixed", "found")
    return NockLocked(locked=not free)


def _shot(line: Line) -> e.Reading:
    lift = line.small("nock_height", inches_below=1.2)
    return NockShot(lift_mm=lift, flew=line.choice(_FLIGHTS))


def _place(line: Line) -> LimbPlace:
    line.take_word("at")
    line.take_word("the")
    token = line.peek()
    if token is None or token.text.lower() not in _PLACES:
        raise line.error("missing_choice", "Where on the limbs is not said.", "Add fade or pocket.")
    return _PLACES[line.take().text.lower()]


def _tiller(line: Line) -> e.Reading:
    upper, lower = (
        line.small("tiller_gap", inches_below=15),
        line.small("tiller_gap", inches_below=15),
    )
    place = _place(line)
    other = _place(line) if not line.done else None
    return TillerGaps(upper_mm=upper, lower_mm=lower, place=place, lower_place=other)


def _in_line(line: Line) -> e.Reading:
    return LimbsInLine(upper_mm=line.small("aside"), lower_mm=line.small("aside"))


def _centre(line: Line) -> e.Reading:
    out = line.small("aside")
    inside = line.take_word("in", "inside")
    if not inside:
        line.take_word("out", "outside")
    return CentreShot(out_mm=-out if inside else out)


def _number(line: Line, what: str) -> float:
    token = line.peek()
    if token is None or token.kind != "number":
        raise line.error("missing_number", f"{what} is missing.", "Type a plain number.")
    line.take()
    return number_from(token.text)


def _bolts(line: Line) -> e.Reading:
    if line.take_word("most", "max"):
        return LimbBolts(most_turns=_number(line, "The maker's most"))
    return LimbBolts(
        upper_turns=_number(line, "The upper bolt's turns"),
        lower_turns=_number(line, "The lower bolt's turns"),
    )


def _weight(line: Line) -> e.Reading:
    grams = line.mass("riser_mass") / GRAINS_PER_GRAM
    up = line.small("upward")
    if line.take_word("down"):
        up = -abs(up)
    else:
        line.take_word("up")
    token = line.peek()
    forward = None
    if token is not None and token.kind == "number":
        forward = line.small("forward")
        line.take_word("forward")
    place = line.rest() or "weight"
    beside = {} if forward is None else {"forward_mm": forward}
    return RiserWeight(place=place, mass_g=round(grams, 3), up_mm=up, **beside)


def _side(line: Line) -> float:
    depth = line.small("under_rest", inches_below=1.2)
    line.take_word("under", "below")
    return depth


def _hand_rise(line: Line) -> e.Reading:
    value = line.small("hand_at_full")
    if line.take_word("low", "lower", "under", "down"):
        value = -abs(value)
    else:
        line.take_word("high", "higher", "over", "up")
    return RiserSide(hand_at_full_mm=value)


def _arrow_nock(line: Line) -> float:
    return line.small("nock_outside")


def _crawl(line: Line) -> e.Reading:
    if line.take_word("none", "no"):
        return UsualCrawl(crawl_mm=0.0)
    return UsualCrawl(crawl_mm=check("crawl", line.small("crawl", inches_below=5)))


WORDS: tuple[Word, ...] = (
    Word("lift", "rig", "lift 6.5mm", "the arrow's underside at the string, over square", _lift),
    Word("locator", "rig", "locator 13mm over", "a locator's edge over square: over the arrow its lower, under it its upper", _locator),
    Word("nock", "rig", "nock lift 11mm", "nock height; say whether it is the lift or a locator", lambda line: _lift(line) if line.take_word("lift") else _locator(line) if line.take_word("locator") else _nock(line)),
    Word("nockfixed", "rig", "nockfixed found", "the nock height is found and fixed; “nockfixed free” lets it move again", _lock),
    Word("nockshot", "rig", "nockshot 6mm clean", "a lift that was shot: clean, bounced, bare level, bare high or bare low", _shot),
    Word("nockwidth", "arrow_set", "nockwidth 6.5mm", "how thick the arrow's own nock is", lambda line: ArrowNock(outside_mm=_arrow_nock(line))),
    Word("nockgroove", "arrow_set", "nockgroove 2.8mm", "how wide the arrow nock's groove is", lambda line: ArrowNock(groove_mm=line.small("nock_groove"))),
    Word("tiller", "rig", "tiller 181.5mm 177mm pocket", "upper and lower gap, both at the fade or both at the pocket", _tiller),
    Word("limbline", "rig", "limbline 0.5mm -0.5mm", "string off the middle of the upper and lower limb's root, + to the arrow's side", _in_line),
    Word("centreshot", "rig", "centreshot 1mm out", "the point outside the string's line", _centre),
    Word("bolts", "bow", "bolts 3 3", "turns the upper and lower limb bolt are out; or “bolts most 5”", _bolts),
    Word("riserweight", "rig", "riserweight 60g 150mm down 30mm forward lower insert", "a weight on the riser and where it sits from the grip", _weight),
    Word("gripmark", "rig", "gripmark 15.5mm", "top of the hand under the rest", lambda line: RiserSide(grip_under_rest_mm=_side(line))),
    Word("handrise", "rig", "handrise 1mm high", "top of the hand against its mark at full draw, when the arrow lies on the hand; or “1mm low”", _hand_rise),
    Word("shelf", "rig", "shelf 9mm under", "the shelf under the rest", lambda line: RiserSide(shelf_under_rest_mm=_side(line))),
    Word("usualcrawl", "archer", "usualcrawl 22mm", "the crawl shot most; “usualcrawl none”", _crawl),
    Word("kit", "bow", "kit plain", "what can be set on the bow: plain, rest or full", lambda line: BowKitTold(kit=line.choice(_KITS))),
)  # fmt: skip
