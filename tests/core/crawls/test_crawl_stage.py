"""From what is recorded to the table: jots, units, anchors, what does not fit, what is said."""

import math

import pytest
from pydantic import ValidationError

from lyrandis.core import entries as e
from lyrandis.core.assessment import judge
from lyrandis.core.bench_readings import PartFitted, Retraction
from lyrandis.core.computed import Computed, compute
from lyrandis.core.crawls.page import page
from lyrandis.core.crawls.readings import CrawlCounted, CrawlMark
from lyrandis.core.crawls.sight import high_per_mm
from lyrandis.core.errors import DomainError
from lyrandis.core.jot import Listener, parse
from lyrandis.core.reading import BaseReading
from lyrandis.core.setup import fold
from tests.entries import NOW, draft, entries

RIG = (
    "hold three under", "anchor corner", "hand right", "draw 28", "hook 1/2",
    "family hunting recurve", "bow 62", "riser 17", "string 59 16 strands", "settled string",
    "brace 8 grip", "scale 45 @ 28", "material carbon", "shaft 29 1/2 8gpi", "point 110gr",
    "diameter 7mm", "spine 500", "arrow 1 400gr", "lift 5mm",
)  # fmt: skip
GOOD = ("crawl 10m 50mm", "crawl 20m 36mm", "crawl 30m 21.5mm", "crawl 40m 6.5mm",
        "crawl 15m 43mm")  # fmt: skip


def rig(*said: str | BaseReading | e.EntryDraft) -> Computed:
    return compute(fold(entries(*RIG, *said)))


def findings(c: Computed) -> dict[str, str]:
    return {one.id: f"{one.severity}: {one.sentence.text('metric')}" for one in judge(c).findings}


def at(c: Computed, distance: float) -> float:
    assert c.crawls.marks.fit is not None
    return c.crawls.marks.fit.table([distance])[0].crawl_mm


# the jot line


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("crawl 20m 34mm", "At 20 m crawl 34.0 mm"),
        ("crawl 20yd 34mm", "At 20 yd crawl 34.0 mm"),
        ("crawl 20m 2 3/4 fingers", "At 20 m crawl 2.75 fingers"),
        ("crawl 20 m 1 finger", "At 20 m crawl 1 finger"),
        ("crawl 25m 11 stitches about", "At 25 m crawl 11 stitches, about"),
        ("crawl 20m 1 3/8in sure", "At 20 m crawl 34.9 mm, sure of it"),
        ("crawl 25m 30mm 12cm high", "At 25 m crawl 30.0 mm: 12.0 cm high"),
        ("crawl 25m 30mm 12cm low 6 arrows", "At 25 m crawl 30.0 mm: 12.0 cm low"),
        ("crawl guessed 30m 22mm", "At a guessed 30 m crawl 22.0 mm"),
        ("crawl 45m none", "At 45 m crawl 0.0 mm"),
        ("crawl 50m 6mm above", "At 50 m crawl -6.0 mm"),
        ("finger 19mm", "Finger 19.0 mm wide"),
        ("finger three 57mm", "Finger 19.0 mm wide"),
        ("stitches 33mm", "Ten stitches 33.0 mm"),
        ("eye 62mm", "Eye 62.0 mm over the nock"),
        ("reach 31in", "Nock groove to the point's end 78.7 cm"),
        ("crawlunits yards", "Distances of the crawls until now are yards"),
        ("crawlsin stitches", "Crawls in stitches of the tab"),
        ("crawltable 10yd to 60yd every 10yd",
         "Distances in yards, from 10 yd, to 60 yd, every 10 yd"),
    ],
)  # fmt: skip
def test_the_jot_line_hears_crawls(line: str, says: str) -> None:
    assert parse(line).reading.say().text("metric") == says


@pytest.mark.parametrize(
    ("line", "reason"),
    [
        ("crawl 0m 34mm", "0 m is no distance for a crawl."),
        ("crawl 500m 34mm", "500 m is no distance for a crawl."),
        ("crawl 20km 34mm", "20000 m is no distance for a crawl."),
        ("crawl 20m 340mm", "outside what a crawl can be"),
        ("crawl 20m 9 fingers", "9 fingers is no crawl."),
        ("crawl 20m", "The crawl is missing."),
        ("crawl 20m 34mm 12cm", "Did it strike high or low?"),
        ("crawl", "The distance is missing."),
        ("finger 50mm", "outside what a finger's width can be"),
    ],
)
def test_bad_lines_say_what_to_do(line: str, reason: str) -> None:
    with pytest.raises(DomainError) as refused:
        parse(line)
    assert reason.lower() in refused.value.reason.lower()
    assert refused.value.instruction


