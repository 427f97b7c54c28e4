"""What to change: every lever of this rig, how far it reaches, and which comes first."""

import math
import re
from dataclasses import dataclass, replace
from itertools import combinations, product

from lyrandis.core.arrow.readings import ArrowBuild, ArrowPass
from lyrandis.core.computed import Computed
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN
from lyrandis.core.flight.belief import BORDER
from lyrandis.core.flight.evidence import Reckoned, point_shift, sensitivity
from lyrandis.core.flight.readings import Change
from lyrandis.core.flight.settle import nock_move_mm
from lyrandis.core.flight.words import AxisName, Means
from lyrandis.core.judgement import Recordable, recordable
from lyrandis.core.nock.readings import NockHeight
from lyrandis.core.phrase import Phrase, gr, mm, phrase, spine
from lyrandis.core.quantities import PLAUSIBLE, within
from lyrandis.core.string.advice import turns_to
from lyrandis.core.string.readings import StringBuild

LEAST_SHARE, MOST_SHARE = 0.6, 1.35
"""A lever, or several together, is enough between these shares of what is due."""
LEAST_WORTH = 0.08
"""Share of what is due under which a lever is not worth its trouble."""
MINUTES_OFF, MINUTES_EACH = 12.0, 3.0
"""What a share that is off costs, and every lever more, beside its own minutes."""
SHAFTS_MOST = 4.0
"""Other shafts go four tenths a step. All Assumption, tried in closed loops on virtual rigs."""
FLOWN_NEAR, GET_CHANCE, MOST_FLOWN = 1.0, 0.65, 5
"""Shafts are got once some within a tenth of them flew on trial and they would most likely do, or
after so many trials."""
CUT_STEP_MM, MOST_CUT_STEPS = MM_PER_IN / 8, 4
BEYOND_POINT_MM = MM_PER_IN / 2
"""Assumption: so much of the shaft stands beyond the archer's draw whatever is cut."""
CUT_FALSE, STIFFER_FALSE = 0.02, 0.05
"""Chance of false weak above which nothing is cut, and nothing stiffer bought."""
SILENCERS_GR, MOST_SILENCERS_GR = (10.0, 20.0, 40.0), 40.0
PLATE_MM, POINT_GR = (1.0, 2.0, 3.0), (25.0, 50.0)
BRACE_STEP_MM = MM_PER_IN / 4
LEAST_SHAFTS = 0.4
"""Other shafts are no way where none are sold so far off that they would be others."""
LEAST_SPINE_LBF, MOST_SPINE_LBF = 15.0, 160.0


@dataclass(frozen=True)
class CorrectionLever:
    """One way, or several together, to bring the reading where it should be."""

    key: str
    axis: AxisName
    what: Phrase
    by: float
    """Shift of the index, + reads stiffer (nock: lower)."""
    means: Means
    minutes: int
    undo: str
    records: tuple[Recordable, ...] = ()
    """What doing it records; nothing where it cannot be recorded in one go."""
    trial: Change | None = None
    """Other shafts are tried before they are bought."""
    get: bool = False
    """True where they have flown, or enough like them: they are got."""
    refused: str | None = None
    """Why it is not offered."""
    keys: tuple[str, ...] = ()
    """Of several together: which."""
    reaches: bool = False
    first: bool = False


def levers_of(c: Computed) -> tuple[CorrectionLever, ...]:
    """Return every lever for what is due, those that reach first, one of them marked the first.

    Source: this rig's own sensitivities; docs/MECHANICS.md, the flight.

    >>> from lyrandis.core.example import rig
    >>> levers_of(rig())
    ()
    """
    across, up = c.flight.due.across, c.flight.due.up
    result: list[CorrectionLever] = []
    if up is not None:
        result.append(replace(_nock(c, up), first=c.flight.due.nock_first))
    if across is not None and c.flight.basis.reckoned is not None:
        result += _spine(c, c.flight.basis.reckoned, across)
    return _marked(result, across)


def _marked(found: list[CorrectionLever], due: float | None) -> tuple[CorrectionLever, ...]:
    """Mark what reaches, and which comes first: the nock where it is, else what stands first."""
    marked: list[CorrectionLever] = []
    chosen = any(item.first and not item.refused for item in found)
    for item in found:
        reaches = item.refused is None and (item.axis == "upright" or _enough(item, due))
        may = reaches and not chosen and item.axis == "spine"
        chosen = chosen or may
        first = may or (item.first and item.refused is None)
        marked.append(replace(item, reaches=reaches, first=first))
    return tuple(marked)


