"""Every public function of the mechanics says what it rests on and shows a worked example."""

import ast
from collections.abc import Iterator
from pathlib import Path

import pytest

CORE = Path(__file__).parents[2] / "src" / "lyrandis" / "core"
MECHANICS = {
    "archer": ("draw",),
    "bow": (
        "statics", "hermite", "stack", "moving_mass", "weight", "thrust", "limbs", "schools",
        "choosing", "likeness",
    ),
    "arrow": (
        "spine", "beam", "taper", "stroke", "bend", "after", "match", "closing", "mass", "build",
        "shooting", "thumb_rule", "ways", "trial", "taper_plan", "quiver", "show", "spine_board",
    ),
}  # fmt: skip
RESTS_ON = ("Source:", "Assumption:", "Convention:", "Source ", "convention)")


def _functions(tree: ast.Module) -> Iterator[tuple[str, ast.FunctionDef]]:
    for node in tree.body:
        if isinstance(node, ast.FunctionDef):
            yield node.name, node
        elif isinstance(node, ast.ClassDef) and not node.name.startswith("_"):
            for inner in node.body:
                if isinstance(inner, ast.FunctionDef):
                    yield f"{node.name}.{inner.name}", inner


def _public() -> list[tuple[str, ast.FunctionDef]]:
    found = []
    for stage, modules in MECHANICS.items():
        for module in modules:
            tree = ast.parse((CORE / stage / f"{module}.py").read_text(encoding="utf-8"))
            for name, node in _functions(tree):
                marks = {one.id for one in node.decorator_list if isinstance(one, ast.Name)}
                if not name.split(".")[-1].startswith("_") and not marks & {"property", "overload"}:
                    found.append((f"{stage}/{module}.{name}", node))
    return [one for one in found if not one[0].endswith("Climbs.slope")]  # a protocol


PUBLIC = _public()


def test_there_is_much_to_check() -> None:
    assert len(PUBLIC) > 100


@pytest.mark.parametrize(("name", "node"), PUBLIC, ids=[name for name, _ in PUBLIC])
def test_it_says_what_it_rests_on_and_shows_an_example(name: str, node: ast.FunctionDef) -> None:
    said = ast.get_docstring(node) or ""
    assert any(words in said for words in RESTS_ON), f"{name}: no source, no assumption"
    assert ">>> " in said, f"{name}: no worked example"
