"""Saltgrass Bowmen, winter workshop: archers, bows, strings, arrows and what they wrote down.

Everything here is invented. Each entry is a day of the workshop, a subject, and either a jot line
or a reading.
"""

import json
from datetime import UTC, datetime, timedelta
from importlib.resources import files
from typing import Any

from lyrandis.core import entries as e
from lyrandis.core.bench_readings import Named, PartFitted
from lyrandis.core.jot import parse
from lyrandis.core.reading import PartKind, Subject, SubjectKind

START = datetime(2026, 1, 10, 10, 0, tzinfo=UTC)

_FITTING: dict[str, dict[PartKind, str]] = {
    "marram-longbow": {
        "archer": "oda",
        "bow": "marram",
        "string": "marram-string-16",
        "arrow_set": "ash-set-b",
    },
    "tideway-recurve": {
        "archer": "bram",
        "bow": "tideway",
        "string": "tideway-string-18",
        "arrow_set": "carbon-set-a",
    },
    "sandpiper-thumb-bow": {
        "archer": "ilse",
        "bow": "sandpiper",
        "string": "sandpiper-string-22",
        "arrow_set": "reed-set",
    },
}
SUBJECTS: tuple[tuple[SubjectKind, str, str], ...] = (
    ("archer", "oda", "Oda"),
    ("archer", "bram", "Bram"),
    ("archer", "ilse", "Ilse"),
    ("bow", "marram", "Marram"),
    ("bow", "tideway", "Tideway"),
    ("bow", "sandpiper", "Sandpiper"),
    ("string", "marram-string-16", "Polyester, 16 strands"),
    ("string", "tideway-string-18", "Low stretch, 18 strands"),
    ("string", "sandpiper-string-22", "Polyester, 22 strands"),
    ("arrow_set", "ash-set-b", "Ash arrows, set B"),
    ("arrow_set", "carbon-set-a", "Carbon, set A"),
    ("arrow_set", "aluminium-set-b", "Aluminium, set B"),
    ("arrow_set", "reed-set", "Cane arrows"),
    ("rig", "marram-longbow", "Marram longbow"),
    ("rig", "tideway-recurve", "Tideway recurve"),
    ("rig", "sandpiper-thumb-bow", "Sandpiper thumb bow"),
)

_POLYESTER_16 = {"kind": "string_build", "material": "polyester", "strands": 16}
_LOW_STRETCH_18 = {"kind": "string_build", "material": "low_stretch", "strands": 18}
_POLYESTER_22 = {"kind": "string_build", "material": "polyester", "strands": 22}

_BARRELLED = {"kind": "taper_shot", "flew": "stiff", "tail_taper_mm": 254.0,
              "tail_diameter_mm": 7.0, "head_taper_mm": 254.0, "head_diameter_mm": 7.0}  # fmt: skip

