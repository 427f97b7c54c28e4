"""A stage made from CONTRIBUTING's lines: a folder and a line each in three lists, and it lives.

The source is copied, a stage "toy" is put in as CONTRIBUTING says, and the whole thing is used:
jot word, record, rail, finding, next step, page, rulebook, and the page in a real browser.
"""

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.web.conftest import Opener, Server

ROOT = Path(__file__).parents[2]
FILES = {
    "__init__.py": '"""A toy stage: how long the tassel is."""\n',
    "words.py": '"""The toy has no choices."""\n',
    "readings.py": '''
from typing import Literal
from lyrandis.core import quantities as q
from lyrandis.core.phrase import Phrase, mm, phrase
from lyrandis.core.reading import BaseReading

class Tassel(BaseReading):
    """How long the tassel is."""
    of = frozenset({"rig"})
    by = "measured"
    needs = frozenset({"bow"})
    kind: Literal["tassel"] = "tassel"
    tassel_mm: q.StringLengthMm

    def say(self) -> Phrase:
        return phrase("Tassel {long}", long=mm(self.tassel_mm))

ToyReading = Tassel
''',
    "jots.py": """
from lyrandis.core.hearing.table import Slot, Word
from lyrandis.core.toy.readings import Tassel

PLAIN_WORDS = ""
WORDS = (Word("tassel", "rig", Tassel, "tassel {tassel_mm}", "how long the tassel is", "tassel 40",
              slots=(Slot("tassel_mm", "length", "string_length"),)),)
""",
    "facts.py": """
from dataclasses import dataclass
from lyrandis.core.effective import EffectiveReadings, Recorded
from lyrandis.core.toy.readings import Tassel

@dataclass(frozen=True)
class ToyFacts:
    tassel: Recorded[Tassel] | None

def facts(readings: EffectiveReadings) -> ToyFacts:
    return ToyFacts(readings.last(Tassel))
""",
    "numbers.py": """
from lyrandis.core.toy.facts import ToyFacts

def swing_mm(facts: ToyFacts) -> float | None:
    return None if facts.tassel is None else facts.tassel.reading.tassel_mm / 2
""",
    "rules.py": """
from lyrandis.core import judgement as j
from lyrandis.core.phrase import mm, phrase
from lyrandis.core.toy.facts import facts
from lyrandis.core.toy.numbers import swing_mm

RULES = (j.Rule(id="tassel-swing", stage="toy", title="A tassel swings", statement="By half.",
                school="Toys", source="Assumption: a pendulum drawn by hand."),)

def judge(c):
    swing = swing_mm(facts(c.setup.effective))
    if swing is None:
        return []
    return [j.Finding(id="tassel", stage="toy", severity="watch", rule="tassel-swing",
                      sentence=phrase("The tassel swings {by}.", by=mm(swing)),
                      sum=(phrase("Half its length."),),
                      action=j.Action(label="Trim it", stage="toy", control="tassel"))]
""",
    "stage.py": """
from lyrandis.core import judgement as j
from lyrandis.core.phrase import mm
from lyrandis.core.toy.facts import facts

def stage(c, findings):
    told = facts(c.setup.effective).tassel
    length = (j.Value(key="tassel", label="Tassel", figure=mm(told.reading.tassel_mm),
                      origin=told.source, entries=(told.entry.id,)) if told
              else j.Value(key="tassel", label="Tassel", missing="Not told yet"))
    return j.Standing(mark="settled" if told else "unset", headline="tassel", values=(length,))

def missing(c):
    return None
""",
    "page.py": """
from typing import Literal
from lyrandis.core.stage_spec import Page
from lyrandis.core.toy.facts import facts
from lyrandis.core.toy.numbers import swing_mm

class ToyPage(Page):
    stage: Literal["toy"] = "toy"
    swing_mm: float | None

def page(c) -> ToyPage:
    return ToyPage(swing_mm=swing_mm(facts(c.setup.effective)))
""",
    "spec.py": """
from lyrandis.core.stage_spec import StageSpec
from lyrandis.core.toy.jots import PLAIN_WORDS, WORDS
from lyrandis.core.toy.page import page
from lyrandis.core.toy.rules import RULES, judge
from lyrandis.core.toy.stage import missing, stage

SPEC = StageSpec(key="toy", name="Toy", needs=("bow",), words=WORDS,
            plain_words=PLAIN_WORDS, bare=("tassel",), rules=RULES,
            judge=judge, stage=stage, missing=missing, page=page)
""",
}
LINES = (
    ("core/reading.py", '"crawls", "listen"]', '"crawls", "listen", "toy"]'),
    ("core/entries.py", "    | OrderReading,", "    | OrderReading\n    | ToyReading,"),
    ("core/entries.py", "from lyrandis.core.errors import DomainError\n",
     "from lyrandis.core.errors import DomainError\n"
     "from lyrandis.core.toy.readings import ToyReading\n"),
    ("core/stages.py", "FLIGHT, CRAWLS, LISTEN)", "FLIGHT, CRAWLS, LISTEN, TOY)"),
    ("core/stages.py", "from lyrandis.core.stage_spec import Page, StageSpec\n",
     "from lyrandis.core.stage_spec import Page, StageSpec\n"
     "from lyrandis.core.toy.spec import SPEC as TOY\n"),
)  # fmt: skip
"""The key, the readings and the spec: a line each in three lists, two with their import."""
PLACE = """
export const toy = {
  key: 'toy', name: 'Toy',
  routes: { '/toy': () => import('./Toy.svelte') },
  pages: [],
  controls: {},
} as const;
"""
TOY = """
<script lang="ts">
  import ReadingField from '../../components/ReadingField.svelte';
  import StageHead from '../../components/StageHead.svelte';
  import WhenReady from '../../components/WhenReady.svelte';
</script>
<WhenReady key="toy">
  {#snippet children(assessment, stage, page)}
    <StageHead {stage} about="How long the tassel is." />
    <ReadingField control="tassel" label="Tassel" word="tassel" example="40" />
    <p>It swings {page.swing_mm === null ? 'nobody knows how far' : `${page.swing_mm} mm`}.</p>
  {/snippet}
</WhenReady>
"""
WEB_LINES = (
    ("stages.ts", "crawls, listen]", "crawls, listen, toy]"),
    ("stages.ts", "import { bow } from './features/bow/place';",
     "import { bow } from './features/bow/place';\nimport { toy } from './features/toy/place';"),
)  # fmt: skip


