"""The numbers of the flight: what is believed, what each reading did to it, what is next.

Reckoned when asked for. The rig's own curves take half a second: who may not wait hands in a
`reckon` that answers None until they are there.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from functools import lru_cache
from itertools import pairwise
from typing import Any, NamedTuple

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.arrow.build import KG_PER_GRAIN
from lyrandis.core.arrow.closing import Change as MatchChange
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.match import SpineMatch
from lyrandis.core.arrow.numbers import ArrowNumbers
from lyrandis.core.arrow.shooting import outward_is_left
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.flight.belief import SPINE_SD, WIDE_SHARE, Axis
from lyrandis.core.flight.choose import (
    PLAIN_TESTS,
    FlightTest,
    Sitting,
    Worth,
    pushed_test,
    ranked,
    surest,
    verdict,
)
from lyrandis.core.flight.evidence import (
    LEAST_SHIFT,
    MOST_COUNTED,
    SITTING,
    Asked,
    Hands,
    NotCounted,
    Reckoned,
    Saw,
    Shifted,
    Start,
    Step,
    View,
    believed,
    learned,
    point_shift,
    push_of,
    reckon,
    saw,
    sensitivity,
    sitting_of,
    unexpected,
    upright_push,
)
from lyrandis.core.flight.facts import FlightFacts, Seen
from lyrandis.core.flight.likely import NOISE, Noise
from lyrandis.core.flight.readings import ButtHits, Change
from lyrandis.core.flight.settle import Tuning, rig_prior, tuned, tuning, wanted
from lyrandis.core.flight.words import Care, Class, Doubtful
from lyrandis.core.lazy import lazy
from lyrandis.core.nock.height import lift_of
from lyrandis.core.nock.numbers import NockNumbers
from lyrandis.core.nock.readings import NockHeight
from lyrandis.core.pile import At, Recorded, when
from lyrandis.core.quantities import within
from lyrandis.core.string.facts import StringFacts

Reckoner = Callable[[Asked], Reckoned | None]
ASSUMED_SD = 2.5
"""Assumption: the match is good to 25 % where shaft, window or string are assumed."""
UNKNOWN_SD = 4.0
"""Assumption: of a shaft whose spine nobody told."""
TUNED_WIDE_SHARE = 0.05
MOVED_SHARE = 0.3
"""Assumption: of a computed shift, how much a tuning that was kept before it may not follow."""
MOVED_NOCK_MM = 0.5
"""A nock read again within this stands where it stood."""
KINDS_TO_TUNE = 2


_Told = tuple[Sequence[Recorded[Any]], str, MatchChange, float]
"""Readings of one number, its field, what it changes, and its unit in the mechanics' own."""


class Entry(NamedTuple):
    """One thing in order: what was seen or changed, and how the belief takes it."""

    at: At
    step: Step | None
    seen: Recorded[Seen] | None = None
    why_not: NotCounted | None = None
    entry_id: str | None = None
    """The entry of a change."""


