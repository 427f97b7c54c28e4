"""What archers say of the string and of the brace it stands at: the rows of the string's words."""

from lyrandis.core.bench_readings import Changed
from lyrandis.core.hearing.builders import LESS, MORE, WAY, changed_by
from lyrandis.core.hearing.matching import Matching
from lyrandis.core.hearing.table import Slot, Word
from lyrandis.core.string.readings import (
    BraceHeight,
    BraceTried,
    StringBuild,
    StringSettled,
    StringStrung,
    StringTurned,
    StringTurns,
)

PLAIN_WORDS = "string bowstring bow maker"

BRACE_TO = {
    "pivot": "grip; to the grip; to grip; pivot; to the pivot; to pivot; to pivot point; to the pivot point; throat; to the throat; from the throat of the grip; throat of the grip; deepest grip; to the deepest part of the grip; deepest part of the grip; deepest part of grip; deepest part of the handle; deepest point of the grip; to the deepest point of the grip; to the deepest part of the handle",
    "back": "back; to the back; to back; to the back of the riser; to back of riser; to the back of the bow",
    "plunger": "plunger; to plunger; to the plunger; button; to the button; to button; plunger line; to the plunger line; centre of the plunger; to the centre of the plunger",
}
_BRACE = "string height; bracing; brace hgt; brace h; brace height; bh; braced; fistmele; brace ht; bracing height; braced at; throat of the grip; from the throat of the grip"
_HEIGHT = Slot("brace_height_mm", "length", "brace_height")
_MATERIALS = {
    "polyester": "polyester",
    "low_stretch": "low stretch; low stretch fibre; low stretch material; low-stretch fibre",
    "linen": "linen; flax",
    "other": "other",
}
_TYPES = {
    "twisted": "twisted bundles; twisted; flemish; flemish twist; laid in",
    "endless": "endless; endless loop; continuous loop",
}
_OF_STRING = "long; length; string; strands; strand; material; made of; made from; made with; made; fibre; type; threads"


def _of_string(matching: Matching) -> bool:
    """Its length, its strands, what it is of: one of them at least."""
    return matching.fill() and bool({*matching.texts, *matching.chosen})


def _each(matching: Matching) -> bool:
    """Of each of the two: recorded as both together."""
    if not matching.fill():
        return False
    if "_each" in matching.chosen:
        matching.values["silencers_gr"] *= 2
    return True


def _ratings(name: str) -> Slot:
    return Slot(
        name, "number", "rating", needed=False, before=f"{name}; {name}s", by_name=True, many=True
    )


