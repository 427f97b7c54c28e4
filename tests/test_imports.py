"""Imports go one way: api -> store -> core, api -> demo -> core. The core stays pure."""

import ast
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1] / "src" / "lyrandis"
ALLOWED = {
    "core": {"core"},
    "store": {"store", "core"},
    "demo": {"demo", "core"},
    "instruments": {"instruments", "core"},
    "sounds": {"sounds", "core"},
    "api": {"api", "store", "demo", "instruments", "sounds", "core"},
}
CORE_MAY_USE = {
    "__future__", "abc", "bisect", "collections", "contextlib", "csv", "dataclasses", "datetime",
    "unicodedata",
    "decimal", "difflib", "enum", "fractions", "functools", "hashlib", "html", "io", "itertools",
    "importlib", "json",  # for constants that ship beside the code
    "math",
    "numpy", "operator", "pydantic",
    "pydantic_core", "re", "scipy", "statistics", "string", "typing",
}  # fmt: skip
FILES = sorted(ROOT.rglob("*.py"))


def imported(path: Path) -> set[str]:
    tree = ast.parse(path.read_text(encoding="utf-8"))
    names = {a.name for n in ast.walk(tree) if isinstance(n, ast.Import) for a in n.names}
    froms = {n.module or "" for n in ast.walk(tree) if isinstance(n, ast.ImportFrom)}
    return names | froms


def part_of(path: Path) -> str:
    return path.relative_to(ROOT).parts[0]


@pytest.mark.parametrize("path", FILES, ids=lambda p: str(p.relative_to(ROOT)))
def test_imports_go_one_way(path: Path) -> None:
    part = part_of(path)
    for name in imported(path):
        parts = name.split(".")
        if parts[0] == "lyrandis" and part in ALLOWED and len(parts) > 1:
            assert parts[1] in ALLOWED[part], f"{part} may not import {name}"
        if parts[0] == "sqlalchemy" or parts[0] == "alembic":
            assert part == "store"
        if part == "core" and parts[0] != "lyrandis":
            assert parts[0] in CORE_MAY_USE, f"the core may not import {name}"


def test_the_core_reads_no_clock() -> None:
    for path in (ROOT / "core").rglob("*.py"):
        tree = ast.parse(path.read_text(encoding="utf-8"))
        calls = {
            node.func.attr
            for node in ast.walk(tree)
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute)
        }
        assert not calls & {"now", "utcnow", "today"}, path.name


def test_there_is_something_to_check() -> None:
    assert {part_of(path) for path in FILES} >= set(ALLOWED)


IN_EVERY_STAGE = {
    "ASKS", "BARE", "CAUTIONS", "PLAIN_WORDS", "RULES", "SPEC", "WORDS", "applies", "doubts",
    "facts", "judge",
    "missing", "numbers", "page", "stage", "unchecked", "waits",
    "router",  # of every router
    "down_revision", "revision", "upgrade",  # of every migration
    "P", "R", "T",  # type variables
}  # fmt: skip


def defined(path: Path) -> set[str]:
    found: set[str] = set()
    for node in ast.parse(path.read_text(encoding="utf-8")).body:
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef | ast.ClassDef):
            found.add(node.name)
        elif isinstance(node, ast.Assign):
            found |= {target.id for target in node.targets if isinstance(target, ast.Name)}
        elif isinstance(node, ast.AnnAssign) and isinstance(node.target, ast.Name):
            found.add(node.target.id)
    return {name for name in found if not name.startswith("_")}


def test_a_public_name_means_one_thing() -> None:
    where: dict[str, list[str]] = {}
    for path in FILES:
        for name in defined(path) - IN_EVERY_STAGE:
            where.setdefault(name, []).append(str(path.relative_to(ROOT)))
    assert {name: paths for name, paths in where.items() if len(paths) > 1} == {}
