"""Geometry of the string's pages: the string laid straight, settling, turns, and the valley."""

from typing import Literal

import numpy as np

from lyrandis.core.archer.words import Hold
from lyrandis.core.arrow.closing import changed
from lyrandis.core.arrow.matched import matches_of
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN, TRADE_OFFSET_MM, USUAL_GPP
from lyrandis.core.drawn import Drawn
from lyrandis.core.phrase import Phrase, mm, phrase
from lyrandis.core.stage_spec import Page
from lyrandis.core.string.advice import (
    advice_of,
    groove_of,
    next_order,
    out_of_reach,
    quiet_said,
    strength_of,
    turns_to,
)
from lyrandis.core.string.brace_change import brace_change
from lyrandis.core.string.settling import SettlingReading
from lyrandis.core.string.strands import FEW_STRANDS, FIBRES, bundle_diameter, served_diameter
from lyrandis.core.string.sweep import Height, Quiet, loudness_of, rated
from lyrandis.core.string.turns import brace_per_turn, per_inch, shortening
from lyrandis.core.string.words import (
    STRING_MATERIAL_WORDS,
    STRING_TYPE_WORDS,
    StringMaterial,
    Tail,
)

POINTS_PER_DB = 0.6
"""Points of a rating that are drawn for one dB: the middle of what archers give."""
VALLEY_POINTS = 61
TEN = 10
"""Turns that are put in at a time: archers count them so."""
STEPS_IN = (-0.25, -0.125, 0.125, 0.25)


class Advised(Drawn):
    """Strands and thread that would suit this rig in one fibre."""

    material: StringMaterial
    least: int
    strands: int
    thread_mm: float
    served_mm: float


class StringSheet(Drawn):
    """The string as it is, and as it would be ordered."""

    rule_mm: float
    computed_mm: float | None
    length_mm: float
    length_told: bool
    diameter_mm: float | None
    diameter_plus_minus_mm: float | None
    served_mm: float | None
    """Over the serving thread told."""
    groove_mm: float
    groove_told: bool
    advised: tuple[Advised, ...]
    factor: float | None
    few_strands: bool
    """True where one slack strand is a good part of the string."""
    turns: float | None
    per_inch: float | None
    order: tuple[Phrase, ...]
    """What to write to the maker of the next one."""


class SettlingCurve(Drawn):
    """The creep as fitted, with the turns of now."""

    hours: tuple[float, ...]
    brace_mm: tuple[float, ...]
    sd_mm: tuple[float, ...]


class SettlingDrawing(Drawn):
    """Brace readings over hours strung."""

    points: tuple[SettlingReading, ...]
    too_early: int
    curve: SettlingCurve | None
    left_mm: float | None
    left_p90_mm: float | None
    sure: float | None
    settled_at: float | None
    settled: bool | None
    still: bool
    """True where it no longer moves that one can see, and is not settled yet for all that."""
    strung: bool | None
    """True while the bow is strung; None where nobody says."""


class TurnsStep(Drawn):
    change_mm: float
    turns: float | None
    """Turns then; None where untwisting cannot do it."""


class TurnsTable(Drawn):
    """What turns do to the brace."""

    now: float
    now_plus_minus: float | None
    """Given where they were not counted: inferred from what a change did to the brace."""
    ten_turns_mm: float
    """What the next ten turns add to the brace."""
    ten_turns_plus_minus_mm: float
    gain: float
    gain_plus_minus: float
    model_gain: float
    pairs: int
    shortened_mm: float
    steps: tuple[TurnsStep, ...]


class ShotHeight(Drawn):
    """A height that was shot, its ratings levelled over the quiet spot [points]."""

    entry_id: str
    brace_mm: float
    turns: float | None
    tail: Tail | None
    sound: tuple[float, ...]
    shock: tuple[float, ...]
    sound_at: float | None
    shock_at: float | None
    recorded: int
    """Shots of it that were recorded."""
    recorded_db: float | None
    """How loud they were over the quiet spot; None where they compare with nothing."""
    recorded_at: float | None
    """The same in points."""
    sound_shots: tuple[float, ...]
    shock_shots: tuple[float, ...]


