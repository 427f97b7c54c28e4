"""What to advise on a string: its strength on this rig, strands and thread, turns, the next one."""

from typing import NamedTuple

from lyrandis.core.computed import Computed
from lyrandis.core.constants import TRADE_OFFSET_MM, USUAL_GPP
from lyrandis.core.phrase import Phrase, mm, percent, phrase
from lyrandis.core.string.strands import (
    FACTOR_OF_SAFETY,
    FEWEST_STRANDS,
    FIBRES,
    GROOVES_MM,
    MOST_STRANDS,
    StrandAdvice,
    Tensions,
    factor_of_safety,
    strand_advice,
    tensions_of,
)
from lyrandis.core.string.sweep import Quiet
from lyrandis.core.string.turns import (
    StringOrder,
    next_string,
    per_inch,
    turns_for,
    turns_word,
)
from lyrandis.core.string.words import StringMaterial

SMALL_SHAFT_MM = 7.5
"""Assumption: arrows to this thickness have the small nock groove."""


class Strength(NamedTuple):
    """How strong the string on a rig is."""

    material: StringMaterial
    strands: int
    factor: float
    least: int
    tensions: Tensions


def _tensions(c: Computed, material: StringMaterial, strands: int) -> Tensions | None:
    weight, thrust, fibre = c.bow.own_weight, c.bow.thrust, FIBRES.get(material)
    if weight is None or thrust is None or fibre is None:
        return None
    curve = c.bow.likeness.curve
    pivot = c.archer.drawn_to.value - TRADE_OFFSET_MM
    force = curve.force.at(pivot)
    if force <= 0:
        return None
    arrow = c.arrow.finished.mass.value if c.arrow.finished else USUAL_GPP * weight.weight.value
    return tensions_of(curve, weight.weight.value / force, pivot, thrust, arrow, fibre, strands)


def least_strands(c: Computed, material: StringMaterial) -> int | None:
    """Return the fewest strands with the factor of safety on this rig; None where unknown.

    Source: as `factor_of_safety`.

    >>> from lyrandis.core.example import rig
    >>> least_strands(rig(), "polyester")
    13
    """
    fibre = FIBRES.get(material)
    for strands in range(FEWEST_STRANDS, MOST_STRANDS + 1):
        tensions = _tensions(c, material, strands)
        if tensions is None or fibre is None:
            return None
        if factor_of_safety(tensions, fibre, strands) >= FACTOR_OF_SAFETY:
            return strands
    return MOST_STRANDS


def strength_of(c: Computed) -> Strength | None:
    """Return how strong the string on the rig is; None where fibre, strands or bow are unknown.

    Source: as `factor_of_safety`.

    >>> from lyrandis.core.example import rig
    >>> strength_of(rig()) is None
    True
    """
    material, strands = c.setup.string.material, c.setup.string.strands
    fibre = FIBRES.get(material) if material else None
    if material is None or strands is None or fibre is None:
        return None
    tensions, least = _tensions(c, material, strands), least_strands(c, material)
    if tensions is None or least is None:
        return None
    return Strength(material, strands, factor_of_safety(tensions, fibre, strands), least, tensions)


def groove_of(c: Computed) -> float:
    """Return the width of the arrow nock's groove: measured, else small or large by the shaft [mm].

    Assumption: small and large grooves of the trade.

    >>> from lyrandis.core.example import rig
    >>> groove_of(rig())
    2.5
    """
    told = c.setup.nock.arrow_nock
    if told is not None and told.reading.groove_mm is not None:
        return told.reading.groove_mm
    shaft = c.setup.arrows.part("shaft_diameter_mm")[0]
    return GROOVES_MM["small" if shaft is not None and shaft <= SMALL_SHAFT_MM else "large"]


