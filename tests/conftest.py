"""Fixtures that many layers share: a kit in memory and a demo database of its own per test."""

from __future__ import annotations

import os

# as `wide-arc` itself does, and each test process has a core of its own
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import shutil

import pytest
from hypothesis import settings

from widearc import store
from widearc.core.equipment import PointsLaw
from widearc.core.kit import Anchor, BandShape, BandStock, Furniture, Kit, SledPress, Weight
from widearc.demo import load_demo

# what the suite says depends on the commit alone, not on luck or a busy machine; `make fuzz` looks
# further
settings.register_profile("steady", derandomize=True, deadline=None)
settings.register_profile("fuzz", max_examples=2000, deadline=None)
settings.load_profile("steady")

NOW = "2026-11-24T09:00:00+00:00"


def points_law(rest_m: float = 1.0, top_n: float = 120.0) -> PointsLaw:
    """Return an invented strand: steep first, then straight."""
    lengths = tuple(rest_m * s for s in (1.0, 1.1, 1.3, 1.6, 2.0))
    return PointsLaw(
        rest_m=rest_m,
        length_m=lengths,
        force_n_at=tuple(top_n * f for f in (0, 0.25, 0.5, 0.75, 1)),
    )


@pytest.fixture
def kit() -> Kit:
    return Kit(
        weights=(
            Weight(id="bar", kind="bar", kg=20),
            Weight(id="p10", kind="plate", kg=10, count=4),
            Weight(id="p5", kind="plate", kg=5, count=2),
            Weight(id="d12", kind="dumbbell", kg=12, count=2),
            Weight(id="d16", kind="dumbbell", kg=16, count=2),
            Weight(id="k24", kind="kettlebell", kg=24),
        ),
        bands=(
            BandStock(
                id="light", name="light loop", shape=BandShape.LOOP, law=points_law(top_n=70)
            ),
            BandStock(
                id="long",
                name="long band",
                shape=BandShape.LONG,
                law=points_law(rest_m=2.0, top_n=90),
            ),
        ),
        furniture=(Furniture(id="box", name="Box 52", kind="box", height_m=0.52),),
        anchors=(Anchor(id="eye", name="Eye", height_m=1.2),),
        presses=(SledPress(id="press", name="Sled press", rail_deg=40, empty_kg=38),),
    )


@pytest.fixture
def con(tmp_path):
    connection = store.open_store(tmp_path / "test.db")
    yield connection
    connection.close()


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory):
    """The demo as a file, made once: a copy is all that a test needs."""
    path = tmp_path_factory.mktemp("demo") / "demo.db"
    connection = store.open_store(path)
    load_demo(connection, now=NOW)
    connection.close()
    return path


@pytest.fixture
def demo(demo_file, tmp_path):
    connection = store.open_store(shutil.copy(demo_file, tmp_path / "demo.db"))
    yield connection
    connection.close()
