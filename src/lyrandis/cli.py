"""The `lyrandis` command: serve the bench, judge a file, print the API document."""

import argparse
import codecs
import ctypes
import gc
import json
import logging
import os
import re
import shutil
import socket
import sys
import traceback
from collections.abc import Iterator, Sequence
from contextlib import contextmanager, suppress
from datetime import UTC, datetime
from logging.handlers import RotatingFileHandler
from pathlib import Path
from typing import Any, get_args

from platformdirs import user_data_path
from pydantic import ValidationError

from lyrandis import __version__
from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.errors import DomainError
from lyrandis.core.json_bounds import load_json
from lyrandis.core.logbook import LogbookFile, rig_of
from lyrandis.core.record import as_entries
from lyrandis.core.refusals import refusal_of
from lyrandis.core.setup import fold
from lyrandis.core.units import UnitSet

HOST = "127.0.0.1"
PORT = 8080
PORTS_TRIED = 50
TURN_S = 0.001
"""A keystroke is read beside curves being reckoned: it gets its turn at the one processor soon."""
MOST_LOGBOOK_BYTES = 50_000_000
"""A larger file is no file of entries."""


def data_folder(demo: bool) -> Path:
    """Return the folder that keeps the archer's data; the demo has one of its own."""
    name = "lyrandis-demo" if demo else "lyrandis"
    root = os.environ.get("LYRANDIS_DATA")
    return Path(root) / name if root else user_data_path(name)


def free_port(wanted: int) -> int:
    """Return the wanted port, or the next free one above it."""
    last = min(wanted + PORTS_TRIED, 65536)
    for port in range(wanted, last):
        with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((HOST, port))
            except OSError:
                continue
            return port
    raise DomainError(
        "no_free_port",
        f"No port from {wanted} to {last - 1} is free.",
        "Close a program that uses one, or choose another with --port.",
    )


def serve(*, demo: bool, port: int, folder: Path | None = None) -> int:
    """Serve the bench on this machine until stopped."""
    import uvicorn

    from lyrandis.api.app import Settings, create_app

    folder = folder or data_folder(demo)
    os.umask(0o077)  # what is written here is its owner's alone
    found = free_port(port)
    if found != port:
        print(f"Port {port} is taken; using {found} instead.")
    app = create_app(Settings(database=folder / "bench.sqlite3", demo=demo))
    what = "the demo rigs" if demo else "your own bench"
    with in_use(folder):
        print(f"Lyrandis serves {what} on http://{HOST}:{found}  (kept in {folder}; Ctrl+C stops)")
        sys.stdout.flush()
        settle_memory()
        sys.setswitchinterval(TURN_S)
        keep_log(folder)
        uvicorn.run(
            app,
            host=HOST,
            port=found,
            log_level="warning",
            log_config=_log_config(uvicorn.config.LOGGING_CONFIG),
            server_header=False,
            timeout_graceful_shutdown=1,
        )
    return 0


def _log_config(usual: dict[str, Any]) -> dict[str, Any]:
    """Return the server's own logging with its troubles handed on, so that they are kept."""
    loggers = {**usual["loggers"], "uvicorn": {**usual["loggers"]["uvicorn"], "propagate": True}}
    return {**usual, "loggers": loggers}


LOCK = "lyrandis.lock"


@contextmanager
def in_use(folder: Path, *, alone: bool = False) -> Iterator[None]:
    """Hold a data folder while it is served; `alone` raises `DomainError` where somebody else does.

    Nothing is held where the system knows no such lock.
    """
    try:
        import fcntl
    except ImportError:
        yield
        return
    with open(folder / LOCK, "ab") as held:  # noqa: PTH123  beside the others
        try:
            fcntl.flock(held, (fcntl.LOCK_EX if alone else fcntl.LOCK_SH) | fcntl.LOCK_NB)
        except OSError:
            raise DomainError(
                "locked",
                f"{folder} is in use: a Lyrandis serves it, or throws it away.",
                "Stop it with Ctrl+C first, then try again.",
            ) from None
        yield


