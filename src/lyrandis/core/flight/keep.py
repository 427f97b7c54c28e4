"""Keeping a tuning: every setting goes with it, and what differs since puts it in doubt."""

from lyrandis.core.flight.basis import Upstream
from lyrandis.core.flight.readings import KeptSettings, RigTuned
from lyrandis.core.flight.settle import Tuning
from lyrandis.core.phrase import Phrase, gap, gr, mm, phrase, spine

MOST_SD = 5.0
"""Of what may be kept: a match less sure than this is none."""
_SETTINGS = (
    ("brace_mm", "brace", 3.0, mm),
    ("lift_mm", "nock", 1.0, gap),
    ("window_mm", "plate", 0.5, gap),
    ("silencers_gr", "silencers", 5.0, gr),
    ("point_gr", "point", 3.0, gr),
    ("shaft_length_mm", "shafts", 3.0, mm),
    ("spine_lbf", "spine", 2.0, spine),
)
"""Assumption: from twice the error of reading it on, a setting is another."""


def settings_of(upstream: Upstream) -> KeptSettings:
    """Return how the rig stands now, as far as it is told.

    Source: definition.

    >>> from lyrandis.core.example import rig
    >>> settings_of(rig().flight.upstream).lift_mm is None
    True
    """
    braces, lift = upstream.string.braces, upstream.nock.lift
    return KeptSettings(
        brace_mm=braces[-1].reading.brace_height_mm if braces else None,
        lift_mm=round(lift.value, 2) if lift else None,
        window_mm=upstream.arrows.passing("window_mm")[0],
        silencers_gr=upstream.string.part("silencers_gr") or 0.0,
        point_gr=upstream.arrows.part("point_gr")[0],
        shaft_length_mm=upstream.arrows.part("shaft_length_mm")[0],
        spine_lbf=upstream.arrows.part("spine_lbf")[0],
    )


def kept_as(upstream: Upstream, tuning: Tuning, model_lbf: float, *, tuned: bool) -> RigTuned:
    """Return what keeping a tuning records: the match it says, and every setting.

    Source: definition.

    >>> from lyrandis.core.example import rig
    >>> found = kept_as(rig().flight.upstream, Tuning(54.0, 0.1, 1.0, 0.5), 60.0, tuned=True)
    >>> found.matched_lbf, found.tuned
    (54.0, True)
    """
    return RigTuned(
        matched_lbf=round(tuning.matched, 3),
        model_lbf=round(model_lbf, 3),
        offset=round(tuning.offset, 4),
        sd=round(min(tuning.sd, MOST_SD), 4),
        tuned=tuned,
        settings=settings_of(upstream),
    )


def differs(kept: RigTuned | None, now: KeptSettings) -> tuple[Phrase, ...]:
    """Return what differs from how the rig stood when its tuning was kept, one phrase each.

    Assumption: the least differences.

    >>> was = RigTuned(
    ...     matched_lbf=54, model_lbf=60, offset=1, sd=0.5,
    ...     settings=KeptSettings(brace_mm=190.5, point_gr=125),
    ... )
    >>> [one.text() for one in differs(was, KeptSettings(brace_mm=184.15, point_gr=150))]
    ['brace −1/4 in', 'point +25 gr']
    """
    if kept is None or kept.settings is None:
        return ()
    found = []
    for name, called, least, figure in _SETTINGS:
        before, after = getattr(kept.settings, name), getattr(now, name)
        if before is None or after is None or abs(after - before) < least:
            continue
        sign = "+" if after > before else "−"
        found.append(phrase(f"{called} {sign}{{by}}", by=figure(abs(after - before))))
    return tuple(found)
