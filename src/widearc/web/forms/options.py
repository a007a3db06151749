"""The options of the Arc form. Lengths are typed in centimetres where a tape reads them."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from widearc.core.exercises import Exercise, OptionSpec
from widearc.web.forms.typed import number
from widearc.words import sign_of, spoken, spoken_text, tell, tr
from widearc.words.figures import pointed


@dataclass(frozen=True, slots=True, kw_only=True)
class Field:
    """One input of the form: name in the address, label, metric unit, value as typed in it, choices
    (value, words).
    """

    name: str
    label: str
    unit: str
    value: str
    hint: str = ""
    choices: tuple[tuple[str, str], ...] = ()
    usual: str = ""

    @property
    def shown(self) -> str:
        """Return the value in the unit that is spoken."""
        return self.value if self.choices else spoken_text(self.value, self.unit)

    @property
    def sign(self) -> str:
        """Return the unit that is spoken."""
        return sign_of(self.unit)

    @property
    def changed(self) -> bool:
        """Return whether something other than the usual value was typed."""
        return self.value != self.usual

    @property
    def worded(self) -> bool:
        """Return whether a word stands where a number could: it has no unit and needs more room."""
        return any(letter.isalpha() for letter in self.value)


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
    entry: Exercise, source: Mapping[str, str], *, belted: bool = False, stature_m: float
) -> list[Field]:
    """Return an input for every option that changes the curve, with what was typed or the default
    for a body.
    """
    mine = source.get("for") == entry.id
    fields = []
    for spec in entry.options.values():
        if not spec.used or not _matters(spec, entry, belted):
            continue
        name = f"o-{spec.name}"
        typed = source.get(name) if mine else None
        if typed is not None and typed == _usual_before(spec, source):
            typed = None  # another client stands there now: the length goes with the body
        factor = factor_of(spec)
        choices = tuple((str(c), tr(str(c).replace("-", " "))) for c in spec.choices)
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
        default = _typed(spec, stature_m)
        unit = {"deg": "°", "m": "cm", "N": "N", "kg": "kg", "share": ""}.get(spec.unit, "")
        low, high = (
            pointed(spoken_text(f"{end / factor:.4g}", unit), spoken())
            for end in (spec.low, spec.high)
        )
        hint = tell("{low} to {high} {unit}", low=low, high=high, unit=sign_of(unit)).strip()
        if spec.choices:
            hint = tell("{range}, or {words}", range=hint, words=", ".join(map(str, spec.choices)))
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


def _typed(spec: OptionSpec, stature_m: float) -> str:
    """Return an option's default for a body as it is typed."""
    usual = spec.usual(stature_m)
    return usual if isinstance(usual, str) else f"{usual / factor_of(spec):.4g}"


def _usual_before(spec: OptionSpec, source: Mapping[str, str]) -> str | None:
    """Return the default of a body's length for the body that the form was filled for."""
    try:
        return _typed(spec, float(source.get("tall", ""))) if spec.of_body else None
    except ValueError:
        return None


def factor_of(spec: OptionSpec) -> float:
    """Return how many of an option's own units one of its form's is: centimetres are typed for
    metres.
    """
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
            value = number(
                {item.name: text},
                item.name,
                0.0,
                what=tell("a number from {range}", range=item.hint),
            )
            options[spec.name] = round(value * factor_of(spec), 6)
    return options
