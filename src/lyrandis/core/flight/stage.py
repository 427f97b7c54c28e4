"""The flight on the page: what it says of shaft and nock, the mark, and the next thing to shoot."""

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed
from lyrandis.core.flight.choose import SAID_FROM
from lyrandis.core.flight.rules import RECORD
from lyrandis.core.flight.say import cause_word, said_words, sure_of
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
NO_SHOT = "No shot seen yet"


def stage(c: Computed, findings: list[j.Finding]) -> j.Standing:
    """Return the flight's stage."""
    odd = next((f.sentence for f in findings if f.id == "flight-contradict"), None)
    since = c.flight.differs
    return j.Standing(
        mark=_mark(c),
        headline="verdict",
        detail=_detail(c),
        answer=_answer(c),
        moved=odd or (phrase(f"The tuning is in doubt: {since.template}.", **since.figures)
                      if since else None),
        reason=phrase("readings differ") if odd else c.flight.match.differs[0] if since else None,
        values=tuple(_values(c)),
        cautions=CAUTIONS,
    )  # fmt: skip


def _mark(c: Computed) -> j.Mark:
    if not c.flight.facts.seen:
        return "unset"
    if c.flight.verdict.contradicts or c.flight.match.differs:
        return "in_doubt"
    settled = c.flight.verdict.tuned or is_near(c)
    return "settled" if settled else "estimated"


def is_near(c: Computed) -> bool:
    """Return whether the rig was kept as near as it can be told, and stands so."""
    last = c.flight.match.last
    return c.flight.match.kept and last is not None and not last.tuned


def _answer(c: Computed) -> Phrase:
    n = len(c.flight.facts.seen)
    if not n:
        return phrase("No shot is seen yet.")
    seen = "one reading" if n == 1 else f"{n} readings"
    word = flight_word(c)
    if word == "not said yet":
        return phrase(f"{seen[0].upper()}{seen[1:]} {'does' if n == 1 else 'do'} not say yet.")
    return phrase(f"By {seen} the shaft is {word}.")


def _detail(c: Computed) -> Phrase | None:
    n = len(c.flight.facts.seen)
    if not n:
        return None
    if c.flight.basis.waiting:
        return phrase("being reckoned")
    if c.flight.basis.needs:
        return phrase("waits to be weighed")
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


def flight_word(c: Computed) -> str:
    """Return how the shaft stands in a word: plainly tuned only where the nock is right too.

    Source: `FlightVerdict.said`, which title, bars and finding take as well.

    >>> from lyrandis.core.example import rig
    >>> flight_word(rig())
    'not said yet'
    """
    verdict, last = c.flight.verdict, c.flight.match.last
    if last is not None and c.flight.match.differs:
        return "tuned, in doubt" if last.tuned else "near, in doubt"
    if verdict.tuned:
        return "tuned" if verdict.nock_tuned else "shaft tuned"
    if is_near(c):
        return "near enough"
    if verdict.said is None or verdict.said.chance < SAID_FROM:
        return "not said yet"
    return said_words(verdict.said)


def _values(c: Computed) -> list[j.Value]:
    flight, facts = c.flight, c.flight.facts
    seen = tuple(sighting.entry.id for sighting in facts.seen)
    if not facts.seen:
        verdict = j.Value(key="verdict", label="The shaft", missing=NO_SHOT)
    else:
        verdict = j.Value(
            key="verdict",
            label="The shaft",
            text=flight_word(c),
            choice=flight.verdict.shaft,
            origin="measured",
            entries=seen,
        )
    values = [verdict]
    said_now = flight.verdict.said
    if facts.seen and said_now is not None:
        values.append(
            j.Value(
                key="likeliest",
                label="Likeliest",
                figure=percent(said_now.chance),
                text=None,
                detail=phrase(f"{said_words(said_now)}, {sure_of(said_now)}"),
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
