"""Listen on the bench: sessions, before and after, what is pointed to, the list, the tension."""

from typing import Any

import numpy as np
import pytest

from lyrandis.core import entries as e
from lyrandis.core.assessment import assess
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.bow.readings import ArrowSpeed
from lyrandis.core.by_ear import ByEar
from lyrandis.core.computed import Computed, compute
from lyrandis.core.constants import NEWTONS_PER_LBF
from lyrandis.core.errors import DomainError
from lyrandis.core.example import sound, take
from lyrandis.core.listen.checklist import checks
from lyrandis.core.listen.naming import point
from lyrandis.core.listen.page import board_of, page
from lyrandis.core.listen.rules import judge
from lyrandis.core.reading import BaseReading, Fitted
from lyrandis.core.setup import fold
from lyrandis.core.string.readings import BraceTried, StringBuild
from tests.entries import draft, entries

BOW = ("draw 28", "hook 1/2", "family hunting recurve", "bow 62", "riser 17",
       "string 59 16 strands", "scale 45 @ 28", "material carbon", "shaft 29 1/2 8gpi",
       "point 110gr", "spine 500", "diameter 7mm", "brace 8", "arrow 1 400gr")  # fmt: skip


def rig(*said: str | BaseReading | e.EntryDraft) -> Computed:
    return compute(fold(entries(*BOW, *said)))


QUIETER = (-43.5, -44.0, -43.0)


# sessions and levels


def test_the_newest_two_of_one_kind_stand_beside_each_other() -> None:
    c = rig(sound(1), sound(2, "pluck", loud(-12)), sound(3, levels=QUIETER))
    pair = c.listen.pair
    assert pair is not None
    assert (pair.before.reading.mark[-1], pair.after.reading.mark[-1]) == ("1", "3")
    assert pair.how == "session"
    assert pair.level is not None
    assert pair.level.told_apart
    assert pair.level.change_db == pytest.approx(-3.5, abs=0.1)
    assert rig(sound(1)).listen.pair is None
    assert rig(sound(1), sound(2, "pluck")).listen.pair is None


@pytest.mark.parametrize(
    ("after", "how"),
    [
        ({"same_place": True}, "session"),
        ({"same_place": False}, "no"),
        ({"troubles": ("clipped",)}, "gain"),
        ({"troubles": ("gain_rides",)}, "gain"),
        ({"troubles": ("noisy",)}, "gain"),
        ({"troubles": ("low_rate",)}, "session"),
        ({"troubles": ("voice",)}, "session"),
    ],
)
def test_levels_compare_only_by_right(after: dict[str, Any], how: str) -> None:
    pair = rig(sound(1), sound(2, levels=QUIETER, **after)).listen.pair
    assert pair is not None
    assert pair.how == how
    assert (pair.level is not None) == (how == "session")


def test_a_reference_knock_carries_levels_over_two_places() -> None:
    knock = (-30.0, -30.5, -29.5)
    louder = tuple(one + 6 for one in knock)
    c = rig(
        sound(1), sound(2, "reference", knock),
        sound(3, "reference", louder, same_place=False), sound(4, levels=(-37.5, -38, -37)),
    )  # fmt: skip
    pair = c.listen.pair
    assert pair is not None
    assert pair.how == "reference"
    assert pair.level is not None
    assert pair.level.change_db == pytest.approx(2.5 - 6, abs=0.1)
    same = rig(sound(1), sound(2, levels=(-37.5, -38, -37))).listen.pair
    assert same is not None
    assert same.level is not None
    assert pair.level.half_db > same.level.half_db, "the knock's own doubt is added"


@pytest.mark.parametrize(("apart", "rides"), [(2.5, True), (3.5, False)])
def test_plucks_as_loud_as_shots_give_the_gain_away(apart: float, rides: bool) -> None:
    plucks = tuple(-40 - apart + off for off in (0, 0.1, -0.1))
    c = rig(sound(1, levels=(-40, -40.1, -39.9)), sound(2, "pluck", plucks))
    assert c.listen.gain_rides(c.listen.facts.heard[0]) == rides


@pytest.mark.parametrize(("count", "few"), [(2, True), (3, False)])
def test_three_takes_a_side_at_least(count: int, few: bool) -> None:
    pair = rig(sound(1), sound(2, levels=(-44.0,) * count)).listen.pair
    assert pair is not None
    assert pair.few == few
    assert (pair.level is None) == few


