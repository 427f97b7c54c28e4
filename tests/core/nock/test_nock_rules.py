"""The nock, tiller and riser judged: by table on both sides, and what the pages draw."""

from typing import Any

import pytest

from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.computed import Computed, compute
from lyrandis.core.nock.page import NockPage, page
from lyrandis.core.setup import fold
from tests.entries import entries

RIG = ("hand right", "hold split", "draw 28", "hook 1/2", "family hunting recurve", "bow 60",
       "riser 17", "scale 45 @ 28 1/2", "arrow 1 430gr", "diameter 7mm",
       "brace 7 3/4 grip")  # fmt: skip


def computed(*said: Any) -> Computed:
    return compute(fold(entries(*RIG, *said)))


def judged(*said: Any) -> Assessment:
    return assess(fold(entries(*RIG, *said)))


def severity(name: str, *said: Any) -> str | None:
    return next((f.severity for f in judged(*said).findings if f.id == name), None)


THREE = "hold three under"
SERVED = ("bundle 2.09mm", "thread 0.46mm")
"""Served to 2.83 mm, good to 0.15."""
RECKONED = ("fibre polyester", "string 56 16 strands", "thread 0.46mm")
"""The same, its bundle reckoned: good to 0.4."""
TABLE = [
    # the arrow's nock on the serving, both sides of every line
    ("nock-fit", SERVED, None),
    ("nock-fit", ("bundle 2.09mm", "nockgroove 2.8mm"), None),
    ("nock-fit", (*SERVED, "nockgroove 2.8mm"), "good"),
    ("nock-fit", (*SERVED, "nockgroove 3.0mm"), "good"),
    ("nock-fit", (*SERVED, "nockgroove 3.2mm"), "watch"),
    ("nock-fit", (*SERVED, "nockgroove 3.6mm"), "mend"),
    ("nock-fit", (*SERVED, "nockgroove 3.6mm", "hold thumb"), "watch"),
    ("nock-fit", (*SERVED, "nockgroove 2.6mm"), "good"),
    ("nock-fit", (*SERVED, "nockgroove 2.4mm"), "watch"),
    ("nock-fit", (*SERVED, "nockgroove 2.0mm"), "mend"),
    ("nock-fit", (*RECKONED, "nockgroove 3.2mm"), "good"),
    # height against where the search begins
    ("nock-height", ("lift 1mm",), None),
    ("nock-height", ("lift 0.9mm",), "watch"),
    ("nock-height", ("lift 5mm",), None),
    ("nock-height", ("lift 5.1mm",), "watch"),
    ("nock-height", ("lift 5.1mm", "nockfixed found"), None),
    ("nock-height", ("hold thumb", "lift 3mm"), "watch"),
    ("nock-height", (THREE, "usualcrawl 30mm", "lift 7.9mm"), None),
    # schools outrank the start
    ("nock-schools", ("lift 6mm", "nockshot 6mm bare level"), "good"),
    ("nock-schools", ("lift 6.6mm", "nockshot 6mm bare level"), "watch"),
    ("nock-schools", ("lift 6.5mm", "nockshot 6mm bare level"), "good"),
    ("nock-schools", ("lift 3mm", "nockshot 2mm bounced", "nockshot 3mm clean"), "good"),
    ("nock-schools", ("lift 5mm", "nockshot 2mm bounced", "nockshot 3mm clean"), "watch"),
    # tiller, split: 3 to 6
    ("tiller-band", ("tiller 181mm 176.5mm fade",), "good"),
    ("tiller-band", ("tiller 181mm 173.1mm fade",), "good"),
    ("tiller-band", ("tiller 181mm 173mm fade",), "watch"),
    ("tiller-band", ("kit full", "tiller 181mm 170.1mm fade"), "watch"),
    ("tiller-band", ("kit full", "tiller 181mm 170mm fade"), "mend"),
    ("tiller-band", ("kit plain", "tiller 181mm 170mm fade"), "watch"),
    # in line
    ("limbs-line", ("limbline 1mm -1mm",), "good"),
    ("limbs-line", ("limbline 1.1mm 0mm",), "watch"),
    ("limbs-line", ("limbline 0mm -3mm",), "watch"),
    ("limbs-line", ("limbline 0mm -3.1mm",), "mend"),
    # the point: 0 to half a shaft
    ("centre-shot", ("centreshot 0mm",), "good"),
    ("centre-shot", ("centreshot 3.5mm out",), "good"),
    ("centre-shot", ("centreshot 3.8mm out",), "watch"),
    ("centre-shot", ("centreshot 0.5mm in",), "watch"),
    # bolts
    ("limb-bolts", ("bolts 3 3",), None),
    ("limb-bolts", ("bolts 3 3", "bolts most 5"), "good"),
    ("limb-bolts", ("bolts 3 4.6", "bolts most 5"), "watch"),
    ("limb-bolts", ("bolts 5.1 3", "bolts most 5"), "stop"),
    # riser weights
    ("riser-weights", ("riserweight 60g 0mm middle",), "good"),
    ("riser-weights", ("riserweight 60g 190mm down lower",), "watch"),
    ("riser-weights", ("riserweight 40g 190mm down lower",), "good"),
    ("riser-weights", ("riserweight 60g 190mm down lower", "riserweight 0g 0mm lower"), None),
]  # fmt: skip


