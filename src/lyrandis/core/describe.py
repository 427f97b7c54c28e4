"""Saying a reading back in the trade's words: the jot preview and the history use the same."""

from collections.abc import Callable

from lyrandis.core import entries as e
from lyrandis.core.phrase import (
    Figure,
    Phrase,
    gap,
    gpp,
    gr,
    gr_per_in,
    lbf,
    mm,
    mps,
    phrase,
    plain,
    spine,
)

DATUM_WORDS: dict[str, str] = {
    "trade": "",
    "pivot": " to the pivot",
    "back": " to the back of the bow",
    "belly": " to the belly",
}
WORDS: dict[str, str] = {
    "split": "one over, two under",
    "three_under": "three under",
    "thumb": "thumb",
    "under_chin": "under the chin",
    "corner": "corner of the mouth",
    "cheekbone": "cheekbone",
    "selfbow": "selfbow",
    "straight_longbow": "straight longbow",
    "reflex_deflex_longbow": "reflex-deflex longbow",
    "hunting_recurve": "hunting recurve",
    "target_recurve": "target recurve",
    "short_rigid_tip": "bow with short static tips",
    "long_rigid_tip": "bow with long static tips",
    "large_rigid_tip": "bow with large static tips",
    "backyard": "backyard",
    "woods": "woods and 3-D course",
    "field": "field round",
    "indoor": "indoor target",
    "hunting": "hunting from tight cover",
    "distance": "distance",
    "low_stretch": "low-stretch fibre",
    "arrow_set": "arrow set",
    "two_bottoms": "two bottom limbs",
    "two_tops": "two top limbs",
    "two_makers": "limbs of two makers",
    "matched": "matched limbs",
    "groove_to_end": "nock groove to shaft end",
    "groove_to_tip": "nock groove to the tip",
    "shaft_only": "the bare shaft alone",
}
INSPECTION_WORDS: dict[e.InspectionItem, tuple[str, str]] = {
    "limbs": ("limbs straight, no cracks", "a limb is twisted or cracked"),
    "tips": ("tips sound", "a tip is cracked or loose"),
    "finish": ("finish clear", "the finish is crazed"),
    "laminations": ("laminations tight", "a lamination lifts"),
    "string": ("string whole, loops and serving too", "the string is frayed"),
    "string_grooves": ("string grooves smooth", "a string groove is worn or sharp"),
    "right_way_up": ("top limb on top, larger loop on it", "limbs or loops are upside down"),
    "stringer": ("strung with a stringer", "strung without a stringer"),
    "twang": ("twanged: nothing rattles", "something rattles when twanged"),
}
"""What an item looks like when it is good, and when it is not."""


def words(key: str) -> str:
    """Return the trade's words for a choice.

    >>> words("three_under"), words("wood")
    ('three under', 'wood')
    """
    return WORDS.get(key, key)


def describe(reading: e.BaseReading) -> Phrase:
    """Return one short sentence that says what the reading records."""
    match reading:
        case e.Named():
            return phrase(f"Named {plain(reading.name)}")
        case e.Noted():
            return phrase(f"Note: {plain(reading.text)}")
        case e.Retraction():
            return phrase("Took an entry back")
        case e.PutAway():
            return phrase("Put away" if reading.away else "Taken out again")
        case e.PartFitted():
            if reading.part_id is None:
                return phrase(f"Took the {words(reading.part)} off")
            return phrase(f"Fitted {words(reading.part)} {reading.part_id}")
        case e.StringBuild():
            return _describe_string(reading)
        case e.ArrowBuild():
            return _describe_arrow(reading)
        case e.NumberedArrow():
            return _describe_numbered(reading)
        case e.TaperShot():
            return _describe_taper(reading)
        case e.ArrowPass():
            return _describe_pass(reading)
        case _:
            return _describe_archer(reading) or _describe_bow(reading)


