"""`make bench`: curves per second beside MuJoCo's inverse dynamics over the same postures, and the swap search."""

from __future__ import annotations

import gzip
import resource
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path

import mujoco
import numpy as np
from scipy.optimize import lsq_linear

import widearc.web
from widearc import store
from widearc.core.body import Limits
from widearc.core.catalogue import EXERCISES
from widearc.core.equipment import Band, FreeMass, LinearLaw, Load, Sled
from widearc.core.movement import Setup
from widearc.core.muscle import FMAX_N, JOINTS, paths, share_n
from widearc.core.statics import curve, curves_in_parts
from widearc.core.substitution import Memo
from widearc.demo import load_demo
from widearc.usecases import SwapAsk, mark, swap_view

SETUPS, LOOPED = 1000, 40
NOW = "2026-11-24T09:00:00+00:00"


def best_of(action: Callable[[], object], times: int = 3) -> float:
    """Return the shortest of some runs, s."""
    found = []
    for _ in range(times):
        start = time.perf_counter()
        action()
        found.append(time.perf_counter() - start)
    return min(found)


def cases() -> list[tuple[str, str, Callable[[int], list[Load]]]]:
    """Return label, exercise and loads for n set-ups of six families, and one that needs a root search."""
    kg = lambda n: np.linspace(5, 60, n)[:, None]  # noqa: E731
    band = LinearLaw(rest_m=0.9, rate_n_per_m=150.0)
    return [
        ("stance, bar", "back-squat-high", lambda n: [FreeMass(kg=kg(n), port="back-high")]),
        ("split, dumbbells", "split-squat", lambda n: [FreeMass(kg=kg(n), port="hands")]),
        ("sled press", "leg-press-45", lambda n: [Sled(kg=kg(n), empty_kg=38)]),
        ("knee rotation", "leg-extension-dumbbell", lambda n: [FreeMass(kg=kg(n), port="ankle")]),
        ("kneeling", "reverse-nordic", lambda n: [FreeMass(kg=0.2 * kg(n), port="goblet")]),
        ("hinge, bar", "romanian-deadlift", lambda n: [FreeMass(kg=kg(n), port="hands")]),
        ("(root) stance, band from the floor", "back-squat-high", lambda n: [
            FreeMass(kg=kg(n), port="back-high"), Band(law=band, port="shoulders", anchor=(0.1, 0.0, 0.2))]),
    ]  # fmt: skip


def engine_seconds_per_curve(samples: int = 101) -> float:
    """Return the time of one curve as a loop over MuJoCo's inverse dynamics: three hinges, one outside force."""
    segments = "".join(
        f'<body pos="0 {0.4 * (i > 0)} 0"><joint axis="0 0 1"/><geom type="sphere" size=".01" mass="9" pos="0 .2 0"/>'
        for i in range(3)
    )
    model = mujoco.MjModel.from_xml_string(f"<mujoco><worldbody>{segments}</body></body></body></worldbody></mujoco>")
    data = mujoco.MjData(model)
    postures = np.linspace(0.1, 1.2, samples)

    def one() -> None:
        for angle in postures:
            data.qpos[:] = (0.2, angle, -angle)
            data.xfrc_applied[3, 1] = -600.0
            mujoco.mj_inverse(model, data)

    return best_of(lambda: [one() for _ in range(LOOPED)]) / LOOPED


def main() -> None:
    """Print everything."""
    engine = engine_seconds_per_curve()
    print(f"MuJoCo inverse dynamics in a loop: {1 / engine:,.0f} curves/s (101 postures each)")
    print(f"{'family':36}{'curves/s':>10}{'x loop':>8}{'one curve, ms':>15}")
    limits = Limits(hip_flexion_deg=150)
    for label, name, loads in cases():
        many = Setup(exercise=EXERCISES[name], limits=limits, loads=loads(SETUPS))
        single = Setup(exercise=EXERCISES[name], limits=limits, loads=loads(1))
        per_curve = best_of(lambda m=many: [c.demand_nm for c in curves_in_parts(m)] and None) / SETUPS
        alone = best_of(lambda s=single: curve(s, strict=False), 20)
        print(f"{label:36}{1 / per_curve:>10,.0f}{engine / per_curve:>8.1f}{1000 * alone:>15.2f}")
    bench_memory()
    bench_muscles()
    bench_scripts()
    bench_swap()
    print(f"peak memory of this run: {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:,.0f} MB")


