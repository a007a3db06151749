"""The command line: the same questions as the pages, answered as JSON."""

from __future__ import annotations

import os

# before NumPy loads: the products here are small, and threads that wait for each other cost a third
# of a search
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import argparse
import contextlib
import json
import sys
import time
from collections.abc import Callable, Sequence
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any

from widearc.core.errors import InputError, UnknownNameError, WideArcError
from widearc.core.words import Figure, Name, Said
from widearc.words import plain

if TYPE_CHECKING:
    from widearc.usecases.room.exchange import ImportPlan

# each command imports what it needs, so that help and a wrong word are answered at once

BAD_INPUT = 2
MOST_SCENARIOS = 10_000


def main(argv: Sequence[str] | None = None) -> int:
    """Run one command; return 0, 1 for a failed self-check, or 2 after one line on standard error
    for bad input.
    """
    arguments = _parser().parse_args(argv)
    try:
        for name, value in vars(arguments).items():
            if isinstance(value, str) and "\0" in value:
                raise InputError(name, value.replace("\0", "?")[:40], Said("text without U+0000"))
        result = arguments.run(arguments)
    except WideArcError as error:
        print(f"wide-arc: {' '.join(plain(error.said).split())}", file=sys.stderr)
        return BAD_INPUT
    failed = (
        isinstance(result, dict)
        and result.get("format") == "wide-arc/check"
        and result["failed"] > 0
    )
    if result is not None:
        text = json.dumps(result, ensure_ascii=False, allow_nan=False)
        try:
            print(text, flush=True)
        except BrokenPipeError:
            # the reader has seen enough; Python must not complain at exit either
            os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
    return 1 if failed else 0


class _Command(argparse.ArgumentParser):
    """A command whose description is written when its help is asked for."""

    late: Callable[[], str] | None = None

    def format_help(self) -> str:
        if self.late is not None:
            self.description = self.late()
        return super().format_help()


def _headers() -> str:
    from widearc.core.equipment import FITS

    return (
        "Headers by kind: band length_m,force_n[,direction]; "
        + "; ".join(f"{kind} {','.join(law.columns)}" for kind, law in FITS.items())
        + ". Band directions are loading and unloading, a sled's push and return."
    )


def _scripts() -> str:
    from widearc.gauge import SCRIPTS

    return (
        "Serves lines `time_s,position_m,force_n` over TCP on 127.0.0.1; a busy port is answered "
        "with a free one. Scripts: " + ", ".join(SCRIPTS)
    )


