"""An intent as an address, and back: every part a field of its own, so that a link reopens the same
view.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from urllib.parse import parse_qsl, urlencode

from widearc.core.body import Body
from widearc.core.curve import Action
from widearc.core.dose import RepStyle, StyleKind, Tempo
from widearc.core.errors import InputError
from widearc.core.intent import HANDLES, Intent, Shape, WantedAction
from widearc.core.words import Name, Said
from widearc.usecases.intent.intents import start_intent, with_handles
from widearc.web.forms.typed import integer, number
from widearc.web.words.refused import not_used, sentence
from widearc.words import tr

LONGEST = 2000


USUAL = {
    Action.KE: (95.0, 10.0),
    Action.HE: (90.0, 10.0),
    Action.KF: (10.0, 95.0),
    Action.HF: (0.0, 90.0),
    Action.PF: (15.0, -25.0),
    Action.AB: (0.0, 30.0),
    Action.AD: (30.0, 0.0),
}


ASKS = {
    StyleKind.PAUSE: ("at", "secs"),
    StyleKind.HOLD: ("at", "secs"),
    StyleKind.SLOW_LOWERING: ("secs",),
    StyleKind.ONE_AND_A_QUARTER: ("end",),
    StyleKind.PARTIALS: ("pf", "pt"),
}
"""The further fields of a rep style."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Read:
    """An address read: the intent, or None with problems by field; typed: every field as text."""

    intent: Intent | None
    problems: dict[str, str]
    typed: dict[str, str]
    query: str


def read(source: Mapping[str, str], body: Body) -> Read:
    """Return what an address of the Intent screen says; the usual start where it says nothing."""
    if "a0" not in source:
        given = dict(parse_qsl(address(start_intent(), body)))
        return Read(
            intent=start_intent(), problems={}, typed=given, query=address(start_intent(), body)
        )
    problems: dict[str, str] = {}
    typed = dict(source.items())
    intent = _read_intent(source, problems)
    if intent is not None:
        typed |= dict(parse_qsl(address(intent, body)))
        return Read(intent=intent, problems={}, typed=typed, query=address(intent, body))
    return Read(intent=None, problems=problems, typed=typed, query=urlencode(typed))


def _read_intent(source: Mapping[str, str], problems: dict[str, str]) -> Intent | None:
    parts = [_part(source, i, problems) for i in range(2) if source.get(f"a{i}")]
    if problems:
        return None
    try:
        return Intent(
            parts=tuple(p for p in parts if p is not None),
            sets=integer(source, "sets", 3, what=tr("a whole number from 1 to 20")),
            reps=integer(source, "reps", 10, what=tr("a whole number from 1 to 100")),
            tempo=_tempo(source),
            style=_style(source),
            by_feel=source.get("feel") == "1",
        )
    except InputError as error:
        problems[_field(error.where)] = _words(error)
        return None


def _ends(source: Mapping[str, str], i: str, usual: tuple[float, ...]) -> tuple[float, float]:
    """Return the range as typed, degrees; the usual one where the action is another than before:
    it keeps nothing of a range that was another joint's.
    """
    if source.get(f"was{i}", source[f"a{i}"]) != source[f"a{i}"]:
        return usual[0], usual[1]
    what = "degrees, from −40 to 160"
    return (
        number(source, f"f{i}", usual[0], what=what),
        number(source, f"t{i}", usual[1], what=what),
    )


def _part(source: Mapping[str, str], index: int, problems: dict[str, str]) -> WantedAction | None:
    i = str(index)
    try:
        action = Action.named(source[f"a{i}"], f"a{i}")
        ends = _ends(source, i, USUAL[action])
        shape = source.get(f"s{i}", "")
        mean = source.get(f"m{i}", "").strip()
        if shape:
            level = (
                number(source, f"m{i}", 0.0, what=tr("N·m from 1 to 2000, or nothing"))
                if mean
                else None
            )
            known = next((s for s in Shape if s.value == shape), None)
            if known is None:
                raise InputError(f"s{i}", shape, Said("one of the shapes of the list"))
            return WantedAction(
                action=action, from_deg=ends[0], to_deg=ends[1], shape=known, mean_nm=level
            )
        handles = tuple(
            (f, number(source, f"h{i}-{k}", 100.0, what=tr("N·m from 0 to 2000")))
            for k, f in enumerate(HANDLES)
        )
        return WantedAction(action=action, from_deg=ends[0], to_deg=ends[1], handles=handles)
    except InputError as error:
        problems[_field(error.where, i)] = _words(error)
        return None


