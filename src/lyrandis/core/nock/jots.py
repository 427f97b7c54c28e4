"""What archers say of nock, tiller and riser: the rows of the nock's words."""

from lyrandis.core.bench_readings import Changed
from lyrandis.core.constants import GRAINS_PER_GRAM
from lyrandis.core.hearing.builders import LESS, MORE, WAY, changed_by, with_way
from lyrandis.core.hearing.matching import Matching
from lyrandis.core.hearing.table import Slot, Word
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
    TillerTold,
    UsualCrawl,
)

PLAIN_WORDS = "string arrow bow rest limb limbs riser"

_OVER = (
    "over; high; above; over square; above square; over the arrow; above the arrow; over the square"
)
_UNDER = "under; below; low; under the arrow; below the arrow; under the nock"
_NOCK = Slot("height_mm", "length", "nock_height")
_NOCKING_POINT = "nocking point; nock point; nock height; nocking height; locator; nock set; knocking point; nock ht; nockpoint"
_LOCATOR = "upper nock; np; nock pt; top nock; bottom nock; upper nocking point; lower nocking point; nock locator; knocking point; tied nock; nock knot; brass nock set; brass nocking point; brass nock; nock set; nocking point; nock point; lower locator; upper locator; nock; nock height"
_PLACES = {
    "fade": "fade; fades; at the fade; at the fades; at fade; end of the fade",
    "pocket": "pocket; at the pocket; at the limb pocket; limb pocket; at pocket; pockets",
}
_BOLTS = "limb bolts; both bolts; bolt; both limb bolts; limb bolt; tiller bolts"
_DEAD_ON = (
    "dead centre; spot on; centre; straight; dead on; in line; true; centred; in plane; plane"
)
_RISER_PLACES = "lower insert; on the lower insert; lower bushing; on the lower bushing; upper insert; on the upper insert; upper bushing; on the upper bushing"
_ON_RISER = "weight; riser weight; stabilizer weight; stabiliser weight"
_MASS = Slot("mass_g", "mass", "riser_mass", label="mass")


def _not_a_change(matching: Matching) -> bool:
    """A sign is of a change, but for “lift -4mm”, which may be under square: then it is asked."""
    signs = {item.amount.sign for item in matching.items if item.amount is not None}
    return "+" not in signs and ("-" not in signs or matching.says("lift"))


def _bolts(matching: Matching) -> bool:
    """Both bolts alike, or each told; one told is one recorded."""
    top, bottom = matching.says("top", "upper"), matching.says("bottom", "lower")
    free = matching.free()
    slots = matching.word.slots
    if not free:
        matching.lacks = "upper_turns"
        return False
    if len(free) == 1 and top != bottom:
        return matching.fill(slots[:1] if top else slots[1:])
    if not matching.fill() or "upper_turns" not in matching.values:
        return False
    if "lower_turns" not in matching.values:
        if not {"_each"} & matching.chosen.keys():
            matching.lacks = "lower_turns"
            return False
        matching.values["lower_turns"] = matching.values["upper_turns"]
        matching.texts["lower_turns"] = matching.texts["upper_turns"]
    return True


def _riser_weight(matching: Matching) -> bool:
    if not matching.fill():
        return False
    matching.values.setdefault("place", "weight")
    matching.values["mass_g"] = round(matching.values["mass_g"] / GRAINS_PER_GRAM, 3)
    return True


def _weight_off(matching: Matching) -> bool:
    matching.values.setdefault("place", "weight")
    return True


def _tiller_told(matching: Matching) -> bool:
    """More of the upper gap: a length that is positive or negative, or even."""
    way = matching.chosen.get("_way")
    if way == 0:
        matching.values["more_mm"] = 0.0
        return not matching.free()
    signed = any(item.amount is not None and item.amount.sign for item in matching.items)
    if way is None and not signed:
        return False
    if not matching.fill():
        return False
    size = matching.values["more_mm"]
    sign = way or (1 if size > 0 else -1)
    matching.values["more_mm"] = sign * abs(size)
    matching.texts["_way"] = "positive" if sign > 0 else "negative"
    matching.texts["more_mm"] = matching.texts["more_mm"].lstrip("+-−")
    return True


