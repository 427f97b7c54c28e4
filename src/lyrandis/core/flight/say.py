"""The flight in words: how sure, which cause, which test, how it is put back."""

from lyrandis.core.flight.choose import FlightTest
from lyrandis.core.flight.readings import Change, metres
from lyrandis.core.flight.settle import TUNED_FROM
from lyrandis.core.flight.state import Said
from lyrandis.core.flight.words import CAUSE_WORDS, HEIGHT_WORDS, AxisName, Class
from lyrandis.core.phrase import Phrase, percent, phrase

_SURE = (
    (0.95, "almost surely"), (0.90, "nearly certain"), (0.75, "probably"), (0.5, "likely"),
    (0.2, "possible"), (0.05, "unlikely"),
)  # fmt: skip
TAIL_WORDS = ("strong", "clear", "slight", "straight", "slight", "clear", "strong")


def sure_word(chance: float) -> str:
    """Return how sure a chance is, in words.

    Assumption: our own words; from three in four a cause is said.

    >>> [sure_word(chance) for chance in (0.97, 0.92, 0.8, 0.6, 0.3, 0.1, 0.01)]
    ['almost surely', 'nearly certain', 'probably', 'likely', 'possible', 'unlikely', 'hardly']
    """
    return next((word for least, word in _SURE if chance >= least), "hardly")


def cause_word(axis: AxisName, cause: Class) -> str:
    """Return what a cause is called.

    Source: words of the trade.

    >>> cause_word("spine", "false_weak"), cause_word("upright", "false_weak")
    ('false weak', 'low, bounces')
    """
    return (CAUSE_WORDS if axis == "spine" else HEIGHT_WORDS)[cause]


def said_words(said: Said) -> str:
    """Return what is said of a shaft, without its chance.

    Source: words of the trade.

    >>> said_words(Said("stiff", 0.92, 0.6)), said_words(Said("false_weak", 0.8))
    ('too stiff', 'false weak')
    """
    if said.strikes is not None:
        return "too stiff"
    return cause_word("spine", said.cause)


def strikes_says(said: Said) -> Phrase | None:
    """Return that a stiff shaft may strike as well, where that is as likely as not.

    Source: both ways of too stiff want the same cure.

    >>> strikes_says(Said("stiff", 0.92, 0.6)).text()
    'Its tail may strike as well, 60 %: weaker shafts are the cure either way.'
    """
    if said.strikes is None:
        return None
    return phrase("Its tail may strike as well, {chance}: weaker shafts are the cure either way.",
                  chance=percent(said.strikes))  # fmt: skip


def sure_of(said: Said) -> str:
    """Return how sure what is said is, in words; of tuned never more than four in five.

    Source: closed loops on virtual rigs.

    >>> sure_of(Said("tuned", 0.8)), sure_of(Said("weak", 0.92))
    ('about four in five', 'nearly certain')
    """
    if said.cause == "tuned" and said.chance >= TUNED_FROM:
        return "about four in five"
    return sure_word(said.chance)


MEANS: dict[Class, str] = {
    "false_weak": "A stiff shaft whose tail strikes the plate and turns round.",
    "stiff": "The shaft is too stiff for this rig.",
    "weak": "The shaft is too weak for this rig.",
    "tuned": "The shaft is within a tenth of what this rig wants.",
}


def test_title(test: FlightTest, change: Change | None) -> Phrase:
    """Return what a test is called.

    Source: words of the trade.

    >>> from lyrandis.core.flight.choose import PLAIN_TESTS
    >>> [test_title(test, None).text() for test in PLAIN_TESTS[:3]]
    ['Tail at 2.3 m', 'Tail at 5.3 m', 'Bare shafts at 18 m']
    """
    at = metres(test.distance_m)
    if change is not None:
        said = change.say()
        return phrase(f"{said.template[0].upper()}{said.template[1:]}", **said.figures)
    if test.sees == "tail":
        return phrase(f"Tail at {at}")
    if test.sees == "bare":
        six = ", six of each" if test.arrows > 3 else ""
        return phrase(f"Bare shafts at {at}{six}")
    if test.sees == "mark":
        return phrase("Felt on the side plate")
    return phrase("Listen for a slap")


_MANY = {3.0: "three", 6.0: "six"}
_WITH = {"draw_short": "", "draw_extra": "", "silencers": "with ", "other_shafts": "with "}


