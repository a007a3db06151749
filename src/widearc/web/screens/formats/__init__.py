"""The open formats' schemas."""

from widearc.web.screens.formats.view import blueprint
from widearc.web.screens.screen import Screen

SCREEN = Screen(
    blueprints=(blueprint,),
)
