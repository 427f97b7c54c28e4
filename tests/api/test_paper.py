"""Strip and card on paper: measured in the PDF's own drawing by another reader."""

from collections.abc import Iterator
from itertools import pairwise

import pypdfium2 as pdfium
import pytest

from lyrandis.api.paper import GAP_MM, MARGIN_MM, PAGE_MM, pdf_of
from lyrandis.core.crawls.sheet import InkStroke, Sheet, Words
from lyrandis.core.crawls.strip import NOCK_AT_MM, Tick, strip
from tests.api.conftest import Api
from tests.api.test_crawls_api import RIG

MM = 25.4 / 72
PEN = 0.25
"""What the bounds of a line hold besides: the pen's breadth on every side [mm]."""


def lines(paper: bytes) -> list[tuple[float, float, float, float]]:
    """Every straight line of the first page: left, bottom, right, top [mm], without its width."""
    found = []
    with pdfium.PdfDocument(paper) as document:
        for one in document[0].get_objects():
            if one.type == pdfium.raw.FPDF_PAGEOBJ_PATH:
                left, bottom, right, top = (side * MM for side in one.get_bounds())
                found.append((left + PEN, bottom + PEN, right - PEN, top - PEN))
    return found


def level(paper: bytes) -> Iterator[tuple[float, float]]:
    """Length and height over the bottom of each level line."""
    for left, bottom, right, top in lines(paper):
        if abs(top - bottom) < 0.1:
            yield right - left, (top + bottom) / 2


def test_the_ruler_is_fifty_millimetres_and_every_crawl_stands_where_it_is() -> None:
    ticks = [Tick("30 m", 12.5, 2), Tick("20 m", 34.0, 2), Tick("10 m", 50.25, 2)]
    paper = pdf_of([strip(ticks, title="Bram", stitch_mm=3.3)], title="Bram")
    found = list(level(paper))
    assert max(length for length, _ in found) == pytest.approx(50.0, abs=0.005)
    crawls = sorted(
        PAGE_MM[1] - MARGIN_MM - height - NOCK_AT_MM
        for length, height in found
        if round(length) in (11, 24)
    )
    assert crawls == pytest.approx([12.5, 34.0, 50.25], abs=0.05)


def test_the_centimetres_of_the_ruler_are_centimetres() -> None:
    paper = pdf_of([strip([Tick("20 m", 34.0, 2)], title="B")], title="B")
    upright = sorted(
        (left + right) / 2
        for left, bottom, right, top in lines(paper)
        if abs(right - left) < 0.1 and 2.8 < top - bottom < 3.2
    )
    assert [b - a for a, b in pairwise(upright)] == pytest.approx([10.0] * 5, abs=0.005)


def test_drawings_stand_side_by_side_and_odd_names_are_written_as_far_as_they_can_be() -> None:
    sheets = [
        Sheet(40, 20, (InkStroke(0, 5, 40, 5, "ruler"), Words(0, 9, "½ ± Брам"))) for _ in "ab"
    ]
    paper = pdf_of(sheets, title="Брам")
    lefts = sorted({round(left, 1) for left, _, right, _ in lines(paper) if right - left > 35})
    assert lefts[1] - lefts[0] == pytest.approx(40 + GAP_MM, abs=0.1)
    with pdfium.PdfDocument(paper) as document:
        assert "½ ± ????" in document[0].get_textpage().get_text_range()


def test_the_rigs_paper_holds_strip_and_card(demo: Api) -> None:
    answer = demo.client.get(f"/api/rigs/{RIG}/crawl-strip.pdf")
    assert answer.headers["content-type"] == "application/pdf"
    assert "attachment" in answer.headers["content-disposition"]
    with pdfium.PdfDocument(answer.content) as document:
        assert len(document) == 1
        assert [round(side * MM) for side in document[0].get_size()] == [210, 297]
        words = document[0].get_textpage().get_text_range()
    for said in ("Tideway recurve", "measure this: 50 mm", "20 m", "stitches"):
        assert said in words
    for left, _, right, _ in lines(answer.content):
        assert 0 < left <= right + 0.01 < 210, "nothing lies off the paper"
    again = demo.client.get(f"/api/rigs/{RIG}/crawl-strip.pdf")
    assert again.content == answer.content


def test_a_rig_without_a_table_has_no_paper(demo: Api) -> None:
    rig = demo.post("/rigs", {"name": "Bare rig"})["rig"]
    assert demo.get(f"/rigs/{rig}/crawl-strip.pdf", 422)["code"] == "nothing_to_shoot"
