"""Making entries for tests: by hand, in a line, and by strategy."""

from datetime import UTC, datetime, timedelta
from types import SimpleNamespace
from typing import Any, get_args

from hypothesis import strategies as st

from lyrandis.core import entries as e
from lyrandis.core.computed import compute
from lyrandis.core.jot import parse
from lyrandis.core.quantities import PLAUSIBLE
from lyrandis.core.record import as_entries
from lyrandis.core.rooms import ROOMS
from lyrandis.core.setup import fold

NOW = datetime(2026, 3, 1, 12, 0, tzinfo=UTC)
IDS: dict[e.SubjectKind, str] = {
    "archer": "ann", "bow": "yew", "string": "cord", "arrow_set": "set-a", "rig": "rig-1",
}  # fmt: skip


def draft(
    said: str | e.BaseReading,
    *,
    on: e.SubjectKind | None = None,
    subject: str | None = None,
    days: float = 0,
    **more: Any,
) -> e.EntryDraft:
    """A draft from a jot line or a reading, `days` after the start."""
    kind: Any = on
    source = more.pop("source", None)
    if isinstance(said, str):
        jotted = parse(said)
        reading: Any = jotted.reading
        kind, source = on or jotted.subject, source or jotted.source
    else:
        reading = said
        kind = on or sorted(said.of)[0]
    return e.PostedEntry(
        subject=e.Subject(kind=kind, id=subject or IDS[kind]),
        reading=reading,
        source=source,
        happened_at=NOW + timedelta(days=days),
        **more,
    )


def fitting(**parts: str | None) -> list[e.EntryDraft]:
    """Drafts that put parts on the rig (all the usual ones by default)."""
    wanted = parts or {kind: IDS[kind] for kind in get_args(e.PartKind)}  # type: ignore[misc]
    return [
        draft(e.PartFitted(part=part, part_id=part_id), on="rig")  # type: ignore[arg-type]
        for part, part_id in wanted.items()
    ]


def entries(*said: str | e.BaseReading | e.EntryDraft, fitted: bool = True) -> list[e.Entry]:
    """Entries of one rig from jot lines, readings or drafts, a day apart."""
    drafts = fitting() if fitted else []
    for day, one in enumerate(said, start=1):
        drafts.append(one if isinstance(one, e.EntryDraft) else draft(one, days=day))
    return as_entries(drafts, now=NOW)


def drawn(*said: str | e.BaseReading | e.EntryDraft) -> SimpleNamespace:
    """All that the pages of all stages draw, of one rig."""
    c = compute(fold(entries(*said)))
    return SimpleNamespace(**{k: v for room in ROOMS for k, v in dict(room.page(c)).items()})


_RANGES = {
    "draw_length_mm": "draw_length", "hook_position_mm": "hook_position",
    "arm_length_mm": "arm_length", "arm_span_mm": "arm_span", "hook_depth_mm": "hook_depth",
    "bow_length_mm": "bow_length", "riser_length_mm": "riser_length",
    "brace_height_mm": "brace_height", "low_mm": "brace_height", "high_mm": "brace_height",
    "depth_mm": "grip_depth", "shaft_length_mm": "shaft_length",
    "string_length_mm": "string_length", "draw_weight_lbf": "draw_weight",
    "arrow_mass_gr": "arrow_mass", "grains_per_pound": "grains_per_pound",
    "shaft_gr_per_in": "shaft_grains_per_inch", "speed_mps": "arrow_speed",
    "upper_lbf": "draw_weight", "upper_length_mm": "limb_length",
    "shaft_diameter_mm": "shaft_diameter", "spine_lbf": "spine", "tail_taper_mm": "taper_length",
    "tail_diameter_mm": "shaft_diameter", "head_taper_mm": "taper_length",
    "head_diameter_mm": "shaft_diameter", "fletching_length_mm": "fletching_length",
    "straight_mm": "run_out", "nock_turn_deg": "nock_turn", "window_mm": "window",
    "track_mm": "string_track", "shaft_gr": "shaft_mass",
}  # fmt: skip


