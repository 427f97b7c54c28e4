"""Geometry of the archer's page. Lengths in mm on the trade datum."""

from typing import Literal

from lyrandis.core.archer.draw import BACK_DEPTH_IN, BELLY_DEPTH_IN, grip_depth
from lyrandis.core.computed import Computed
from lyrandis.core.constants import TRADE_OFFSET_MM
from lyrandis.core.drawn import Drawn
from lyrandis.core.stage_spec import Page

MOST_READINGS = 12
"""What the drawing and its table can show and still be read; the logbook holds the rest."""


class DrawMark(Drawn):
    """One draw reading on the draw axis."""

    entry: str
    method: str
    draw_mm: float
    plus_minus_mm: float
    used: bool


class DrawDrawing(Drawn):
    """The drawn arrow seen from the side: offsets from the pivot, and the readings."""

    back_mm: float
    """Pivot to back of the bow."""
    belly_mm: float
    """Pivot to belly, toward the archer."""
    trade_mm: float
    """The trade's 1 3/4 in."""
    draw_mm: float | None
    plus_minus_mm: float | None
    hook_mm: float
    hook_plus_minus_mm: float
    readings: tuple[DrawMark, ...]
    more: int
    """Older readings that are not drawn."""


class ArcherPage(Page):
    """What the archer's page draws."""

    stage: Literal["archer"] = "archer"
    draw: DrawDrawing


def page(c: Computed) -> ArcherPage:
    """Return the geometry of the archer's page."""
    return ArcherPage(draw=_draw(c))


def _draw(c: Computed) -> DrawDrawing:
    archer = c.setup.archer
    used, beside = (c.archer.draw.used, c.archer.draw.beside) if c.archer.draw else ((), ())
    marks = [(reading, True) for reading in used[-MOST_READINGS:]]
    marks += [(reading, False) for reading in beside[-MOST_READINGS // 2 :]]
    return DrawDrawing(
        back_mm=grip_depth(archer.back_depth, BACK_DEPTH_IN).value,
        belly_mm=grip_depth(archer.belly_depth, BELLY_DEPTH_IN).value,
        trade_mm=TRADE_OFFSET_MM,
        draw_mm=c.archer.draw.length.value if c.archer.draw else None,
        plus_minus_mm=c.archer.draw.length.plus_minus if c.archer.draw else None,
        hook_mm=c.archer.hook.value,
        hook_plus_minus_mm=c.archer.hook.plus_minus,
        readings=tuple(
            DrawMark(
                entry=reading.recorded.entry.id,
                method=reading.method,
                draw_mm=reading.length.value,
                plus_minus_mm=reading.length.plus_minus,
                used=counts,
            )
            for reading, counts in marks
        ),
        more=len(used) + len(beside) - len(marks),
    )
