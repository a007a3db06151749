"""Serve with waitress, and say where."""

from __future__ import annotations

import io
import logging
import os
import re
import secrets
import socket
import sys
import threading
import time
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any

import segno
from flask import Flask

from widearc import store
from widearc.core.errors import InputError
from widearc.core.search import Memo, make_sure
from widearc.core.words import Name, Said
from widearc.demo import load_demo, load_record, load_weeks
from widearc.gauge import SCRIPTS, Simulator
from widearc.store.backup import daily, damage, last_good
from widearc.store.errors import StoreError
from widearc.usecases import SwapAsk, swap_view
from widearc.web.app import create_app, utc_now
from widearc.web.limits import LARGEST_FILE
from widearc.web.trust import Trust, is_loopback, reached_at, trust_of
from widearc.words import plain

THREADS = 32
SECRET = re.compile(rb"[0-9a-f]{32,128}")
SWITCH_S = 0.0005
LOOKS_EVERY_S = 3600.0
MOST_CONNECTIONS = 2000
SILENT_S = 20
LARGEST_HEADER = 32_768
MOST_WARMED = 4  # places whose first answer is prepared at the start
WARMED_AFTER_S = 1.0  # the first page comes before what later ones need


@dataclass(frozen=True, slots=True, kw_only=True)
class Serving:
    """What is served where: the demo or one's own data, address, folder, and whom it answers.

    public_url, allowed: other names it is called by; trust_network: others on the network may use
    it; gauge_hosts: where a gauge may be besides this machine.
    """

    demo: bool = False
    host: str = "127.0.0.1"
    port: int = 5000
    data: Path = Path("instance")
    public_url: str = ""
    allowed: tuple[str, ...] = ()
    trust_network: bool = False
    gauge_hosts: frozenset[str] = frozenset()


OPEN = (
    "Without accounts, everyone who reaches this address can read and change everything here: "
    "clients, places and decisions."
)


def serve(serving: Serving) -> None:
    """Serve until stopped; prints the address once it answers. InputError for a port, host or
    folder that cannot be used.
    """
    demo, host, port, data = serving.demo, serving.host, serving.port, serving.data
    trust = _trust(serving)
    try:
        data.mkdir(mode=0o700, parents=True, exist_ok=True)
        _told_if_open(data)
    except OSError as error:
        raise InputError(
            "--data",
            str(data),
            Said("a folder that can be made ({strerror})", strerror=Name(str(error.strerror))),
        ) from None
    database = data / ("demo.db" if demo else "wide-arc.db")
    _sound(database)
    con = store.open_store(database)
    if demo:
        load_demo(con, now=utc_now())
        load_record(con, now=utc_now())
        load_weeks(con, now=utc_now())
    con.close()
    secret = _secret(data)
    listening = _listen(host, port)
    # a thread that computes gives the interpreter up this often: a mark asks for it many times
    sys.setswitchinterval(SWITCH_S)
    app = create_app(
        database,
        secret_key=secret,
        demo=demo,
        trust=trust,
        # ports of one machine share their cookies
        config={"SESSION_COOKIE_NAME": f"wide-arc-{listening.getsockname()[1]}"},
        gauge_hosts=serving.gauge_hosts,
    )
    if demo:
        # the simulated gauge comes with the demo; a busy port is answered with a free one
        app.config["GAUGE_ADDRESS"] = Simulator(SCRIPTS["band-heavy"]).start().address
    server = listening_server(app, host, port, listening)
    shown = f"[{host}]" if ":" in host else host
    print(
        f"Wide Arc is at http://{shown}:{listening.getsockname()[1]}/ (stop with Ctrl-C)",
        flush=True,
    )
    told = for_phones(host, listening.getsockname()[1], sys.stdout.encoding or "ascii")
    print(told, end="", flush=True)
    warming = threading.Timer(WARMED_AFTER_S, _warm, (database, app.extensions["memo"]))
    warming.daemon = True
    warming.start()
    threading.Thread(target=_keep_backups, args=(database,), daemon=True).start()
    try:
        server.run()
    except KeyboardInterrupt:
        print("Stopped.", file=sys.stderr)


def for_phones(host: str, port: int, encoding: str = "utf-8") -> str:
    """Return what is said of a phone on the same network: the address, and its code to look at
    with the camera, where the terminal's encoding can show one. "" where only this machine is
    answered.
    """
    reached = reached_at(host)
    if not reached:
        return ""
    shown = f"[{reached}]" if ":" in reached else reached
    address = f"http://{shown}:{port}/"
    said = io.StringIO()
    segno.make(address, error="m", micro=False).terminal(out=said, border=2, compact=True)
    code = said.getvalue()
    shows = code.encode(encoding, "ignore").decode(encoding) == code
    return f"A phone on the same network: {address}\n{code if shows else ''}"


