"""`make messages`: gathers every text that a person may read and brings the catalogues up to date.

Texts are found where they stand: sentences of the program by its syntax (`Said`, `tell`, `Term`,
`tr`), the texts of templates as the templates themselves are read, and tables of words (names,
cards, claims) by their values. `--check` changes nothing and fails where a catalogue is not what
it should be.
"""

from __future__ import annotations

import ast
import io
import sys
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import fields, is_dataclass
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po, write_po

from tools.message_tables import TABLES
from widearc.web.messages import messages_of
from widearc.words import LANGUAGES
from widearc.words.catalogue import DOMAIN, FOLDER

ROOT = Path(__file__).parents[1]
SOURCE = ROOT / "src" / "widearc"
CALLS: Mapping[str, int] = {
    "Said": 2,
    "tell": 2,
    "Term": 1,
    "tr": 1,
    # labels of fields
    "QuantityField": 1,
    "TextField": 1,
    "ChoiceField": 1,
    "TickField": 1,
}
"""Which calls say something, and how many of their arguments are texts."""

ALLOWED = "allowed"
"""A keyword whose text says what a field takes."""

SHEET_CALLS: Mapping[str, int] = {"_cm": 1, "_kg": 1, "_degrees": 1, "_weighed": 1, "partial": 0}
"""Short names of fields' makers, of the web's sheets alone."""

Message = str | tuple[str, str]
Places = dict[Message, set[tuple[str, int]]]


def _texts(node: ast.expr | None) -> Iterator[str]:
    """Yield the constant texts that an argument may be."""
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        yield node.value
    elif isinstance(node, ast.IfExp):
        yield from _texts(node.body)
        yield from _texts(node.orelse)
    elif isinstance(node, ast.BoolOp):
        for value in node.values:
            yield from _texts(value)
    elif isinstance(node, ast.Subscript):
        yield from _texts(node.value)
    elif isinstance(node, ast.Tuple | ast.List):
        for value in node.elts:
            yield from _texts(value)
    elif isinstance(node, ast.Dict):
        for value in node.values:
            yield from _texts(value)
    elif isinstance(node, ast.Call) and getattr(node.func, "attr", "") == "get":
        # a table written where it is asked
        yield from _texts(getattr(node.func, "value", None))
        for value in node.args[1:]:
            yield from _texts(value)


def _assigned(tree: ast.Module) -> dict[int, dict[str, list[ast.expr]]]:
    """Return, for each function by its id, what its names are set to: a template that is chosen
    first and said later.
    """
    found: dict[int, dict[str, list[ast.expr]]] = {}
    for function in ast.walk(tree):
        if not isinstance(function, ast.FunctionDef):
            continue
        names: dict[str, list[ast.expr]] = {}
        for node in ast.walk(function):
            if isinstance(node, ast.Assign) and isinstance(node.targets[0], ast.Name):
                names.setdefault(node.targets[0].id, []).append(node.value)
        for node in ast.walk(function):
            found.setdefault(id(node), {}).update(names)
    return found


def of_python(source: str, calls: Mapping[str, int] = CALLS) -> Iterator[tuple[int, Message]]:
    """Yield the messages of a module with their lines; a pair where there is a plural."""
    tree = ast.parse(source)
    names = _assigned(tree)
    for node in ast.walk(tree):
        if not isinstance(node, ast.Call):
            continue
        called = node.func.id if isinstance(node.func, ast.Name) else getattr(node.func, "attr", "")
        if called not in calls:
            continue
        for keyword in node.keywords:
            if keyword.arg == ALLOWED:
                yield from ((node.lineno, text) for text in _texts(keyword.value))
        arguments: list[list[str]] = []
        for argument in node.args[: calls[called]]:
            options = list(_texts(argument))
            if isinstance(argument, ast.Name):
                for value in names.get(id(node), {}).get(argument.id, []):
                    options += _texts(value)
            arguments.append(options)
        if len(arguments) == 2 and arguments[0] and arguments[1]:
            yield node.lineno, (arguments[0][0], arguments[1][0])
        else:
            for options in arguments:
                yield from ((node.lineno, text) for text in options)


def of_values(value: object, names: tuple[str, ...]) -> Iterator[str]:
    """Yield every text of a table; names: of the fields of its values that are texts."""
    if isinstance(value, str):
        yield value
    elif isinstance(value, Mapping):
        for part in value.values():
            yield from of_values(part, names)
    elif is_dataclass(value):
        for item in fields(value):
            if item.name in names:
                yield from of_values(getattr(value, item.name), names)
    elif isinstance(value, Iterable):
        for part in value:
            yield from of_values(part, names)