def put_in(path: Path, old: str, new: str) -> None:
    text = path.read_text(encoding="utf-8")
    assert text.count(old) == 1, f"{path.name}: {old!r}"
    path.write_text(text.replace(old, new), encoding="utf-8")


@pytest.fixture(scope="module")
def toy(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A copy of the source with a toy stage in it, its page built."""
    root = tmp_path_factory.mktemp("toy")
    package = root / "src" / "lyrandis"
    shutil.copytree(ROOT / "src" / "lyrandis", package, ignore=shutil.ignore_patterns("static"))
    web = root / "web"
    shutil.copytree(ROOT / "web", web, ignore=shutil.ignore_patterns("node_modules", "dist"))
    (web / "node_modules").symlink_to(ROOT / "web" / "node_modules")
    for name, text in FILES.items():
        (package / "core" / "toy").mkdir(exist_ok=True)
        (package / "core" / "toy" / name).write_text(text.lstrip("\n"), encoding="utf-8")
    for name, old, new in LINES:
        put_in(package / name, old, new)
    feature = web / "src" / "features" / "toy"
    feature.mkdir()
    (feature / "place.ts").write_text(PLACE, encoding="utf-8")
    (feature / "Toy.svelte").write_text(TOY, encoding="utf-8")
    for name, old, new in WEB_LINES:
        put_in(web / "src" / name, old, new)
    build = [str(web / "node_modules" / ".bin" / "vite"), "build", "--logLevel", "error"]
    subprocess.run(build, cwd=web, check=True, capture_output=True)
    return root


def _check_document(toy: Path) -> None:
    """The toy stands in the API's document, and its reading says of itself what others do."""
    script = """
import json
from lyrandis.api.app import openapi_document
from lyrandis.core import entries as e
from lyrandis.core.jot import parse
from lyrandis.core.reading import StageKey
from lyrandis.core.stages import STAGES
from typing import get_args
assert get_args(StageKey) == tuple(spec.key for spec in STAGES)
schemas = openapi_document()["components"]["schemas"]
reading = parse("tassel 40").reading
print(json.dumps([
    "Tassel" in schemas, "ToyPage" in json.dumps(schemas["Judged"]["properties"]["page"]),
    sorted(reading.topics()), sorted(reading.needed()), reading.say().text(),
    reading.__class__ in e.READINGS,
]))
"""
    run = subprocess.run(
        [sys.executable, "-c", script],
        env={**os.environ, "PYTHONPATH": str(toy / "src")},
        capture_output=True,
        text=True,
        check=True,
    )
    assert json.loads(run.stdout) == [True, True, ["tassel"], ["bow"], "Tassel 40 in", True]


def test_a_stage_is_a_folder_and_a_line_in_each_of_three_lists(
    toy: Path, tmp_path: Path, demo_file: Path, open_page: Opener, monkeypatch: pytest.MonkeyPatch
) -> None:
    _check_document(toy)
    monkeypatch.setenv("PYTHONPATH", str(toy / "src"))
    shutil.copy(demo_file, tmp_path / "bench.sqlite3")
    server = Server(tmp_path)
    try:
        page = open_page(f"{server.url}/rigs/marram-longbow/toy")
        expect(page.get_by_text("It swings nobody knows how far.")).to_be_visible()
        rail = page.get_by_role("navigation", name="Order of work")
        expect(rail.get_by_role("link", name="Toy")).to_contain_text("none yet")
        page.get_by_label("Jot", exact=True).fill("40")
        # a bare number is asked: a tassel first here
        expect(page.get_by_role("button", name="tassel 40?")).to_be_visible()
        page.keyboard.press("ArrowDown")
        expect(page.get_by_text("Tassel 40 in")).to_be_visible()
        page.keyboard.press("Enter")
        expect(rail.get_by_role("link", name="Toy")).to_contain_text("40 in")
        expect(page.get_by_text("It swings 508 mm.")).to_be_visible()
        expect(page.locator("aside").get_by_text("The tassel swings 20 in.")).to_be_visible()
        page.keyboard.press("Escape")
        page.locator("h1").click()
        page.keyboard.press("1")
        expect(page.get_by_role("heading", name="Archer", level=1)).to_be_visible()
        page.get_by_role("button", name="Trim it").click()
        expect(page.get_by_label("Tassel", exact=True)).to_be_focused()
        rules = page.request.get(f"{server.url}/api/rules").json()
        assert "tassel-swing" in {rule["id"] for rule in rules}
        words = page.request.get(f"{server.url}/api/readings/words").json()
        assert "tassel" in {word["word"] for word in words}
    finally:
        server.kill()
