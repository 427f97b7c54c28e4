"""Rigs as they are now: computed once a revision, shared by every question about it.

Each rig has a lock of its own, held while it is computed: no rig waits for another's.
"""

from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field
from threading import Lock
from uuid import uuid4

from pydantic import BaseModel

from lyrandis.api.curves import CurvesOfRigs
from lyrandis.core.assessment import Assessment, judge
from lyrandis.core.computed import Computed, compute
from lyrandis.core.known import known_of
from lyrandis.core.reading import StageKey
from lyrandis.core.setup import Setup, fold
from lyrandis.core.stage_spec import Page
from lyrandis.core.stages import STAGES, AnyPage
from lyrandis.store.bench import Bench
from lyrandis.store.log import RigLog

_RIGS_KEPT = 16


class Judged(Assessment):
    """An assessment, and the geometry of the page that was asked for."""

    page: AnyPage | None = None


@dataclass(eq=False)
class ShownRig:
    """A rig computed at one revision, and what was said of it."""

    log: RigLog
    computed: Computed
    assessment: Assessment
    stamp: str
    """Other for each revision of each rig, and once its curves are there."""
    made: int = 0
    """How often it was made anew for this revision: once its curves were there."""
    answers: dict[object, bytes] = field(default_factory=dict)
    """The assessment and the pages, as JSON; a handful."""


@dataclass(eq=False)
class _Slot:
    lock: Lock = field(default_factory=Lock)
    shown: ShownRig | None = None


class RigCache:
    """Computes a rig once for each revision, and its assessment and pages once."""

    def __init__(self, bench: Bench, curves: CurvesOfRigs) -> None:
        self._bench = bench
        self._curves = curves
        self._lock = Lock()
        """Held to find a rig's slot, never while something is worked out."""
        self._slots: OrderedDict[str, _Slot] = OrderedDict()
        self._since = uuid4().hex[:8]

    def computed(self, rig: str) -> Computed:
        """Return the numbers of a rig as it is now. Raises `DomainError` for an unknown rig."""
        return self.shown(rig).computed

    def assessment(self, rig: str) -> Assessment:
        """Return what is said of a rig as it is now."""
        return self.shown(rig).assessment

    def judged(self, rig: str, page: StageKey | None) -> bytes:
        """Return a rig's assessment with one page, as JSON."""
        slot = self._slot(rig)
        with slot.lock:
            shown = self._shown(rig, slot)
            said = _kept(shown, "assessment", lambda: shown.assessment, spare=True)
            draw = page_of(shown.computed.setup, page)
            if draw is None:
                return said
            return _joined(said, _kept(shown, ("page", page), lambda: draw(shown.computed)))

    def answer(self, rig: str, key: object, make: Callable[[Computed], BaseModel]) -> bytes:
        """Return a light answer about a rig as JSON, made once for each revision and key."""
        slot = self._slot(rig)
        with slot.lock:
            shown = self._shown(rig, slot)
            return _kept(shown, key, lambda: make(shown.computed))

    def known(self, rig: str) -> bytes:
        """Return what is known of a rig now and what would sharpen it, as JSON."""
        slot = self._slot(rig)
        with slot.lock:
            shown = self._shown(rig, slot)
            log, ready = shown.log.entries, self._curves.ready
            return _kept(shown, "known", lambda: known_of(log, rig, ready))

    def tag(self, rig: str, page: StageKey | None) -> str:
        """Return the entity tag of a rig's assessment: the same while nothing was recorded.

        To be taken before the answer it goes with: a tag older than its answer only costs a
        question, a newer one would hide what came between.
        """
        return f'"{self.shown(rig).stamp}-{page or ""}"'

    def shown(self, rig: str) -> ShownRig:
        """Return a rig as it is now."""
        slot = self._slot(rig)
        with slot.lock:
            return self._shown(rig, slot)

    def _slot(self, rig: str) -> _Slot:
        with self._lock:
            slot = self._slots.get(rig)
            if slot is None:
                slot = self._slots[rig] = _Slot()
            self._slots.move_to_end(rig)
            while len(self._slots) > _RIGS_KEPT:
                self._slots.popitem(last=False)
            return slot

    def _shown(self, rig: str, slot: _Slot) -> ShownRig:
        """Return the rig of a slot whose lock is held, computed anew where it has changed."""
        log = self._bench.log_of_rig(rig)
        shown = slot.shown
        fresh = shown is None or shown.log is not log
        if shown is not None and not fresh and not self._came(shown):
            return shown
        if fresh:
            self._curves.told()
        computed = compute(fold(log.entries, rig=rig, ordered=True), self._curves.ready)
        before = shown.computed.flight.basis.asked if shown is not None else None
        if before is not None and before != computed.flight.basis.asked:
            self._curves.drop(before)
        made = 0 if fresh or shown is None else shown.made + 1
        stamp = f"{self._since}-{rig}-{log.revision}-{len(log.entries)}-{made}"
        slot.shown = ShownRig(log, computed, judge(computed), stamp, made)
        return slot.shown

    def _came(self, shown: ShownRig) -> bool:
        """Return whether curves that were waited for are there now."""
        basis = shown.computed.flight.basis
        return (
            basis.waiting
            and basis.asked is not None
            and self._curves.ready(basis.asked) is not None
        )


def _kept(
    shown: ShownRig, key: object, make: Callable[[], BaseModel], *, spare: bool = False
) -> bytes:
    """`spare` leaves out what is null: those fields are optional in the document."""
    found = shown.answers.get(key)
    if found is None:
        found = shown.answers[key] = make().model_dump_json(exclude_none=spare).encode()
    return found


def assessment_json(computed: Computed, page: StageKey | None) -> bytes:
    """Return what is said of numbers that are not kept, with the geometry of one page."""
    draw = page_of(computed.setup, page)
    drawn = draw(computed).model_dump_json().encode() if draw else None
    return _joined(judge(computed).model_dump_json(exclude_none=True).encode(), drawn)


def _joined(assessment: bytes, page: bytes | None) -> bytes:
    return assessment if page is None else b'%b,"page":%b}' % (assessment[:-1], page)


def page_of(setup: Setup, page: StageKey | None) -> Callable[[Computed], Page] | None:
    """Return what draws a stage's pages; None where none is asked for or it does not apply."""
    specs = (spec for spec in STAGES if spec.key == page and spec.applies(setup))
    return next((spec.page for spec in specs), None)
