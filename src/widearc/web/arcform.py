"""The Arc page's form to a scenario document and back. Lengths are typed in centimetres where a
tape reads them.
"""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from widearc.core.errors import InputError
from widearc.core.exercises import Exercise, OptionSpec
from widearc.core.kit import READ
from widearc.web.forms import known_id, number

MOST_LOADS = 6


@dataclass(frozen=True, slots=True, kw_only=True)
class Field:
    """One input of the form: name in the address, label, unit, value as typed, choices (value,
    words).
    """

    name: str
    label: str
    unit: str
    value: str
    hint: str = ""
    choices: tuple[tuple[str, str], ...] = ()
    usual: str = ""

    @property
    def changed(self) -> bool:
        """Return whether something other than the usual value was typed."""
        return self.value != self.usual

    @property
    def worded(self) -> bool:
        """Return whether a word stands where a number could: it has no unit and needs more room."""
        return any(letter.isalpha() for letter in self.value)


@dataclass(frozen=True, slots=True, kw_only=True)
class LoadRow:
    """One load of the form."""

    index: int
    kind: str
    title: str
    fields: tuple[Field, ...]


# kind: title, then (key, label, unit shown, factor to the document's unit, default)
LOADS: Mapping[str, tuple[str, tuple[tuple[str, str, str, float, str], ...]]] = {
    "mass": ("weight", (("kg", "weight", "kg", 1.0, "20"), ("port", "where", "", 0.0, ""))),
    "band": (
        "band",
        (
            ("band", "which", "", 0.0, ""),
            ("rest", "rest length", "cm", 0.01, "70"),
            ("rate", "pull per 10 cm, one strand", "N", 10.0, "15"),
            ("port", "where", "", 0.0, ""),
            ("tie", "tied to", "", 0.0, "point"),
            ("x", "anchor ahead", "cm", 0.01, "10"),
            ("y", "anchor height", "cm", 0.01, "0"),
            ("strands", "strands", "", 1.0, "2"),
            ("count", "how many", "", 1.0, "1"),
            ("back", "gives back less", "%", 0.01, "10"),
            ("lead", "chain or strap before it", "cm", 0.01, "0"),
        ),
    ),
    "sled": (
        "sled",
        (
            ("kg", "plates", "kg", 1.0, "100"),
            ("empty", "empty sled", "kg", 1.0, "38"),
            ("friction", "friction", "", 1.0, "0"),
        ),
    ),
    "spring": (
        "springs",
        (
            ("start", "at the first mark", "N", 1.0, "40"),
            ("end", "at full travel", "N", 1.0, "200"),
            ("travel", "full travel", "cm", 0.01, "90"),
            ("count", "how many", "", 1.0, "1"),
            ("port", "where", "", 0.0, ""),
            ("x", "anchor ahead", "cm", 0.01, "30"),
            ("y", "anchor height", "cm", 0.01, "10"),
        ),
    ),
    "stack": (
        "weight stack",
        (
            ("kg", "weight", "kg", 1.0, "40"),
            ("ratio", "pull per weight", "", 1.0, "1"),
            ("cam", "cam, degrees: radius in cm", "", 0.0, "0: 11, 60: 14, 110: 12"),
            ("friction", "friction", "", 1.0, "0.05"),
        ),
    ),
    "lever": (
        "lever",
        (
            ("kg", "weight", "kg", 1.0, "30"),
            ("arm", "weight from the pivot", "cm", 0.01, "90"),
            ("angle", "arm above level at the start", "°", 1.0, "0"),
            ("x", "pivot ahead", "cm", 0.01, "-110"),
            ("y", "pivot height", "cm", 0.01, "100"),
            ("own", "bare arm", "kg", 1.0, "8"),
            ("ownarm", "its middle from the pivot", "cm", 0.01, "50"),
            ("port", "where", "", 0.0, ""),
        ),
    ),
    "pendulum": (
        "pendulum",
        (("kg", "weight", "kg", 1.0, "20"), ("arm", "from the joint", "cm", 0.01, "90")),
    ),
    "cable": (
        "cable",
        (
            ("kg", "weight", "kg", 1.0, "20"),
            ("ratio", "pull per weight", "", 1.0, "1"),
            ("x", "pulley ahead", "cm", 0.01, "50"),
            ("y", "pulley height", "cm", 0.01, "10"),
            ("port", "where", "", 0.0, ""),
        ),
    ),
    "corner-bar": (
        "corner bar",
        (
            ("plate", "plates", "kg", 1.0, "20"),
            ("bar", "bar", "kg", 1.0, "20"),
            ("long", "bar length", "cm", 0.01, "220"),
            ("sleeve", "plates from the pivot", "cm", 0.01, "200"),
            ("hand", "hands from the pivot", "cm", 0.01, "210"),
            ("port", "where", "", 0.0, ""),
        ),
    ),
    "chain": (
        "chains",
        (
            ("kgm", "per metre", "kg", 1.0, "6"),
            ("long", "length", "cm", 0.01, "120"),
            ("port", "where", "", 0.0, ""),
        ),
    ),
}
TIES = (("point", "a point of the room"), ("feet", "the feet"), ("thigh", "the other thigh"))
MOST_LEAD_M = 2.0
PORTLESS = ("sled", "stack", "pendulum")
WEIGHTED = ("stance", "supported stance", "hinge", "split", "bridge")