def test_a_distance_without_a_unit_is_asked_for_where_inches_are_read() -> None:
    with pytest.raises(DomainError) as refused:
        parse("crawl 20 34mm")
    assert [one.text for one in refused.value.guesses] == [
        "crawl 20m 34mm", "crawl 20yd 34mm",
    ]  # fmt: skip
    metric = parse("crawl 20 34mm", to=Listener(units="metric"))
    assert metric.reading.distance_m == 20  # type: ignore[union-attr]


def test_kilometres_are_offered_back_as_metres() -> None:
    with pytest.raises(DomainError) as refused:
        parse("crawl 20km 34mm")
    assert [one.text for one in refused.value.guesses] == ["crawl 20 m 34mm"]


def test_a_crawl_is_given_once() -> None:
    with pytest.raises(ValidationError, match="twice"):
        CrawlMark(distance_m=20, crawl_mm=34, fingers=2)
    with pytest.raises(ValidationError, match="missing"):
        CrawlMark(distance_m=20)


# what a mark is taken for


def test_fingers_without_a_width_count_by_a_usual_finger_and_less_surely() -> None:
    usual, own = rig("crawl 20m 2 fingers"), rig("finger 17mm", "crawl 20m 2 fingers")
    (by_usual,), (by_own,) = usual.crawls.lines, own.crawls.lines
    assert by_usual.crawl is not None
    assert by_own.crawl is not None
    assert (by_usual.crawl.value, by_own.crawl.value) == (38.0, 34.0)
    assert by_usual.crawl.sd > by_own.crawl.sd


def test_stitches_wait_for_the_tab_and_nothing_is_lost() -> None:
    before, after = rig("crawl 25m 11 stitches"), rig("crawl 25m 11 stitches", "stitches 30mm")
    assert before.crawls.lines[0].why_not == "no_tab"
    assert page(before).marks[0].why_not == "counts once the tab's stitches are measured"
    assert after.crawls.lines[0].crawl is not None
    assert after.crawls.lines[0].crawl.value == pytest.approx(33.0)


def test_a_high_hit_asks_for_more_crawl_and_is_less_sure_than_a_right_one() -> None:
    plain, high, low = (
        rig(f"crawl 25m 30mm{more}").crawls.lines[0].crawl
        for more in ("", " 12cm high", " 12cm low")
    )
    assert plain is not None
    assert high is not None
    assert low is not None
    assert low.value < plain.value < high.value
    assert high.value == pytest.approx(30 + 120 / high_per_mm(25, 771.3, 0.887), abs=0.02)
    assert high.sd > plain.sd


def test_what_is_sure_counts_more_and_a_guessed_distance_less() -> None:
    sds = [
        crawl.sd
        for line in ("crawl 30m 22mm sure", "crawl 30m 22mm", "crawl 30m 22mm about",
                     "crawl guessed 30m 22mm")
        if (crawl := rig(line).crawls.lines[0].crawl) is not None
    ]  # fmt: skip
    assert sds == sorted(sds)
    own = rig("repeats 1mm", "crawl 30m 22mm").crawls.lines[0].crawl
    assert own is not None
    assert own.sd == 1.0


def test_one_tap_turns_all_marks_until_then_into_yards_and_back() -> None:
    metres = rig(*GOOD)
    yards = rig(*GOOD, "crawlunits yards")
    assert [one.distance_m for one in yards.crawls.lines] == pytest.approx(
        [one.distance_m * 0.9144 for one in metres.crawls.lines]
    )
    assert page(yards).unit == "yd"
    assert page(yards).marks[0].where == "10 yd"
    later = rig(*GOOD, "crawlunits yards", "crawl 25m 29mm")
    assert later.crawls.lines[-1].distance_m == 25
    back = rig(*GOOD, "crawlunits yards", "crawlunits metres")
    assert [one.distance_m for one in back.crawls.lines] == pytest.approx(
        [one.distance_m for one in metres.crawls.lines]
    )


def test_another_anchor_or_hold_is_another_table_and_going_back_brings_the_first() -> None:
    moved = rig(*GOOD, "anchor cheekbone")
    assert {one.why_not for one in moved.crawls.lines} == {"other_anchor"}
    assert not moved.crawls.marks.counting
    back = rig(*GOOD, "anchor cheekbone", "anchor corner")
    assert len(back.crawls.marks.counting) == len(GOOD)
    split = rig(*GOOD, "hold split")
    assert not split.crawls.marks.counting