@pytest.mark.parametrize(("name", "said", "expected"), TABLE)
def test_the_nock_is_judged(name: str, said: tuple[str, ...], expected: str | None) -> None:
    assert severity(name, *said) == expected


def test_a_bolt_out_too_far_stops_the_rig() -> None:
    found = judged("bolts 6 3", "bolts most 5")
    assert found.may_shoot.answer == "no"
    assert next(stage for stage in found.stages if stage.key == "nock").stop


def test_a_deep_crawl_uses_up_the_margin_before_stack() -> None:
    margin = computed().bow.stack_margin_mm
    assert margin is not None
    found = {
        crawl: severity("deep-hook", f"draw {draw}", f"usualcrawl {crawl}mm")
        for draw, crawl in ((28, 15), (29, 60), (30, 90))
    }
    assert found[15] is None
    assert "mend" in found.values()


def test_a_height_is_the_same_however_it_was_read() -> None:
    told = ("nockwidth 8mm",)
    lift = computed(*told, "lift 3mm").nock.lift
    over = computed(*told, "locator 11mm over").nock.lift
    under = computed(*told, "locator 3mm under").nock.lift
    for one in (lift, over, under):
        assert one is not None
        assert one.value == pytest.approx(3.0)


def test_a_fixed_height_is_not_moved_by_what_would_move_the_start() -> None:
    fixed = judged("lift 3mm", "nockfixed found", "hold thumb", "usualcrawl 60mm")
    nock = next(stage for stage in fixed.stages if stage.key == "nock")
    assert nock.live.figure is not None
    assert nock.live.figure.value == pytest.approx(3.0)
    assert "nock-height" not in {f.id for f in fixed.findings}
    free = judged("lift 3mm", "nockfixed found", "nockfixed free", "hold thumb")
    assert "nock-height" in {f.id for f in free.findings}


def drawn(*said: Any) -> NockPage:
    return page(computed(*said))


def test_the_page_shows_the_brace_each_height_was_shot_at() -> None:
    side = drawn("nockshot 4mm bounced", "brace 8 grip", "nockshot 6mm clean").side
    assert [shot.brace_mm for shot in side.shots] == pytest.approx([7.75 * 25.4, 8 * 25.4])
    assert side.clean is not None
    assert side.clean.high_mm == 6


def test_left_hands_and_thumbs_are_drawn_from_the_other_side() -> None:
    seen = {
        (hand, hold): drawn(f"hand {hand}", f"hold {hold}").side.mirrored
        for hand in ("left", "right")
        for hold in ("split", "thumb")
    }
    assert seen["left", "split"] != seen["right", "split"]
    assert seen["left", "thumb"] != seen["left", "split"]
    assert seen["right", "thumb"] != seen["left", "thumb"]


def test_bolt_turns_for_a_wished_weight() -> None:
    tiller = drawn("kit full", "wish 40").tiller
    assert tiller.turns_for_wish is not None
    assert tiller.turns_for_wish < 0
    assert tiller.kit == "full"
    assert drawn().tiller.turns_for_wish is None


def test_weights_stand_where_they_were_put() -> None:
    balance = drawn("riserweight 60g 150mm down 30mm forward lower insert").balance
    [weight] = balance.weights
    assert (weight.place, round(weight.mass_g)) == ("lower insert", 60)
    assert (weight.up_mm, weight.forward_mm) == (-150, 30)
    assert balance.down_mm is not None
    assert balance.down_mm > 0


def test_own_weighings_before_and_after_a_turn_outrank_the_model() -> None:
    told = ("kit full", "bolts 2 2", "scale 44.8 @ 28 1/2")
    model = computed(*told).nock
    own = computed(*told, "bolts 4 4", "scale 40.6 @ 28 1/2", "scale 40.7 @ 28 1/2").nock
    assert model.bolt_pairs == ()
    [pair] = own.bolt_pairs
    assert pair.turns == -2
    assert pair.after_lbf < pair.before_lbf
    assert own.turn.value > 1.3 * model.turn.value
    assert own.turn.sd < model.turn.sd


@pytest.mark.parametrize(
    ("said", "name", "expected"),
    [
        ("lift 9mm", "nock-height", "watch"), ("lift 29mm", "nock-height", "mend"),
        ("centreshot 6mm out", "centre-shot", "watch"),
        ("centreshot 11mm out", "centre-shot", "mend"),
        ("centreshot 7mm in", "centre-shot", "mend"),
    ],
)  # fmt: skip
def test_a_setting_far_outside_all_that_is_usual_was_misread(
    said: str, name: str, expected: str
) -> None:
    found = next(f for f in judged("hold split", "diameter 7mm", said).findings if f.id == name)
    assert found.severity == expected
    assert ("again" in found.sentence.text()) is (expected == "mend")