def test_a_take_struck_out_does_not_count_and_may_be_put_back() -> None:
    levels = (-40.0, -40.0, -40.0, -25.0)
    whole = rig(sound(1), sound(2, levels=levels)).listen.pair
    struck = rig(sound(1), sound(2, levels=levels), sound(2, levels=levels, struck=(4,)))
    assert len(struck.listen.facts.heard) == 2, "one recording, as it was last listened to"
    assert whole is not None
    assert struck.listen.pair is not None
    assert struck.listen.pair.level is not None
    assert whole.level is not None
    assert struck.listen.pair.level.half_db < whole.level.half_db
    with pytest.raises(ValueError, match="no take 9"):
        sound(2, levels=levels, struck=(9,))


def test_ring_and_brightness_need_no_level() -> None:
    before = sound(1, takes=tuple(take(-40, 0.40) for _ in range(4)))
    after = sound(2, takes=tuple(take(-40, 0.25) for _ in range(4)), same_place=False)
    pair = rig(before, after).listen.pair
    assert pair is not None
    assert pair.level is None
    ring = pair.rings[1]
    assert (ring.before_s, ring.after_s) == (0.40, 0.25)
    assert ring.change is not None
    assert ring.change.told_apart
    gone = sound(3, takes=tuple(take(-40, None) for _ in range(4)))
    again = rig(before, gone).listen.pair
    assert again is not None
    assert again.rings[1].after_s is None
    assert again.rings[1].change is None


# what was changed between


def test_what_changed_between_is_listed_and_more_than_one_thing_is_named() -> None:
    one = rig(sound(1), "brace 8 1/4", sound(2, levels=QUIETER))
    assert [each.of for each in one.listen.pair.changed] == ["brace"]  # type: ignore[union-attr]
    two = rig(sound(1), "brace 8 1/4", "turns 30", sound(2, levels=QUIETER))
    assert {each.of for each in two.listen.pair.changed} == {"brace", "string_turns"}  # type: ignore[union-attr]
    said = next(f for f in judge(two) if f.rule == "sound-apart").sentence.text()
    assert "2 things changed" in said
    none = rig("turns 30", sound(1), sound(2, levels=QUIETER))
    assert none.listen.pair.changed == ()  # type: ignore[union-attr]


def test_other_arrows_are_a_change() -> None:
    first = {"bow": "yew", "string": "cord", "archer": "ann"}
    c = rig(
        draft(sound(1), days=20, fitted=Fitted(arrow_set="set-a", **first)),
        draft(sound(2, levels=QUIETER), days=21, fitted=Fitted(arrow_set="set-b", **first)),
    )
    pair = c.listen.pair
    assert pair is not None
    assert any("other arrows" in each.says.text() for each in pair.changed)


# what the sound points to


def loud(by: float) -> tuple[float, ...]:
    return tuple(-40 + by + off for off in (0.0, 0.4, -0.4, 0.2, -0.2))


HEALTHY = (sound(1, "pluck", loud(-12)), sound(2, levels=loud(0)))


@pytest.mark.parametrize(
    ("by", "named"), [(0.5, None), (2.2, None), (3.0, None), (4.0, "brace"), (6.0, "brace")]
)
def test_louder_than_its_own_before_points_to_the_brace(by: float, named: str | None) -> None:
    c = rig(*HEALTHY, sound(3, "pluck", loud(-12)), sound(4, levels=loud(by)))
    pointed = c.listen.pointed
    assert pointed is not None
    assert pointed.fault == named
    if by in (2.2, 3.0):
        assert not pointed.enough, "nearly: one more set of takes"


def test_without_a_before_no_fault_of_the_shot_is_named() -> None:
    pointed = rig(sound(1, levels=loud(10))).listen.pointed
    assert pointed is not None
    assert pointed.fault is None
    elsewhere = rig(*HEALTHY, sound(3, "pluck", loud(-12), same_place=False),
                    sound(4, levels=loud(8)))  # fmt: skip
    assert elsewhere.listen.pointed is not None
    assert elsewhere.listen.pointed.fault is None, "another place is no before"


@pytest.mark.parametrize(("second", "named"), [(14.9, None), (15.1, "slack")])
def test_a_second_pitch_is_a_hint_from_fifteen_on(second: float, named: str | None) -> None:
    pluck = sound(1, "pluck", second=second, second_ratio=0.96, note_hz=90.0, note_half_hz=0.1)
    pointed = rig(pluck).listen.pointed
    assert pointed is not None
    assert pointed.fault == named
    if named:
        assert pointed.hint
        assert all(f.severity == "watch" for f in judge(rig(pluck)) if f.rule == "sound-points")


def test_a_second_pitch_that_was_there_before_is_the_limbs() -> None:
    told = {"second": 18.0, "second_ratio": 0.96, "note_hz": 90.0, "note_half_hz": 0.1}
    pointed = rig(sound(1, "pluck", **told), sound(2, "pluck", **told)).listen.pointed
    assert pointed is not None
    assert pointed.fault is None
    other = rig(sound(1, "pluck", **{**told, "second_ratio": 0.94}), sound(2, "pluck", **told))
    assert other.listen.pointed is not None
    assert other.listen.pointed.fault == "slack"


