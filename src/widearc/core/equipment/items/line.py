"""A place as a trainer would say or write it, in one line: what is there, by kind and number, in
English or Indonesian. What is not understood is given back as it was.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

from widearc.core.equipment.items.kinds import KINDS
from widearc.core.equipment.items.quantity import Source
from widearc.core.units import IN_M, LB_KG


@dataclass(frozen=True, slots=True, kw_only=True)
class Described:
    """One thing that was understood: kind, name, quantities (SI) with their sources, side of an
    anchor, shape of a band; text: what of the line it is.
    """

    kind: str
    name: str
    quantities: Mapping[str, float]
    sources: Mapping[str, Source]
    text: str
    side: str = ""
    shape: str = "loop"


@dataclass(frozen=True, slots=True, kw_only=True)
class Line:
    """A line that was read: what was understood, and what of it was not."""

    things: tuple[Described, ...] = ()
    left: tuple[str, ...] = field(default_factory=tuple)


WORDS: Mapping[str, str] = MappingProxyType(
    {
        **dict.fromkeys(("trap bar", "hex bar"), "trap bar"),
        **dict.fromkeys(("bars", "bar", "barbell", "batang"), "bar"),
        **dict.fromkeys(("plates", "plate", "piringan", "lempeng"), "plate"),
        **dict.fromkeys(("dumbbells", "dumbbell", "dumbel", "dumbell"), "dumbbell"),
        **dict.fromkeys(("kettlebells", "kettlebell", "ketel"), "kettlebell"),
        **dict.fromkeys(("short loop", "short loops", "lup pendek"), "short loop"),
        **dict.fromkeys(("loops", "loop", "lup"), "loop"),
        **dict.fromkeys(("long bands", "long band", "bands", "band", "karet"), "long"),
        **dict.fromkeys(("bench", "bangku"), "bench"),
        **dict.fromkeys(("boxes", "box", "steps", "step", "kotak", "peti"), "box"),
        **dict.fromkeys(("rack", "rak"), "rack"),
        **dict.fromkeys(("couch", "sofa"), "couch"),
        **dict.fromkeys(("table", "meja"), "table"),
        **dict.fromkeys(("eyes", "eye", "anchors", "anchor", "tambatan", "cincin"), "anchor"),
        **dict.fromkeys(("leg press", "sled press"), "sled press"),
        **dict.fromkeys(("hack squat", "hack"), "hack squat"),
        **dict.fromkeys(("leg extension", "knee extension", "ekstensi lutut"), "leg extension"),
        **dict.fromkeys(("seated leg curl", "seated curl", "curl duduk"), "seated curl"),
        **dict.fromkeys(("lying leg curl", "lying curl", "curl tengkurap"), "lying curl"),
        **dict.fromkeys(("standing calf", "betis berdiri"), "standing calf"),
        **dict.fromkeys(("seated calf", "betis duduk"), "seated calf"),
        **dict.fromkeys(("cable", "kabel"), "cable"),
        **dict.fromkeys(("sprung carriage", "carriage", "kereta berpegas"), "sprung carriage"),
        **dict.fromkeys(("hip thrust machine",), "hip thrust machine"),
        **dict.fromkeys(("ball", "bola"), "ball"),
        **dict.fromkeys(("dip belt", "belt", "sabuk"), "dip belt"),
        **dict.fromkeys(("pull-up bar", "high bar", "palang tinggi"), "high bar"),
        **dict.fromkeys(("post", "tiang"), "post"),
        **dict.fromkeys(("heel wedge", "wedge", "ganjal tumit"), "heel wedge"),
    }
)
"""What a thing is called, and its kind; a loop and a long band are bands."""

LISTED = ("bar", "trap bar", "plate", "dumbbell", "kettlebell")
TALL = ("bench", "box", "rack", "couch", "table", "high bar", "post")
ADJECTIVES = ("very light", "light", "medium", "heavy", "very heavy", "ringan", "sedang", "berat")
SIDES: Mapping[str, str] = MappingProxyType(
    {
        **dict.fromkeys(("left", "kiri"), "left"),
        **dict.fromkeys(("right", "kanan"), "right"),
        **dict.fromkeys(("ahead", "front", "depan"), "ahead"),
    }
)
ASSUMED: Mapping[str, Mapping[str, float]] = MappingProxyType(
    {
        "bar": {"kg": 20.0},
        "trap bar": {"kg": 25.0},
        "bench": {"height_m": 0.43},
        "box": {"height_m": 0.30},
        "rack": {"height_m": 1.80},
        "couch": {"height_m": 0.43, "foot_m": 0.05, "gap_m": 0.10},
        "table": {"height_m": 0.73},
        "high bar": {"height_m": 2.20},
        "post": {"height_m": 1.20},
        "anchor": {"height_m": 0.08},
        "sled press": {"rail_deg": 45.0, "empty_kg": 40.0},
        "hack squat": {"rail_deg": 60.0, "empty_kg": 30.0},
        "sprung carriage": {"empty_kg": 15.0},
        "heel wedge": {"thick_m": 0.025},
        "cable": {"height_m": 0.10},
    }
)
"""Usual values of what is not said (assumed)."""

_NUMBER = r"\d+(?:[.,]\d+)?"
_UNIT = r"kg|lbs?|cm|mm|m|inches|inch|in|\"|°|degrees?|deg|derajat"
_VALUE = re.compile(
    rf"(?:(?P<count>\d+)\s*[x×*]\s*)?(?P<number>{_NUMBER})\s*(?P<unit>{_UNIT})?(?![\w])"
)
_RANGE = re.compile(
    rf"(?P<low>{_NUMBER})\s*(?:to|-|–|sampai)\s*(?P<high>{_NUMBER})\s*(?P<unit>{_UNIT})?\s*"
    rf"(?:by|step|in steps of|per|kelipatan)\s*(?P<step>{_NUMBER})\s*(?P<last>{_UNIT})?(?!\w)"
)
_SLED = re.compile(rf"(?:sled|carriage|kereta)\s*(?P<kg>{_NUMBER})\s*(?P<unit>kg|lbs?)?(?!\w)")
MOST_OF_RANGE = 40

_MASS = MappingProxyType({"kg": 1.0, "lb": LB_KG, "lbs": LB_KG})
_LENGTH = MappingProxyType(
    {"cm": 0.01, "mm": 0.001, "m": 1.0, "in": IN_M, "inch": IN_M, "inches": IN_M, '"': IN_M}
)


def read_line(text: str, *, imperial: bool = False, assumed: bool = False) -> Line:
    """Return what a line says is there; imperial: bare numbers are pounds and inches, else
    kilograms and centimetres; assumed: nothing of it was measured or looked up.
    """
    things: list[Described] = []
    left: list[str] = []
    before = ""
    for phrase in re.split(r"[,;\n]+", text):
        clean = " ".join(phrase.split())
        if not clean:
            continue
        kind, words, rest = _kind_of(clean.lower())
        kind = kind or (before if before in LISTED and _VALUE.fullmatch(rest) else "")
        found = [*_things(kind, rest, clean, words, imperial=imperial)] if kind else []
        before = kind if found else ""
        things += found
        if not found:
            left.append(clean)
    source = Source.ASSUMED if assumed else None
    return Line(things=_merged([_as(t, source) for t in things]), left=tuple(left))


def _as(thing: Described, source: Source | None) -> Described:
    if source is None:
        return thing
    sources = dict.fromkeys(thing.quantities, source)
    return Described(
        kind=thing.kind,
        name=thing.name,
        quantities=thing.quantities,
        sources=sources,
        text=thing.text,
        side=thing.side,
        shape=thing.shape,
    )


def _kind_of(phrase: str) -> tuple[str, str, str]:
    """Return the kind that a phrase names, the words that name it, and the rest; "" for none."""
    for words in sorted(WORDS, key=len, reverse=True):
        match = re.search(rf"(?<!\w){re.escape(words)}(?!\w)", phrase)
        if match:
            rest = f"{phrase[: match.start()]} {phrase[match.end() :]}"
            return WORDS[words], words, " ".join(rest.split())
    return "", "", phrase


def _things(kind: str, rest: str, text: str, words: str, *, imperial: bool) -> Iterator[Described]:
    if kind in LISTED:
        yield from _weights(kind, rest, text, imperial=imperial)
    elif kind in ("loop", "long"):
        yield from _bands(kind, rest, text)
    elif kind in TALL or kind == "anchor":
        yield from _standing(kind, rest, text, imperial=imperial)
    else:
        yield _machine(kind, rest, text, words, imperial=imperial)


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _weights(kind: str, rest: str, text: str, *, imperial: bool) -> Iterator[Described]:
    per = LB_KG if imperial else 1.0
    span = _RANGE.search(rest)
    if span:
        low, high, step = (_number(span[n]) for n in ("low", "high", "step"))
        per = _MASS.get(span["unit"] or span["last"] or "", per)
        if step <= 0 or high < low or (high - low) / step > MOST_OF_RANGE:
            return
        for n in range(int((high - low) / step + 1e-9) + 1):
            yield _weight(kind, low + n * step, per, _usual_count(kind, text), text)
        return
    found = [*_VALUE.finditer(rest)]
    for match in found:
        each = _MASS.get(match["unit"] or "", per)
        count = int(match["count"]) if match["count"] else _usual_count(kind, text)
        yield _weight(kind, _number(match["number"]), each, count, text)
    if not found and kind in ASSUMED:
        yield _weight(kind, ASSUMED[kind]["kg"], 1.0, 1, text, source=Source.ASSUMED)


def _usual_count(kind: str, text: str) -> int:
    if kind == "plate":
        return 2
    return 2 if kind == "dumbbell" and not re.search(r"\bdumbbell\b", text.lower()) else 1


def _weight(
    kind: str,
    number: float,
    per: float,
    count: int,
    text: str,
    *,
    source: Source = Source.DESCRIBED,
) -> Described:
    """Return a weight of so many units of `per` kilograms each, named as it is stamped."""
    quantities = {"kg": round(number * per, 4)}
    if any(q.name == "count" for q in KINDS[kind].quantities):
        quantities["count"] = float(count)
    name = f"{kind.capitalize()} {number:.4g}{'' if per == 1.0 else ' lb'}"
    return Described(kind=kind, name=name, quantities=quantities, sources={"kg": source}, text=text)


def _bands(shape: str, rest: str, text: str) -> Iterator[Described]:
    named = [a for a in ADJECTIVES if re.search(rf"(?<!\w)(?<!very ){a}(?!\w)", rest)]
    if not named:
        named = [""]
    for adjective in named:
        words = "loop" if shape == "loop" else "long band"
        name = f"{adjective} {words}".strip()
        yield Described(
            kind="band",
            name=name[:1].upper() + name[1:],
            quantities={},
            sources={},
            text=text,
            shape="loop" if shape == "loop" else "long",
        )


def _standing(kind: str, rest: str, text: str, *, imperial: bool) -> Iterator[Described]:
    per = IN_M if imperial else 0.01
    side = next((SIDES[w] for w in SIDES if re.search(rf"(?<!\w){w}(?!\w)", rest)), "")
    heights = [
        (_number(m["number"]), _LENGTH.get(m["unit"] or "", per)) for m in _VALUE.finditer(rest)
    ]
    source = Source.DESCRIBED if heights else Source.ASSUMED
    rest_of_it = {n: v for n, v in ASSUMED[kind].items() if n != "height_m"}
    for number, each in heights or [(100 * ASSUMED[kind]["height_m"], 0.01)]:
        height = number * each
        said = f"{number:.4g} in" if each == IN_M else f"{100 * height:.4g}"
        words = "Eye" if kind == "anchor" else kind.capitalize()
        tall = f" {said}" if kind in ("box", "anchor") else ""
        yield Described(
            kind=kind,
            name=f"{words}{tall}{' ' + side if side else ''}",
            quantities={"height_m": round(height, 4), **rest_of_it},
            sources={"height_m": source, **dict.fromkeys(rest_of_it, Source.ASSUMED)},
            text=text,
            side=side,
        )


def _machine(kind: str, rest: str, text: str, words: str, *, imperial: bool) -> Described:
    """Return a machine or thing, called as it was, with what is said of it, the rest by usual
    values.
    """
    given = dict(ASSUMED.get(kind, {}))
    sources = dict.fromkeys(given, Source.ASSUMED)
    sled = _SLED.search(rest)
    if sled and "empty_kg" in given:
        per = _MASS.get(sled["unit"] or "", LB_KG if imperial else 1.0)
        given["empty_kg"] = _number(sled["kg"]) * per
        sources["empty_kg"] = Source.DESCRIBED
    turned = re.search(rf"({_NUMBER})\s*(?:°|degrees?|deg|derajat)", rest)
    if turned and "rail_deg" in given:
        given["rail_deg"] = _number(turned[1])
        sources["rail_deg"] = Source.DESCRIBED
    tall = _VALUE.search(rest)
    if tall and "height_m" in given:
        each = _LENGTH.get(tall["unit"] or "", IN_M if imperial else 0.01)
        given["height_m"] = round(_number(tall["number"]) * each, 4)
        sources["height_m"] = Source.DESCRIBED
    return Described(
        kind=kind,
        name=words[:1].upper() + words[1:],
        quantities=given,
        sources=sources,
        text=text,
    )


def _merged(things: list[Described]) -> tuple[Described, ...]:
    """Return things with stock of one weight as one, its numbers added."""
    found: dict[tuple[str, str], Described] = {}
    for thing in things:
        key = thing.kind, thing.name
        there = found.get(key)
        if there is None:
            found[key] = thing
        elif "count" in thing.quantities:
            count = there.quantities["count"] + thing.quantities["count"]
            found[key] = Described(
                kind=there.kind,
                name=there.name,
                quantities={**there.quantities, "count": count},
                sources=there.sources,
                text=there.text,
            )
    return tuple(found.values())