def trial_act(change: Change, many: str = "three") -> Phrase:
    """Return what to shoot for a trial, as a next step is called.

    Source: words of the trade.

    >>> trial_act(Change(what="draw_short", amount=25.4)).text()
    'Shoot three drawn 1 in short'
    """
    said = change.say()
    by = _WITH.get(change.what, "with the ")
    return phrase(f"Shoot {many} {by}{said.template}", **said.figures)


def test_act(test: FlightTest, change: Change | None) -> Phrase:
    """Return what to do for a test, as a next step is called.

    Source: words of the trade.

    >>> from lyrandis.core.flight.choose import PLAIN_TESTS
    >>> test_act(PLAIN_TESTS[0], None).text()
    'Shoot three from 2.3 m, read the tail'
    >>> test_act(PLAIN_TESTS[0], Change(what="brace", amount=-6.35)).text()
    'Shoot three with the brace 1/4 in lower'
    """
    at, many = metres(test.distance_m), _MANY.get(test.arrows, f"{test.arrows:g}")
    if change is not None:
        return trial_act(change, many)
    if test.sees == "tail":
        return phrase(f"Shoot {many} from {at}, read the tail")
    if test.sees == "bare":
        return phrase(f"Shoot {many} bare shafts from {at}")
    if test.sees == "mark":
        return phrase("Look for a mark on the side plate")
    return phrase("Listen for a slap")


def test_how(test: FlightTest, change: Change | None) -> Phrase:
    """Return how a test is shot: how far, how many arrows, what is changed.

    Source: practice of the trade.

    >>> from lyrandis.core.flight.choose import PLAIN_TESTS
    >>> test_how(PLAIN_TESTS[5], None).text()
    'Put felt or powder on the side plate, shoot six, and look for a mark.'
    """
    at, arrows = metres(test.distance_m), f"{test.arrows:g}"
    if test.sees == "mark":
        return phrase("Put felt or powder on the side plate, shoot six, and look for a mark.")
    if test.sees == "slap":
        return phrase("Shoot three with nobody talking, and listen for the shaft on the bow.")
    if test.sees == "bare":
        return phrase(
            f"Shoot {arrows} bare and {arrows} fletched at the same mark from {at}, at a clear "
            "backstop. Bare shafts strike anywhere: nobody near the butt."
        )
    look = f"shoot {arrows} fletched arrows from {at} and look which way the nocks point back."
    if change is None:
        return phrase(f"At a butt chest high, {look}")
    by = change.say()
    return phrase(f"{first_of(change)} Then {look} {put_back(change)}", **by.figures)


def first_of(change: Change) -> str:
    """Return what is done for a trial before it is shot; its figure is that of `Change.say`.

    Source: practice of the trade.

    >>> first_of(Change(what="plate", amount=2.0))
    'Move the side plate or plunger 2 mm further out.'
    """
    more = change.amount > 0
    way = {
        "plate": "further out" if more else "further in",
        "nock": "up" if more else "down",
    }.get(change.what, "on" if more else "off")
    first = _FIRST[change.what].replace("{mm}", f"{abs(change.amount):g}")
    return (
        first.replace("{way}", way)
        .replace("{more}", "heavier" if more else "lighter")
        .replace("{higher}", "higher" if more else "lower")
    )


_FIRST = {
    "draw_short": "Let the point stand {by} farther out than at your anchor.",
    "draw_extra": "Draw {by} past your anchor, no further.",
    "silencers": "Silencers {way}, {by}.",
    "plate": "Move the side plate or plunger {mm} mm {way}.",
    "point": "Points {by} {more}.",
    "brace": "Brace {by} {higher}.",
    "other_shafts": "Borrow three shafts of {by}, as long and with the same points.",
    "nock": "Move the nock {mm} mm {way}, and mark where it stood.",
}
_BACK = {
    "draw_short": "Back to your anchor after.",
    "draw_extra": "Back to your anchor after.",
    "silencers": "Put the silencers back as they were.",
    "plate": "Put the plate back where it stood.",
    "point": "Put your own points back on.",
    "brace": "Put the brace back where it stood.",
    "other_shafts": "Your own shafts again after.",
    "nock": "Put the nock back on its mark.",
}


def put_back(change: Change) -> str:
    """Return how a trial is put back.

    Source: practice of the trade: keep the way back.

    >>> put_back(Change(what="plate", amount=2.0))
    'Put the plate back where it stood.'
    """
    return _BACK[change.what]
