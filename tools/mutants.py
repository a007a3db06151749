"""Deliberate faults: does the self-check notice them? Each is applied to a copy of the sources.

`python -m tools.mutants` runs `wide-arc check` on every fault, and with `--tests` the core tests
beside it, reported apart. A fault is alive if `check` passes. Equivalent ones are named with the
reason; one of a list whose text is no longer found fails, so that the list stays true.
"""

from __future__ import annotations

import argparse
import json
import os
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from tools.faults import EQUIVALENT, FAULTS, Fault

ROOT = Path(__file__).parent.parent
CORE = "src/widearc/core"


def applied(fault: Fault, to: Path) -> str:
    """Apply a fault to a copy of the sources; return an empty text, or why that cannot be."""
    path = to / CORE / fault.file
    text = path.read_text()
    count = text.count(fault.old)
    if count != 1:
        return f"its text is there {count} times"
    path.write_text(text.replace(fault.old, fault.new))
    return ""


def copied() -> Path:
    """Return a fresh copy of sources and tests."""
    place = Path(tempfile.mkdtemp(prefix="widearc-fault-"))
    for part in ("src", "tests"):
        shutil.copytree(
            ROOT / part, place / part, ignore=shutil.ignore_patterns("__pycache__", "vendor")
        )
    shutil.copy(ROOT / "pyproject.toml", place)
    return place


def _run(words: list[str], place: Path) -> subprocess.CompletedProcess[str]:
    paths = {"PYTHONPATH": f"{place / 'src'}{os.pathsep}{place}", "PYTHONDONTWRITEBYTECODE": "1"}
    return subprocess.run(
        [sys.executable, *words],
        cwd=place,
        env=os.environ | paths,
        capture_output=True,
        text=True,
        check=False,
    )


def noticed_by_check(place: Path) -> tuple[bool, str]:
    """Return whether `check` fails on a copy, and the first check that does."""
    done = _run(["-m", "widearc.cli", "check"], place)
    if done.returncode:
        try:
            checks = json.loads(done.stdout)["checks"]
        except ValueError:
            return True, (done.stderr.strip().splitlines() or ["it stops"])[-1][:80]
        failed = [part["name"] for part in checks if not part["passes"]]
        return True, f"{len(failed)} checks, first: {failed[0]}" if failed else "it stops"
    return False, ""


def noticed_by_tests(place: Path) -> tuple[bool, str]:
    """Return whether the core tests fail on a copy, and the first that does."""
    words = ["-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", "tests/reference", "tests/core"]
    done = _run(words, place)
    failed = [line for line in done.stdout.splitlines() if line.startswith(("FAILED", "ERROR"))]
    return done.returncode != 0, failed[0][:110] if failed else ""


def tried(fault: Fault, *, tests: bool) -> tuple[Fault, bool, str]:
    """Return a fault, whether `check` noticed it, and in words what did."""
    place = copied()
    try:
        if wrong := applied(fault, place):
            return fault, False, wrong
        check, first = noticed_by_check(place)
        said = f"check: {first or 'NOTHING'}"
        if tests:
            fails, where = noticed_by_tests(place)
            said += f"; tests: {where if fails else 'NOTHING'}"
        return fault, check, said
    finally:
        shutil.rmtree(place, ignore_errors=True)


def main() -> int:
    """Try every fault; return 1 if `check` lets one live."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--tests", action="store_true", help="run the core tests beside it")
    parser.add_argument("--only", default="", help="only faults whose words hold this")
    asked = parser.parse_args()
    faults = [fault for fault in FAULTS if asked.only in fault.what]
    place = copied()
    sound = not noticed_by_check(place)[0]
    shutil.rmtree(place, ignore_errors=True)
    if not sound:
        print("check fails without any fault: mend that first")
        return 1
    with ThreadPoolExecutor(os.cpu_count() or 2) as pool:
        results = list(pool.map(lambda fault: tried(fault, tests=asked.tests), faults))
    alive = [fault for fault, noticed, _ in results if not noticed]
    for fault, noticed, said in results:
        print(f"{'noticed' if noticed else 'ALIVE  '}  {fault.file}: {fault.what}  [{said}]")
    for what, reason in EQUIVALENT:
        print(f"equivalent  {what}: {reason}")
    print(f"{len(results)} faults, {len(alive)} alive")
    return 1 if alive else 0


if __name__ == "__main__":
    sys.exit(main())
