"""Rigs as practitioners know them, and how a bowyer, a coach and a fletcher would judge them."""

import math
import re
from functools import lru_cache
from itertools import pairwise
from typing import Any

import pytest

from lyrandis.core.arrow.trial import Tried, trial
from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.bow.board import Wish
from lyrandis.core.bow.choosing import choosing_board
from lyrandis.core.bow.likeness import usual_shape
from lyrandis.core.bow.limbs import mismatch_of
from lyrandis.core.bow.readings import LimbPair
from lyrandis.core.bow.stack import stack_of, typical_stack
from lyrandis.core.bow.statics import draw_curve
from lyrandis.core.computed import Computed, compute
from lyrandis.core.judgement import Finding
from lyrandis.core.phrase import Phrase
from lyrandis.core.setup import fold
from tests.entries import entries

IN = 25.4


@lru_cache(maxsize=256)
def judged(*said: str) -> Assessment:
    return assess(fold(entries(*said)))


def computed(*said: str) -> Computed:
    return compute(fold(entries(*said)))


def finding(name: str, *said: str) -> Finding | None:
    return next((f for f in judged(*said).findings if f.id == name), None)


def severity(name: str, *said: str) -> str | None:
    found = finding(name, *said)
    return found.severity if found else None


# every kind of bow at three weights, with arrows as its archers shoot them

USUAL = {
    "selfbow": ("bow 66", "window 4mm", "wood", 9.5, {25: 26, 45: 46, 60: 62}),
    "straight longbow": ("bow 68", "window 4mm", "wood", 9.5, {25: 27, 45: 48, 60: 65}),
    "reflex deflex longbow": ("bow 62", "window 2.5mm", "wood", 9.5, {25: 28, 45: 51, 60: 68}),
    "hunting recurve": ("bow 60", "window 0mm", "carbon", 9.5, {25: 33, 45: 58, 60: 76}),
    "target recurve": ("bow 68", "window 2mm past", "carbon", 9.5, {25: 38, 45: 63, 60: 80}),
    "short rigid tip": ("bow 54", "window 9mm", "wood", 11.0, {25: 26, 45: 46, 60: 58}),
    "long rigid tip": ("bow 54", "window 10mm", "wood", 12.5, {25: 25, 45: 44, 60: 58}),
    "large rigid tip": ("bow 58", "window 11mm", "wood", 14.5, {25: 25, 45: 42, 60: 58}),
}


def usual(
    family: str, weight: int, *more: str, gpp: float = 0.0, spine: str = ""
) -> tuple[str, ...]:
    bow, window, shaft, usual_gpp, spines = USUAL[family]
    hold = "thumb" if "rigid" in family else "split"
    across = "8.5mm" if shaft == "wood" else "6.5mm"
    return (
        "hand right", f"hold {hold}", "draw 28", f"family {family}", bow,
        f"scale {weight} @ 28 1/2", window, f"material {shaft}", "shaft 29 1/2", "point 110",
        f"diameter {across}", "inspect all good",
        f"arrow 1 {weight * (gpp or usual_gpp):.0f}gr", spine or f"spine {spines[weight]} lb",
        *more,
    )  # fmt: skip


@pytest.mark.parametrize("weight", [25, 45, 60])
@pytest.mark.parametrize("family", USUAL)
def test_an_ordinary_rig_is_neither_stopped_nor_sent_to_be_mended(family: str, weight: int) -> None:
    grave = [
        (f.id, f.sentence.text())
        for f in judged(*usual(family, weight)).findings
        if f.severity in ("stop", "mend")
    ]
    assert grave == []


@pytest.mark.parametrize("weight", [25, 45, 60])
@pytest.mark.parametrize("family", USUAL)
def test_five_grains_a_pound_is_good_on_no_bow(family: str, weight: int) -> None:
    assert severity("arrow-floor", *usual(family, weight, gpp=5.0)) in ("mend", "stop")


# the floor