WORDS: tuple[Word, ...] = (
    Word("brace", "rig", BraceHeight, "brace {brace_height_mm} {datum} [after {hours_strung}]",
         "brace height, to the grip, the back or the plunger; “after 3h” while a new string settles", "brace 7 5/8 grip",
         _BRACE, (_HEIGHT, Slot("hours_strung", "hour", "hours_strung", needed=False, before="after", by_name=True, label="hours strung")),
         {"datum": BRACE_TO}, "strung; height; string; to the string", asks="datum",
         question="Brace is read to three places: to which?"),
    Word("brace", "rig", Changed, "brace {amount} {_way}", "brace made higher or lower: a change, never the height", "brace 1/4 higher",
         "brace height; bh; string height", (Slot("amount", "length", "brace_by", signed=True, label="change"),),
         {WAY: {1: f"higher; {MORE}", -1: f"lower; {LESS}"}}, "height; by", {"what": "brace"}, wanted=(WAY,), build=changed_by("amount", "higher", "lower")),
    Word("string", "string", StringBuild, "string {string_length_mm} {strands} {material} {string_type}",
         "string length and strands, and what it is of", "string 59 16 strands",
         "string length; bowstring",
         (Slot("string_length_mm", "length", "string_length", needed=False), Slot("strands", "strand", "strands", needed=False, by_name=True)),
         {"material": _MATERIALS, "string_type": _TYPES}, _OF_STRING, implied=True, self_telling=("strand",), weak="other",
         build=_of_string),
    Word("fibre", "string", StringBuild, "fibre {material}", "what the string is made of", "fibre polyester",
         choices={"material": _MATERIALS}, beside="string; made of", need=("material",)),
    Word("stringtype", "string", StringBuild, "stringtype {string_type}", "endless loop or twisted bundles", "stringtype twisted bundles",
         choices={"string_type": _TYPES}, beside="string", need=("string_type",)),
    Word("stringmass", "string", StringBuild, "stringmass {string_mass_gr}", "what the string weighs", "stringmass 110gr",
         "string weighs; string mass; mass of the string; string weight", (Slot("string_mass_gr", "mass", "part_mass", label="string's mass"),), beside="string",
         needs=lambda m: not m.says("tip", "arrow")),
    Word("turns", "string", StringTurns, "turns {turns}", "turns in the string now", "turns 19 1/2",
         "twists; twist; rotations; twist count; number of twists", (Slot("turns", "turn", "turns"),),
         beside="in the string; in it; string; in the bowstring; it; in string", self_telling=("turn",)),
    Word("turns", "string", StringTurned, "turns {turns_by} {_way}", "turns put in or taken out: a change, never the total", "turns 10 more",
         "twists; twist; twisted the string; twisted", (Slot("turns_by", "turn", "turns_by", signed=True, label="turns"),),
         {WAY: {1: f"more; {MORE}; twisted it up; twisted up; put in; put it; wound; in", -1: f"out; {LESS}; took out; taken out; let out"}},
         "in; times; in the string; in it; in the bowstring; string; twisted; twisted the string; turns; turn; up; it; than before",
         self_telling=("turn",), wanted=(WAY,), build=changed_by("turns_by", "more", "out")),
    Word("bundle", "string", StringBuild, "bundle {bundle_mm}", "the unserved string's thickness", "bundle 2.1mm",
         "bundle thickness", (Slot("bundle_mm", "length", "bundle_diameter"),)),
    Word("thread", "string", StringBuild, "thread {thread_mm}", "the serving thread's thickness", "thread 0.46mm",
         "serving thread", (Slot("thread_mm", "length", "thread_diameter"),)),
    Word("serving", "string", StringBuild, "serving {serving_mm}", "length of the middle serving", "serving 5 1/2",
         "centre serving; middle serving; serving length", (Slot("serving_mm", "length", "serving_length"),), beside="long; length"),
    Word("silencers", "string", StringBuild, "silencers {silencers_gr} {_each} [at {silencers_mm}]",
         "both silencers' mass, “each” for one of the two, and how far from the loops they sit", "silencers 24gr @ 12",
         "silencer; puffs; wool puffs; fur silencers; string silencers; whiskers; yarn; fur; beaver balls; mufflers; string silencer",
         (Slot("silencers_gr", "mass", "part_mass", label="silencers' mass"), Slot("silencers_mm", "length", "silencer_place", needed=False, before="at", by_name=True)),
         {"_each": {1: "each; apiece"}},
         "from the loops; from the loop; from each loop; whiskers; beaver; from loops; together; both; weigh; wool; fur", build=_each),
    Word("silencers", "string", Changed, "silencers {amount} {_way}", "silencers made heavier or lighter: a change, never the total", "silencers 20gr on",
         "silencer; puffs", (Slot("amount", "mass", "silencers_by", signed=True, label="change"),),
         {WAY: {1: f"on; {MORE}", -1: f"off; {LESS}"}}, "both; together", {"what": "silencers"}, wanted=(WAY,), build=changed_by("amount", "on", "off")),
    Word("strung", "string", StringStrung, "{strung} now", "the bow was strung: the string's hours begin", "strung now",
         choices={"strung": {True: "strung; strung it; strung up"}}, beside="bow; for the night; it; string", implied=True, need=("strung",)),
    Word("unstrung", "string", StringStrung, "{strung} now", "the bow was unstrung: its hours stop", "unstrung now",
         choices={"strung": {False: "unstrung; took the string off; took string off"}}, beside="bow; for the night; it; string",
         implied=True, need=("strung",)),
    Word("settled", "string", StringSettled, "settled {settled}", "an old string that no longer stretches; “not yet” for a new one", "settled string",
         choices={"settled": {
             True: "string; settled; string settled; shot in; stopped stretching; old and settled; settled string",
             False: "not yet; not settled; has not settled; string has not settled; string is not settled; string not settled; string not settled yet; settled not yet; not settled yet; brand new string not settled; new not settled; settled new; new",
         }},
         beside="string; yet; brand new; brand new string; new", implied=True, need=("settled",), weak="string; new; not yet"),
    Word("tried", "rig", BraceTried, "tried {brace_height_mm} {datum} [sound {sound}] [shock {shock}] [turns {turns}] [tail {tail}]",
         "a brace height that was shot, rated 0 still to 10 harsh", "tried 7 1/2 grip sound 3 4 3 shock 2 3 2",
         "tried brace; sound; shock; sounds; hand shock",
         (_HEIGHT, _ratings("sound"), _ratings("shock"), Slot("turns", "turn", "turns", needed=False, before="turns", by_name=True)),
         {"datum": BRACE_TO, "tail": {"straight": "straight; tail straight", "left": "left; tail left", "right": "right; tail right", "high": "high; tail high", "low": "low; tail low"}},
         "brace; tail", asks="datum", question="Brace is read to three places: to which?",
         needs=lambda m: m.says("tried", "sound", "shock", "sounds")),
)  # fmt: skip
