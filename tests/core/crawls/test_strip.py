"""The strip and the card as drawings: measured in the file, mirrored, nothing lost."""

import xml.etree.ElementTree as ET
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.crawls.sheet import Sheet, svg_of
from lyrandis.core.crawls.strip import (
    CARD_MM,
    MOST_CARD_ROWS,
    NOCK_AT_MM,
    WIDTH_MM,
    Tick,
    card,
    card_of,
    strip,
    strip_of,
)
from tests.core.crawls.test_crawl_stage import GOOD, rig

NS = "{http://www.w3.org/2000/svg}"
TICKS = st.lists(
    st.builds(Tick, st.integers(5, 60).map(lambda d: f"{d} m"), st.floats(-20, 110),
              st.floats(0.5, 9)), max_size=14,
)  # fmt: skip


def drawn(sheet: Sheet) -> Any:
    return ET.fromstring(svg_of(sheet))


def of(root: Any, kind: str) -> list[dict[str, str]]:
    return [one.attrib for one in root.iter() if one.get("class") == kind]


def box(root: Any) -> tuple[float, float]:
    width, height = (float(root.get(side).removesuffix("mm")) for side in ("width", "height"))
    assert [float(one) for one in root.get("viewBox").split()] == [0, 0, width, height]
    return width, height


@given(TICKS, st.none() | st.floats(2, 6), st.booleans())
def test_one_unit_is_a_millimetre_and_the_ruler_fifty_of_them(
    ticks: list[Tick], stitch: float | None, mirrored: bool
) -> None:
    root = drawn(strip(ticks, title="a < b", stitch_mm=stitch, mirrored=mirrored))
    width, height = box(root)
    (ruler,) = of(root, "ruler")
    assert float(ruler["x2"]) - float(ruler["x1"]) == 50.0
    assert ruler["y1"] == ruler["y2"]
    for one in root.iter():
        for name in ("x", "x1", "x2", "cx"):
            assert one.get(name) is None or 0 <= float(one.get(name)) <= width
        for name in ("y", "y1", "y2", "cy"):
            assert one.get(name) is None or 0 <= float(one.get(name)) <= height


@given(TICKS)
def test_every_crawl_under_the_nock_stands_where_it_is(ticks: list[Tick]) -> None:
    root = drawn(strip(ticks, title="Bram"))
    found = sorted(float(one["y1"]) - NOCK_AT_MM for one in of(root, "crawl"))
    wanted = sorted(one.crawl_mm for one in ticks if one.crawl_mm >= 0)
    assert found == pytest.approx(wanted, abs=0.001)


@given(TICKS)
def test_a_left_hand_tab_is_the_mirror(ticks: list[Tick]) -> None:
    right, left = (drawn(strip(ticks, title="B", stitch_mm=3.3, mirrored=m))
                   for m in (False, True))  # fmt: skip
    for kind in ("crawl", "nock"):
        for a, b in zip(of(right, kind), of(left, kind), strict=True):
            assert a["y1"] == b["y1"]
            for end in ("x1", "x2"):
                assert float(a[end]) + float(b[end]) == pytest.approx(WIDTH_MM)
    assert of(right, "ruler") == of(left, "ruler")


def test_stitches_stand_at_their_own_spacing() -> None:
    root = drawn(strip([Tick("20 m", 34.0, 2.0)], title="B", stitch_mm=3.3))
    ys = [float(one["cy"]) for one in of(root, "stitch")]
    assert [b - a for a, b in pairwise(ys)] == pytest.approx([3.3] * (len(ys) - 1))


def test_close_labels_stand_in_two_columns() -> None:
    root = drawn(strip([Tick("30 m", 20.0, 1), Tick("31 m", 18.5, 1)], title="B"))
    ends = [float(one["x2"]) for one in of(root, "crawl")]
    assert abs(ends[0] - ends[1]) > 10


def test_a_rigs_own_strip_and_card_follow_its_table_and_hand() -> None:
    c = rig(*GOOD, "stitches 33mm")
    root = drawn(strip_of(c))
    deep = sorted(float(one["y1"]) - NOCK_AT_MM for one in of(root, "crawl"))
    table = sorted(row.crawl_mm for row in c.crawls.table.rows if row.crawl_mm >= 0)
    assert deep == pytest.approx(table, abs=0.001)
    left = drawn(strip_of(rig(*GOOD, "hand left")))
    assert of(left, "nock")[0]["x1"] != of(root, "nock")[0]["x1"]
    pocket = drawn(card_of(c))
    assert box(pocket) == CARD_MM
    words = [one.text for one in pocket.iter(f"{NS}text")]
    assert "20 m" in words
    assert "11" in words
    assert "stitches" in words
    fingers = [one.text for one in drawn(card_of(rig(*GOOD))).iter(f"{NS}text")]
    assert "2¼" in fingers
    assert "fingers" in fingers


def test_what_is_typed_cannot_become_part_of_the_drawing() -> None:
    sheet = card([("<b>", "1", "&")], title="<script>", head=("mm", "f"))
    assert "<script>" not in svg_of(sheet)
    assert drawn(sheet) is not None
    many = card([("9 m", "1", "1")] * 40, title="", head=("mm", "f"))
    assert svg_of(many).count("9 m") == MOST_CARD_ROWS
