"""Judging what was seen of the flight: what it says, what contradicts, what is still changed."""

from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed
from lyrandis.core.flight.basis import FlightNeed
from lyrandis.core.flight.belief import SPINE_SD
from lyrandis.core.flight.choose import SAID_FROM
from lyrandis.core.flight.curves import UNDERSTOOD_ONSET
from lyrandis.core.flight.evidence import NOT_COUNTED_WORDS
from lyrandis.core.flight.likely import CLEAR_M, FURTHEST_TAIL_M
from lyrandis.core.flight.readings import BareApart, ButtHits, TailSeen
from lyrandis.core.flight.say import MEANS, cause_word, put_back, said_words, sure_of
from lyrandis.core.flight.settle import shown
from lyrandis.core.flight.state import CONFIRMS, SURE_FROM
from lyrandis.core.flight.words import CLASSES
from lyrandis.core.phrase import Phrase, percent, phrase, plain, spine

BEYOND_MODEL = 2 * SPINE_SD
CAUTIOUS_FALSE = 0.05
"""Chance of false weak above which nobody is told to buy stiffer shafts."""

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="flight-cause",
        stage="flight",
        title="What the flight says",
        statement="Every reading is weighed against what this rig's own shot would show at "
        "every spine, struck and clean, by an archer who sees and shoots as well as told. A "
        f"cause is said from {100 * SAID_FROM:.0f} %; a side that is sure at "
        f"{100 * SURE_FROM:.0f} % is corrected at once. Tuned means within a tenth of stiffness, "
        f"from two kinds of evidence and {CONFIRMS} readings since the last change. It is said "
        "from four in five on, and never as more: more did not come true more often.",
        school="Mechanics and inference; tail, bare shafts and marks in one belief",
        source="Bayes' theorem on the computed shot. All noise is assumed until your groups say "
        "it; shot on virtual rigs, no real archer was compared.",
    ),
    j.Rule(
        id="flight-contradict",
        stage="flight",
        title="Readings that contradict each other",
        statement="Where it is likelier than not that something else changed between readings, no "
        "cause is said: look for a slipped nocking point, a crept string, other arrows, another "
        "release.",
        school="Lyrandis's own",
        source="The belief carries that chance beside its causes, 4 % before anything is seen.",
    ),
    j.Rule(
        id="flight-again",
        stage="flight",
        title="A reading nobody expected",
        statement="A reading less than a seventh as likely by all that is believed as by chance is "
        "shot once more before it is built on.",
        school="Lyrandis's own",
        source="Predictive chance of the reading; the limit is Assumption.",
    ),
    j.Rule(
        id="flight-distance",
        stage="flight",
        title="Where a tail tells something",
        statement=f"Read the tail from {CLEAR_M[0]:g} to {CLEAR_M[1]:g} m. At 5 to 7 m it crosses "
        "nothing, from 7 to 12 m a healthy one points the other way, and far out all are "
        f"straight: from {FURTHEST_TAIL_M:g} m on it is kept and not counted.",
        school="Mechanics of flight, against the habit of reading at seven paces",
        source="The computed flight of four rigs, with lift of the feathers from 0.6 to 1.6 times.",
    ),
    j.Rule(
        id="flight-contact",
        stage="flight",
        title="Where the tail cannot be trusted",
        statement="That a matched shaft leaves clean is taken from practice on every bow; the "
        "computed shot says from which stiffness on the tail strikes. Where it would strike within "
        f"an index of {UNDERSTOOD_ONSET:g} of the match, its contact is not believed: bare shafts "
        "and other shafts decide.",
        school="Practice of the trade, against the computed contact",
        source="For bows cut far from centre the computed tail strikes at the match itself, which "
        "nobody sees.",
    ),
    j.Rule(
        id="flight-waits",
        stage="flight",
        title="First questions first",
        statement="Which hand draws, how long and how stiff the shafts are and where the plate "
        "stands are asked before any reading is weighed. What was seen until then is kept.",
        school="Practice of the trade",
        source="Sides, sizes and the match turn on them.",
    ),
    j.Rule(
        id="flight-kept",
        stage="flight",
        title="A tuning goes with its settings",
        statement="With a tuning brace, nock, plate, silencers, point and shafts are kept. What is "
        "set otherwise since puts it in doubt, from twice the error of reading it on.",
        school="Lyrandis's own",
        source="Convention; 3 mm of brace, 1 mm of nock, 0.5 mm of plate, 5 gr of silencers, 3 gr "
        "of point.",
    ),
    j.Rule(
        id="flight-trial",
        stage="flight",
        title="A trial is put back",
        statement="What is changed to prove a reading is put back after it, and leaves no trace in "
        "the order of work. While it is on, what is seen is recorded with it.",
        school="Practice of the trade: change one thing, keep the way back",
        source="Pushes move a reading by about half a class: they prove something near the cliff "
        "only.",
    ),
    j.Rule(
        id="flight-stiffer",
        stage="flight",
        title="No stiffer shafts on a tail alone",
        statement="While a tail that reads weak may be a stiff shaft that strikes, by more than "
        f"{100 * CAUTIOUS_FALSE:.0f} %, nothing stiffer is advised: mark, other shafts or a "
        "short draw come first.",
        school="Practice of the trade, in numbers",
        source="A struck tail turns negative from about six tenths too stiff on.",
    ),
    j.Rule(
        id="flight-scatter",
        stage="flight",
        title="Your own spread",
        statement="From your own groups your spread is learned, and bare shafts are weighed by it.",
        school="Lyrandis's own",
        source="Posterior of a variance; what is assumed is worth six degrees of freedom.",
    ),
    j.Rule(
        id="flight-parts",
        stage="flight",
        title="Readings of other parts",
        statement="What was seen with another string, bow, archer or set of arrows is kept, and "
        "does not count for these.",
        school="Lyrandis's own",
        source="A reading belongs to the parts it was made with.",
    ),
    j.Rule(
        id="flight-model",
        stage="flight",
        title="The model does not fit this bow",
        statement="A tuning further from the computed match than twice the model's own error "
        "rules, and says so.",
        school="The archer's own readings outrank the model",
        source="Twice 18 %.",
    ),
)

