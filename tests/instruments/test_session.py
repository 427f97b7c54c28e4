"""Taking a reading: simulated, failing in every way, and over a serial line that is a terminal."""

import os
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from lyrandis.core.example import rig
from lyrandis.instruments.bench import truth_of
from lyrandis.instruments.instrument import MAKES, InstrumentKind, Shown, UnpluggedError, read
from lyrandis.instruments.serial_line import SerialLine
from lyrandis.instruments.session import Failed, Sample, Taken, take_reading
from lyrandis.instruments.simulated import Simulated

TRUTH: dict[InstrumentKind, float] = {
    "bow_scale": 40.0, "grain_scale": 431.3, "spine_gauge": 52.0, "chronograph": 52.0,
    "bow_square": 195.0, "calliper": 2.1,
}  # fmt: skip


@pytest.mark.parametrize("kind", MAKES)
def test_a_reading_settles_on_what_is_there(kind: InstrumentKind) -> None:
    outside = 0
    for seed in range(60):
        *samples, last = take_reading(Simulated(kind, TRUTH[kind], seed=seed))
        assert isinstance(last, Taken)
        assert all(isinstance(one, Sample) for one in samples)
        assert len(samples) >= 8
        outside += abs(last.value - TRUTH[kind]) > 1.5 * last.plus_minus
    assert outside <= 6


@pytest.mark.parametrize("kind", MAKES)
@pytest.mark.parametrize("fault", ["drift", "timeout", "unplugged", "low_battery", "nonsense"])
def test_no_reading_comes_of_an_instrument_at_fault(kind: InstrumentKind, fault: str) -> None:
    for seed in range(20):
        steps = list(take_reading(Simulated(kind, TRUTH[kind], seed=seed, fault=fault)))  # type: ignore[arg-type]
        assert [step for step in steps if not isinstance(step, Sample)] == [steps[-1]]
        last = steps[-1]
        assert isinstance(last, Failed)
        assert last.fault == fault
        assert last.instruction.endswith("anew.") or fault == "nonsense"


def test_the_same_seed_gives_the_same_reading() -> None:
    one, other = (list(take_reading(Simulated("grain_scale", 431.3, seed=5))) for _ in range(2))
    assert one == other
    c = rig()
    assert truth_of("grain_scale", c, None, 3) == truth_of("grain_scale", c, None, 3)
    assert truth_of("grain_scale", c, None, 3) != truth_of("grain_scale", c, None, 4)


@pytest.mark.parametrize(
    ("line", "kind", "value"),
    [
        ("431.2 gr", "grain_scale", 431.2), ("27.9 g", "grain_scale", 430.56),
        ("178 N", "bow_scale", 40.016), (" 40.1 LB", "bow_scale", 40.1),
        ("7.5 in", "bow_square", 190.5), ("170 fps", "chronograph", 51.816),
        ("431.2", "grain_scale", None), ("431.2 mm", "grain_scale", None), ("", "calliper", None),
        ("1e9 gr", "grain_scale", None), ("nan gr", "grain_scale", None),
    ],
)  # fmt: skip
def test_lines_are_read_in_their_units(
    line: str, kind: InstrumentKind, value: float | None
) -> None:
    found = read(line, kind)
    assert (found is None) is (value is None)
    if found is not None:
        assert found.value == pytest.approx(value, rel=1e-3)


def test_a_low_battery_is_told_from_pounds() -> None:
    assert read("40.1 lb LB", "bow_scale") == Shown(40.1, True)
    assert read("40.1 lb", "bow_scale") == Shown(40.1, False)


def test_what_is_there_follows_the_rig() -> None:
    c = rig()
    assert c.bow.weight is not None
    low, high = (truth_of("bow_scale", c, draw, 1) for draw in (600.0, 711.0))
    assert low < high
    for kind in MAKES:
        assert truth_of(kind, rig(()), None, 1) > 0


# over a pseudo-terminal: the path a real device takes


@pytest.fixture
def terminal() -> Iterator[tuple[int, Path]]:
    device, end = os.openpty()
    yield device, Path(os.ttyname(end))
    for one in (device, end):
        with pytest.MonkeyPatch.context():
            try:
                os.close(one)
            except OSError:
                continue


def test_a_device_on_a_line_is_read(terminal: tuple[int, Path]) -> None:
    device, path = terminal
    scale = SerialLine("grain_scale", path)

    def send() -> None:
        for number in range(20):
            os.write(device, f"{431.2 + 0.1 * (number % 2):.1f} gr\r\n".encode())
            time.sleep(0.002)

    sender = threading.Thread(target=send)
    sender.start()
    *_, last = take_reading(scale)
    sender.join()
    scale.close()
    assert isinstance(last, Taken)
    assert last.value == pytest.approx(431.2, abs=0.11)


def test_a_device_that_says_nothing_or_nonsense(terminal: tuple[int, Path]) -> None:
    device, path = terminal
    silent = SerialLine("grain_scale", path, patience_s=0.05)
    [only] = take_reading(silent)
    assert isinstance(only, Failed)
    assert only.fault == "timeout"
    os.write(device, b"\xff\xfe!!\n" * 6)
    *_, last = take_reading(silent)
    assert isinstance(last, Failed)
    assert last.fault == "nonsense"
    silent.close()


def test_a_device_unplugged_in_the_middle(terminal: tuple[int, Path]) -> None:
    device, path = terminal
    scale = SerialLine("grain_scale", path, patience_s=0.3)
    os.write(device, b"431.2 gr\n431.3 gr\n")
    assert scale.read_line() == "431.2 gr"
    os.close(device)
    steps = list(take_reading(scale))
    last = steps[-1]
    assert isinstance(last, Failed)
    assert last.fault in ("unplugged", "timeout")
    scale.close()


def test_a_device_that_is_not_there(tmp_path: Path) -> None:
    with pytest.raises(UnpluggedError):
        SerialLine("calliper", tmp_path / "none")
