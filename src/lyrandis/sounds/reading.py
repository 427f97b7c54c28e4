"""Reading a sound file through a library: WAV of every PCM format, FLAC. Limits and refusals.

A file is read block by block, and of several channels the one to listen to alone is kept: three
minutes of stereo take no more memory than their one channel.
"""

import io
from collections.abc import Iterator
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple

import numpy as np
import numpy.typing as npt

from lyrandis.core.errors import DomainError
from lyrandis.core.listen.sound import frame_levels, standing_out

if TYPE_CHECKING:
    import soundfile

Floats = npt.NDArray[np.floating]

MOST_BYTES = 50_000_000
LEAST_SECONDS, MOST_SECONDS = 0.3, 180.0
RATES_HZ = (8_000, 192_000)
MOST_CHANNELS = 8
MOST_SAMPLES = 24_000_000
"""Three minutes of 48 kHz stereo, with room: more takes too long to listen to."""
LOUDEST = 8.0
"""Full scale is 1: what is louder is no sound."""
_READ_AS_THEY_ARE = frozenset({"WAV", "WAVEX", "RF64", "FLAC", "AIFF", "W64"})
_PLAIN = ("PCM", "FLOAT", "DOUBLE")
_FOLDED = frozenset({"ALAW", "ULAW"})
"""Codings of eight bits that are unfolded as they are read."""
_CODINGS = "plain (PCM of 8 to 32 bits), floating point, A-law and µ-law"
_SECONDS_AT_ONCE = 1


class Head(NamedTuple):
    """What a file says of itself."""

    format: str
    rate_hz: int
    channels: int
    seconds: float
    lossy: bool


class Read(NamedTuple):
    """The channel that stands out, single, of shape (samples,), full scale 1; and the head."""

    samples: Floats
    head: Head


_BRING_ANOTHER = "Bring a WAV or FLAC file, or what your phone recorded."


def _no_sound(reason: str, instruction: str = _BRING_ANOTHER) -> DomainError:
    return DomainError("not_a_sound", reason, instruction, "file")


def _too_long(seconds: float) -> DomainError:
    return DomainError(
        "sound_too_long",
        f"The recording lasts {seconds / 60:.1f} minutes.",
        f"Cut it to {MOST_SECONDS / 60:.0f} minutes at the most; one take wants two seconds.",
        "file",
    )


def _opened(source: bytes | Path) -> "soundfile.SoundFile":
    size = len(source) if isinstance(source, bytes) else source.stat().st_size
    if not size:
        raise _no_sound("The file is empty.")
    if size > MOST_BYTES:
        raise DomainError(
            "sound_too_long",
            f"The file has {size / 1e6:.0f} MB, and {MOST_BYTES // 1_000_000} are taken.",
            "Record in mono, or cut it to the takes.",
            "file",
        )
    import soundfile  # some megabytes: who brings no sound does not pay for them

    try:
        return soundfile.SoundFile(io.BytesIO(source) if isinstance(source, bytes) else source)
    except (soundfile.LibsndfileError, RuntimeError, ValueError, TypeError) as error:
        raise _no_sound("That is no sound file this bench can read.") from error


def _blocks(source: bytes | Path) -> Iterator[Floats]:
    """Read a file from its start in blocks of (samples, channels); what is no number is silence.

    It is opened anew: a stream of unknown length cannot be wound back.
    """
    import soundfile

    with _opened(source) as file:
        size = round(0.02 * file.samplerate) * 50 * _SECONDS_AT_ONCE
        # read on, never wound to and fro: the end of a stream of unknown length cannot be sought
        file.seekable = lambda: False
        while True:
            block = np.empty((size, file.channels), dtype=np.float32)
            try:
                block = file.read(out=block)
            except (soundfile.LibsndfileError, RuntimeError) as error:
                raise _no_sound("The file breaks off where its sound should be.") from error
            if not len(block):
                return
            np.nan_to_num(block, copy=False, nan=0.0, posinf=0.0, neginf=0.0)
            np.clip(block, -LOUDEST, LOUDEST, out=block)
            yield block
            if len(block) < size:
                return


def _length(file: "soundfile.SoundFile", source: bytes | Path) -> int:
    """Return how many samples a file has; one that does not say is read to its end."""
    most = round(MOST_SECONDS * file.samplerate)
    # a stream that was not finished says nothing, or the most a number can be
    said_by_file = 0 < file.frames < 2**62
    if said_by_file:
        return int(file.frames)
    if file.format != "FLAC":
        return 0
    count = 0
    for block in _blocks(source):
        count += len(block)
        if count > most:
            break
    return count


def _head(file: "soundfile.SoundFile", source: bytes | Path) -> Head:
    if file.format not in _READ_AS_THEY_ARE:
        raise _no_sound("That is a compressed sound file under another name.")
    plain = file.subtype.startswith(_PLAIN) or file.format == "FLAC"
    if not plain and file.subtype not in _FOLDED:
        raise _no_sound(
            f"Its sound is coded as {file.subtype.replace('_', ' ')}, which is not read here.",
            f"Save it with another coding: {_CODINGS} are read, and FLAC.",
        )
    if not RATES_HZ[0] <= file.samplerate <= RATES_HZ[1]:
        raise DomainError(
            "sound_rate",
            f"It was recorded at {file.samplerate} samples a second.",
            f"Record at {RATES_HZ[0]} to {RATES_HZ[1]}; phones use 44100 or 48000.",
            "file",
        )
    if file.channels > MOST_CHANNELS:
        raise _no_sound(f"It has {file.channels} channels, and {MOST_CHANNELS} are read.")
    count = _length(file, source)
    seconds = count / file.samplerate
    if seconds < LEAST_SECONDS:
        raise DomainError(
            "sound_too_short",
            f"The recording lasts {seconds:.1f} s.",
            "Record three takes, two seconds apart.",
            "file",
        )
    if seconds > MOST_SECONDS or count * file.channels > MOST_SAMPLES:
        raise _too_long(seconds)
    return Head(file.format, file.samplerate, file.channels, seconds, not plain)


def head_of(source: bytes | Path) -> Head:
    """Return what a file says of itself, its first block read; or raise `DomainError`."""
    with _opened(source) as file:
        head = _head(file, source)
    if next(_blocks(source), None) is None:
        raise _no_sound("The file holds no sound.")
    return head


def read_channel(source: bytes | Path) -> Read:
    """Return the channel of a file that stands out most of its own silence.

    Raises `DomainError` as `head_of`.
    """
    with _opened(source) as file:
        head = _head(file, source)
    rate = float(head.rate_hz)
    chosen = 0
    if head.channels > 1:
        levels: list[list[Floats]] = [[] for _ in range(head.channels)]
        for block in _blocks(source):
            for number, channel in enumerate(block.T):
                levels[number].append(frame_levels(channel, rate))
        chosen = standing_out([np.concatenate(one) for one in levels])
    found = np.empty(round(head.seconds * rate), dtype=np.float32)
    count = 0
    for block in _blocks(source):
        taken = block[: len(found) - count, chosen]
        found[count : count + len(taken)] = taken
        count += len(taken)
    if not count:
        raise _no_sound("The file holds no sound.")
    return Read(found[:count], head)


def wav_of(samples: Floats, rate: int) -> bytes:
    """Return samples of full scale 1 as a WAV file of 16 bits."""
    import soundfile

    out = io.BytesIO()
    soundfile.write(out, samples, rate, format="WAV", subtype="PCM_16")
    return out.getvalue()