FLOORS = [
    # a 61 lb target recurve: 5.2 gr/lb was once good, as the floor fell with the weight
    (usual("target recurve", 60, "scale 61 @ 28 1/2", gpp=5.2), "mend"),
    (usual("target recurve", 60, "scale 61 @ 28 1/2", gpp=4.9), "stop"),
    (usual("target recurve", 45, gpp=6.9), "good"),
    (usual("target recurve", 45, gpp=6.4), "watch"),
    (usual("target recurve", 45, gpp=6.0), "watch"),
    (usual("target recurve", 45, gpp=5.5), "mend"),
    # a 35 lb selfbow of 70 in with 10 gr/lb was once stopped
    (("draw 28", "hold split", "family selfbow", "bow 70", "scale 35 @ 28 1/2", "arrow 1 350gr"),
     "good"),
    (("draw 28", "hold split", "family selfbow", "bow 70", "scale 35 @ 28 1/2", "arrow 1 310gr"),
     "watch"),
    (("draw 28", "hold split", "family selfbow", "bow 70", "scale 35 @ 28 1/2", "arrow 1 270gr"),
     "mend"),
    (("draw 28", "hold split", "family selfbow", "bow 70", "scale 35 @ 28 1/2", "arrow 1 250gr"),
     "stop"),
    (usual("straight longbow", 45, gpp=9.6), "good"),
    (usual("straight longbow", 45, gpp=9.2), "watch"),
    (usual("straight longbow", 45, gpp=8.3), "watch"),
    (usual("straight longbow", 45, gpp=7.2), "mend"),
    (usual("straight longbow", 45, gpp=6.7), "stop"),
    (usual("large rigid tip", 45, gpp=13.2), "good"),
    (usual("large rigid tip", 45, gpp=11.8), "stop"),
    # the bowyer's word
    (usual("hunting recurve", 45, "floor 10 gpp", gpp=10.1), "good"),
    (usual("hunting recurve", 45, "floor 10 gpp", gpp=9.6), "watch"),
    (usual("hunting recurve", 45, "floor 10 gpp", gpp=9.3), "stop"),
]  # fmt: skip


@pytest.mark.parametrize(("said", "expected"), FLOORS)
def test_the_floor_is_what_the_trade_shoots(said: tuple[str, ...], expected: str) -> None:
    assert severity("arrow-floor", *said) == expected


@pytest.mark.parametrize(
    ("gpp", "shaft", "spine", "floor", "both"),
    [
        # under the bowyer's 10 with 9.6: a stiff enough shaft is watched, a weak one refused
        (9.6, "shaft 30", "spine 450", "watch", None),
        (9.6, "shaft 30", "spine 600", "mend", "stop"),
        (9.6, "shaft 29 1/2", "spine 520", "mend", "mend"),
        # far under it, whatever the spine; above it, weak alone is no danger
        (9.3, "shaft 30", "spine 450", "stop", None),
        (10.1, "shaft 30", "spine 650", "good", None),
    ],
)
def test_light_and_weak_is_stopped_only_beyond_doubt(
    gpp: float, shaft: str, spine: str, floor: str, both: str | None
) -> None:
    more = ("floor 10 gpp", "point 165", shaft, f"arrow 1 {45 * gpp:.0f}gr")
    rig = usual("target recurve", 45, *more, spine=spine)
    assert severity("arrow-floor", *rig) == floor
    assert severity("spine-and-mass", *rig) == both


def test_a_heavier_point_is_never_offered_to_weak_shafts() -> None:
    weak = finding("arrow-floor", *usual("target recurve", 45, "floor 10 gpp", gpp=9.6,
                                         spine="spine 650"))  # fmt: skip
    fit = finding("arrow-floor", *usual("target recurve", 45, "floor 10 gpp", gpp=9.6,
                                        spine="spine 480"))  # fmt: skip
    assert weak is not None
    assert weak.action is not None
    assert fit is not None
    assert fit.action is not None
    assert (weak.action.label, fit.action.label) == ("Weigh a heavier arrow", "Try a heavier point")


# spine: two schools, one verdict

