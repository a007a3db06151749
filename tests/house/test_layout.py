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
