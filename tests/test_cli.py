"""The command line: the same judgement as the page, from a file."""

import json
import logging
import socket
import stat
import subprocess
import sys
import threading
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from lyrandis import cli
from lyrandis.core.assessment import assess
from lyrandis.core.errors import DomainError
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.demo.scenario import drafts
from tests.entries import NOW


@pytest.fixture
def rig_file(tmp_path: Path) -> Path:
    entries = as_entries(drafts(), now=NOW)
    body = {
        "rig": "sandpiper-thumb-bow",
        "entries": [entry.model_dump(mode="json") for entry in entries],
    }
    path = tmp_path / "rig.json"
    path.write_text(json.dumps(body))
    return path


def test_assess_prints_what_the_core_says_and_exits_2_on_stop(
    rig_file: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert cli.main(["assess", str(rig_file)]) == 2
    printed = capsys.readouterr().out
    assert "Sandpiper thumb bow" in printed
    assert "Stop" in printed
    assert "Next: Weigh a heavier arrow" in printed


def test_assess_speaks_metric(rig_file: Path, capsys: pytest.CaptureFixture[str]) -> None:
    cli.main(["assess", str(rig_file), "--units", "metric"])
    assert "73.0 cm" in capsys.readouterr().out


def test_assess_as_json_is_the_assessment(
    rig_file: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    cli.main(["assess", str(rig_file), "--json"])
    printed = json.loads(capsys.readouterr().out)
    expected = assess(fold(as_entries(drafts(), now=NOW), rig="sandpiper-thumb-bow"))
    assert printed == expected.model_dump(mode="json")


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("not json", "the file"),
        ('{"entries": [{"subject": {"kind": "bow", "id": "b"}}]}', "entries.0.reading"),
        (
            '{"entries": [{"subject": {"kind": "bow", "id": "b"},'
            ' "reading": {"kind": "bow_length", "bow_length_mm": 700}}]}',
            "27 9/16 in is outside what a bow length can be",
        ),
    ],
)
def test_assess_says_where_a_file_is_wrong(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], text: str, said: str
) -> None:
    path = tmp_path / "bad.json"
    path.write_text(text)
    assert cli.main(["assess", str(path)]) == 1
    assert said in capsys.readouterr().err


def test_assess_of_a_missing_file_says_so(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert cli.main(["assess", str(tmp_path / "gone.json")]) == 1
    assert "gone.json" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("raw", "said"),
    [
        (b"\xff\xd8\xff\xe0 a picture", "is no text"),
        (b"\x00\x9f\x92\x96", "is no text"),
        ("{}".encode("utf-16"), "entries"),
        (b"\xef\xbb\xbf{}", "entries"),
        (b'{"entries": [], "rig": "gone"}', "speaks of no rig called"),
        (b'{"entries": [], "rig": "\x1b[2J"}', "the file"),
    ],
)
def test_a_file_of_any_kind_is_answered_in_words(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], raw: bytes, said: str
) -> None:
    path = tmp_path / "a\x1b[31m file"
    path.write_bytes(raw)
    assert cli.main(["assess", str(path)]) == 1
    printed = capsys.readouterr().err
    assert said in printed
    assert "\x1b" not in printed


def test_an_endless_file_is_not_read_to_its_end(capsys: pytest.CaptureFixture[str]) -> None:
    assert cli.main(["assess", "/dev/zero"]) == 1
    assert "more than 50 MB" in capsys.readouterr().err


@pytest.mark.parametrize("port", ["0", "65536", "-1", "http", "9" * 400, "٣"])
def test_a_bad_port_is_said(port: str, capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit) as ended:
        cli.main(["serve", f"--port={port}"])
    assert ended.value.code == 2
    assert "is no port" in capsys.readouterr().err


def test_the_log_holds_where_it_went_wrong_and_no_readings(tmp_path: Path) -> None:
    cli.keep_log(tmp_path)
    kept = logging.getLogger().handlers[-1]
    try:
        raise ValueError("arrow 4 431gr, my own words")
    except ValueError:
        logging.getLogger("lyrandis").exception("it went wrong with arrow 4")
    logging.getLogger().removeHandler(kept)
    kept.close()
    written = (tmp_path / "lyrandis.log").read_text()
    assert "ValueError at test_cli.py:" in written
    assert "my own words" not in written


