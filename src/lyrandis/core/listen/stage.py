"""Listen on the page: how far the check list has come, what was told apart, and what to record."""

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed
from lyrandis.core.constants import NEWTONS_PER_LBF
from lyrandis.core.listen.checklist import checks, first_to_do
from lyrandis.core.listen.rules import CHECKS, LIST, RECORD_SOUND
from lyrandis.core.listen.words import FAULT_WORDS
from lyrandis.core.phrase import Phrase, decibels, hertz, lbf, percent, phrase
from lyrandis.core.stage_spec import Ask

CAUTIONS = (
    j.Caution(
        id="listen-shot",
        text="Record with an arrow on the string and a clear butt: a string let go without an "
        "arrow breaks bows. To pluck, pull it a finger's width at the most.",
    ),
    j.Caution(
        id="listen-place",
        text="Lay the microphone to the side, never in front of the shooting line.",
    ),
)


def stage(c: Computed, _: list[j.Finding]) -> j.Standing:
    """Return the stage of listening."""
    values = _values(c)
    return j.Standing(
        mark=_mark(c),
        headline="seen",
        detail=_detail(c),
        answer=_answer(c),
        values=tuple(values),
        cautions=CAUTIONS,
    )


def _mark(c: Computed) -> j.Mark:
    if not c.listen.facts.heard:
        return "unset"
    result = checks(c)
    if first_to_do(result) is not None:
        return "in_doubt"
    return "settled" if all(item.state != "cannot" for item in result) else "estimated"


def _answer(c: Computed) -> Phrase:
    if not c.listen.facts.heard:
        return phrase("Nothing is recorded yet.")
    pointed = c.listen.pointed
    if pointed is not None and pointed.fault is not None:
        return phrase(f"The sound points to {FAULT_WORDS[pointed.fault]}.")
    return phrase("The sound points to nothing that is wrong.")


def _detail(c: Computed) -> Phrase | None:
    pointed = c.listen.pointed
    if pointed is not None and pointed.fault is not None:
        return phrase(FAULT_WORDS[pointed.fault])
    tapped = c.listen.shafts
    if tapped is not None:
        count = len(tapped.shafts)
        return phrase(f"{count} shaft{'' if count == 1 else 's'} tapped")
    return None


def _values(c: Computed) -> list[j.Value]:
    listen = c.listen
    pair, tension, tapped = listen.pair, listen.tension, listen.shafts
    if listen.facts.heard:
        result = checks(c)
        told = sum(item.state != "cannot" for item in result)
        seen = j.Value(key="seen", label="Looked for", text=f"{told} of {len(result)} seen",
                       origin="measured",
                       entries=(listen.facts.heard[-1].entry.id,))  # fmt: skip
    else:
        seen = j.Value(key="seen", label="Looked for", missing="Nothing recorded yet")
    change = pair.level if pair else None
    return [
        seen,
        j.Value(key="change", label="After against before",
                figure=decibels(change.change_db, change.half_db), origin="measured")
        if change else j.Value(key="change", label="After against before",
                               missing="Needs two recordings of one place"),
        j.Value(key="note", label="The string's note", figure=hertz(tension.note.value),
                origin="measured", entries=(tension.heard.entry.id,))
        if tension else j.Value(key="note", label="The string's note", missing="Pluck it"),
        j.Value(key="tension", label="Tension by the note",
                figure=lbf(tension.by_note.value / NEWTONS_PER_LBF,
                           tension.by_note.plus_minus / NEWTONS_PER_LBF), origin="measured")
        if tension else j.Value(key="tension", label="Tension by the note",
                                missing="Needs a pluck and the string's mass"),
        j.Value(key="tapped", label="Shafts tapped",
                text=str(len(tapped.shafts)) if tapped else None,
                missing=None if tapped else "None yet"),
    ]  # fmt: skip


def missing(_: Computed) -> j.NextStep | None:
    """Nothing of listening is missing to shoot."""
    return None


def _listen_step(c: Computed) -> j.NextStep | None:
    """Return what to record next: for a rig that is listened to already."""
    listen = c.listen
    if not listen.facts.heard:
        return None
    pointed = listen.pointed
    if pointed is not None and pointed.fault is not None:
        return j.NextStep(
            title=phrase(f"Look for {FAULT_WORDS[pointed.fault]}"),
            why=phrase("The sound points to it, {sure}.", sure=percent(pointed.sure)),
            tells=phrase(CHECKS[pointed.fault]),
            minutes=10,
            action=LIST,
        )
    if not listen.of("pluck"):
        return j.NextStep(
            title=phrase("Pluck it three times"),
            why=phrase("A shot cannot tell a loose part from a good one. A pluck can."),
            tells=phrase("It settles what is loose, a slack strand, and the string's tension."),
            minutes=2,
            action=RECORD_SOUND,
        )
    pair = listen.pair
    if pair is not None and pair.level is not None and not pair.level.told_apart:
        return j.NextStep(
            title=phrase("Record two more of each"),
            why=phrase("Before and after are not told apart yet."),
            tells=phrase("With more takes a smaller difference shows."),
            minutes=5,
            action=RECORD_SOUND,
        )
    return None


ASKS = (Ask(26, _listen_step),)
