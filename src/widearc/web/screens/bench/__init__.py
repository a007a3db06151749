"""Bench: bands and machines measured, with a gauge or by hand."""

from widearc.web.screens.bench.gauge import blueprint as gauge
from widearc.web.screens.bench.machine import blueprint as machine
from widearc.web.screens.bench.view import blueprint as view
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(
        view,
        machine,
        gauge,
    ),
    marks=(Mark(words="Bench", endpoint="bench.bands", task="bench", rank=2),),
)
