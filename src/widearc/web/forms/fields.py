"""A sheet's fields: a number with its unit, texts, choices and ticks, read and refused alike."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from typing import Any

from werkzeug.datastructures import MultiDict
from wtforms import BooleanField, Field, StringField
from wtforms.fields.core import UnboundField
from wtforms.form import BaseForm
from wtforms.validators import StopValidation

from widearc.core.errors import InputError
from widearc.core.words import Figure, Said
from widearc.usecases.sheet import SheetError
from widearc.web.forms.typed import Texts
from widearc.web.units import typed_in
from widearc.words import PLAIN, say, sign_of, size_of, suffix_of, tell, tr, typed_number
from widearc.words.figures import mass_in, own_unit, plain_kg


class QuantityField(Field):
    """A number in SI, typed in its own unit.

    unit: as written behind the field where metric units are spoken; per: SI units in one of them.
    low, high: kept range in SI,
    ends belong to it (None: whoever keeps the sheet refuses); allowed: that range in words. needed:
    an empty field is refused. what: what the text has to be, in words. stamped: what is a plain
    number of the other unit of mass is shown in that one, as a plate has it stamped.
    `data` is the value, None where the field is empty or refused.
    """

    def __init__(
        self,
        label: str = "",
        *,
        unit: str = "",
        per: float = 1.0,
        low: float | None = None,
        high: float | None = None,
        allowed: str = "",
        needed: bool = False,
        what: Said | str = "",
        stamped: bool = False,
        **more: Any,
    ) -> None:
        super().__init__(label, **more)
        self.sign, self.per_sign = unit, per
        self.low, self.high, self.allowed = low, high, allowed
        self.needed = needed
        self.stamped = stamped
        self._kept: float | None = None
        self._what = what

    def process_data(self, value: float | None) -> None:
        """Take what is kept."""
        self.data = self._kept = value

    def process_formdata(self, valuelist: list[str]) -> None:
        """Read the number: what is kept where the text shows just that. ValueError says what the
        text is not.
        """
        self.data = None
        text = valuelist[0].strip() if valuelist else ""
        if not text:
            return
        value = typed_number(text, self.sign, typed_in())
        if value is None:
            raise ValueError(tell("“{text}” is not {what}", text=text[:20], what=self.what))
        same = self._kept is not None and text == self._shown(self._kept)
        self.data = self._kept if same else value * self.per_sign

    def _shown(self, value: float) -> str:
        if self.stamped and self.sign == "kg" and own_unit(value) != self.unit:
            # what is a plain number of the other unit keeps it
            told = mass_in(own_unit(value), value, PLAIN)
            if own_unit(value) == "lb" or plain_kg(value):
                return f"{told} {own_unit(value)}"
        shown = value / self.per
        return f"{round(shown, 6):g}" if self.unit == self.sign else f"{shown:.4g}"

    @property
    def unit(self) -> str:
        """The unit that is typed, where nothing else stands behind the number."""
        return sign_of(self.sign)

    @property
    def behind(self) -> str:
        """The unit as it stands behind the field: none where the text has its own."""
        return "" if suffix_of(self.text) else self.unit

    @property
    def per(self) -> float:
        """SI units in one of those that are typed."""
        return self.per_sign * size_of(self.sign)

    @property
    def what(self) -> str:
        """What the text has to be."""
        if self._what:
            return say(self._what)
        return tell("a number of {unit}", unit=self.unit) if self.unit else tr("a number")

    def pre_validate(self, form: BaseForm) -> None:
        """Refuse an empty field that is needed, and a value out of the kept range."""
        if self.process_errors:
            raise StopValidation
        if self.data is None:
            if self.needed:
                raise StopValidation(tell("empty: type it in {unit}", unit=self.unit))
            return
        low = -math.inf if self.low is None else self.low
        high = math.inf if self.high is None else self.high
        if not low <= self.data <= high:
            unit = f" {self.unit}" if self.unit else ""
            told = f"{self.data / self.per:.6g}{unit}"
            raise StopValidation(
                tell(
                    "{value} is not used: {allowed}",
                    value=told,
                    allowed=self._allowed(low, high),
                )
            )

    def _allowed(self, low: float, high: float) -> str:
        """Return the kept range in words, in the unit that is typed: rounded inwards, so that
        both ends as they are said can be typed.
        """
        if self.unit == self.sign and self.allowed:
            return tr(self.allowed)
        first = math.ceil(low / self.per * 100 - 1e-9) / 100
        last = math.floor(high / self.per * 100 + 1e-9) / 100
        return tell(
            "from {first} to {last} {unit}",
            first=Figure(first),
            last=Figure(last),
            unit=self.unit,
        )

    @property
    def text(self) -> str:
        """The number as typed; as kept where nothing was typed."""
        if self.raw_data is not None:
            return str(self.raw_data[0]) if self.raw_data else ""
        return "" if self.data is None else self._shown(self.data)


class TextField(StringField):
    """A text as typed: `data` is empty where there is none."""

    def process_formdata(self, valuelist: list[str]) -> None:
        """Take the text as it is."""
        self.data = valuelist[0] if valuelist else ""

    @property
    def text(self) -> str:
        """The text as typed or kept."""
        return self.data or ""


class ChoiceField(Field):
    """One of some values. A value that is none of them stays as typed: who keeps it refuses it."""

    def __init__(
        self, label: str = "", *, choices: Mapping[str, str], usual: str = "", **more: Any
    ) -> None:
        super().__init__(label, **more)
        self.choices, self.usual = choices, usual

    def process_formdata(self, valuelist: list[str]) -> None:
        """Take the value as it is, the usual one where the field was not sent."""
        self.data = valuelist[0] if valuelist else self.usual

    @property
    def text(self) -> str:
        """The value as typed or kept."""
        return "" if self.data is None else str(self.data)


class TickField(BooleanField):
    """A box that is ticked or not."""

    @property
    def text(self) -> str:
        """The text of a ticked box, none where it is not."""
        return "yes" if self.data else ""


def field_id(name: str) -> str:
    """Return the id of a field in the page: its name without spaces and commas."""
    return name.replace(" ", "-").replace(",", "")


class Sheet(BaseForm):
    """Fields by name, filled from what was typed, else from what is kept; every refusal stands at
    its field.
    """

    def __init__(
        self,
        fields: Mapping[str, UnboundField],
        typed: MultiDict[str, str] | None = None,
        kept: Mapping[str, Any] | None = None,
    ) -> None:
        super().__init__(dict(fields))
        for field in self:
            field.id = field_id(field.name)
        self.process(typed, data=kept or {})
        self.others: dict[str, str] = {}
        if typed is not None:
            self.validate()

    @property
    def messages(self) -> Texts:
        """What is wrong, by the name of the field or of the row."""
        wrong = {field.name: str(field.errors[0]) for field in self if field.errors}
        return Texts(self.others | wrong)

    def refuse(self, messages: Mapping[str, str]) -> None:
        """Put messages beside those of the fields themselves, which come first."""
        self.others |= messages

    def settled(self) -> None:
        """Raise SheetError where a field was refused."""
        if self.messages:
            raise SheetError(self.messages)

    def fill(self, name: str, text: str) -> None:
        """Put a text into a field as if it had been typed."""
        self[name].raw_data = [text]

    def quantities(self, names: Iterable[str]) -> dict[str, float]:
        """Return the numbers that were typed, SI, by name."""
        return {name: self.value(name) for name in names if self.value(name) is not None}

    def value(self, name: str) -> Any:
        """Return a field's value: SI for a quantity, a text, or whether it is ticked."""
        return self[name].data


def shown_as_typed(error: InputError, sheet: Sheet, name: str) -> str:
    """Return a refused value in the unit that its field is typed in."""
    field = sheet[name]
    value = float(str(error.value)) / field.per
    return f"{value:.4g}" if field.unit == "°" else f"{value:.4g} {field.unit}"
