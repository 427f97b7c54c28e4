"""What to change: every lever of this rig, how far it reaches, and which comes first."""

import math
from dataclasses import dataclass

from lyrandis.core.arrow.readings import ArrowBuild, ArrowPass
from lyrandis.core.computed import Computed
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN
from lyrandis.core.entries import Reading
from lyrandis.core.flight.evidence import Reckoned, point_shift, sensitivity
from lyrandis.core.flight.readings import Change
from lyrandis.core.flight.settle import nock_move_mm
from lyrandis.core.flight.words import AxisName, Means
from lyrandis.core.nock.readings import NockHeight
from lyrandis.core.phrase import Phrase, gr, mm, phrase, spine
from lyrandis.core.quantities import within
from lyrandis.core.reading import SubjectKind
from lyrandis.core.string.advice import turns_to
from lyrandis.core.string.readings import StringBuild

REACHES, LEVER_MOST, SHAFTS_MOST = 0.6, 1.5, 4.0
"""A lever is enough where it gives three fifths, up to a tenth and a half; shafts four tenths a
step. Assumption, tried in closed loops on virtual rigs."""
CUT_STEP_MM, MOST_CUT_STEPS = MM_PER_IN / 8, 4
BEYOND_POINT_MM = MM_PER_IN / 2
"""Assumption: so much of the shaft stands beyond the archer's draw whatever is cut."""
CUT_FALSE, STIFFER_FALSE = 0.02, 0.05
"""Chance of false weak above which nothing is cut, and nothing stiffer advised."""
SILENCERS_GR, POINT_GR, BRACE_STEP_MM = 20.0, 25.0, MM_PER_IN / 4


@dataclass(frozen=True)
class CorrectionLever:
    """One way to bring the reading where it should be."""

    key: str
    axis: AxisName
    what: Phrase
    by: float
    """Shift of the index, + reads stiffer (nock: lower)."""
    means: Means
    minutes: int
    undo: str
    subject: SubjectKind = "rig"
    reading: Reading | None = None
    """What doing it records; None where it cannot be recorded in one go."""
    trial: Change | None = None
    """Other shafts are tried before they are bought."""
    refused: str | None = None
    """Why it is not offered."""
    reaches: bool = False
    first: bool = False


def levers_of(c: Computed) -> tuple[CorrectionLever, ...]:
    """Return every lever for what is due, easiest to undo first, one of them marked the first.

    Source: this rig's own sensitivities; docs/MECHANICS.md, the flight.

    >>> from lyrandis.core.example import rig
    >>> levers_of(rig())
    ()
    """
    across, up = c.flight.verdict.across, c.flight.verdict.up
    result: list[CorrectionLever] = []
    if up is not None:
        result.append(_nock(c, up))
    if across is not None and c.flight.basis.reckoned is not None:
        result += _spine(c, c.flight.basis.reckoned, across)
    return _marked(result, across, nock_due=up is not None)


def _marked(
    found: list[CorrectionLever], due: float | None, *, nock_due: bool
) -> tuple[CorrectionLever, ...]:
    """Mark what reaches, and which comes first: the nock, then what is easiest to undo."""
    marked: list[CorrectionLever] = []
    chosen = False
    for item in found:
        enough = item.axis == "upright" or (
            due is not None
            and item.by / due >= REACHES
            and (item.means == "shafts" or (abs(due) <= LEVER_MOST and item.by / due <= LEVER_MOST))
        )
        reaches = enough and item.refused is None
        may = reaches and not chosen and (item.axis == "upright" or not nock_due)
        chosen = chosen or may
        marked.append(_with(item, reaches=reaches, first=may))
    return tuple(marked)


def _with(one: CorrectionLever, *, reaches: bool, first: bool) -> CorrectionLever:
    return CorrectionLever(**{**one.__dict__, "reaches": reaches, "first": first})


def _nock(c: Computed, due: float) -> CorrectionLever:
    move = round(2 * nock_move_mm(due)) / 2
    move = move or math.copysign(0.5, nock_move_mm(due))
    lift = c.nock.lift
    way = "up" if move > 0 else "down"
    reading = None if lift is None else NockHeight(height_mm=lift.value + move, datum="lift")
    return CorrectionLever(
        "nock", "upright", phrase(f"Nock {abs(move):g} mm {way}"), -move / 2, "nock", 2,
        "mark where it stood", reading=reading,
        refused=None if reading else "read the nock's height first",
    )  # fmt: skip


def _spine(c: Computed, reckoned: Reckoned, due: float) -> list[CorrectionLever]:
    result = [_silencers(c, reckoned, due), _plate(c, reckoned, due), _point(c, reckoned, due)]
    result += [_brace(c, reckoned, due), _length(c, reckoned, due), _shafts(c, due)]
    return [item for item in result if item is not None]


def _silencers(c: Computed, reckoned: Reckoned, due: float) -> CorrectionLever | None:
    on = c.setup.string.part("silencers_gr") or 0.0
    by = SILENCERS_GR if due > 0 else -min(on, SILENCERS_GR)
    if by == 0:
        return None
    shift = sensitivity(reckoned, "string", by * KG_PER_GRAIN)
    return CorrectionLever(
        "silencers", "spine",
        phrase(f"Silencers, {{by}} {'on' if by > 0 else 'off'}", by=gr(abs(by))), shift, "lever", 8,
        "take them off again" if by > 0 else "put them on again", "string",
        StringBuild(silencers_gr=on + by),
    )  # fmt: skip


