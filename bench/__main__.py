"""`make bench`: curves per second beside MuJoCo's inverse dynamics over the same postures, and the
swap search.
"""

from __future__ import annotations

import os

# as `wide-arc` itself does: all times are of one core
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import gzip
import os
import resource
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path

import mujoco
import numpy as np
from scipy.optimize import lsq_linear

import widearc.web
from widearc import store
from widearc.core.body import Body, Limits
from widearc.core.equipment import Band, FreeMass, LinearLaw, Load, Sled, Spring
from widearc.core.exercises import EXERCISES
from widearc.core.kit import (
    MACHINES,
    Anchor,
    BandShape,
    BandStock,
    Furniture,
    Kit,
    Machine,
    Rules,
    SledPress,
    SpringStock,
    Thing,
    Weight,
)
from widearc.core.matching import compare, target_of
from widearc.core.movement import Setup
from widearc.core.muscle import FMAX_N, JOINTS, paths_of, share_n
from widearc.core.search import Memo, Question, Ranking, make_sure, ranked
from widearc.core.setups import Range, batches_of
from widearc.core.statics import curve, curves_in_parts
from widearc.demo import load_demo
from widearc.usecases import SwapAsk, mark, swap_view
from widearc.web import create_app

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
    """Return label, exercise and loads for n set-ups of six families, and one that needs a root
    search.
    """
    kg = lambda n: np.linspace(5, 60, n)[:, None]  # noqa: E731
    band = LinearLaw(rest_m=0.9, rate_n_per_m=150.0)
    return [
        ("stance, bar", "back-squat-high", lambda n: [FreeMass(kg=kg(n), port="back-high")]),
        ("split, dumbbells", "split-squat", lambda n: [FreeMass(kg=kg(n), port="hands")]),
        ("sled press", "leg-press-45", lambda n: [Sled(kg=kg(n), empty_kg=38)]),
        ("knee rotation", "leg-extension-dumbbell", lambda n: [FreeMass(kg=kg(n), port="ankle")]),
        ("kneeling", "reverse-nordic", lambda n: [FreeMass(kg=0.2 * kg(n), port="goblet")]),
        ("hinge, bar", "romanian-deadlift", lambda n: [FreeMass(kg=kg(n), port="hands")]),
        (
            "(root) stance, band from the floor",
            "back-squat-high",
            lambda n: [
                FreeMass(kg=kg(n), port="back-high"),
                Band(law=band, port="shoulders", anchor=(0.1, 0.0, 0.2)),
            ],
        ),
    ]


def engine_seconds_per_curve(samples: int = 101) -> float:
    """Return the time of one curve as a loop over MuJoCo's inverse dynamics: three hinges, one
    outside force.
    """
    segments = "".join(
        (
            f'<body pos="0 {0.4 * (i > 0)} 0"><joint axis="0 0 1"/><geom type="sphere" size=".01" '
            'mass="9" pos="0 .2 0"/>'
        )
        for i in range(3)
    )
    model = mujoco.MjModel.from_xml_string(
        f"<mujoco><worldbody>{segments}</body></body></body></worldbody></mujoco>"
    )
    data = mujoco.MjData(model)
    postures = np.linspace(0.1, 1.2, samples)

    def one() -> None:
        for angle in postures:
            data.qpos[:] = (0.2, angle, -angle)
            data.xfrc_applied[3, 1] = -600.0
            mujoco.mj_inverse(model, data)

    return best_of(lambda: [one() for _ in range(LOOPED)]) / LOOPED


def small_step_us() -> float:
    """Return how long NumPy takes to double 3,100 numbers and look at them, µs: of such a search is
    made.
    """
    numbers = np.ones((100, 31))
    return (
        1e6 * best_of(lambda: [np.any(numbers * 2.0 > 3.0) for _ in range(1000)] and None, 5) / 1000
    )


