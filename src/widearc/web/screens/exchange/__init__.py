"""A place's kit out to a file, and in from one."""

from widearc.web.screens.exchange.view import blueprint
from widearc.web.screens.screen import Screen

SCREEN = Screen(
    blueprints=(blueprint,),
)