def _plate(c: Computed, reckoned: Reckoned, due: float) -> CorrectionLever | None:
    if c.nock.kit == "plain" and not c.setup.arrows.passing("plunger")[0]:
        return None
    window, _ = c.setup.arrows.passing("window_mm")
    by = math.copysign(2.0 if abs(due) > LEVER_MOST / 2 else 1.0, due)
    reading = None if window is None else ArrowPass(window_mm=window + by)
    return CorrectionLever(
        "plate", "spine",
        phrase(f"Plate {abs(by):g} mm {'further out' if by > 0 else 'further in'}"),
        sensitivity(reckoned, "window", by / 1000), "lever", 6, "put it back", "bow", reading,
        refused=None if reading else "measure the window first",
    )  # fmt: skip


def _point(c: Computed, reckoned: Reckoned, due: float) -> CorrectionLever | None:
    point, _ = c.setup.arrows.part("point_gr")
    if point is None:
        return None
    by = -math.copysign(POINT_GR, due)
    tip = c.flight.basis.tip_gr
    shift = point_shift(reckoned, tip, tip + by) if tip + by > 0 and point + by >= 0 else None
    if shift is None:
        return None
    refused = None
    if shift * due <= 0:
        refused = "on this rig it works the other way: try it, no number is honest"
    elif by < 0 and _under_floor(c, by):
        refused = "it would put the arrow under its floor"
    return CorrectionLever(
        "point", "spine", phrase("Point {to} for {now}", to=gr(point + by), now=gr(point)), shift,
        "lever", 3, "put the old ones back", "arrow_set", ArrowBuild(point_gr=point + by),
        refused=refused,
    )  # fmt: skip


def _under_floor(c: Computed, by_gr: float) -> bool:
    finished, own = c.arrow.finished, c.bow.own_weight
    if finished is None or own is None:
        return False
    return (finished.mass.value + by_gr) / own.weight.value < c.arrow.floor.grains_per_pound


def _brace(c: Computed, reckoned: Reckoned, due: float) -> CorrectionLever | None:
    """Hardly a lever, and the string's own page sets it by sound: shown with its turns."""
    brace = c.string.sure_brace
    if brace is None:
        return None
    by = -math.copysign(BRACE_STEP_MM, due)
    low, high = c.string.limits
    turns, bundle = turns_to(c, brace.value + by), c.string.bundle
    counted = ""
    if turns is not None and bundle is not None:
        whole = round(abs(turns - bundle.turns))
        if whole:
            counted = f", {whole} turn{'s' * (whole > 1)} {'in' if by > 0 else 'out'}"
    inside = within(brace.value + by, low, high)
    return CorrectionLever(
        "brace", "spine",
        phrase(f"Brace {{by}} {'higher' if by > 0 else 'lower'}{counted}", by=mm(abs(by))),
        sensitivity(reckoned, "brace", by / 1000), "lever", 10, "turn it back",
        refused="its page sets it by sound; read it there after" if inside
        else "outside the range it may stand in",
    )  # fmt: skip


def _length(c: Computed, reckoned: Reckoned, due: float) -> CorrectionLever | None:
    length, _ = c.setup.arrows.part("shaft_length_mm")
    axis = c.flight.belief.spine
    if due <= 0 or length is None or axis is None:
        return None
    one = sensitivity(reckoned, "length", -CUT_STEP_MM / 1000)
    if one <= 0:
        return None
    steps = min(max(1, round(due / one)), MOST_CUT_STEPS)
    cut = steps * CUT_STEP_MM
    refused = None
    drawn = c.flight.upstream.drawn_mm
    if axis.chances()["false_weak"] > CUT_FALSE:
        refused = "nothing is cut while the shaft may be stiff and strike"
    elif drawn is not None and length - cut < drawn + BEYOND_POINT_MM:
        refused = "it would be too short for your draw"
    return CorrectionLever(
        "length", "spine", phrase("Shafts {by} shorter, an eighth at a time", by=mm(cut)),
        steps * one, "lever", 30, "none: a cut is for good", "arrow_set",
        ArrowBuild(shaft_length_mm=round(length - cut, 3)), refused=refused,
    )  # fmt: skip


def _shafts(c: Computed, due: float) -> CorrectionLever | None:
    own, axis = c.flight.basis.own_lbf, c.flight.belief.spine
    if own is None or axis is None:
        return None
    by = max(-SHAFTS_MOST, min(SHAFTS_MOST, due))
    wants = min(max(own * math.exp(by / 10), 15.0), 160.0)
    refused = None
    if due > 0 and axis.chances()["false_weak"] > STIFFER_FALSE:
        refused = "nothing stiffer while the shaft may be stiff and strike: prove it first"
    return CorrectionLever(
        "shafts", "spine", phrase("Shafts of {to}", to=spine(wants)), by, "shafts", 9,
        "borrow three; your set stays", trial=Change(what="other_shafts", amount=round(wants, 1)),
        refused=refused,
    )  # fmt: skip