def _enough(lever: CorrectionLever, due: float | None) -> bool:
    if due is None:
        return False
    if lever.means == "shafts":
        return lever.by * due > 0
    return LEAST_SHARE <= lever.by / due <= MOST_SHARE


def _nock(c: Computed, due: float) -> CorrectionLever:
    move = round(2 * nock_move_mm(due)) / 2
    move = move or math.copysign(0.5, nock_move_mm(due))
    lift = c.nock.lift
    way = "up" if move > 0 else "down"
    records: tuple[Recordable, ...] = ()
    if lift is not None and PLAUSIBLE["nock_height"].held_ever(lift.value + move):
        moved = NockHeight(height_mm=round(lift.value + move, 2), datum="lift")
        records = (recordable("rig", moved),)
    return CorrectionLever(
        "nock", "upright", phrase(f"Nock {abs(move):g} mm {way}"), -move / 2, "nock", 2,
        "mark where it stood", records,
        refused=None if records else "read the nock's height first",
    )  # fmt: skip


def _spine(c: Computed, reckoned: Reckoned, due: float) -> list[CorrectionLever]:
    """Return the ways to a shift of the shaft: what reaches first, then all others by size."""
    sizes = [
        [_silencers(c, reckoned, due, by) for by in SILENCERS_GR],
        [_plate(c, reckoned, due, by) for by in PLATE_MM],
        [_point(c, reckoned, due, by) for by in POINT_GR],
    ]
    kinds = [[lever for lever in of_kind if lever is not None] for of_kind in sizes]
    best = _together(kinds, due)
    shafts = _shafts(c, due)
    money = [lever for lever in (_length(c, reckoned, due), shafts) if lever is not None]
    singles = [_nearest(of_kind, due) for of_kind in kinds if of_kind]
    singles = [lever for lever in singles if best is None or lever.what != best.what]
    brace = _brace(c, reckoned, due)
    rest = [*singles, *([brace] if brace is not None else [])]
    if best is not None and not _enough(best, due):
        # together they do less than they must: shown, and what reaches goes before
        return [*money, best, *rest]
    return [*([best] if best is not None else []), *rest, *money]


def _together(kinds: list[list[CorrectionLever]], due: float) -> CorrectionLever | None:
    """Return the lever, or the two or three together, that reach for the least trouble.

    Trouble: their minutes, 12 |share - 1| and three for each. Where none reach, those that do most.
    """
    useful = [
        [lever for lever in of_kind if _useful(lever) and lever.by / due >= LEAST_WORTH]
        for of_kind in kinds
    ]
    sets = [
        chosen
        for many in (1, 2, 3)
        for some in combinations([of_kind for of_kind in useful if of_kind], many)
        for chosen in product(*some)
    ]
    if not sets:
        return None

    def share(chosen: tuple[CorrectionLever, ...]) -> float:
        return sum(lever.by for lever in chosen) / due

    def trouble(chosen: tuple[CorrectionLever, ...]) -> float:
        minutes = sum(lever.minutes for lever in chosen)
        return minutes + MINUTES_OFF * abs(share(chosen) - 1) + MINUTES_EACH * len(chosen)

    reach = [chosen for chosen in sets if LEAST_SHARE <= share(chosen) <= MOST_SHARE]
    least = [chosen for chosen in sets if share(chosen) < LEAST_SHARE]
    if reach:
        return _joined(min(reach, key=trouble))
    return _joined(max(least, key=lambda chosen: (share(chosen), -len(chosen)))) if least else None


def _useful(lever: CorrectionLever) -> bool:
    return lever.refused is None and bool(lever.records)


def _joined(parts: tuple[CorrectionLever, ...]) -> CorrectionLever:
    """Return several levers as one."""
    if len(parts) == 1:
        return parts[0]
    figures = {
        f"{name}{i}": f for i, part in enumerate(parts) for name, f in part.what.figures.items()
    }
    said = [
        re.sub(r"{(\w+)}", rf"{{\g<1>{i}}}", part.what.template) for i, part in enumerate(parts)
    ]
    rest = [text[0].lower() + text[1:] for text in said[1:]]
    return CorrectionLever(
        "together", "spine",
        phrase(" and ".join([", ".join([said[0], *rest[:-1]]), rest[-1]]), **figures),
        sum(part.by for part in parts), "lever", sum(part.minutes for part in parts),
        "undo each again", tuple(record for part in parts for record in part.records),
        keys=tuple(part.key for part in parts),
    )  # fmt: skip


