"""Recordings over HTTP: brought, listened to, recorded, forgotten; and what is none."""

import socket
import urllib.request
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from lyrandis.sounds.reading import wav_of
from tests.api.conftest import Api
from tests.core.listen.club import evening
from tests.core.listen.signals import RATE, r1
from tests.core.listen.sound_worlds import resampled

RIG = "/rigs/tideway-recurve"
GOOD = wav_of(r1(), round(RATE))


def bring(api: Api, data: bytes = GOOD, status: int = 201, **query: Any) -> Any:
    answer = api.client.post(
        "/api/sounds", content=data, params=query,
        headers={"content-type": "application/octet-stream"},
    )  # fmt: skip
    assert answer.status_code == status, answer.text
    return answer.json()


def through(api: Api, path: str, body: dict[str, Any]) -> Any:
    """What was heard, once it is."""
    return api.post(path, body, status=200)


def record(api: Api, reading: dict[str, Any], **more: Any) -> Any:
    entry = {"subject": {"kind": "rig", "id": "tideway-recurve"}, "reading": reading, **more}
    return api.post("/entries", {"entries": [entry], "page": "listen"})


def test_a_recording_is_brought_heard_and_recorded(demo: Api) -> None:
    kept = bring(demo, name="Shots ⟶ “éa”.wav")
    assert (kept["name"], kept["rate_hz"], kept["lossy"]) == ("Shots ⟶ “éa”.wav", 16000, False)
    assert [one["mark"] for one in demo.get("/sounds")][-1] == kept["mark"]
    found = through(demo, f"{RIG}/sounds/{kept['mark']}/hear", {"what": "shot", "same_place": True})
    reading = found["hearing"]["draft"]
    assert [round(one["at_s"], 1) for one in reading["takes"]] == [0.6, 2.2, 3.8, 5.4]
    page = record(demo, reading)["assessment"]["page"]
    assert page["recordings"][-1]["mark"] == kept["mark"]
    assert page["pair"]["after"] == kept["mark"]
    traces = demo.get(f"/sounds/{kept['mark']}/traces", params={"at": [0.6, 2.2]})["traces"]
    assert len(traces) == 2
    assert len(traces[0]["low"]) == 440
    picture = demo.get(f"/sounds/{kept['mark']}/spectrogram", params={"at_s": 0.6})
    assert max(max(row) for row in picture["cells"]) == 60
    heard = demo.client.get(f"/api/sounds/{kept['mark']}")
    assert heard.content == GOOD
    assert heard.headers["content-type"] == "audio/wav"


def test_the_same_recording_twice_is_kept_once(demo: Api) -> None:
    before = len(demo.get("/sounds"))
    assert bring(demo, name="a.wav")["mark"] == bring(demo, name="b.wav")["mark"]
    assert len(demo.get("/sounds")) == before + 1


def test_forgetting_leaves_the_numbers_and_takes_may_still_be_struck_out(demo: Api) -> None:
    kept = bring(demo)
    hear = f"{RIG}/sounds/{kept['mark']}/hear"
    record(demo, through(demo, hear, {"what": "shot"})["hearing"]["draft"])
    assert demo.client.delete(f"/api/sounds/{kept['mark']}").status_code == 204
    problem = demo.get(f"/sounds/{kept['mark']}/traces", 404, params={"at": [1]})
    assert problem["code"] == "sound_forgotten"
    struck = through(demo, hear, {"what": "shot", "struck": [2]})["hearing"]["draft"]
    assert struck["struck"] == [2]
    page = record(demo, struck)["assessment"]["page"]
    mine = [one for one in page["recordings"] if one["mark"] == kept["mark"]]
    assert len(mine) == 1
    assert [take["struck"] for take in mine[0]["takes"]] == [False, True, False, False]


@pytest.mark.parametrize(
    ("data", "code", "status"),
    [(b"", "not_a_sound", 422), (b"GIF89a" + bytes(500), "not_a_sound", 422),
     (wav_of(np.zeros(800), 8000), "sound_too_short", 422),
     (wav_of(np.zeros(8000 * 200), 8000), "sound_too_long", 413)],
    ids=["nothing", "a picture", "0.1 s", "200 s"],
)  # fmt: skip
def test_what_is_no_recording_is_refused_and_nothing_is_kept(
    api: Api, tmp_path: Path, data: bytes, code: str, status: int
) -> None:
    problem = bring(api, data, status, name="x.wav")
    assert problem["code"] == code
    assert problem["instruction"]
    assert api.get("/sounds") == []
    assert not (tmp_path / "sounds").exists() or not list((tmp_path / "sounds").iterdir())


def test_a_name_of_control_characters_is_refused(api: Api) -> None:
    assert bring(api, GOOD, 422, name="\x00\x07")["field"] == "name"


