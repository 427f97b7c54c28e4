"""Shots that come back from the field helper: a plain text, one line a shot, read and sorted.

    Lyrandis field shots 2
    of tideway-recurve with carbon-set-a held cheekbone three_under
    2026-11-26T10:02:11Z 8f3c1a2b4d5e6f70 crawl guessed 27m 7 stitches high 1 arrow ~5d0a
    end 1

Behind the instant and the shot's own id stands a line as it could be jotted, and its check. A shot
is recorded once, however often its text is brought.

Texts are cut and changed on their way: `crawl 27m 3` is what is left of `crawl 27m 34mm high`, and
reads as three inches. So a line whose check does not hold is shown and never taken, and a text
whose `end` is missing says that more may have been meant. The first version, without checks, is
still read; of its last line a person says whether it is whole.
"""

import re
from collections.abc import Sequence
from datetime import datetime
from hashlib import sha256
from typing import Literal, NamedTuple

from pydantic import AwareDatetime

from lyrandis.core import entries as e
from lyrandis.core.archer.readings import AnchorChosen, HoldChosen
from lyrandis.core.bench_readings import PartFitted, Retraction
from lyrandis.core.crawls.readings import CrawlMark
from lyrandis.core.drawn import Drawn
from lyrandis.core.effective import EffectiveReadings, in_force, parts_fitted
from lyrandis.core.errors import DomainError
from lyrandis.core.jot import Listener, parse
from lyrandis.core.phrase import Phrase
from lyrandis.core.reading import ENTRY_ID, BaseReading, Fitted, Subject
from lyrandis.core.record import check_instant

MOST_SHOTS, LONGEST_TEXT = 500, 100_000
_OF = re.compile(r"of (?P<rig>\S+) with (?P<arrows>\S+) held (?P<anchor>\S+) (?P<hold>\S+)$")
_SHOT = re.compile(
    r"(?P<at>\d{4}-\d\d-\d\d\S*)\s+(?P<id>\S+)\s+(?P<line>\S.*?)(?:\s+~(?P<check>\S*))?$"
)
_END = re.compile(r"end\s+(?P<count>\d+)$")
CHECK_LETTERS = 4
_QUOTED = re.compile(r"^[>\s]+")
_READS = Listener(stage="crawls", units="metric")

ShotState = Literal["new", "here", "differs", "bad"]


class ShotOf(NamedTuple):
    """What a table was of, as the helper carried it."""

    rig: str
    arrows: str
    """`-` for none."""
    anchor: str
    hold: str

    def text(self) -> str:
        """Return the line that says so."""
        return f"of {self.rig} with {self.arrows} held {self.anchor} {self.hold}"


class FieldShot(NamedTuple):
    """One line that came back."""

    line: str
    of: ShotOf | None
    id: str
    at: str
    trust: Literal["checked", "unchecked", "last", "changed"] = "unchecked"
    """`last`: the last of a text without checks; `changed`: its check does not hold."""


class ShotsText(NamedTuple):
    """A text that came back."""

    shots: tuple[FieldShot, ...]
    more: bool
    """More was written than came: its end is missing, or says another number."""


class ShotLine(Drawn):
    """A shot that came back, and whether it is new here."""

    id: str
    line: str
    at: AwareDatetime | None = None
    says: Phrase | None = None
    state: ShotState
    why: str | None = None
    """Why it is not simply recorded."""
    instruction: str | None = None


class Sorted(NamedTuple):
    """A shot's line, and the draft that would record it."""

    shown: ShotLine
    draft: e.PostedEntry | None


def check_of(at: str, shot_id: str, of: ShotOf | None, line: str) -> str:
    """Return the check of a shot's line: the first letters of a SHA-256 over all it says.

    Source: FIPS 180-4 for the sum; `web/src/field/text.ts` writes the same.

    >>> of = ShotOf("my-rig", "set-a", "corner", "split")
    >>> check_of("2026-11-26T10:02:11Z", "8f3c1a2b", of, "crawl 27m 34mm high")
    '50e6'
    """
    told = "|".join((at, shot_id, of.text() if of else "", line))
    return sha256(told.encode()).hexdigest()[:CHECK_LETTERS]


