"""What is seen of arrows in the air and in the butt, and what was changed to see it.

Seen from behind the shooter: + is right, + is high. Lengths in mm, distances in metres, masses in
grains. What was seen is recorded, never what it means.
"""

from collections.abc import Iterable
from typing import Annotated, Any, Literal, NamedTuple

from pydantic import Field, ValidationInfo, model_validator

from lyrandis.core import quantities as q
from lyrandis.core.errors import DomainError
from lyrandis.core.flight.words import (
    CARE_WORDS,
    MATCH_FROM_WORDS,
    PUSHED_WORDS,
    Care,
    MatchFrom,
    Pushed,
)
from lyrandis.core.phrase import Figure, Phrase, gr, mm, phrase, spine
from lyrandis.core.quantities import PLAUSIBLE, Quantity, believable
from lyrandis.core.reading import BaseReading, Frozen, PartKind, require_something

ALL_PARTS: frozenset[PartKind] = frozenset({"archer", "bow", "string", "arrow_set"})
NEAREST_M, FURTHEST_M = 0.5, 100.0
MOST_HITS = 24


DistanceM = Annotated[float, Quantity("shooting_distance")]
Arrows = Annotated[int, Quantity("arrows_shot")]
Grade = Annotated[int, Quantity("grade")]
GRADE_WORDS = ("straight", "slightly", "clearly", "strongly")


class Change(Frozen):
    """What is changed for a trial, and by how much.

    Draws in mm short or extra; brace and nock in mm, + up; plate in mm, + out; silencers and point
    in grains, + more; other shafts by their spine in pounds.
    """

    what: Pushed
    amount: float

    @model_validator(mode="after")
    def _believable(self, info: ValidationInfo) -> "Change":
        key = f"{self.what}_by"
        limits = PLAUSIBLE[key]
        if self.amount == 0 or not limits.held_ever(self.amount):
            raise DomainError(
                "out_of_range",
                f"{self.amount:g} is no amount for a trial with {PUSHED_WORDS[self.what]}.",
                f"Give {limits.low:g} to {limits.high:g}, and not nought.",
                "amount",
            )
        believable(key, self.amount, info.context)
        return self

    def say(self) -> Phrase:
        """Return the change in words.

        >>> Change(what="draw_short", amount=25.4).say().text()
        'drawn 1 in short'
        """
        more = self.amount > 0
        size = abs(self.amount)
        match self.what:
            case "draw_short":
                return phrase("drawn {by} short", by=mm(size))
            case "draw_extra":
                return phrase("drawn {by} extra", by=mm(size))
            case "silencers":
                return phrase(f"silencers, {{by}} {'on' if more else 'off'}", by=gr(size))
            case "plate":
                return phrase(f"plate {size:g} mm {'further out' if more else 'further in'}")
            case "point":
                return phrase(f"point {{by}} {'heavier' if more else 'lighter'}", by=gr(size))
            case "brace":
                return phrase(f"brace {{by}} {'higher' if more else 'lower'}", by=mm(size))
            case "other_shafts":
                return phrase("shafts of {by}", by=spine(size))
            case "nock":
                return phrase(f"nock {size:g} mm {'higher' if more else 'lower'}")


def _with(trial: Change | None, said: str, **figures: Figure) -> Phrase:
    """Return a sentence with what was changed for it behind."""
    if trial is None:
        return phrase(said, **figures)
    changed = trial.say()
    return phrase(f"{said}; {changed.template}", **figures, **changed.figures)


def metres(distance_m: float) -> str:
    """Return a distance in metres, as far as anybody paces it.

    >>> metres(2.286), metres(18.0)
    ('2.3 m', '18 m')
    """
    return f"{round(distance_m, 1):g} m"


def _aside(grade: int | None, off_mm: float | None, ways: tuple[str, str]) -> str:
    """Return which way the nock points, in words or millimetres."""
    if off_mm is not None:
        way = ways[0] if off_mm > 0 else ways[1]
        return "straight" if off_mm == 0 else f"{abs(off_mm):.0f} mm {way}"
    assert grade is not None
    return GRADE_WORDS[abs(grade)] + ("" if grade == 0 else f" {ways[grade < 0]}")