def _data_commands(commands: argparse._SubParsersAction[_Command]) -> None:
    """Add what goes in and out of the database."""
    for word, words, run in (
        ("backup", "copy all that is kept to a file, while it is served or not", _backup),
        ("restore", "put a backup in the place of what is kept; that is copied first", _restore),
    ):
        whole = commands.add_parser(word, help=words)
        whole.add_argument("file", metavar="FILE")
        whole.add_argument("--demo", action="store_true", help="the demo's data")
        whole.add_argument(
            "--data", default="instance", help="folder of the database (default %(default)s)"
        )
        whole.set_defaults(run=run)

    anew = commands.add_parser(
        "recompute", help="compute anew what kept lifts ask, where an older model did it"
    )
    anew.add_argument("--demo", action="store_true", help="the demo's data")
    anew.add_argument(
        "--data", default="instance", help="folder of the database (default %(default)s)"
    )
    anew.set_defaults(run=_recompute)

    kit = commands.add_parser("kit", help="a place's kit out to a file, or in from one")
    kit.add_argument("way", choices=("export", "import"))
    kit.add_argument("file", metavar="FILE", help="a file, or - for standard output or input")
    kit.add_argument("--place", required=True, help="the place's name")
    kit.add_argument("--demo", action="store_true", help="of the demo database")
    kit.add_argument(
        "--data", default="instance", help="folder of the database (default %(default)s)"
    )
    kit.add_argument("--preview", action="store_true", help="import: only say what would change")
    kit.set_defaults(run=_kit)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="wide-arc", description=__doc__)
    commands = parser.add_subparsers(required=True, metavar="COMMAND", parser_class=_Command)

    serve = commands.add_parser("serve", help="the web application")
    serve.add_argument(
        "--demo", action="store_true", help="open (or make) a separate demo database"
    )
    serve.add_argument(
        "--host", default="127.0.0.1", help="address to serve on (default %(default)s)"
    )
    serve.add_argument("--port", type=int, default=5000, help="port (default %(default)s)")
    serve.add_argument(
        "--data", default="instance", help="folder of the database (default %(default)s)"
    )
    serve.add_argument(
        "--trust-network",
        action="store_true",
        help="serve on another address than this machine's own: all who reach it can change all",
    )
    serve.add_argument(
        "--public-url", default="", help="address that a proxy publishes it under, https://…"
    )
    serve.add_argument(
        "--allow-host", action="append", default=[], help="another name it is called by (repeat)"
    )
    serve.add_argument(
        "--gauge-host",
        action="append",
        default=[],
        help="a machine whose gauge may be read over the network (repeat)",
    )
    serve.set_defaults(run=_serve)

    _data_commands(commands)

    exercises = commands.add_parser(
        "exercises", help="the catalogue: options with ranges, ports, prime actions"
    )
    exercises.set_defaults(run=_exercises)

    one = commands.add_parser(
        "curve", help="one resistance curve for a scenario (an array: one each)"
    )
    one.add_argument("file", metavar="SCENARIO.json", help="a file, or - for standard input")
    one.set_defaults(run=_curve)

    swap = commands.add_parser("swap", help="ranked stand-ins for a swap request")
    swap.add_argument("file", metavar="REQUEST.json", help="a file, or - for standard input")
    swap.set_defaults(run=_swap)

    ladder = commands.add_parser(
        "ladder", help="the rungs a kit can make of a set-up, and the next step"
    )
    ladder.add_argument("file", metavar="REQUEST.json", help="a file, or - for standard input")
    ladder.set_defaults(run=_ladder)

    fit = commands.add_parser("fit", help="a fitted law with residuals")
    fit.late = _headers
    fit.add_argument("file", metavar="READINGS.csv", help="a file, or - for standard input")
    fit.add_argument("--kind", required=True, help="one of the kinds above")
    fit.add_argument("--rest-m", type=float, default=None, help="band: rest length as measured, m")
    fit.add_argument(
        "--kg",
        type=float,
        default=None,
        help="kg: of a stack the weight lifted, of a carriage its own",
    )
    fit.add_argument(
        "--ratio",
        type=float,
        default=None,
        help="stack: pull per weight before the cam, 1 by default",
    )
    fit.add_argument(
        "--rail-deg", type=float, default=None, help="sled: rail angle over level, degrees"
    )
    fit.set_defaults(run=_fit)

    gauge = commands.add_parser("gauge", help="the simulated force gauge and position sensor")
    gauge.late = _scripts
    gauge.add_argument("--port", type=int, default=7701, help="port (default %(default)s)")
    gauge.add_argument("--script", required=True, help="one of the scripts above")
    gauge.set_defaults(run=_gauge)

    check = commands.add_parser(
        "check", help="recompute every built-in check value; exit 1 if one fails"
    )
    check.set_defaults(run=_check)
    return parser


def _text(name: str) -> str:
    """Return the text of a file or of standard input; InputError when it cannot be read."""
    try:
        if name == "-":
            return sys.stdin.buffer.read().decode("utf-8")
        return Path(name).read_text(encoding="utf-8")
    except UnicodeDecodeError:
        raise InputError("file", name, Said("UTF-8 text")) from None
    except OSError as error:
        raise InputError(
            "file",
            name,
            Said("a file that can be read ({strerror})", strerror=Name(str(error.strerror))),
        ) from None


