"""The page says every sentence as the core does, in every set of units."""

import json
import math
import os
import random
import subprocess
from dataclasses import replace
from pathlib import Path
from typing import Any, get_args

import pytest
from fastapi.testclient import TestClient
from playwright.sync_api import expect

from lyrandis.api.app import Settings, create_app
from lyrandis.core.assessment import Assessment
from lyrandis.core.units import Unit, UnitSet, say
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
    assessment = judged[rig]
    said_above = {assessment.next_step.finding}
    for finding in assessment.findings:
        if finding.severity == "stop":  # its sentence stands over the page
            said_above.add(finding.id)
        # the step's own sum is asked for on its card
        page.get_by_role("button", name="show the sum").first.click()
    for units in get_args(UnitSet):
        read = plain(page.locator("aside").inner_text())
        for finding in assessment.findings:
            said = finding.title or "" if finding.id in said_above else None
            assert plain(said or finding.sentence.text(units)) in read
            for line in finding.sum:
                assert plain(line.text(units)) in read
        assert plain(assessment.next_step.title.text(units)) in read
        assert plain(assessment.next_step.tells.text(units)) in read
        rail = plain(page.locator("nav").inner_text())
        for stage in assessment.stages:
            if stage.live.figure is None:
                assert (stage.live.text or "none yet") in rail
                continue
            figure = replace(stage.live.figure, plus_minus=None)
            assert plain(figure.text(units)) in rail
        page.keyboard.press("u")


WEB = Path(__file__).parents[2] / "web"
SAY_ALL = """
import { readFileSync, writeFileSync } from 'node:fs';
import ts from 'typescript';
const [folder, source, figures] = process.argv.slice(2);
for (const name of ['units', 'units.gen', 'days']) {
  const code = ts.transpileModule(readFileSync(`${source}/${name}.ts`, 'utf8'), {
    compilerOptions: { module: 'ESNext', target: 'ES2022' },
  }).outputText;
  const told = code.replace(/from '(\\.\\/[\\w.]+)'/g, "from '$1.mjs'");
  writeFileSync(`${folder}/${name}.mjs`, told);
}
const { say } = await import(`${folder}/units.mjs`);
const all = JSON.parse(readFileSync(figures, 'utf8'));
console.log(JSON.stringify(all.map(([figure, units]) => say(figure, units))));
"""


def some_figures(count: int) -> list[tuple[dict[str, Any], str]]:
    """Figures of every unit over many sizes, halves and sixteenths among them; seeded."""
    dice = random.Random(20260110)
    found = []
    for number in range(count):
        unit = get_args(Unit)[number % len(get_args(Unit))]
        value = math.exp(dice.uniform(math.log(0.02), math.log(3000)))
        if dice.random() < 0.3:
            value = round(value * 8) / 8 + dice.choice([0.0, 0.05, 0.5])
        if dice.random() < 0.2 and unit == "mm":
            value = round(value / 25.4 * 32) / 32 * 25.4
        if unit != "spine" and dice.random() < 0.15:
            value = -value
        value = max(value, 1.0) if unit == "spine" else value
        spread = abs(value) * dice.uniform(0, 0.2) if dice.random() < 0.6 else None
        figure = {"value": value, "unit": unit, "plus_minus": spread}
        found.append((figure, dice.choice(get_args(UnitSet))))
    return found


def test_ten_thousand_figures_are_said_as_the_core_says_them(tmp_path: Path) -> None:
    figures = some_figures(10_000)
    (tmp_path / "figures.json").write_text(json.dumps(figures))
    script = WEB / "node_modules" / ".say-all.mjs"  # beside the packages it imports
    script.write_text(SAY_ALL)
    command = ["node", str(script), str(tmp_path), str(WEB / "src" / "lib")]
    try:
        run = subprocess.run(
            [*command, str(tmp_path / "figures.json")],
            capture_output=True,
            text=True,
            check=True,
            env={**os.environ, "TZ": "UTC"},
        )
    finally:
        script.unlink()
    spoken = json.loads(run.stdout)
    assert len(spoken) == len(figures)
    for (figure, units), on_page in zip(figures, spoken, strict=True):
        in_core = say(figure["value"], figure["unit"], figure["plus_minus"], units=units)  # type: ignore[arg-type]
        assert plain(on_page) == plain(in_core), (figure, units)
