"""What archers say of shafts, parts, the arrow pass and numbered arrows: the arrow's rows."""

import re

from lyrandis.core.arrow.readings import ArrowBuild, ArrowMassed, ArrowPass, NumberedArrow
from lyrandis.core.arrow.spine import pounds_from_reading
from lyrandis.core.arrow.words import SpineStandard
from lyrandis.core.bench_readings import Changed
from lyrandis.core.constants import GRAINS_PER_POUND, MM_PER_IN
from lyrandis.core.errors import DomainError
from lyrandis.core.hearing.builders import LESS, MORE, WAY, changed_by
from lyrandis.core.hearing.matching import ONLY_OTHERWISE, Matching, Question
from lyrandis.core.hearing.table import Parts, Slot, Word
from lyrandis.core.quantities import check

PLAIN_WORDS = "arrow arrows shaft shafts quiver"
WOOD_SPAN_MM, WOOD_LOAD_LBF = 26 * MM_PER_IN, 2.0
"""What a deflection alone was read at: the wood standard's."""

_NUMBER = Slot(
    "arrow_number", "whole", "arrow_number", before="arrow; number; shaft; of", by_name=True
)
_SPINE = Slot("spine_lbf", "spine", "spine")
_SIDE_WORDS = "arrow; shaft; number; of the set; nock; of; by; within"
_LENGTHS = {
    "groove_to_tip": "tip; to the tip; to tip; to the point; point tip",
    "groove_to_end": "end; nock groove to end of shaft; groove to end; to the end; end of shaft; groove",
    "shaft_only": "bare",
}
_TAPERED = "tapered; tapers"
_FEATHERS = "fletch; fletched with; feather length; feathers; feather; fletched; vanes; vane; fletchings; fletches"
_POINTS = "pt; pts; point wt; screw in points; glue on points; bullet points; bullet point; steel points; points; field point; field points; field tips; field tip; tips; tip; tip weight; pile; piles; head; heads; broadhead; broadheads; point weight; pile weight"
_WEIGH = "each; weigh; weighs; weight; mass; arrow"


def _span(matching: Matching) -> bool:
    """Wooden shafts are sold in groups: 50-55 is their middle, and half of what lies between."""
    if not matching.fill():
        return False
    low, high = sorted((matching.values["_low"], matching.values["_high"]))
    if not 0 < high - low <= 15:
        return False
    matching.values |= {
        "spine_lbf": (low + high) / 2, "spine_half_lbf": (high - low) / 2, "spine_standard": "wood",
    }  # fmt: skip
    matching.questions.clear()  # a group is of the wood scale, with its unit or without
    return True


def _taper(matching: Matching) -> bool:
    """Length and what the end is across: “9in to 5/16”, “to 5/16 over 9in”."""
    across = matching.word.slots[1]
    if matching.says("to"):
        matching.fill((across,))
        matching.lacks = ""
    return matching.fill()


def _shaft(matching: Matching) -> bool:
    """A length, a mass per inch or both; of “arrow 28” nobody knows whether it is one."""
    if not matching.fill() or not {"shaft_length_mm", "shaft_gr_per_in"} & matching.texts.keys():
        return False
    said = matching.says("shaft", "shafts", "long", "length", "cut") or matching.chosen
    bare = [item.amount for item in matching.items if item.amount and item.amount.unit is None]
    text = matching.texts.get("shaft_length_mm")
    if text and not said and bare and not bare[0].fraction and not matching.questions:
        unit = "in" if matching.units == "inch" else "cm"
        matching.questions.append(Question("shaft_length_mm", (f"{text}{unit}",)))
        matching.score += ONLY_OTHERWISE
    return True


def _fletching(matching: Matching) -> bool:
    """A mass, a length or both; a bare count before the feathers is no mass."""
    first = matching.items[0].amount
    counted = first is not None and first.unit is None
    if not matching.fill():
        return False
    given = {"fletching_gr", "fletching_length_mm"} & matching.texts.keys()
    return bool(given) and not (counted and "fletching_gr" in given)


