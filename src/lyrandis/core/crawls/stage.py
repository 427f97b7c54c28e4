"""Crawls on the page: how good the table is, point-on, and what to shoot next."""

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed
from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.readings import said_distance
from lyrandis.core.crawls.rules import SHOOT
from lyrandis.core.crawls.words import NOTATION_WORDS
from lyrandis.core.phrase import Figure, Phrase, gap, mps, phrase
from lyrandis.core.setup import Setup
from lyrandis.core.stage_spec import Ask

SETTLED_MM = 3.0
ROUND_M = 5.0

CAUTIONS = (
    j.Caution(
        id="crawl-range",
        text="Crawl with a clear butt and backstop: a wrong crawl goes over it. Begin far and work "
        "inward, high asks for more crawl.",
    ),
    j.Caution(
        id="crawl-hand",
        text="A deep crawl pulls the lower limb. Stop at noise, pain or a limb that twists.",
    ),
)


def applies(setup: Setup) -> bool:
    """Tell whether somebody walks the string of this rig, or has begun to.

    >>> from lyrandis.core.example import setup
    >>> applies(setup()), applies(setup(["crawl 20m 34mm"]))
    (False, True)
    """
    facts = setup.crawls
    return bool(
        setup.nock.crawl_mm > 0
        or facts.marks
        or facts.elsewhere
        or facts.tab
        or facts.finger
        or facts.habit
    )


def stage(c: Computed, _: list[j.Finding]) -> j.Standing:
    """Return the stage of the crawls."""
    values = _values(c)
    return j.Standing(
        mark=_mark(c),
        headline=values[0].key,
        detail=_detail(c),
        answer=_answer(c),
        values=tuple(values),
        cautions=CAUTIONS,
    )


def _mark(c: Computed) -> j.Mark:
    half = c.crawls.table.half_mm
    if half is None or not c.crawls.marks.counting:
        return "unset"
    if c.crawls.marks.odd is not None and c.crawls.marks.dropped is None:
        return "in_doubt"
    return "settled" if half <= SETTLED_MM else "estimated"


def _answer(c: Computed) -> Phrase:
    on = _point_on(c)
    count = len(c.crawls.marks.counting)
    if on.text is None:
        return phrase("There is no table of crawls yet.")
    half = c.crawls.table.half_mm
    good = "" if half is None else f"; by {count} marks the table is good to {half:.0f} mm"
    return phrase(f"Point-on is at {on.text}{good if count else ', from the rig alone'}.")


def _detail(c: Computed) -> Phrase | None:
    count = len(c.crawls.marks.counting)
    if not count:
        return None
    half = c.crawls.table.half_mm
    if half is None:
        return phrase(f"{count} mark{'' if count == 1 else 's'}")
    return phrase(f"{count} mark{'' if count == 1 else 's'}, ± {half:.0f} mm")


def distance_told(c: Computed, metres: float) -> str:
    """Return a distance in the unit the archer's crawls are told in.

    >>> from lyrandis.core.example import rig
    >>> distance_told(rig(["crawl 20yd 34mm"]), 18.288)
    '20 yd'
    """
    return said_distance(metres, c.crawls.basis.unit)


def _point_on(c: Computed) -> j.Value:
    label = "Point-on"
    if c.crawls.basis.lacks:
        return j.Value(key="point_on", label=label, missing=f"Needs {c.crawls.basis.lacks[0]}")
    on = c.crawls.marks.fit.point_on if c.crawls.marks.fit else None
    if on is None:
        return j.Value(key="point_on", label=label, missing="Beyond 120 m or under 2 m")
    per = M_PER_YD if c.crawls.basis.unit == "yd" else 1.0
    assert c.crawls.marks.fit is not None
    half = c.crawls.marks.fit.factor * on.sd / per
    return j.Value(
        key="point_on",
        label=label,
        text=f"{on.value / per:.0f} ± {max(half, 0.5):.0f} {c.crawls.basis.unit}",
        origin="measured" if c.crawls.marks.counting else "estimated",
        entries=tuple(mark.recorded.entry.id for mark in c.crawls.marks.counting),
    )


def _eye(c: Computed) -> Figure:
    """Return the eye's height before any mark of these arrows."""
    prior, kappa = c.crawls.marks.prior, c.crawls.basis.kappa.value
    eye = c.crawls.basis.eye
    if prior is None:
        return gap(eye.value, eye.plus_minus)
    return gap(prior.eye.value * kappa, 2 * prior.eye.sd * kappa)


def _plain(key: str, label: str, figure: Figure | None, missing: str, origin: j.Origin) -> j.Value:
    if figure is None:
        return j.Value(key=key, label=label, missing=missing)
    return j.Value(key=key, label=label, figure=figure, origin=origin)


def _values(c: Computed) -> list[j.Value]:
    basis, table = c.crawls.basis, c.crawls.table
    own = table.own_sight if c.crawls.marks.counting else None
    stitch = basis.stitch
    return [
        _point_on(c),
        _plain("table_half", "The table is good to",
               gap(table.half_mm) if table.half_mm else None, "No table yet", "estimated"),
        _plain("crawl_speed", "Speed by the crawls", mps(own.speed_mps) if own else None,
               "Needs a crawl", "measured"),
        _plain("crawl_eye", "Eye over the nock", gap(own.eye_mm) if own else _eye(c), "",
               "estimated"),
        _plain("finger", "A finger", gap(basis.finger.value, basis.finger.plus_minus), "",
               "measured" if basis.facts.finger else "estimated"),
        _plain("stitch", "A stitch", gap(stitch.value) if stitch else None,
               "Measure ten stitches of the tab", "measured"),
        j.Value(key="notation", label="Counted in", text=NOTATION_WORDS[basis.notation],
                choice=basis.notation, origin="told" if basis.facts.habit else "estimated"),
    ]  # fmt: skip


def missing(_: Computed) -> j.NextStep | None:
    """Nothing of a crawl is missing to shoot."""
    return None


def _shoot_step(c: Computed) -> j.NextStep | None:
    result = c.crawls.table.next
    if result is None or not c.crawls.basis.walks:
        return None
    at = distance_told(c, result.distance_m)
    row = c.crawls.marks.fit.table([result.distance_m])[0] if c.crawls.marks.fit else None
    why = "It tells most of the whole table."
    figures = {}
    if row is not None and row.crawl_mm > 0:
        why = "Begin with a crawl of {crawl}; it tells most of the whole table."
        figures = {"crawl": gap(row.crawl_mm)}
    return j.NextStep(
        title=phrase(f"Shoot {at} next"),
        why=phrase(why, **figures),
        tells=phrase(
            "The table is good to {before} now, to {after} after.",
            before=gap(result.before_mm), after=gap(result.after_mm),
        ),
        minutes=8,
        action=SHOOT,
    )  # fmt: skip


ASKS = (Ask(25, _shoot_step),)