def _describe_archer(reading: e.BaseReading) -> Phrase | None:
    match reading:
        case e.DrawMarked():
            to = DATUM_WORDS[reading.datum]
            return phrase(f"Draw {{draw}}{to} on a marked arrow", draw=mm(reading.draw_length_mm))
        case e.DrawOnScale():
            to = DATUM_WORDS[reading.datum]
            return phrase(
                f"String at the hook {{draw}}{to}, at full draw on a scale",
                draw=mm(reading.hook_position_mm),
            )
        case e.DrawStated():
            to = DATUM_WORDS[reading.datum]
            return phrase(f"Draw said to be {{draw}}{to}", draw=mm(reading.draw_length_mm))
        case e.ArmTape():
            return phrase("Fingertip to shoulder {arm}", arm=mm(reading.arm_length_mm))
        case e.ArmSpan():
            return phrase("Arm span {span}", span=mm(reading.arm_span_mm))
        case e.HookDepth():
            return phrase("Hook {depth} behind the nock groove", depth=mm(reading.hook_depth_mm))
        case e.HoldChosen():
            return phrase(f"Hold: {words(reading.hold)}")
        case e.AnchorChosen():
            return phrase(f"Anchor: {words(reading.anchor)}")
        case e.HandChosen():
            return phrase(f"Draws with the {reading.hand} hand")
        case e.PurposeChosen():
            return phrase(f"Purpose: {words(reading.purpose)}")
        case e.WeightWished():
            return phrase("Wishes to hold {weight}", weight=lbf(reading.draw_weight_lbf))
        case _:
            return None


def _describe_bow(reading: e.BaseReading) -> Phrase:
    match reading:
        case e.BowFamily():
            return phrase(f"Family: {words(reading.family)}")
        case e.BowLength():
            return phrase("Bow length {length}", length=mm(reading.bow_length_mm))
        case e.RiserLength():
            return phrase("Riser {length}", length=mm(reading.riser_length_mm))
        case e.BowMark():
            return phrase(
                "Marked {weight} at {draw}",
                weight=lbf(reading.draw_weight_lbf),
                draw=mm(reading.draw_length_mm),
            )
        case e.BowWeighed():
            where = "the hook" if reading.string_at == "hook" else "the nock groove"
            return phrase(
                f"Draw weight {{weight}} with {where} at {{draw}}{DATUM_WORDS[reading.datum]}",
                weight=lbf(reading.draw_weight_lbf),
                draw=mm(reading.draw_length_mm),
            )
        case e.DrawLimit():
            return phrase("Maker's limit {draw} of draw", draw=mm(reading.draw_length_mm))
        case e.ArrowMinimum():
            figure = (
                gr(reading.arrow_mass_gr)
                if reading.arrow_mass_gr is not None
                else gpp(reading.grains_per_pound or 0.0)
            )
            return phrase("Bowyer's minimum arrow {least}", least=figure)
        case e.BraceRange():
            return phrase(
                "Maker's brace {low} to {high}", low=mm(reading.low_mm), high=mm(reading.high_mm)
            )
        case e.GripDepth():
            return phrase(f"Pivot to {reading.to} {{depth}}", depth=mm(reading.depth_mm))
        case e.BraceHeight():
            to = " to the back" if reading.datum == "back" else ""
            return phrase(f"Brace height {{brace}}{to}", brace=mm(reading.brace_height_mm))
        case e.LimbPair() | e.Inspected() | e.ArrowSpeed():
            return _describe_bench(reading)
        case e.ArrowMassed():
            which = "Arrow" if reading.arrow_number is None else f"Arrow {reading.arrow_number}:"
            return phrase(f"{which} {{mass}} finished", mass=gr(reading.arrow_mass_gr))
        case _:
            return phrase((type(reading).__doc__ or "").strip())


def _describe_bench(reading: e.LimbPair | e.Inspected | e.ArrowSpeed) -> Phrase:
    if isinstance(reading, e.ArrowSpeed):
        of = "" if reading.arrow_mass_gr is None else ", an arrow of {mass}"
        mass = gr(reading.arrow_mass_gr or 0.0)
        return phrase(f"Chronograph {{speed}}{of}", speed=mps(reading.speed_mps), mass=mass)
    if isinstance(reading, e.Inspected):
        said = [INSPECTION_WORDS[item][1] for item in reading.failing]
        if reading.good:
            said.append(f"{len(reading.good)} good")
        return phrase("Looked over: " + "; ".join(said))
    parts: list[str] = []
    figures: dict[str, Figure] = {}
    if reading.pair:
        parts.append(words(reading.pair))
    if reading.upper_lbf is not None and reading.lower_lbf is not None:
        parts.append("upper {upper}, lower {lower}")
        figures |= {"upper": lbf(reading.upper_lbf), "lower": lbf(reading.lower_lbf)}
    if reading.upper_length_mm is not None and reading.lower_length_mm is not None:
        parts.append("upper {long} long, lower {longer}")
        figures |= {"long": mm(reading.upper_length_mm), "longer": mm(reading.lower_length_mm)}
    return phrase("Limbs: " + ", ".join(parts), **figures)