def kinds_for(entry: Exercise) -> tuple[tuple[str, str], ...]:
    """Return (kind, title) of every load that an exercise takes."""
    kinds = [k for k in LOADS if k in entry.kinds or (k not in PORTLESS and entry.ports)]
    if entry.family in ("sled press", "sled squat") or entry.variant == "press":
        kinds = [k for k in kinds if k in ("sled", "band", "cable")]
    if entry.family == "thigh spread":
        kinds = [k for k in kinds if k in ("band", "stack", "lever", "cable")]
    return tuple((k, LOADS[k][0]) for k in kinds)


def first_loads(entry: Exercise) -> list[dict[str, str]]:
    """Return the load that an exercise shows first, as typed fields."""
    kinds = [kind for kind, _ in kinds_for(entry)]
    if entry.id == "abduction-loop":
        return [{"kind": "band", "tie": "thigh", "rest": "25", "rate": "30"}]
    if entry.family == "carriage":
        return [{"kind": "spring"}]
    if entry.family == "plain path":
        return [{"kind": "band", "x": "0", "y": "0", "rest": "55"}]
    for kind in ("sled", "stack", "pendulum"):
        if kind in kinds:
            return [{"kind": kind}]
    if "corner-bar" in entry.id:
        return [{"kind": "corner-bar"}]
    if "lever" in entry.id or entry.id in ("arc-squat", "hip-thrust-machine", "calf-raise-seated"):
        pivot = {"arc-squat": ("-110", "120")}.get(entry.id, ("-110", "100"))
        return [{"kind": "lever", "x": pivot[0], "y": pivot[1]}]
    if "band" in entry.id and "band" in kinds:
        return [{"kind": "band"}]
    if "cable" in entry.id and "cable" in kinds:
        return [{"kind": "cable"}]
    by_weight = [part for ways in entry.ways for part in ways if part.stock != "band"]
    if "mass" in kinds and (by_weight or (entry.family in WEIGHTED and entry.ways != ((),))):
        port = by_weight[0].port if by_weight else entry.ports[0]
        return [{"kind": "mass", "port": port}]
    return []


def typed_loads(source: Mapping[str, str], entry: Exercise) -> list[dict[str, str]]:
    """Return the loads of the form as typed, with one added or dropped where that was asked."""
    if source.get("for") != entry.id:
        return first_loads(entry)
    loads = []
    for index in range(MOST_LOADS):
        kind = source.get(f"l{index}", "")
        if kind in LOADS:
            keys = [key for key, *_ in LOADS[kind][1]]
            loads.append(
                {
                    "kind": kind,
                    **{k: source[f"l{index}-{k}"] for k in keys if f"l{index}-{k}" in source},
                }
            )
    drop = source.get("drop", "")
    gone = known_id(drop, range(len(loads)))
    if gone is not None:
        loads.pop(gone)
    add = source.get("add", "")
    if add in dict(kinds_for(entry)) and len(loads) < MOST_LOADS:
        loads.append({"kind": add})
    return loads


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchBand:
    """A band as the Bench knows it: its law's document, the share read that it does not give back,
    its error.
    """

    law: dict[str, Any]
    name: str = ""
    back: float | None = None
    error: float = READ


def load_document(
    typed: Mapping[str, str], index: int, entry: Exercise, laws: Mapping[str, BenchBand]
) -> dict[str, Any]:
    """Return a load's document part; InputError names the field. laws: the bands in stock by id."""
    kind = typed["kind"]
    values: dict[str, Any] = {}
    for key, label, unit, factor, default in LOADS[kind][1]:
        text = typed.get(key, default)
        name = f"l{index}-{key}"
        if factor:
            what = f"{label}: a number{' of ' + unit if unit else ''}"
            values[key] = factor * number({name: text}, name, 0.0, what=what)
        else:
            values[key] = text
    port = values.get("port") or _port_for(kind, entry)
    part: dict[str, Any] = _PARTS[kind](values, port, index, laws)
    return part


