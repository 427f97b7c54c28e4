"""The curves of flight of every rig lately asked for, worked out off the request's thread."""

from collections import OrderedDict
from concurrent.futures import Future, ThreadPoolExecutor
from threading import Lock

from lyrandis.core.flight.evidence import Asked, Reckoned, known, reckon

_KEPT = 24


class Reckoning:
    """One thread that reckons, and what it has found; the same rig is reckoned once."""

    def __init__(self) -> None:
        self._pool = ThreadPoolExecutor(max_workers=1, thread_name_prefix="reckoning")
        self._lock = Lock()
        self._found: OrderedDict[Asked, Future[Reckoned]] = OrderedDict()

    def ready(self, asked: Asked) -> Reckoned | None:
        """Return what is known; else begin, and return None."""
        found = known(asked)
        if found is not None:
            return found
        future = self._begun(asked)
        return future.result() if future.done() else None

    def wait(self, asked: Asked) -> Reckoned:
        """Return what is known once it is."""
        return self._begun(asked).result()

    def _begun(self, asked: Asked) -> "Future[Reckoned]":
        with self._lock:
            future = self._found.get(asked)
            if future is None or (future.done() and future.exception() is not None):
                future = self._found[asked] = self._pool.submit(reckon, asked)
                while len(self._found) > _KEPT:
                    self._found.popitem(last=False)
            self._found.move_to_end(asked)
            return future
