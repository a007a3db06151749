"""The short how-to of each screen, three drawings with a line each, and its keys."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

How = tuple[tuple[str, str], tuple[str, str], tuple[str, str]]
"""Three drawings by their names, each with its line."""

HOW: Mapping[str, How] = MappingProxyType(
    {
        "home": (
            ("room", "Say once where you are and with whom: every screen keeps it."),
            ("button", "The dark button is the next thing to do."),
            ("week", "What is planned, done and missed this week, of everyone."),
        ),
        "room": (
            ("discs", "One tap on a thing: taken. One more: free again."),
            ("lines", "Say a whole room in a line; check the rows, then keep them."),
            ("bars", "What can still be trained here is counted at once."),
        ),
        "bench": (
            ("scale", "Pull the band on a scale at three lengths or more."),
            ("fit", "The law is drawn through what was read; what is off shows."),
            ("badge", "Weighed, described or assumed: each number says which."),
        ),
        "arc": (
            ("ribbon", "The ribbon is wide where the lift is hard, thin where it is light."),
            ("drag", "Drag along the arc: figure, curve and numbers go together."),
            ("pair", "Pin A and B to lay two set-ups over each other."),
        ),
        "intent": (
            ("handles", "Five handles say where in the range it shall be hard."),
            ("ribbon", "Choose joint, range, sets, reps and tempo."),
            ("lines", "Ask Swap what here comes close, or put it in a week."),
        ),
        "swap": (
            ("discs", "Say what is wanted; what is taken is left out."),
            ("match", "Outline: wanted. Filled: this one. Hatched: what is missing."),
            ("plates", "Load what is drawn, tick the checks, use it."),
        ),
        "ladder": (
            ("rungs", "Every rung that the plates, bands or springs here can make."),
            ("drag", "The marked rung is now; the next step has its reason."),
            ("bridge", "A wide gap has a bridge: reps, pause, longer range."),
        ),
        "week": (
            ("week", "Put lifts on days, or begin with a ready week."),
            ("bars", "Each muscle long, middle, short: what is missing is found."),
            ("button", "One tap adds or moves what mends it."),
        ),
        "floor": (
            ("plates", "Pick up what is drawn; the weak side goes first."),
            ("button", "Done keeps the set and starts the rest."),
            ("discs", "Taken, broken form, pain: what to do then is one tap away."),
        ),
        "client": (
            ("lines", "Only the name is needed; each line more drives a rule."),
            ("fit", "Strength, from every lift at every place."),
            ("pair", "Left against right, from sets of one side each."),
        ),
    }
)

COMMON = (
    ("?", "this list"),
    ("Tab", "the next thing; Enter opens or presses it"),
    ("Esc", "close what is open"),
    ("u", "undo the last change"),
)
SCRUB = (
    ("← →", "along the lift, on the figure or the curve"),
    ("Home End", "to its ends"),
    ("Space", "play at the set’s tempo"),
)
KEYS: Mapping[str, tuple[tuple[str, str], ...]] = MappingProxyType(
    {
        "room": (("j k", "next and previous thing"), ("t", "taken or free"), ("b", "broken")),
        "bench": (("n", "a new band’s name"),),
        "arc": (*SCRUB, ("p", "pin this set-up"), ("/", "find an exercise")),
        "intent": (("← → ↑ ↓", "move a handle that has the focus"),),
        "swap": (
            ("j k", "next and previous stand-in"),
            *SCRUB,
            ("/", "find in the list"),
        ),
        "floor": (("Enter", "Done, where it has the focus"),),
    }
)


def keys_of(screen: str) -> tuple[tuple[str, str], ...]:
    """Return the keys of a screen with what they do, its own first."""
    return (*KEYS.get(screen, ()), *COMMON)
