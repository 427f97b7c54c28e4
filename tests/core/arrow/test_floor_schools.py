"""Who asks for how heavy an arrow: schools side by side, and which one binds."""

from typing import Any

import pytest

from lyrandis.core.arrow.floor_schools import FloorSchool, floor_schools
from lyrandis.core.assessment import assess
from lyrandis.core.computed import compute
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.setup import fold
from tests.entries import entries

STATIC = ("hold thumb", "draw 28", "hook 7/8", "family short rigid tip", "mark 45")


def schools(*said: Any, margin: float | None = None) -> dict[str, FloorSchool]:
    c = compute(fold(entries(*said)))
    left = None if margin is None else Estimate(margin * MM_PER_IN, 5.0)
    length = c.bow.likeness.shape.bow_length_mm
    return {one.voice: one for one in floor_schools(c.arrow.floor, c.setup.bow, length, left)}


def test_the_told_least_stands_first_and_binds_alone() -> None:
    said = schools(*STATIC, "bow 54", "floor 9 gpp")
    assert next(iter(said)) == "bowyer"
    assert [voice for voice, one in said.items() if one.binds] == ["bowyer"]
    assert said["bowyer"].low == said["bowyer"].high == 9.0


@pytest.mark.parametrize(
    "family", ["selfbow", "straight longbow", "hunting recurve", "target recurve",
               "short rigid tip", "long rigid tip", "large rigid tip"],
)  # fmt: skip
def test_one_voice_binds_and_its_number_is_the_floor(family: str) -> None:
    c = compute(fold(entries("draw 28", "mark 45", f"family {family}")))
    said = schools("draw 28", "mark 45", f"family {family}")
    binding = [one for one in said.values() if one.binds]
    assert len(binding) == 1
    assert binding[0].low - 1e-9 <= c.arrow.floor.grains_per_pound <= binding[0].high + 1e-9


def test_tables_by_size_go_by_the_bow_along_its_back() -> None:
    small, large = schools(*STATIC, "bow 50")["size"], schools(*STATIC, "bow 58")["size"]
    assert (small.low, small.high) == (9.5, 10.0)
    assert (large.low, large.high) == (11.5, 12.0)
    strung = schools(*STATIC, "bow 51 strung")["size"]
    assert strung[1:3] == pytest.approx(schools(*STATIC, "bow 54")["size"][1:3])
    assert "size" not in schools("draw 28", "mark 45", "family hunting recurve")


def test_a_strung_bow_is_reckoned_with_three_inches_more_everywhere() -> None:
    strung = compute(fold(entries(*STATIC, "bow 51 strung")))
    back = compute(fold(entries(*STATIC, "bow 54 along the back")))
    assert strung.bow.likeness == back.bow.likeness
    assert strung.arrow.floor == back.arrow.floor
    shown = next(
        value for stage in assess(fold(entries(*STATIC, "bow 51 strung"))).stages
        for value in stage.values if value.key == "bow_length"
    )  # fmt: skip
    assert shown.figure is not None
    assert shown.figure.value == pytest.approx(54 * MM_PER_IN)


@pytest.mark.parametrize(
    ("limbs", "share"),
    [("limbs natural", 0.8), ("limbs solid glass", 0.8), ("limbs laminated", None)],
)
def test_limbs_that_are_allowed_less_are_a_row_that_never_binds(
    limbs: str, share: float | None
) -> None:
    said = schools("draw 28", "mark 45", "family straight longbow", limbs)
    if share is None:
        assert "limbs" not in said
        return
    assert said["limbs"].low == pytest.approx(8.0 * share)
    assert not said["limbs"].binds


@pytest.mark.parametrize(("margin", "row"), [(-0.1, True), (0.0, False), (1.0, False)])
def test_a_bow_that_stacks_is_allowed_less_by_some(margin: float, row: bool) -> None:
    said = schools("draw 28", "mark 45", "family hunting recurve", margin=margin)
    assert ("stack" in said) == row


@pytest.mark.parametrize(
    ("family", "limbs", "danger"),
    [
        ("straight longbow", (), 7.0),
        ("straight longbow", ("limbs natural",), 7.5),
        ("straight longbow", ("limbs solid glass",), 7.0),
        ("selfbow", ("limbs natural",), 7.5),
    ],
)
def test_natural_limbs_are_refused_lighter_arrows_from_a_selfbows_line(
    family: str, limbs: tuple[str, ...], danger: float
) -> None:
    c = compute(fold(entries("draw 28", "mark 45", f"family {family}", *limbs)))
    assert c.arrow.floor.danger == danger
