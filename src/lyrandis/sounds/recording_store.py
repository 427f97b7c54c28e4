"""Where recordings are kept: plain files beside the database, named by their content.

A file is written whole under another name and then renamed, so that a killed process leaves none
half. Forgetting takes the file away for good; the numbers stay in the log.
"""

import errno
import hashlib
import os
import re
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path
from time import time

from pydantic import BaseModel, ConfigDict

from lyrandis.core.errors import DomainError
from lyrandis.sounds.reading import Head, Read, head_of, read_channel

_MARK = re.compile(r"[0-9a-f]{16}")
SETTLED_S = 60.0
"""What is younger may still be written, by another window's bench."""


def _for_its_owner(path: str, flags: int) -> int:
    return os.open(path, flags, 0o600)


def _not_kept(error: OSError, folder: Path) -> DomainError:
    """Return why a recording could not be kept, in words that are true of it."""
    if error.errno in (errno.EACCES, errno.EPERM, errno.EROFS):
        return DomainError(
            "folder_closed",
            f"The recording could not be kept: {folder} cannot be written to.",
            "Allow writing there, then bring it again. Nothing is lost of it.",
            "file",
        )
    if error.errno in (errno.ENOENT, errno.ENOTDIR):
        return DomainError(
            "file_gone",
            f"{folder.parent} was taken away while Lyrandis was running: nothing is kept.",
            "Put the folder back where it was and bring the recording again.",
            "file",
        )
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return DomainError(
            "disk_full",
            "The disk is full: the recording could not be kept.",
            "Free some space, then bring it again. Nothing is lost of it.",
            "file",
        )
    return DomainError(
        "damaged",
        f"The recording could not be kept: {error.strerror}.",
        "See to the disk, then bring it again. Nothing is lost of it.",
        "file",
    )


class Kept(BaseModel):
    """A recording that is kept on this machine."""

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


class RecordingStore:
    """The recordings of one bench."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder

    def put(self, data: bytes, name: str, *, lossy: bool = False, simulated: bool = False) -> Kept:
        """Keep a recording; the same one again is kept once. Raises `DomainError`."""
        head: Head = head_of(data)
        mark = hashlib.sha256(data).hexdigest()[:16]
        with suppress(DomainError, OSError):
            about = self.about(mark)
            # one that was damaged since is kept anew
            if hashlib.sha256(self._sound(mark).read_bytes()).hexdigest()[:16] == mark:
                return about
        kept = Kept(
            mark=mark, name=name, format=head.format, seconds=head.seconds, rate_hz=head.rate_hz,
            channels=head.channels, size=len(data), lossy=lossy or head.lossy,
            simulated=simulated, kept_at=datetime.now(UTC),
        )  # fmt: skip
        try:
            # not its parents: a data folder that was taken away is not made anew
            self._folder.mkdir(exist_ok=True, mode=0o700)
            self._write(self._sound(mark), data)
            # last: what has this beside it is whole
            self._write(self._beside(mark), kept.model_dump_json().encode())
        except OSError as error:
            with suppress(OSError):
                self._take_away(mark)
            raise _not_kept(error, self._folder) from error
        return kept

    def sweep(self) -> None:
        """Take away what killed processes left half: drafts, and sounds nobody speaks of."""
        if not self._folder.is_dir():
            return
        for path in (*self._folder.glob("*.part"), *self._folder.glob("*.sound")):
            lonely = path.suffix == ".part" or not self._beside(path.stem).exists()
            with suppress(OSError):
                if lonely and time() - path.stat().st_mtime > SETTLED_S:
                    path.unlink()

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
            with open(draft, "wb", opener=_for_its_owner) as out:
                out.write(data)
                out.flush()
                os.fsync(out.fileno())
            draft.replace(path)
        finally:
            with suppress(FileNotFoundError):
                draft.unlink()
