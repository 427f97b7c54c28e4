"""The page says every sentence as the core does, in every set of units."""

from typing import Any, get_args

import pytest
from fastapi.testclient import TestClient
from playwright.sync_api import expect

from lyrandis.api.app import Settings, create_app
from lyrandis.core.assessment import Assessment
from lyrandis.core.units import UnitSet
from tests.web.conftest import HereServer, Opener

RIGS = ["marram-longbow", "tideway-recurve", "sandpiper-thumb-bow"]


def plain(text: str) -> str:
    return " ".join(text.split())


@pytest.fixture(scope="module", name="judged")
def judged_rigs(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Assessment]:
    database = tmp_path_factory.mktemp("units") / "bench.sqlite3"
    app = create_app(Settings(database=database, demo=True))
    with TestClient(app, base_url="http://127.0.0.1") as client:
        answers: dict[str, Any] = {rig: client.get(f"/api/rigs/{rig}").json() for rig in RIGS}
    return {rig: Assessment.model_validate(answer) for rig, answer in answers.items()}


@pytest.mark.parametrize("rig", RIGS)
def test_page_and_core_say_the_same(
    shared_demo: HereServer, open_page: Opener, judged: dict[str, Assessment], rig: str
) -> None:
    page = open_page(f"{shared_demo.url}/rigs/{rig}/archer")
    expect(page.locator("aside li").first).to_be_visible()
    for _ in judged[rig].findings:
        page.get_by_role("button", name="show the sum").first.click()
    assessment = judged[rig]
    for units in get_args(UnitSet):
        read = plain(page.locator("aside").inner_text())
        for finding in assessment.findings:
            assert plain(finding.sentence.text(units)) in read
            for line in finding.sum:
                assert plain(line.text(units)) in read
        assert plain(assessment.next_step.title.text(units)) in read
        assert plain(assessment.next_step.tells.text(units)) in read
        rail = plain(page.locator("nav").inner_text())
        for stage in assessment.stages:
            assert stage.live.figure is not None
            figure = stage.live.figure.model_copy(update={"plus_minus": None})
            assert plain(figure.text(units)) in rail
        page.keyboard.press("u")