def gathered() -> Places:
    """Return every message with the places where it stands."""
    found: Places = {}

    def note(message: Message, where: str, line: int) -> None:
        text = message if isinstance(message, str) else message[0]
        bare = text
        while "{" in bare:
            bare = bare[: bare.index("{")] + bare[bare.index("}") + 1 :]
        if any(map(str.isalpha, bare)):
            found.setdefault(message, set()).add((where, line))

    for path in sorted(SOURCE.rglob("*.py")):
        where = str(path.relative_to(ROOT))
        calls = {**CALLS, **SHEET_CALLS} if "web/screens" in where else CALLS
        for line, message in of_python(path.read_text(encoding="utf-8"), calls):
            note(message, where, line)
    for path in sorted((SOURCE / "web" / "templates").rglob("*.html")):
        where = str(path.relative_to(ROOT))
        for line, message in messages_of(path.read_text(encoding="utf-8")):
            note(message, where, line)
    for table in TABLES:
        for text in of_values(table.values(), table.fields):
            note(text, table.where, 1)
    pairs = {message[0] for message in found if isinstance(message, tuple)}
    return {m: places for m, places in found.items() if not isinstance(m, str) or m not in pairs}


def template(found: Places) -> Catalog:
    """Return what is to be translated as a catalogue without translations."""
    catalog = Catalog(project="Wide Arc", charset="utf-8", header_comment="# Texts of Wide Arc.")
    for message in sorted(found, key=lambda m: (m if isinstance(m, str) else m[0]).lower()):
        files = sorted({where for where, _ in found[message]})
        catalog.add(message, locations=[(where, 0) for where in files[:2]])
    return catalog


def _po(language: str) -> Path:
    return FOLDER / language / "LC_MESSAGES" / f"{DOMAIN}.po"


def _as_bytes(catalog: Catalog, *, compiled: bool) -> bytes:
    out = io.BytesIO()
    if compiled:
        write_mo(out, catalog)
    else:
        write_po(out, catalog, width=100, ignore_obsolete=True, no_location=True)
    return out.getvalue()


def read(language: str) -> Catalog:
    """Return a language's catalogue as it is kept; an empty one where there is none."""
    path = _po(language)
    if not path.exists():
        return Catalog(locale=language, project="Wide Arc", charset="utf-8")
    with path.open("rb") as file:
        return read_po(file, locale=language)


def renewed(language: str, found: Places) -> Catalog:
    """Return a language's catalogue with every message and no other; nothing is guessed."""
    catalog = read(language)
    catalog.update(template(found), no_fuzzy_matching=True, update_header_comment=True)
    catalog.obsolete.clear()
    return catalog


def lacking(catalog: Catalog) -> list[Message]:
    """Return the messages that have no translation."""
    return [m.id for m in catalog if m.id and not _said(m.string)]


def _said(string: str | tuple[str, ...] | list[str] | None) -> bool:
    return bool(string) if isinstance(string, str) or string is None else all(string)


def write(language: str, catalog: Catalog) -> None:
    """Write a language's catalogue and its compiled form."""
    path = _po(language)
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(_as_bytes(catalog, compiled=False))
    path.with_suffix(".mo").write_bytes(_as_bytes(catalog, compiled=True))


def wrong(language: str, found: Places) -> list[str]:
    """Return what is wrong with a language's catalogue as it is kept."""
    kept = read(language)
    ids = {m.id if isinstance(m.id, str) else tuple(m.id) for m in kept if m.id}
    said = [f"missing in {language}: {m}" for m in found if m not in ids]
    said += [f"not used in {language}: {m}" for m in ids if m not in found]
    said += [f"not translated in {language}: {m}" for m in lacking(kept)]
    with (FOLDER / language / "LC_MESSAGES" / f"{DOMAIN}.mo").open("rb") as file:
        if file.read() != _as_bytes(kept, compiled=True):
            said.append(f"the compiled catalogue of {language} is old: make messages")
    return said


def main(arguments: list[str]) -> int:
    """Bring the catalogues up to date, or check them."""
    found = gathered()
    said: list[str] = []
    for language in (name for name in LANGUAGES if name != "en"):
        if "--check" in arguments:
            said += wrong(language, found)
            continue
        catalog = renewed(language, found)
        write(language, catalog)
        left = lacking(catalog)
        print(f"{language}: {len(found)} texts, {len(left)} not translated")
        said += [f"not translated in {language}: {m}" for m in left[:20]]
    print("\n".join(said), end="\n" if said else "")
    return 1 if said else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
