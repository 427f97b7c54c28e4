"""What archers say of arrows in flight: the rows of the flight's words."""

from lyrandis.core.flight.readings import (
    BareApart,
    FeathersSeen,
    FlightKit,
    MatchSource,
    PlateMarked,
    ShotCare,
    SittingEnded,
    SlapHeard,
    TailSeen,
    TrialSet,
    WalkedBack,
)
from lyrandis.core.flight.said import (
    DISTANCE,
    bare_apart,
    tail_seen,
    take_change,
    trial_set,
    walked_back,
)
from lyrandis.core.hearing.matching import Matching
from lyrandis.core.hearing.table import Slot, Word

PLAIN_WORDS = "arrow arrows shaft shafts group"

_TAIL = "arrow flies; flies; flew; arrow flew; nock end; nocks; nocks point; arrow tail; nock; tail high; tail low; tail left; tail right; nock high; tail of the arrow; bare shaft tail; nock left; nock right; nock low; nocks left; nocks right; nocks high; nocks low; rear of the arrow; arrow flies tail; back end"
_BARE = "bare shaft; bare shafts; bareshaft; bareshafts; bs; unfletched arrow; unfletched; bare shaft hits; bareshaft hits; bare shaft group; bare arrow; bare arrows; unfletched shaft; unfletched shafts"
_WAYS_ASIDE = "sticks out to the; kicks; kick; kicking; pointing; flies; flying; point to the; to the; kicks to the; points; point; arrow goes in; goes in; perfect flight; dead; end; arrow; and"
_STRUCK = "to the; hits; hit; land; lands; struck; strikes; group; with the fletched; with fletched; with the fletched ones; of the fletched ones; of the group; than the fletched; of fletched; beside; of the fletched; fletched; shaft; shafts; impact; and; with; of them"


def _with_change(matching: Matching) -> bool:
    """Fill it, with what was changed for it where that is said."""
    take_change(matching)
    return matching.fill()


