"""A drawing at true size, in millimetres: shapes that stand the same in SVG and in PDF."""

from dataclasses import dataclass
from html import escape
from typing import Literal, NamedTuple

TextAnchor = Literal["start", "middle", "end"]

LABEL_MM, SMALL_MM = 2.9, 2.4
INK, GREY, BAND = "#111", "#555", "#bbb"


class InkStroke(NamedTuple):
    """A straight line."""

    x1: float
    y1: float
    x2: float
    y2: float
    kind: str
    """What it stands for: a crawl, the nock, the string, the ruler."""
    width: float = 0.25


class Words(NamedTuple):
    """A line of words, its base at y."""

    x: float
    y: float
    text: str
    anchor: TextAnchor = "start"
    size: float = LABEL_MM
    bold: bool = False
    soft: bool = False


class Box(NamedTuple):
    """A rectangle: a band, or the edge of a card."""

    x: float
    y: float
    width: float
    height: float
    filled: bool
    round: float = 0.0


class Dot(NamedTuple):
    """A stitch of the tab."""

    x: float
    y: float
    radius: float


Shape = InkStroke | Words | Box | Dot


@dataclass(frozen=True)
class Sheet:
    """A drawing and its size; y grows downward."""

    width: float
    height: float
    shapes: tuple[Shape, ...]


def svg_of(sheet: Sheet) -> str:
    """Return a drawing as SVG, one unit of it a millimetre.

    Source: definition.

    >>> svg_of(Sheet(10.0, 5.0, (InkStroke(1, 2, 9, 2, "ruler"),))).count('x2="9"')
    1
    """
    width, height = _mm(sheet.width), _mm(sheet.height)
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" '
        f'viewBox="0 0 {width} {height}" font-family="sans-serif">'
    )
    return "".join([head, *map(_shape, sheet.shapes), "</svg>"])


def _mm(value: float) -> str:
    return f"{value:.3f}".rstrip("0").rstrip(".")


def _shape(one: Shape) -> str:
    match one:
        case InkStroke():
            return (
                f'<line class="{one.kind}" x1="{_mm(one.x1)}" y1="{_mm(one.y1)}" '
                f'x2="{_mm(one.x2)}" y2="{_mm(one.y2)}" stroke="{INK}" '
                f'stroke-width="{one.width}"/>'
            )
        case Words():
            weight = ' font-weight="bold"' if one.bold else ""
            return (
                f'<text x="{_mm(one.x)}" y="{_mm(one.y)}" font-size="{one.size}" '
                f'text-anchor="{one.anchor}" fill="{GREY if one.soft else INK}"{weight}>'
                f"{escape(one.text)}</text>"
            )
        case Box():
            paint = (
                f'class="band" fill="{BAND}" fill-opacity="0.5"'
                if one.filled
                else f'fill="none" stroke="{GREY}" stroke-width="0.2"'
            )
            return (
                f'<rect x="{_mm(one.x)}" y="{_mm(one.y)}" width="{_mm(one.width)}" '
                f'height="{_mm(one.height)}" rx="{_mm(one.round)}" {paint}/>'
            )
        case Dot():
            return (
                f'<circle class="stitch" cx="{_mm(one.x)}" cy="{_mm(one.y)}" '
                f'r="{one.radius}" fill="{INK}"/>'
            )
