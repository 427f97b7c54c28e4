"""What to do next while evidence is gathered: tell, prove, correct, shoot, keep. One policy.

The card, the page and the bench all take it from here.
"""

from lyrandis.core import judgement as j
from lyrandis.core.bench_readings import Retraction
from lyrandis.core.computed import Computed
from lyrandis.core.entries import Reading
from lyrandis.core.flight.basis import FlightNeed
from lyrandis.core.flight.choose import PLAIN_TESTS, FlightTest
from lyrandis.core.flight.correct import CorrectionLever, levers_of
from lyrandis.core.flight.history import LogLine
from lyrandis.core.flight.keep import kept_as
from lyrandis.core.flight.readings import Change, SittingEnded, TrialSet
from lyrandis.core.flight.rules import CORRECT, EVIDENCE, HITS, RECORD
from lyrandis.core.flight.say import put_back, test_act, test_how, trial_act
from lyrandis.core.phrase import Phrase, percent, phrase

SIGNS = j.Action(label="Record what you find", stage="flight", control="signs")
_NEEDS: dict[FlightNeed, tuple[str, str, j.Action]] = {
    "hand": (
        "Say which hand draws",
        "It says which side is which: without it left and right mean nothing.",
        j.Action(label="Say which hand", stage="archer", control="hand"),
    ),
    "length": (
        "Tell how long the shafts are",
        "How far a shaft bends, and what a tail says of it, goes by its length.",
        j.Action(label="Enter the shaft length", stage="arrow", control="shaft"),
    ),
    "spine": (
        "Tell the shafts' spine",
        "What the flight says is said of it: too weak or too stiff by how much.",
        j.Action(label="Enter the spine", stage="arrow", control="spine"),
    ),
    "window": (
        "Tell where the plate stands",
        "How far beside the string's line it lies decides what a tail means on this bow.",
        j.Action(label="Enter the window", stage="arrow", control="window"),
    ),
    "shot": (
        "Tell draw and weight",
        "What the shot does to a shaft is computed from them.",
        j.Action(label="See what is missing", stage="bow", control="mark"),
    ),
}


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
    """Return the next step while evidence is gathered; None once it is kept, or before any.

    First what has to be told, then what contradicts, then what is sure, the nock before the shaft;
    keep what is tuned; else the test worth most; else how near it is.
    Source: docs/MECHANICS.md, an evening of flight.

    >>> from lyrandis.core.example import rig
    >>> under_way(rig()) is None
    True
    """
    flight = c.flight
    if not flight.facts.seen or flight.basis.waiting:
        return None
    begun = flight.belief.counted or flight.facts.anew is not None
    if not begun and not flight.basis.needs:
        return None
    return (
        _tell_step(c)
        or _odd_step(c)
        or _correction_step(c)
        or _keep_step(c)
        or _test_step(c)
        or _near_step(c)
    )  # fmt: skip


def left_changed(c: Computed) -> j.NextStep | None:
    """Return the step of a trial that is on: shoot it, or put it back.

    Source: practice of the trade: change one thing, keep the way back.

    >>> from lyrandis.core.example import rig
    >>> left_changed(rig(["trial plate 2mm out"])).title.text()
    'Shoot three with the plate 2 mm further out'
    """
    trial = c.flight.facts.trial
    if trial is None:
        return None
    if not trial_is_shot(c):
        return j.NextStep(
            title=trial_act(trial),
            why=phrase("Fletched arrows from 2.3 m, and record which way the nocks point."),
            tells=phrase(
                "What it means is said once it is recorded, so that the eye stays honest."
            ),
            minutes=3,
            action=RECORD,
            on_page=True,
        )
    on = trial.say()
    return j.NextStep(
        title=phrase(put_back(trial).removesuffix(".").removesuffix(" after")),
        why=phrase(f"The trial is read: {on.template}.", **on.figures),
        tells=phrase("Until then what you see is recorded with it."),
        minutes=1,
        action=_recording("It is put back", "evidence", TrialSet()),
    )


def trial_is_shot(c: Computed) -> bool:
    """Return whether something was seen with the trial that is on.

    Source: definition.

    >>> from lyrandis.core.example import rig
    >>> trial_is_shot(rig(["trial plate 2mm out"]))
    False
    """
    trial, begun = c.flight.facts.trial, c.flight.facts.trial_set
    return any(
        getattr(sighting.reading, "trial", None) == trial
        and begun is not None
        and sighting.entry.happened_at >= begun.entry.happened_at
        for sighting in c.flight.facts.seen
    )


