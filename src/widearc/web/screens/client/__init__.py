"""Client: what is known of a body."""

from widearc.web.screens.client.record import blueprint as record
from widearc.web.screens.client.view import blueprint
from widearc.web.screens.screen import Mark, Screen

SCREEN = Screen(
    blueprints=(blueprint, record),
    marks=(Mark(words="Client", endpoint="clients.listed", task="client", rank=10),),
)
