"""The curves of flight of every rig lately asked for, worked out off the request's thread."""

from collections import OrderedDict
from concurrent.futures import CancelledError, Future, ThreadPoolExecutor
from contextlib import suppress
from threading import Lock
from time import monotonic

from lyrandis.core.flight.evidence import Asked, Reckoned, known, reckon

_KEPT = 24
QUIET_S = 0.2
"""While readings come in sooner than this, nothing is begun."""


class Reckoning:
    """One thread that reckons, and what it has found; the same rig is reckoned once."""

    def __init__(self) -> None:
        self._pool = ThreadPoolExecutor(max_workers=1, thread_name_prefix="reckoning")
        self._lock = Lock()
        self._found: OrderedDict[Asked, Future[Reckoned]] = OrderedDict()
        self._first: OrderedDict[Asked, float] = OrderedDict()
        """When each rig that is not begun was asked for first."""
        self._told = 0.0
        """When something was recorded last."""

    def ready(self, asked: Asked) -> Reckoned | None:
        """Return what is known, else None; begun once asked for again after a quiet moment."""
        found = known(asked)
        if found is not None:
            return found
        with self._lock:
            begun = asked in self._found
            if not begun and not self._asked_before(asked):
                return None
        future = self._begun(asked)
        return future.result() if future.done() else None

    def _asked_before(self, asked: Asked) -> bool:
        """Return whether a rig stays as it is: while readings still come in, nothing is begun.

        Who waits asks again in a moment, and then it is.
        """
        now = monotonic()
        first = self._first.setdefault(asked, now)
        while len(self._first) > _KEPT:
            self._first.popitem(last=False)
        return now - max(first, self._told) >= QUIET_S

    def told(self) -> None:
        """Take note that something was recorded: more may follow at once."""
        self._told = monotonic()

    def wait(self, asked: Asked) -> Reckoned:
        """Return what is known once it is."""
        while True:
            with suppress(CancelledError):  # left out while it was waited for: begun anew
                return self._begun(asked).result()

    def drop(self, asked: Asked) -> None:
        """Leave out a rig that has changed since, unless it is being reckoned already."""
        with self._lock:
            self._first.pop(asked, None)
            future = self._found.get(asked)
            if future is not None and future.cancel():
                del self._found[asked]

    def _begun(self, asked: Asked) -> "Future[Reckoned]":
        with self._lock:
            future = self._found.get(asked)
            if future is None or (future.done() and future.exception() is not None):
                future = self._found[asked] = self._pool.submit(reckon, asked)
                while len(self._found) > _KEPT:
                    self._found.popitem(last=False)
            self._found.move_to_end(asked)
            return future