def test_a_taken_port_moves_to_the_next_free_one() -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        assert cli.free_port(port) > port


def test_no_free_port_at_all_is_said(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(cli, "PORTS_TRIED", 0)
    with pytest.raises(DomainError):
        cli.free_port(8080)


def test_the_demo_and_the_persons_own_data_never_share_a_folder(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    assert cli.data_folder(True) != cli.data_folder(False)
    monkeypatch.setenv("LYRANDIS_DATA", str(tmp_path))
    own = cli.data_folder(False)
    own.mkdir()
    (own / "bench.sqlite3").write_text("mine")
    cli.data_folder(True).mkdir()
    assert cli.main(["demo-reset"]) == 0
    assert not cli.data_folder(True).exists()
    assert (own / "bench.sqlite3").read_text() == "mine"


def test_openapi_is_printed(capsys: pytest.CaptureFixture[str]) -> None:
    assert cli.main(["openapi"]) == 0
    assert json.loads(capsys.readouterr().out)["info"]["title"] == "Lyrandis"


# the demo's folder


def test_the_demo_is_not_thrown_away_while_it_is_served(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("LYRANDIS_DATA", str(tmp_path))
    folder = cli.data_folder(True)
    folder.mkdir()
    (folder / "bench.sqlite3").write_bytes(b"a bench")
    with cli.in_use(folder):
        assert cli.main(["demo-reset"]) == 1
    assert "is in use" in capsys.readouterr().err
    assert (folder / "bench.sqlite3").exists()
    assert cli.main(["demo-reset"]) == 0
    assert not folder.exists()
    assert cli.main(["demo-reset"]) == 0


def test_what_could_not_be_thrown_away_is_said(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("LYRANDIS_DATA", str(tmp_path))
    folder = cli.data_folder(True)
    folder.mkdir()
    monkeypatch.setattr(
        "shutil.rmtree", lambda folder, onerror: onerror(None, f"{folder}/stuck", None)
    )
    assert cli.main(["demo-reset"]) == 1
    assert "could not be thrown away" in capsys.readouterr().err


SERVES_AND_STUMBLES = """
import sys
from pathlib import Path
from lyrandis import cli
from lyrandis.api import app as module

make = module.create_app
def with_a_stumble(settings):
    app = make(settings)
    def stumble():
        raise RuntimeError("my own words")
    app.add_api_route("/api/stumble", stumble)
    app.router.routes.insert(0, app.router.routes.pop())
    return app
module.create_app = with_a_stumble
cli.serve(demo=False, port=int(sys.argv[1]), folder=Path(sys.argv[2]))
"""


def test_a_stumble_leaves_a_line_in_the_log_and_files_are_the_owners(tmp_path: Path) -> None:
    port = cli.free_port(18080)
    command = [sys.executable, "-c", SERVES_AND_STUMBLES, str(port), str(tmp_path / "a ?b%20c")]
    with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL) as served:
        assert served.stdout is not None
        assert b"Lyrandis serves" in served.stdout.readline()
        answer = _asked(f"http://127.0.0.1:{port}/api/stumble")
        served.terminate()
    assert answer == 500
    folder = tmp_path / "a ?b%20c"
    written = (folder / "lyrandis.log").read_text()
    assert "RuntimeError at" in written
    assert "stumble" in written
    assert "my own words" not in written
    modes = {stat.S_IMODE(path.stat().st_mode) for path in folder.iterdir() if path.is_file()}
    assert modes == {0o600}


def _asked(url: str) -> int:
    for _ in range(400):
        try:
            with urllib.request.urlopen(url, timeout=5) as answer:
                return int(answer.status)
        except urllib.error.HTTPError as error:
            return error.code
        except OSError:
            threading.Event().wait(0.02)  # it is not listening yet
    raise AssertionError("the server did not start")
