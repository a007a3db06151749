"""The house itself: who may open what, where each thing lives, how large it may grow."""

from __future__ import annotations

import ast
import subprocess
import sys
import tomllib
from collections.abc import Iterator
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
SOURCE = ROOT / "src" / "widearc"
CONTRACTS = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["tool"][
    "importlinter"
]["contracts"]


LONGEST = 350
TABLES = {  # one record after another, which nobody reads from end to end
    "core/equipment/items/kinds.py",
    "core/exercises/cards.py",
    "core/exercises/entries/squats.py",
    "core/muscle/data.py",
}
BRANCHES = (
    ast.If,
    ast.For,
    ast.While,
    ast.IfExp,
    ast.ExceptHandler,
    ast.comprehension,
    ast.BoolOp,
    ast.Match,
)
MOST_BRANCHES, MOST_COLUMNS, MOST_SKIPPED = 8, 95, 20
"""Of 95 in 100 functions, and of 95 in 100 lines; how often the formatter is told to look away."""

# what a start may not wait for: (arguments, packages that stay outside)
STARTS = (
    (["--help"], {"numpy", "scipy", "flask", "widearc.core.equipment"}),
    (["exercises"], {"scipy", "flask", "widearc.core.statics", "widearc.store"}),
)


def modules() -> dict[str, ast.Module]:
    """Return every module of the package by its path."""
    return {
        str(path.relative_to(SOURCE)): ast.parse(path.read_text(encoding="utf-8"))
        for path in sorted(SOURCE.rglob("*.py"))
    }


def imported(tree: ast.Module) -> Iterator[str]:
    for node in ast.walk(tree):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom):
            yield node.module or ""


def test_the_database_driver_is_opened_by_store_alone():
    openers = {p for p, tree in modules().items() if "sqlite3" in set(imported(tree))}
    assert openers and all(path.startswith("store/") for path in openers)


def test_the_contract_forbids_the_driver_to_everybody_but_store():
    (contract,) = (c for c in CONTRACTS if c.get("forbidden_modules") == ["sqlite3"])
    everybody = {
        p.stem for p in SOURCE.iterdir() if p.suffix == ".py" or (p / "__init__.py").exists()
    }
    assert set(contract["source_modules"]) == {
        f"widearc.{name}" for name in everybody - {"store", "__init__"}
    }


def test_every_room_of_the_core_has_a_tier():
    (tiers,) = (c["layers"] for c in CONTRACTS if c["name"].startswith("core tiers"))
    named = {
        name.strip(" ()").removeprefix("widearc.core.")
        for tier in tiers
        for name in tier.split(":")
    }
    rooms = {
        path.stem
        for path in (SOURCE / "core").iterdir()
        if (path.suffix == ".py" and path.stem != "__init__") or (path / "__init__.py").exists()
    }
    assert rooms and rooms - named == set()


def calls(tree: ast.Module, module: str) -> Iterator[str]:
    """Yield what is called of a module: `store.items(...)` gives "items"."""
    for node in ast.walk(tree):
        if (
            isinstance(node, ast.Call)
            and isinstance(node.func, ast.Attribute)
            and isinstance(node.func.value, ast.Name)
            and node.func.value.id == module
        ):
            yield node.func.attr


def test_a_page_reads_what_is_kept_through_the_use_cases():
    rooms = ("web/screens/", "web/forms/", "web/drawing/", "web/words/")
    pages = {path: tree for path, tree in modules().items() if path.startswith(rooms)}
    assert len(pages) > 40
    # a row is made of a class, which is no reading
    read = {(p, c) for p, tree in pages.items() for c in calls(tree, "store") if c[0].islower()}
    assert read == set()


def branches(function: ast.FunctionDef) -> int:
    """Return how often a function decides, what is defined inside it left out."""
    count, inside = 0, list(ast.iter_child_nodes(function))
    while inside:
        node = inside.pop()
        if isinstance(node, ast.FunctionDef):
            continue
        count += isinstance(node, BRANCHES)
        count += len(node.values) - 2 if isinstance(node, ast.BoolOp) else 0
        count += len(node.ifs) if isinstance(node, ast.comprehension) else 0
        inside += ast.iter_child_nodes(node)
    return count


def at_95(values: list[int]) -> int:
    return sorted(values)[int(0.95 * len(values))]


def test_a_function_is_one_thought():
    counted = {
        (path, node.name): branches(node)
        for path, tree in modules().items()
        for node in ast.walk(tree)
        if isinstance(node, ast.FunctionDef)
    }
    assert len(counted) > 1000 and at_95(list(counted.values())) <= MOST_BRANCHES


def test_a_line_is_read_in_one_breath():
    texts = [path.read_text(encoding="utf-8") for path in SOURCE.rglob("*.py")]
    # what is said to the type checker behind a line is not read
    whole = (line.partition("  # type: ignore")[0] for t in texts for line in t.splitlines())
    lines = [len(line) for line in whole if line.strip()]
    assert at_95(lines) <= MOST_COLUMNS and max(lines) <= 100
    assert sum(text.count("fmt: skip") for text in texts) <= MOST_SKIPPED


def test_a_file_of_the_core_is_one_subject():
    long = {
        str(path.relative_to(SOURCE))
        for path in (SOURCE / "core").rglob("*.py")
        if len(path.read_text(encoding="utf-8").splitlines()) > LONGEST
    }
    assert long == TABLES


@pytest.mark.parametrize(("arguments", "outside"), STARTS)
def test_a_command_imports_what_it_needs_and_no_more(arguments, outside):
    code = (
        "import sys\nfrom widearc.cli import main\n"
        f"try:\n    main({arguments!r})\nexcept SystemExit:\n    pass\n"
        "print(*sys.modules, file=sys.stderr)"
    )
    ran = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert ran.stdout and "widearc.cli" in ran.stderr.split()
    assert outside & set(ran.stderr.split()) == set()


def test_every_name_of_the_formats_is_found_when_it_is_asked_for():
    import widearc.formats

    found = [getattr(widearc.formats, name) for name in widearc.formats.__all__]
    assert len(found) > 20 and all(f is not None for f in found)
    with pytest.raises(AttributeError, match="has no attribute 'nonsense'"):
        _ = widearc.formats.nonsense