def test_marks_of_other_arrows_do_not_count_and_are_not_lost() -> None:
    other = draft(PartFitted(part="arrow_set", part_id="set-b"), on="rig", days=200)
    build = [
        draft(line, days=201 + i, subject="set-b")
        for i, line in enumerate(("material carbon", "shaft 29 1/2 8gpi", "arrow 400gr"))
    ]
    c = rig(*GOOD, other, *build)
    assert not c.crawls.lines
    assert page(c).elsewhere == len(GOOD)


# what follows


def test_the_table_exists_before_the_first_arrow_and_each_mark_narrows_it() -> None:
    halves = [rig("usualcrawl 22mm", *GOOD[:count]).crawls.table.half_mm for count in (0, 1, 2, 4)]
    assert all(half is not None for half in halves)
    assert halves == sorted(halves, reverse=True)
    assert halves[0] > 10
    assert halves[-1] < 4


def test_without_what_a_table_needs_it_says_so_and_keeps_the_marks() -> None:
    c = compute(fold(entries("draw 28", "crawl 20m 34mm")))
    found = page(c)
    assert found.rows == ()
    assert len(found.marks) == 1
    assert "weight" in found.lacks[0]
    stage = next(one for one in judge(c).stages if one.key == "crawls")
    assert stage.live.missing is not None


def test_nobody_who_does_not_walk_the_string_sees_the_stage() -> None:
    assert "crawls" not in {one.key for one in judge(rig()).stages}
    assert "crawls" in {one.key for one in judge(rig("usualcrawl 22mm")).stages}
    assert "crawls" in {one.key for one in judge(rig("crawl 20m 34mm")).stages}


def test_a_mark_that_does_not_fit_is_named_left_out_and_counted_at_a_tap() -> None:
    c = rig(*GOOD, "crawl 25m 44mm")
    assert c.crawls.marks.dropped is c.crawls.marks.odd
    assert findings(c)["crawl-odd"].startswith("watch: The crawl at 25 m is ")
    assert "left out until you count it" in findings(c)["crawl-odd"]
    assert at(c, 20) == pytest.approx(at(rig(*GOOD), 20))
    mark = c.crawls.lines[-1].recorded.entry.id
    counted = rig(*GOOD, "crawl 25m 44mm", CrawlCounted(mark=mark, counted=True))
    assert counted.crawls.marks.dropped is None
    assert len(counted.crawls.marks.counting) == len(GOOD) + 1
    assert at(counted, 20) != pytest.approx(at(c, 20), abs=0.1)
    out = rig(*GOOD, "crawl 25m 44mm", CrawlCounted(mark=mark, counted=False))
    assert out.crawls.marks.odd is None
    assert out.crawls.lines[-1].why_not == "left_out"


@pytest.mark.parametrize(
    ("said", "rule", "severity", "words"),
    [
        (("usualcrawl 22mm",), "crawl-table", "watch", "do not cut a tab to it"),
        (("crawl 20m 36mm",), "crawl-distances", "watch", "another distance tells more"),
        (GOOD[:2], "crawl-table", "watch", "so far"),
        ((*GOOD, *GOOD), "crawl-table", "good", "mark the tab by it"),
        (("crawl 10m 20mm", "crawl 30m 45mm"), "crawl-swapped", "mend", "wrong way round"),
        (("crawl 20m 34mm", "crawl 20m 50mm"), "crawl-odd", "mend", "anchor or hook moved"),
    ],
)
def test_findings(said: tuple[str, ...], rule: str, severity: str, words: str) -> None:
    found = findings(rig(*said))[rule]
    assert found.startswith(severity)
    assert words in found


def test_a_deep_table_on_a_short_bow_is_cautioned() -> None:
    assert "crawl-depth" not in findings(rig("anchor cheekbone", "usualcrawl 10mm"))
    deep = findings(rig("anchor chin", "usualcrawl 10mm"))["crawl-depth"]
    assert deep.startswith(("watch", "mend"))


def test_marks_that_ask_for_another_speed_than_the_chronograph_are_said() -> None:
    slow = ("crawl 10m 44mm sure", "crawl 20m 22mm sure", "crawl 25m 10mm sure",
            "crawl 15m 33mm sure", "crawl 30m -2mm sure")  # fmt: skip
    agreeing = findings(rig("speed 178fps 400gr", *GOOD))
    assert "crawl-speed" not in agreeing
    told = [draft(line.replace("-2mm", "2mm above"), days=60 + i) for i, line in enumerate(slow)]
    off = findings(rig("speed 190fps 400gr", "speed 190fps 400gr", *told))
    assert "crawl-speed" in off