def test_asked(c: Computed) -> FlightTest | None:
    """Return the test the next step asks for; None where it asks for something else.

    Source: `under_way`, in the same order.

    >>> from lyrandis.core.example import rig
    >>> test_asked(rig()) is None
    True
    """
    flight = c.flight
    if not flight.facts.seen or flight.basis.waiting or flight.basis.needs:
        return None
    again = _again(c)
    if again is not None:
        return getattr(again.step, "test", None)
    settled = flight.verdict.contradicts or _lever(c) is not None or _is_kept(c)
    if settled or (flight.verdict.tuned and not flight.due.nock_open):
        return None
    if flight.basis.reckoned is None:
        return None
    if flight.tests.ranked:
        return flight.tests.ranked[0].test
    return None if flight.belief.counted else PLAIN_TESTS[0]


def _recording(label: str, control: str, *readings: Reading) -> j.Action:
    """Return an action that records something of the rig and leads on."""
    records = tuple(j.recordable("rig", reading) for reading in readings)
    return j.Action(label=label, stage="flight", control=control, records=records)


def _is_kept(c: Computed) -> bool:
    """Return whether what is believed is kept: tuned, or as near as can be told."""
    last = c.flight.match.last
    return c.flight.match.kept and last is not None


def _tell_step(c: Computed) -> j.NextStep | None:
    if not c.flight.basis.needs:
        return None
    need = c.flight.basis.needs[0]
    title, why, action = _NEEDS[need]
    n = len(c.flight.facts.seen)
    waits = "Your reading waits for it" if n == 1 else f"Your {n} readings wait for it"
    return j.NextStep(
        title=phrase(title),
        why=phrase(why),
        tells=phrase(f"{waits}: kept, and weighed then."),
        minutes=1,
        action=action,
        aside="window" if need == "window" else None,
    )


def _again(c: Computed) -> LogLine | None:
    """Return the reading that is shot once more: nobody expected it, or it contradicts."""
    verdict = c.flight.verdict
    if verdict.contradicts and not verdict.contradicted:
        seen = [line for line in c.flight.log if line.step is not None and line.seen is not None]
        return seen[-1] if seen else None
    return None if verdict.contradicts else verdict.surprising


def _odd_step(c: Computed) -> j.NextStep | None:
    again = _again(c)
    if again is not None and again.seen is not None:
        last = again.seen.reading.say()
        why = f"Nobody expected this: {last.template}."
        if c.flight.verdict.contradicts:
            why = f"The readings cannot all be so, and this came last: {last.template}."
        trial = getattr(again.seen.reading, "trial", None)
        begin = (TrialSet(trial=trial),) if trial is not None else ()
        hits = getattr(again.step, "test", PLAIN_TESTS[0]).sees == "bare"
        control = "hits" if hits else "tail"
        return j.NextStep(
            title=phrase("Shoot it once more"),
            why=phrase(why, **last.figures),
            tells=phrase("The same again, and it counts; otherwise take it back."),
            minutes=3,
            action=_recording("Begin this trial", control, *begin) if begin
            else HITS if hits else RECORD,
        )  # fmt: skip
    if not c.flight.verdict.contradicts:
        return None
    odd = c.flight.verdict.odd
    if odd is None or odd.seen is None:
        return j.NextStep(
            title=phrase("Begin anew"),
            why=phrase("The readings cannot all be so, and no one of them is to blame: something "
                       "changed between them. Look at the nocking point, the string, the plate."),
            tells=phrase("What was seen stays in the record and counts no more."),
            minutes=5,
            action=_recording("Begin anew from here", "tail", SittingEnded(anew=True)),
            other=EVIDENCE,
        )  # fmt: skip
    said = odd.seen.reading.say()
    return j.NextStep(
        title=phrase("Take back the odd one out"),
        why=phrase(f"Shot again, they still cannot all be so. Without this they agree best: "
                   f"{said.template}.", **said.figures),
        tells=phrase("It stays in the record and can be put back. Look whether the nocking point "
                     "slipped or the string crept before you go on."),
        minutes=2,
        action=_recording("Take it back", "evidence", Retraction(entry_id=odd.seen.entry.id)),
        other=EVIDENCE,
    )  # fmt: skip


def _lever(c: Computed) -> CorrectionLever | None:
    return next((lever for lever in levers_of(c) if lever.first), None)