def main() -> None:
    """Print everything."""
    print(
        f"this machine: {small_step_us():.1f} µs for NumPy to double 3,100 numbers and look at them"
    )
    bench_start()
    engine = engine_seconds_per_curve()
    print(f"MuJoCo inverse dynamics in a loop: {1 / engine:,.0f} curves/s (101 postures each)")
    print(f"{'family':36}{'curves/s':>10}{'x loop':>8}{'one curve, ms':>15}")
    limits = Limits(hip_flexion_deg=150)
    for label, name, loads in cases():
        many = Setup(exercise=EXERCISES[name], limits=limits, loads=loads(SETUPS))
        single = Setup(exercise=EXERCISES[name], limits=limits, loads=loads(1))
        per_curve = (
            best_of(lambda m=many: [c.demand_nm for c in curves_in_parts(m)] and None, 9) / SETUPS
        )
        alone = best_of(lambda s=single: curve(s, strict=False), 20)
        print(f"{label:36}{1 / per_curve:>10,.0f}{engine / per_curve:>8.1f}{1000 * alone:>15.2f}")
    bench_memory()
    bench_muscles()
    bench_scripts()
    bench_swap()
    bench_search()
    many = [sys.executable, "-m", "bench.many"]
    print(subprocess.run(many, capture_output=True, text=True, check=True).stdout.strip())
    bench_drag()
    bench_room()
    for part in ("bench.rungs", "bench.weeks", "bench.years"):
        run = [sys.executable, "-m", part]
        print(subprocess.run(run, capture_output=True, text=True, check=True).stdout.strip())
    print(
        "peak memory of this run: "
        f"{resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:,.0f} MB"
    )


def bench_start() -> None:
    """Print how long a start takes beside NumPy alone: `serve` until its first page. Compiled
    modules are kept between the runs, as they are unless the environment forbids it.
    """
    env = os.environ | {"PYTHONDONTWRITEBYTECODE": ""}

    def ran(*words: str) -> float:
        command = [sys.executable, *words]
        return best_of(lambda: subprocess.run(command, check=True, capture_output=True, env=env))

    numpy_s = ran("-c", "import numpy")
    print(f"python -c 'import numpy' {1000 * numpy_s:.0f} ms")
    with tempfile.TemporaryDirectory() as folder:
        filled = best_of(lambda: first_page(folder, env), times=1)
        for name, seconds in (
            ("--help", ran("-m", "widearc.cli", "--help")),
            ("exercises", ran("-m", "widearc.cli", "exercises")),
            ("serve, first page, the demo filled first", filled),
            ("serve, first page", best_of(lambda: first_page(folder, env))),
        ):
            print(f"wide-arc {name}: {1000 * seconds:.0f} ms, {seconds / numpy_s:.1f} x NumPy")


def first_page(folder: str, env: dict[str, str]) -> None:
    """Start a server of demo data in a folder, read the page it opens with, and stop it."""
    command = ["-m", "widearc.cli", "serve", "--demo", "--port", "0", "--data", folder]
    with subprocess.Popen(
        [sys.executable, *command],
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
        env=env,
    ) as server:
        assert server.stdout is not None
        address = next(word for word in server.stdout.readline().split() if "://" in word)
        with urllib.request.urlopen(address) as page:
            assert page.status == 200
        server.terminate()