WORDS: tuple[Word, ...] = (
    Word("lift", "rig", NockHeight, "lift {height_mm} {_way}", "the arrow's underside at the string, over square", "lift 6.5mm",
         "nock lift; nock height underside; bottom of the arrow; underside; underside of the arrow; arrow sits; nock height lift",
         (Slot("height_mm", "length", "nock_height", signed=True),),
         {WAY: {1: _OVER, -1: "under square; below square; under the square; under"}}, "nock height; at the string; arrow; string", {"datum": "lift"},
         build=with_way("height_mm"), needs=_not_a_change),
    Word("locator", "rig", NockHeight, "locator {height_mm} {datum}",
         "a locator's edge over square: over the arrow its lower, under it its upper", "locator 13mm over",
         _LOCATOR, (_NOCK,), {"datum": {"locator_over": _OVER, "locator_under": _UNDER}}, "locator; brass; height", asks="datum",
         needs=lambda m: "datum" in m.chosen or m.says("locator")),
    Word("nock", "rig", None, names=_NOCKING_POINT, slots=(_NOCK,), beside="height",
         asks_which=("lift {height_mm}", "locator {height_mm} over", "locator {height_mm} under"),
         question="A nock height is read in three ways: which?"),
    Word("nock", "arrow_set", None, slots=(Slot("height_mm", "whole", "part_mass"),),
         asks_which=("arrownock {height_mm}gr", "lift {height_mm}mm"), question="The nock on the string, or the arrow's own?"),
    Word("nock", "rig", Changed, "nock {amount} {_way}", "the nock moved: a change, never the height", "nock 1mm up",
         "nocking point; nock point; nock height; locator; lift; nocks", (Slot("amount", "length", "nock_by", signed=True, label="change"),),
         {WAY: {1: f"up; {MORE}", -1: f"down; {LESS}"}}, "moved; height; by", {"what": "nock"}, wanted=(WAY,), build=changed_by("amount", "up", "down")),
    Word("nockfixed", "rig", NockLocked, "nockfixed {locked}", "the nock height is found and fixed; “free” lets it move again", "nockfixed found",
         "nock; nock point; nocking point",
         choices={"locked": {True: "found; on; fixed; tied in; tied in and fixed; locked; glued; nockfixed", False: "free; nockfixed free; nockfixed off; loose again"}},
         beside="nockfixed", need=("locked",)),
    Word("nockshot", "rig", NockShot, "nockshot {lift_mm} {flew}",
         "a lift that was shot: clean, bounced, bare level, bare high or bare low", "nockshot 6mm clean",
         "lift; nock", (Slot("lift_mm", "length", "nock_height", label="lift"),),
         {"flew": {
             "clean": "clean; flew clean", "bounced": "bounced; porpoised; porpoising",
             "bare_level": "bare level; level; bare shaft level; bare shaft was level",
             "bare_high": "bare high; bare shaft high; bare shaft was high",
             "bare_low": "bare low; bare shaft low; bare shaft was low"}}, "lift", need=("flew",)),
    Word("nockwidth", "arrow_set", ArrowNock, "nockwidth {outside_mm}", "how thick the arrow's own nock is", "nockwidth 6.5mm",
         "arrow nock; nock width; nock thickness", (Slot("outside_mm", "length", "nock_outside"),), beside="wide; outside; wide outside; thick"),
    Word("nockgroove", "arrow_set", ArrowNock, "nockgroove {groove_mm}", "how wide the arrow nock's groove is", "nockgroove 2.8mm",
         "nock groove; throat of the nock; nock throat; groove of the nock", (Slot("groove_mm", "length", "nock_groove"),), beside="wide"),
    Word("tiller", "rig", TillerGaps, "tiller {upper_mm} {lower_mm} {place}", "upper and lower gap, both at the fade or both at the pocket", "tiller 181.5mm 177mm pocket",
         "top tiller; upper tiller; top gap; upper gap",
         (Slot("upper_mm", "length", "tiller_gap", before="top; upper", pairs=True, label="upper gap"),
          Slot("lower_mm", "length", "tiller_gap", before="bottom; lower", pairs=True, label="lower gap")),
         {"place": _PLACES}, "bottom tiller; lower tiller; bottom gap; lower gap; tiller; limb; gap; upper; lower", asks="place",
         question="Measured where on the limbs?"),
    Word("tiller", "rig", TillerTold, "tiller {more_mm} {_way} {place}", "how much more the upper gap is, “positive”, “negative” or “even”", "tiller 3mm positive",
         "upper limb; top limb; top tiller; upper tiller",
         (Slot("more_mm", "length", "tiller_more", signed=True, label="difference"),),
         {"_way": {1: "positive; more; more than the lower; more than the bottom; more than lower; more than bottom", -1: "negative; less; less than the lower; less than the bottom; less than lower; less than bottom", 0: "even; neutral; zero; equal"},
          "place": _PLACES}, "tiller", wanted=("_way",), build=_tiller_told),
    Word("limbline", "rig", LimbsInLine, "limbline {upper_mm} {lower_mm}",
         "string off the middle of the upper and lower limb's root, + to the arrow's side", "limbline 0.5mm -0.5mm",
         "limb line; limb alignment",
         (Slot("upper_mm", "length", "aside", signed=True, label="upper"), Slot("lower_mm", "length", "aside", signed=True, label="lower")),
         beside="to the arrow side; at the top limb; at the bottom"),
    Word("limbline", "rig", LimbsInLine, "limbline 0mm 0mm",
         names="limb line; limb alignment; limbs line up; limbs aligned; limbs in line; limbs lined up; limbs are in line",
         choices={"_zero": {1: _DEAD_ON}}, need=("_zero",), fixed={"upper_mm": 0.0, "lower_mm": 0.0}),
    Word("limbline", "rig", LimbsInLine, "limbline {upper_mm} 0mm", names="string", slots=(Slot("upper_mm", "length", "aside"),),
         choices={"_top": {1: "at the top limb; on the top limb; at the upper limb"},
                  "_zero": {1: "dead centre at the bottom; centred at the bottom; dead centre at the lower limb"},
                  "_side": {1: "to the arrow side; arrow side"}},
         need=("_top", "_zero", "_side"), fixed={"lower_mm": 0.0}),
    Word("limbline", "rig", None, names="string runs; string is", slots=(Slot("upper_mm", "length", "aside"),),
         choices={"_way": {1: "left; left of centre", -1: "right; right of centre"}, "_top": {1: "at the top limb; on the top limb"}},
         need=("_way", "_top"), asks_which=("limbline {upper_mm} 0mm", "limbline -{upper_mm} 0mm"),
         question="To the arrow's side (first), or away from it?"),
    Word("centreshot", "rig", CentreShot, "centreshot {out_mm} {_side}", "the point outside the string's line, or inside it", "centreshot 1mm out",
         "centre shot; cs; point sits; tip sits; point stands; point", (Slot("out_mm", "length", "aside", flipped_by="_side", label="aside"),),
         {"_side": {
             1: "out; outside; outside the string; outside the string line; outside of the string; outside of centre",
             -1: "in; inside; inside the string; inside the string line"}}, asks="_side", question="Outside the string's line, or inside?",
         needs=lambda m: "_side" in m.chosen or m.says("centreshot")),
    Word("centreshot", "rig", CentreShot, "centreshot 0mm out", names="centre shot",
         choices={"_zero": {1: "dead on; dead centre; spot on; zero; in line"}}, need=("_zero",), fixed={"out_mm": 0.0}),
    Word("centreshot", "rig", None, names="centre shot; point", slots=(Slot("out_mm", "length", "aside"),),
         choices={"_way": {1: "left of string; left of the string; left; right of string; right of the string; right"}}, need=("_way",),
         asks_which=("centreshot {out_mm} out", "centreshot {out_mm} in"),
         question="Outside is away from the bow on the arrow's side: out or in?"),
    Word("bolts", "bow", LimbBolts, "bolts {upper_turns} {lower_turns}", "turns the upper and lower limb bolt are out", "bolts 3 3",
         f"{_BOLTS}; top bolt; upper bolt; bottom bolt; lower bolt",
         (Slot("upper_turns", "turn", "bolt_turns", needed=False, before="top; upper", pairs=True, label="upper bolt"),
          Slot("lower_turns", "turn", "bolt_turns", needed=False, before="bottom; lower", pairs=True, label="lower bolt")),
         {"_each": {1: "each; both; both bolts; both limb bolts"}}, "out; turns; turns out; bolt; top bolt; bottom bolt; lower bolt; limb; upper; lower; top; bottom",
         build=_bolts),
    Word("bolts", "bow", LimbBolts, "bolts most {most_turns}", "the maker's most turns out", "bolts most 5",
         "limb bolts; on the limb bolts", (Slot("most_turns", "turn", "bolt_turns", label="most"),),
         {"_most": {1: "most; max; maximum; at most; maker allows; allowed"}}, "maker allows; on the limb bolts; maker; out; turns", need=("_most",)),
    Word("bolts", "bow", Changed, "bolts {amount} {_way}", "both bolts turned out or in: a change, never the count", "bolts 1/2 further out",
         _BOLTS, (Slot("amount", "turn", "bolts_by", signed=True, label="turns"),),
         {WAY: {1: "further out; backed out; backed; backed off; off; unscrewed; wound out; more out; more; let out",
                -1: "further in; in; wound in; screwed in; wound; tightened; turned in; less; down"}},
         "out; by; moved; each; both; turn; turns", {"what": "bolts"}, wanted=(WAY,), build=changed_by("amount", "further out", "further in")),
    Word("riserweight", "rig", RiserWeight, "riserweight {mass_g} {up_mm} {_dir} {forward_mm} forward {place}",
         "a weight on the riser and where it sits from the grip", "riserweight 60g 150mm down 30mm forward lower insert",
         _ON_RISER,
         (_MASS, Slot("up_mm", "length", "upward", flipped_by="_dir", signed=True, label="up or down"),
          Slot("forward_mm", "length", "forward", needed=False, behind="forward", label="forward")),
         {"_dir": {-1: "down; below the grip; below; under the grip", 1: "up; above the grip; above"},
          "place": {"lower insert": "lower insert; on the lower insert", "lower bushing": "lower bushing; on the lower bushing",
                    "upper insert": "upper insert; on the upper insert", "upper bushing": "upper bushing; on the upper bushing"}},
         "forward", wanted=("_dir",), build=_riser_weight, free="place", needs=lambda m: "_dir" in m.chosen or m.says("riserweight")),
    Word("riserweight", "rig", None, names=_ON_RISER, slots=(_MASS,), choices={"_place": {1: _RISER_PLACES}},
         asks_which=("riserweight {mass_g} 150mm down", "riserweight {mass_g} 100mm up"), question="How far below the grip, or above it, does it sit?"),
    Word("riserweight", "rig", Changed, "riser weight {amount} {_way}", "weight added to the riser or taken off: a change", "riser weight 50g added",
         "riser weight; to the riser; on the riser; riser; off the riser; from the riser",
         (Slot("amount", "mass", "riser_weight_by", signed=True, label="change"),),
         {WAY: {1: f"added; {MORE}", -1: f"off; {LESS}"}}, "weight; riser; weights", {"what": "riser_weight"}, wanted=(WAY,), build=changed_by("amount", "added", "off")),
    Word("gripmark", "rig", RiserSide, "gripmark {grip_under_rest_mm}", "top of the hand under the rest", "gripmark 15.5mm",
         "grip mark; top of my hand; top of the hand; hand", (Slot("grip_under_rest_mm", "length", "under_rest"),),
         beside="below the rest; under the rest; below; under"),
    Word("handrise", "rig", RiserSide, "handrise {hand_at_full_mm} {_way}",
         "top of the hand against its mark at full draw, when the arrow lies on the hand", "handrise 1mm high",
         "hand at full draw", (Slot("hand_at_full_mm", "length", "hand_at_full", label="aside"),),
         {WAY: {1: "high; higher; over; up", -1: "low; lower; under; down"}}, build=with_way("hand_at_full_mm")),
    Word("shelf", "rig", RiserSide, "shelf {shelf_under_rest_mm} under", "the shelf under the rest", "shelf 9mm under",
         "rest over shelf", (Slot("shelf_under_rest_mm", "length", "under_rest"),),
         {"_under": {1: "under; below; under the rest; below the rest"}}),
    Word("usualcrawl", "archer", UsualCrawl, "usualcrawl {crawl_mm}", "the crawl shot most", "usualcrawl 22mm",
         "usual crawl; crawl most", (Slot("crawl_mm", "length", "crawl"),)),
    Word("usualcrawl", "archer", UsualCrawl, "usualcrawl none", "no crawl for the shots made most", "usualcrawl none",
         "no crawl; not crawl; usual crawl none; usual crawl no; usualcrawl no", beside="do; none; no",
         fixed={"crawl_mm": 0.0}, needs=lambda m: m.says("none", "no", "not")),
    Word("kit", "bow", BowKitTold, "kit {kit}", "what can be set on the bow: plain, rest or full", "kit plain",
         choices={"kit": {
             "plain": "plain; kit plain; nothing; nothing to adjust; nothing to set",
             "rest": "rest; kit rest; plunger; rest can set; plunger only",
             "full": "full; kit full; bolts; limb bolts and a plunger; bolts and plunger; limb bolts and plunger"}},
         beside="bow; on this bow; on bow", implied=True, need=("kit",), weak="plain; nothing; rest; plunger; full; bolts"),
)  # fmt: skip
