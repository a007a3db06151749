"""Settings: units, language, the trainer's day, numbers or by feel, the how-to again."""

from widearc.web.screens.screen import Mark, Screen
from widearc.web.screens.settings.view import blueprint

SCREEN = Screen(
    blueprints=(blueprint,),
    marks=(
        Mark(words="Settings", endpoint="settings.show", task="settings", rank=14, where="more"),
    ),
)