_KINDS: dict[str, SubjectKind] = {
    "string_build": "string", "part_fitted": "rig", "sound_heard": "rig",
}  # fmt: skip
HEARD = "heard.json"
"""What the simulated microphone heard, as `tools/demo_sounds.py` wrote it."""
KEPT_SOUNDS = ("tideway-before.wav", "tideway-after.wav")
"""The recordings that ship; those of the plucks are forgotten, their numbers stay."""
WITHOUT_SOUND: dict[str, Any] = {}
# (workshop day, rig or its part, jot line or reading, note)
_DIARY: tuple[tuple[int, str, str | dict[str, Any], str | None], ...] = (
    # Oda: left-handed woodland shooter, one-piece reflex-deflex longbow, ash arrows
    (0, "marram-longbow", "hand left", None),
    (0, "marram-longbow", "hold three under", None),
    (0, "marram-longbow", "anchor corner", None),
    (0, "marram-longbow", "purpose woods", None),
    (0, "marram-longbow", "span 68 1/2", None),
    (0, "marram-longbow", "family reflex deflex longbow", None),
    (0, "marram-longbow", "bow 64", None),
    (0, "marram-longbow", "riser 15", None),
    (0, "marram-longbow", "mark 44 @ 28", None),
    (0, "marram-longbow", "limit 30", "Written under the grip"),
    (0, "marram-longbow", "floor 9 gpp", "Asked the bowyer"),
    (0, "marram-longbow", "bracerange 7 to 7 3/4", None),
    (0, "marram-longbow", "kit plain", None),
    (1, "marram-longbow", _POLYESTER_16, None),
    (1, "marram-longbow", "string 60 7/8 16 strands", "Under tension, on the bow"),
    (1, "marram-longbow", "stringtype twisted bundles", None),
    (1, "marram-longbow", "bundle 2.1mm", "Calliper"),
    (1, "marram-longbow", "serving 5 1/2", None),
    (1, "marram-longbow", "turns 34 1/2", None),
    (1, "marram-longbow", "brace 195.5mm grip after 0.2h", "New string"),
    (1, "marram-longbow", "brace 192.0mm grip after 1h", None),
    (1, "marram-longbow", "brace 190.0mm grip after 3h", None),
    (1, "marram-longbow", "brace 188.8mm grip after 6h", None),
    (2, "marram-longbow", "brace 187.8mm grip after 12h", None),
    (2, "marram-longbow", "brace 187.4mm grip after 18h", None),
    (3, "marram-longbow", "brace 187.3mm grip after 30h", None),
    (2, "marram-longbow", "draw 27 3/8", "Bram held the pencil"),
    (2, "marram-longbow", "draw 27 1/2", None),
    (2, "marram-longbow", "draw 27 1/4", None),
    (2, "marram-longbow", "hook 9/16", None),
    (9, "marram-longbow", "scale 27.0 @ 20", "Club scale"),
    (9, "marram-longbow", "scale 34.4 @ 24", None),
    (9, "marram-longbow", "scale 39.9 @ 26", None),
    (9, "marram-longbow", "scale 43.6 @ 28", None),
    (16, "marram-longbow", "material wood", None),
    (16, "marram-longbow", "shaft 30 9.7gpi", None),
    (16, "marram-longbow", "point 125gr", None),
    (16, "marram-longbow", "arrownock 8gr", None),
    (16, "marram-longbow", "fletching 30gr", None),
    (16, "marram-longbow", "insert 0", None),
    (16, "marram-longbow", "diameter 11/32", None),
    (16, "marram-longbow", "window 8mm", "Straight edge along the string"),
    (16, "marram-longbow", "window plate", None),
    (23, "marram-longbow", "arrow 1 467gr", None),
    (23, "marram-longbow", "arrow 2 470gr", None),
    (23, "marram-longbow", "arrow 3 465gr", None),
    (23, "marram-longbow", "arrow 4 479gr", "A denser shaft"),
    (23, "marram-longbow", "arrow 5 466gr", None),
    (23, "marram-longbow", "arrow 6 468gr", None),
    (23, "marram-longbow", "arrow 7 471gr", None),
    (23, "marram-longbow", "arrow 8 466gr", None),
    (23, "marram-longbow", "arrow 1 spine 83lb", "Left thick to be tapered"),
    (23, "marram-longbow", "arrow 2 spine 85lb", None),
    (23, "marram-longbow", "arrow 3 spine 82lb", None),
    (23, "marram-longbow", "arrow 4 spine 90lb", None),
    (23, "marram-longbow", "arrow 5 spine 84lb", None),
    (23, "marram-longbow", "arrow 6 spine 83lb", None),
    (23, "marram-longbow", "arrow 7 spine 86lb", None),
    (23, "marram-longbow", "arrow 8 spine 81lb", None),
    (23, "marram-longbow", "arrow 2 straight 0.3mm", None),
    (23, "marram-longbow", "arrow 7 straight 1.1mm", None),
    (24, "marram-longbow", "arrow 1 sound", None),
    (24, "marram-longbow", "arrow 2 sound", None),
    (24, "marram-longbow", "arrow 3 sound", None),
    (24, "marram-longbow", "arrow 4 sound", None),
    (24, "marram-longbow", "arrow 5 sound", None),
    (24, "marram-longbow", "arrow 6 sound", None),
    (24, "marram-longbow", "arrow 7 sound", None),
    (24, "marram-longbow", "arrow 8 cracked", "Behind the point"),
    (24, "marram-longbow", "arrow 8 retired", "Broken in two"),
    (25, "marram-longbow", {"kind": "taper_shot", "flew": "weak"}, "Or so the nock said"),
    (28, "marram-longbow", _BARRELLED, None),
    (24, "marram-longbow", "inspect all good", None),
    (24, "marram-longbow", "speed 163 fps 467gr", "Borrowed chronograph, three arrows"),
    (24, "marram-longbow", "speed 150 fps 586gr", "Bram's heavy target arrow"),
    (26, "marram-longbow", "lift 3.5mm", "At 7 3/8 brace"),
    (26, "marram-longbow", "nockshot 2.5mm bounced", None),
    (26, "marram-longbow", "nockshot 3.5mm clean", None),
    (29, "marram-longbow", "tried 7 3/8 grip sound 4 5 4 shock 3 4 3 turns 34.5", None),
    (29, "marram-longbow", "turns 20", None),
    (29, "marram-longbow", "tried 7 1/8 grip sound 6 6 7 shock 5 5 4 turns 20", "Slaps"),
    (30, "marram-longbow", "turns 44.5", None),
    (30, "marram-longbow", "tried 7 5/8 grip sound 3 2 3 shock 2 3 2 turns 44.5", None),
    (30, "marram-longbow", "brace 7 5/8 grip", "Quieter here"),
    (30, "marram-longbow", "note Two shafts show wear where they pass the side plate", None),
    (31, "marram-longbow", "lift 3.5mm", "Looked at again at this brace"),
    (32, "marram-longbow", "tail right 28mm @2.5m", "Reads weak, or so it looks"),
    (32, "marram-longbow", "wear none", "Felt on the plate, six shots"),
    (32, "marram-longbow", "bareset none", "Ash is not shot bare"),
    # Bram: field-course string walker, 62 in take-down recurve, carbon arrows
    (0, "tideway-recurve", "inspect all good", "Before the first shot"),
    (0, "tideway-recurve", "made take-down", None),
    (0, "tideway-recurve", "together limbs seated", None),
    (0, "tideway-recurve", "together bolts turned in", None),
    (0, "tideway-recurve", "together the upper limb on top", None),
    (0, "tideway-recurve", "together larger loop on the upper limb", None),
    (0, "tideway-recurve", "hand right", None),
    (0, "tideway-recurve", "hold three under", None),
    (0, "tideway-recurve", "anchor cheekbone", None),
    (0, "tideway-recurve", "purpose field", None),
    (1, "tideway-recurve", "draw 28 1/4", None),
    (1, "tideway-recurve", "draw 26 3/8 pivot", "Club's pivot rule"),
    (1, "tideway-recurve", "family hunting recurve", None),
    (1, "tideway-recurve", "bow 62", None),
    (1, "tideway-recurve", "riser 18", None),
    (1, "tideway-recurve", "mark 38 @ 28", None),
    (1, "tideway-recurve", "wish 36", None),
    (1, "tideway-recurve", "limit 31", None),
    (1, "tideway-recurve", "bracerange 7 1/2 to 8 3/4", None),
    (3, "tideway-recurve", _LOW_STRETCH_18, None),
    (3, "tideway-recurve", "settled string", "Shot all autumn"),
    (3, "tideway-recurve", "kit full", "Bolts, rest and plunger"),
    (3, "tideway-recurve", "usualcrawl 22mm", None),
    (3, "tideway-recurve", "brace 8 grip", None),
    (4, "tideway-recurve", "tiller 181mm 177mm pocket", None),
    (4, "tideway-recurve", "limbline 0.5mm 0mm", None),
    (4, "tideway-recurve", "centreshot 1mm out", None),
    (4, "tideway-recurve", "tiller 181.5mm 177mm pocket", "Once the limbs were in line"),
    (4, "tideway-recurve", "shelf 9mm under", None),
    (4, "tideway-recurve", "gripmark 15.5mm", None),
    (11, "tideway-recurve", "nockwidth 6.5mm", None),
    (11, "tideway-recurve", "lift 6.5mm", None),
    (11, "tideway-recurve", "nockshot 4mm bounced", None),
    (11, "tideway-recurve", "nockshot 5mm bounced", "One in six"),
    (11, "tideway-recurve", "nockshot 6.5mm clean", None),
    (12, "tideway-recurve", "nockshot 6.5mm bare level", "At 18 m"),
    (14, "tideway-recurve", {"kind": "sound_heard", "of": "pluck"}, "Bram's phone on the bench"),
    (14, "tideway-recurve", {"kind": "sound_heard", "of": "before"}, "Three metres to the side"),
    (14, "tideway-recurve", "brace 8 1/4 grip", "Two twists more"),
    (14, "tideway-recurve", {"kind": "sound_heard", "of": "pluck_after"}, "Phone where it lay"),
    (14, "tideway-recurve", {"kind": "sound_heard", "of": "after"}, None),
    (15, "tideway-recurve", "stitches 33mm", "Ten of them, over the tab"),
    (15, "tideway-recurve", "crawl 12m 35.5mm", None),
    (15, "tideway-recurve", "crawl 15m 31.5mm", None),
    (15, "tideway-recurve", "crawl 18m 26mm", None),
    (15, "tideway-recurve", "crawl 20m 23.5mm", None),
    (16, "tideway-recurve", "crawl 25m 24mm", "In a hurry, before the rain"),
    (16, "tideway-recurve", "crawl 28m 12.5mm", None),
    # last year's arrows first: heavier, and three crawls with them
    (6, "tideway-recurve", {"kind": "part_fitted", "part": "arrow_set",
                            "part_id": "aluminium-set-b"}, "Until the carbon ones are cut"),
    (6, "aluminium-set-b", "material aluminium", None),
    (6, "aluminium-set-b", "shaft 29 1/2 8.9gpi", None),
    (6, "aluminium-set-b", "point 100gr", None),
    (6, "aluminium-set-b", "diameter 7.5mm", None),
    (6, "aluminium-set-b", "arrow 402gr", None),
    (7, "tideway-recurve", "crawl 10m 36mm", None),
    (7, "tideway-recurve", "crawl 20m 20mm", None),
    (7, "tideway-recurve", "crawl 30m 3.5mm", None),
    (9, "tideway-recurve", {"kind": "part_fitted", "part": "arrow_set",
                            "part_id": "carbon-set-a"}, "Cut and fletched"),
    (10, "tideway-recurve", "material carbon", None),
    (10, "tideway-recurve", "shaft 29 1/2 7.4gpi", None),
    (10, "tideway-recurve", "point 110gr", None),
    (10, "tideway-recurve", "insert 14gr", None),
    (10, "tideway-recurve", "spine 500", "On the label"),
    (10, "tideway-recurve", "diameter 6.8mm", None),
    (10, "tideway-recurve", "window 1mm past", None),
    (10, "tideway-recurve", "window plate", None),
    (10, "tideway-recurve", "arrow 1 353gr", None),
    (10, "tideway-recurve", "arrow 2 352gr", None),
    (10, "tideway-recurve", "arrow 3 351gr", None),
    # Ilse: thumb ring, short static-tip bow, an arrow that is too light for it
    (0, "sandpiper-thumb-bow", "hand right", None),
    (0, "sandpiper-thumb-bow", "hold thumb", None),
    (0, "sandpiper-thumb-bow", "purpose distance", None),
    (2, "sandpiper-thumb-bow", "draw 28 3/4", None),
    (2, "sandpiper-thumb-bow", "hook 7/8", None),
    (2, "sandpiper-thumb-bow", "family long rigid tip", None),
    (2, "sandpiper-thumb-bow", "bow 56", None),
    (2, "sandpiper-thumb-bow", "mark 46 @ 28", None),
    (2, "sandpiper-thumb-bow", "limit 31", None),
    (4, "sandpiper-thumb-bow", _POLYESTER_22, None),
    (4, "sandpiper-thumb-bow", "settled string", None),
    (4, "sandpiper-thumb-bow", "kit plain", None),
    (4, "sandpiper-thumb-bow", "brace 6 3/4 grip", None),
    (5, "sandpiper-thumb-bow", "scale 47.2 @ 28", None),
    (5, "sandpiper-thumb-bow", "scale 51.3 @ 29 5/8", "With the hook where my thumb holds"),
    (12, "sandpiper-thumb-bow", "material cane", None),
    (12, "sandpiper-thumb-bow", "shaft 30 1/2 10.8gpi", None),
    (12, "sandpiper-thumb-bow", "point 110gr", None),
    (12, "sandpiper-thumb-bow", "arrow 1 474gr", None),
    (12, "sandpiper-thumb-bow", "arrow 2 469gr", None),
    (12, "sandpiper-thumb-bow", "spine 58lb", None),
    (12, "sandpiper-thumb-bow", "window 9mm", "Half the grip"),
    (13, "sandpiper-thumb-bow", "tail left 2 @ 7 paces", "Seven paces, as we always read it"),
    (12, "sandpiper-thumb-bow", "lift 0.5mm", "Off the hand, nearly level"),
    (12, "sandpiper-thumb-bow", "lieson hand", "No shelf: over the knuckle"),
    (12, "sandpiper-thumb-bow", "arrow 1 quill bound", None),
    (12, "sandpiper-thumb-bow", "arrow 2 quill bound", None),
    (13, "sandpiper-thumb-bow", "handrise 1mm high", "Watched from the side at full draw"),
)  # fmt: skip