SPINES = [
    (usual("hunting recurve", 45, "scale 40 @ 28 1/2", "arrow 1 380gr", spine="spine 500"), True),
    (usual("hunting recurve", 45, "scale 40 @ 28 1/2", "arrow 1 380gr", spine="spine 600"), True),
    (usual("straight longbow", 45, spine="spine 45 lb"), True),
    (usual("straight longbow", 45, spine="spine 55 lb"), True),
    (usual("target recurve", 45, "shaft 30 3/4", "point 150",
           "insert 15", spine="spine 500"), True),
    (usual("straight longbow", 60, "draw 30", "shaft 31", spine="spine 65 lb"), True),
    (usual("straight longbow", 60, "draw 30", "shaft 31", spine="spine 75 lb"), True),
    (usual("reflex deflex longbow", 45, "scale 51 @ 28 1/2", "point 175", "insert 15",
           "arrow 1 500gr", spine="spine 400"), True),
    # plainly wrong by both schools
    (usual("straight longbow", 45, spine="spine 95 lb"), False),
    (usual("straight longbow", 60, spine="spine 800"), False),
    (usual("target recurve", 60, spine="spine 900"), False),
    (usual("hunting recurve", 45, spine="spine 250"), False),
]  # fmt: skip


@pytest.mark.parametrize(("said", "fine"), SPINES)
def test_spine_is_judged_as_practice_does(said: tuple[str, ...], fine: bool) -> None:
    assert (severity("spine-match", *said) in ("good", "watch")) is fine


def test_when_the_schools_disagree_it_is_said_and_shot() -> None:
    apart = usual("reflex deflex longbow", 25, "point 250", spine="spine 33 lb")
    found = finding("spine-match", *apart)
    assert found is not None
    assert found.severity == "watch"
    assert "schools disagree over your shafts" in found.sentence.text()
    assert found.action is not None
    assert found.action.label == "What a bare shaft would show"
    ready = ("arrow 1 sound", "brace 7", "lift 10mm")
    assert judged(*apart, *ready).next_step.title.text() == "Shoot one bare shaft"
    agreed = judged(*usual("reflex deflex longbow", 45), *ready).next_step.title.text()
    assert agreed != "Shoot one bare shaft"


STRINGS = (8, 12, 16, 20, 24)


def light(family: str, *more: str) -> tuple[str, ...]:
    """The rig with shafts of nine grains an inch, not weighed."""
    said = (line for line in usual(family, 45) if not line.startswith(("arrow 1", "point")))
    return (*said, "shaft 29 1/2 9gpi", "insert 0", "point 110", *more)


def matched_of(said: tuple[str, ...]) -> float:
    match = computed(*said).match
    assert match is not None
    return match.matched


@pytest.mark.parametrize("family", USUAL)
def test_a_heavier_string_wants_a_weaker_shaft_and_gently(family: str) -> None:
    strings = [light(family, f"string 62 {strands} strands") for strands in STRINGS]
    steps = [a - b for a, b in pairwise(map(matched_of, strings))]
    per_20_gr = [step / (4 * 6.5 / 20) for step in steps]
    assert all(0 <= step <= 4 for step in per_20_gr), per_20_gr


@pytest.mark.parametrize("family", USUAL)
def test_a_heavier_point_moves_the_match_gently(family: str) -> None:
    """No 13 lb for 30 gr: at most 5 lb for 25, and never falling."""
    matched = [matched_of(light(family, f"point {tip}")) for tip in (*range(80, 175, 12), 175)]
    for less, _, more in zip(matched, matched[1:], matched[2:], strict=False):
        assert 0.0 <= more - less <= 5.0, matched


@pytest.mark.parametrize(
    ("family", "weight", "wide"),
    [("short rigid tip", 60, True), ("hunting recurve", 45, False), ("selfbow", 45, False)],
)
def test_where_the_kick_is_flat_practice_decides_and_the_band_is_wider(
    family: str, weight: int, wide: bool
) -> None:
    match = computed(*usual(family, weight)).match
    assert match is not None
    assert (match.sd > 0.14) is wide
    assert match.high / match.low == pytest.approx(math.exp(2 * match.sd), rel=0.02)


