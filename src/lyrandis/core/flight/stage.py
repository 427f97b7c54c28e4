"""The flight on the page: what it says of shaft and nock, the mark, and the next thing to shoot."""

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed
from lyrandis.core.flight.choose import FlightTest
from lyrandis.core.flight.correct import levers_of
from lyrandis.core.flight.readings import Change
from lyrandis.core.flight.rules import CORRECT, EVIDENCE, HITS, RECORD
from lyrandis.core.flight.say import cause_word, put_back, sure_word, test_act, test_how, trial_act
from lyrandis.core.flight.words import CARE_WORDS, MATCH_FROM_WORDS, AxisName, Class, Doubtful
from lyrandis.core.phrase import Phrase, percent, phrase
from lyrandis.core.stage_spec import Ask

CAUTIONS = (
    j.Caution(
        id="bare-shafts",
        text="Bare and badly matched shafts go anywhere: a clear backstop, nobody near the butt, "
        "eye protection with untried arrows.",
    ),
    j.Caution(
        id="never-down",
        text="Butt at chest height: shooting down shortens the draw. Never draw past the bow's "
        "limit, for a trial neither.",
    ),
)
WORTH_A_STEP = 0.75
"""A nock that is a millimetre and a half off is worth a step of its own; less is listed only."""
NO_SHOT = "No shot seen yet"


def stage(c: Computed, findings: list[j.Finding]) -> j.Standing:
    """Return the flight's stage."""
    odd = next((f.sentence for f in findings if f.id == "flight-contradict"), None)
    return j.Standing(
        mark=_mark(c),
        headline="verdict",
        detail=_detail(c),
        moved=odd,
        reason=phrase("readings differ") if odd else None,
        values=tuple(_values(c)),
        cautions=CAUTIONS,
    )


def _mark(c: Computed) -> j.Mark:
    if not c.flight.facts.seen:
        return "unset"
    if c.flight.verdict.contradicts:
        return "in_doubt"
    return "settled" if c.flight.verdict.tuned else "estimated"


def _detail(c: Computed) -> Phrase | None:
    n = len(c.flight.facts.seen)
    if not n:
        return None
    if c.flight.basis.waiting:
        return phrase("being reckoned")
    return phrase("1 reading" if n == 1 else f"{n} readings")


def said(axis: AxisName, verdict: Class | Doubtful | None) -> str:
    """Return what may be said, in a word or two.

    Source: words of the trade.

    >>> said("spine", "unsure"), said("spine", "false_weak"), said("upright", "stiff")
    ('not said yet', 'false weak', 'too low')
    """
    if verdict is None or verdict == "unsure" or verdict == "contradict":
        return "not said yet"
    return cause_word(axis, verdict)


def _word(c: Computed) -> str:
    """Return how the shaft stands in a word: plainly tuned only where the nock is right too."""
    if c.flight.verdict.tuned:
        return "tuned" if c.flight.verdict.nock_tuned else "shaft tuned"
    return said("spine", c.flight.verdict.shaft)


def _values(c: Computed) -> list[j.Value]:
    flight, facts = c.flight, c.flight.facts
    seen = tuple(sighting.entry.id for sighting in facts.seen)
    if not facts.seen:
        verdict = j.Value(key="verdict", label="The shaft", missing=NO_SHOT)
    else:
        verdict = j.Value(
            key="verdict",
            label="The shaft",
            text=_word(c),
            choice=flight.verdict.shaft,
            origin="measured",
            entries=seen,
        )
    values = [verdict]
    if facts.seen and flight.belief.spine is not None:
        cause, chance = flight.verdict.best(flight.belief)["spine"]
        values.append(
            j.Value(
                key="likeliest",
                label="Likeliest",
                figure=percent(chance),
                text=None,
                detail=phrase(f"{cause_word('spine', cause)}, {sure_word(chance)}"),
                origin="measured",
            )
        )
        values.append(
            j.Value(
                key="nock_verdict",
                label="The nock",
                text=said("upright", flight.verdict.nock) if flight.belief.looked_up else None,
                missing=None if flight.belief.looked_up else "High or low not looked at yet",
                origin="measured" if flight.belief.looked_up else None,
            )
        )
    care, source = facts.care, facts.source
    values += [
        j.Value(
            key="care",
            label="Your shooting",
            text=CARE_WORDS[flight.basis.care],
            choice=flight.basis.care,
            origin=care.source if care else "estimated",
            entries=(care.entry.id,) if care else (),
        ),
        j.Value(
            key="match_source",
            label="The match is",
            text=MATCH_FROM_WORDS[source.reading.source if source else "flight"],
            choice=source.reading.source if source else "flight",
            origin=source.source if source else "rule",
            entries=(source.entry.id,) if source else (),
        ),
    ]
    if facts.trial is not None and facts.trial_set is not None:
        values.append(
            j.Value(
                key="trial",
                label="Trial",
                detail=facts.trial.say(),
                text="on",
                origin="told",
                entries=(facts.trial_set.entry.id,),
            )
        )
    return values


def missing(_: Computed) -> j.NextStep | None:
    """Nobody has to shoot for flight."""
    return None


