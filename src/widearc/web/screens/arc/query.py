"""What an address of the Arc page asks: exercise, client, options, loads; and its curve, or why
there is none.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from flask import session

from widearc import store, usecases
from widearc.core.body import PORTS, Body
from widearc.core.equipment import LOADS
from widearc.core.errors import InputError
from widearc.core.exercises import EXERCISES, Exercise, exercise_of
from widearc.core.kit import CAST, READ
from widearc.core.statics import BodyUncertainty, uncertainty_of
from widearc.core.words import Name, Said, Value
from widearc.usecases.arc.arc import Arc
from widearc.usecases.room.kit import uncertainty_of_client
from widearc.web.db import held
from widearc.web.forms.bands import bench_bands
from widearc.web.forms.loads import BenchBand, inputs, load_document, refusal, typed_loads
from widearc.web.forms.metric import in_metric
from widearc.web.forms.options import Field, option_fields, options_document
from widearc.web.forms.typed import known_id, number
from widearc.web.words.refused import not_used, sentence
from widearc.words import PLAIN, sign_of, speaking, spoken_text, tr


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Asked:
    """An address read: problems by field; found is None where a field cannot be read."""

    entry: Exercise
    client: store.ClientRow | None
    clients: tuple[store.ClientRow, ...]
    laws: Mapping[str, BenchBand]
    loads: list[dict[str, str]]
    fields: list[Field]
    problems: dict[str, str]
    document: dict[str, Any]
    found: Arc | None
    stature_m: float

    @property
    def words(self) -> str:
        """Return exercise, loads and what differs from the usual set-up, in one line."""
        parts = [_load_words(load, self.laws) for load in self.loads]
        parts += [
            f"{tr(f.label)} {f.value}{'' if f.unit == '°' else ' '}{f.unit}".strip()
            for f in self.fields
            if f.changed
        ]
        return ", ".join([tr(self.entry.name), *(p for p in parts if p)])

    @property
    def kept_words(self) -> str:
        """Return the same as it is kept beside a set or a felt place: in SI and English, so that it
        is the same set-up however it is read.
        """
        with speaking(PLAIN):
            return self.words

    @property
    def kept_value(self) -> Value:
        """Return loads and what differs from the usual set-up, to be kept as a sentence."""
        with speaking(PLAIN):
            name = f"{self.entry.name}, "
            return Name(self.words.removeprefix(name) if name in self.words else "")


def _sure_of(client: store.ClientRow | None) -> BodyUncertainty:
    return UNKNOWN if client is None else uncertainty_of_client(client)


def asked(source: Mapping[str, str], *, doubt: bool = True) -> Asked:
    """Return what an address asks, and its curve; doubt: also how sure it is. UnknownNameError for
    no such exercise.
    """
    entry = exercise_of(source.get("exercise", "back-squat-high"), "exercise")
    source = in_metric(source, entry)
    clients = held().clients
    known = _client(source, clients)
    client = next((c for c in clients if c.id == known), None)
    laws = bench_bands(held())
    loads = typed_loads(source, entry)
    ports = [load.get("port") or next(iter(entry.ports), "") for load in loads]
    stature_m = client.body.stature_m if client is not None else Body().stature_m
    fields = option_fields(entry, source, belted="hip-belt" in ports, stature_m=stature_m)
    problems: dict[str, str] = {}
    document = _document(source, entry.id, client, problems, fields, loads, laws)
    found: Arc | None = None
    if not problems:
        errors = tuple(_error(load, laws) for load in loads)
        body = _sure_of(client) if doubt else None
        found = usecases.arc_of(document, errors, body)
        if found.refused:
            name, words = refusal(found.refused, [load["kind"] for load in loads], entry)
            problems[name] = sentence(words)
    return Asked(
        entry=entry,
        client=client,
        clients=clients,
        laws=laws,
        loads=loads,
        fields=fields,
        problems=problems,
        document=document,
        found=found,
        stature_m=stature_m,
    )


def _load_words(load: Mapping[str, str], laws: Mapping[str, BenchBand]) -> str:
    """Return a load in a few words: its weight and place, or its band."""
    kind = load["kind"]
    value = {shown.key: shown.usual for shown in inputs(kind)} | dict(load)
    known = laws.get(value.get("band", ""))
    if kind == "band" or known is not None:
        return known.name if known is not None else tr("a band")
    where = tr(PORTS[value["port"]].label) if value.get("port") in PORTS else ""
    weight = value.get("kg") or value.get("plate")
    title = tr({"mass": "", "sled": "on the sled"}.get(kind, LOADS[kind].words))
    return " ".join(
        part
        for part in (f"{spoken_text(weight, 'kg')} {sign_of('kg')}" if weight else "", title, where)
        if part
    )


UNKNOWN = uncertainty_of(mass_known=False, stature_known=False, thigh_taped=False)


def _error(load: dict[str, str], laws: dict[str, BenchBand]) -> float:
    """Return one standard error of a load of the form as a share: a weighed band's or spring's own,
    else as cast iron.
    """
    if load["kind"] in ("band", "spring"):
        known = laws.get(load.get("band", ""))
        return known.error if known is not None else READ
    return CAST


def _client(source: Mapping[str, str], clients: tuple[store.ClientRow, ...]) -> int | None:
    known = [c.id for c in clients]
    asked_for = known_id(source.get("client", ""), known)
    if asked_for is not None:
        return asked_for
    last = session.get("client")
    return last if last in known else (known[0] if known else None)


def _document(
    source: Mapping[str, str],
    exercise_id: str,
    client: store.ClientRow | None,
    problems: dict[str, str],
    fields: list[Field],
    loads: list[dict[str, str]],
    laws: Mapping[str, BenchBand],
) -> dict[str, Any]:
    """Return the scenario of the form; what cannot be read goes to `problems` at its field."""
    entry = EXERCISES[exercise_id]
    document: dict[str, Any] = {
        "format": "wide-arc/scenario",
        "version": 1,
        "exercise": exercise_id,
    }
    if client is not None:
        document["body"] = {
            "mass_kg": client.body.mass_kg,
            "stature_m": client.body.stature_m,
            "sex": client.body.sex.value,
            **({"segments": dict(client.body.segments)} if client.body.segments else {}),
        }
        limits = client.limits
        document["limits"] = {
            "dorsiflexion_deg": limits.dorsiflexion_deg,
            "hip_flexion_deg": limits.hip_flexion_deg,
            "knee_deg": limits.knee_deg,
            "no_axial_load": limits.no_axial_load,
        }
    try:
        document["options"] = options_document(entry, fields)
        document["loads"] = [load_document(load, i, entry, laws) for i, load in enumerate(loads)]
        lift = source.get("lift", "").strip()
        if lift:
            lower = source.get("lower", "").strip() or lift
            document["tempo"] = {
                "lifting_s": number(
                    {"lift": lift}, "lift", 1.0, what=tr("seconds, from 0.1 to 120")
                ),
                "lowering_s": number(
                    {"lower": lower}, "lower", 1.0, what=tr("seconds, from 0.1 to 120")
                ),
            }
    except InputError as error:
        problems[error.where] = not_used(error)
    return document


def told_of(ask: Asked) -> Said:
    """Return what of a typed set-up is not used, one sentence after the other."""
    return Said("{problems}", problems=Name(" ".join(ask.problems.values())))