WORDS: tuple[Word, ...] = (
    Word("tail", "rig", TailSeen, "tail {_ways} at {distance_m} {_arrows} {bare} {_change}",
         "which way the nocks point back: left or right, high or low, 1 slight, 2 clear, 3 strong, or mm", "tail left 2 @ 3 paces",
         _TAIL, slots=(DISTANCE,), choices={"bare": {True: "bare; bare shaft; bareshaft; bare shaft tail"}}, beside=_WAYS_ASIDE, build=tail_seen,
         question="How far the tail points aside is missing.", labels={"_ways": "which way, and how far", "bare": "bare shafts"}, lacks={"_ways": ("Which way the tail points is missing.", "Say straight, left or right, high or low; 1 slight, 2 clear, 3 strong.")}),
    Word("bare", "rig", BareApart, "bare {_ways} at {distance_m} {_arrows} {_change}",
         "where bare shafts strike beside fletched ones", "bare 3cm left 1cm high @ 18m",
         _BARE, (DISTANCE,), beside=_STRUCK, build=bare_apart,
         labels={"_ways": "how far and which way"},
         lacks={"_ways": ("Which side the bare shafts struck, and how far, is missing.", "Say how far left or right, high or low of the fletched ones.")}),
    Word("wear", "rig", PlateMarked, "wear {mark} {_change}", "a mark on felt at the side plate after six shots", "wear plate",
         "felt mark; mark on the felt; mark on the plate; on the side plate; on the plate",
         choices={"mark": {
             True: "plate; felt mark; mark; marks; marks on the felt; felt mark on the plate; mark on the felt; mark on the plate; yes",
             False: "none; no mark; no marks; no marks on the felt; no marks on the plate; clean; no felt mark; no mark on the side plate; no mark on the plate; no mark on the felt; no"}},
         beside="on the side plate; on the plate; after 6 shots; after six shots; after 3 shots; side; felt; powder", implied=True, need=("mark",),
         weak="plate; mark; none; clean; yes; no; marks", build=_with_change),
    Word("slap", "rig", SlapHeard, "slap {heard} {_change}", "whether the shaft is heard slapping the bow", "slap heard",
         "slapping; slaps; slap the riser; contact; clacks; clatters; clack; rattles against the riser",
         choices={"heard": {True: "heard; hear; slap heard; some; yes; slapping; slaps; slapping the riser; clacks; clatters", False: "none; no slap; not heard; not hear; no"}},
         beside="shaft; riser; any; against the riser", need=("heard",), build=_with_change),
    Word("feathers", "rig", FeathersSeen, "feathers {rubbed}", "whether feathers are rubbed at their base", "feathers rubbed",
         "feather; fletching",
         choices={"rubbed": {True: "rubbed; worn; worn at the base; scuffed; rubbing; torn; yes; some", False: "clean; not rubbed; not worn; none; no"}},
         beside="at the base", need=("rubbed",), needs=lambda m: not m.says("arrow") or not m.says("lifting", "lifts", "loose")),
    Word("walkback", "rig", WalkedBack, "walkback {_marks}", "the same aim from growing distances, and where it strikes", "walkback 10m 0, 20m 2cm left",
         "walk back", beside="and", build=walked_back, labels={"_marks": "distances, and where it struck"},
         lacks={"_marks": ("Two distances at least, each with where it struck.", "Say the side too, e.g. 10m 0, 20m 2cm left.")}),
    Word("trial", "rig", TrialSet, "trial {_change}", "what is changed to prove a reading; “back” once it is put back", "trial draw short 1in",
         "test", beside="with", build=trial_set, labels={"_change": "what is changed"},
         lacks={"_change": ("What is changed, and by how much, is not clear.", "Say draw short 1in, draw extra 1/2in, silencers 20gr on, plate 2mm out, point 25gr heavier, brace 1/4in up, shafts 57lb or nock 3mm up.")}),
    Word("shooting", "archer", ShotCare, "shooting {care}", "how you shoot until your groups say it", "shooting ordinary",
         choices={"care": {
             "steady": "steady; tight groups; shooting steady; kind",
             "ordinary": "ordinary; shooting ordinary",
             "beginning": "beginning; beginner; careless; wide groups; shooting beginning; beginner , wide groups"}},
         beside="groups; archer", implied=True, need=("care",), weak="kind; ordinary"),
    Word("bareset", "rig", FlightKit, "bareset {bare_shafts}", "whether there are bare shafts of this set", "bareset none",
         choices={"bare_shafts": {
             False: "none; no; bareset none; no bare shafts; not have any bare shafts",
             True: "some; yes; bareset some; have bare shafts; have a bare shaft"}},
         implied=True, need=("bare_shafts",), weak="none; no; some; yes"),
    Word("feltset", "rig", FlightKit, "feltset {felt}", "whether there is felt or powder to hand", "feltset none",
         choices={"felt": {False: "none; no; no felt; not have any felt", True: "some; yes; have felt; have powder"}},
         implied=True, need=("felt",), weak="none; no; some; yes"),
    Word("sitting", "rig", SittingEnded, "sitting {anew}", "to go on another day; “anew”: what was seen before counts no more", "sitting over",
         choices={"anew": {False: "over; another day", True: "anew"}}, need=("anew",)),
    Word("range", "rig", FlightKit, "range {longest_m}", "the furthest that can be shot", "range 30m",
         "longest range; can shoot up to; up to; longest", (Slot("longest_m", "distance", "shooting_distance", label="furthest"),), beside="can shoot; can; up to"),
    Word("borrow", "rig", FlightKit, "borrow {other_shafts_lbf}", "spine of other shafts to hand for a trial", "borrow 57lb",
         "borrowed", (Slot("other_shafts_lbf", "spine", "spine", label="their spine"),), beside="shafts"),
    Word("matchfrom", "rig", MatchSource, "matchfrom {source}", "whether the match is what the flight says, or the model alone", "matchfrom model",
         "match from", choices={"source": {"flight": "flight; tuning", "model": "model"}}, need=("source",)),
    Word("bare", "rig", None, names="hits; group; arrows hit; struck; arrow hits", unnamed=True,
         slots=(Slot("_off", "length", "hit_aside"), Slot("_far", "distance", "shooting_distance")),
         choices={"_side": {"high": "high", "low": "low", "left": "left", "right": "right"}}, beside="arrows; arrow; hit; to the", need=("_side",),
         asks_which=("bare {_off} {_side} at {_far}", "crawl {_far} 0mm {_off} {_side}"), question="Bare shafts beside fletched ones, or where you aimed without a crawl?"),
)  # fmt: skip