def test_nobody_has_measured_thumb_releases_and_that_is_said() -> None:
    rig = usual("short rigid tip", 45)
    found = finding("spine-match", *rig)
    assert found is not None
    assert "Nobody has measured thumb releases." in found.sentence.text()
    stiff = usual("short rigid tip", 45, spine="spine 150 lb")
    assert severity("spine-match", *stiff) == "good", "before a bare shaft nothing is put right"
    shown = finding("spine-match", *stiff)
    assert shown is not None
    assert "the school of least stiffness takes any that holds" in shown.sentence.text()


@pytest.mark.parametrize(("window", "expected"), [("window 2mm", "mend"), (None, "watch")])
def test_a_slap_with_an_assumed_window_is_only_watched(window: str | None, expected: str) -> None:
    said = [line for line in usual("reflex deflex longbow", 45, spine="spine 130 lb")
            if not line.startswith("window")]  # fmt: skip
    assert severity("spine-clearance", *said, *([window] if window else [])) == expected


# limbs, stack, lengths


@pytest.mark.parametrize(
    ("limbs", "expected"),
    [("limbs 20 18", "watch"), ("limbs 34 30", "mend"), ("limbs 50 20", "stop"),
     ("limbs 38 38", "good"), ("limbs 38 42", "mend")],
)  # fmt: skip
def test_limbs_that_are_no_pair(limbs: str, expected: str) -> None:
    assert severity("limb-pair", "family hunting recurve", "bow 60", limbs) == expected


def test_a_longer_limb_does_not_make_up_for_a_stronger_one() -> None:
    pair = LimbPair(upper_lbf=34, lower_lbf=30, upper_length_mm=20 * IN, lower_length_mm=19 * IN)
    found = mismatch_of(pair)
    assert found.severity in ("mend", "stop")
    assert abs(found.share) > 0.12
    short = LimbPair(upper_length_mm=20 * IN, lower_length_mm=19 * IN)
    assert mismatch_of(short).severity in ("mend", "stop")


def test_inside_the_makers_limit_stack_is_at_most_watched() -> None:
    short = ("draw 30", "hold split", "family hunting recurve", "bow 50", "scale 45 @ 30 1/2")
    assert severity("stack-margin", *short) == "stop"
    allowed = finding("stack-margin", *short, "limit 31")
    assert allowed is not None
    assert allowed.severity == "watch"
    assert "stacks and pinches" in allowed.sentence.text()
    assert "fail" not in allowed.sentence.text()


@pytest.mark.parametrize(
    ("family", "length", "low", "high"),
    [("straight_longbow", 68, 31.0, 32.3), ("hunting_recurve", 50, 25.5, 27.5),
     ("target_recurve", 68, 30.0, 31.2)],
)  # fmt: skip
def test_bows_of_a_length_serve_the_draws_they_do(
    family: str, length: float, low: float, high: float
) -> None:
    onset = typical_stack(usual_shape(family, length * IN)).onset_mm  # type: ignore[arg-type]
    assert onset is not None
    assert low <= onset / IN + 1.75 <= high


@pytest.mark.parametrize("family", ["hunting_recurve", "target_recurve"])
def test_the_onset_of_stack_grows_with_length_and_hardly_with_the_pieces(family: str) -> None:
    onsets = []
    for length in (62, 64, 66, 68, 70, 72):
        shape = usual_shape(family, length * IN)  # type: ignore[arg-type]
        own = typical_stack(shape).onset_mm
        if own is None:
            continue
        finer = stack_of(draw_curve(shape, segments=120)).onset_mm
        assert finer == pytest.approx(own, abs=IN / 6)
        onsets.append(own)
    assert onsets == sorted(onsets)


@pytest.mark.parametrize("family", ["target_recurve", "hunting_recurve", "straight_longbow"])
def test_board_and_finding_agree_on_stack(family: Any) -> None:
    wish = Wish(28.5 * IN, 13.0, "split", None, 40.0)
    for row in choosing_board(wish, (family,)).families[0].rows:
        if row.margin_mm is None:
            assert row.outside_family
            assert row.mark_lbf is None, "no mark is asked for of a bow nobody makes"
            continue
        onset = typical_stack(usual_shape(family, row.bow_length_mm)).onset_mm
        assert onset is not None
        assert row.margin_mm == pytest.approx(onset + 1.75 * IN - wish.at_mm, abs=IN / 8)