def change_of(c: Computed, test: FlightTest) -> Change | None:
    """Return what is changed for a test, as this rig can.

    Source: `FlightNumbers.trials`.

    >>> from lyrandis.core.example import rig
    >>> from lyrandis.core.flight.choose import PLAIN_TESTS
    >>> change_of(rig(), PLAIN_TESTS[0]) is None
    True
    """
    return next((trial for trial in c.flight.tests.trials if trial.what == test.pushed), None)


def under_way(c: Computed) -> j.NextStep | None:
    """Return the next step while evidence is gathered: prove, correct, shoot, or keep."""
    if not c.flight.facts.seen:
        return None
    return (
        _odd_step(c)
        or _correction_step(c)
        or _test_step(c)
        or _keep_step(c)
    )  # fmt: skip


def left_changed(c: Computed) -> j.NextStep | None:
    """Return the step of a trial that is on: shoot it, or put it back."""
    trial = c.flight.facts.trial
    if trial is None:
        return None
    on = trial.say()
    begun = c.flight.facts.trial_set
    shot = [
        sighting for sighting in c.flight.facts.seen
        if getattr(sighting.reading, "trial", None) == trial and begun is not None
        and sighting.entry.happened_at >= begun.entry.happened_at
    ]  # fmt: skip
    if shot:
        return j.NextStep(
            title=phrase(put_back(trial).removesuffix(".").removesuffix(" after")),
            why=phrase(f"The trial is read: {on.template}.", **on.figures),
            tells=phrase("Until then what you see is recorded with it."),
            minutes=1,
            action=j.Action(label="It is put back", stage="flight", control="trial"),
            on_page=True,
        )
    return j.NextStep(
        title=trial_act(trial),
        why=phrase("Fletched arrows from 2.3 m, and record which way the nocks point."),
        tells=phrase("What it means is said once it is recorded, so that the eye stays honest."),
        minutes=3,
        action=RECORD,
        on_page=True,
    )


def _odd_step(c: Computed) -> j.NextStep | None:
    if c.flight.verdict.contradicts:
        return j.NextStep(
            title=phrase("Look what changed"),
            why=phrase("Readings that cannot all be so: a slipped nocking point, a crept string, "
                       "other arrows or another release between them."),
            tells=phrase("Take the odd reading back if it was misread, or shoot it again."),
            minutes=5,
            action=EVIDENCE,
        )  # fmt: skip
    odd = c.flight.verdict.surprising
    if odd is None or odd.seen is None:
        return None
    last = odd.seen.reading.say()
    return j.NextStep(
        title=phrase("Shoot it once more"),
        why=phrase(f"Nobody expected this: {last.template}.", **last.figures),
        tells=phrase("The same again, and it counts; otherwise take it back."),
        minutes=3,
        action=RECORD,
    )


def _correction_step(c: Computed) -> j.NextStep | None:
    enough = c.flight.belief.sitting is not None and not c.flight.tests.ranked
    lever = next((lever for lever in levers_of(c) if lever.first), None)
    if lever is None or not (enough or lever.axis == "upright"):
        return None
    if lever.axis == "upright" and abs(lever.by) < WORTH_A_STEP:
        return None
    title = lever.what
    if lever.trial is not None:
        title = phrase(f"Shoot three {lever.what.template[0].lower()}{lever.what.template[1:]}",
                       **lever.what.figures)  # fmt: skip
    why = "Enough is known. It is the way that is easiest to undo and reaches far enough."
    if lever.axis == "upright":
        why = "Bounces confuse every other reading, and the nock moves exactly and for nothing."
    if lever.trial is not None:
        why = "Borrow three, as long and with the same points. Buy none before they have flown."
    return j.NextStep(
        title=title,
        why=phrase(why),
        tells=phrase("What the next reading should be is said beforehand, and compared after."),
        minutes=lever.minutes,
        action=CORRECT,
    )


def _test_step(c: Computed) -> j.NextStep | None:
    if not c.flight.belief.counted or not c.flight.tests.ranked or c.flight.verdict.tuned:
        return None
    test = c.flight.tests.ranked[0].test
    change = change_of(c, test)
    return j.NextStep(
        title=test_act(test, change),
        why=test_how(test, change),
        tells=phrase("No other test tells as much for its trouble."),
        minutes=round(test.minutes),
        action=HITS if test.sees == "bare" else RECORD,
    )


def _keep_step(c: Computed) -> j.NextStep | None:
    if not c.flight.verdict.tuned or c.flight.match.tuning is None or c.flight.match.kept:
        return None
    return j.NextStep(
        title=phrase("Keep this tuning"),
        why=phrase("Shaft and rig agree. Kept, it stands for other arrows of this bow too."),
        tells=phrase("A last end at your own distance confirms it."),
        minutes=1,
        action=j.Action(label="See the tuning", stage="flight", control="after"),
    )


ASKS = (
    Ask(
        19,
        lambda c: (
            None
            if c.flight.facts.seen or c.flight.basis.asked is None
            else j.NextStep(
                title=phrase("Shoot three and look at the nocks"),
                why=phrase("At 2.3 m, a butt chest high: which way do the nocks point back?"),
                tells=phrase("It tells a weak shaft from a stiff one, with the tests that follow."),
                minutes=3,
                action=RECORD,
            )
        ),
    ),
)