def advice_of(c: Computed, material: StringMaterial) -> StrandAdvice | None:
    """Return strands and thread for this rig in a fibre; None where there is no number for it.

    Source: as `strand_advice`.

    >>> from lyrandis.core.example import rig
    >>> advice_of(rig(), "polyester").strands
    14
    """
    least, fibre = least_strands(c, material), FIBRES.get(material)
    return None if least is None or fibre is None else strand_advice(least, fibre, groove_of(c))


def turns_to(c: Computed, brace_mm: float) -> float | None:
    """Return the turns that bring the brace to a height; None where unknown or impossible.

    Source: as `turns_for`.

    >>> from lyrandis.core.example import RECURVE, rig
    >>> c = rig([*RECURVE, "fibre polyester", "turns 20"])
    >>> turns_to(c, c.string.brace.value)
    20.0
    """
    brace, bundle, gain = c.string.sure_brace, c.string.bundle, c.string.gain
    if brace is None or bundle is None or gain is None:
        return None
    return turns_for(bundle, gain, brace_mm - brace.value)


def next_order(c: Computed, brace_mm: float) -> StringOrder | None:
    """Return the string to order for a brace; None where the present one is not known.

    Source: as `next_string`.

    >>> from lyrandis.core.example import RECURVE, rig
    >>> c = rig([*RECURVE, "fibre polyester", "turns 20"])
    >>> round(next_order(c, c.string.brace.value).finished_mm / 25.4)
    59
    """
    brace, bundle, gain = c.string.sure_brace, c.string.bundle, c.string.gain
    if brace is None or bundle is None or gain is None:
        return None
    return next_string(bundle, gain, brace_mm - brace.value)


_FINE = ("good", "spongy")


def out_of_reach(c: Computed, brace_mm: float | None) -> Phrase | None:
    """Return what to say where turns alone do not bring the string to a brace; None where they do.

    Source: as `turns_for` and `next_string`; turns per inch as they are judged.

    >>> from lyrandis.core.example import RECURVE, rig
    >>> c = rig([*RECURVE, "fibre polyester", "turns 20"])
    >>> out_of_reach(c, c.string.brace.value) is None
    True
    >>> out_of_reach(c, c.string.brace.value - 30.0).template
    'Turns alone do not bring this string to {reach}: one of {string} would.'
    """
    bundle, order = c.string.bundle, None if brace_mm is None else next_order(c, brace_mm)
    if brace_mm is None or bundle is None or order is None:
        return None
    turns = turns_to(c, brace_mm)
    if turns is not None and turns_word(per_inch(turns, bundle.length_mm), bundle.kind) in _FINE:
        return None
    return phrase(
        "Turns alone do not bring this string to {reach}: one of {string} would.",
        reach=mm(brace_mm),
        string=mm(order.finished_mm),
    )


def quiet_said(quiet: Quiet) -> Phrase:
    """Return where the quiet brace lies, in words: one spot, two that fit as well, or a flat floor.

    Source: definition.

    >>> from lyrandis.core.string.sweep import Height, sweep
    >>> shot = [Height(b, (), (), (db, db)) for b, db in ((183, 0), (190, 3), (198, 0), (206, 4))]
    >>> quiet_said(sweep((*shot, *shot[1:3]), (178.0, 210.0))).text()
    'Two quiet spots fit as well: 7 3/16 in and 7 3/4 in; one of the two with 92 %.'
    """
    near = percent(quiet.near)
    if quiet.other_mm is not None:
        first, second = quiet.spots_mm
        return phrase("Two quiet spots fit as well: {first} and {second}; one of the two with "
                      "{near}.", first=mm(first), second=mm(second), near=near)  # fmt: skip
    spot = mm(quiet.brace_mm, 2 * quiet.sd_mm)
    if quiet.floor_mm is not None:
        low, high = quiet.floor_mm
        return phrase("Flat from {low} to {high}: nobody hears a difference there. Its middle is "
                      "near {spot}.", low=mm(low), high=mm(high), spot=spot)  # fmt: skip
    return phrase("Quiet spot {spot}, within {1/8 in} with {near}.", spot=spot, near=near)