def _exercises(_: argparse.Namespace) -> Any:
    from widearc.formats.exercises import exercises_document

    return exercises_document()


def _swap(arguments: argparse.Namespace) -> Any:
    from widearc.formats import load_json
    from widearc.usecases import answer_request

    return answer_request(load_json(_text(arguments.file)), clock=time.perf_counter)


def _ladder(arguments: argparse.Namespace) -> Any:
    from widearc.formats import load_json
    from widearc.usecases.ladder import answer_ladder

    today = datetime.now(UTC).date()
    return answer_ladder(load_json(_text(arguments.file)), today=today, clock=time.perf_counter)


def _curve(arguments: argparse.Namespace) -> Any:
    from widearc.formats import load_json

    document = load_json(_text(arguments.file))
    if not isinstance(document, list):
        return _one_curve(document)
    if len(document) > MOST_SCENARIOS:
        raise InputError(
            "/",
            f"{len(document)} scenarios",
            Said("at most {_} in one call", _=Name(str(MOST_SCENARIOS))),
        )
    answers = []
    for index, item in enumerate(document):
        try:
            answers.append(_one_curve(item))
        except InputError as error:
            raise InputError(f"/{index}{error.where}", error.value, error.allowed) from None
        except WideArcError as error:
            raise InputError(f"/{index}", "this scenario", error.said) from None
    return answers


def _one_curve(document: Any) -> dict[str, Any]:
    from widearc.core.statics import curve
    from widearc.formats import curve_document, parse_scenario, parse_style

    setup, scale = parse_scenario(document)
    asked = "style" in document or "tempo" in document
    style, tempo = parse_style(document)
    return curve_document(curve(setup), scale, style=style if asked else None, tempo=tempo)


FIT_RANGES = (
    ("rest_m", 0.02, 10.0),
    ("kg", 0.1, 1000.0),
    ("ratio", 0.05, 20.0),
    ("rail_deg", 0.0, 90.0),
)


def _fit(arguments: argparse.Namespace) -> Any:
    from widearc.formats import fit_document, machine_document, read_columns, read_readings

    text = _text(arguments.file)
    for name, low, high in FIT_RANGES:
        value = getattr(arguments, name)
        if value is not None and not low <= value <= high:
            where = f"--{name.replace('_', '-')}"
            raise InputError(
                where, value, Said("from {low} to {high}", low=Figure(low), high=Figure(high))
            )
    if arguments.kind == "band":
        return fit_document(read_readings(text), arguments.rest_m)
    columns = read_columns(text, arguments.kind)
    given = {"kg": arguments.kg, "ratio": arguments.ratio, "rail_deg": arguments.rail_deg}
    return machine_document(
        arguments.kind, columns, {k: v for k, v in given.items() if v is not None}
    )


def _gauge(arguments: argparse.Namespace) -> None:
    """Serve a script until stopped, after one line with the address."""
    from widearc.gauge import SCRIPTS, Simulator

    if arguments.script not in SCRIPTS:
        raise UnknownNameError("--script", arguments.script, SCRIPTS)
    if not 0 <= arguments.port <= 65535:
        raise InputError("--port", arguments.port, Said("from 0 to 65535"))
    simulator = Simulator(SCRIPTS[arguments.script], port=arguments.port)
    print(json.dumps({"address": simulator.address, "script": arguments.script}), flush=True)
    with contextlib.suppress(KeyboardInterrupt):
        simulator.run()