@pytest.mark.parametrize(
    ("line", "unrep", "excess", "named", "enough"),
    [(8.1, 0.7, 7.6, "rattle", True), (8.1, 0.7, 7.0, None, False), (7.9, 0.5, 7.0, None, True)],
)
def test_a_rattle_without_a_before_shows_three_signs(
    line: float, unrep: float, excess: float, named: str | None, enough: bool
) -> None:
    takes = tuple(take(-50, unrep=unrep, excess_db=excess) for _ in range(3))
    pointed = rig(sound(1, "pluck", takes=takes, line_db=line)).listen.pointed
    assert pointed is not None
    assert (pointed.fault, pointed.enough) == (named, enough)


def test_what_was_mended_is_no_fault() -> None:
    c = rig(sound(1, "pluck", loud(-12)), sound(2, levels=loud(0)),
            sound(3, "pluck", loud(-12)), sound(4, levels=loud(-5)))  # fmt: skip
    assert c.listen.pointed is not None
    assert c.listen.pointed.fault is None


def test_a_light_arrow_is_the_mechanics_word_the_sound_agrees_or_not() -> None:
    light = rig("arrow 1 250gr", "arrow 1 250gr")
    assert light.listen.too_light
    odds = light.listen.odds
    assert odds.factors["arrow"] > 1
    assert "under its floor" in odds.because[0]
    found = {one.key: one for one in checks(light)}
    assert found["mass"].state == "heard"
    heavy = rig("arrow 1 520gr")
    assert heavy.listen.odds.factors["arrow"] < 1


def test_nothing_recorded_points_to_nothing() -> None:
    assert point(pluck=None) is None
    assert judge(rig()) == []
    assert rig().listen.pair is None


# tension


def note_for(c: Computed, share: float) -> float:
    braced = c.listen.braced
    assert braced is not None
    assert braced.expected_hz is not None
    return braced.expected_hz * share


@pytest.mark.parametrize(
    ("sds", "severity"), [(0.0, "good"), (1.9, "good"), (2.1, "watch"), (3.1, "mend")]
)
def test_the_note_tells_the_tension_and_a_disagreement_names_its_causes(
    sds: float, severity: str
) -> None:
    c = rig()
    braced = c.listen.braced
    assert braced is not None
    assert braced.tension is not None
    # the note's own doubt grows with it: found by a few steps
    share = 1.0
    for _ in range(40):
        told = rig(sound(1, "pluck", note_hz=note_for(c, share), note_half_hz=0.1)).listen.tension
        assert told is not None
        assert told.apart is not None
        share += 0.02 * (sds - told.apart)
    finding = next(
        f for f in judge(rig(sound(1, "pluck", note_hz=note_for(c, share), note_half_hz=0.1)))
        if f.rule == "sound-tension"
    )  # fmt: skip
    assert finding.severity == severity
    if severity != "good":
        assert "datum" in finding.sentence.text()
        assert "strands" in finding.sentence.text()


def test_a_weighed_string_makes_it_surer() -> None:
    note = note_for(rig(), 1.0)
    guessed = rig(sound(1, "pluck", note_hz=note, note_half_hz=0.1)).listen.tension
    weighed = rig(
        StringBuild(string_mass_gr=104.0), sound(1, "pluck", note_hz=note, note_half_hz=0.1)
    ).listen.tension
    assert guessed is not None
    assert weighed is not None
    assert weighed.by_note.sd < 0.8 * guessed.by_note.sd
    assert guessed.by_note.value / NEWTONS_PER_LBF == pytest.approx(
        guessed.by_statics.value / NEWTONS_PER_LBF,
        rel=0.01,  # type: ignore[union-attr]
    )


def test_a_pluck_of_another_brace_or_string_says_nothing_of_this_one() -> None:
    pluck = sound(1, "pluck", note_hz=95.0, note_half_hz=0.1)
    assert rig(pluck).listen.tension is not None
    assert rig(pluck, "brace 8 1/2").listen.tension is None
    other = PartFitted(part="string", part_id="other-string")
    assert rig(pluck, draft(other, on="rig")).listen.tension is None


# the page


def test_two_recordings_may_be_chosen() -> None:
    c = rig(sound(1), sound(2, "pluck", loud(-12)), sound(3, levels=QUIETER),
            sound(4, levels=(-41, -41, -41)))  # fmt: skip
    board = board_of(c, f"{1:016x}", f"{3:016x}")
    assert board.level is not None
    assert board.level.change == pytest.approx(-3.5, abs=0.1)
    for before, after in ((1, 2), (1, 9)):
        with pytest.raises(DomainError):
            board_of(c, f"{before:016x}", f"{after:016x}")