def read_shots(text: str) -> ShotsText:
    """Return the shots of a text in its order; words around them are passed over.

    Raises `DomainError` where there is none, or too many. Source: definition.

    >>> head = "of my-rig with set-a held corner split"
    >>> found = read_shots(f"{head}\\n> 2026-11-26T10:02:11Z 8f3c1a2b crawl 27m 34mm high")
    >>> found.shots[0].id, found.shots[0].line, found.shots[0].of.anchor, found.shots[0].trust
    ('8f3c1a2b', 'crawl 27m 34mm high', 'corner', 'last')
    """
    of: ShotOf | None = None
    shots: list[tuple[FieldShot, str | None]] = []
    told: int | None = None
    checked = False
    for raw in text.splitlines():
        line = _QUOTED.sub("", raw).strip()
        head, shot, end = _OF.match(line), _SHOT.match(line), _END.match(line)
        checked |= line.startswith("Lyrandis field shots 2") or end is not None
        if head is not None:
            of = ShotOf(**head.groupdict())
        elif end is not None:
            told = (told or 0) + int(end["count"])
        elif shot is not None:
            checked |= shot["check"] is not None
            shots.append((FieldShot(shot["line"], of, shot["id"], shot["at"]), shot["check"]))
    if not shots:
        raise DomainError(
            "not_field_shots",
            "No shot of the field helper is in this.",
            "Choose the file the helper saved, or paste its text whole.",
            "text",
        )
    if len(shots) > MOST_SHOTS:
        raise DomainError(
            "too_many",
            f"{len(shots)} shots are more than are taken at once.",
            f"Bring at most {MOST_SHOTS} at a time.",
            "text",
        )
    if not checked:
        result = [shot._replace(trust="unchecked") for shot, _ in shots]
        return ShotsText((*result[:-1], result[-1]._replace(trust="last")), more=False)
    judged = tuple(
        shot._replace(trust="checked" if _holds(shot, check) else "changed")
        for shot, check in shots
    )
    return ShotsText(judged, more=told != len(judged))


def _holds(shot: FieldShot, check: str | None) -> bool:
    return check == check_of(shot.at, shot.id, shot.of, shot.line)


def sort_shots(
    shots: Sequence[FieldShot], log: Sequence[e.Entry], *, rig: str, now: datetime
) -> list[Sorted]:
    """Return each shot with whether it is new, here already, of another rig, or cannot be read.

    `log` holds the rig's entries and its parts'. A shot differs where the rig had other arrows,
    anchor or hold at that time than its table was of: then a person chooses.

    >>> shot = FieldShot("crawl 27m 34mm high", None, "8f3c1a2b", "2026-11-26T10:02:11Z", "checked")
    >>> now = datetime.fromisoformat("2026-11-26T12:00:00Z")
    >>> [one.shown.state for one in sort_shots([shot], [], rig="my-rig", now=now)]
    ['new']
    """
    known = {entry.id: entry for entry in log}
    history = [entry for entry in log if isinstance(entry.reading, _TELLS_HOW)]
    result: list[Sorted] = []
    seen: set[str] = set()
    whole = {shot.id for shot in shots if shot.trust != "changed"}
    for shot in shots:
        if shot.trust == "changed" and shot.id in whole:
            continue  # it came a second time, whole
        try:
            sorted_ = _sort(shot, known, history, rig, now)
        except DomainError as problem:
            sorted_ = _refused(shot, problem.reason, problem.instruction)
        if shot.id in seen:
            continue
        seen.add(shot.id)
        result.append(sorted_)
    return result


def _refused(shot: FieldShot, why: str, instruction: str | None) -> Sorted:
    return Sorted(
        ShotLine(id=shot.id, line=shot.line, state="bad", why=why, instruction=instruction), None
    )


_TELLS_HOW = (PartFitted, AnchorChosen, HoldChosen, Retraction)
"""What says how the rig was set up and held at an instant."""