def bench_memory() -> None:
    """Print the peak of the demands of 20,000 set-ups, in a process of its own."""
    code = (
        "import resource, numpy as np\n"
        "from widearc.core.catalogue import EXERCISES\n"
        "from widearc.core.equipment import FreeMass\n"
        "from widearc.core.movement import Setup\n"
        "from widearc.core.statics import curves_in_parts\n"
        "kg = np.linspace(5, 90, 20000)[:, None]\n"
        "many = Setup(exercise=EXERCISES['split-squat'], loads=[FreeMass(kg=kg, port='hands')])\n"
        "kept = [np.stack(list(c.demand_nm.values())) for c in curves_in_parts(many)]\n"
        "print(len(kept), resource.getrusage(resource.RUSAGE_SELF).ru_maxrss // 1024)\n"
    )
    parts, peak = subprocess.run(
        [sys.executable, "-c", code], capture_output=True, text=True, check=True
    ).stdout.split()
    print(f"20,000 set-ups with all demands kept, in {parts} parts: peak {peak} MB")


def bench_muscles(curves: int = 10_000) -> None:
    """Print the load sharing of many curves beside SciPy's bounded least squares on a few of the same samples."""
    setup = Setup(exercise=EXERCISES["back-squat-high"], loads=[FreeMass(kg=np.linspace(5, 90, 100)[:, None],
                                                                      port="back-high")])  # fmt: skip
    found = curve(setup, lowering=False)
    angles = {j: found.motion.angles[j].ravel() for j in JOINTS}
    demand = np.array([found.demand_nm[j].ravel() for j in JOINTS])
    arm = paths(angles).arm_m
    start = time.perf_counter()
    for _ in range(curves // 100):
        share_n(arm, demand)
    ours = (time.perf_counter() - start) / curves
    start = time.perf_counter()
    for s in range(0, demand.shape[1], demand.shape[1] // 40):
        # the constraint as a heavy row: what a general solver does with one posture
        rows = np.vstack((1e4 * arm[:, :, s].T, np.diag(1.0 / FMAX_N)))
        lsq_linear(rows, np.concatenate((-1e4 * demand[:, s], np.zeros(len(FMAX_N)))), bounds=(0.0, np.inf))
    general = (time.perf_counter() - start) / 40 * 101
    print(f"load sharing, {curves} curves: {1 / ours:,.0f} curves/s; a general solver {1 / general:,.1f}: "
          f"{general / ours:,.0f} times")  # fmt: skip


def bench_scripts() -> None:
    """Print the page's scripts, gzipped: own at most 60 kB, vendored at most 110 kB."""
    folder = Path(widearc.web.__file__).parent / "static"
    for words, files, most in (
        ("own", folder.glob("js/*.js"), 60),
        ("vendored", folder.glob("vendor/**/*.js"), 110),
    ):
        size = sum(len(gzip.compress(f.read_bytes())) for f in files) / 1000
        print(f"scripts, {words}: {size:.1f} kB gzipped of {most} allowed")


def bench_swap() -> None:
    """Print the demo's ranking: cold, after a changed load, after an item was marked."""
    con = store.open_store(":memory:")
    load_demo(con, now=NOW)
    memo = Memo()
    ask = SwapAsk(place_id=1, client_id=1)
    start = time.perf_counter()
    view = swap_view(con, 1, ask, memo)
    cold = time.perf_counter() - start
    tried = view.ranking.tried if view.ranking else 0
    print(f"swap, demo deck container, {tried} set-ups: cold {1000 * cold:.0f} ms", end="; ")
    other = best_of(lambda: swap_view(con, 1, SwapAsk(place_id=1, client_id=1, kg=100), memo))
    band = next(i for i in store.items(con, 1, 1) if i.kind == "band")
    mark(con, 1, band.id, store.State.TAKEN, now=NOW)
    marked = best_of(lambda: swap_view(con, 1, ask, memo), 1)
    print(f"other load {1000 * other:.0f} ms; one item marked {1000 * marked:.0f} ms")
    con.close()


if __name__ == "__main__":
    main()