def _kit(arguments: argparse.Namespace) -> Any:
    """Write a place's kit to a file, or bring a file into a place."""
    from widearc import store
    from widearc.formats import load_json
    from widearc.usecases import export_kit, import_kit, plan_import

    database = _database(arguments)
    now = datetime.now(UTC).isoformat(timespec="seconds")
    with contextlib.closing(store.open_store(database)) as con:
        trainer = store.local_trainer(con, now=now)
        places = {place.name.lower(): place for place in store.places(con, trainer)}
        if arguments.place.lower() not in places:
            raise UnknownNameError("--place", arguments.place, [p.name for p in places.values()])
        place = places[arguments.place.lower()].id
        if arguments.way == "export":
            return _written(export_kit(con, trainer, place), arguments.file)
        document = load_json(_text(arguments.file))
        if arguments.preview:
            return _planned(plan_import(con, trainer, place, document), done=False)
        return _planned(import_kit(con, trainer, place, document, now=now), done=True)


def _planned(plan: ImportPlan, *, done: bool) -> dict[str, Any]:
    return {
        "done": done,
        "new": [item.name for item in plan.new],
        "changed": [
            {"name": item.name, "differs": list(differs)} for item, _, differs in plan.changed
        ],
        "same": [item.name for item in plan.same],
    }


def _written(document: dict[str, Any], name: str) -> Any:
    if name == "-":
        return document
    try:
        Path(name).write_text(
            json.dumps(document, ensure_ascii=False, indent=1) + "\n", encoding="utf-8"
        )
    except OSError as error:
        raise InputError(
            "file",
            name,
            Said("a file that can be written ({strerror})", strerror=Name(str(error.strerror))),
        ) from None
    return {"written": name, "items": len(document["items"])}


def _backup(arguments: argparse.Namespace) -> Any:
    """Copy the database to a file that was read back whole."""
    from widearc.store.backup import back_up

    made = back_up(_database(arguments), Path(arguments.file))
    return {"written": str(made.path), "bytes": made.size, "sha256": made.sha256}


def _restore(arguments: argparse.Namespace) -> Any:
    """Put a backup in the place of the database; say where the one before is."""
    from widearc.store.backup import restore

    stamp = datetime.now(UTC).strftime("%Y%m%d-%H%M%S")
    database = Path(arguments.data) / ("demo.db" if arguments.demo else "wide-arc.db")
    if not Path(arguments.data).is_dir():
        raise InputError("--data", str(arguments.data), Said("a folder that is there"))
    before = restore(Path(arguments.file), database, stamp=stamp)
    return {
        "restored": str(database),
        "from": arguments.file,
        "before": None if before is None else str(before.path),
    }


def _recompute(arguments: argparse.Namespace) -> Any:
    """Renew the measures of lifts that an older model made; say how many."""
    from widearc import store
    from widearc.usecases.floor.recompute import recompute

    con = store.open_store(_database(arguments))
    now = datetime.now(UTC).isoformat(timespec="seconds")
    found = recompute(con, store.local_trainer(con, now=now))
    con.close()
    return {"renewed": found.renewed, "current": found.current, "left": found.left}


def _database(arguments: argparse.Namespace) -> Path:
    """Return the database that is there. Raises InputError where there is none."""
    database = Path(arguments.data) / ("demo.db" if arguments.demo else "wide-arc.db")
    if not database.exists():
        raise InputError(
            "--data", str(arguments.data), Said("a folder in which the program has run already")
        )
    return database


def _check(_: argparse.Namespace) -> Any:
    """Return every check as JSON; `main` exits 1 when one fails."""
    from widearc.usecases import check_document

    return check_document()


def _serve(arguments: argparse.Namespace) -> None:
    # the web packages are only needed, and only loaded, to serve
    from widearc.web.server import Serving, serve

    serve(
        Serving(
            demo=arguments.demo,
            host=arguments.host,
            port=arguments.port,
            data=Path(arguments.data),
            public_url=arguments.public_url,
            allowed=tuple(arguments.allow_host),
            trust_network=arguments.trust_network,
            gauge_hosts=frozenset(host.lower() for host in arguments.gauge_host),
        )
    )


if __name__ == "__main__":
    raise SystemExit(main())