def _port_for(kind: str, entry: Exercise) -> str:
    return entry.ports[0] if entry.ports else ""


def _count(value: float, name: str) -> int:
    if value != int(value) or not 1 <= value <= 20:
        raise InputError(name, f"{value:g}", "a whole number from 1 to 20")
    return int(value)


def _band(v: dict[str, Any], port: str, i: int, laws: Mapping[str, BenchBand]) -> dict[str, Any]:
    if v["band"] and v["band"] not in laws:
        raise InputError(f"l{i}-band", v["band"], "a band of the list")
    typed = BenchBand(law={"kind": "linear", "rest_m": v["rest"], "rate_n_per_m": v["rate"]})
    known = laws.get(v["band"]) or typed
    if not 0 <= v["lead"] <= MOST_LEAD_M:
        raise InputError(
            f"l{i}-lead",
            f"{100 * v['lead']:g} cm",
            f"a length from 0 to {100 * MOST_LEAD_M:.0f} cm",
        )
    anchor: dict[str, Any] = {"x_m": v["x"], "y_m": v["y"]}
    if v["tie"] in ("feet", "thigh"):
        anchor = {"port": "sole" if v["tie"] == "feet" else "thigh"}
    return {
        "kind": "band",
        "port": port,
        "anchor": anchor,
        "law": known.law,
        "strands": _count(v["strands"], f"l{i}-strands"),
        "count": _count(v["count"], f"l{i}-count"),
        "lead_m": v["lead"],
        "hysteresis": v["back"] if known.back is None else known.back,
    }


def _spring(v: dict[str, Any], port: str, i: int, laws: Mapping[str, BenchBand]) -> dict[str, Any]:
    part = {
        "kind": "spring",
        "start_n": v["start"],
        "end_n": v["end"],
        "travel_m": v["travel"],
        "count": _count(v["count"], f"l{i}-count"),
        "attached": port,
    }
    return part if port == "carriage" else {**part, "anchor": {"x_m": v["x"], "y_m": v["y"]}}


def _stack(v: dict[str, Any], port: str, i: int, laws: Mapping[str, BenchBand]) -> dict[str, Any]:
    angles, radii = [], []
    for pair in v["cam"].split(","):
        angle, _, radius = pair.partition(":")
        source = {"a": angle, "r": radius}
        try:
            angles.append(number(source, "a", 0.0, what=""))
            radii.append(0.01 * number(source, "r", 0.0, what=""))
        except InputError:
            raise InputError(
                f"l{i}-cam", v["cam"], "pairs of degrees and centimetres: 0: 11, 60: 14"
            ) from None
    radius_part = {"angle_deg": angles, "radius_m": radii}
    return {
        "kind": "stack",
        "kg": v["kg"],
        "ratio": v["ratio"],
        "friction": v["friction"],
        "radius": radius_part,
    }


_PARTS: Mapping[str, Any] = {
    "mass": lambda v, port, i, laws: {"kind": "mass", "kg": v["kg"], "port": port},
    "band": _band,
    "sled": lambda v, port, i, laws: {
        "kind": "sled",
        "kg": v["kg"],
        "empty_kg": v["empty"],
        "friction": v["friction"],
    },
    "spring": _spring,
    "stack": _stack,
    "lever": lambda v, port, i, laws: {
        "kind": "lever",
        "kg": v["kg"],
        "arm_m": v["arm"],
        "angle_deg": v["angle"],
        "own_kg": v["own"],
        "own_arm_m": v["ownarm"],
        "own_angle_deg": v["angle"],
        "pivot": {"x_m": v["x"], "y_m": v["y"]},
        "port": port,
    },
    "pendulum": lambda v, port, i, laws: {"kind": "pendulum", "kg": v["kg"], "arm_m": v["arm"]},
    "cable": lambda v, port, i, laws: {
        "kind": "cable",
        "kg": v["kg"],
        "ratio": v["ratio"],
        "pulley": {"x_m": v["x"], "y_m": v["y"]},
        "port": port,
    },
    "corner-bar": lambda v, port, i, laws: {
        "kind": "corner-bar",
        "plate_kg": v["plate"],
        "bar_kg": v["bar"],
        "bar_m": v["long"],
        "sleeve_m": v["sleeve"],
        "hand_m": v["hand"],
        "port": port,
    },
    "chain": lambda v, port, i, laws: {
        "kind": "chain",
        "kg_per_m": v["kgm"],
        "length_m": v["long"],
        "port": port,
    },
}