def _nearest(levers: list[CorrectionLever], due: float) -> CorrectionLever:
    """Return of one lever's steps the one that may be done and comes nearest to what is due."""
    return min(levers, key=lambda lever: (lever.refused is not None, abs(lever.by - due)))


def _silencers(c: Computed, reckoned: Reckoned, due: float, much: float) -> CorrectionLever | None:
    on = c.setup.string.part("silencers_gr") or 0.0
    by = min(much, MOST_SILENCERS_GR - on) if due > 0 else -min(on, much)
    if by == 0 or (due > 0 and by < 0):
        return None
    moved = c.setup.string.silencers_share * by
    shift = sensitivity(reckoned, "string", moved * KG_PER_GRAIN)
    return CorrectionLever(
        "silencers", "spine",
        phrase(f"Silencers, {{by}} {'on' if by > 0 else 'off'}", by=gr(abs(by))), shift, "lever", 8,
        "take them off again" if by > 0 else "put them on again",
        (recordable("string", StringBuild(silencers_gr=on + by)),),
    )  # fmt: skip


def _plate(c: Computed, reckoned: Reckoned, due: float, much: float) -> CorrectionLever | None:
    if c.nock.kit == "plain" and not c.setup.arrows.passing("plunger")[0]:
        return None
    window, _ = c.setup.arrows.passing("window_mm")
    by = math.copysign(much, due)
    records: tuple[Recordable, ...] = ()
    if window is not None and PLAUSIBLE["window"].held_ever(window + by):
        records = (recordable("bow", ArrowPass(window_mm=window + by)),)
    return CorrectionLever(
        "plate", "spine",
        phrase(f"Plate {abs(by):g} mm {'further out' if by > 0 else 'further in'}"),
        sensitivity(reckoned, "window", by / 1000), "lever", 6, "put it back", records,
        refused=None if records else "measure the window first",
    )  # fmt: skip


def _point(c: Computed, reckoned: Reckoned, due: float, much: float) -> CorrectionLever | None:
    point, _ = c.setup.arrows.part("point_gr")
    if point is None:
        return None
    by = -math.copysign(much, due)
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
        "lever", 3, "put the old ones back",
        (recordable("arrow_set", ArrowBuild(point_gr=point + by)),),
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
    cut_to = ArrowBuild(shaft_length_mm=round(length - cut, 3))
    return CorrectionLever(
        "length", "spine", phrase("Shafts {by} shorter, an eighth at a time", by=mm(cut)),
        steps * one, "lever", 30, "none: a cut is for good",
        (recordable("arrow_set", cut_to),),
        refused=refused,
    )  # fmt: skip


def _shafts(c: Computed, due: float) -> CorrectionLever | None:
    own, axis = c.flight.basis.own_lbf, c.flight.belief.spine
    if own is None or axis is None:
        return None
    flown = c.flight.belief.flown
    last = flown[-1] if flown else 0.0
    by = max(last - SHAFTS_MOST, min(last + SHAFTS_MOST, due))
    if by * due <= 0:
        by = due
    wants = round(min(max(own * math.exp(by / 10), LEAST_SPINE_LBF), MOST_SPINE_LBF), 1)
    by = 10 * math.log(wants / own)
    if abs(by) < LEAST_SHAFTS:
        return None
    near = any(abs(one - by) <= FLOWN_NEAR for one in flown)
    would_do = axis.chance_between(-BORDER - by, BORDER - by) >= GET_CHANCE
    get = (near and would_do) or len(flown) >= MOST_FLOWN
    refused = None
    if get and due > 0 and axis.chances()["false_weak"] > STIFFER_FALSE and c.flight.tests.ranked:
        refused = "nothing stiffer is bought while the shaft may be stiff and strike: prove it"
    return CorrectionLever(
        "shafts", "spine", phrase("Shafts of {to}", to=spine(wants)), by, "shafts", 9,
        "borrow three; your set stays" if not get else "keep the old ones until these have flown",
        trial=None if get else Change(what="other_shafts", amount=wants), get=get,
        refused=refused,
    )  # fmt: skip