def _deflection(matching: Matching) -> bool:
    """A shaft on a spine gauge; without span and weight, the wood standard's."""
    if not matching.fill():
        return False
    values = matching.values
    bent, span = values.pop("_bent"), values.pop("_span", WOOD_SPAN_MM)
    load = values.pop(
        "_load", values.pop("_grams", GRAINS_PER_POUND * WOOD_LOAD_LBF) / GRAINS_PER_POUND
    )
    standard: SpineStandard = "wood" if abs(span - WOOD_SPAN_MM) < 1 else "thousandths"
    try:
        pounds = check("spine", round(pounds_from_reading(load, span, bent), 4))
    except DomainError as error:
        matching.wrong = error
        return False
    values |= {"spine_lbf": pounds, "spine_standard": standard}
    return True


def _fraction_across(matching: Matching) -> bool:
    """11/32 shafts: a fraction under 0.6 in is what they are across."""
    return any(
        item.amount is not None and item.amount.fraction and item.amount.value < 0.6
        for item in matching.items
    )


_REMARK = re.compile(r"\s*arrow\s+#?(\d{1,3})\s+remark\b\s*(.*)", re.IGNORECASE | re.DOTALL)


def _remark(line: str, _parts: Parts) -> NumberedArrow | None:
    """Words about one arrow, kept as they are said."""
    match = _REMARK.fullmatch(line)
    return match and NumberedArrow(arrow_number=int(match[1]), remark=match[2].strip() or None)


def _part(
    word: str, field: str, names: str, example: str, label: str, *, key: str = "part_mass"
) -> Word:
    slot = Slot(field, "mass", key, label=label)
    return Word(
        word,
        "arrow_set",
        ArrowBuild,
        f"{word} {{{field}}}",
        f"mass of the {label}",
        example,
        names,
        (slot,),
        beside=_WEIGH,
    )