class TailSeen(BaseReading):
    """Which way the nocks of an end point back, seen from behind the shooter.

    Across, + is right; up, + is high: in mm at the nock, or as nothing, slight, clear or strong.
    What is left out was not looked at.
    """

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = ALL_PARTS
    kind: Literal["tail_seen"] = "tail_seen"
    across: Grade | None = None
    across_mm: q.TailAside | None = None
    up: Grade | None = None
    up_mm: q.TailAside | None = None
    distance_m: DistanceM
    arrows: Arrows = 3
    bare: bool = False
    trial: Change | None = None

    @model_validator(mode="after")
    def _one_way(self) -> "TailSeen":
        for name in ("across", "up"):
            if getattr(self, name) is not None and getattr(self, f"{name}_mm") is not None:
                raise DomainError(
                    "twice", "The tail is given twice.", "Give millimetres or a word.", name
                )
        if {self.across, self.across_mm, self.up, self.up_mm} == {None}:
            raise DomainError(
                "nothing_given",
                "Which way the tail points is missing.",
                "Say straight, left or right, high or low.",
                "across",
            )
        return self

    def say(self) -> Phrase:
        parts = []
        for name, ways in (("across", ("right", "left")), ("up", ("high", "low"))):
            grade, off = getattr(self, name), getattr(self, f"{name}_mm")
            if grade is None and off is None:
                continue
            said = _aside(grade, off, ways)
            parts.append("level" if name == "up" and said == "straight" else said)
        which = "bare " if self.bare else ""
        return _with(
            self.trial,
            f"Tail {' and '.join(parts)}: {self.arrows} {which}"
            f"arrow{'' if self.arrows == 1 else 's'} at {metres(self.distance_m)}",
        )


class Hit(Frozen):
    """Where one arrow struck, from the aim."""

    right_mm: q.HitAside
    up_mm: q.HitAside
    bare: bool = False
    arrow_number: Annotated[int, Quantity("arrow_number")] | None = None


class Apart(NamedTuple):
    """The middle of the bare hits less that of the fletched ones."""

    right_mm: float
    up_mm: float
    arrows: float


def apart_of(hits: Iterable[Hit]) -> Apart | None:
    """Return how far bare hits lie from fletched ones; None without both.

    Source: difference of means; the harmonic mean of their numbers.

    >>> hits = [Hit(right_mm=0, up_mm=0), Hit(right_mm=-30, up_mm=10, bare=True)]
    >>> apart_of(hits)
    Apart(right_mm=-30.0, up_mm=10.0, arrows=1.0)
    """
    result = list(hits)
    bare, fletched = [h for h in result if h.bare], [h for h in result if not h.bare]
    if not bare or not fletched:
        return None
    right, up = (
        sum(getattr(h, name) for h in bare) / len(bare)
        - sum(getattr(h, name) for h in fletched) / len(fletched)
        for name in ("right_mm", "up_mm")
    )
    return Apart(right, up, 2 / (1 / len(bare) + 1 / len(fletched)))


ON_AIM_MM = 10.0
"""Within a centimetre nobody says that bare shafts struck aside."""


class ButtHits(BaseReading):
    """An end in the butt: where each arrow struck, fletched and bare."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = ALL_PARTS
    kind: Literal["butt_hits"] = "butt_hits"
    hits: Annotated[tuple[Hit, ...], Field(min_length=1, max_length=MOST_HITS)]
    distance_m: DistanceM
    trial: Change | None = None

    def say(self) -> Phrase:
        """Return what was shot and what it read.

        >>> hits = (Hit(right_mm=0, up_mm=0), Hit(right_mm=-203.2, up_mm=2, bare=True))
        >>> ButtHits(hits=hits, distance_m=18).say().text()
        '1 bare and 1 fletched at 18 m: bare 8 in left'
        """
        bare = sum(hit.bare for hit in self.hits)
        fletched = len(self.hits) - bare
        at = metres(self.distance_m)
        apart = apart_of(self.hits)
        if apart is None:
            n, kind = len(self.hits), "bare" if bare else "fletched"
            middle = [
                sum(getattr(h, name) for h in self.hits) / n for name in ("right_mm", "up_mm")
            ]
            said, figures = _off(middle[0], middle[1], "on the aim")
            return _with(self.trial, f"{n} {kind} at {at}: {said}", **figures)
        said, figures = _off(apart.right_mm, apart.up_mm, "with the others")
        return _with(
            self.trial, f"{bare} bare and {fletched} fletched at {at}: bare {said}", **figures
        )


def _off(right_mm: float, up_mm: float, none: str) -> tuple[str, dict[str, Figure]]:
    """Return how far aside and high something lies, in words with figures."""
    parts, figures = [], {}
    for name, value, ways in (
        ("across", right_mm, ("right", "left")),
        ("up", up_mm, ("high", "low")),
    ):
        if abs(value) >= ON_AIM_MM:
            parts.append(f"{{{name}}} {ways[value < 0]}")
            figures[name] = mm(abs(value))
    return ", ".join(parts) or none, figures


class BareApart(BaseReading):
    """How far the middle of bare shafts struck from that of fletched ones: + right, + high."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = ALL_PARTS
    kind: Literal["bare_apart"] = "bare_apart"
    right_mm: q.HitAside | None = None
    up_mm: q.HitAside | None = None
    distance_m: DistanceM
    bare: Arrows = 3
    fletched: Arrows = 3
    trial: Change | None = None

    @model_validator(mode="after")
    def _something(self) -> "BareApart":
        if self.right_mm is None and self.up_mm is None:
            raise DomainError(
                "nothing_given",
                "Where the bare shafts struck is missing.",
                "Say how far left or right, high or low of the fletched ones.",
                "right_mm",
            )
        return self

    def say(self) -> Phrase:
        parts, figures = [], {}
        for name, value, ways in (
            ("across", self.right_mm, ("right", "left")),
            ("up", self.up_mm, ("high", "low")),
        ):
            if value is not None:
                parts.append(f"{{{name}}} {ways[value < 0]}" if value else "level")
                figures[name] = mm(abs(value))
        shafts = f"{self.bare} bare and {self.fletched} fletched at {metres(self.distance_m)}"
        return _with(self.trial, f"Bare shafts {', '.join(parts)}: {shafts}", **figures)


