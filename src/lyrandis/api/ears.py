"""Listening off the request's thread: one recording after the other, with how far each has come."""

from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor, TimeoutError
from threading import Lock
from typing import Generic, TypeVar

T = TypeVar("T")

_KEPT = 24
PATIENCE_S = 0.25
"""So long an answer is waited for before it is said how far it has come."""


class Work(Generic[T]):
    """Something that is being worked out."""

    def __init__(self) -> None:
        self.share = 0.0
        self.future: Future[T] | None = None

    def tell(self, share: float) -> None:
        """Take note of how far it has come, 0 to 1."""
        self.share = share

    def result(self) -> T | None:
        """Return what was found; None while it is worked out. Raises what the work raised."""
        assert self.future is not None
        try:
            return self.future.result(PATIENCE_S)
        except TimeoutError:
            return None


class Ears:
    """One thread that listens; the same question is worked out once."""

    def __init__(self) -> None:
        self._pool = ThreadPoolExecutor(max_workers=1, thread_name_prefix="ears")
        self._lock = Lock()
        self._works: OrderedDict[object, Work[object]] = OrderedDict()

    def ask(self, key: object, make: Callable[[Callable[[float], None]], T]) -> "Work[T]":
        """Return the work of a question, begun where it was not; `make` is given `tell`."""
        with self._lock:
            work = self._works.get(key)
            failed = (
                work is not None and work.future is not None and work.future.done()
                and work.future.exception() is not None
            )  # fmt: skip
            if work is None or failed:
                work = self._works[key] = Work()
                work.future = self._pool.submit(make, work.tell)
                while len(self._works) > _KEPT:
                    self._works.popitem(last=False)
            self._works.move_to_end(key)
            return work  # type: ignore[return-value]