EVIDENCE = j.Action(label="See the evidence", stage="flight", control="evidence")
CORRECT = j.Action(label="See the correction", stage="flight", control="correct")
RECORD = j.Action(label="Record what you see", stage="flight", control="tail")
HITS = j.Action(label="Record the hits", stage="flight", control="hits")
_finding = partial(j.found, "flight")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the flight; nothing is reckoned before something was seen."""
    if not c.flight.facts.seen:
        return [*_trial(c), *_elsewhere(c)]
    return [
        *_trial(c),
        *_contradict(c),
        *_cause(c),
        *_stiffer(c),
        *_again(c),
        *_waits(c),
        *_contact(c),
        *_kept(c),
        *_distance(c),
        *_bare(c),
        *_scatter(c),
        *_model(c),
    ]


def chances_sum(c: Computed) -> tuple[Phrase, ...]:
    """Return what is believed of spine and nock, and on how many readings it stands."""
    if c.flight.belief.axes is None:
        return ()
    lines = []
    for axis, asked in zip(c.flight.belief.axes, (True, c.flight.belief.looked_up), strict=True):
        if not asked:
            continue
        chances = axis.chances()
        said = ", ".join(
            f"{cause_word(axis.name, name)} {100 * shown(name, chances[name]):.0f} %"
            for name in sorted(CLASSES, key=lambda item: -chances[item])
        )
        lines.append(phrase(f"{'Shaft' if axis.name == 'spine' else 'Nock'}: {said}."))
    lines.append(
        phrase(f"From {c.flight.belief.counted} readings of {c.flight.belief.kinds} kinds.")
    )
    return tuple(lines)


def _trial(c: Computed) -> list[j.Finding]:
    trial = c.flight.facts.trial
    if trial is None:
        return []
    said = trial.say()
    return [
        _finding(
            "flight-trial",
            "watch",
            phrase(f"A trial is on: {said.template}. What you see is recorded with it.",
                   **said.figures),
            (phrase(put_back(trial)),),
            j.Action(label="See the trial", stage="flight", control="trial"),
        )
    ]  # fmt: skip


def _contradict(c: Computed) -> list[j.Finding]:
    if not c.flight.verdict.contradicts:
        return []
    off = max(axis.off for axis in c.flight.belief.axes or ())
    return [
        _finding(
            "flight-contradict",
            "watch",
            phrase("The readings contradict each other, {off}: something else changed, or one of "
                   "them was misread.", off=percent(off)),
            chances_sum(c),
            EVIDENCE,
        )
    ]  # fmt: skip


def _cause(c: Computed) -> list[j.Finding]:
    verdict = c.flight.verdict
    said = verdict.said
    if said is None or (said.cause == "tuned") != verdict.tuned or said.chance < SAID_FROM:
        return []
    text = (
        "The shaft is tuned, about four in five: within a tenth of what this rig wants."
        if verdict.tuned
        else f"{sure_of(said).capitalize()} {said_words(said)}, {{chance}}. {MEANS[said.cause]}"
    )
    figures = {} if verdict.tuned else {"chance": percent(said.chance)}
    return [
        _finding(
            "flight-cause",
            "good" if verdict.tuned else "watch",
            phrase(text, **figures),
            chances_sum(c),
            None if verdict.tuned else CORRECT,
        )
    ]


def _waits(c: Computed) -> list[j.Finding]:
    if not c.flight.basis.needs:
        return []
    words = " and ".join(_NEEDS[need] for need in c.flight.basis.needs)
    return [
        _finding(
            "flight-waits",
            "watch",
            phrase(f"What was seen is kept and waits: {words} not told yet."),
            (phrase("Left and right, and how much a tail means, turn on it."),),
            EVIDENCE,
        )
    ]


_NEEDS: dict[FlightNeed, str] = {
    "hand": "the hand is", "length": "the shafts' length is", "spine": "their spine is",
    "window": "the plate's place is", "shot": "draw or weight are",
}  # fmt: skip


def _contact(c: Computed) -> list[j.Finding]:
    reckoned = c.flight.basis.reckoned
    if reckoned is None or reckoned.understood or not c.flight.belief.counted:
        return []
    return [
        _finding(
            "flight-contact",
            "watch",
            phrase("On this bow the computed tail strikes at the match itself: tails are read as "
                   "on an ordinary bow, and bare shafts and other shafts decide."),
            (phrase("Nobody sees a matched shaft strike: the computed contact is not believed."),),
            RECORD,
        )
    ]  # fmt: skip


def _kept(c: Computed) -> list[j.Finding]:
    since = c.flight.differs
    if since is None:
        return []
    return [
        _finding(
            "flight-kept",
            "watch",
            phrase(f"The kept tuning is in doubt: {since.template}.", **since.figures),
            (phrase("Put it back, or shoot it again and keep it anew."),),
            RECORD,
        )
    ]


def _stiffer(c: Computed) -> list[j.Finding]:
    if c.flight.belief.spine is None or not c.flight.belief.counted:
        return []
    false = c.flight.belief.spine.chances()["false_weak"]
    tails = [entry for entry in c.flight.log if entry.step is not None and entry.seen is not None
             and isinstance(entry.seen.reading, TailSeen)]  # fmt: skip
    weak = bool(tails) and getattr(tails[-1].step, "spine", None) in (0, 1, 2)
    if not weak or false <= CAUTIOUS_FALSE or c.flight.verdict.shaft in ("false_weak", "stiff"):
        return []
    return [
        _finding(
            "flight-stiffer",
            "watch",
            phrase("Do not buy stiffer on what the tail shows: {false} that the shaft is stiff and "
                   "strikes.", false=percent(false)),
            chances_sum(c),
            EVIDENCE,
        )
    ]  # fmt: skip


def _again(c: Computed) -> list[j.Finding]:
    odd = c.flight.verdict.surprising
    if odd is None or odd.seen is None or c.flight.verdict.contradicts:
        return []
    said = odd.seen.reading.say()
    return [
        _finding(
            "flight-again",
            "watch",
            phrase(f"Nobody expected the last reading. {said.template}. Shoot it once more.",
                   **said.figures),
            chances_sum(c),
            RECORD,
        )
    ]  # fmt: skip


def _distance(c: Computed) -> list[j.Finding]:
    last = c.flight.log[-1] if c.flight.log else None
    if last is None or last.why_not not in ("swings", "bare_tail_far", "too_near", "too_far"):
        return []
    return [
        _finding(
            "flight-distance",
            "watch",
            phrase(f"The last reading is kept and not counted: {NOT_COUNTED_WORDS[last.why_not]}."),
            (phrase("A tail is read from 2 to 3.5 m, bare shafts from 7 to 40 m."),),
            RECORD,
        )
    ]


def _bare(c: Computed) -> list[j.Finding]:
    kit = c.flight.facts.kit
    shot = any(
        isinstance(sighting.reading, BareApart)
        or (
            isinstance(sighting.reading, ButtHits)
            and any(hit.bare for hit in sighting.reading.hits)
        )
        for sighting in c.flight.facts.seen
    )
    if kit is None or kit.bare_shafts is not False or not shot:
        return []
    return [
        _finding(
            "flight-parts",
            "watch",
            phrase("Bare shafts were recorded, and this set is told to have none. Strip two, or "
                   "tape their feathers down, and say that there are some."),
            (phrase("What was recorded counts as it stands."),),
            j.Action(label="Say what is to hand", stage="flight", control="kit"),
        )
    ]  # fmt: skip


def _scatter(c: Computed) -> list[j.Finding]:
    noise, freedom = c.flight.basis.noise, c.flight.basis.freedom
    if freedom < 4:
        return []
    return [
        _finding(
            "flight-scatter",
            "good",
            phrase(f"Your spread at 18 m, {100 * noise.scatter_m:.0f} cm an arrow, is counted from "
                   "your own groups."),
            (phrase(f"{freedom} degrees of freedom beside six for what is assumed."),),
        )
    ]  # fmt: skip


def _elsewhere(c: Computed) -> list[j.Finding]:
    n = c.flight.facts.elsewhere
    if not n or c.flight.facts.seen:
        return []
    name = plain(c.setup.arrows.name or "these arrows")
    some = "One reading was" if n == 1 else f"{n} readings were"
    return [
        _finding(
            "flight-parts",
            "watch",
            phrase(f"{some} made with other parts and {'does' if n == 1 else 'do'} not count for "
                   f"{name}."),
            (phrase("Put those parts on again, and they count."),),
        )
    ]  # fmt: skip


def _model(c: Computed) -> list[j.Finding]:
    result = c.flight.match.tuning
    if not c.flight.verdict.tuned or result is None or abs(result.offset) <= BEYOND_MODEL:
        return []
    model = c.arrow.model.matched if c.arrow.model else result.matched
    return [
        _finding(
            "flight-model",
            "watch",
            phrase("The mechanics do not fit this bow: they said {model}, your tuning {own}. Your "
                   "tuning rules.", model=spine(model), own=spine(result.matched)),
            (phrase(f"{abs(result.offset):.1f} tenths of stiffness apart."),),
            j.Action(label="See what is assumed", stage="arrow", control="window"),
        )
    ]  # fmt: skip
