"""The nock on the page: its lift and what it stands on, with the stage's mark."""

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed
from lyrandis.core.nock.words import BOW_KIT_WORDS
from lyrandis.core.phrase import Phrase, gap, phrase
from lyrandis.core.stage_spec import plain_ask

CAUTIONS = (
    j.Caution(
        id="off-the-hand",
        text="Shooting off the hand: feather ends smooth and bound. A lifted quill can be driven "
        "into it.",
    ),
    j.Caution(
        id="misadjusted",
        text="A misadjusted arrow goes anywhere: a clear range behind and beside the butt, near "
        "shots first.",
    ),
)


def stage(c: Computed, findings: list[j.Finding]) -> j.Standing:
    """Return the nock's stage."""
    lift = _lift_value(c)
    return j.Standing(
        mark=_mark(c),
        headline=lift.key,
        detail=_detail(c),
        answer=_answer(c),
        moved=next((f.sentence for f in findings if f.severity == "stop"), None),
        values=(lift, *_values(c)),
        cautions=CAUTIONS,
    )


def _mark(c: Computed) -> j.Mark:
    if c.nock.lift is None:
        return "unset"
    schools = c.nock.schools
    result = c.nock.fixed or schools.bare is not None or schools.clean is not None
    return "settled" if result else "estimated"


def _answer(c: Computed) -> Phrase:
    lift = c.nock.lift
    if lift is None:
        return phrase("The nock is not set with this string yet.")
    stands = "and is fixed" if c.nock.fixed else "and is free to move"
    where = "over" if lift.value >= 0 else "under"
    return phrase(f"The arrow lies {{lift}} {where} square, {stands}.", lift=gap(abs(lift.value)))


def _detail(c: Computed) -> Phrase | None:
    if c.nock.lift is None:
        return None
    return phrase("fixed" if c.nock.fixed else "free to move")


def _lift_value(c: Computed) -> j.Value:
    lift, read = c.nock.lift, c.setup.nock.height
    if lift is None or read is None:
        return j.Value(key="lift", label="Lift", missing="Not set with this string yet")
    return j.Value(
        key="lift",
        label="Lift",
        figure=gap(lift.value, lift.plus_minus),
        origin=read.source,
        entries=(read.entry.id,),
    )


def _values(c: Computed) -> list[j.Value]:
    nock, facts = c.nock, c.setup.nock
    kit = facts.kit
    tiller = nock.tiller
    read = facts.tiller
    values = [
        j.Value(
            key="tiller",
            label="Tiller",
            figure=gap(tiller.value, tiller.plus_minus) if tiller else None,
            origin=read.source if read else None,
            entries=(read.entry.id,) if read else (),
            missing=None if tiller else "Not measured yet",
        ),
        j.Value(
            key="arrow_nock",
            label="Arrow's nock",
            figure=gap(nock.arrow_nock.value, nock.arrow_nock.plus_minus),
            origin="measured" if facts.arrow_nock else "estimated",
        ),
        j.Value(
            key="kit",
            label="What can be set",
            text=BOW_KIT_WORDS[nock.kit],
            choice=nock.kit,
            origin=kit.source if kit else "estimated",
            entries=(kit.entry.id,) if kit else (),
        ),
    ]
    crawl = facts.crawl
    values.append(
        j.Value(
            key="usual_crawl",
            label="Usual crawl",
            figure=gap(crawl.reading.crawl_mm) if crawl else None,
            origin=crawl.source if crawl else None,
            entries=(crawl.entry.id,) if crawl else (),
            missing=None if crawl else "Not told: no crawl taken",
        )
    )
    return values


def unchecked(c: Computed) -> tuple[j.Unchecked, ...]:
    """Return whether the nock is set: a first shot wants a starting height."""
    if c.setup.nock.height is not None:
        return ()
    step = None
    if c.setup.bow.family is not None and c.string.brace is not None:
        start = c.nock.start
        step = j.NextStep(
            title=phrase("Tie on a starting nock"),
            why=phrase(
                "{start} above square is where most begin: a nock too low bounces off the rest.",
                start=gap(start.lift_mm),
            ),
            tells=phrase(""),
            minutes=3,
            action=j.Action(label="Enter the nock height", stage="nock", control="height"),
            aside="nock",
        )
    return (j.Unchecked(what=phrase("the nock height"), step=step, turn=5),)


def missing(_: Computed) -> j.NextStep | None:
    """The nock is asked for by the order of work."""
    return None


ASKS = (
    plain_ask(
        10,
        lambda setup: setup.nock.kit is None and setup.bow.family is not None,
        "Say what can be set on the bow",
        "It picks the order of work: plain bows have a short one.",
        "nock",
        "kit",
    ),
)