@dataclass(frozen=True)
class FlightNumbers:
    """What follows from what was seen of the flight."""

    facts: FlightFacts
    archer: ArcherFacts
    bow_facts: BowFacts
    string: StringFacts
    arrows: ArrowFacts
    arrow: ArrowNumbers
    nock: NockNumbers
    heights: tuple[Recorded[NockHeight], ...]
    drawn_mm: float | None
    """The archer's draw, pivot + 1 3/4 in."""
    own_set: str | None
    reckoner: Reckoner = reckon

    @lazy
    def asked(self) -> Asked | None:
        """What the curves are reckoned from; None while the shot is not known or has no match."""
        shooting, match = self.arrow.shooting, self.arrow.model
        if shooting is None or match is None or match.matched is None:
            return None
        if shooting.sheet.pointless:
            return None
        return Asked(
            shooting.shot,
            round(shooting.weight_lbf, 1),
            match.matched,
            round(shooting.sheet.diameter_mm / 1000, 5),
        )

    @lazy
    def reckoned(self) -> Reckoned | None:
        return self.reckoner(self.asked) if self.asked is not None else None

    @property
    def waiting(self) -> bool:
        """True where something was seen, and the curves to read it with are still reckoned."""
        return bool(self.facts.seen) and self.asked is not None and self.reckoned is None

    def in_hand(self, reckoner: Reckoner = reckon) -> "FlightNumbers":
        """Return the same with its curves, reckoned here and now."""
        return self if self.reckoned is not None else replace(self, reckoner=reckoner)

    @property
    def hands(self) -> Hands:
        return Hands(outward_is_left(self.archer))

    @property
    def care(self) -> Care:
        return self.facts.care.reading.care if self.facts.care else "ordinary"

    @lazy
    def scatter(self) -> tuple[Noise, int]:
        """The archer's noise, and the degrees of freedom of their own groups in it."""
        ends = [one.reading for one in self.facts.seen if isinstance(one.reading, ButtHits)]
        return learned(NOISE[self.care], ends)

    @property
    def noise(self) -> Noise:
        return self.scatter[0]

    @property
    def own_lbf(self) -> float | None:
        return self.arrow.shooting.own_lbf if self.arrow.shooting else None

    @property
    def tip_gr(self) -> float:
        """Point and insert."""
        return self.arrow.shooting.shot.beam.tip / KG_PER_GRAIN if self.arrow.shooting else 0.0

    @lazy
    def view(self) -> View | None:
        if self.reckoned is None:
            return None
        length = self.arrow.sheet.length_mm
        return View(self.reckoned, self.hands, self.own_lbf, length, self.tip_gr)

    @lazy
    def index(self) -> float:
        """The shaft's index by the mechanics alone, as the rig stands now."""
        match = self.arrow.model
        if match is None or match.matched is None or self.own_lbf is None:
            return 0.0
        return 10 * math.log(self.own_lbf / match.matched)

    @lazy
    def log(self) -> tuple[Entry, ...]:
        """All that was seen and changed, in order; empty while the curves are not there."""
        if self.view is None:
            return ()
        found = [
            Entry(when(one.entry), step if isinstance(step, Saw) else None, one,
                  None if isinstance(step, Saw) else step)
            for one in self.facts.seen
            for step in (saw(self.view, one.reading),)
        ]  # fmt: skip
        counted = [one.at for one in found if one.step is not None]
        if counted:
            found += self._changes(self.view.reckoned, counted[0])
        found.sort(key=lambda one: one.at)
        if len(counted) > MOST_COUNTED:
            first = counted[-MOST_COUNTED]
            found = [
                one if one.at >= first or one.step is None
                else one._replace(step=None, why_not="older" if one.seen else None)
                for one in found
            ]  # fmt: skip
        return tuple(found)

    def _changes(self, reckoned: Reckoned, since: At) -> list[Entry]:
        """Return what was changed on the rig since, as shifts of an axis."""
        found = []
        lifts = [
            (one, lift_of(one.reading.height_mm, one.reading.datum, self.nock.arrow_nock).value)
            for one in self.heights
        ]
        for (_, before), (one, after) in pairwise(lifts):
            if when(one.entry) > since and abs(after - before) >= MOVED_NOCK_MM:
                by = upright_push(Change(what="nock", amount=_within(after - before, 20.0))).by
                found.append(_changed(one, Shifted("upright", by, "nock")))
        found += self._points(reckoned, since)
        lengths: _Told = (self.arrows.builds, "shaft_length_mm", "length", 1e-3)
        found += self._moved(reckoned, since, (lengths, *self._of_rig))
        return [one for one in found if abs(one.step.by) >= LEAST_SHIFT]  # type: ignore[union-attr]

    def _points(self, reckoned: Reckoned, since: At) -> list[Entry]:
        """Return the changes of what stands in front of the shaft."""
        found: list[Entry] = []
        tip: dict[str, float] = {}
        for one in self.arrows.builds:
            before = tip.get("point_gr", 0.0) + tip.get("insert_gr", 0.0)
            parts = {name: getattr(one.reading, name) for name in ("point_gr", "insert_gr")}
            again = {k: v for k, v in parts.items() if v is not None and k in tip and tip[k] != v}
            tip |= {name: value for name, value in parts.items() if value is not None}
            after = tip.get("point_gr", 0.0) + tip.get("insert_gr", 0.0)
            if again and when(one.entry) > since and (by := point_shift(reckoned, before, after)):
                found.append(_changed(one, Shifted("spine", by, "lever")))
        return found

    @property
    def _of_rig(self) -> tuple[_Told, ...]:
        """What is told of the rig, not of its arrows, that moves its match."""
        return (
            (self.arrows.passes, "window_mm", "window", 1e-3),
            (self.string.builds, "silencers_gr", "string", KG_PER_GRAIN),
            (self.string.braces, "brace_height_mm", "brace", 1e-3),
        )

    def _moved(self, reckoned: Reckoned, since: At, told: Sequence[_Told]) -> list[Entry]:
        """Return the changes of one number after the other, as shifts of the shaft's index."""
        found: list[Entry] = []
        for records, name, change, per in told:
            last: float | None = None
            for of in records:
                value = getattr(of.reading, name)
                if value is None:
                    continue
                if last is not None and value != last and when(of.entry) > since:
                    by = sensitivity(reckoned, change, (value - last) * per)
                    found.append(_changed(of, Shifted("spine", by, "lever")))
                last = value
        return found

    @lazy
    def steps(self) -> tuple[Step, ...]:
        return tuple(one.step for one in self.log if one.step is not None)

    @property
    def counted(self) -> int:
        """How many readings count."""
        return sum(isinstance(step, Saw) for step in self.steps)

    @lazy
    def start(self) -> Start | None:
        """Where the belief begins: the model's index before all that was changed since."""
        if self.reckoned is None:
            return None
        shifted = sum(
            step.by for step in self.steps if isinstance(step, Shifted) and step.axis == "spine"
        )
        shooting = self.arrow.shooting
        rough = shooting is not None and bool(shooting.assumed)
        own_sd = UNKNOWN_SD if self.own_lbf is None else ASSUMED_SD if rough else SPINE_SD
        prior = rig_prior(self.index - shifted, self.tunings, own_sd)
        wide = TUNED_WIDE_SHARE if self.tunings else WIDE_SHARE
        return Start(
            self.reckoned.curves, self.noise, round(prior.centre, 4), round(prior.sd, 4), wide
        )

    @lazy
    def tunings(self) -> tuple[Tuning, ...]:
        """What tunings with other arrows said of this bow and archer, the last of each set.

        Brace, string and plate moved since make each of them less sure.
        """
        found = []
        for of, one in dict(self.facts.tunings).items():
            if of == self.own_set:
                continue
            kept = one.reading
            sd = math.hypot(kept.sd, *(MOVED_SHARE * by for by in self._since(when(one.entry))))
            found.append(Tuning(kept.matched_lbf, 2 * sd / 10, kept.offset, sd))
        return tuple(found)

    def _since(self, since: At) -> list[float]:
        """Return how far brace, silencers and plate have each moved the match since [index]."""
        if self.reckoned is None:
            return []
        return [
            sum(getattr(one.step, "by", 0.0) for one in self._moved(self.reckoned, since, (told,)))
            for told in self._of_rig
        ]

    @lazy
    def axes(self) -> tuple[Axis, Axis] | None:
        """What is believed of spine and nock now."""
        return believed(self.start, self.steps) if self.start is not None else None

    def axes_after(self, steps: int) -> tuple[Axis, Axis]:
        """Return what was believed after so many steps."""
        assert self.start is not None
        return believed(self.start, self.steps[:steps])

    @property
    def spine(self) -> Axis | None:
        return self.axes[0] if self.axes else None

    @property
    def upright(self) -> Axis | None:
        return self.axes[1] if self.axes else None

    @lazy
    def looked_up(self) -> bool:
        """True when high or low was looked at: then the nock's height is asked too."""
        return any(isinstance(step, Saw) and step.upright is not None and step.test.sees != "slap"
                   for step in self.steps)  # fmt: skip

    @lazy
    def sitting(self) -> Sitting | None:
        """The axes asked, and what was shot since the last change in one sitting."""
        if self.axes is None:
            return None
        done: list[FlightTest] = []
        last: datetime | None = None
        for one in self.log:
            if isinstance(one.step, Shifted):
                done = []
            elif isinstance(one.step, Saw):
                if last is not None and one.at[0] - last > SITTING:
                    done = []
                last = one.at[0]
                done.append(one.step.test)
        return sitting_of(self.axes, done, upright=self.looked_up)

    @lazy
    def kinds(self) -> int:
        """How many kinds of evidence were seen, with a trial or without."""
        return len({step.test.kind for step in self.steps if isinstance(step, Saw)})

    @lazy
    def verdict(self) -> Class | Doubtful | None:
        """What may be said of the shaft; None before the first reading counts."""
        if not self.facts.seen or self.spine is None or not self.counted:
            return None
        return verdict(self.spine)

    @lazy
    def nock_verdict(self) -> Class | Doubtful | None:
        if self.upright is None or not self.looked_up:
            return None
        return verdict(self.upright)

    @lazy
    def contradicts(self) -> bool:
        return "contradict" in (self.verdict, self.nock_verdict)

    @lazy
    def surprising(self) -> Entry | None:
        """The last reading, where it is so unlike what was believed that it is shot once more."""
        seen = [one for one in self.log if isinstance(one.step, Saw)]
        if len(seen) < 2 or self.start is None:
            return None
        last = seen[-1]
        if self.steps[-1] is not last.step:
            return None
        return last if unexpected(self.start, self.steps) else None

    @lazy
    def tuned(self) -> bool:
        """True when the shaft may be called tuned by two kinds of evidence that agree."""
        return (
            bool(self.facts.seen)
            and self.spine is not None
            and self.counted > 0
            and self.kinds >= KINDS_TO_TUNE
            and not self.contradicts
            and tuned(self.spine)
        )

    @lazy
    def nock_tuned(self) -> bool:
        return self.upright is not None and self.looked_up and tuned(self.upright)

    @lazy
    def tuning(self) -> Tuning | None:
        """What this rig's own flight says of its match; None without the shafts' spine."""
        model = self.arrow.model
        if self.spine is None or self.own_lbf is None or model is None or model.matched is None:
            return None
        return tuning(self.spine, self.own_lbf, model.matched)

    @property
    def kept(self) -> bool:
        """True where what is believed of these arrows is in the log already."""
        own = [one for of, one in self.facts.tunings if of == self.own_set]
        return bool(own) and all(when(own[-1].entry) > one.at for one in self.log)

    @property
    def by_flight(self) -> bool:
        """True unless the archer said to use the computed match alone."""
        return self.facts.source is None or self.facts.source.reading.source == "flight"

    @lazy
    def match(self) -> SpineMatch | None:
        """The rig's match: where its flight put it, once that may be said, else the computed."""
        model = self.arrow.model
        if model is None or model.matched is None or not self.by_flight:
            return model
        if not self.facts.seen and not self.tunings:
            return model
        if self.tuned and self.tuning is not None:
            found, band = self.tuning.matched, self.tuning.band
        elif self.tunings:
            prior = rig_prior(0.0, self.tunings)
            found = model.matched * math.exp(-prior.centre / 10)
            band = 2 * prior.sd / 10
        else:
            return model
        low, high = found * math.exp(-band), found * math.exp(band)
        return replace(model, matched=found, low=low, high=high)

    @lazy
    def corrections(self) -> tuple[float | None, float | None]:
        """The shifts of spine and nock that are due, None where none is."""
        if self.axes is None or not self.counted or self.contradicts:
            return None, None
        spine, upright = self.axes
        known = self.verdict not in ("unsure", "contradict", None)
        across = wanted(spine) if known and not self.tuned else None
        return across, wanted(upright) if self.looked_up and not self.nock_tuned else None

    @lazy
    def offered(self) -> tuple[FlightTest, ...]:
        """The tests this rig can do."""
        kit = self.facts.kit
        bare = kit is None or kit.bare_shafts is not False
        longest = kit.longest_m if kit and kit.longest_m else 100.0
        plain = [
            test for test in PLAIN_TESTS
            if test.distance_m <= longest and (bare or test.sees != "bare")
        ]  # fmt: skip
        if self.reckoned is None:
            return tuple(plain)
        pushes = [
            pushed_test(one.what, push_of(self.reckoned, one, self.own_lbf, self.tip_gr))
            for one in self.trials
            if one.what != "nock"
        ]
        nock = [Change(what="nock", amount=3.0)] if self.looked_up else []
        return (*plain, *pushes, *(pushed_test("nock", upright_push(one)) for one in nock))

    @lazy
    def trials(self) -> tuple[Change, ...]:
        """What can be changed for a trial on this rig, never past the bow's limit."""
        found = [Change(what="draw_short", amount=25.4)]
        limit = self.bow_facts.draw_limit
        drawn = self.drawn_mm
        if limit and drawn is not None and within(drawn + 12.7, 0.0, limit.reading.draw_length_mm):
            found.append(Change(what="draw_extra", amount=12.7))
        silencers = self.string.part("silencers_gr") or 0.0
        found.append(Change(what="silencers", amount=-silencers if silencers else 20.0))
        if self.nock.kit != "plain":
            found.append(Change(what="plate", amount=2.0))
        other = self.facts.kit.other_shafts_lbf if self.facts.kit else None
        if other and self.own_lbf and abs(math.log(other / self.own_lbf)) > 0.05:
            found.append(Change(what="other_shafts", amount=other))
        if self.looked_up:
            found.append(Change(what="nock", amount=3.0))
        return tuple(found)

    @lazy
    def ranked(self) -> tuple[Worth, ...]:
        """The tests worth shooting, the best first."""
        if self.sitting is None or self.start is None:
            return ()
        return _ranked(self.start, self.steps, self.sitting.done, self.looked_up, self.offered)

    @property
    def best(self) -> Mapping[str, tuple[Class, float]]:
        """The likeliest class of each axis and its chance."""
        if self.axes is None:
            return {}
        return {axis.name: surest(axis) for axis in self.axes}


@lru_cache(maxsize=64)
def _ranked(
    start: Start,
    steps: tuple[Step, ...],
    done: tuple[FlightTest, ...],
    upright: bool,
    offered: tuple[FlightTest, ...],
) -> tuple[Worth, ...]:
    sitting = sitting_of(believed(start, steps), done, upright=upright)
    return tuple(ranked(sitting, offered, start.noise))


def _within(value: float, most: float) -> float:
    return max(-most, min(most, value))


def _changed(one: Recorded[Any], step: Shifted) -> Entry:
    return Entry(when(one.entry), step, entry_id=one.entry.id)


def numbers(
    facts: FlightFacts,
    *,
    archer: ArcherFacts,
    bow_facts: BowFacts,
    string: StringFacts,
    arrows: ArrowFacts,
    arrow: ArrowNumbers,
    nock: NockNumbers,
    heights: tuple[Recorded[NockHeight], ...],
    drawn_mm: float | None,
    own_set: str | None,
    reckoner: Reckoner = reckon,
) -> FlightNumbers:
    """Return the numbers of the flight."""
    return FlightNumbers(
        facts, archer, bow_facts, string, arrows, arrow, nock, heights, drawn_mm, own_set,
        reckoner,
    )  # fmt: skip
