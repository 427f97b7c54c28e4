"""Sound files as other tools write them, and files that are none.

`files/` was written by sox 14.4.2, half a second or less of a tone of 440 Hz at -6 dB:
`sox -R -n -r 8000 -c 1 -e signed-integer -b 16 s16.wav synth 0.4 sine 440 gain -6`, and so on.
"""

import io
import struct
from pathlib import Path

import numpy as np
import pytest
import soundfile

from lyrandis.core.errors import DomainError
from lyrandis.core.listen.sound import best_channel
from lyrandis.sounds.reading import MOST_BYTES, head_of, read_channel, wav_of

FILES = Path(__file__).with_name("files")
# a step and a half of each: sox dithers what it writes
ERRORS = {"u8.wav": 1.2e-2, "s16.wav": 5e-5, "s24.wav": 1e-7, "s32.wav": 1e-7, "f32.wav": 1e-7,
          "f64.wav": 1e-7, "plain.flac": 5e-5, "deep.flac": 1e-7, "odd.aiff": 5e-5,
          "alaw.wav": 0.02, "ulaw.wav": 0.02}  # fmt: skip


@pytest.mark.parametrize("name", ERRORS)
def test_files_of_another_tool_are_read(name: str) -> None:
    samples, head = read_channel((FILES / name).read_bytes())
    assert (head.rate_hz, head.channels, round(head.seconds, 2)) == (8000, 1, 0.4)
    exact = read_channel((FILES / "f64.wav").read_bytes()).samples
    assert np.abs(samples - exact).max() < ERRORS[name] + 1e-7
    spectrum = np.abs(np.fft.rfft(samples))
    assert np.argmax(spectrum) * 8000 / len(samples) == pytest.approx(440, abs=3)
    assert head.lossy == (name in ("alaw.wav", "ulaw.wav"))


def test_two_channels_and_another_rate_are_read() -> None:
    samples, head = read_channel((FILES / "wide.wav").read_bytes())
    assert (samples.shape, head.channels) == ((15435,), 2)
    assert head.rate_hz == 44_100


def wav(samples: np.ndarray, rate: int = 16_000, **more: str) -> bytes:
    out = io.BytesIO()
    soundfile.write(out, samples, rate, format="WAV", **{"subtype": "PCM_16", **more})
    return out.getvalue()


TONE = 0.3 * np.sin(2 * np.pi * 440 * np.arange(16_000) / 16_000)


def bad_chunks() -> bytes:
    """A WAV with an odd, padded chunk before its data: it is read all the same."""
    whole = wav(TONE)
    odd = b"LIST" + struct.pack("<I", 5) + b"abcde\0"
    return whole[:36] + odd + whole[36:]


@pytest.mark.parametrize(
    ("data", "code", "says"),
    [
        (b"", "not_a_sound", "empty"),
        (b"\x89PNG\r\n\x1a\n" + bytes(400), "not_a_sound", "no sound file"),
        (b"RIFF", "not_a_sound", "no sound file"),
        (b"RIFF" + bytes(400), "not_a_sound", "no sound file"),
        ((FILES / "renamed-ogg.wav").read_bytes(), "not_a_sound", "compressed"),
        (wav(np.zeros(0)), "sound_too_short", "0.0 s"),
        (wav(np.zeros(1600)), "sound_too_short", "0.1 s"),
        (wav(np.zeros(8_000 * 600), 8_000), "sound_too_long", "10.0 minutes"),
        (wav(np.zeros(4_000), 4_000), "sound_rate", "4000"),
        (wav(np.zeros(200_000), 200_000), "sound_rate", "200000"),
        (wav(np.zeros((8_000, 9)), 8_000), "not_a_sound", "9 channels"),
        (bytes(MOST_BYTES + 1), "sound_too_long", "50 MB"),
    ],
    ids=["nothing", "a picture", "four bytes", "zeros", "renamed", "0 s", "0.1 s", "10 minutes",
         "4 kHz", "200 kHz", "nine channels", "50 MB"],
)  # fmt: skip
def test_what_is_no_sound_is_refused_with_what_to_do(data: bytes, code: str, says: str) -> None:
    with pytest.raises(DomainError) as refused:
        read_channel(data)
    assert refused.value.code == code
    assert says.split()[0] in refused.value.reason
    assert refused.value.instruction
    assert refused.value.field == "file"