def load_rows(
    loads: Sequence[Mapping[str, str]],
    entry: Exercise,
    laws: Mapping[str, BenchBand],
    port_words: Mapping[str, str],
) -> list[LoadRow]:
    """Return the form's rows for the loads, with what was typed."""
    rows = []
    for index, typed in enumerate(loads):
        title, specs = LOADS[typed["kind"]]
        fields = []
        for key, label, unit, _, default in specs:
            choices: tuple[tuple[str, str], ...] = ()
            value = typed.get(key, default)
            if key == "port":
                choices = tuple((p, port_words.get(p, p)) for p in entry.ports)
                value = value or _port_for(typed["kind"], entry)
            elif key == "band":
                choices = (
                    ("", "typed here: a straight line"),
                    *((key, band.name) for key, band in laws.items()),
                )
            elif key == "tie":
                choices = TIES if "thigh" in entry.ports else TIES[:2]
            elif key == "strands":
                choices = (("1", "1"), ("2", "2"), ("4", "4, folded"))
            fields.append(
                Field(name=f"l{index}-{key}", label=label, unit=unit, value=value, choices=choices)
            )
        rows.append(
            LoadRow(
                index=index,
                kind=typed["kind"],
                title=title,
                fields=tuple(_shown(fields, typed, index, laws)),
            )
        )
    return rows


def _shown(
    fields: Sequence[Field], typed: Mapping[str, str], index: int, laws: Mapping[str, BenchBand]
) -> list[Field]:
    """Return the fields that matter now: no line for a measured band, no anchor for the feet or a
    carriage.
    """
    value = {f.name: f.value for f in fields}
    hidden: set[str] = set()
    if value.get(f"l{index}-band"):
        hidden |= {"rest", "rate"}
        known = laws.get(value[f"l{index}-band"])
        if known is not None and known.back is not None:
            hidden |= {"back"}
    if value.get(f"l{index}-tie") in ("feet", "thigh") or value.get(f"l{index}-port") == "carriage":
        hidden |= {"x", "y"}
    return [f for f in fields if f.name.partition("-")[2] not in hidden]


def _matters(spec: OptionSpec, entry: Exercise, belted: bool) -> bool:
    """Return whether an option can change anything here: a free leg needs one leg, a belt's ring a
    load on it.
    """
    legs = entry.options["legs"].choices
    if spec.name == "legs":
        return len(legs) > 1
    if spec.name == "free_leg_deg":
        return 1 in legs
    return belted if spec.name == "belt_offset_m" else True


def option_fields(
    entry: Exercise, source: Mapping[str, str], *, belted: bool = False
) -> list[Field]:
    """Return an input for every option that changes the curve, with what was typed or the
    default.
    """
    mine = source.get("for") == entry.id
    fields = []
    for spec in entry.options.values():
        if not spec.used or not _matters(spec, entry, belted):
            continue
        name = f"o-{spec.name}"
        typed = source.get(name) if mine else None
        factor = factor_of(spec)
        choices = tuple((str(c), str(c).replace("-", " ")) for c in spec.choices)
        if spec.choices and not spec.also_number:
            fields.append(
                Field(
                    name=name,
                    label=spec.label,
                    unit="",
                    value=typed or str(spec.default),
                    choices=choices,
                    usual=str(spec.default),
                )
            )
            continue
        default = (
            spec.default if isinstance(spec.default, str) else f"{float(spec.default) / factor:.4g}"
        )
        unit = {"deg": "°", "m": "cm", "N": "N", "kg": "kg", "share": ""}.get(spec.unit, "")
        hint = f"{spec.low / factor:.4g} to {spec.high / factor:.4g} {unit}".strip() + (
            ", or " + ", ".join(map(str, spec.choices)) if spec.choices else ""
        )
        fields.append(
            Field(
                name=name,
                label=spec.label,
                unit=unit,
                value=default if typed is None else typed,
                hint=hint,
                usual=default,
            )
        )
    return [replace(f, hint=re.sub(r"-(?=[0-9])", "−", f.hint)) for f in fields]


def factor_of(spec: OptionSpec) -> float:
    return 0.01 if spec.unit == "m" else 1.0


