"""The field helper's table and its shots: what is carried, what comes back, what is new of it."""

from datetime import timedelta
from math import hypot, sqrt

import numpy as np
import pytest
from pydantic import ValidationError

from lyrandis.core import entries as e
from lyrandis.core.computed import Computed, compute
from lyrandis.core.crawls.field import field_table
from lyrandis.core.crawls.readings import CrawlMark
from lyrandis.core.crawls.sight import high_per_mm
from lyrandis.core.crawls.words import STRUCK_SD, STRUCK_SDS
from lyrandis.core.errors import DomainError
from lyrandis.core.field_shots import MOST_SHOTS, Sorted, read_shots, sort_shots
from lyrandis.core.setup import fold
from tests.core.crawls.test_crawl_stage import GOOD, at, rig
from tests.entries import NOW, entries
from tests.field_text import field_text

HEAD = "of rig-1 with set-a held corner three_under"
THEN = NOW + timedelta(days=4)


def shot(
    line: str = "crawl 27m 30mm high 1 arrow", name: str = "8f3c1a2b", hours: float = 1
) -> str:
    when = (THEN + timedelta(hours=hours)).isoformat().replace("+00:00", "Z")
    return f"{when} {name} {line}"


def brought(
    *lines: str, log: list[e.Entry] | None = None, rig: str = "rig-1", later: float = 2
) -> list[Sorted]:
    return sorted_text(field_text(*lines), log, rig, later)


def sorted_text(
    text: str, log: list[e.Entry] | None = None, rig: str = "rig-1", later: float = 2
) -> list[Sorted]:
    now = THEN + timedelta(hours=later)
    return sort_shots(read_shots(text).shots, log or entries(*LOG), rig=rig, now=now)


LOG = ("hold three under", "anchor corner", "draw 28")


# where it struck, told without a figure


@pytest.mark.parametrize("offset", [-0.6, -0.3, 0.0, 0.3, 0.6])
def test_high_fine_and_low_tell_on_average_how_far_off_it_was(offset: float) -> None:
    struck = np.random.default_rng(7).normal(offset, 1.0, 200_000)
    told = np.where(struck > 0.5, STRUCK_SDS["high"], np.where(struck < -0.5, STRUCK_SDS["low"], 0))
    assert told.mean() == pytest.approx(offset, abs=0.04)
    assert told.std() == pytest.approx(STRUCK_SD, abs=0.12)


@pytest.mark.parametrize(("struck", "way"), [("high", 1), ("fine", 0), ("low", -1)])
def test_a_side_moves_the_crawl_that_way_and_counts_less_than_a_figure(
    struck: str, way: int
) -> None:
    plain, told = rig("crawl 20m 36mm"), rig(f"crawl 20m 36mm {struck} 1 arrow")
    assert np.sign(round(at(told, 20) - at(plain, 20), 6)) == way or struck == "fine"
    marks = [c.crawls.lines[0].crawl for c in (plain, told)]
    assert marks[1].sd == pytest.approx(hypot(2.0, STRUCK_SD * 80 / _high(told, 20)))
    assert marks[1].value == pytest.approx(36 + STRUCK_SDS[struck] * 80 / _high(told, 20))
    more = rig(f"crawl 20m 36mm {struck} 4 arrows").crawls.lines[0].crawl
    assert hypot(more.sd**2 - 4 + 1e-9) < marks[1].sd ** 2 - 4, "four arrows tell more than one"


def _high(c: Computed, distance: float) -> float:
    return high_per_mm(distance, c.crawls.basis.tip_mm or 0, c.crawls.basis.kappa.value)


def test_a_side_and_a_figure_together_are_refused() -> None:
    with pytest.raises(ValidationError, match="given twice"):
        CrawlMark(distance_m=20, crawl_mm=30, high_mm=50, struck="high")


# what is carried


def test_the_carried_grid_is_the_table_itself() -> None:
    c = rig(*GOOD)
    table = field_table(c)
    by = {point.distance_m: point for point in table.points}
    rows = c.crawls.marks.fit.table([5.0, 20.0, 45.0])
    covariance = np.array(table.covariance)
    for row in rows:
        point = by[row.distance_m]
        assert point.crawl_mm == pytest.approx(row.crawl_mm, abs=0.001)
        steep = np.array(point.steep)
        sd = table.scale * sqrt(steep @ covariance @ steep)
        floor = table.floor_mm
        if row.crawl_mm < 0:
            floor = hypot(floor, table.floor_share * row.crawl_mm)
        assert table.factor * hypot(sd, floor) == pytest.approx(row.half_mm, rel=1e-3)