def _field(name: str, annotation: Any) -> st.SearchStrategy[Any]:
    if name == "ear":
        return st.none() | _EARS
    key = _RANGES.get(name) or ("part_mass" if name.endswith("_gr") else None)
    if key:
        meant = PLAUSIBLE[key]
        return st.floats(meant.low, meant.high)
    options = [arg for arg in get_args(annotation) if isinstance(arg, str)]
    if options:
        return st.sampled_from(options)
    nested = [option for arg in get_args(annotation) for option in get_args(arg)]
    named = [option for option in nested if isinstance(option, str)]
    return st.sampled_from(named) if named else st.just("x")


_DEEP = {"crawl_mm": 110.0, "fingers": 6.0, "stitches": 40.0}
_TRIALS = st.none() | st.sampled_from(
    [
        e.Change(what="draw_short", amount=25.4),
        e.Change(what="plate", amount=-2.0),
        e.Change(what="point", amount=25.0),
        e.Change(what="other_shafts", amount=57.0),
        e.Change(what="nock", amount=3.0),
    ]
)
_HITS = st.builds(
    e.Hit, right_mm=st.floats(-400, 400), up_mm=st.floats(-400, 400), bare=st.booleans()
)


_MARKS = st.integers(0, 5).map(lambda n: f"{n:016x}")
_LEVELS = st.floats(-80, 0)
_EARS = st.builds(e.ByEar, mark=_MARKS, half=st.floats(0.05, 2), same_place=st.booleans())


def _take() -> st.SearchStrategy[e.TakeHeard]:
    return st.builds(
        e.TakeHeard,
        at_s=st.floats(0, 60),
        level_db=_LEVELS,
        peak_db=_LEVELS,
        snr_db=st.floats(0, 40),
        centroid_hz=st.floats(100, 4000),
        ring_s=st.tuples(*[st.none() | st.floats(0.02, 2)] * 6),
        cells_db=st.tuples(*[_LEVELS] * 25),
        rep=st.floats(0, 4),
        unrep=st.floats(0, 4),
        excess_db=st.floats(0, 20),
        bursts=st.integers(0, 6),
        spread_ms=st.floats(0, 20),
        crest_db=st.floats(0, 20),
        sync=st.floats(-1, 1),
        slap=st.floats(-1, 1),
        spikes_ms=st.lists(st.integers(30, 350), max_size=3).map(tuple),
        blow_s=st.none() | st.floats(0.1, 1),
    )


@st.composite
def _sound_heard(draw: st.DrawFn) -> e.SoundHeard:
    takes = tuple(draw(st.lists(_take(), min_size=1, max_size=5)))
    note = draw(st.none() | st.floats(60, 150))
    return e.SoundHeard(
        mark=draw(_MARKS),
        name="made-up.wav",
        what=draw(st.sampled_from(["pluck", "shot", "reference"])),
        same_place=draw(st.booleans()),
        seconds=10.0,
        rate_hz=44100.0,
        takes=takes,
        struck=draw(st.just(()) | st.just((1,)) | st.just((len(takes),))),
        note_hz=note,
        note_half_hz=None if note is None else draw(st.floats(0.05, 2)),
        partials=() if note is None else tuple(
            e.PartialHeard(number=n, hz=note * n) for n in (1, 2, 3)
        ),
        second=draw(st.floats(0, 30)),
        second_ratio=draw(st.floats(0.925, 0.987)),
        line_db=draw(st.floats(0, 15)),
        troubles=draw(st.just(()) | st.sampled_from([("few_takes",), ("clipped",), ("noisy",)])),
    )  # fmt: skip