def _tempo(source: Mapping[str, str]) -> Tempo:
    return Tempo(
        lowering_s=number(source, "lower", 2.0, what=tr("seconds, from 0.1 to 120")),
        lifting_s=number(source, "lift", 1.0, what=tr("seconds, from 0.1 to 120")),
    )


def _style(source: Mapping[str, str]) -> RepStyle:
    name = source.get("style", "plain")
    kind = next((k for k in StyleKind if k.value == name), None)
    if kind is None:
        raise InputError("/style", name, Said("one of the list"))
    asks = ASKS.get(kind, ())
    values: dict[str, Any] = {}
    for key, field, usual in (
        ("at", "at_deg", 90.0),
        ("secs", "seconds", 2.0),
        ("pf", "from_deg", 90.0),
        ("pt", "to_deg", 45.0),
    ):
        if key in asks:
            values[field] = number(source, key, usual, what=tr("a number"))
    return RepStyle(kind=kind, end=source.get("end", "lengthened"), **values)


def _field(where: str, part: str = "0") -> str:
    """Return the form's field for a place of the core's refusal."""
    name = where.strip("/")
    if name.startswith("handles/"):
        return f"h{part}-{name.split('/')[1]}"
    found = {
        "from_deg": f"f{part}",
        "to_deg": f"t{part}",
        "mean_nm": f"m{part}",
        "shape": f"s{part}",
        "handles": f"h{part}-0",
        "tempo/lowering_s": "lower",
        "tempo/lifting_s": "lift",
        "style/at_deg": "at",
        "style/seconds": "secs",
        "style/from_deg": "pf",
        "style/to_deg": "pt",
        "style/end": "end",
        "actions/1/action": "a1",
        "actions/1/mean_nm": "m1",
        "actions": "a0",
    }
    return found.get(name, name)


def _words(error: InputError) -> str:
    return sentence(error.allowed) if error.value is None else not_used(error)


def problems_of(found: Read) -> Said:
    """Return what of a typed intent is not used, as one sentence."""
    return Said("{problems}", problems=Name("; ".join(found.problems.values())))


def address(intent: Intent, body: Body) -> str:
    """Return an intent as the query of its address."""
    pairs: list[tuple[str, str]] = []
    for i, part in enumerate(intent.parts):
        pairs += [
            (f"a{i}", part.action.label),
            (f"f{i}", f"{part.from_deg:g}"),
            (f"t{i}", f"{part.to_deg:g}"),
        ]
        pairs.append((f"s{i}", part.shape.value if part.shape else ""))
        if part.mean_nm is not None:
            pairs.append((f"m{i}", f"{part.mean_nm:g}"))
        pairs += [(f"h{i}-{k}", f"{nm:.0f}") for k, (_, nm) in enumerate(with_handles(part, body))]
    style, tempo = intent.style, intent.tempo
    pairs += [("sets", str(intent.sets)), ("reps", str(intent.reps))]
    pairs += [
        ("lower", f"{tempo.lowering_s:g}"),
        ("lift", f"{tempo.lifting_s:g}"),
        ("style", style.kind.value),
    ]
    values = {"at": style.at_deg, "secs": style.seconds, "pf": style.from_deg, "pt": style.to_deg}
    pairs += [(k, f"{v:g}") for k, v in values.items() if v is not None]
    if style.end != "lengthened":
        pairs.append(("end", style.end))
    if intent.by_feel:
        pairs.append(("feel", "1"))
    return urlencode(pairs)


def intent_of(want: str, body: Body) -> Intent | None:
    """Return the intent that a "want" parameter holds, None where it holds none; InputError where
    it is not read.
    """
    if not want:
        return None
    found = read(dict(parse_qsl(want[:LONGEST])), body)
    if found.intent is None:
        raise InputError("want", want[:40], problems_of(found))
    return found.intent
