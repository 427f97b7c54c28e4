"""One worker for long work: boards, plans, curves of flight and listening, one after the other.

Two at once would only share the one processor, and requests have it first: they never wait here.
Who asks is told how far it has come and asks again; what nobody asks for any more is left out.
"""

from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future, InvalidStateError
from contextlib import suppress
from dataclasses import dataclass, field
from enum import IntEnum
from itertools import count
from threading import Condition, Thread
from time import monotonic
from typing import Any

from lyrandis.core.errors import DomainError

FORGOTTEN_S = 3.0
"""What nobody has asked for so long is left out."""
MOST_WAITING = 32
MOST_KEPT = 48
"""Answers kept, some hundred kB at the most."""

Tell = Callable[[float], None]
"""Told how far work has come, 0 to 1; raises `ForgottenError` where nobody waits any more."""


class Priority(IntEnum):
    """What goes first."""

    LOOKED_AT = 0
    """What somebody is looking at."""
    CURVES = 1
    """What an assessment will say once it is there."""
    LISTENING = 2
    """Recordings: seconds each."""


class ForgottenError(Exception):
    """Nobody asks for the work any more."""


@dataclass(eq=False)
class Job:
    """One piece of work, asked for under a key."""

    key: object
    slot: object
    """Of what shares a slot only the newest waits."""
    priority: Priority
    make: Callable[[Tell], Any]
    number: int
    asked_at: float
    share: float = 0.0
    future: Future[Any] = field(default_factory=Future)

    def tell(self, share: float) -> None:
        """Take note of how far it has come."""
        self.share = share
        if monotonic() - self.asked_at > FORGOTTEN_S:
            raise ForgottenError


class Worker:
    """A thread of its own, a bounded queue in order of priority, and what was worked out lately."""

    def __init__(self) -> None:
        self._changed = Condition()
        self._jobs: OrderedDict[object, Job] = OrderedDict()
        """Waiting, being worked on, and done, by key."""
        self._waiting: list[Job] = []
        self._numbers = count()
        self._thread: Thread | None = None
        self._closed = False

    def ask(
        self,
        key: object,
        make: Callable[[Tell], Any],
        *,
        slot: object = None,
        priority: Priority = Priority.LOOKED_AT,
    ) -> Job:
        """Return the work of a key, begun where it was not; asking keeps it alive.

        `slot` names what takes each other's place while it waits: of a slider's questions the
        newest. Raises `DomainError` where too much is asked for at once.
        """
        with self._changed:
            job = self._jobs.get(key)
            if job is not None and not _failed(job):
                job.asked_at = monotonic()
                self._jobs.move_to_end(key)
                return job
            self._make_room(slot)
            job = Job(key, slot, priority, make, next(self._numbers), monotonic())
            self._jobs[key] = job
            self._waiting.append(job)
            if self._thread is None:
                self._thread = Thread(target=self._work, name="worker", daemon=True)
                self._thread.start()
            self._changed.notify()
            return job

    def known(self, key: object) -> Any:
        """Return what was worked out under a key; None where it is not there."""
        with self._changed:
            job = self._jobs.get(key)
        if job is None or not job.future.done() or _failed(job):
            return None
        return job.future.result()

    def drop(self, key: object) -> None:
        """Leave work out that has not begun."""
        with self._changed:
            job = self._jobs.get(key)
            if job is not None and job in self._waiting:
                self._leave_out(job)

    def close(self) -> None:
        """Let go of what waits; what is being worked on comes to its end."""
        with self._changed:
            self._closed = True
            for job in tuple(self._waiting):
                self._leave_out(job)
            self._changed.notify()

    def _make_room(self, slot: object) -> None:
        if slot is not None:
            for job in tuple(self._waiting):
                if job.slot == slot:
                    self._leave_out(job)
        if len(self._waiting) >= MOST_WAITING:
            self._leave_out_forgotten()
        if len(self._waiting) >= MOST_WAITING:
            raise DomainError(
                "busy",
                "Lyrandis has too much to work out at once.",
                "Close windows that are not needed, and ask again in a moment.",
            )
        done = [job for job in self._jobs.values() if job.future.done()]
        for job in done[: max(len(done) - MOST_KEPT, 0)]:
            del self._jobs[job.key]

    def _leave_out(self, job: Job) -> None:
        self._waiting.remove(job)
        if self._jobs.get(job.key) is job:
            del self._jobs[job.key]
        job.future.cancel()

    def _leave_out_forgotten(self) -> None:
        now = monotonic()
        for job in tuple(self._waiting):
            if now - job.asked_at > FORGOTTEN_S:
                self._leave_out(job)

    def _work(self) -> None:
        while True:
            with self._changed:
                self._leave_out_forgotten()
                while not self._waiting:
                    if self._closed:
                        return
                    self._changed.wait()
                job = min(self._waiting, key=lambda job: (job.priority, job.number))
                self._waiting.remove(job)
            with suppress(InvalidStateError):
                self._carry_out(job)

    def _carry_out(self, job: Job) -> None:
        try:
            made = job.make(job.tell)
        except ForgottenError:
            with self._changed:
                if self._jobs.get(job.key) is job:
                    del self._jobs[job.key]
            job.future.cancel()
        except BaseException as error:
            job.future.set_exception(error)
        else:
            job.share = 1.0
            job.future.set_result(made)


def _failed(job: Job) -> bool:
    if not job.future.done():
        return False
    return job.future.cancelled() or job.future.exception() is not None