class WithoutReadings(logging.Formatter):
    """Writes where something went wrong and of what kind, never what was being recorded."""

    def format(self, record: logging.LogRecord) -> str:
        when = self.formatTime(record)
        head = f"{when} {record.levelname} {record.name}"
        if not record.exc_info or record.exc_info[0] is None:
            return f"{head}: {record.msg}"
        kind, _, trace = record.exc_info
        frames = traceback.extract_tb(trace)
        at = "; ".join(f"{Path(one.filename).name}:{one.lineno} {one.name}" for one in frames[-12:])
        return f"{head}: {kind.__name__} at {at}"


def keep_log(folder: Path) -> None:
    """Keep a small log of troubles in the data folder, turned over when it is full."""
    kept = RotatingFileHandler(
        folder / "lyrandis.log", maxBytes=200_000, backupCount=2, encoding="utf-8", delay=True
    )
    kept.setFormatter(WithoutReadings())
    kept.setLevel(logging.WARNING)
    logging.getLogger().addHandler(kept)


def settle_memory() -> None:
    """Keep the garbage collector out of single requests.

    What start-up loaded leaves its rounds, and a round comes after some requests' worth of values
    instead of many times in each.
    """
    if sys.platform == "linux":
        _one_heap()
    gc.collect()
    gc.freeze()
    gc.set_threshold(100_000, 20, 20)


_HEAPS, _LARGE, _SPARE = -8, -3, -1
"""What glibc's `mallopt` calls M_ARENA_MAX, M_MMAP_THRESHOLD and M_TRIM_THRESHOLD."""


def _one_heap() -> None:
    """Let all threads share one heap, and give large pieces back: some 30 MB less are held.

    Left as it is where the C library knows no such thing.
    """
    with suppress(AttributeError):
        mallopt = ctypes.CDLL(None).mallopt
        for what, value in ((_HEAPS, 1), (_LARGE, 256 * 1024), (_SPARE, 1024 * 1024)):
            mallopt(what, value)


def reset_demo() -> int:
    """Throw the demo's data away; the next start makes it afresh."""
    folder = data_folder(True)
    if not folder.is_dir():
        print(f"The demo starts afresh next time ({folder} was empty).")
        return 0
    left: list[str] = []
    with in_use(folder, alone=True):
        shutil.rmtree(folder, onerror=lambda _work, path, _error: left.append(str(path)))
    if left:
        raise DomainError(
            "folder_closed",
            f"Of {folder} this could not be thrown away: {', '.join(left[:3])}.",
            "Allow writing there, or throw it away by hand.",
        )
    print(f"The demo starts afresh next time ({folder} emptied).")
    return 0


def assess_file(path: Path, *, as_json: bool, units: UnitSet) -> int:
    """Print the assessment of a file of entries; exit 2 when a finding is Stop."""
    assessment = judge_text(text_of(path))
    said = assessment.model_dump_json(indent=2) if as_json else as_text(assessment, units)
    print(printable(said))
    return 2 if any(f.severity == "stop" for f in assessment.findings) else 0


def text_of(path: Path) -> str:
    """Read a file of entries, in whichever way it was written down.

    Raises `DomainError` for one that is no text, or far too large to be entries.
    """
    with path.open("rb") as file:
        raw = file.read(MOST_LOGBOOK_BYTES + 1)
    if len(raw) > MOST_LOGBOOK_BYTES:
        raise DomainError(
            "body_too_large",
            f"{path} holds more than {MOST_LOGBOOK_BYTES // 1_000_000} MB.",
            "Give a file of entries, as saved from the logbook.",
        )
    wide = raw.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE))
    try:
        return raw.decode("utf-16" if wide else "utf-8-sig")
    except UnicodeDecodeError:
        raise DomainError(
            "not_readable",
            f"{path} is no text.",
            "Give a file of entries, as saved from the logbook.",
        ) from None