class PlateMarked(BaseReading):
    """Whether felt or powder at the side plate shows a mark after a few shots."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = ALL_PARTS
    kind: Literal["plate_marked"] = "plate_marked"
    mark: bool
    shots: Arrows = 6
    trial: Change | None = None

    def say(self) -> Phrase:
        result = "Mark" if self.mark else "No mark"
        return _with(self.trial, f"{result} on the side plate after {self.shots} shots")


class SlapHeard(BaseReading):
    """Whether the shaft was heard slapping the bow."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = ALL_PARTS
    kind: Literal["slap_heard"] = "slap_heard"
    heard: bool
    trial: Change | None = None

    def say(self) -> Phrase:
        return _with(self.trial, "A slap heard" if self.heard else "No slap heard")


class FeathersSeen(BaseReading):
    """Whether feathers are rubbed at their base."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = ALL_PARTS
    kind: Literal["feathers_seen"] = "feathers_seen"
    rubbed: bool

    def say(self) -> Phrase:
        return phrase("Feathers rubbed at the base" if self.rubbed else "Feathers clean")


class ColumnMark(Frozen):
    """Where the middle of an end struck at one distance of a walk-back, + right of the aim."""

    distance_m: DistanceM
    right_mm: q.HitAside


class WalkedBack(BaseReading):
    """The same aim from growing distances: where each end struck aside."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = ALL_PARTS
    kind: Literal["walked_back"] = "walked_back"
    marks: Annotated[tuple[ColumnMark, ...], Field(min_length=2, max_length=12)]

    @model_validator(mode="after")
    def _apart(self) -> "WalkedBack":
        if len({mark.distance_m for mark in self.marks}) < 2:
            raise DomainError(
                "too_few",
                "All at one distance: that is no column.",
                "Give two distances at least.",
                "marks",
            )
        return self

    @property
    def drift_mm(self) -> float:
        """Drift to the right over ten metres, by least squares."""
        d = [mark.distance_m for mark in self.marks]
        x = [mark.right_mm for mark in self.marks]
        middle, centre = sum(d) / len(d), sum(x) / len(x)
        across = sum((a - middle) * (b - centre) for a, b in zip(d, x, strict=True))
        return 10 * across / sum((a - middle) ** 2 for a in d)

    def say(self) -> Phrase:
        nearest, furthest = (f(mark.distance_m for mark in self.marks) for f in (min, max))
        span = f"from {metres(nearest)} to {metres(furthest)}"
        drift = self.drift_mm
        if abs(drift) < 1:
            return phrase(f"Walk-back {span}: no drift")
        way = "right" if drift > 0 else "left"
        return phrase(f"Walk-back {span}: {{drift}} {way} in 10 m", drift=mm(abs(drift)))


class TrialSet(BaseReading):
    """What is changed for a trial; without a change, everything is put back."""

    of = frozenset({"rig"})
    needs = ALL_PARTS
    kind: Literal["trial_set"] = "trial_set"
    trial: Change | None = None

    def say(self) -> Phrase:
        if self.trial is None:
            return phrase("Trial over: put back as it was")
        changed = self.trial.say()
        return phrase(f"Trial: {changed.template}", **changed.figures)