@pytest.mark.parametrize(
    "more", ["crawl 27m 27mm high 1 arrow", "crawl 35m 14mm 18cm low 3 arrows",
             "crawl 12m 45mm fine 2 arrows"],
)  # fmt: skip
def test_one_linear_step_in_the_field_is_what_the_fit_makes_at_home(more: str) -> None:
    before, after = rig(*GOOD[:2]), rig(*GOOD[:2], more)
    table = field_table(before)
    mark = after.crawls.lines[-1]
    covariance, by = np.array(table.covariance), {p.distance_m: p for p in table.points}
    steep = np.array(by[mark.distance_m].steep)
    across = covariance @ steep
    gain = across / (steep @ across + mark.crawl.sd**2)
    moved = gain * (mark.crawl.value - by[mark.distance_m].crawl_mm)
    for distance in (5.0, 10.0, 20.0, 30.0, 40.0):
        learned = by[distance].crawl_mm + np.array(by[distance].steep) @ moved
        assert learned == pytest.approx(at(after, distance), abs=0.3)


def test_the_archers_own_notation_comes_first_and_unmeasured_stitches_are_left_out() -> None:
    assert [step.notation for step in field_table(rig()).steps] == ["mm", "fingers"]
    counted = field_table(rig("stitches 33mm", "crawlsin stitches")).steps
    assert (counted[0].notation, counted[0].mm, counted[0].parts) == ("stitches", 3.3, 2)


def test_yards_are_carried_as_yards() -> None:
    metres, yards = field_table(rig("crawl 20m 34mm")), field_table(rig("crawl 20yd 34mm"))
    assert (metres.unit, yards.unit) == ("m", "yd")
    assert abs(yards.points[20].further_mm) < abs(metres.points[20].further_mm)


def test_a_rig_without_a_speed_has_nothing_to_carry() -> None:
    with pytest.raises(DomainError, match="no table of crawls to take along") as refused:
        field_table(compute(fold(entries("crawl 20m 34mm"))))
    assert "arrow's mass" in refused.value.instruction


# what comes back


def test_a_shot_comes_back_as_it_was_logged() -> None:
    [one] = brought(HEAD, shot("crawl guessed 27m 7 stitches high 1 arrow"))
    assert one.shown.state == "new"
    assert one.draft is not None
    reading = one.draft.reading
    assert isinstance(reading, CrawlMark)
    assert (reading.distance_m, reading.stitches, reading.struck) == (27, 7, "high")
    assert (reading.guessed, reading.arrows) == (True, 1)
    assert one.draft.happened_at == THEN + timedelta(hours=1)
    assert one.draft.id == "8f3c1a2b"


@pytest.mark.parametrize(
    ("lines", "state", "says"),
    [
        ((HEAD, shot()), "new", None),
        ((shot(),), "new", None),
        ((HEAD.replace("of rig-1", "of other"), shot()), "bad", "shot with the rig other"),
        ((HEAD.replace("set-a", "old-set"), shot()), "differs", "other arrows"),
        ((HEAD.replace("with set-a", "with -"), shot()), "differs", "other arrows"),
        ((HEAD.replace("corner", "cheekbone"), shot()), "differs", "at that time: Anchor: corner"),
        ((HEAD.replace("three_under", "split"), shot()), "differs", "held otherwise"),
        ((HEAD, shot("crawl 900m 30mm")), "bad", "no distance for a crawl"),
        ((HEAD, shot("crawl 27m 300mm")), "bad", "300"),
        ((HEAD, shot("crawl 27m 30mm sideways")), "bad", "sideways"),
        ((HEAD, shot(hours=3)), "bad", "has not happened yet"),
        ((HEAD, shot(name="x")), "bad", "no id of a shot"),
        ((HEAD, shot().replace("Z", "")), "bad", "no instant"),
        ((HEAD, shot(name="8f3c1a2b", hours=-2)), "new", None),
    ],
)
def test_every_line_says_whether_it_is_new_and_why_not(
    lines: tuple[str, ...], state: str, says: str | None
) -> None:
    [one] = brought(*lines)
    assert one.shown.state == state, one.shown
    assert (one.draft is None) == (state == "bad")
    if says:
        assert says in (one.shown.why or "")
        assert one.shown.instruction


