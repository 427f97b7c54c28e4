"""The desk: what was worked out of a rig lately, shared by every question about one revision."""

from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from threading import Lock
from uuid import uuid4

from pydantic import BaseModel

from lyrandis.api.reckoning import Reckoning
from lyrandis.core.assessment import Assessment, judge
from lyrandis.core.computed import Computed, compute
from lyrandis.core.reading import StageKey
from lyrandis.core.room import Page
from lyrandis.core.rooms import ROOMS, AnyPage
from lyrandis.core.setup import Setup, fold
from lyrandis.store.bench import Bench
from lyrandis.store.log import RigLog

_RIGS_KEPT = 16
_ANSWERS_KEPT = 48
"""Answers kept of one rig's revision: boards, plans and pages, a few hundred kB at the most."""


class Judged(Assessment):
    """An assessment, and the geometry of the page that was asked for."""

    page: AnyPage | None = None


@dataclass
class _Kept:
    log: RigLog
    computed: Computed
    assessment: Assessment
    made: int = 0
    """How often it was made anew for this revision: once its curves were there."""
    answers: OrderedDict[object, bytes] = field(default_factory=OrderedDict)


class Desk:
    """Computes a rig once for each revision, and each answer about it once.

    Boards and plans are made one at a time: two at once would only share the one processor.
    Assessments with their pages, and what needs the numbers alone, do not wait for them.
    """

    def __init__(self, bench: Bench) -> None:
        self._bench = bench
        self._lock = Lock()
        self._making = Lock()
        self._saying = Lock()
        self._rigs: OrderedDict[str, _Kept] = OrderedDict()
        self._since = uuid4().hex[:8]
        self.reckoning = Reckoning()

    def computed(self, rig: str) -> Computed:
        """Return the numbers of a rig as it is now. Raises `DomainError` for an unknown rig."""
        return self._of(rig).computed

    def assessment(self, rig: str) -> Assessment:
        """Return what is said of a rig as it is now."""
        return self._of(rig).assessment

    def judged(self, rig: str, page: StageKey | None) -> bytes:
        """Return a rig's assessment with one page, as JSON."""
        kept = self._of(rig)
        said = self._answer(kept, "assessment", lambda: kept.assessment, self._saying, spare=True)
        draw = page_of(kept.computed.setup, page)
        if draw is None:
            return said
        drawn = self._answer(kept, ("page", page), lambda: draw(kept.computed), self._saying)
        return _joined(said, drawn)

    def answer(self, rig: str, key: object, make: Callable[[Computed], BaseModel]) -> bytes:
        """Return an answer about a rig as JSON, made once for each revision and key."""
        kept = self._of(rig)
        return self._answer(kept, key, lambda: make(kept.computed), self._making)

    def known(self, rig: str, key: object) -> bytes | None:
        """Return an answer that is made already."""
        return self._of(rig).answers.get(key)

    def _answer(
        self,
        kept: _Kept,
        key: object,
        make: Callable[[], BaseModel],
        in_turn: Lock,
        *,
        spare: bool = False,
    ) -> bytes:
        """`spare` leaves out what is null: those fields are optional in the document."""
        with in_turn:
            found = kept.answers.get(key)
            if found is None:
                found = kept.answers[key] = make().model_dump_json(exclude_none=spare).encode()
                if len(kept.answers) > _ANSWERS_KEPT:
                    kept.answers.popitem(last=False)
            return found

    def tag(self, rig: str, page: StageKey | None) -> str:
        """Return the entity tag of a rig's assessment: the same while nothing was recorded.

        To be taken before the answer it goes with: a tag older than its answer only costs a
        question, a newer one would hide what came between.
        """
        kept = self._of(rig)
        log = kept.log
        shown = f"{page or ''}-{kept.made}"
        return f'"{self._since}-{rig}-{log.revision}-{len(log.entries)}-{shown}"'

    def _of(self, rig: str) -> _Kept:
        with self._lock:
            log = self._bench.log_of_rig(rig)
            kept = self._rigs.get(rig)
            old = kept is None or kept.log is not log
            if kept is None or old or self._came(kept):
                made = 0 if kept is None or old else kept.made + 1
                if old:
                    self.reckoning.told()
                computed = compute(fold(log.entries, rig=rig, ordered=True), self.reckoning.ready)
                before = kept.computed.flight.basis.asked if kept is not None else None
                if before is not None and before != computed.flight.basis.asked:
                    self.reckoning.drop(before)
                kept = self._rigs[rig] = _Kept(log, computed, judge(computed), made)
                while len(self._rigs) > _RIGS_KEPT:
                    self._rigs.popitem(last=False)
            self._rigs.move_to_end(rig)
            return kept

    def _came(self, kept: _Kept) -> bool:
        """Return whether curves that were waited for are there now."""
        flight = kept.computed.flight
        return (
            flight.basis.waiting
            and flight.basis.asked is not None
            and self.reckoning.ready(flight.basis.asked) is not None
        )


def judged_json(computed: Computed, page: StageKey | None) -> bytes:
    """Return what is said of numbers that are not kept, with the geometry of one page."""
    draw = page_of(computed.setup, page)
    drawn = draw(computed).model_dump_json().encode() if draw else None
    return _joined(judge(computed).model_dump_json(exclude_none=True).encode(), drawn)


def _joined(assessment: bytes, page: bytes | None) -> bytes:
    return assessment if page is None else b'%b,"page":%b}' % (assessment[:-1], page)


def page_of(setup: Setup, page: StageKey | None) -> Callable[[Computed], Page] | None:
    """Return what draws a stage's pages; None where none is asked for or it does not apply."""
    rooms = (room for room in ROOMS if room.key == page and room.applies(setup))
    return next((room.page for room in rooms), None)
