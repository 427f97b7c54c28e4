"""What the crawls' rows make of a line: how deep, from how far, and where it struck."""

from lyrandis.core.hearing.distance import in_yards, place_distance
from lyrandis.core.hearing.matching import A_UNIT, A_WAY, Matching
from lyrandis.core.hearing.slots import InSlot
from lyrandis.core.hearing.table import Slot

MARK_AT = Slot("distance_m", "distance", "mark_distance", label="distance")
CRAWL = Slot("crawl_mm", "length", "hook_place", needed=False, signed=True)
COUNTED = (
    Slot("fingers", "finger", "fingers", needed=False, by_name=True, signed=True),
    Slot("stitches", "stitch", "stitches", needed=False, by_name=True, signed=True),
)
_OFF = Slot("high_mm", "length", "hit_aside")
_HIGH = ("high", "over")
_LOW = ("low", "under", "short")


def take_distance(matching: Matching) -> bool:
    """Place the distance of a mark, and what it was said in."""
    if not place_distance(matching, MARK_AT, anywhere=True):
        return False
    matching.values["unit"] = "yd" if in_yards(matching) else "m"
    return True


def distance_alone(matching: Matching) -> bool:
    """A mark without a crawl: its distance, and how many arrows it is of."""
    _take_arrows(matching)
    return take_distance(matching)


def crawl(matching: Matching) -> bool:
    """A crawl as shot: a distance, how deep, and where it struck if it struck elsewhere."""
    if not (matching.says("crawl", "crawling", "crawled") or _counted(matching)):
        return False
    _take_arrows(matching)
    if not take_distance(matching):
        return False
    _take_struck_by(matching)
    if not _take_depth(matching):
        matching.lacks = "_deep"
        return False
    _take_struck(matching)
    if matching.free():
        matching.lacks = "_struck"
    return not matching.lacks


def _counted(matching: Matching) -> bool:
    return any(matching.taken(slot, at) for slot in COUNTED for at in matching.free())


def _take_arrows(matching: Matching) -> None:
    for at in matching.free():
        amount = matching.items[at].amount
        if amount is not None and amount.unit in ("arrow", "arrows"):
            matching.used[at] = "arrows"
            matching.values["arrows"] = int(amount.value)
            matching.texts["_arrows"] = amount.text


def _take_depth(matching: Matching) -> bool:
    """Take the crawl: fingers, stitches or a length; “above” puts it over the nock."""
    for slot in (*COUNTED, CRAWL):
        for at in matching.free():
            behind = matching.items[at + 1].word if at + 1 < len(matching.items) else ""
            alone = len(matching.free()) == 1
            if slot is CRAWL and behind in ("high", "low") and not alone:
                continue
            what = matching.taken(slot, at)
            if what is None or what.value is None:
                continue
            matching.put(slot, at, what)
            matching.texts["_deep"] = matching.texts.pop(slot.field)
            matching.score += A_UNIT
            if behind in ("above", "over") and not (slot is CRAWL and _is_strike(matching, at)):
                matching.values[slot.field] = -abs(what.value)
                matching.use(at + 1, "_deep")
                matching.texts["_deep"] += " above"
            return True
    return False


def _is_strike(matching: Matching, at: int) -> bool:
    return matching.items[at + 1].word == "over" and bool(matching.free())


def _take_struck_by(matching: Matching) -> None:
    """Take how far high or low it struck: the length before high or low."""
    for at in reversed(matching.free()):
        behind = matching.items[at + 1].word if at + 1 < len(matching.items) else ""
        if behind not in ("high", "low"):
            continue
        others = [one for one in matching.free() if one != at]
        what = matching.taken(_OFF, at)
        if what is None or what.value is None or not others:
            continue
        _put_struck(matching, at, what, behind)
        matching.use(at + 1, "high_mm", A_WAY)
        return


def _put_struck(matching: Matching, at: int, what: InSlot, way: str) -> None:
    matching.put(_OFF, at, what)
    matching.values["high_mm"] = (what.value or 0.0) * (-1 if way in _LOW else 1)
    matching.texts["_struck"] = f"{matching.texts.pop('high_mm')} {way}"


def _take_struck(matching: Matching) -> None:
    """Take where it struck without a figure, or with the figure behind the word."""
    for at, item in enumerate(matching.items):
        if matching.used[at] is not None or item.word not in ("high", "low", "fine"):
            continue
        for place in matching.free():
            what = matching.taken(_OFF, place)
            if item.word != "fine" and what is not None and what.value is not None:
                _put_struck(matching, place, what, item.word)
                break
        else:
            matching.values["struck"] = item.word
            matching.texts["_struck"] = item.word
        matching.use(at, "struck", A_WAY)
        return


def struck_without_crawl(matching: Matching) -> bool:
    """No crawl, and how far high or low it struck."""
    if not take_distance(matching):
        return False
    at = next(iter(matching.free()), None)
    what = None if at is None else matching.taken(_OFF, at)
    way = next((item for item in matching.items if item.word in ("high", "low")), None)
    if at is None or what is None or what.value is None or way is None:
        return False
    _put_struck(matching, at, what, way.word)
    for place, item in enumerate(matching.items):
        if item is way:
            matching.use(place, "high_mm", A_WAY)
    return True


def gap_held(matching: Matching) -> bool:
    """A gap held with the point: under the mark it struck so much high, over it low."""
    if not take_distance(matching) or not matching.fill((_OFF,)):
        return False
    matching.values["high_mm"] *= matching.chosen.get("_way", 1)
    return True


def crawl_aside(matching: Matching) -> bool:
    """A crawl that struck left or right: its parts, for the question."""
    for slot in COUNTED:
        for at in matching.free():
            what = matching.taken(slot, at)
            if what is not None:
                matching.put(slot, at, what)
                matching.texts["_deep"] = matching.texts.pop(slot.field)
                return matching.fill()
    return False


def table_wanted(matching: Matching) -> bool:
    """From where to where and in which steps the table is wanted."""
    if not matching.fill():
        return False
    matching.values["unit"] = "yd" if in_yards(matching) else "m"
    return True


def three_fingers(matching: Matching) -> bool:
    """Three closed fingers: a third of them is one."""
    if not matching.fill():
        return False
    matching.values["width_mm"] = round(matching.values["_three_mm"] / 3, 4)
    return True
