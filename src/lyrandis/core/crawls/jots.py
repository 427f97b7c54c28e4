"""What archers say of crawls, gaps and the tab: the rows of the crawls' words."""

from lyrandis.core.crawls.readings import (
    ArrowReach,
    CrawlHabit,
    CrawlMark,
    CrawlUnits,
    EyeHeight,
    FingerWidth,
    TabStitches,
)
from lyrandis.core.crawls.said import (
    COUNTED,
    CRAWL,
    MARK_AT,
    crawl,
    crawl_aside,
    distance_alone,
    gap_held,
    struck_without_crawl,
    table_wanted,
    three_fingers,
)
from lyrandis.core.hearing.table import Slot, Word

PLAIN_WORDS = "tab string arrow arrows target bow"

_FAR = Slot("_far", "distance", "mark_distance")
_ANCHORS = {
    "cheekbone": "cheekbone; cheek", "corner": "corner; mouth; corner of the mouth",
    "under_chin": "chin; under chin; under the chin",
}  # fmt: skip

WORDS: tuple[Word, ...] = (
    Word("crawl", "rig", CrawlMark, "crawl {distance_m} {_deep} {sure} {guessed} [{_struck}] {_arrows}",
         "a crawl as shot at a distance: mm, inches, fingers or stitches; “12cm high”, or only “high”, where it struck elsewhere, “sure” or “about”, “guessed”",
         "crawl 20m 34mm", "crawling; crawled", (MARK_AT, CRAWL, *COUNTED),
         choices={"guessed": {True: "guessed; unmarked"}, "sure": {"sure": "sure", "about": "about"}},
         beside="hit; hits; struck; strikes; shot; a bit; crawl; in; deep; down; fingers down; stitches down; right",
         self_telling=("finger", "stitch"), build=crawl,
         labels={"_deep": "the crawl", "_struck": "where it struck", "sure": "how sure", "guessed": "distance"}, lacks={
             "_deep": ("The crawl is missing.", "Add it, e.g. 34mm, 2 3/4 fingers or 11 stitches."),
             "_struck": ("Did it strike high or low?", "Say high or low behind it.")}),
    Word("crawl", "rig", CrawlMark, "crawl {distance_m} none {sure} {guessed} {_arrows}", "a distance shot without a crawl", "crawl 45m none",
         "point on; po; point on distance; pointon; no crawl; crawl none", (MARK_AT,), choices={
             "_none": {1: "none; no; no crawl; point; point on; po; point on distance; pointon; crawl none"},
             "guessed": {True: "guessed; unmarked"}, "sure": {"sure": "sure", "about": "about"}},
         beside="crawl; at; on", need=("_none",), fixed={"crawl_mm": 0.0}, build=distance_alone, labels={"sure": "how sure", "guessed": "distance"}),
    Word("crawl", "rig", CrawlMark, "crawl {distance_m} none {_struck}", names="no crawl; point on", slots=(MARK_AT,),
         choices={"_none": {1: "none; no; no crawl"}}, need=("_none",), fixed={"crawl_mm": 0.0}, build=struck_without_crawl),
    Word("gap", "rig", CrawlMark, "gap {high_mm} {_way} at {distance_m}", "how far the point was held under the mark, or over it, without a crawl", "gap 14in under at 20yd",
         "hold under; hold over; gap of", (MARK_AT, Slot("high_mm", "length", "hit_aside", label="gap")), choices={"_way": {1: "under; below; low", -1: "over; above"}}, beside="hold; crawl", fixed={"crawl_mm": 0.0}, build=gap_held),
    Word("crawl", "archer", None, slots=(Slot("_deep", "number", "ten_stitches"),), beside="bare", asks_which=("usualcrawl {_deep}mm", "crawl 20m {_deep}mm"),
         question="The crawl shot most, or one shot at a distance?"),
    Word("crawl", "rig", None, slots=(_FAR, Slot("_off", "length", "hit_aside")), choices={"_side": {"left": "left", "right": "right"}},
         beside="hit; hits; struck; crawl; to the", need=("_side",), self_telling=("finger", "stitch"), build=crawl_aside,
         asks_which=("crawl {_far} {_deep}", "bare {_off} {_side} at {_far}"), question="A crawl says how high it struck, not which side: the crawl alone, or bare shafts?"),
    Word("finger", "archer", FingerWidth, "finger {width_mm}", "one finger's width across the tab", "finger 19mm",
         "finger width", (Slot("width_mm", "length", "finger_width"),), beside="wide"),
    Word("finger", "archer", FingerWidth, "finger three {_three_mm}", "three closed fingers across the tab: a third of them is one", "finger three 57mm",
         "3 fingers; three fingers", (Slot("_three_mm", "length", "three_fingers"),), {"_three": {1: "three; three fingers; 3 fingers; finger three"}}, "fingers; of",
         need=("_three",), build=three_fingers),
    Word("stitches", "archer", TabStitches, "stitches {ten_mm}", "ten stitches of the tab, measured over all ten", "stitches 33mm",
         "10 stitches", (Slot("ten_mm", "length", "ten_stitches"),), beside="ten stitches"),
    Word("eye", "archer", EyeHeight, "eye {eye_mm} {anchor}", "eye over the nock at full draw without a crawl, from a mirror; the anchor behind it if another", "eye 62mm",
         "eye height; eye over the nock", (Slot("eye_mm", "length", "eye_height"),), {"anchor": _ANCHORS}, "above the nock; over the nock; above nock; over nock"),
    Word("reach", "arrow_set", ArrowReach, "reach {reach_mm}", "nock groove to the point's very end", "reach 31in",
         "nock to tip; nock to point", (Slot("reach_mm", "length", "arrow_reach"),)),
    Word("crawlunits", "rig", CrawlUnits, "crawlunits {unit}", "what the distances of all crawls until now were meant in", "crawlunits yards",
         "distances in; distances meant in", choices={"unit": {"m": "metres; m; metre", "yd": "yards; yd; yard"}}, need=("unit",)),
    Word("crawlsin", "archer", CrawlHabit, "crawlsin {notation}", "how crawls are counted: mm, fingers or stitches", "crawlsin stitches",
         "crawls in; count crawls in", choices={"notation": {"stitches": "stitches; stitch", "mm": "mm; millimetres", "fingers": "fingers; finger"}}, need=("notation",)),
    Word("repeats", "archer", CrawlHabit, "repeats {repeat_mm}", "how well a crawl repeats, one standard deviation", "repeats 2mm",
         "crawl repeats within; repeats within", (Slot("repeat_mm", "length", "repeatability"),)),
    Word("crawltable", "archer", CrawlHabit, "crawltable {from_m} to {to_m} every {step_m}", "the distances the table is wanted for", "crawltable 5m to 50m every 5m",
         "table; crawl table",
         (Slot("from_m", "distance", "mark_distance", label="from"), Slot("to_m", "distance", "mark_distance", label="to"),
          Slot("step_m", "distance", "table_step", before="every; by", label="in steps of")), beside="to; every; by", build=table_wanted),
)  # fmt: skip
