"""Recordings on this machine: kept once, whole or not at all, gone when forgotten."""

import errno
import os
import stat
from pathlib import Path

import numpy as np
import pytest

from lyrandis.core.errors import DomainError
from lyrandis.sounds.reading import wav_of
from lyrandis.sounds.recording_store import RecordingStore

ONE = wav_of(0.2 * np.sin(np.arange(16_000) / 9), 16_000)
OTHER = wav_of(0.2 * np.sin(np.arange(16_000) / 7), 16_000)


def test_a_recording_is_kept_once(tmp_path: Path) -> None:
    recordings = RecordingStore(tmp_path / "sounds")
    first = recordings.put(ONE, "shot ⟶ ñ “1”.wav")
    assert recordings.put(ONE, "another name.wav") == first
    recordings.put(OTHER, "other.wav", lossy=True, simulated=True)
    assert [one.name for one in recordings.all()] == ["shot ⟶ ñ “1”.wav", "other.wav"]
    assert recordings.data(first.mark) == ONE
    assert recordings.read(first.mark).head.rate_hz == 16_000
    assert (recordings.all()[1].lossy, recordings.all()[1].simulated) == (True, True)


def test_what_is_refused_leaves_nothing(tmp_path: Path) -> None:
    recordings = RecordingStore(tmp_path / "sounds")
    with pytest.raises(DomainError):
        recordings.put(b"no sound", "x.wav")
    assert not (tmp_path / "sounds").exists()


def test_forgetting_takes_the_file_away(tmp_path: Path) -> None:
    recordings = RecordingStore(tmp_path / "sounds")
    mark = recordings.put(ONE, "x.wav").mark
    recordings.forget(mark)
    recordings.forget(mark)
    assert not recordings.has(mark)
    assert list((tmp_path / "sounds").iterdir()) == []
    with pytest.raises(DomainError) as gone:
        recordings.data(mark)
    assert gone.value.code == "sound_forgotten"


@pytest.mark.parametrize("left", ["sound only", "words only", "words broken"])
def test_a_process_killed_in_the_middle_leaves_no_half(tmp_path: Path, left: str) -> None:
    recordings = RecordingStore(tmp_path)
    mark = recordings.put(ONE, "x.wav").mark
    sound, beside = tmp_path / f"{mark}.sound", tmp_path / f"{mark}.json"
    if left == "sound only":
        beside.unlink()
    elif left == "words only":
        sound.unlink()
    else:
        beside.write_bytes(beside.read_bytes()[:20])
    assert recordings.all() == []
    assert not recordings.has(mark)
    assert recordings.put(ONE, "again.wav").name == "again.wav"
    assert recordings.data(mark) == ONE


@pytest.mark.parametrize("mark", ["../../etc/passwd", "0" * 15, "G" * 16, "", "0" * 16])
def test_a_mark_is_no_path(tmp_path: Path, mark: str) -> None:
    recordings = RecordingStore(tmp_path / "sounds")
    (tmp_path / "passwd.sound").write_bytes(ONE)
    assert not recordings.has(mark)
    recordings.forget(mark)
    assert (tmp_path / "passwd.sound").exists()


def test_a_full_disk_is_said_and_leaves_nothing(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    recordings = RecordingStore(tmp_path / "sounds")

    def full(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("os.fsync", full)
    with pytest.raises(DomainError) as refused:
        recordings.put(ONE, "x.wav")
    assert refused.value.code == "disk_full"
    assert list((tmp_path / "sounds").iterdir()) == []


def test_a_damaged_recording_can_be_brought_again(tmp_path: Path) -> None:
    recordings = RecordingStore(tmp_path)
    mark = recordings.put(ONE, "x.wav").mark
    (tmp_path / f"{mark}.sound").write_bytes(ONE[:9000] + b"?" + ONE[9001:])
    assert recordings.put(ONE, "again.wav").name == "again.wav"
    assert recordings.data(mark) == ONE


def test_what_a_killed_process_left_is_swept_away(tmp_path: Path) -> None:
    recordings = RecordingStore(tmp_path)
    kept = recordings.put(ONE, "x.wav").mark
    names = [f"{'a' * 16}.sound.77.part", f"{'b' * 16}.sound", f"{'c' * 16}.sound"]
    for name in names:
        (tmp_path / name).write_bytes(b"half")
        os.utime(tmp_path / name, (0, 0))
    os.utime(tmp_path / names[2])  # it may still be written
    os.utime(tmp_path / f"{kept}.sound", (0, 0))
    recordings.sweep()
    assert {path.name for path in tmp_path.iterdir()} == {
        f"{kept}.sound", f"{kept}.json", names[2],
    }  # fmt: skip


@pytest.mark.parametrize(
    ("number", "code"),
    [(errno.EACCES, "folder_closed"), (errno.EROFS, "folder_closed"), (errno.ENOSPC, "disk_full"),
     (errno.EIO, "damaged")],
)  # fmt: skip
def test_what_cannot_be_written_says_why(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, number: int, code: str
) -> None:
    def fails(*_: object) -> None:
        raise OSError(number, os.strerror(number))

    monkeypatch.setattr("os.fsync", fails)
    with pytest.raises(DomainError) as refused:
        RecordingStore(tmp_path).put(ONE, "x.wav")
    assert refused.value.code == code
    assert ("full" in refused.value.reason) == (code == "disk_full")


def test_a_folder_taken_away_is_said_and_not_made_anew(tmp_path: Path) -> None:
    recordings = RecordingStore(tmp_path / "gone" / "sounds")
    with pytest.raises(DomainError) as refused:
        recordings.put(ONE, "x.wav")
    assert refused.value.code == "file_gone"
    assert not (tmp_path / "gone").exists()


def test_recordings_are_for_their_owner_alone(tmp_path: Path) -> None:
    RecordingStore(tmp_path / "sounds").put(ONE, "x.wav")
    modes = {stat.S_IMODE(path.stat().st_mode) for path in (tmp_path / "sounds").iterdir()}
    assert modes == {0o600}