def options_document(entry: Exercise, fields: Sequence[Field]) -> dict[str, Any]:
    """Return the options of a scenario from the form's fields; InputError names the field."""
    options: dict[str, Any] = {}
    for item in fields:
        spec = entry.options[item.name.removeprefix("o-")]
        text = item.value.strip()
        if spec.choices and text in [str(c) for c in spec.choices]:
            options[spec.name] = next(c for c in spec.choices if str(c) == text)
        else:
            value = number({item.name: text}, item.name, 0.0, what=f"a number from {item.hint}")
            options[spec.name] = round(value * factor_of(spec), 6)
    return options


DOCUMENT: Mapping[str, Mapping[str, str]] = {
    "mass": {"kg": "kg"},
    "band": {
        "law/rest_m": "rest",
        "law/rate_n_per_m": "rate",
        "anchor/x_m": "x",
        "anchor/y_m": "y",
        "strands": "strands",
        "count": "count",
        "hysteresis": "back",
        "lead_m": "lead",
    },
    "sled": {"kg": "kg", "empty_kg": "empty", "friction": "friction"},
    "spring": {
        "start_n": "start",
        "end_n": "end",
        "travel_m": "travel",
        "count": "count",
        "anchor/x_m": "x",
        "anchor/y_m": "y",
    },
    "stack": {"kg": "kg", "ratio": "ratio", "friction": "friction"},
    "lever": {
        "kg": "kg",
        "arm_m": "arm",
        "angle_deg": "angle",
        "pivot/x_m": "x",
        "pivot/y_m": "y",
        "own_kg": "own",
        "own_arm_m": "ownarm",
    },
    "pendulum": {"kg": "kg", "arm_m": "arm"},
    "cable": {"kg": "kg", "ratio": "ratio", "pulley/x_m": "x", "pulley/y_m": "y"},
    "corner-bar": {
        "plate_kg": "plate",
        "bar_kg": "bar",
        "bar_m": "long",
        "sleeve_m": "sleeve",
        "hand_m": "hand",
    },
    "chain": {"kg_per_m": "kgm", "length_m": "long"},
}
"""What a load's numbers are called in a scenario, and the key of the form's field that each is
typed in.
"""


def refusal(error: InputError, kinds: Sequence[str]) -> tuple[str, str]:
    """Return the form's field for what of a scenario is not used, and the words, in the unit that
    it is typed in.

    kinds: of the form's loads, in their order.
    """
    parts = error.where.strip("/").split("/", 2)
    if (
        len(parts) == 3
        and parts[0] == "loads"
        and parts[1].isdigit()
        and int(parts[1]) < len(kinds)
    ):
        kind = kinds[int(parts[1])]
        key = DOCUMENT[kind].get(parts[2])
        spec = next((s for s in LOADS[kind][1] if s[0] == key), None)
        if spec is not None and isinstance(error.value, int | float):
            _, _, unit, factor, _ = spec
            return f"l{parts[1]}-{key}", _not_used(
                _typed(error.value, factor, unit), _bounds(error.allowed, factor, unit)
            )
    return field_of(error.where), _not_used(
        "" if error.value is None else str(error.value)[:40], error.allowed
    )


def _not_used(shown: str, allowed: str) -> str:
    return f"“{shown}” is not used: {allowed}" if shown else allowed


def _typed(value: float, factor: float, unit: str) -> str:
    """Return a number of the document as it is typed, with its unit."""
    return f"{value / factor:.6g}" + {"": "", "°": "°"}.get(unit, f" {unit}")


def _bounds(allowed: str, factor: float, unit: str) -> str:
    """Return what is allowed ("5 or less") with its numbers in the unit that is typed."""
    number_there = r"-?\d+(?:\.\d+)?(?:e-?\d+)?"
    return re.sub(
        f"{number_there}(?: m\\b| kg\\b| N\\b)?",
        lambda m: _typed(float(m.group().split()[0]), factor, unit),
        allowed,
    )


def field_of(pointer: str) -> str:
    """Return the form's field for a scenario's JSON pointer: an option, a load's row, a tempo, or
    the whole.
    """
    parts = pointer.strip("/").split("/")
    if parts[0] == "options" and len(parts) > 1:
        return f"o-{parts[1]}"
    if parts[0] == "loads" and len(parts) > 1:
        return f"l{parts[1]}"
    if parts[0] == "tempo" and len(parts) > 1:
        return {"lifting_s": "lift", "lowering_s": "lower"}.get(parts[1], "lift")
    return pointer if pointer.startswith(("o-", "l")) else "all"