def test_the_next_distance_is_a_step_of_its_own_with_a_crawl_to_begin_with() -> None:
    c = rig("usualcrawl 22mm", "crawl 10m 50mm")
    found = page(c).next
    assert found is not None
    assert found.after_mm < found.before_mm
    assert found.distance_m >= 30


def test_rows_follow_the_wished_table_in_its_unit() -> None:
    found = page(rig(*GOOD, "crawltable 10yd to 50yd every 10yd"))
    assert [row.says for row in found.rows] == [f"{yards} yd" for yards in (10, 20, 30, 40, 50)]
    assert found.unit == "yd"


def test_the_linear_school_stands_beside() -> None:
    found = page(rig(*GOOD)).linear
    assert found is not None
    assert found.per_10_m == pytest.approx(-14.6, abs=0.4)
    assert page(rig(GOOD[0])).linear is None


def test_what_is_read_from_the_marks_is_the_arrows_own() -> None:
    c = rig(*GOOD)
    assert c.crawls.marks.fit is not None
    assert c.crawls.table.own_sight is not None
    assert c.crawls.table.own_sight.speed_mps == pytest.approx(
        c.crawls.marks.fit.sight.speed_mps / math.sqrt(c.crawls.basis.kappa.value)
    )
    assert 0.84 < c.crawls.basis.kappa.value < 0.93


def test_taking_a_mark_back_is_exact() -> None:
    said = entries(*RIG, *GOOD)
    back = draft(Retraction(entry_id=said[-1].id), on="rig", days=300, id="taken-back-1")
    from lyrandis.core.record import as_entries

    whole = [*said, *as_entries([back], now=NOW, after=len(said))]
    assert page(compute(fold(whole))).rows == page(rig(*GOOD[:-1])).rows


def test_crawls_are_in_doubt_once_what_they_rest_on_moved() -> None:
    assert rig(*GOOD).order.states["crawls"].mark == "settled"
    for moved in ("brace 8 1/4 grip", "lift 7mm", "arrow 1 412gr"):
        assert rig(*GOOD, moved).order.states["crawls"].mark == "direct", moved
    assert rig(*GOOD, "lift 7mm", "crawl 20m 36mm").order.states["crawls"].mark == "settled"


def test_crawls_in_stitches_stay_those_of_the_tab_they_were_read_from() -> None:
    told = ("stitches 33mm", "crawl 20m 11 stitches")
    before, after = rig(*told), rig(*told, "stitches 40mm", "crawl 30m 6 stitches")
    assert [one.crawl.value for one in before.crawls.lines] == pytest.approx([36.3])
    assert [one.crawl.value for one in after.crawls.lines] == pytest.approx([36.3, 24.0])
    assert after.crawls.basis.stitch.value == 4.0, "the strip shows the tab that is worn now"
    late = rig("crawl 20m 11 stitches", "stitches 33mm")
    assert late.crawls.lines[0].crawl.value == pytest.approx(36.3), "measured only afterwards"


def test_what_was_measured_stands_on_the_page_and_the_table_in_its_unit() -> None:
    bare = page(rig(*GOOD)).own
    assert (bare.finger, bare.ten_stitches, bare.eye, bare.reach, bare.repeats) == (None,) * 5
    assert bare.table == "5m to 50m every 5m"
    own = page(rig(*GOOD, "finger 18mm", "stitches 33mm", "eye 62mm", "reach 31in", "repeats 1.5mm",
                   "crawltable 10yd to 60yd every 10yd")).own  # fmt: skip
    found = (own.finger, own.ten_stitches, own.eye, own.reach, own.repeats)
    assert [round(one.value, 1) for one in found] == [18.0, 33.0, 62.0, 787.4, 1.5]
    assert own.table == "10yd to 60yd every 10yd"


@pytest.mark.parametrize("said", ["20m", "20 paces", "60 feet", "20yd", "20 steps", "20 metres"])
def test_crawls_and_flight_read_a_distance_alike(said: str) -> None:
    crawl = parse(f"crawl {said} 34mm").reading
    bare = parse(f"bare 12cm left @ {said}").reading
    assert crawl.distance_m == bare.distance_m  # type: ignore[union-attr]