def _describe_string(reading: e.StringBuild) -> Phrase:
    figures: dict[str, Figure] = {}
    parts = []
    if reading.material:
        parts.append(words(reading.material))
    if reading.strands:
        parts.append(f"{reading.strands} strands")
    if reading.string_length_mm is not None:
        parts.append("{length} long")
        figures["length"] = mm(reading.string_length_mm)
    if reading.string_mass_gr is not None:
        parts.append("{mass}")
        figures["mass"] = gr(reading.string_mass_gr)
    return phrase("String: " + ", ".join(parts), **figures)


_BUILD_FIGURES: tuple[tuple[str, str, Callable[[float], Figure]], ...] = (
    ("shaft_length_mm", "shaft {}", mm),
    ("shaft_gr_per_in", "{}", gr_per_in),
    ("shaft_gr", "bare shaft {}", gr),
    ("shaft_diameter_mm", "diameter {}", gap),
    ("spine_lbf", "spine {}", spine),
    ("tail_taper_mm", "tail taper {} long", mm),
    ("tail_diameter_mm", "{} at the tail", gap),
    ("head_taper_mm", "head taper {} long", mm),
    ("head_diameter_mm", "{} at the head", gap),
    ("point_gr", "point {}", gr),
    ("insert_gr", "insert {}", gr),
    ("arrow_nock_gr", "arrow nock {}", gr),
    ("fletching_gr", "fletching {}", gr),
    ("fletching_length_mm", "fletching {} long", mm),
    ("wrap_gr", "wrap {}", gr),
)
FLEW_WORDS: dict[e.Flight, str] = {"clean": "flew clean", "stiff": "still stiff", "weak": "weak"}


def _describe_arrow(reading: e.ArrowBuild) -> Phrase:
    parts = [words(reading.material)] if reading.material else []
    figures: dict[str, Figure] = {}
    for field, said, figure in _BUILD_FIGURES:
        value = getattr(reading, field)
        if value is not None:
            parts.append(said.replace("{}", f"{{{field}}}"))
            figures[field] = figure(value)
    if reading.length_datum and reading.length_datum != "groove_to_end":
        parts.append(f"length: {words(reading.length_datum)}")
    return phrase("Arrow parts: " + ", ".join(parts), **figures)


def _describe_numbered(reading: e.NumberedArrow) -> Phrase:
    parts: list[str] = []
    figures: dict[str, Figure] = {}
    if reading.spine_lbf is not None:
        parts.append("spine {spine}")
        figures["spine"] = spine(reading.spine_lbf)
    if reading.straight_mm is not None:
        parts.append("run-out {straight}")
        figures["straight"] = gap(reading.straight_mm)
    if reading.nock_turn_deg is not None:
        parts.append("nock turned {turn}")
        figures["turn"] = Figure(value=reading.nock_turn_deg, unit="deg")
    if reading.state is not None:
        sound = reading.state == "sound"
        parts.append("flexed and looked at, sound" if sound else "cracked, out of the set")
    if reading.retired is not None:
        parts.append("retired" if reading.retired else "back in the set")
    if reading.remark:
        parts.append(plain(reading.remark))
    return phrase(f"Arrow {reading.arrow_number}: " + ", ".join(parts), **figures)


def _describe_taper(reading: e.TaperShot) -> Phrase:
    ends = []
    figures: dict[str, Figure] = {}
    for end in ("tail", "head"):
        length = getattr(reading, f"{end}_taper_mm")
        across = getattr(reading, f"{end}_diameter_mm")
        if length and across:
            ends.append(f"{end} {{{end}}} to {{{end}_end}}")
            figures |= {end: mm(length), f"{end}_end": gap(across)}
    tapered = ", ".join(ends) if ends else "parallel"
    return phrase(f"Taper shot: {tapered}; {FLEW_WORDS[reading.flew]}", **figures)


def _describe_pass(reading: e.ArrowPass) -> Phrase:
    parts: list[str] = []
    figures: dict[str, Figure] = {}
    if reading.window_mm is not None:
        where = "short of" if reading.window_mm > 0 else "past"
        parts.append(f"{{window}} {where} centre" if reading.window_mm else "cut to centre")
        figures["window"] = gap(abs(reading.window_mm))
    if reading.track_mm is not None:
        where = "to the arrow's side" if reading.track_mm >= 0 else "away from the arrow"
        parts.append(f"string tracks {{track}} {where}")
        figures["track"] = gap(abs(reading.track_mm))
    if reading.plunger is not None:
        parts.append("plunger" if reading.plunger else "hard side plate")
    return phrase("Arrow pass: " + ", ".join(parts), **figures)
