"""Lines the bench refused, and words it was taught by them. Nothing leaves the machine."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from threading import Lock

from sqlalchemy import Engine, delete, func, insert, select, update

from lyrandis.core.errors import DomainError
from lyrandis.core.hearing.taught import Taught
from lyrandis.store.models import REFUSED_TABLE, SETTING_TABLE, TAUGHT_TABLE

MOST_REFUSED = 500
"""Kept lines; the oldest goes where one more comes."""
MOST_TAUGHT = 500
_KEEPS = "keep_refused_lines"


@dataclass(frozen=True, slots=True)
class RefusedLine:
    """A line that was entered and could not be read."""

    id: int
    line: str
    times: int
    last_at: datetime


@dataclass(frozen=True, slots=True)
class TaughtWord:
    """A phrase of this bench, and the line it was learnt from."""

    id: int
    taught: Taught
    line: str


class OwnWords:
    """What this bench alone has heard and learnt. Every write is one transaction."""

    def __init__(self, engine: Engine, clock: Callable[[], datetime]) -> None:
        self._read = engine
        self._write = engine.execution_options(writing=True)
        self._clock = clock
        self._lock = Lock()
        self._taught: tuple[Taught, ...] | None = None

    @property
    def keeps(self) -> bool:
        """Whether refused lines are kept; they are until somebody says no."""
        query = select(SETTING_TABLE.c.value).where(SETTING_TABLE.c.name == _KEEPS)
        with self._read.connect() as connection:
            return connection.scalar(query) != "no"

    def keep_or_not(self, keep: bool) -> None:
        """Turn the keeping of refused lines on or off; what is kept stays."""
        with self._write.begin() as connection:
            connection.execute(delete(SETTING_TABLE).where(SETTING_TABLE.c.name == _KEEPS))
            value = "yes" if keep else "no"
            connection.execute(insert(SETTING_TABLE).values(name=_KEEPS, value=value))

    def refused(self) -> list[RefusedLine]:
        """Return the lines that could not be read, the newest first."""
        query = select(REFUSED_TABLE).order_by(REFUSED_TABLE.c.last_at.desc(), REFUSED_TABLE.c.id)
        with self._read.connect() as connection:
            return [
                RefusedLine(row.id, row.line, row.times, row.last_at)
                for row in connection.execute(query)
            ]

    def keep(self, line: str) -> bool:
        """Keep a refused line; return whether it is kept."""
        if not self.keeps:
            return False
        of_line = REFUSED_TABLE.c.line == line
        with self._write.begin() as connection:
            again = update(REFUSED_TABLE).where(of_line)
            counted = again.values(times=REFUSED_TABLE.c.times + 1, last_at=self._clock())
            if connection.execute(counted).rowcount == 0:
                connection.execute(
                    insert(REFUSED_TABLE).values(line=line, times=1, last_at=self._clock())
                )
            count = connection.scalar(select(func.count()).select_from(REFUSED_TABLE)) or 0
            if count > MOST_REFUSED:
                oldest = select(REFUSED_TABLE.c.id).order_by(REFUSED_TABLE.c.last_at).limit(1)
                connection.execute(
                    delete(REFUSED_TABLE).where(REFUSED_TABLE.c.id == oldest.scalar_subquery())
                )
        return True

    def wipe(self, only: int | None = None) -> None:
        """Wipe all refused lines, or one."""
        gone = delete(REFUSED_TABLE)
        with self._write.begin() as connection:
            connection.execute(gone if only is None else gone.where(REFUSED_TABLE.c.id == only))

    def words(self) -> list[TaughtWord]:
        """Return what was taught, in order."""
        with self._read.connect() as connection:
            rows = connection.execute(select(TAUGHT_TABLE).order_by(TAUGHT_TABLE.c.id)).all()
        return [
            TaughtWord(row.id, Taught(row.phrase, row.row, row.choice, row.said), row.line)
            for row in rows
        ]

    def taught(self) -> tuple[Taught, ...]:
        """Return the phrases alone; read once until one is added or taken away."""
        with self._lock:
            if self._taught is None:
                self._taught = tuple(dict.fromkeys(word.taught for word in self.words()))
            return self._taught

    def teach(self, taught: Taught, line: str) -> None:
        """Keep a phrase; the line it was learnt from is refused no more."""
        with self._lock, self._write.begin() as connection:
            count = connection.scalar(select(func.count()).select_from(TAUGHT_TABLE)) or 0
            if count >= MOST_TAUGHT:
                raise DomainError(
                    "too_many",
                    f"This bench was taught {MOST_TAUGHT} phrases already.",
                    "Take some away on the page of words.",
                )
            connection.execute(
                insert(TAUGHT_TABLE).values(
                    phrase=taught.phrase, row=taught.row, choice=taught.choice, said=taught.said,
                    line=line, taught_at=self._clock(),
                )
            )  # fmt: skip
            connection.execute(delete(REFUSED_TABLE).where(REFUSED_TABLE.c.line == line))
            self._taught = None

    def unteach(self, word: int) -> None:
        """Take a phrase away again."""
        with self._lock, self._write.begin() as connection:
            connection.execute(delete(TAUGHT_TABLE).where(TAUGHT_TABLE.c.id == word))
            self._taught = None