def _sort(
    shot: FieldShot, known: dict[str, e.Entry], history: Sequence[e.Entry], rig: str, now: datetime
) -> Sorted:
    if shot.trust == "changed":
        return _refused(
            shot,
            "This line was cut or changed on its way.",
            "Bring the helper's text again, whole; or jot the shot if you remember it.",
        )
    if shot.of is not None and shot.of.rig != rig:
        return _refused(
            shot, f"It was shot with the rig {shot.of.rig}.", "Bring it in where that rig is open."
        )
    draft = _draft(shot, rig, now)
    at, reading = draft.happened_at, draft.reading
    assert at is not None

    def shown(state: ShotState, why: str | None = None, do: str | None = None) -> ShotLine:
        return ShotLine(
            id=shot.id, line=shot.line, at=at, says=reading.say(), state=state, why=why,
            instruction=do,
        )  # fmt: skip

    before = known.get(shot.id)
    if before is not None and (before.reading, before.happened_at) == (reading, at):
        return Sorted(shown("here"), None)
    if before is not None:
        return Sorted(
            shown("bad", f"Recorded already, otherwise: {before.reading.say().text()}.",
                  "It stays as it was recorded. Jot it anew if it should stand."),
            None,
        )  # fmt: skip
    if shot.trust == "last":
        return Sorted(
            shown("differs", "It is the last line of a text without checks: it may have been cut.",
                  "Record it only if it says all that was shot."),
            draft,
        )  # fmt: skip
    if shot.of is None:
        return Sorted(shown("new"), draft)
    fitted, anchor, hold = _as_it_was(history, rig, at)
    told = None if shot.of.arrows == "-" else shot.of.arrows
    if told != fitted.arrow_set:
        told_draft = draft.model_copy(
            update={"fitted": fitted.model_copy(update={"arrow_set": told})}
        )
        return Sorted(
            shown("differs", "The rig had other arrows at that time.",
                  "Recorded all the same, it counts for the arrows it was shot with."),
            told_draft,
        )  # fmt: skip
    others = [
        item
        for item, told in ((anchor, shot.of.anchor), (hold, shot.of.hold))
        if item is not None and told not in item.told().values()
    ]
    if others:
        held = ", ".join(other.say().text() for other in others)
        return Sorted(
            shown("differs", f"It was held otherwise at that time: {held}.",
                  "Recorded all the same, it counts for the anchor and hold of that time."),
            draft,
        )  # fmt: skip
    return Sorted(shown("new"), draft)


def _instant(told: str) -> datetime | None:
    try:
        return datetime.fromisoformat(told)
    except ValueError:
        return None


def _draft(shot: FieldShot, rig: str, now: datetime) -> e.PostedEntry:
    at = _instant(shot.at)
    if at is None or at.tzinfo is None:
        raise DomainError(
            "no_time_zone", f"“{shot.at}” is no instant.", "Give it as 2026-11-26T10:02:11Z."
        )
    check_instant(at, now)
    reading = parse(shot.line, to=_READS).reading
    if not isinstance(reading, CrawlMark):
        raise DomainError("unknown_word", "That is no crawl.", "Begin with crawl 20m 34mm.")
    if re.fullmatch(ENTRY_ID, shot.id) is None:
        raise DomainError("invalid", f"“{shot.id}” is no id of a shot.", "Bring the text as it is.")
    return e.PostedEntry(
        subject=Subject(kind="rig", id=rig), reading=reading, happened_at=at, id=shot.id
    )


def _as_it_was(
    history: Sequence[e.Entry], rig: str, at: datetime
) -> tuple[Fitted, BaseReading | None, BaseReading | None]:
    """Return the parts on the rig, and what was told of anchor and hold, at an instant."""
    standing = in_force([entry for entry in history if entry.happened_at <= at], ordered=True)
    fitted = parts_fitted(standing, rig)
    readings = EffectiveReadings(standing, rig, fitted)
    anchor, hold = readings.last(AnchorChosen), readings.last(HoldChosen)
    return fitted, anchor.reading if anchor else None, hold.reading if hold else None