def sounds() -> list[tuple[str, bytes]]:
    """Return the recordings that ship, by name."""
    folder = files(__package__)
    return [(name, folder.joinpath(name).read_bytes()) for name in KEPT_SOUNDS]


def _heard() -> dict[str, Any]:
    found: dict[str, Any] = json.loads(
        files(__package__).joinpath(HEARD).read_text(encoding="utf-8")
    )
    return found


def drafts(sounds: dict[str, Any] | None = None) -> list[e.EntryDraft]:
    """Return the whole scenario as entries to record, in order.

    `sounds` stand in for what was heard of the demo's recordings.
    """
    heard = _heard() if sounds is None else sounds
    found = [
        e.EntryDraft(
            subject=Subject(kind=kind, id=subject_id),
            reading=Named(name=name),
            happened_at=START,
        )
        for kind, subject_id, name in SUBJECTS
    ]
    for rig, parts in _FITTING.items():
        found += [
            e.EntryDraft(
                subject=Subject(kind="rig", id=rig),
                reading=PartFitted(part=part, part_id=part_id),
                happened_at=START + timedelta(minutes=5),
            )
            for part, part_id in parts.items()
        ]
    for minute, (day, rig, said, note) in enumerate(_DIARY, start=10):
        at = START + timedelta(days=day, minutes=minute)
        if isinstance(said, dict) and said["kind"] == "sound_heard":
            if said["of"] in heard:
                found.append(_simulated(_entry(rig, heard[said["of"]], note, at)))
            continue
        found.append(_entry(rig, said, note, at))
    taps_at = START + timedelta(days=18)
    for minute, reading in enumerate(heard.get("taps", ())):
        at = taps_at + timedelta(minutes=minute)
        found.append(_simulated(_entry("tideway-recurve", reading, None, at)))
    return found


def _simulated(draft: e.EntryDraft) -> e.EntryDraft:
    return draft.model_copy(update={"source": "simulated"})


def _entry(rig: str, said: str | dict[str, Any], note: str | None, at: datetime) -> e.EntryDraft:
    if isinstance(said, str):
        jotted = parse(said)
        kind: SubjectKind = jotted.subject
        reading: Any = jotted.reading
    else:
        kind, reading = _KINDS.get(said["kind"], "arrow_set"), said
    subject_id = rig if kind == "rig" or rig not in _FITTING else _FITTING[rig][kind]
    return e.EntryDraft(
        subject=Subject(kind=kind, id=subject_id),
        reading=reading,
        happened_at=at,
        note=note,
        as_typed=said if isinstance(said, str) else None,
    )