def test_a_shot_that_is_here_is_not_recorded_again_and_another_of_its_id_stays_out() -> None:
    [first] = brought(HEAD, shot())
    assert first.draft is not None
    log = entries(*LOG, first.draft)
    [again] = brought(HEAD, shot(), log=log)
    assert (again.shown.state, again.draft) == ("here", None)
    [other] = brought(HEAD, shot("crawl 27m 31mm low"), log=log)
    assert (other.shown.state, other.draft) == ("bad", None)
    assert "At 27 m crawl" in (other.shown.why or "")


def test_a_shot_of_other_arrows_counts_for_them_when_it_is_recorded_all_the_same() -> None:
    [one] = brought(HEAD.replace("set-a", "old-set"), shot())
    assert one.draft is not None
    assert one.draft.fitted is not None
    assert one.draft.fitted.arrow_set == "old-set"


def test_a_text_that_went_through_a_messenger_is_read() -> None:
    text = "\n> ".join(field_text(HEAD, shot(), shot(name="9f3c1a2b")).splitlines())
    found = read_shots(f"Hi,\n> {text}\n\nBye").shots
    assert [one.id for one in found] == ["8f3c1a2b", "9f3c1a2b"]
    assert {one.of.anchor for one in found if one.of} == {"corner"}
    assert [one.shown.state for one in sorted_text(f"Hi,\n> {text}\nBye")] == ["new", "new"]


THREE = (
    shot("crawl guessed 27m 34mm high 1 arrow", "8f3c1a2b4d5e6f70"),
    shot("crawl 35m 12mm 8cm low 3 arrows", "91aa0c112233"),
    shot("crawl 18m 7.5 stitches fine 2 arrows", "77be1d445566", 1.5),
)


def test_a_text_cut_anywhere_never_records_another_shot_than_was_shot() -> None:
    text = field_text(HEAD, *THREE)
    whole = {one.shown.id: one.shown.line for one in sorted_text(text)}
    assert len(whole) == 3
    assert not read_shots(text).more
    for cut in range(text.index("2026") + 1, len(text) - 1):
        try:
            came = read_shots(text[:cut])
        except DomainError:
            continue
        taken = [one.shown for one in sorted_text(text[:cut]) if one.draft is not None]
        assert all(whole[one.id] == one.line for one in taken), text[:cut]
        assert came.more, "what is missing is said"


def test_a_line_changed_on_its_way_is_shown_and_never_taken() -> None:
    text = field_text(HEAD, *THREE)
    for was, became in (("34mm", "3"), ("7.5", "7½"), ("3 arrows", "8 arrows"), ("35m", "35yd"),
                        ("8cm low", "8cm high"), ("guessed ", ""), ("corner", "cheekbone"),
                        ("T", "t")):  # fmt: skip
        changed = sorted_text(text.replace(was, became, 1))
        bad = [one for one in changed if one.draft is None]
        assert bad, became
        assert all("cut or changed on its way" in (one.shown.why or "") for one in bad)


def test_a_line_that_comes_a_second_time_whole_is_taken() -> None:
    text = field_text(HEAD, THREE[0])
    found = sorted_text(text.replace("34mm", "3", 1) + text)
    assert [(one.shown.state, one.shown.line) for one in found] == [
        ("new", "crawl guessed 27m 34mm high 1 arrow")
    ]


def test_the_last_line_of_a_text_without_checks_is_asked_about() -> None:
    old = "\n".join(["Lyrandis field shots", HEAD, *THREE])
    assert [one.shown.state for one in sorted_text(old)] == ["new", "new", "differs"]
    [cut] = sorted_text(f"{HEAD}\n{shot('crawl 27m 3')}")
    assert cut.shown.state == "differs", "it was 34mm high, and reads as three inches"
    assert "may have been cut" in (cut.shown.why or "")
    assert cut.draft is not None, "a person may say that it is whole"


def test_a_shot_twice_in_one_text_is_one() -> None:
    assert len(brought(HEAD, shot(), shot())) == 1


@pytest.mark.parametrize("text", ["", "hello", "crawl 20m 30mm", "\x00\x01", "{}", "of a with b"])
def test_what_is_no_shot_is_said(text: str) -> None:
    with pytest.raises(DomainError, match="No shot of the field helper"):
        read_shots(text)


def test_more_shots_than_a_season_are_refused() -> None:
    lines = [shot(name=f"shot{number:06d}") for number in range(MOST_SHOTS + 1)]
    assert len(read_shots("\n".join(lines[:-1])).shots) == MOST_SHOTS
    with pytest.raises(DomainError, match="more than are taken at once"):
        read_shots("\n".join(lines))
