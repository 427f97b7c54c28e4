"""Where recordings are kept: plain files beside the database, named by their content.

A file is written whole under another name and then renamed, so that a killed process leaves none
half. Forgetting takes the file away for good; the numbers stay in the log.
"""

import hashlib
import os
import re
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path

from pydantic import BaseModel, ConfigDict

from lyrandis.core.errors import DomainError
from lyrandis.sounds.reading import Head, Read, head_of, read_channel

_MARK = re.compile(r"[0-9a-f]{16}")


class Kept(BaseModel):
    """A recording on the shelf."""

    model_config = ConfigDict(frozen=True)

    mark: str
    name: str
    format: str
    seconds: float
    rate_hz: int
    channels: int
    size: int
    lossy: bool = False
    simulated: bool = False
    kept_at: datetime


class Shelf:
    """The recordings of one bench."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder

    def put(self, data: bytes, name: str, *, lossy: bool = False, simulated: bool = False) -> Kept:
        """Keep a recording; the same one again is kept once. Raises `DomainError`."""
        head: Head = head_of(data)
        mark = hashlib.sha256(data).hexdigest()[:16]
        with suppress(DomainError):
            return self.about(mark)
        kept = Kept(
            mark=mark, name=name, format=head.format, seconds=head.seconds, rate_hz=head.rate_hz,
            channels=head.channels, size=len(data), lossy=lossy or head.lossy,
            simulated=simulated, kept_at=datetime.now(UTC),
        )  # fmt: skip
        try:
            self._folder.mkdir(parents=True, exist_ok=True, mode=0o700)
            self._write(self._sound(mark), data)
            # last: what has this beside it is whole
            self._write(self._beside(mark), kept.model_dump_json().encode())
        except OSError as error:
            self._take_away(mark)
            raise DomainError(
                "disk_full",
                f"The recording could not be kept: {error.strerror}.",
                "Free some space, then bring it again. Nothing is lost of it.",
                "file",
            ) from error
        return kept

    def all(self) -> list[Kept]:
        """Return what is kept, newest last."""
        found = []
        for path in self._folder.glob("*.json") if self._folder.is_dir() else ():
            with suppress(DomainError):
                found.append(self.about(path.stem))
        return sorted(found, key=lambda one: (one.kept_at, one.mark))

    def about(self, mark: str) -> Kept:
        """Return what is known of a recording. Raises `DomainError` where it is not kept."""
        if _MARK.fullmatch(mark):
            with suppress(OSError, ValueError):
                if self._sound(mark).is_file():
                    return Kept.model_validate_json(self._beside(mark).read_bytes())
        raise DomainError(
            "sound_forgotten",
            "That recording is not kept here any more.",
            "Its numbers stay. Record anew to hear it.",
            "mark",
        )

    def has(self, mark: str) -> bool:
        """Return whether a recording is kept."""
        with suppress(DomainError):
            self.about(mark)
            return True
        return False

    def data(self, mark: str) -> bytes:
        """Return a recording's file. Raises `DomainError` where it is not kept."""
        self.about(mark)
        return self._sound(mark).read_bytes()

    def read(self, mark: str) -> Read:
        """Return a recording's samples. Raises `DomainError` where it is not kept."""
        self.about(mark)
        return read_channel(self._sound(mark))

    def forget(self, mark: str) -> None:
        """Take a recording away for good; nothing where it is gone already."""
        if _MARK.fullmatch(mark):
            self._take_away(mark)

    def _take_away(self, mark: str) -> None:
        for path in (self._sound(mark), self._beside(mark)):
            with suppress(FileNotFoundError):
                path.unlink()

    def _sound(self, mark: str) -> Path:
        return self._folder / f"{mark}.sound"

    def _beside(self, mark: str) -> Path:
        return self._folder / f"{mark}.json"

    def _write(self, path: Path, data: bytes) -> None:
        draft = path.with_suffix(f"{path.suffix}.{os.getpid()}.part")
        try:
            with draft.open("wb") as out:
                out.write(data)
                out.flush()
                os.fsync(out.fileno())
            draft.replace(path)
        finally:
            with suppress(FileNotFoundError):
                draft.unlink()
