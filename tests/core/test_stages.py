"""The specs hold together: stages, words, rules, kinds and what stands on what."""

import ast
import inspect
import re
from dataclasses import replace
from importlib import import_module
from pathlib import Path
from typing import get_args

import pytest
from hypothesis import given

from lyrandis.core import entries as e
from lyrandis.core.assessment import assess, judge
from lyrandis.core.computed import compute
from lyrandis.core.errors import Code, DomainError
from lyrandis.core.jot import ROWS, parse
from lyrandis.core.next_step import next_step
from lyrandis.core.reading import StageKey
from lyrandis.core.setup import fold
from lyrandis.core.stages import RULEBOOK, STAGES
from tests.entries import any_entries, entries

CORE = Path(__file__).parents[2] / "src" / "lyrandis" / "core"
WITHOUT_WORD = {"named", "retraction", "put_away", "taper_shot", "butt_hits", "rig_tuned",
                "crawl_counted", "sound_heard", "shaft_tapped"}  # fmt: skip
"""Kinds that have a control of their own and are not typed."""


def test_the_stages_stand_in_order() -> None:
    assert get_args(StageKey) == tuple(spec.key for spec in STAGES)


def test_a_stage_stands_on_earlier_ones_only() -> None:
    seen: set[str] = set()
    for spec in STAGES:
        assert set(spec.needs) <= seen, spec.key
        seen.add(spec.key)


def test_every_stage_is_a_folder_that_says_itself() -> None:
    for spec in STAGES:
        folder = CORE / spec.key
        for name in ("words", "readings", "jots", "facts", "numbers", "rules", "stage", "page"):
            assert (folder / f"{name}.py").is_file(), f"{spec.key}/{name}.py"


def test_every_word_parses_its_own_example_on_its_own_subject() -> None:
    for word in ROWS:
        if word.example:
            jotted = parse(word.example)
            assert jotted.word == word.word
            assert word.subject in jotted.reading.of


def test_no_way_of_saying_it_stands_twice() -> None:
    shown = [(row.word, row.say, row.kind) for row in ROWS if row.records]
    assert len(shown) == len(set(shown))
    assert len(shown) > 100


def test_every_kind_has_a_jot_word_or_a_control_of_its_own() -> None:
    typed = {parse(row.example).reading.kind for row in ROWS if row.example}
    kinds = {kind.model_fields["kind"].default for kind in e.READINGS}
    assert kinds - typed == WITHOUT_WORD


def test_every_rule_belongs_to_its_room_and_stands_once() -> None:
    for spec in STAGES:
        assert {rule.stage for rule in spec.rules} == {spec.key}
    ids = [rule.id for rule in RULEBOOK]
    assert len(ids) == len(set(ids))


@given(any_entries())
def test_every_finding_names_a_rule_of_the_book_and_its_own_stage(found: list[e.Entry]) -> None:
    c = compute(fold(found))
    rules = {rule.id for rule in RULEBOOK}
    for spec in STAGES:
        for finding in spec.judge(c):
            assert finding.rule in rules
            assert finding.stage == spec.key


@given(any_entries())
def test_a_stop_has_a_title_and_there_is_always_a_next_step(found: list[e.Entry]) -> None:
    assessment = assess(fold(found))
    assert assessment.next_step.title.text()
    for finding in assessment.findings:
        assert finding.severity != "stop" or finding.title


@given(any_entries())
def test_the_live_value_of_a_stage_is_one_of_its_values(found: list[e.Entry]) -> None:
    for stage in assess(fold(found)).stages:
        assert stage.live.key == stage.headline


def test_a_room_that_does_not_apply_leaves_no_trace() -> None:
    c = compute(fold(entries("draw 28", "hook 1/2", "mark 45", "arrow 420gr")))
    closed = [replace(spec, applies=lambda _, key=spec.key: key != "bow") for spec in STAGES]
    assessment = judge(c, closed)
    assert [(stage.key, stage.number) for stage in assessment.stages] == [
        ("archer", 1),
        ("arrow", 2),
        ("string", 3),
        ("nock", 4),
        ("flight", 5),
        ("crawls", 6),
        ("listen", 7),
    ]
    assert "bow" not in {finding.stage for finding in assessment.findings}


