"""Ways to close the gap between shafts and rig, the easiest to undo first.

Every way is a computed shot. Cutting is irreversible: last, and in small steps.
"""

from dataclasses import dataclass, replace
from itertools import groupby
from typing import Literal

from lyrandis.core.arrow.beam import modes_of
from lyrandis.core.arrow.bend import Shot
from lyrandis.core.arrow.closing import MatchChange, changed
from lyrandis.core.arrow.match import Stiffness, spine_index, stiffness_word
from lyrandis.core.arrow.matched import SpineMatch, asked, match_of, matches_of
from lyrandis.core.arrow.shooting import Shooting
from lyrandis.core.arrow.taper import taper_profile
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN
from lyrandis.core.phrase import Phrase, gap, gr, mm, phrase, spine
from lyrandis.core.string.silencers import moved_share

Undo = Literal["easy", "new", "never"]
"""How hard a change is to take back: at the bench, with new shafts, never."""
_ORDER: tuple[Undo, ...] = ("easy", "new", "never")
MORE_POINT_GR = (25.0, 50.0, 75.0)
LEAST_TIP_GR, MOST_TIP_GR = 40.0, 260.0
BRACES_MM = (MM_PER_IN / 4, MM_PER_IN / 2)
PLATES_MM = (1.0, 2.0)
SILENCERS_GR = 20.0
CUTS_MM = tuple(MM_PER_IN * quarter / 4 for quarter in range(1, 7))
LONGER_MM = (MM_PER_IN, 2 * MM_PER_IN, 3 * MM_PER_IN)
LONGEST_MM = 33 * MM_PER_IN
"""Longer shafts are hardly to be had."""
LEAST_BEYOND_MM = MM_PER_IN
"""An arrow is not cut closer than this beyond the draw."""
TAPER_SHARE, TAPER_TO = 0.4, 0.8
"""A barrelling tried on a wooden shaft: from either end, shares of its length and diameter."""
CLOSED = 1.0
LEAST_USE = 0.15
"""A change of the index smaller than this is no way."""


@dataclass(frozen=True)
class Way:
    """One thing to change, and what is left to close afterwards."""

    key: str
    what: Phrase
    undo: Undo
    index: float
    word: Stiffness
    pounds: float
    """How far it moves the match [lb]."""
    mass_gr: float
    """The finished arrow's mass after it."""
    closes: bool


@dataclass(frozen=True)
class _Try:
    key: str
    what: Phrase
    undo: Undo
    shot: Shot


def ways_to_close(
    shooting: Shooting, pivot_mm: float, brace_limits_mm: tuple[float, float] | None
) -> tuple[Way, ...]:
    """Return the ways to bring the shafts to a match; () when they match or nothing is known.

    Of every kind the smallest change that closes the gap stands, else the one that helps most.
    `pivot_mm` is the true draw to the pivot, `brace_limits_mm` the maker's range.

    Source: shots computed anew for every try.

    >>> from lyrandis.core.example import rig
    >>> shooting = rig().arrow.shooting
    >>> [way.closes for way in ways_to_close(shooting, shooting.pivot_mm, None)]
    []
    """
    own = shooting.own_lbf
    match = match_of(shooting.shot, shooting.habit, own)
    matched = match.matched
    if own is None or match.word(own) == "matched":
        return ()
    index = spine_index(own, matched)
    stiff = index > 0
    tries = [
        *_points(shooting, stiff),
        *_braces(shooting, stiff, brace_limits_mm),
        *_plates(shooting, stiff),
        *_silencers(shooting, stiff),
        *([*_longer(shooting), *_tapers(shooting)] if stiff else _cuts(shooting, pivot_mm)),
    ]
    beyond = shooting.sheet.mass_gr - modes_of(shooting.shot.beam).mass / KG_PER_GRAIN
    result = matches_of([trial.shot for trial in tries], shooting.habit)
    ways = [
        _way(item, after, own, matched, beyond) for item, after in zip(tries, result, strict=True)
    ]
    ways = [*_best(ways, index), _new_shafts(shooting, match)]
    return tuple(sorted(ways, key=lambda way: _ORDER.index(way.undo)))


def _way(one: _Try, after: float, own: float, matched: float, mass_gr: float) -> Way:
    """`mass_gr` is what the arrow weighs beyond its beam as it stands."""
    index = spine_index(own, after)
    word = stiffness_word(index)
    return Way(
        key=one.key,
        what=one.what,
        undo=one.undo,
        index=index,
        word=word,
        pounds=after - matched,
        mass_gr=mass_gr + modes_of(one.shot.beam).mass / KG_PER_GRAIN,
        closes=abs(index) <= CLOSED,
    )


