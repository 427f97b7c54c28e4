"""Geometry of the flight's pages that needs no curves: the dial, the butt, what was seen."""

import math
from datetime import datetime
from typing import Literal

from lyrandis.core.computed import Computed
from lyrandis.core.drawn import Drawn
from lyrandis.core.flight.basis import FlightNeed
from lyrandis.core.flight.likely import BORDERS, CLEAR_M, FURTHEST_TAIL_M
from lyrandis.core.flight.plan import test_asked, trial_is_shot
from lyrandis.core.flight.readings import BareApart, ButtHits, Change, TailSeen
from lyrandis.core.flight.say import first_of, put_back, test_how
from lyrandis.core.flight.words import Care, MatchFrom, Sees
from lyrandis.core.phrase import Phrase, phrase
from lyrandis.core.stage_spec import Page


class SeenLine(Drawn):
    """One thing that was seen, as it is said."""

    entry_id: str
    says: Phrase
    kind: str
    at: datetime


class TailBefore(Drawn):
    """The last tail, for the dial's edge."""

    across_mm: float | None
    up_mm: float | None


class AskedTest(Drawn):
    """A test as it is shot: what to look at, from where, with how many, and what to do for it."""

    sees: Sees
    distance_m: float
    arrows: int
    act: Phrase
    """What to do before the shot."""
    back: str | None
    """What to put back after it."""
    shot: bool
    """True where it was shot: it only waits to be put back."""


class FlightPage(Page):
    """What the flight's pages draw."""

    stage: Literal["flight"] = "flight"
    borders_mm: tuple[float, ...]
    """Of the dial's columns, slight, clear and strong: at this arrow's own length."""
    outward_is_left: bool
    clear_low_m: float
    clear_high_m: float
    furthest_tail_m: float
    tail_distance_m: float
    bare_distance_m: float
    arrows: int
    eye_mm: float
    """± of a tail with so many arrows, two standard deviations."""
    scatter_m: float
    scatter_learned: bool
    trial: Change | None
    trial_says: Phrase | None
    trial_back: str | None
    trial_entry: str | None
    before: TailBefore | None
    seen: tuple[SeenLine, ...]
    bare_shafts: bool | None
    longest_m: float | None
    other_shafts_lbf: float | None
    care: Care
    source: MatchFrom
    waiting: bool
    needs: tuple[FlightNeed, ...]
    asked: AskedTest | None
    """What the next step asks to be shot; the forms open on it."""
    felt: bool | None


NEAR_M, FAR_M = 2.3, 18.0
MOST_SEEN = 12


def page(c: Computed) -> FlightPage:
    """Return the geometry of the flight's pages."""
    flight, facts = c.flight, c.flight.facts
    length = c.arrow.sheet.length_mm
    borders = [length * math.sin(math.radians(abs(border))) for border in BORDERS[3:]]
    tails = [sighting.reading for sighting in facts.seen if isinstance(sighting.reading, TailSeen)]
    bares = [
        sighting.reading
        for sighting in facts.seen
        if isinstance(sighting.reading, BareApart | ButtHits)
    ]
    noise, freedom = flight.basis.noise, flight.basis.freedom
    arrows = tails[-1].arrows if tails else 3
    spread = math.hypot(noise.eye_deg, 0.7) / math.sqrt(arrows)
    kit = facts.kit
    return FlightPage(
        borders_mm=tuple(borders),
        outward_is_left=flight.basis.hands.outward_is_left,
        clear_low_m=CLEAR_M[0],
        clear_high_m=CLEAR_M[1],
        furthest_tail_m=FURTHEST_TAIL_M,
        tail_distance_m=tails[-1].distance_m if tails else NEAR_M,
        bare_distance_m=bares[-1].distance_m if bares else FAR_M,
        arrows=arrows,
        eye_mm=2 * length * math.sin(math.radians(math.hypot(spread, 0.5))),
        scatter_m=noise.scatter_m,
        scatter_learned=freedom > 0,
        trial=facts.trial,
        trial_says=facts.trial.say() if facts.trial else None,
        trial_back=put_back(facts.trial) if facts.trial else None,
        trial_entry=facts.trial_set.entry.id if facts.trial and facts.trial_set else None,
        before=_before(tails[-1], borders) if tails else None,
        seen=tuple(
            SeenLine(entry_id=sighting.entry.id, says=sighting.reading.say(),
                     kind=sighting.reading.kind, at=sighting.entry.happened_at)
            for sighting in facts.seen[-MOST_SEEN:]
        ),
        bare_shafts=kit.bare_shafts if kit else None,
        longest_m=kit.longest_m if kit else None,
        other_shafts_lbf=kit.other_shafts_lbf if kit else None,
        care=flight.basis.care,
        source=facts.source.reading.source if facts.source else "flight",
        waiting=flight.basis.waiting,
        needs=flight.basis.needs,
        asked=_asked(c),
        felt=kit.felt if kit else None,
    )  # fmt: skip


def _asked(c: Computed) -> AskedTest | None:
    """Return what is to be shot now: the trial that is on, else the test the next step asks for."""
    trial = c.flight.facts.trial
    if trial is not None:
        on = trial.say()
        return AskedTest(
            sees="tail", distance_m=NEAR_M, arrows=3, back=put_back(trial).replace(" after.", "."),
            act=phrase(f"{first_of(trial)} Then shoot three fletched arrows.", **on.figures),
            shot=trial_is_shot(c),
        )  # fmt: skip
    test = test_asked(c)
    if test is None:
        return None
    return AskedTest(
        sees=test.sees, distance_m=test.distance_m, arrows=round(test.arrows),
        act=test_how(test, None), back=None, shot=False,
    )  # fmt: skip


def _before(tail: TailSeen, borders: list[float]) -> TailBefore:
    """Return where the last tail stood; a word stands in the middle of its column."""
    middles = [0.0, (borders[0] + borders[1]) / 2, (borders[1] + borders[2]) / 2, borders[2] * 1.15]

    def place(grade: int | None, off: float | None) -> float | None:
        if grade is None:
            return off
        return math.copysign(middles[abs(grade)], grade) if grade else 0.0

    return TailBefore(
        across_mm=place(tail.across, tail.across_mm), up_mm=place(tail.up, tail.up_mm)
    )