class Valley(Drawn):
    """Ratings over brace, in points worse than the quiet spot."""

    low_mm: float
    high_mm: float
    told: bool
    """True where the maker gives the range."""
    braces_mm: tuple[float, ...]
    points: tuple[float, ...]
    points_sd: tuple[float, ...]
    shots: tuple[ShotHeight, ...]
    quiet_mm: float | None
    quiet_sd_mm: float | None
    other_mm: float | None
    """A second quiet spot that fits as well."""
    said: Phrase | None
    """Where the quiet brace lies, in words."""
    heights: int
    next_mm: float | None
    next_turns: float | None
    out_of_reach: Phrase | None
    """Said where turns alone do not bring this string to the next height."""
    enough: bool
    now_mm: float | None


class BraceQuarter(Drawn):
    """What 1/4 in more brace changes."""

    weight_lbf: float
    stored_j: float
    speed_mps: float
    string_mm: float
    turns: float | None
    spine_lbf: float | None
    """How far the matched spine moves; None where there is no match."""


class StringPage(Page):
    """What the string's pages draw."""

    stage: Literal["string"] = "string"
    sheet: StringSheet
    settling: SettlingDrawing
    turns: TurnsTable | None
    valley: Valley
    quarter: BraceQuarter | None
    datum: Literal["pivot", "back", "plunger"] | None
    """Where this rig's brace is read to; None while nobody has said."""


def page(c: Computed) -> StringPage:
    """Return the geometry of the string's pages."""
    read = c.setup.string.brace_height
    return StringPage(
        sheet=_sheet(c),
        settling=_settling(c),
        turns=_turns(c),
        valley=_valley(c),
        quarter=_quarter(c),
        datum=read.reading.datum if read else None,
    )


def _sheet(c: Computed) -> StringSheet:
    facts, numbers = c.setup.string, c.string
    both, diameter = numbers.length, numbers.diameter
    thread = facts.part("thread_mm")
    strength = strength_of(c)
    advised = [(material, advice_of(c, material)) for material in FIBRES]
    turns = facts.turns[-1].reading.turns if facts.turns else None
    nock = c.setup.nock.arrow_nock
    return StringSheet(
        rule_mm=both.rule_mm,
        computed_mm=both.computed_mm,
        length_mm=numbers.length_mm,
        length_told=facts.part("string_length_mm") is not None,
        diameter_mm=diameter.value if diameter else None,
        diameter_plus_minus_mm=diameter.plus_minus if diameter else None,
        served_mm=served_diameter(diameter.value, thread) if diameter and thread else None,
        groove_mm=groove_of(c),
        groove_told=nock is not None and nock.reading.groove_mm is not None,
        advised=tuple(
            Advised(material=material, least=item.least, strands=item.strands,
                    thread_mm=item.thread_mm, served_mm=item.served_mm)
            for material, item in advised if item is not None
        ),
        factor=strength.factor if strength else None,
        few_strands=facts.strands is not None and facts.strands <= FEW_STRANDS,
        turns=turns,
        per_inch=per_inch(turns, numbers.length_mm) if turns is not None else None,
        order=_order_text(c),
    )  # fmt: skip