def test_asks_come_in_their_turn_over_all_specs() -> None:
    turns = sorted(ask.turn for spec in STAGES for ask in spec.asks)
    assert len(turns) == len(set(turns))
    told = ("draw 28", "hook 1/2", "scale 40 @ 27", "scale 42 @ 28", "scale 44 @ 29", "arrow 480gr")
    asked = []
    for said in ((), ("hold split",), ("hold split", "hand left")):
        c = compute(fold(entries(*told, *said)))
        asked.append(next_step(c, [], STAGES).title.text())
    assert asked == [
        "Say how you hold the string",
        "Say which hand draws",
        "Say what sort of bow it is",
    ]


MODULES = sorted(CORE.rglob("*.py"))


def imported(path: Path) -> set[str]:
    tree = ast.parse(path.read_text(encoding="utf-8"))
    found = {n.module or "" for n in ast.walk(tree) if isinstance(n, ast.ImportFrom)}
    return {name.removeprefix("lyrandis.core.") for name in found if name.startswith("lyrandis")}


ORDER = ("archer", "bow", "string", "arrow", "nock", "flight", "crawls", "order", "listen")
"""Stages as they may import: the string's readings and facts are read by bow and arrow."""
KNOTS = {
    # mechanics do not run in the order of work: see core/computed.py
    ("archer", "bow.likeness"),
    ("bow", "string.facts"),
    ("bow", "string.braces"),
    ("nock", "order.jots"),
    ("string", "arrow.closing"),
    ("string", "arrow.matched"),
}
POLICY = {"assessment", "next_step", "jot", "stages"}
NAMES_THE_STAGES = {
    "stages", "entries", "setup", "computed", "example", "field_shots", "known", "first_run",
}  # fmt: skip
"""The only modules outside the stages that may import from them."""


@pytest.mark.parametrize("path", MODULES, ids=lambda path: str(path.relative_to(CORE)))
def test_the_core_imports_one_way(path: Path) -> None:
    name = str(path.relative_to(CORE))
    folder = name.split("/")[0] if "/" in name else None
    stage = folder if folder in ORDER else None  # `hearing` names no stage either
    for module in imported(path):
        other = module.split(".")[0]
        if stage is None:
            own = name.removesuffix(".py")
            assert other not in ORDER or own in NAMES_THE_STAGES, f"{own} names a stage: {module}"
        elif other in ORDER and other != stage:
            upstream = ORDER.index(other) < ORDER.index(stage)
            assert upstream or (stage, module) in KNOTS, f"{name} looks downstream at {module}"
        else:
            assert module not in POLICY, f"{name} may not import {module}"


def test_words_import_nothing_of_ours() -> None:
    for spec in ORDER:
        assert imported(CORE / spec / "words.py") == set(), spec


def test_every_code_of_an_error_is_used_and_known() -> None:
    source = "\n".join(path.read_text(encoding="utf-8") for path in CORE.parent.rglob("*.py"))
    for code in get_args(Code):
        assert source.count(f'"{code}"') >= 3, f"{code}: in the list, in the table, and raised"


def test_an_error_carries_its_code() -> None:
    with pytest.raises(DomainError) as raised:
        parse("foo 28")
    assert raised.value.code == "unknown_word"


def test_every_stages_numbers_take_their_facts_and_the_rest_by_name() -> None:
    for key in (*get_args(StageKey), "order"):
        numbers = import_module(f"lyrandis.core.{key}.numbers").numbers
        first, *others = inspect.signature(numbers).parameters.values()
        assert first.name == "facts", key
        assert {one.kind for one in others} == {inspect.Parameter.KEYWORD_ONLY}, key


def test_no_value_holds_a_callable_and_nothing_keeps_a_lock() -> None:
    for path in CORE.rglob("*.py"):
        text = path.read_text(encoding="utf-8")
        assert "cached_property" not in text.replace("`functools.cached_property`", ""), path
        if path.name == "numbers.py":
            fields = re.findall(r"^    \w+: (.*)$", text, flags=re.MULTILINE)
            assert not [one for one in fields if "Callable" in one or "Reckoner" in one], path