def _correction_step(c: Computed) -> j.NextStep | None:
    if _is_kept(c):
        return None
    lever = _lever(c)
    if lever is None:
        return None
    if lever.get:
        return _get_step(lever)
    said = lever.what
    if lever.trial is not None:
        title = phrase(f"Shoot three {said.template[0].lower()}{said.template[1:]}", **said.figures)
        return j.NextStep(
            title=title,
            why=phrase(_because(c, lever)),
            tells=phrase("Borrow three, as long and with the same points. Buy none before they "
                         "have flown."),
            minutes=lever.minutes,
            action=_recording("Begin this trial", "tail", TrialSet(trial=lever.trial)),
            other=CORRECT.model_copy(update={"label": "Other ways"}),
        )  # fmt: skip
    return j.NextStep(
        title=said,
        why=phrase(_because(c, lever)),
        tells=phrase("What the next reading should be is said beforehand, and compared after."),
        minutes=lever.minutes,
        action=j.Action(label="It is done", stage="flight", control="tail", records=lever.records),
        other=CORRECT.model_copy(update={"label": "Other ways"}),
    )


def _because(c: Computed, lever: CorrectionLever) -> str:
    """Return why this comes now."""
    if lever.axis == "upright":
        return (
            "Now the nock, because bounces confuse every other reading, and it moves exactly "
            "and for nothing."
        )
    sure = c.flight.verdict.sure
    easiest = "It is the way that is easiest to undo and reaches far enough."
    if lever.trial is not None:
        easiest = "Nothing that is at the bench reaches so far."
    if sure is not None:
        return f"Now the shaft, because it is surely too {sure}. {easiest}"
    return f"No test left tells enough: this goes by the middle of what is likely. {easiest}"


def _get_step(lever: CorrectionLever) -> j.NextStep:
    said = lever.what
    return j.NextStep(
        title=phrase(f"Get {said.template[0].lower()}{said.template[1:]}", **said.figures),
        why=phrase("Shafts like them have flown on trial, and these would most likely do."),
        tells=phrase("Once they are here tell their spine: what was seen so far goes with them."),
        minutes=5,
        action=j.Action(label="They are here", stage="arrow", control="spine"),
        other=CORRECT.model_copy(update={"label": "Other ways"}),
    )


def _test_step(c: Computed) -> j.NextStep | None:
    test = test_asked(c)
    if test is None:
        return None
    change = change_of(c, test)
    if change is not None:
        action = _recording("Begin this trial", "tail", TrialSet(trial=change))
    elif test.sees == "bare":
        action = HITS
    else:
        action = RECORD if test.sees == "tail" else SIGNS
    tells = "No other test tells as much for its trouble."
    if c.flight.verdict.unproved:
        tells = "A far too stiff shaft that strikes can stand as straight: weaker ones part them."
    elif c.flight.belief.confirms:
        tells = "It shows what the change did."
    return j.NextStep(
        title=test_act(test, change),
        why=test_how(test, change),
        tells=phrase(tells),
        minutes=round(test.minutes),
        action=action,
    )


def _keep_step(c: Computed) -> j.NextStep | None:
    if not c.flight.verdict.tuned or c.flight.due.nock_open or _is_kept(c):
        return None
    return j.NextStep(
        title=phrase("Keep this tuning"),
        why=phrase("Shaft and rig agree. Kept, it stands for other arrows of this bow too, and "
                   "says when a setting moved."),
        tells=phrase("A last end at your own distance confirms it."),
        minutes=1,
        action=_keep(c, "Keep this tuning", tuned=True),
    )  # fmt: skip


def _keep(c: Computed, label: str, *, tuned: bool) -> j.Action:
    result, model = c.flight.match.tuning, c.arrow.model
    assert result is not None
    assert model is not None
    kept = kept_as(c.flight.upstream, result, model.matched, tuned=tuned)
    return _recording(label, "after", kept)


def near_says(within: float) -> Phrase:
    """Return how near the match a rig is known to stand.

    Source: an index is a tenth of stiffness.

    >>> near_says(1.4).text()
    'Within 14 % of what this rig wants.'
    """
    return phrase("Within {n} of what this rig wants.", n=percent(within / 10))


def _near_step(c: Computed) -> j.NextStep | None:
    near = c.flight.due.near
    if near is None or _is_kept(c):
        return None
    within = near_says(near.within)
    another = _recording("Go on another day", "evidence", SittingEnded())
    if c.flight.match.tuning is None:
        first, second = another, None
    else:
        keep = _keep(c, "Keep it so", tuned=False)
        first, second = (keep, another) if c.flight.due.rested else (another, keep)
    return j.NextStep(
        title=phrase("As near as this bow can be told"),
        why=phrase(f"{within.template} Within a tenth by {{chance}}. No test left today tells "
                   "enough for its trouble.", **within.figures, chance=percent(near.chance)),
        tells=phrase("Keep it so, or go on another day: what was seen counts then too."),
        minutes=1,
        action=first,
        other=second,
    )  # fmt: skip