def bench_memory() -> None:
    """Print the peak of the demands of 20,000 set-ups, in a process of its own."""
    code = (
        "import resource, numpy as np\n"
        "from widearc.core.exercises import EXERCISES\n"
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
    """Print the load sharing of many curves beside SciPy's bounded least squares on a few of the
    same samples.
    """
    setup = Setup(
        exercise=EXERCISES["back-squat-high"],
        loads=[FreeMass(kg=np.linspace(5, 90, 100)[:, None], port="back-high")],
    )
    found = curve(setup, lowering=False)
    angles = {j: found.motion.angles[j].ravel() for j in JOINTS}
    demand = np.array([found.demand_nm[j].ravel() for j in JOINTS])
    arm = paths_of(angles).arm_m
    start = time.perf_counter()
    for _ in range(curves // 100):
        share_n(arm, demand)
    ours = (time.perf_counter() - start) / curves
    start = time.perf_counter()
    for s in range(0, demand.shape[1], demand.shape[1] // 40):
        # the constraint as a heavy row: what a general solver does with one posture
        rows = np.vstack((1e4 * arm[:, :, s].T, np.diag(1.0 / FMAX_N)))
        lsq_linear(
            rows, np.concatenate((-1e4 * demand[:, s], np.zeros(len(FMAX_N)))), bounds=(0.0, np.inf)
        )
    general = (time.perf_counter() - start) / 40 * 101
    print(
        f"load sharing, {curves} curves: {1 / ours:,.0f} curves/s; a general solver "
        f"{1 / general:,.1f}: "
        f"{general / ours:,.0f} times"
    )


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
    """Print the demo's ranking: cold, after a changed load, after an item was marked; and how sure
    it is.
    """
    con = store.open_store(":memory:")
    load_demo(con, now=NOW)
    memo = Memo()
    ask = SwapAsk(place_id=1, client_id=1)
    swap_view(con, 1, ask, Memo())  # the libraries are loaded once, not by a question
    # each time with nothing kept
    cold = best_of(lambda: swap_view(con, 1, ask, Memo()))
    view = swap_view(con, 1, ask, memo)
    assert view.ranking is not None
    start = time.perf_counter()
    make_sure(view.ranking.candidates)
    sure = [c.uncertainty for c in view.ranking.candidates]
    doubts = time.perf_counter() - start
    print(
        f"swap, demo deck container, {view.ranking.tried} set-ups: cold {1000 * cold:.0f} ms",
        end="; ",
    )
    print(f"how sure {len(sure)} stand-ins are {1000 * doubts:.0f} ms", end="; ")
    for place in store.places(con, 1)[1:]:
        elsewhere = SwapAsk(place_id=place.id, client_id=1)
        seconds = best_of(lambda a=elsewhere: swap_view(con, 1, a, Memo()))
        found = swap_view(con, 1, elsewhere, Memo()).ranking
        assert found is not None
        print(
            f"{place.name.lower()}, {found.tried} set-ups: cold {1000 * seconds:.0f} ms", end="; "
        )
    other = best_of(lambda: swap_view(con, 1, SwapAsk(place_id=1, client_id=1, kg=100), memo))
    band = next(i for i in store.items(con, 1, 1) if i.kind == "band")
    mark(con, 1, band.id, store.State.TAKEN, now=NOW)
    marked = best_of(lambda: swap_view(con, 1, ask, memo), 1)
    again = best_of(lambda: swap_view(con, 1, ask, memo))
    print(
        f"other load {1000 * other:.0f} ms; one item marked {1000 * marked:.0f} ms, asked again "
        f"{1000 * again:.0f} ms"
    )
    con.close()


def whole_room(plates: int = 1) -> Kit:
    """Return a kit that admits most of the catalogue; plates: so many pairs of each size."""
    return Kit(
        weights=(
            Weight(id="bar", kind="bar", kg=20),
            *(
                Weight(id=f"p{k:g}", kind="plate", kg=k, count=2 * plates)
                for k in (20, 15, 10, 5, 2.5, 1.25)
            ),
            *(Weight(id=f"d{k}", kind="dumbbell", kg=k, count=2) for k in (6, 8, 12, 16, 20, 24)),
            *(Weight(id=f"k{k}", kind="kettlebell", kg=k, count=2) for k in (16, 24, 32)),
        ),
        bands=tuple(
            BandStock(
                id=f"b{i}",
                name=f"band {i}",
                shape=BandShape.LOOP,
                law=LinearLaw(rest_m=1.0, rate_n_per_m=60.0 * (i + 1)),
            )
            for i in range(4)
        ),
        furniture=tuple(
            Furniture(id=kind + str(height), name=kind, kind=kind, height_m=height)
            for kind, height in (
                ("bench", 0.43),
                ("box", 0.3),
                ("box", 0.12),
                ("couch", 0.45),
                ("rack", 1.2),
            )
        ),
        anchors=(
            Anchor(id="low", name="low", height_m=0.06),
            Anchor(id="high", name="high", height_m=1.1),
        ),
        presses=(
            SledPress(id="press", name="press", rail_deg=40, empty_kg=38),
            SledPress(id="level", name="level", rail_deg=0, empty_kg=20, backrest_deg=60),
        ),
        things=tuple(
            Thing(id=kind, name=kind, kind=kind, thick_m=0.03)
            for kind in (
                "heel wedge",
                "ball",
                "dip belt",
                "post",
                "peg rail",
                "high bar",
                "bench 45",
                "bench level",
                "glute-ham bench",
                "ankle hold",
                "pad",
            )
        ),
        machines=tuple(
            Machine(
                id="m " + kind,
                name=kind,
                kind=kind,
                dials=(("", ((0.0, 50.0, 110.0), (0.10, 0.14, 0.11))),),
                quantities={
                    "smallest_kg": 5.0,
                    "largest_kg": 100.0,
                    "step_kg": 5.0,
                    "rail_deg": 60.0,
                    "empty_kg": 20.0,
                    "height_m": 0.1,
                    "travel_m": 1.0,
                },
            )
            for kind in sorted(set(MACHINES.values()))
        ),
        springs=(
            SpringStock(
                id="s", name="spring", spring=Spring(start_n=30, end_n=150, travel_m=0.9), count=3
            ),
        ),
    )


def bench_search() -> None:
    """Print the search over a whole room beside a plain loop over set-ups, and its growth with the
    kit.
    """
    wanted = curve(
        Setup(
            exercise=EXERCISES["leg-press-45"],
            options={"rail_deg": 40, "knee_from_deg": 95},
            loads=(Sled(kg=100, empty_kg=38),),
        ),
        lowering=False,
    )
    rules = Rules(to_shoulders_kg=60.0, partner=True, floor_length_m=9.0)
    body, limits = Body(), Limits()
    target = target_of(wanted)
    spent = []
    for plates in (1, 2):
        kit = whole_room(plates)

        def asked(kit: Kit = kit) -> Ranking:
            return ranked(
                Question(asked=wanted, kit=kit, body=body, limits=limits, rules=rules, memo=Memo())
            )

        found = asked()
        spent.append((found.tried, best_of(asked), len(found.candidates)))
    for tried, seconds, names in spent:
        print(
            f"search, a whole room: {tried} set-ups, {names} stand-ins, {1000 * seconds:.0f} ms",
            end="; ",
        )
        print(f"{1e6 * seconds / tried:.0f} µs a set-up")
    print(f"set-ups x {spent[1][0] / spent[0][0]:.1f} took x {spent[1][1] / spent[0][1]:.1f}")
    batch = next(
        iter(
            batches_of(
                EXERCISES["back-squat-high"],
                whole_room(),
                body,
                limits,
                Range(from_deg=95, to_deg=10),
            )
        )
    )
    rows = [batch.row(0, k) for k in range(min(40, len(batch.totals)))]

    def one_by_one() -> None:
        for row in rows:
            made = curve(batch.setup(body, limits, (row,)), lowering=False)
            compare(target, made.motion.angles, made.demand_nm, 1)

    each = best_of(one_by_one) / len(rows)
    ratio = each * spent[0][0] / spent[0][1]
    print(f"a plain loop, each set-up by itself: {1e6 * each:.0f} µs, {ratio:.0f} times the search")


def bench_drag() -> None:
    """Print how long the answer to a drag on Arc and on Intent takes, 95 of 100 of them."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "demo.db"
        con = store.open_store(path)
        load_demo(con, now=NOW)
        con.close()
        client = create_app(
            path, secret_key="bench", config={"WTF_CSRF_ENABLED": False}
        ).test_client()
        for name, address, values in (
            (
                "foot on the plate",
                "/arc/?exercise=leg-press-45&for=leg-press-45&l0=sled&o-foot_height_m={}",
                range(1, 26),
            ),
            (
                "anchor of a band",
                "/arc/?exercise=leg-extension-band&for=leg-extension-band&l0=band&l0-y={}",
                range(1, 26),
            ),
            (
                "a handle of the target",
                "/intent/?a0=knee_extension&f0=95&t0=10&s0=&h0-0={}&h0-1=90",
                range(60, 110, 2),
            ),
        ):
            was = address.format(values[0]).split("?")[1]
            headers = {"X-Part": "answer", "X-Drag": "1", "X-Was": was}
            client.get(address.format(values[0]), headers=headers)
            spent = []
            for value in values:
                start = time.perf_counter()
                client.get(address.format(value), headers=headers)
                spent.append(time.perf_counter() - start)
            print(f"drag, {name}: {1000 * float(np.quantile(spent, 0.95)):.0f} ms (p95)")


def bench_room() -> None:
    """Print how long the page of a place with 200 things takes: at most 150 ms of server time are
    wanted.
    """
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "demo.db"
        con = store.open_store(path)
        load_demo(con, now=NOW)
        with store.transaction(con):
            for n in range(200 - len(store.items(con, 1, 1))):
                store.add_item(
                    con,
                    1,
                    1,
                    kind="dumbbell",
                    name=f"Dumbbell no {n}",
                    zone="ABCDE"[n % 5],
                    quantities={"kg": 4 + n / 2, "count": 2},
                )
        con.close()
        client = create_app(path, secret_key="bench").test_client()
        client.get("/room/1")
        print(f"a room of 200 things: {1000 * best_of(lambda: client.get('/room/1')):.0f} ms")


if __name__ == "__main__":
    main()
