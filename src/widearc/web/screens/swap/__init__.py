"""Swap: what to do instead; and what was kept."""

from widearc.web.screens.screen import Mark, Screen
from widearc.web.screens.swap.view import blueprint

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(
        Mark(words="Swap", endpoint="swap.show", task="swap", rank=5, where="edge"),
        Mark(words="Kept", endpoint="swap.kept", task="kept", rank=6, where="more"),
    ),
)