def _reading(kind: type[e.BaseReading]) -> st.SearchStrategy[e.BaseReading]:
    special: dict[type, st.SearchStrategy[Any]] = {
        e.Retraction: st.builds(
            e.Retraction, entry_id=st.integers(1, 16).map(lambda n: f"posted-{n}")
        ),
        e.PartFitted: st.sampled_from(sorted(get_args(e.PartKind))).flatmap(
            lambda part: st.sampled_from([IDS[part], f"{IDS[part]}-2", None]).map(
                lambda part_id: e.PartFitted(part=part, part_id=part_id)
            )
        ),
        e.Named: st.builds(e.Named, name=st.just("x"), alike=st.booleans()),
        e.PutAway: st.builds(e.PutAway, away=st.booleans()),
        e.BraceRange: st.lists(_field("low_mm", None), min_size=2, max_size=2).map(
            lambda two: e.BraceRange(low_mm=min(two), high_mm=max(two))
        ),
        e.ArrowMinimum: st.one_of(
            st.builds(e.ArrowMinimum, grains_per_pound=_field("grains_per_pound", None)),
            st.builds(e.ArrowMinimum, arrow_mass_gr=_field("arrow_mass_gr", None)),
        ),
        e.LimbPair: st.builds(
            e.LimbPair,
            pair=st.sampled_from(sorted(get_args(e.LimbsAre))),
            upper_lbf=st.just(40.0),
            lower_lbf=_field("upper_lbf", None),
            upper_length_mm=st.just(500.0),
            lower_length_mm=_field("upper_length_mm", None),
        ),
        e.Inspected: st.permutations(sorted(get_args(e.InspectionItem))).flatmap(
            lambda items: st.integers(1, len(items)).map(
                lambda count: e.Inspected(
                    good=tuple(items[: count // 2]), failing=tuple(items[count // 2 : count])
                )
            )
        ),
        e.StringBuild: st.builds(
            e.StringBuild,
            strands=st.integers(4, 60),
            material=st.none() | st.sampled_from(sorted(get_args(e.StringMaterial))),
            string_type=st.none() | st.sampled_from(sorted(get_args(e.StringType))),
        ),
        e.BowMadeAs: st.builds(e.BowMadeAs, made=st.sampled_from(sorted(get_args(e.BowMade)))),
        e.PutTogether: st.lists(
            st.sampled_from(sorted(get_args(e.AssemblyStep))), min_size=1, max_size=4
        ).map(lambda steps: e.PutTogether(done=tuple(steps))),
        e.StringTurns: st.builds(e.StringTurns, turns=st.integers(0, 160).map(lambda n: n / 2)),
        e.StringStrung: st.builds(e.StringStrung, strung=st.booleans()),
        e.StringSettled: st.builds(e.StringSettled, settled=st.booleans()),
        e.BraceHeight: st.builds(
            e.BraceHeight,
            brace_height_mm=_field("brace_height_mm", None),
            datum=st.sampled_from(sorted(get_args(e.BraceDatum))),
            hours_strung=st.none() | st.floats(0, 90),
        ),
        e.BraceTried: st.builds(
            e.BraceTried,
            brace_height_mm=_field("brace_height_mm", None),
            sound=st.lists(st.floats(0, 10), min_size=1, max_size=3).map(tuple),
            shock=st.lists(st.floats(0, 10), max_size=3).map(tuple),
            takes_db=st.lists(st.floats(-60, -20), max_size=4).map(tuple),
            ear=st.none() | _EARS,
        ),
        e.NockHeight: st.builds(
            e.NockHeight,
            height_mm=st.floats(-15, 40),
            datum=st.sampled_from(sorted(get_args(e.NockDatum))),
        ),
        e.NockLocked: st.builds(e.NockLocked, locked=st.booleans()),
        e.NockShot: st.builds(
            e.NockShot,
            lift_mm=st.floats(-5, 20),
            flew=st.sampled_from(sorted(get_args(e.NockFlight))),
        ),
        e.ArrowNock: st.builds(
            e.ArrowNock, outside_mm=st.floats(3, 15), groove_mm=st.none() | st.floats(1, 6)
        ),
        e.TillerGaps: st.builds(
            e.TillerGaps,
            upper_mm=st.floats(60, 300),
            lower_mm=st.floats(60, 300),
            place=st.sampled_from(sorted(get_args(e.LimbPlace))),
        ),
        e.LimbsInLine: st.builds(
            e.LimbsInLine, upper_mm=st.floats(-9, 9), lower_mm=st.floats(-9, 9)
        ),
        e.CentreShot: st.builds(e.CentreShot, out_mm=st.floats(-9, 9)),
        e.LimbBolts: st.builds(
            e.LimbBolts,
            upper_turns=st.floats(0, 9),
            lower_turns=st.none() | st.floats(0, 9),
            most_turns=st.none() | st.floats(0, 9),
        ),
        e.RiserWeight: st.builds(
            e.RiserWeight,
            place=st.sampled_from(["lower insert", "back"]),
            mass_g=st.floats(0, 400),
            up_mm=st.floats(-250, 250),
        ),
        e.RiserSide: st.builds(
            e.RiserSide,
            grip_under_rest_mm=st.floats(0, 60),
            shelf_under_rest_mm=st.none() | st.floats(0, 30),
        ),
        e.UsualCrawl: st.builds(e.UsualCrawl, crawl_mm=st.floats(0, 100)),
        e.SettingFound: st.builds(
            e.SettingFound,
            setting=st.sampled_from(sorted(get_args(e.ByFlight))),
            word=st.sampled_from(["level", "high"]),
        ),
        e.TailSeen: st.builds(
            e.TailSeen,
            across=st.integers(-3, 3),
            up_mm=st.none() | st.floats(-200, 200),
            distance_m=st.sampled_from([2.3, 5.3, 9.0]),
            arrows=st.integers(1, 6),
            bare=st.booleans(),
            trial=_TRIALS,
        ),
        e.ButtHits: st.builds(
            e.ButtHits,
            hits=st.lists(_HITS, min_size=1, max_size=6).map(tuple),
            distance_m=st.sampled_from([5.0, 10.0, 18.0]),
            trial=_TRIALS,
        ),
        e.BareApart: st.builds(
            e.BareApart,
            right_mm=st.floats(-900, 900),
            up_mm=st.none() | st.floats(-900, 900),
            distance_m=st.sampled_from([10.0, 18.0, 60.0]),
            bare=st.integers(1, 6),
            trial=_TRIALS,
        ),
        e.PlateMarked: st.builds(e.PlateMarked, mark=st.booleans(), trial=_TRIALS),
        e.SlapHeard: st.builds(e.SlapHeard, heard=st.booleans(), trial=_TRIALS),
        e.FeathersSeen: st.builds(e.FeathersSeen, rubbed=st.booleans()),
        e.WalkedBack: st.builds(
            e.WalkedBack,
            marks=st.floats(-300, 300).map(
                lambda off: (
                    e.ColumnMark(distance_m=10.0, right_mm=0.0),
                    e.ColumnMark(distance_m=20.0, right_mm=off),
                )
            ),
        ),
        e.TrialSet: st.builds(e.TrialSet, trial=_TRIALS),
        e.FlightKit: st.builds(
            e.FlightKit,
            bare_shafts=st.booleans(),
            longest_m=st.none() | st.floats(3, 60),
            other_shafts_lbf=st.none() | _field("spine_lbf", None),
        ),
        e.RigTuned: st.builds(
            e.RigTuned,
            matched_lbf=_field("spine_lbf", None),
            model_lbf=_field("spine_lbf", None),
            offset=st.floats(-6, 6),
            sd=st.floats(0.3, 2),
        ),
        e.CrawlMark: st.builds(
            lambda how, deep, **more: e.CrawlMark(**{how: deep * _DEEP[how]}, **more),
            how=st.sampled_from(sorted(_DEEP)),
            deep=st.floats(-0.1, 1),
            distance_m=st.floats(2, 70),
            unit=st.sampled_from(["m", "yd"]),
            sure=st.sampled_from(["sure", "ordinary", "about"]),
            high_mm=st.none() | st.floats(-800, 800),
            arrows=st.integers(1, 6),
            guessed=st.booleans(),
        ),
        e.SoundHeard: _sound_heard(),
        e.ShaftTapped: st.builds(
            e.ShaftTapped,
            arrow_number=st.integers(1, 12),
            state=st.sampled_from(["bare", "finished"]),
            mass_gr=st.none() | st.floats(150, 600),
            mark=_MARKS,
            taps=st.lists(
                st.builds(
                    e.TapHeard,
                    at_s=st.floats(0, 60),
                    ring_hz=st.floats(50, 140),
                    half_hz=st.floats(0.1, 3),
                    lines=st.integers(2, 4),
                    quarter=st.booleans(),
                ),
                min_size=1,
                max_size=3,
            ).map(tuple),
        ),
        e.CrawlUnits: st.builds(e.CrawlUnits, unit=st.sampled_from(["m", "yd"])),
        e.CrawlCounted: st.builds(
            e.CrawlCounted,
            mark=st.integers(1, 30).map(lambda n: f"entry-{n:08}"),
            counted=st.booleans(),
        ),
        e.FingerWidth: st.builds(e.FingerWidth, width_mm=st.floats(12, 29)),
        e.TabStitches: st.builds(e.TabStitches, ten_mm=st.floats(15, 70)),
        e.EyeHeight: st.builds(e.EyeHeight, eye_mm=st.floats(20, 150)),
        e.ArrowReach: st.builds(e.ArrowReach, reach_mm=st.floats(500, 1000)),
        e.CrawlHabit: st.builds(
            e.CrawlHabit,
            notation=st.sampled_from(["mm", "fingers", "stitches"]),
            repeat_mm=st.none() | st.floats(0.5, 5),
            unit=st.none() | st.sampled_from(["m", "yd"]),
            from_m=st.none() | st.floats(2, 20),
            to_m=st.none() | st.floats(20, 100),
            step_m=st.none() | st.floats(1, 10),
        ),
        e.ArrowMassed: st.builds(
            e.ArrowMassed,
            arrow_mass_gr=_field("arrow_mass_gr", None),
            arrow_number=st.none() | st.integers(1, 12),
        ),
        e.NumberedArrow: st.builds(
            e.NumberedArrow,
            arrow_number=st.integers(1, 12),
            spine_lbf=st.none() | _field("spine_lbf", None),
            straight_mm=st.none() | _field("straight_mm", None),
            state=st.none() | st.sampled_from(sorted(get_args(e.ArrowState))),
            retired=st.none() | st.booleans(),
            remark=st.just("dark grain"),
            spine_ear=st.none() | _EARS,
        ),
        e.ArrowPass: st.builds(
            e.ArrowPass,
            window_mm=st.none() | _field("window_mm", None),
            track_mm=_field("track_mm", None),
            plunger=st.none() | st.booleans(),
        ),
        e.ArrowBuild: st.dictionaries(
            st.sampled_from(
                [
                    name
                    for name in e.ArrowBuild.model_fields
                    if name.endswith(("_mm", "_gr", "_lbf"))
                ]
            ),
            st.none(),
            min_size=1,
        ).flatmap(
            lambda names: st.fixed_dictionaries({name: _field(name, None) for name in names}).map(
                lambda given: e.ArrowBuild(**given)
            )
        ),
    }
    if kind in special:
        return special[kind]
    fields = {
        name: _field(name, info.annotation)
        for name, info in kind.model_fields.items()
        if name != "kind"
    }
    return st.builds(kind, **fields)


_ANY_READING = st.one_of([_reading(kind) for kind in e.READINGS])


@st.composite
def any_draft(draw: st.DrawFn) -> e.EntryDraft:
    """Any valid entry, on any of the subjects it can be recorded on."""
    reading = draw(_ANY_READING)
    kind = draw(st.sampled_from(sorted(reading.of)))
    suffix = draw(st.sampled_from(["", "", "", "-2"])) if kind != "rig" else ""
    return e.PostedEntry(
        subject=e.Subject(kind=kind, id=IDS[kind] + suffix),
        reading=reading,  # type: ignore[arg-type]
        source=draw(st.none() | st.sampled_from(sorted(get_args(e.Source)))),
        happened_at=NOW + timedelta(hours=draw(st.integers(0, 200))),
    )


def any_entries() -> st.SearchStrategy[list[e.Entry]]:
    """Any list of valid entries, with parts fitted now and then."""
    return st.lists(any_draft(), max_size=16).map(lambda drafts: as_entries(drafts, now=NOW))
