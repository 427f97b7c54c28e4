"""Reading a sound file through a library: WAV of every PCM format, FLAC. Limits and refusals."""

import io
from typing import TYPE_CHECKING, NamedTuple

import numpy as np
import numpy.typing as npt

from lyrandis.core.errors import DomainError

if TYPE_CHECKING:
    import soundfile

Array = npt.NDArray[np.floating]

MOST_BYTES = 50_000_000
LEAST_SECONDS, MOST_SECONDS = 0.3, 180.0
RATES_HZ = (8_000, 192_000)
MOST_CHANNELS = 8
MOST_SAMPLES = 24_000_000
"""Three minutes of 48 kHz stereo, with room: more would not fit into memory beside the rest."""
_READ_AS_THEY_ARE = frozenset({"WAV", "WAVEX", "RF64", "FLAC", "AIFF", "W64"})


class Head(NamedTuple):
    """What a file says of itself."""

    format: str
    rate_hz: int
    channels: int
    seconds: float
    lossy: bool


class Read(NamedTuple):
    """A file's samples, single, of shape (samples, channels), full scale 1, and its head."""

    samples: Array
    head: Head


_BRING_ANOTHER = "Bring a WAV or FLAC file, or what your phone recorded."


def _no_sound(reason: str) -> DomainError:
    return DomainError("not_a_sound", reason, _BRING_ANOTHER, "file")


def _opened(data: bytes) -> "soundfile.SoundFile":
    if not data:
        raise _no_sound("The file is empty.")
    if len(data) > MOST_BYTES:
        raise DomainError(
            "sound_too_long",
            f"The file has {len(data) / 1e6:.0f} MB, and {MOST_BYTES // 1_000_000} are taken.",
            "Record in mono, or cut it to the takes.",
            "file",
        )
    import soundfile  # some megabytes: who brings no sound does not pay for them

    try:
        return soundfile.SoundFile(io.BytesIO(data))
    except (soundfile.LibsndfileError, RuntimeError, ValueError, TypeError) as error:
        raise _no_sound("That is no sound file this bench can read.") from error


def _head(file: "soundfile.SoundFile") -> Head:
    if file.format not in _READ_AS_THEY_ARE:
        raise _no_sound("That is a compressed sound file under another name.")
    seconds = file.frames / file.samplerate if file.samplerate else 0.0
    if not RATES_HZ[0] <= file.samplerate <= RATES_HZ[1]:
        raise DomainError(
            "sound_rate",
            f"It was recorded at {file.samplerate} samples a second.",
            f"Record at {RATES_HZ[0]} to {RATES_HZ[1]}; phones use 44100 or 48000.",
            "file",
        )
    if file.channels > MOST_CHANNELS:
        raise _no_sound(f"It has {file.channels} channels, and {MOST_CHANNELS} are read.")
    if seconds < LEAST_SECONDS:
        raise DomainError(
            "sound_too_short",
            f"The recording lasts {seconds:.1f} s.",
            "Record three takes, two seconds apart.",
            "file",
        )
    if seconds > MOST_SECONDS or file.frames * file.channels > MOST_SAMPLES:
        raise DomainError(
            "sound_too_long",
            f"The recording lasts {seconds / 60:.1f} minutes.",
            f"Cut it to {MOST_SECONDS / 60:.0f} minutes at the most; one take wants two seconds.",
            "file",
        )
    pcm = file.subtype.startswith(("PCM", "FLOAT", "DOUBLE")) or file.format == "FLAC"
    return Head(file.format, file.samplerate, file.channels, seconds, not pcm)


def head_of(data: bytes) -> Head:
    """Return what a file says of itself, or raise `DomainError` with what to do instead."""
    with _opened(data) as file:
        return _head(file)


def read_sound(data: bytes) -> Read:
    """Return a file's samples; what is no number is silence. Raises `DomainError` as `head_of`."""
    import soundfile

    with _opened(data) as file:
        head = _head(file)
        try:
            samples = file.read(dtype="float32", always_2d=True)
        except (soundfile.LibsndfileError, RuntimeError) as error:
            raise _no_sound("The file breaks off where its sound should be.") from error
    clean = np.nan_to_num(samples, nan=0.0, posinf=0.0, neginf=0.0)
    if not len(clean):
        raise _no_sound("The file holds no sound.")
    return Read(np.clip(clean, -8.0, 8.0), head)


def wav_of(samples: Array, rate: int) -> bytes:
    """Return samples of full scale 1 as a WAV file of 16 bits."""
    import soundfile

    out = io.BytesIO()
    soundfile.write(out, samples, rate, format="WAV", subtype="PCM_16")
    return out.getvalue()