def _best(ways: list[Way], before: float) -> list[Way]:
    """Keep of every kind the first that closes, else the one that leaves least."""
    kept = []
    for _, group in groupby(ways, key=lambda way: way.key):
        useful = [way for way in group if abs(before) - abs(way.index) > LEAST_USE]
        if useful:
            closing = (way for way in useful if way.closes)
            kept.append(next(closing, min(useful, key=lambda way: abs(way.index))))
    return kept


def _changed(shooting: Shooting, change: MatchChange, amount: float) -> Shot:
    return changed(shooting.shot, shooting.weight_lbf, change, amount)


def _points(shooting: Shooting, stiff: bool) -> list[_Try]:
    tip = shooting.shot.beam.tip / KG_PER_GRAIN
    tries = []
    for step in MORE_POINT_GR:
        amount = step if stiff else -step
        if LEAST_TIP_GR <= tip + amount <= MOST_TIP_GR:
            way = "heavier" if stiff else "lighter"
            what = phrase(f"Point {{by}} {way}", by=gr(step))
            shot = _changed(shooting, "point", amount * KG_PER_GRAIN)
            tries.append(_Try("point", what, "easy", shot))
    return tries


def _braces(shooting: Shooting, stiff: bool, limits_mm: tuple[float, float] | None) -> list[_Try]:
    now = shooting.shot.push.brace * 1000
    tries = []
    for step in BRACES_MM:
        after = now + (step if stiff else -step)
        if limits_mm is not None and not limits_mm[0] - 0.5 <= after <= limits_mm[1] + 0.5:
            continue
        what = phrase(f"Brace {'up' if stiff else 'down'} to {{brace}}", brace=mm(after))
        shot = _changed(shooting, "brace", (after - now) / 1000)
        tries.append(_Try("brace", what, "easy", shot))
    return tries


def _plates(shooting: Shooting, stiff: bool) -> list[_Try]:
    if stiff and shooting.side.offset_mm < PLATES_MM[0]:
        return []
    way = "thinner" if stiff else "thicker"
    return [
        _Try(
            "window",
            phrase(f"Side plate {{by}} {way}", by=gap(step)),
            "easy",
            _changed(shooting, "window", (-step if stiff else step) / 1000),
        )
        for step in PLATES_MM
    ]


def _silencers(shooting: Shooting, stiff: bool) -> list[_Try]:
    """Weak: hang them on. Stiff: nothing is known to hang there, so nothing can come off."""
    if stiff:
        return []
    what = phrase("Silencers on the string, {mass}", mass=gr(SILENCERS_GR))
    shot = _changed(shooting, "string", SILENCERS_GR * moved_share(None, 1.0) * KG_PER_GRAIN)
    return [_Try("string", what, "easy", shot)]


def _cuts(shooting: Shooting, pivot_mm: float) -> list[_Try]:
    spare = shooting.sheet.length_mm - pivot_mm - LEAST_BEYOND_MM
    return [
        _Try(
            "length",
            phrase(
                "Cut {by} off, {step} at a time, shooting between",
                by=mm(cut),
                step=mm(CUTS_MM[0]),
            )
            if cut > CUTS_MM[0]
            else phrase("Cut {by} off and shoot", by=mm(cut)),
            "never",
            _changed(shooting, "length", -cut / 1000),
        )
        for cut in CUTS_MM
        if cut <= spare
    ]


def _longer(shooting: Shooting) -> list[_Try]:
    return [
        _Try(
            "longer",
            phrase("Shafts of this make {by} longer", by=mm(by)),
            "new",
            _changed(shooting, "length", by / 1000),
        )
        for by in LONGER_MM
        if shooting.sheet.length_mm + by <= LONGEST_MM
    ]


def _tapers(shooting: Shooting) -> list[_Try]:
    sheet = shooting.sheet
    if sheet.material not in ("wood", "cane") or sheet.tapered:
        return []
    long = TAPER_SHARE * sheet.length_mm
    ends = (long, TAPER_TO * sheet.diameter_mm)
    profile = taper_profile(sheet.length_mm, sheet.diameter_mm, tail=ends, head=ends)
    beam = replace(shooting.shot.beam, profile=profile)
    what = phrase(
        "Barrel both ends {long} to {end}, {1 in} at a time", long=mm(long), end=gap(ends[1])
    )
    return [_Try("taper", what, "never", replace(shooting.shot, beam=beam))]


def _new_shafts(shooting: Shooting, match: SpineMatch) -> Way:
    low, high = spine(asked(match.low)), spine(asked(match.high))
    return Way(
        key="shafts",
        what=phrase("Next shafts at {low} to {high}", low=low, high=high),
        undo="new",
        index=0.0,
        word="matched",
        pounds=0.0,
        mass_gr=shooting.sheet.mass_gr,
        closes=True,
    )