def test_the_board_fits_target_bows_as_they_are_shot() -> None:
    wish = Wish(28.5 * IN, 13.0, "split", None, 40.0)
    field = Wish(28.3 * IN, 13.0, "split", "field", 40.0)
    for asked, lengths in ((wish, (68, 70)), (field, (68,))):
        rows = choosing_board(asked, ("target_recurve",)).families[0].rows
        fits = {round(r.bow_length_mm / IN) for r in rows if r.verdicts["stack_margin"] == "fits"}
        assert fits >= set(lengths)


def test_a_target_bow_is_everyday_at_everyday_draws() -> None:
    for length, draw in ((66, 28), (68, 28.5), (70, 28.5), (72, 30)):
        said = ("hold split", f"draw {draw}", "family target recurve", f"bow {length}",
                f"scale 40 @ {draw + 0.5}", "purpose field")  # fmt: skip
        assert severity("stack-margin", *said) == "good", (length, draw)


def test_a_bow_a_little_long_is_not_scolded() -> None:
    said = ("hold split", "draw 27", "family straight longbow", "bow 66", "scale 45 @ 27 1/2",
            "arrow 1 450gr")  # fmt: skip
    assert severity("bow-long", *said) is None


def test_parts_are_doubted_only_where_they_are_told() -> None:
    rig = ("draw 28", "mark 45", "shaft 29", "arrow 1 650gr")
    assert severity("arrow-parts", *rig) is None
    assert severity("arrow-parts", *rig, "shaft 29 8gpi", "point 100") == "mend"


# sums that can be redone by hand

ARITHMETIC = re.compile(r"^(?:.*?: )?(?P<left>[^=]*[×÷][^=]*) = (?P<right>\{\w+\})")


def recomputed(line: Phrase) -> tuple[float, float] | None:
    """Left and right of an equation in a sum, of the figures as they are shown."""
    found = ARITHMETIC.match(line.template)
    if found is None:
        return None

    def shown(name: str) -> str:
        figure = line.figures[name]
        text = type(line)(template="{x}", figures={"x": figure}).text().split("±")[0]
        whole = re.match(r"\s*(\d+(?:\.\d+)?)", text)
        assert whole is not None, text
        return whole[1]

    left = re.sub(r"\{(\w+)\}", lambda m: shown(m[1]), found["left"])
    left = re.sub(r"[^\d.×÷ ]|ln", " ", left).replace("×", "*").replace("÷", "/")
    return float(eval(left, {})), float(shown(found["right"][1:-1]))


@pytest.mark.parametrize("family", USUAL)
def test_every_equation_in_a_sum_holds_to_the_digits_shown(family: str) -> None:
    count = 0
    for weight in (25, 45, 60):
        for found in judged(*usual(family, weight)).findings:
            for line in found.sum:
                if "ln(" in line.template or (both := recomputed(line)) is None:
                    continue
                count += 1
                assert both[0] == pytest.approx(both[1], rel=0.02), line.text()
    assert count >= 6


def test_an_assumed_riser_stands_in_the_sum_of_stack() -> None:
    said = ("draw 28", "hold split", "family hunting recurve", "bow 60", "scale 45 @ 28 1/2")
    for more, stands in (((), True), (("riser 17",), False)):
        found = finding("stack-margin", *said, *more)
        assert found is not None
        assert any("Riser assumed" in line.text() for line in found.sum) is stands


def test_spent_limbs_inside_the_makers_limit_are_at_most_watched() -> None:
    spent = ("draw 34", "hold split", "family short rigid tip", "bow 46", "mark 45")
    assert severity("stack-margin", *spent) == "stop"
    assert severity("stack-margin", *spent, "limit 35in") == "watch"


def test_trying_a_shaft_judges_its_length_as_the_finding_does() -> None:
    for draw, length, expected in (
        ("draw 28", 26.375, "stop"), ("draw 28", 27, "mend"), ("span 70", 27, "watch"),
        ("draw 28", 28, None),
    ):  # fmt: skip
        said = (draw, "mark 40", f"shaft {length}")
        tried = trial(computed(*said), Tried())
        assert tried.now.too_short == expected == severity("arrow-length", *said)