def test_the_list_stands_in_the_trades_order_from_the_first_day() -> None:
    names = [one.key for one in page(rig()).checks]
    assert names == ["brace", "strand", "strands", "loose", "dampers", "mass", "spine"]
    assert {one.state for one in checks(rig())[:5]} == {"cannot"}


def test_the_stage_counts_what_was_looked_for() -> None:
    before = assess(fold(entries(*BOW)))
    listen = next(one for one in before.stages if one.key == "listen")
    assert listen.mark == "unset"
    quiet = assess(fold(entries(*BOW, *HEALTHY, sound(3, levels=loud(6)))))
    assert next(one for one in quiet.stages if one.key == "listen").mark == "in_doubt"


def test_a_reading_by_ear_calibrates_as_a_chronograph_does() -> None:
    ear = ByEar(mark="0" * 16, half=0.7)
    speed = rig().bow.thrust.speed(400.0) * 1.03  # type: ignore[union-attr]
    told = ArrowSpeed(speed_mps=speed, arrow_mass_gr=400.0, ear=ear)
    vague = told.model_copy(update={"ear": ear.model_copy(update={"half": 6.0})})
    moved = [rig(one).bow.thrust.speed(400.0) for one in (told, vague)]  # type: ignore[union-attr]
    alone = speed / 1.03
    assert alone < moved[1] < moved[0] < speed
    assert "by ear" in told.say().text()


def test_the_sweep_hears_recordings_of_one_session_only() -> None:
    def tried(brace: str, level: float, *, same: bool) -> BraceTried:
        mm = {"8": 203.2, "8 1/4": 209.6, "7 3/4": 196.9}[brace]
        ear = ByEar(mark="0" * 16, half=1.2, same_place=same)
        return BraceTried(brace_height_mm=mm, takes_db=(level, level + 0.3, level - 0.2), ear=ear)

    range_told = "bracerange 7 1/2 to 8 1/2"
    one = rig(range_told, tried("8", -42, same=False), tried("8 1/4", -38, same=True),
              tried("7 3/4", -44, same=True))  # fmt: skip
    assert one.string.quiet is not None
    assert one.string.quiet.brace_mm < 200
    two = rig(range_told, tried("8", -42, same=False), tried("8 1/4", -38, same=False),
              tried("7 3/4", -44, same=True))  # fmt: skip
    assert [len(height.takes_db) for height in two.string.heights] == [0, 3, 3]
    silent = rig(range_told, "tried 8 sound 3", "tried 8 1/4 sound 5", "tried 7 3/4 sound 3")
    assert silent.string.quiet is not None
    with_sound = one.string.quiet.sd_mm
    assert np.isfinite(with_sound)
    assert with_sound < silent.string.quiet.sd_mm


def test_a_pluck_after_it_hides_no_change_of_the_shot() -> None:
    told = (sound(1), "brace 8 1/4", sound(2, levels=QUIETER), sound(3, "pluck", loud(-15)),
            sound(4, "pluck", loud(-15)))  # fmt: skip
    brace = checks(rig(*told))[0]
    assert brace.state == "gone"
    assert "quieter" in brace.shows.text()


def test_a_fault_recorded_twice_is_no_less_a_fault() -> None:
    louder = rig(*HEALTHY, sound(3, levels=loud(6)), sound(4, levels=loud(6.2)))
    assert louder.listen.pointed is not None
    assert louder.listen.pointed.fault == "brace"
    mended = rig(*HEALTHY, sound(3, levels=loud(6)), sound(4, levels=loud(0.2)))
    assert mended.listen.pointed is not None
    assert mended.listen.pointed.fault is None
    after = rig(*HEALTHY, sound(3, levels=loud(6)), sound(4, levels=loud(0.2)),
                sound(5, levels=loud(5.8)))  # fmt: skip
    assert after.listen.pointed is not None
    assert after.listen.pointed.fault == "brace"


def test_other_arrows_are_held_against_their_own_shots_only() -> None:
    first = {"bow": "yew", "string": "cord", "archer": "ann"}
    told = [
        draft(sound(n, what, loud(by)), days=19 + n, fitted=Fitted(arrow_set=arrows, **first))
        for n, what, by, arrows in (
            (1, "pluck", -12, "set-a"), (2, "shot", 0, "set-a"), (3, "shot", 6, "set-b"),
        )
    ]  # fmt: skip
    pointed = rig(*told).listen.pointed
    assert pointed is not None
    assert pointed.fault is None
