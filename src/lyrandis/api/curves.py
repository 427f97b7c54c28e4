"""The curves of flight of the rigs lately asked for: there, or worked out meanwhile."""

from collections import OrderedDict
from threading import Lock
from time import monotonic

from lyrandis.api.worker import Priority, Worker
from lyrandis.core.flight.evidence import CurvesAsked, Reckoned, known, reckon

_KEPT = 24
QUIET_S = 0.2
"""While readings come in sooner than this, nothing is begun."""


class CurvesOfRigs:
    """What the worker has found of them, and when it may begin."""

    def __init__(self, worker: Worker) -> None:
        self._worker = worker
        self._lock = Lock()
        self._first: OrderedDict[CurvesAsked, float] = OrderedDict()
        """When each rig that is not begun was asked for first."""
        self._told = 0.0
        """When something was recorded last."""

    def ready(self, asked: CurvesAsked) -> Reckoned | None:
        """Return what is known, else None; begun once asked for again after a quiet moment."""
        found = known(asked)
        if found is not None or not self._asked_before(asked):
            return found
        key = ("curves", asked)
        job = self._worker.ask(key, lambda _: reckon(asked), priority=Priority.CURVES)
        curves: Reckoned | None = self._worker.known(key) if job.future.done() else None
        return curves

    def told(self) -> None:
        """Take note that something was recorded: more may follow at once."""
        self._told = monotonic()

    def drop(self, asked: CurvesAsked) -> None:
        """Leave out a rig that has changed since, unless it is being worked out already."""
        with self._lock:
            self._first.pop(asked, None)
        self._worker.drop(("curves", asked))

    def _asked_before(self, asked: CurvesAsked) -> bool:
        """Return whether a rig stays as it is: while readings still come in, nothing is begun.

        Who waits asks again in a moment, and then it is.
        """
        now = monotonic()
        with self._lock:
            first = self._first.setdefault(asked, now)
            while len(self._first) > _KEPT:
                self._first.popitem(last=False)
        return now - max(first, self._told) >= QUIET_S