def test_too_much_is_refused_before_it_is_read(api: Api) -> None:
    answer = api.client.post(
        "/api/sounds", content=b"x",
        headers={"content-type": "audio/wav", "content-length": "50000001"},
    )  # fmt: skip
    assert answer.status_code == 413
    assert answer.json()["code"] == "body_too_large"


def test_an_upload_that_breaks_off_keeps_nothing(own_server: Any) -> None:
    url, folder = own_server
    host, port = url.removeprefix("http://").split(":")
    with socket.create_connection((host, int(port))) as line:
        line.sendall(
            f"POST /api/sounds HTTP/1.1\r\nHost: {host}:{port}\r\n"
            f"Content-Type: audio/wav\r\nContent-Length: {len(GOOD)}\r\n\r\n".encode()
        )
        line.sendall(GOOD[: len(GOOD) // 2])
    # a question behind it is answered when the broken line has been seen
    with urllib.request.urlopen(f"{url}/api/sounds", timeout=5) as answer:
        assert answer.read() == b"[]"
    assert not (folder / "sounds").exists() or not list((folder / "sounds").iterdir())


def test_a_readings_body_is_no_sound_and_a_sounds_body_no_reading(api: Api) -> None:
    answer = api.client.post(
        "/api/entries", content=GOOD, headers={"content-type": "application/octet-stream"}
    )
    assert answer.status_code == 415


def test_another_sites_page_brings_nothing(api: Api) -> None:
    answer = api.client.post(
        "/api/sounds", content=GOOD,
        headers={"content-type": "audio/wav", "origin": "http://elsewhere.example"},
    )  # fmt: skip
    assert answer.status_code == 403


def test_what_is_not_kept_is_said(demo: Api) -> None:
    for verb, path, body in (
        ("post", f"{RIG}/sounds/{'0' * 16}/hear", {"what": "shot"}),
        ("post", f"{RIG}/sounds/{'0' * 16}/time", {"butt_m": 18}),
        ("post", f"{RIG}/sounds/{'0' * 16}/tap", {}),
    ):
        answer = demo.client.request(verb, f"/api{path}", json=body)
        assert answer.status_code == 404
        assert answer.json()["code"] == "sound_forgotten"
    assert demo.get("/sounds/no-mark", 422)["code"] == "invalid"


def test_silence_may_be_brought_and_nothing_of_it_recorded(demo: Api) -> None:
    kept = bring(demo, wav_of(np.zeros(16000), 16000))
    found = through(demo, f"{RIG}/sounds/{kept['mark']}/hear", {"what": "pluck"})["hearing"]
    assert found["draft"] is None
    assert len(found["troubles"]) == 2


@pytest.mark.parametrize(
    ("ask", "body"),
    [
        ("hear", {"what": "pluck", "moved": [{"take": 1, "at_s": 600}]}),
        ("time", {"butt_m": 18, "marks": [{"shot": 1, "release_s": 600, "strike_s": 600.4}]}),
    ],
)
def test_a_place_behind_the_end_is_refused_in_words(
    demo: Api, ask: str, body: dict[str, Any]
) -> None:
    kept = bring(demo)
    problem = demo.problem(f"{RIG}/sounds/{kept['mark']}/{ask}", body, 422)
    assert problem["code"] == "out_of_range"
    assert "ends at" in problem["reason"]


def test_the_simulated_microphone_hears_this_rig(demo: Api) -> None:
    ask = {"what": "pluck", "takes": 3, "seed": 4}
    kept = demo.post(f"{RIG}/instruments/microphone", ask)
    assert kept["simulated"]
    assert demo.post(f"{RIG}/instruments/microphone", ask)["mark"] == kept["mark"], "seeded"
    found = through(demo, f"{RIG}/sounds/{kept['mark']}/hear", {"what": "pluck"})["hearing"]
    page = record(demo, found["draft"], source="simulated")["assessment"]["page"]
    assert page["tension"]["note_hz"] == pytest.approx(page["expected_hz"], rel=0.03)
    assert page["recordings"][-1]["source"] == "simulated"


def test_a_speed_by_ear_draws_the_bows_energy(demo: Api) -> None:
    kept = demo.post(f"{RIG}/instruments/microphone", {"what": "butt", "takes": 3, "seed": 2})
    found = through(demo, f"{RIG}/sounds/{kept['mark']}/time", {"butt_m": 18})["speed"]
    assert found["speed_mps"] == pytest.approx(found["expected_mps"], rel=0.02)
    reading = {**found["draft"], "speed_mps": 1.04 * found["speed_mps"]}
    page = record(demo, reading)["assessment"]["page"]
    assert page["speeds"][0]["speed_mps"] == pytest.approx(1.04 * found["speed_mps"])
    assert page["expected_mps"] > found["expected_mps"]
    assert page["speeds"][0]["mark"] == kept["mark"]


def test_tapped_shafts_come_into_the_set(demo: Api) -> None:
    ask = {"what": "taps", "takes": 4, "seed": 3, "state": "bare"}
    kept = demo.post(f"{RIG}/instruments/microphone", ask)
    path = f"{RIG}/sounds/{kept['mark']}/tap"
    found = through(demo, path, {"state": "bare", "first": 20})["taps"]
    assert [one["arrow_number"] for one in found["drafts"]] == [20, 21, 22, 23]
    entries = [
        {"subject": {"kind": "arrow_set", "id": "carbon-set-a"}, "reading": one}
        for one in found["drafts"]
    ]
    told = demo.post("/entries", {"entries": entries, "rig": "tideway-recurve", "page": "listen"})
    numbers = [one["number"] for one in told["assessment"]["page"]["shafts"]["shafts"]]
    assert numbers[-4:] == [20, 21, 22, 23]
    wide = demo.get(f"{RIG}/tapped", params={"width_lbf": 20})
    assert len(wide["inside"]) == len(wide["shafts"])
    narrow = demo.get(f"{RIG}/tapped", params={"width_lbf": 0.2})
    assert len(narrow["inside"]) < len(wide["inside"])
    assert demo.get("/rigs/marram-longbow/tapped", 404)["code"] == "no_such_entry"


def test_the_demo_ships_two_recordings(api: Api) -> None:
    api.post("/demo")
    kept = api.get("/sounds")
    assert [one["name"] for one in kept] == ["tideway-before.wav", "tideway-after.wav"]
    assert all(one["simulated"] for one in kept)
    page = api.get(RIG, params={"page": "listen"})["page"]
    assert {page["pair"]["before"], page["pair"]["after"]} == {one["mark"] for one in kept}
    assert page["pair"]["level"]["told"]
    for one in kept:
        found = through(api, f"{RIG}/sounds/{one['mark']}/hear", {"what": "shot"})["hearing"]
        recorded = next(each for each in page["recordings"] if each["mark"] == one["mark"])
        heard = [take["level_db"] for take in found["draft"]["takes"]]
        assert heard == [take["level_db"] for take in recorded["takes"]], "make the demo anew"


def test_a_take_that_was_missed_is_added_by_hand_and_stays(demo: Api) -> None:
    samples = r1()
    faint = samples.copy()
    first, last = (round(at * RATE) for at in (3.75, 5.2))
    faint[first:last] *= 0.03
    kept = bring(demo, wav_of(faint, round(RATE)), name="one too faint.wav")
    path = f"{RIG}/sounds/{kept['mark']}/hear"
    alone = through(demo, path, {"what": "pluck"})["hearing"]
    assert [round(at, 1) for at in alone["whole"]["at_s"]] == [0.6, 2.2, 5.4]
    assert len(alone["whole"]["overview"]) == 480
    added = through(demo, path, {"what": "pluck", "added": [3.83]})["hearing"]
    assert [round(at, 1) for at in added["whole"]["at_s"]] == [0.6, 2.2, 5.4, 3.8]
    assert added["draft"]["added"] == [3.83]
    assert added["others"] == [], "what somebody added is theirs"
    page = record(demo, added["draft"])["assessment"]["page"]
    assert page["recordings"][-1]["added"] == [3.83]
    beyond = demo.client.post(f"/api{path}", json={"what": "pluck", "added": [99.0]})
    assert beyond.status_code == 422
    assert "ends at" in beyond.json()["reason"]


def test_a_club_evening_of_three_minutes_at_192_kilohertz(demo: Api) -> None:
    """25 s at 192 kHz, and three minutes at 16: both are heard through, neighbours are named."""
    made = evening(3, own=5, others=3)
    high = resampled(made.samples, 44_100, 192_000.0)
    kept = bring(demo, wav_of(high, 192_000), name="club.wav")
    assert kept["rate_hz"] == 192_000
    path = f"{RIG}/sounds/{kept['mark']}/hear"
    heard = through(demo, path, {"what": "shot"})["hearing"]
    assert len(heard["whole"]["at_s"]) >= 4
    if heard["others"]:
        assert any("another bow" in trouble for trouble in heard["troubles"])
        own = through(demo, path, {"what": "shot", "struck": heard["others"]})["hearing"]
        assert not any("another bow" in trouble for trouble in own["troubles"])
    long = evening(4, own=20, others=8, seconds=180.0)
    low = resampled(long.samples, 44_100, 16_000.0)
    kept = bring(demo, wav_of(low, 16_000), name="evening.wav")
    heard = through(demo, f"{RIG}/sounds/{kept['mark']}/hear", {"what": "shot"})["hearing"]
    assert 15 <= len(heard["whole"]["at_s"]) <= 24
