"""A real instrument on a serial line that sends plain text lines.

To drive a device of your own, give its path and kind; a device that speaks otherwise is a class of
its own with `read_line` and `close` that returns lines as `instrument.py` reads them.
"""

import os
import select
from contextlib import suppress
from pathlib import Path

from lyrandis.instruments.instrument import InstrumentKind, UnpluggedError

SERIAL_PATIENCE_S = 3.0
LONGEST_SERIAL_LINE = 200


class SerialLine:
    """A device file that sends `431.2 gr` and a line feed, again and again."""

    simulated = False

    def __init__(
        self, kind: InstrumentKind, path: Path, *, patience_s: float = SERIAL_PATIENCE_S
    ) -> None:
        """Raises `UnpluggedError` where the device cannot be opened."""
        self.kind = kind
        self._patience = patience_s
        self._rest = b""
        try:
            self._device = os.open(path, os.O_RDONLY | os.O_NOCTTY | os.O_NONBLOCK)
        except OSError as error:
            raise UnpluggedError from error

    def read_line(self) -> str:
        """Return the next line that is not empty; bytes that are no text are replaced."""
        while True:
            while b"\n" not in self._rest:
                self._rest = (self._rest + self._more())[-LONGEST_SERIAL_LINE:]
            line, _, self._rest = self._rest.partition(b"\n")
            text = line.decode("ascii", errors="replace").strip()
            if text:
                return text

    def _more(self) -> bytes:
        """Return what comes next, within the patience."""
        ready, _, _ = select.select([self._device], [], [], self._patience)
        if not ready:
            raise TimeoutError
        try:
            got = os.read(self._device, 256)
        except BlockingIOError:
            return b""
        except OSError as error:
            raise UnpluggedError from error
        if not got:
            raise UnpluggedError
        return got

    def close(self) -> None:
        """Let go of the device file."""
        with suppress(OSError):
            os.close(self._device)