def listening_server(
    app: Flask, host: str, port: int, listening: socket.socket | None = None
) -> Any:
    """Return a server that holds a port (0: any) and answers once it runs.

    What is too long is refused by its length, before it is read; who says nothing for
    SILENT_S is let go; slow ones in hundreds leave room for others.
    """
    # waitress warns of a queue on every burst of a page's files: noise for one person's server
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    from waitress.server import create_server

    return create_server(
        app,
        sockets=[listening or _listen(host, port)],
        threads=THREADS,
        connection_limit=MOST_CONNECTIONS,
        asyncore_use_poll=True,  # select knows no more than 1024
        max_request_body_size=LARGEST_FILE + 1,
        max_request_header_size=LARGEST_HEADER,
        channel_timeout=SILENT_S,
        cleanup_interval=SILENT_S // 4,
        clear_untrusted_proxy_headers=True,
        ident=None,
    )


def _trust(serving: Serving) -> Trust:
    """Return whom to answer. Raises InputError for an address that cannot, or may not, be used."""
    if not 0 <= serving.port <= 65535:
        raise InputError("--port", serving.port, Said("from 0 to 65535"))
    if not is_loopback(serving.host):
        if not serving.trust_network:
            allowed = Said(
                "127.0.0.1 or localhost; another needs --trust-network. {value}",
                value=Name(str(OPEN)),
            )
            raise InputError("--host", serving.host, allowed)
        print(f"{OPEN} Use it on a network whose users you trust.", file=sys.stderr)
    return trust_of(serving.host, serving.public_url, serving.allowed)


def _told_if_open(data: Path) -> None:
    """Say when others of this machine can read the folder of the data."""
    if os.name == "posix" and data.stat().st_mode & 0o077:
        print(f"Others on this machine can look into {data}: chmod 700 {data}", file=sys.stderr)


def _sound(database: Path) -> None:
    """Raise StoreError for a damaged database, with the last good backup and how to bring it
    back.
    """
    wrong = damage(database)
    if not wrong:
        return
    good = last_good(database)
    way = (
        f"the last good backup is {good}. Bring it back: wide-arc restore {good} "
        f"--data {database.parent}{' --demo' if database.stem == 'demo' else ''}"
        if good
        else "there is no backup beside it"
    )
    raise StoreError(
        Said(
            "{database}: is damaged ({wrong}); {way}",
            database=Name(str(database)),
            wrong=Name(str(wrong)),
            way=Name(str(way)),
        )
    )


def _keep_backups(database: Path) -> None:
    """Make the day's backup soon after the start, and each day while the program runs."""
    wait_s = WARMED_AFTER_S + 5.0
    while True:
        time.sleep(wait_s)
        try:
            daily(database, datetime.now().astimezone().date().isoformat())
        except (StoreError, OSError) as error:
            why = plain(error.said) if isinstance(error, StoreError) else error
            print(f"No backup could be made: {why}", file=sys.stderr)
        wait_s = LOOKS_EVERY_S


def _listen(host: str, port: int) -> socket.socket:
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    listening = socket.socket(family, socket.SOCK_STREAM)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind((host, port))
    except OSError as error:
        listening.close()
        raise InputError(
            "--port",
            port,
            Said(
                "a port that is free on {host} ({strerror})",
                host=Name(str(host)),
                strerror=Name(str(error.strerror)),
            ),
        ) from None
    return listening


def _secret(data: Path) -> str:
    """Return the key that signs forms, kept beside the data so that open pages survive a
    restart.
    """
    path = data / "secret-key"
    if not path.exists():
        with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as file:
            file.write(secrets.token_hex(32))
    key = path.read_bytes().strip()
    if not SECRET.fullmatch(key):
        raise StoreError(
            Said(
                "{path}: is not a key as this program writes it; remove it, and a new one is "
                "made (open pages must then be loaded again)",
                path=Name(str(path)),
            )
        )
    return key.decode("ascii")


def _warm(database: Path, memo: Memo) -> None:
    """Load SciPy and prepare the places' set-ups for the first client while nobody waits yet."""
    con = store.open_store(database)
    try:
        trainer = store.local_trainer(con, now=utc_now())
        places, clients = store.places(con, trainer), store.clients(con, trainer)
        for place in places[:MOST_WARMED] if clients else ():
            view = swap_view(
                con, trainer, SwapAsk(place_id=place.id, client_id=clients[0].id), memo
            )
            # computed when first asked for: ask now
            make_sure(view.ranking.candidates if view.ranking is not None else ())
    finally:
        con.close()