@pytest.mark.parametrize("rate", [8_000, 192_000])
def test_the_slowest_and_the_quickest_rate_are_read(rate: int) -> None:
    assert head_of(wav(np.zeros(rate // 2), rate)).rate_hz == rate


def test_a_file_cut_short_is_read_as_far_as_it_goes() -> None:
    samples, _ = read_channel(wav(TONE)[:20_000])
    assert 9_000 < len(samples) < 10_000


def test_an_odd_chunk_is_passed_over() -> None:
    assert len(read_channel(bad_chunks()).samples) == 16_000


def test_what_is_no_number_is_silence() -> None:
    broken = np.where(np.arange(16_000) % 5 == 0, np.nan, TONE)
    broken[3] = np.inf
    samples, _ = read_channel(wav(broken, subtype="FLOAT"))
    assert np.isfinite(samples).all()
    assert samples[0] == samples[3] == 0.0


def test_a_dead_side_is_not_listened_to() -> None:
    samples, _ = read_channel(wav(np.column_stack([np.zeros(16_000), TONE])))
    assert np.abs(samples).max() > 0.25


def test_what_is_written_is_read_back() -> None:
    samples, head = read_channel(wav_of(TONE, 16_000))
    assert np.abs(samples - TONE).max() < 4e-5
    assert head.format == "WAV"


def test_of_two_sides_the_same_is_chosen_block_by_block_as_at_once() -> None:
    noise = np.random.default_rng(3).normal(size=(80_000, 3)) * 1e-3
    for loud in range(3):
        both = noise.copy()
        both[40_000:48_000, loud] += TONE[:8_000]
        samples, _ = read_channel(wav(both, subtype="FLOAT"))
        assert np.abs(samples - best_channel(both, 16_000.0)).max() < 1e-6


def of_unknown_length(flac: bytes) -> bytes:
    """A FLAC as a recorder leaves it that was not told to end: its length says nought."""
    # STREAMINFO begins at byte 8; its total of samples is the last 36 bits of bytes 18 to 25
    head = bytearray(flac)
    head[8 + 13] &= 0xF0
    head[8 + 14 : 8 + 18] = bytes(4)
    return bytes(head)


def flac(samples: np.ndarray, rate: int = 16_000) -> bytes:
    out = io.BytesIO()
    soundfile.write(out, samples, rate, format="FLAC")
    return out.getvalue()


def test_a_flac_that_does_not_say_its_length_is_read_to_its_end() -> None:
    data = of_unknown_length(flac(TONE))
    assert head_of(data).seconds == pytest.approx(1.0)
    assert len(read_channel(data).samples) == 16_000
    with pytest.raises(DomainError, match="minutes") as refused:
        head_of(of_unknown_length(flac(np.zeros(8_000 * 200), 8_000)))
    assert refused.value.code == "sound_too_long"


@pytest.mark.parametrize("subtype", ["GSM610", "MS_ADPCM", "IMA_ADPCM"])
def test_a_coding_that_is_not_read_is_named_with_those_that_are(subtype: str) -> None:
    with pytest.raises(DomainError, match=subtype.split("_")[0]) as refused:
        head_of(wav(TONE, 8_000, subtype=subtype))
    assert "A-law" in refused.value.instruction


def test_a_file_that_breaks_off_at_once_is_refused_when_it_is_brought() -> None:
    with pytest.raises(DomainError) as refused:
        head_of(flac(TONE)[:60])
    assert refused.value.code in ("not_a_sound", "sound_too_short")