def printable(said: str) -> str:
    """Return a text that cannot steer the terminal it is printed on."""
    return "".join(one if one == "\n" or one.isprintable() else " " for one in said)


def judge_text(text: str) -> Assessment:
    """Judge a JSON document of entries, or raise `DomainError` saying where it is wrong."""
    try:
        document = LogbookFile.model_validate(load_json(text))
    except DomainError as error:
        raise DomainError(
            error.code, f"the file: {error.reason}", "Give a file saved from the logbook."
        ) from None
    except ValidationError as error:
        raise _first_error(error) from None
    entries = as_entries(document.entries, now=datetime.now(UTC))
    if document.rig is not None:
        rig_of(document.entries, document.rig)
    return assess(fold(entries, rig=document.rig))


def _first_error(error: ValidationError) -> DomainError:
    refusal = refusal_of(error.errors())
    where = refusal.path or "the file"
    cause = refusal.error
    return DomainError(cause.code, f"{where}: {cause.reason}", cause.instruction)


def as_text(assessment: Assessment, units: UnitSet) -> str:
    """Write an assessment as plain text."""
    lines = [assessment.name or "A rig without a name", ""]
    for stage in assessment.stages:
        value = stage.live
        said = value.figure.text(units) if value.figure else value.text or value.missing or ""
        detail = f", {stage.detail.text(units)}" if stage.detail else ""
        lines.append(
            f"{stage.number} {stage.name:<8} {said}{detail}  [{stage.mark.replace('_', ' ')}]"
        )
    lines.append("")
    for finding in assessment.findings:
        lines.append(f"{finding.severity.capitalize():<6} {finding.sentence.text(units)}")
        lines += [f"         {line.text(units)}" for line in finding.sum]
    step = assessment.next_step
    lines += ["", f"Next: {step.title.text(units)} ({step.minutes} min)"]
    lines += [f"  {words}" for words in (step.why.text(units), step.tells.text(units)) if words]
    return "\n".join(lines)


def _port(said: str) -> int:
    if not re.fullmatch("[0-9]{1,5}", said) or not 1 <= int(said) <= 65535:
        raise argparse.ArgumentTypeError(f"“{printable(said)}” is no port: give 1 to 65535")
    return int(said)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="lyrandis", description=__doc__)
    parser.add_argument("--version", action="version", version=f"lyrandis {__version__}")
    commands = parser.add_subparsers(dest="command", required=True)
    serving = commands.add_parser("serve", help="serve the bench on this machine")
    serving.add_argument("--demo", action="store_true", help="the made-up demo rigs instead")
    serving.add_argument("--port", type=_port, default=PORT)
    serving.add_argument("--data", type=Path, default=None, help="folder to keep the data in")
    judging = commands.add_parser("assess", help="judge a JSON file of entries")
    judging.add_argument("file", type=Path)
    judging.add_argument("--json", action="store_true", help="print the whole assessment as JSON")
    judging.add_argument("--units", choices=get_args(UnitSet), default="inch")
    commands.add_parser("demo-reset", help="make the demo start afresh")
    document = commands.add_parser("openapi", help="print the API document")
    document.add_argument("--without-examples", action="store_true", help="the shapes alone")
    return parser


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line; return its exit code."""
    options = _parser().parse_args(arguments)
    try:
        return _run(options)
    except DomainError as error:
        print(printable(f"{error.reason}\n{error.instruction}"), file=sys.stderr)
    except OSError as error:
        print(printable(f"{error.strerror or error}: {error.filename or ''}"), file=sys.stderr)
    return 1


def _run(options: argparse.Namespace) -> int:
    if options.command == "serve":
        return serve(demo=options.demo, port=options.port, folder=options.data)
    if options.command == "assess":
        return assess_file(options.file, as_json=options.json, units=options.units)
    if options.command == "demo-reset":
        return reset_demo()
    from lyrandis.api.app import openapi_document

    print(json.dumps(openapi_document(examples=not options.without_examples), indent=2))
    return 0
