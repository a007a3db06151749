"""An intent as its document part, to and fro."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from widearc.core.curve import Action
from widearc.core.dose import RepStyle, Tempo
from widearc.core.errors import InputError
from widearc.core.intent import Intent, Shape, WantedAction
from widearc.formats.scenario import parse_style


def parse_intent(part: Mapping[str, Any], pointer: str = "") -> Intent:
    """Return an intent from a document part that follows its schema; InputError names the place
    under `pointer`.
    """
    actions = []
    for index, item in enumerate(part["actions"]):
        here = f"{pointer}/actions/{index}"
        handles = item.get("handles")
        try:
            actions.append(
                WantedAction(
                    action=Action.named(item["action"]),
                    from_deg=float(item["from_deg"]),
                    to_deg=float(item["to_deg"]),
                    handles=None
                    if handles is None
                    else tuple((float(h["fraction"]), float(h["nm"])) for h in handles),
                    shape=Shape(item["shape"]) if "shape" in item else None,
                    mean_nm=item.get("mean_nm"),
                )
            )
        except InputError as error:
            raise InputError(here + error.where, error.value, error.allowed) from None
    style, tempo = parse_style(part)
    try:
        return Intent(
            parts=tuple(actions),
            sets=part.get("sets", 3),
            reps=part.get("reps", 10),
            style=style,
            tempo=tempo or Tempo(),
            by_feel=part.get("by_feel", False),
        )
    except InputError as error:
        raise InputError(pointer + error.where, error.value, error.allowed) from None


def intent_part(intent: Intent) -> dict[str, Any]:
    """Return the document part of an intent."""
    return {
        "actions": [_action(part) for part in intent.parts],
        "sets": intent.sets,
        "reps": intent.reps,
        "style": style_part(intent.style),
        "tempo": {"lowering_s": intent.tempo.lowering_s, "lifting_s": intent.tempo.lifting_s},
        "by_feel": intent.by_feel,
    }


def style_part(style: RepStyle) -> dict[str, Any]:
    """Return the document part of a rep style: only what was given."""
    part: dict[str, Any] = {"kind": style.kind.value, "end": style.end}
    for name in ("at_deg", "seconds", "from_deg", "to_deg"):
        if getattr(style, name) is not None:
            part[name] = getattr(style, name)
    return part


def _action(part: WantedAction) -> dict[str, Any]:
    found: dict[str, Any] = {
        "action": part.action.label,
        "from_deg": part.from_deg,
        "to_deg": part.to_deg,
    }
    if part.handles is not None:
        found["handles"] = [{"fraction": f, "nm": round(nm, 4)} for f, nm in part.handles]
    if part.shape is not None:
        found["shape"] = part.shape.value
    if part.mean_nm is not None:
        found["mean_nm"] = part.mean_nm
    return found