def _order_text(c: Computed) -> tuple[Phrase, ...]:
    """Return the words that order a string like this one, for the brace it wants."""
    facts, quiet = c.setup.string, c.string.quiet
    brace = c.string.sure_brace
    wanted = quiet.brace_mm if quiet is not None and quiet.enough else None
    wanted = wanted if wanted is not None else brace.value if brace else None
    order = next_order(c, wanted) if wanted is not None else None
    length = order.finished_mm if order else c.string.length_mm
    material = STRING_MATERIAL_WORDS[facts.material] if facts.material else "fibre to be agreed"
    strands = f"{facts.strands} strands" if facts.strands else "strands to be agreed"
    kind = STRING_TYPE_WORDS[facts.kind] if facts.kind else "twisted bundles"
    lines = [
        phrase(f"One bowstring, {kind}, {material}, {strands}."),
        phrase("Length on the bow, measured under tension: {length}.", length=mm(length)),
    ]
    if order is not None:
        lines.append(
            phrase(
                f"With {order.turns:g} turns in it; {{bare}} before any.", bare=mm(order.bare_mm)
            )
        )
    bow = c.setup.bow.length
    if bow is not None:
        lines.append(phrase("For a bow of {bow}.", bow=mm(bow.reading.back_mm)))
    serving, thread = facts.part("serving_mm"), facts.part("thread_mm")
    if serving is not None:
        lines.append(phrase("Middle serving {serving}.", serving=mm(serving)))
    advice = advice_of(c, facts.material) if facts.material else None
    served = thread if thread is not None else advice.thread_mm if advice else None
    if served is not None and facts.material in FIBRES and facts.strands:
        bundle = bundle_diameter(FIBRES[facts.material], facts.strands)
        lines.append(
            phrase(
                f"Served to {served_diameter(bundle, served):.1f} mm for a nock groove of "
                f"{groove_of(c):.1f} mm (thread {served:.2f} mm)."
            )
        )
    return tuple(lines)


def _settling(c: Computed) -> SettlingDrawing:
    numbers, log = c.string, c.string.log
    fit = numbers.settling
    strung = c.setup.string.strung
    curve = None
    if fit is not None:
        last = max(fit.hours, min(fit.settled_at or 72.0, 72.0), 6.0)
        hours = np.linspace(0.05, last * 1.1, 49)
        segment = fit.ends.shape[1] - 1
        mean, sd = fit.curve(hours, segment)
        curve = SettlingCurve(
            hours=tuple(hours.round(3).tolist()),
            brace_mm=tuple(mean.round(3).tolist()),
            sd_mm=tuple(sd.round(3).tolist()),
        )
    return SettlingDrawing(
        points=log.readings,
        too_early=log.too_early,
        curve=curve,
        left_mm=fit.now.mean_mm if fit else None,
        left_p90_mm=fit.now.p90_mm if fit else None,
        sure=fit.now.settled if fit else None,
        settled_at=fit.settled_at if fit else None,
        settled=numbers.settled,
        still=fit is not None and fit.looks_still and not numbers.settled,
        strung=strung[-1].reading.strung if strung else None,
    )


def _turns(c: Computed) -> TurnsTable | None:
    bundle, gain, model = c.string.bundle, c.string.gain, c.string.model_gain
    brace = c.string.sure_brace
    if bundle is None or gain is None or model is None:
        return None
    ten = shortening(bundle.length_mm, bundle.diameter_mm.value, bundle.turns + TEN, bundle.turns)
    per_turn = brace_per_turn(bundle, gain)
    inferred = c.string.inferred_turns
    return TurnsTable(
        now=bundle.turns,
        now_plus_minus=inferred.plus_minus if inferred else None,
        ten_turns_mm=gain.value * ten,
        ten_turns_plus_minus_mm=gain.value * ten * per_turn.plus_minus / per_turn.value,
        gain=gain.value,
        gain_plus_minus=gain.plus_minus,
        model_gain=model.value,
        pairs=c.string.pairs,
        shortened_mm=shortening(bundle.length_mm, bundle.diameter_mm.value, bundle.turns),
        steps=tuple(
            TurnsStep(
                change_mm=step * MM_PER_IN,
                turns=turns_to(c, brace.value + step * MM_PER_IN) if brace else None,
            )
            for step in STEPS_IN
        )
        if brace
        else (),
    )


def _valley(c: Computed) -> Valley:
    numbers, quiet = c.string, c.string.quiet
    low, high = numbers.limits
    braces = np.linspace(low - MM_PER_IN / 4, high + MM_PER_IN / 4, VALLEY_POINTS)
    points, sd = np.zeros(0), np.zeros(0)
    told = quiet if quiet is not None and quiet.heights >= 2 else None
    if told is not None:
        mean, spread = told.valley(braces)
        points, sd = POINTS_PER_DB * mean, POINTS_PER_DB * spread
    following = quiet.next_mm if quiet else None
    return Valley(
        low_mm=low,
        high_mm=high,
        told=numbers.limits_told,
        braces_mm=tuple(braces.round(3).tolist()),
        points=tuple(points.round(4).tolist()),
        points_sd=tuple(sd.round(4).tolist()),
        shots=_shots(c, quiet),
        quiet_mm=told.brace_mm if told else None,
        quiet_sd_mm=told.sd_mm if told else None,
        other_mm=told.other_mm if told else None,
        said=quiet_said(told) if told else None,
        heights=quiet.heights if quiet else 0,
        next_mm=following,
        next_turns=turns_to(c, following) if following is not None else None,
        out_of_reach=out_of_reach(c, following),
        enough=quiet.enough if quiet else False,
        now_mm=numbers.brace.value if numbers.brace else None,
    )