WORDS: tuple[Word, ...] = (
    Word("window", "bow", ArrowPass, "window {window_mm} {_side}", "the arrow pass: how far the face stands short of centre or past it", "window 3mm",
         "cut; riser is cut; riser cut; sight window; side plate; off centre", (Slot("window_mm", "length", "window", flipped_by="_side"),),
         {"_side": {1: "short; short of centre; shy of centre; shy; before centre; outside of centre; off centre", -1: "past; past centre; past the centre; beyond centre; beyond"}},
         "riser; centre; bow; shelf; of centre"),
    Word("window", "bow", ArrowPass, "window {window_mm}", "a window cut to centre", "window centre",
         choices={"window_mm": {0.0: "centre; centre cut; window centre; cut to centre; cut to the centre"}}, beside="riser; bow; cut", implied=True, need=("window_mm",), weak="centre", labels={"window_mm": "cut"}),
    Word("window", "bow", ArrowPass, "window {plunger}", "plunger or hard plate", "window plunger",
         choices={"plunger": {True: "plunger; button; with a plunger", False: "plate; hard plate; hard plate no plunger; hard plate , no plunger; side plate; hard"}},
         beside="window; shoot; rest; cut; side", implied=True, need=("plunger",), weak="plate; hard"),
    Word("lieson", "bow", ArrowPass, "lieson {lies_on}", "what the arrow lies on: shelf, rest or hand", "lieson hand",
         choices={"lies_on": {
             "hand": "hand; off the hand; off my hand; on the hand; the hand; no shelf; off hand",
             "shelf": "shelf; off the shelf; on the shelf; the shelf",
             "rest": "rest; off a rest; on a rest; a rest; off the rest; on the rest"}},
         beside="shot; lies; rests", implied=True, need=("lies_on",), weak="hand; shelf; rest; the hand; the shelf; a rest"),
    Word("track", "bow", ArrowPass, "track {track_mm} {_side}", "how far the string runs to the arrow's side, or away from it", "track 2mm",
         "tracks; string tracks; tracking; string off centre", (Slot("track_mm", "length", "string_track", flipped_by="_side"),),
         {"_side": {1: "to the arrow side; to arrow side; toward the arrow; to the arrow", -1: "away; off; away from the arrow"}}, "string"),
    Word("arrow", "arrow_set", ArrowMassed, "arrow {arrow_number} {arrow_mass_gr}", "finished mass of one numbered arrow", "arrow 4 431gr",
         "arrows; number; shaft", (_NUMBER, Slot("arrow_mass_gr", "mass", "arrow_mass")),
         beside="weighed; weighs; weight; weigh; mass; number; arrow; shaft; finished"),
    Word("arrow", "arrow_set", ArrowMassed, "arrow {arrow_mass_gr}", "usual mass of the finished arrows", "arrow 431gr",
         "aw; arrow wt; all up weight; auw; finished weight; complete weight; finished mass; arrows mass; arrows; arrow mass; arrow weight; total arrow weight; finished arrow; mass; complete arrow; tow; weighs; all up; total weight; finished",
         (Slot("arrow_mass_gr", "mass", "arrow_mass"),), beside="weighed; weight; weigh; weighs; total; finished; each; arrows",
         needs=lambda m: not m.says("string", "tip", "shaft", "bow")),
    Word("arrow", "arrow_set", NumberedArrow, "arrow {arrow_number} {state}", "whether a numbered arrow is sound or cracked", "arrow 4 cracked",
         "number; shaft; arrows", (_NUMBER,),
         {"state": {"cracked": "cracked; broken; crack; split; damaged; snapped", "sound": "sound; good; fine; ok; flexed; flexed and sound"}}, _SIDE_WORDS, need=("state",)),
    Word("arrow", "arrow_set", NumberedArrow, "arrow {arrow_number} {retired}", "a numbered arrow out of the set, or back in it", "arrow 4 retired",
         "number; shaft; retire; lost; retired", (_NUMBER,),
         {"retired": {True: "retired; retire; lost; gone; out; out of the set", False: "back; back in; back in the set"}}, _SIDE_WORDS, need=("retired",)),
    Word("arrow", "arrow_set", NumberedArrow, "arrow {arrow_number} turned {nock_turn_deg}", "how far a numbered arrow's nock is turned", "arrow 4 turned 180",
         "number; turned nock", (_NUMBER, Slot("nock_turn_deg", "degree", "nock_turn")),
         {"_turned": {1: "turned; nock turned; turned nock"}}, _SIDE_WORDS, need=("_turned",)),
    Word("arrow", "arrow_set", NumberedArrow, "arrow {arrow_number} turned 180", names="number", slots=(_NUMBER,),
         choices={"_turned": {1: "nock half round; half round; turned half round"}}, beside="nock; arrow", need=("_turned",), fixed={"nock_turn_deg": 180.0}),
    Word("arrow", "arrow_set", NumberedArrow, "arrow {arrow_number} straight {straight_mm}", "how far a numbered arrow runs out when it is spun", "arrow 4 straight 0.2mm",
         "number", (_NUMBER, Slot("straight_mm", "length", "run_out")),
         {"_straight": {1: "straight; bent; run out; runout; straight within; wobbles"}}, _SIDE_WORDS, need=("_straight",)),
    Word("arrow", "arrow_set", NumberedArrow, "arrow {arrow_number} spine {spine_lbf}", "a numbered arrow's own spine", "arrow 4 spine 52lb",
         "number", (_NUMBER, _SPINE), {"_spine": {1: "spine; spined"}}, _SIDE_WORDS, need=("_spine",)),
    Word("arrow", "arrow_set", NumberedArrow, "arrow {arrow_number} quill {quill}", "a numbered arrow's quill ends: bound, or one lifts", "arrow 4 quill lifts",
         "number", (_NUMBER,),
         {"_quill": {1: "quill; quills; feather; feathers"}, "quill": {"bound": "bound; smooth; wrapped; tied", "lifts": "lifts; lifting; loose; lifted"}}, _SIDE_WORDS, need=("_quill", "quill")),
    Word("arrow", "arrow_set", NumberedArrow, "arrow {arrow_number} remark {remark}", "a remark about a numbered arrow", "arrow 4 remark dark grain",
         slots=(_NUMBER,), reads=_remark, text="remark"),
    Word("arrow", "arrow_set", None, names="arrows", unnamed=True, slots=(Slot("arrow_number", "whole", "arrow_number"), Slot("_to", "whole", "arrow_number")),
         choices={"_ok": {1: "sound; good; fine; ok"}}, beside="to", need=("_ok",),
         asks_which=("arrow {arrow_number} sound", "arrow {_to} sound"), question="One arrow at a time: which?"),
    Word("spine", "arrow_set", ArrowBuild, "spine {spine_lbf} {shaft_length_mm} {material}", "static spine: thousandths of an inch, or “63 lb” on the wood scale", "spine 500",
         "static spine; spined; sp; spine of; shaft spine; number on the shaft", (_SPINE, Slot("shaft_length_mm", "length", "shaft_length", needed=False, by_name=True, before="cut to; at")),
         {"material": {"carbon": "carbon; carbons; carbon arrows; carbon shafts", "wood": "wood; wooden; woodies; wood shafts; cedar", "aluminium": "alu; aluminium", "cane": "cane; bamboo"},
          "_spine": {1: "spine; sp; spined; static spine; shafts; shaft; spine of; number on the shaft"}},
         "arrow; arrows; shafts; shaft; static; long; cut to; cut at; cut; length; on the shaft", need=("_spine",)),
    Word("spine", "arrow_set", ArrowBuild, "spine {_low} to {_high}", "a group that wooden shafts are sold in", "spine 50-55lb",
         "spined; static spine", (Slot("_low", "spine", "spine", label="from"), Slot("_high", "spine", "spine", label="to")), beside="to; /; shafts; shaft; arrows", build=_span,
         needs=lambda m: m.says("to", "/")),
    Word("deflection", "arrow_set", ArrowBuild, "deflection {_bent} [at {_span}] {_load} {_grams}", "a shaft on a spine gauge: how far it bent, span and weight", "deflection 1/2in @ 26in 2lb",
         "deflects", (Slot("_bent", "length", "deflection", label="bent by"), Slot("_span", "length", "gauge_span", needed=False, before="at; over", label="span"),
                      Slot("_load", "force", "gauge_load", needed=False, by_name=True, label="weight"),
                      Slot("_grams", "mass", "gauge_mass", needed=False, by_name=True, label="weight in g")), beside="over; with", build=_deflection),
    Word("shaft", "arrow_set", ArrowBuild, "shaft {shaft_length_mm} {shaft_gr_per_in} {length_datum}",
         "shaft length, nock groove to shaft end, and mass per inch; “tip” when measured to the tip, “bare” for the shaft alone", "shaft 29 1/2 9.2gpi",
         "shafts; arrow; arrows; shaft length; arrow length; cut to; cut at; shafts cut to; shafts cut at; shafts cut; arrows cut to; arrows cut at; arrows cut; long; arrows long",
         (Slot("shaft_length_mm", "length", "shaft_length", needed=False), Slot("shaft_gr_per_in", "grains per inch", "shaft_grains_per_inch", needed=False, by_name=True)),
         {"length_datum": _LENGTHS}, "long; length; in length; arrow; arrows; shaft; shafts; inch; cut", self_telling=("grains per inch",), build=_shaft),
    Word("shaft", "arrow_set", ArrowBuild, "shaft {shaft_gr_per_in}gpi", names="grains per inch", slots=(Slot("shaft_gr_per_in", "grains per inch", "shaft_grains_per_inch"),),
         unnamed=True, beside="shaft; shafts"),
    Word("diameter", "arrow_set", ArrowBuild, "diameter {shaft_diameter_mm}", "shaft diameter", "diameter 8.7mm",
         "dia; shaft diameter; shaft dia; thick; outside diameter; across", (Slot("shaft_diameter_mm", "length", "shaft_diameter"),), beside="shaft; shafts; arrow"),
    Word("diameter", "arrow_set", ArrowBuild, "diameter {shaft_diameter_mm}", names="shafts", slots=(Slot("shaft_diameter_mm", "length", "shaft_diameter"),), needs=_fraction_across),
    *(Word("taper", "arrow_set", ArrowBuild, f"taper {end} {{{end}_taper_mm}} [to {{{end}_diameter_mm}}]", f"taper of the {end} end: its length, and the diameter at the end", example,
           _TAPERED, (Slot(f"{end}_taper_mm", "length", "taper_length"), Slot(f"{end}_diameter_mm", "length", "shaft_diameter", needed=False, before="to")),
           {"_end": {1: said}}, "over; to", need=("_end",), build=_taper)
      for end, said, example in (("tail", "tail; nock end", "taper tail 9in 5/16"), ("head", "head; point end; front", "taper head 100mm 7mm"))),
    Word("taper", "arrow_set", ArrowBuild, "taper none", "parallel shafts", "taper none",
         "no taper; taper none", choices={"_none": {1: "none; off; no taper; taper none; taper off"}}, need=("_none",), fixed={"tail_taper_mm": 0.0, "head_taper_mm": 0.0}),
    Word("fletching", "arrow_set", ArrowBuild, "fletching {fletching_gr} {fletching_length_mm}", "mass of the fletching, and its length", "fletching 18gr 3in",
         _FEATHERS, (Slot("fletching_gr", "mass", "part_mass", needed=False, label="fletching's mass"), Slot("fletching_length_mm", "length", "fletching_length", needed=False, label="length")),
         beside="3; 4; three; four; long; shield; shield cut; parabolic; parabolic cut; each; weigh; mass; weight; 3 x; 4 x; feathers; high", build=_fletching),
    _part("bareshaft", "shaft_gr", "bare shaft; bare shaft weighs; shaft only", "bareshaft 310gr", "bare shaft", key="shaft_mass"),
    Word("material", "arrow_set", ArrowBuild, "material {material}", "what the shafts are made of", "material wood",
         "made of", choices={"material": {
             "wood": "wood; wooden; woodies; woodie; poplar; birch; cedar; pine; ash; spruce; fir; cedar shafts",
             "carbon": "carbon; carbons", "aluminium": "aluminium; alu; alloy", "cane": "cane; bamboo; tonkin; river cane", "glass": "glass"}},
         beside="arrow; arrows; shaft; shafts", implied=True, need=("material",), weak="glass; ash; pine"),
    _part("point", "point_gr", _POINTS, "point 125gr", "point"),
    _part("insert", "insert_gr", "inserts; brass inserts; brass insert; outsert; half out", "insert 20gr", "insert"),
    _part("wrap", "wrap_gr", "wraps; cresting", "wrap 6gr", "wrap"),
    _part("arrownock", "arrow_nock_gr", "arrow nock; arrow nocks; nocks weigh; nock weighs", "arrownock 9gr", "arrow nock"),
    Word("arrownock", "arrow_set", ArrowBuild, "arrownock {arrow_nock_gr}", names="nock; nocks", unnamed=True,
         slots=(Slot("arrow_nock_gr", "mass", "part_mass", by_name=True),), beside=_WEIGH, needs=lambda m: not m.says("string", "arrow")),
    Word("point", "arrow_set", Changed, "point {amount} {_way}", "a point heavier or lighter than before: a change, never its mass", "point 25gr heavier",
         "points; head; tip; tips", (Slot("amount", "mass", "point_by", signed=True, label="change"),),
         {WAY: {1: f"heavier; {MORE}", -1: f"lighter; {LESS}"}}, "than before; by; weight", {"what": "point"}, wanted=(WAY,), build=changed_by("amount", "heavier", "lighter")),
)  # fmt: skip
