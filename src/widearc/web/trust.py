"""Who may speak to the server: by the name it is called by, and by the page a form comes from.

A page of another site can make a browser send it requests under a name of its own (DNS
rebinding), or send forms across sites. Neither gets an answer with data in it.
"""

from __future__ import annotations

import contextlib
import ipaddress
import socket
from collections.abc import Iterable
from dataclasses import dataclass
from urllib.parse import urlsplit

from flask import Flask, Response, request

from widearc.core.errors import InputError
from widearc.core.words import Said

LOOPBACK = ("localhost", "127.0.0.1", "::1")
WILDCARDS = ("0.0.0.0", "::", "")
OWN_PAGES = ("same-origin", "none")
TOO_FOREIGN = "This form was sent from another site. Open the page here and repeat the last step."


@dataclass(frozen=True, slots=True, kw_only=True)
class Trust:
    """Names (without port) that the server answers to, and the origin it is published under.

    public: as a browser shows it, "https://gym.example"; empty: none.
    """

    names: frozenset[str] = frozenset(LOOPBACK)
    public: str = ""

    def answers_to(self, host: str) -> bool:
        """Return whether a Host header names this server; any port will do."""
        return _name(host) in self.names

    def own_page(self, origin: str, host: str) -> bool:
        """Return whether an Origin header is a page of this server called by that host."""
        found = urlsplit(origin)
        if found.scheme not in ("http", "https"):
            return False
        return found.netloc.lower() == host.lower() or (
            bool(self.public) and origin.lower() == self.public
        )


def _name(host: str) -> str:
    """Return a host without its port, lower case; empty where it is none."""
    try:
        return (urlsplit(f"//{host}").hostname or "").rstrip(".")
    except ValueError:
        return ""


def is_loopback(host: str) -> bool:
    """Return whether an address is reached from this machine only."""
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return host.lower() == "localhost"


def trust_of(host: str, public_url: str = "", allowed: Iterable[str] = ()) -> Trust:
    """Return whom to answer when serving on a host. Raises InputError for a public address or a
    name that is none.
    """
    names = {*LOOPBACK, *(_machine() if host in WILDCARDS else (host.lower(),))}
    for other in allowed:
        if _name(other) != other.lower().strip("[]") or not other:
            raise InputError("--allow-host", other, Said("a name or address without port"))
        names.add(_name(other))
    public = public_url.rstrip("/").lower()
    if public:
        found = urlsplit(public)
        if found.scheme not in ("http", "https") or not found.hostname or found.path:
            raise InputError(
                "--public-url", public_url, Said("an address such as https://gym.example")
            )
        names.add(found.hostname)
    return Trust(names=frozenset(names), public=public)


def _machine() -> set[str]:
    """Return this machine's own name and addresses."""
    name = socket.gethostname().lower()
    found = {name, f"{name}.local", socket.getfqdn().lower()}
    for family, far in ((socket.AF_INET, "192.0.2.1"), (socket.AF_INET6, "2001:db8::1")):
        with contextlib.suppress(OSError):
            found |= {str(info[4][0]) for info in socket.getaddrinfo(name, None, family)}
        found |= _spoken_from(family, far)
    return found


def _spoken_from(family: socket.AddressFamily, far: str) -> set[str]:
    """Return which of its addresses this machine would speak from, if any: nothing is sent."""
    with contextlib.suppress(OSError), socket.socket(family, socket.SOCK_DGRAM) as probe:
        probe.connect((far, 9))
        return {str(probe.getsockname()[0])}
    return set()


def reached_at(host: str) -> str:
    """Return by which name others of the network reach a host that is served: of every address,
    the one that this machine speaks from, else its own name. "" where nobody else does.
    """
    if is_loopback(host):
        return ""
    if host not in WILDCARDS:
        return host
    own = {a for a in _spoken_from(socket.AF_INET, "192.0.2.1") if not is_loopback(a)}
    return next(iter(own), socket.gethostname().lower())


def init_app(app: Flask, trust: Trust) -> None:
    """Refuse what is called by a foreign name, and forms of foreign pages, before anything else."""

    @app.before_request
    def trusted() -> Response | None:
        host = request.environ.get("HTTP_HOST", "")
        if not trust.answers_to(host):
            return _refused(421, _unknown(host))
        if request.method not in ("GET", "HEAD", "OPTIONS"):
            origin = request.headers.get("Origin", "")
            if origin and not trust.own_page(origin, host):
                return _refused(403, TOO_FOREIGN)
            if request.headers.get("Sec-Fetch-Site", "none") not in OWN_PAGES:
                return _refused(403, TOO_FOREIGN)
        return None


def _unknown(host: str) -> str:
    return (
        f"This program does not answer to the name “{host[:60]}”. Open it at 127.0.0.1 or "
        "localhost, or start it with --allow-host and that name."
    )


def _refused(code: int, words: str) -> Response:
    # plain text: a page would carry a token and what the session knows
    return Response(words + "\n", code, mimetype="text/plain")
