"""Stages on the page: every control that is pointed at is there, and nothing is asked twice."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Request, expect

from lyrandis.core.stages import STAGES
from tests.web.conftest import HereServer, Opener

ROOT = Path(__file__).parents[2]
CORE = ROOT / "src" / "lyrandis" / "core"
FEATURES = ROOT / "web" / "src" / "features"
RIG = "/rigs/marram-longbow"
WALKED = "/rigs/tideway-recurve"
THUMB = "/rigs/sandpiper-thumb-bow"
BY_THUMB = {"handrise", "lengthtaken"}
"""What only bows shot by the thumb, off the hand, are asked."""


def actions() -> Iterator[tuple[str, str]]:
    """Every stage and control that a finding, a step or an ask of the core points at."""
    for path in CORE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if not isinstance(node, ast.Call):
                continue
            said = {k.arg: k.value for k in node.keywords}
            if {"label", "stage", "control"} <= set(said):
                two = [said["stage"], said["control"]]
            elif isinstance(node.func, ast.Name) and node.func.id == "plain_ask":
                two = node.args[-2:]
            else:
                continue
            for control in _constants(two[1]):
                for stage in _constants(two[0]):
                    yield stage, control


def _constants(node: ast.expr) -> list[str]:
    """The texts an expression can be: itself, or either side of a choice."""
    if isinstance(node, ast.IfExp):
        return [*_constants(node.body), *_constants(node.orelse)]
    return [node.value] if isinstance(node, ast.Constant) and isinstance(node.value, str) else []


def path_of(stage: str, control: str) -> str:
    """The page of a control, as the stage's `place.ts` has it."""
    place = (FEATURES / stage / "place.ts").read_text(encoding="utf-8")
    controls = place[place.index("controls:") :]
    found = re.search(rf"\b{control}: '([^']+)'", controls)
    return found.group(1) if found else stage


ACTIONS = sorted(set(actions()))


def test_there_are_actions_of_every_stage() -> None:
    assert {stage for stage, _ in ACTIONS} == {spec.key for spec in STAGES}
    assert len(ACTIONS) >= 25


@pytest.mark.parametrize("path", sorted({path_of(*action) for action in ACTIONS}))
def test_every_control_pointed_at_is_on_its_page(
    shared_demo: HereServer, look: Opener, path: str
) -> None:
    wanted = {control for stage, control in ACTIONS if path_of(stage, control) == path}
    rig = WALKED if path.startswith("crawls") else RIG
    for of, controls in ((rig, wanted - BY_THUMB), (THUMB, wanted & BY_THUMB)):
        if controls:
            page = look(f"{shared_demo.url}{of}/{path}")
        for control in controls:
            expect(page.locator(f'main [data-control="{control}"]').first).to_be_attached()


def test_every_stage_has_its_place_on_the_page() -> None:
    stages = (ROOT / "web" / "src" / "stages.ts").read_text(encoding="utf-8")
    listed = re.search(r"STAGES = \[([^\]]+)\]", stages)
    assert listed is not None
    assert [one.strip() for one in listed.group(1).split(",")] == [spec.key for spec in STAGES]


def asked(page_requests: list[Request]) -> list[str]:
    return [r.url.split("/api/")[1] for r in page_requests if "/api/" in r.url]


def test_home_is_one_request(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(f"{shared_demo.url}/rules")
    page.wait_for_load_state("networkidle")
    requests: list[Request] = []
    page.on("request", lambda request: requests.append(request))
    page.goto(shared_demo.url)
    expect(page.get_by_role("heading", name="Marram longbow")).to_be_visible()
    expect(page.get_by_text("Next:").first).to_be_visible()
    assert asked(requests) == ["rigs"]


def test_focus_of_the_window_is_answered_by_304(demo: HereServer, open_page: Opener) -> None:
    page = open_page(f"{demo.url}{RIG}/bow")
    expect(page.locator("aside li").first).to_be_visible()
    with page.expect_response("**/api/rigs/marram-longbow?page=bow") as answer:
        page.evaluate("window.dispatchEvent(new Event('focus'))")
    assert answer.value.status == 304
    page.get_by_label("Jot", exact=True).fill("brace 7 1/2")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Recorded: Brace height 7 1/2 in.")).to_be_visible()
    with page.expect_response("**/api/rigs/marram-longbow?page=bow") as answer:
        page.evaluate("window.dispatchEvent(new Event('focus'))")
    assert answer.value.status == 304


def test_a_stage_asks_for_its_own_page_once(shared_demo: HereServer, open_page: Opener) -> None:
    page = open_page(f"{shared_demo.url}{RIG}/archer")
    expect(page.get_by_role("heading", name="Archer", level=1)).to_be_visible()
    requests: list[Request] = []
    page.on("request", lambda request: requests.append(request))
    page.keyboard.press("2")
    expect(page.get_by_role("slider", name="String")).to_be_visible()
    page.get_by_role("link", name="Condition").click()
    expect(page.get_by_role("heading", name="Before stringing")).to_be_visible()
    assert asked(requests) == ["rigs/marram-longbow?page=bow"]


def test_the_logbook_asks_only_for_what_is_new(demo: HereServer, open_page: Opener) -> None:
    page = open_page(f"{demo.url}{RIG}/logbook")
    expect(page.get_by_text("Brace height 7 5/8 in").first).to_be_visible()
    with page.expect_response("**/entries?after=*") as answer:
        page.get_by_label("Note", exact=True).fill("Wind from the sea")
        page.keyboard.press("Enter")
    assert len(answer.value.json()["entries"]) == 1
    expect(page.get_by_text("Note: Wind from the sea").first).to_be_visible()
    expect(page.get_by_text("Brace height 7 5/8 in").first).to_be_visible()
    page.get_by_role("button", name="take back Note: Wind from the sea").click()
    expect(page.get_by_role("button", name="put back Note: Wind from the sea")).to_be_visible()


def test_a_part_put_onto_the_rig_brings_its_past_into_the_logbook(
    demo: HereServer, open_page: Opener
) -> None:
    page = open_page(f"{demo.url}{RIG}/logbook")
    expect(page.get_by_text("Brace height 7 5/8 in").first).to_be_visible()
    reading = {"kind": "part_fitted", "part": "arrow_set", "part_id": "carbon-set-a"}
    entry = {"subject": {"kind": "rig", "id": "marram-longbow"}, "reading": reading}
    answer = page.request.post(f"{demo.url}/api/entries", data={"entries": [entry]})
    assert answer.status == 201
    page.evaluate("window.dispatchEvent(new Event('focus'))")
    expect(page.get_by_text("Fitted arrow set: Carbon, set A").first).to_be_visible()
    expect(page.get_by_text("Arrow 2: 352 gr finished").first).to_be_visible()