def _care_in_plain_words(old: dict[str, Any]) -> dict[str, Any]:
    plain = {"kind": "steady", "careless": "beginning"}
    return {**old, "care": plain.get(str(old.get("care")), old.get("care"))}


class ShotCare(BaseReading):
    """How well the archer shoots and sees, until their own groups say it."""

    of = frozenset({"archer", "rig"})
    needs = frozenset({"archer"})
    upcasts = (_care_in_plain_words,)
    kind: Literal["shot_care"] = "shot_care"
    care: Care

    def say(self) -> Phrase:
        return phrase(f"Shooting: {CARE_WORDS[self.care]}")


class FlightKit(BaseReading):
    """What is at hand for tests; what is left out stays as it was."""

    of = frozenset({"rig"})
    needs = frozenset({"arrow_set"})
    merges = True
    kind: Literal["flight_kit"] = "flight_kit"
    bare_shafts: bool | None = None
    """Whether there are unfletched shafts of this set."""
    longest_m: DistanceM | None = None
    """The furthest that can be shot."""
    other_shafts_lbf: q.SpineLbf | None = None
    """Spine of other shafts to hand, to borrow for a trial."""
    felt: bool | None = None
    """Whether there is felt or powder to see where the tail strikes."""

    @model_validator(mode="after")
    def _something(self) -> "FlightKit":
        return require_something(self, "bare_shafts")

    def say(self) -> Phrase:
        parts = []
        if self.bare_shafts is not None:
            parts.append("bare shafts of this set" if self.bare_shafts else "no bare shafts")
        if self.longest_m is not None:
            parts.append(f"up to {metres(self.longest_m)}")
        if self.other_shafts_lbf is not None:
            parts.append("shafts of {other} to borrow")
        if self.felt is not None:
            parts.append("felt or powder" if self.felt else "no felt")
        said = "To hand: " + ", ".join(parts)
        return phrase(said, other=spine(self.other_shafts_lbf or 50.0))


class MatchSource(BaseReading):
    """Whether the match is what this rig's flight says, or the computed one alone."""

    of = frozenset({"rig"})
    needs = frozenset({"bow"})
    kind: Literal["match_source"] = "match_source"
    source: MatchFrom

    def say(self) -> Phrase:
        return phrase(f"Match: {MATCH_FROM_WORDS[self.source]}")


class SittingEnded(BaseReading):
    """The archer goes on another day: what was seen counts, the next sitting begins afresh."""

    of = frozenset({"rig"})
    settles = False
    needs = ALL_PARTS
    kind: Literal["sitting_ended"] = "sitting_ended"
    anew: bool = False
    """True where what was seen before no longer counts: something changed, nobody knows what."""

    def say(self) -> Phrase:
        if self.anew:
            return phrase("Flight: begun anew, what was seen before counts no more")
        return phrase("Flight: to go on another day")


class KeptSettings(Frozen):
    """How the rig stood when its tuning was kept; None where nobody had told it."""

    brace_mm: q.BraceHeightMm | None = None
    lift_mm: q.NockHeightMm | None = None
    window_mm: q.Window | None = None
    silencers_gr: q.PartMass | None = None
    point_gr: q.PartMass | None = None
    shaft_length_mm: q.ShaftLength | None = None
    spine_lbf: q.SpineLbf | None = None


class RigTuned(BaseReading):
    """What a finished tuning says of bow and archer: kept, it counts for other arrows too.

    `offset` is 10 ln(computed match / own match), `sd` its standard deviation.
    """

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = frozenset({"archer", "bow"})
    kind: Literal["rig_tuned"] = "rig_tuned"
    matched_lbf: q.SpineLbf
    model_lbf: q.SpineLbf
    offset: Annotated[float, Quantity("index")]
    sd: Annotated[float, Quantity("index_sd")]
    tuned: bool = True
    """False where it was kept as near as this bow can be told."""
    settings: KeptSettings | None = None
    """None in what was kept before settings went with it."""

    def say(self) -> Phrase:
        kept = "Tuned" if self.tuned else "Kept as near as can be told"
        return phrase(
            f"{kept}: this rig wants {{matched}}; the schools alone said {{model}}",
            matched=spine(self.matched_lbf, 2 * self.sd / 10 * self.matched_lbf),
            model=spine(self.model_lbf),
        )


FlightReading = (
    TailSeen
    | ButtHits
    | BareApart
    | PlateMarked
    | SlapHeard
    | FeathersSeen
    | WalkedBack
    | TrialSet
    | ShotCare
    | FlightKit
    | MatchSource
    | SittingEnded
    | RigTuned
)
