"""Every public function of the mechanics says what it rests on and shows a worked example."""

import ast
from collections.abc import Iterator
from pathlib import Path

import pytest

CORE = Path(__file__).parents[2] / "src" / "lyrandis" / "core"
GATHERS = {
    "__init__", "words", "readings", "jots", "facts", "numbers", "rules", "stage", "stage_build",
    "page", "spec", "doubts", "said",
    "bow/assembly", "bow/condition", "bow/drawing", "bow/inspection",
    "arrow/quiver_table", "arrow/table_columns",
    "flight/basis", "flight/choices", "flight/history", "flight/proof", "flight/state",
}  # fmt: skip
"""Files that hold what people say, gather what is in force or lay out a page: no mechanics."""
RESTS_ON = ("Source:", "Assumption:", "Convention:", "Source ", "convention)")


def _functions(tree: ast.Module) -> Iterator[tuple[str, ast.FunctionDef]]:
    for node in tree.body:
        if isinstance(node, ast.FunctionDef):
            yield node.name, node
        elif isinstance(node, ast.ClassDef) and not node.name.startswith("_"):
            if any(isinstance(base, ast.Name) and base.id == "Protocol" for base in node.bases):
                continue  # what others must be able to do
            for inner in node.body:
                if isinstance(inner, ast.FunctionDef):
                    yield f"{node.name}.{inner.name}", inner


def _public() -> list[tuple[str, ast.FunctionDef]]:
    found = []
    for path in sorted(CORE.glob("*/*.py")):
        module = f"{path.parent.name}/{path.stem}"
        if path.parent.name == "hearing":
            continue  # it hears words: no mechanics
        if GATHERS & {path.stem, module} or path.stem.startswith("judge_"):
            continue
        for name, node in _functions(ast.parse(path.read_text(encoding="utf-8"))):
            marks = {one.id for one in node.decorator_list if isinstance(one, ast.Name)}
            shown = marks & {"property", "lazy", "overload"}
            if not name.split(".")[-1].startswith("_") and not shown:
                found.append((f"{module}.{name}", node))
    return found


PUBLIC = _public()


def test_every_file_that_only_gathers_is_there() -> None:
    there = {f"{path.parent.name}/{path.stem}" for path in CORE.glob("*/*.py")}
    assert {name for name in GATHERS if "/" in name} <= there


def test_there_is_much_to_check() -> None:
    assert len(PUBLIC) > 250


@pytest.mark.parametrize(("name", "node"), PUBLIC, ids=[name for name, _ in PUBLIC])
def test_it_says_what_it_rests_on_and_shows_an_example(name: str, node: ast.FunctionDef) -> None:
    said = ast.get_docstring(node) or ""
    assert any(words in said for words in RESTS_ON), f"{name}: no source, no assumption"
    assert ">>> " in said, f"{name}: no worked example"