def _shots(c: Computed, quiet: Quiet | None) -> tuple[ShotHeight, ...]:
    """Return the heights shot, each channel levelled so that the quiet spot is nought."""
    heights = c.string.heights
    rise = [0.0] * len(heights)
    if quiet is not None and heights:
        rise = quiet.valley(np.array([height.brace_mm for height in heights]))[0].tolist()
    offsets = {name: _level(heights, rise, name) for name in ("sound", "shock")}

    def at(height: Height, name: str) -> float | None:
        ratings = getattr(height, name)
        return rated(ratings).value - offsets[name] if ratings else None

    known = [(loudness_of(item.takes_db).value, up) for item, up in zip(heights, rise, strict=True)
             if item.takes_db]  # fmt: skip
    quietest = sum(db - up for db, up in known) / len(known) if known else 0.0

    def loud(height: Height) -> float | None:
        return loudness_of(height.takes_db).value - quietest if height.takes_db else None

    return tuple(
        ShotHeight(
            entry_id=item.entry.id,
            brace_mm=height.brace_mm,
            turns=item.reading.turns,
            tail=item.reading.tail,
            sound=height.sound,
            shock=height.shock,
            sound_at=at(height, "sound"),
            shock_at=at(height, "shock"),
            recorded=len(item.reading.takes_db),
            recorded_db=loud(height),
            recorded_at=None if (db := loud(height)) is None else POINTS_PER_DB * db,
            sound_shots=tuple(rating - offsets["sound"] for rating in height.sound),
            shock_shots=tuple(rating - offsets["shock"] for rating in height.shock),
        )
        for item, height in zip(c.setup.string.tried, heights, strict=True)
    )


def _level(heights: tuple[Height, ...], rise: list[float], name: str) -> float:
    """Return the rating a channel would give at the quiet spot."""
    offs = [
        rated(getattr(height, name)).value - POINTS_PER_DB * up
        for height, up in zip(heights, rise, strict=True)
        if getattr(height, name)
    ]
    return sum(offs) / len(offs) if offs else 0.0


def _quarter(c: Computed) -> BraceQuarter | None:
    weight = c.bow.own_weight
    if weight is None:
        return None
    hold: Hold | None = c.setup.archer.hold.reading.hold if c.setup.archer.hold else None
    arrow = c.arrow.finished.mass.value if c.arrow.finished else USUAL_GPP * weight.weight.value
    pivot = c.archer.drawn_to.value - TRADE_OFFSET_MM
    result = brace_change(c.bow.likeness.shape, weight.weight.value, pivot, arrow, hold)
    if result is None:
        return None
    brace, bundle = c.string.sure_brace, c.string.bundle
    then = turns_to(c, brace.value + MM_PER_IN / 4) if brace else None
    return BraceQuarter(
        weight_lbf=result.weight_lbf,
        stored_j=result.stored_j,
        speed_mps=result.speed_mps,
        string_mm=result.string_mm,
        turns=then - bundle.turns if then is not None and bundle else None,
        spine_lbf=_spine_moves(c),
    )


def _spine_moves(c: Computed) -> float | None:
    """Return what 1/4 in more brace does to the matched spine [lb]."""
    shooting, match = c.arrow.shooting, c.match
    if shooting is None or match is None:
        return None
    quarter = MM_PER_IN / 4 / 1000
    shots = tuple(
        changed(shooting.shot, shooting.weight_lbf, "brace", step) for step in (-quarter, quarter)
    )
    low, high = matches_of(shots, shooting.habit)
    return (high - low) / 2
