"""Drawings at true size on one page of paper, as PDF."""

from collections.abc import Sequence
from io import BytesIO
from typing import Any

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.crawls.sheet import BAND, GREY, INK, Box, Dot, InkStroke, Shape, Sheet, Words

PAGE_MM = (210.0, 297.0)
"""A4; what stands on it lies within letter paper too."""
MARGIN_MM, GAP_MM = 15.0, 12.0
_POINTS = 72 / MM_PER_IN
_FONTS = {False: "Helvetica", True: "Helvetica-Bold"}


def pdf_of(sheets: Sequence[Sheet], *, title: str) -> bytes:
    """Return drawings side by side on one page, each at its own size.

    What the standard fonts of PDF cannot write of a name stands as a question mark.
    """
    from reportlab.pdfgen.canvas import Canvas  # type: ignore[import-untyped]  # only who prints loads it

    written = BytesIO()
    width, height = (side * _POINTS for side in PAGE_MM)
    canvas = Canvas(written, pagesize=(width, height), invariant=1)
    canvas.setTitle(title)
    left = MARGIN_MM
    for sheet in sheets:
        for shape in sheet.shapes:
            _draw(canvas, shape, left, PAGE_MM[1] - MARGIN_MM)
        left += sheet.width + GAP_MM
    canvas.save()
    return written.getvalue()


def _draw(canvas: Any, one: Shape, left: float, top: float) -> None:
    """Draw a shape; y runs downward from `top`."""

    def at(x: float, y: float) -> tuple[float, float]:
        return (left + x) * _POINTS, (top - y) * _POINTS

    match one:
        case InkStroke():
            canvas.setStrokeColor(INK)
            canvas.setLineWidth(one.width * _POINTS)
            canvas.line(*at(one.x1, one.y1), *at(one.x2, one.y2))
        case Words():
            canvas.setFillColor(GREY if one.soft else INK)
            canvas.setFont(_FONTS[one.bold], one.size * _POINTS)
            draw = {"start": canvas.drawString, "end": canvas.drawRightString,
                    "middle": canvas.drawCentredString}[one.anchor]  # fmt: skip
            draw(*at(one.x, one.y), one.text.encode("cp1252", "replace").decode("cp1252"))
        case Box():
            canvas.setFillColor(BAND)
            canvas.setStrokeColor(GREY)
            canvas.setLineWidth(0.2 * _POINTS)
            canvas.setFillAlpha(0.5)
            size = one.width * _POINTS, one.height * _POINTS
            corner = at(one.x, one.y + one.height)
            canvas.roundRect(*corner, *size, one.round * _POINTS, stroke=int(not one.filled),
                             fill=int(one.filled))  # fmt: skip
            canvas.setFillAlpha(1)
        case Dot():
            canvas.setFillColor(INK)
            canvas.circle(*at(one.x, one.y), one.radius * _POINTS, stroke=0, fill=1)
