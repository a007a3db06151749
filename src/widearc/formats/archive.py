"""Everything of a trainer as one ZIP: JSON to come back, CSV to be read by people."""

from __future__ import annotations

import csv
import io
import json
import struct
import zipfile
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from widearc.core.errors import InputError
from widearc.core.words import Count, Name, Said
from widearc.formats.documents import load_json

NAME = "wide-arc.json"
FORMAT, VERSION = "wide-arc/archive", 1
LARGEST = 200_000_000  # bytes unpacked: a small file may not fill the memory
MOMENT = (1980, 1, 1, 0, 0, 0)  # the same content makes the same file

UNREADABLE = (
    zipfile.BadZipFile,
    zlib.error,
    struct.error,
    KeyError,
    NotImplementedError,
    RuntimeError,
    EOFError,
    OSError,
    ValueError,
    OverflowError,
)
"""What a damaged ZIP can raise."""

Rows = Mapping[str, tuple[Sequence[str], Sequence[Sequence[Any]]]]
"""Tables by name: columns and rows."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Archive:
    """What an archive holds: when it was made, by which version of the schema, and the tables."""

    made_at: str
    schema: int
    tables: Rows


def write_archive(archive: Archive) -> bytes:
    """Return an archive as a ZIP: wide-arc.json with everything, csv/ with a file a table."""
    document = {
        "format": FORMAT,
        "version": VERSION,
        "made_at": archive.made_at,
        "schema": archive.schema,
        "tables": {
            name: {"columns": list(columns), "rows": [list(row) for row in rows]}
            for name, (columns, rows) in archive.tables.items()
        },
    }
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as zipped:
        _put(zipped, NAME, json.dumps(document, ensure_ascii=False, indent=1))
        for name, (columns, rows) in archive.tables.items():
            text = io.StringIO()
            writer = csv.writer(text, lineterminator="\n")
            writer.writerow(columns)
            writer.writerows(rows)
            _put(zipped, f"csv/{name}.csv", text.getvalue())
    return out.getvalue()


def _put(zipped: zipfile.ZipFile, name: str, text: str) -> None:
    entry = zipfile.ZipInfo(name, MOMENT)
    entry.compress_type = zipfile.ZIP_DEFLATED
    zipped.writestr(entry, text.encode())


def read_archive(content: bytes) -> Archive:
    """Return what an archive holds. Raises InputError that says what is wrong with the file."""
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as zipped:
            entry = zipped.getinfo(NAME)
            if entry.file_size > LARGEST:
                raise InputError(
                    NAME,
                    f"{entry.file_size} bytes",
                    Said("at most {value} bytes", value=Name(str(LARGEST))),
                )
            text = zipped.read(entry).decode("utf-8")
    except UNREADABLE as error:
        if isinstance(error, InputError):
            raise
        raise InputError(
            "file",
            "this file",
            Said("a ZIP with {value}, as it was sent out", value=Name(str(NAME))),
        ) from None
    document = load_json(text)
    return Archive(
        made_at=_text(document, "made_at"),
        schema=_schema(document),
        tables={name: _table(name, table) for name, table in _object(document, "tables").items()},
    )


def _object(document: Any, name: str) -> dict[str, Any]:
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise InputError(
            "/format", _shown(document, "format"), Said("{format}", format=Name(FORMAT))
        )
    if document.get("version") != VERSION:
        raise InputError(
            "/version", _shown(document, "version"), Said("{version}", version=Count(VERSION))
        )
    found = document.get(name)
    if not isinstance(found, dict):
        raise InputError(f"/{name}", _shown(document, name), Said("an object"))
    return found


def _shown(document: Any, name: str) -> str:
    return str(document.get(name) if isinstance(document, dict) else document)[:40]


def _text(document: Any, name: str) -> str:
    found = document.get(name) if isinstance(document, dict) else None
    return str(found)[:40] if isinstance(found, str) else ""


def _schema(document: Any) -> int:
    found = document.get("schema") if isinstance(document, dict) else None
    if not isinstance(found, int) or isinstance(found, bool) or found < 1:
        raise InputError("/schema", str(found)[:40], Said("the version that wrote it"))
    return found


def _table(name: str, table: Any) -> tuple[Sequence[str], Sequence[Sequence[Any]]]:
    where = f"/tables/{name[:60]}"
    if not isinstance(table, dict):
        raise InputError(where, str(table)[:40], Said("an object with columns and rows"))
    columns, rows = table.get("columns"), table.get("rows")
    if not isinstance(columns, list) or not all(isinstance(c, str) for c in columns):
        raise InputError(f"{where}/columns", str(columns)[:40], Said("a list of names"))
    if not isinstance(rows, list) or not all(isinstance(row, list) for row in rows):
        raise InputError(f"{where}/rows", str(rows)[:40], Said("a list of rows"))
    return columns, rows
