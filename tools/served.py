"""A real server of demo data in a process of its own, and how to speak to it."""

from __future__ import annotations

import http.client
import os
import re
import subprocess
import sys
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from urllib.parse import urlencode

REPLY_S = 60.0


@dataclass(slots=True)
class Served:
    """A running server: its port, process, and what it wrote to its log."""

    port: int
    process: subprocess.Popen[str]
    log: list[str] = field(default_factory=list)


@contextmanager
def served(folder: str | Path) -> Iterator[Served]:
    """Serve the demo of a folder until the block ends."""
    command = ["-m", "widearc.cli", "serve", "--demo", "--port", "0", "--data", str(folder)]
    with subprocess.Popen(
        [sys.executable, *command],
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        env=os.environ | {"PYTHONDONTWRITEBYTECODE": ""},
    ) as process:
        assert process.stdout is not None and process.stderr is not None
        found = re.search(r":(\d+)/", process.stdout.readline())
        if found is None:
            process.kill()
            raise RuntimeError(process.stderr.read())
        server = Served(port=int(found[1]), process=process)
        errors = process.stderr
        threading.Thread(target=lambda: server.log.extend(errors), daemon=True).start()
        try:
            yield server
        finally:
            process.kill()


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """What the server said."""

    status: int
    headers: http.client.HTTPMessage
    body: bytes

    @property
    def text(self) -> str:
        """The body as text."""
        return self.body.decode("utf-8", "replace")


class Browser:
    """A session: cookies, and the token that forms need. One thread uses it."""

    def __init__(self, port: int) -> None:
        self._port = port
        self._cookies: dict[str, str] = {}
        self._token = ""

    def get(self, path: str) -> Answer:
        """Return what is at an address."""
        return self.ask("GET", path)

    def post(self, path: str, form: list[tuple[str, str]]) -> Answer:
        """Send a form with the session's token."""
        if not self._token:
            page = self.get("/clients/new").text
            found = re.search(r'name="csrf_token" value="([^"]+)"', page)
            self._token = found[1] if found else ""
        pairs = [(k, v) for k, v in form if k != "csrf_token"] + [("csrf_token", self._token)]
        body = urlencode(pairs, errors="surrogatepass").encode()
        return self.ask("POST", path, body, "application/x-www-form-urlencoded")

    def upload(self, path: str, form: dict[str, str], name: str, content: bytes) -> Answer:
        """Send a form with one file."""
        self._token or self.post("/nothing", [])
        mark = "a-boundary-of-no-file"
        parts = [
            f'--{mark}\r\nContent-Disposition: form-data; name="{k}"\r\n\r\n{v}\r\n'.encode()
            for k, v in (form | {"csrf_token": self._token}).items()
        ]
        head = f'--{mark}\r\nContent-Disposition: form-data; name="{name}"; filename="f"\r\n\r\n'
        body = b"".join([*parts, head.encode(), content, f"\r\n--{mark}--\r\n".encode()])
        return self.ask("POST", path, body, f"multipart/form-data; boundary={mark}")

    def ask(self, method: str, path: str, body: bytes | None = None, kind: str = "") -> Answer:
        """Return the answer to a request; cookies are kept."""
        connection = http.client.HTTPConnection("127.0.0.1", self._port, timeout=REPLY_S)
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self._cookies.items())}
        if kind:
            headers["Content-Type"] = kind
        try:
            connection.request(method, path, body, headers)
            answer = connection.getresponse()
            content = answer.read()
        finally:
            connection.close()
        for cookie in answer.headers.get_all("Set-Cookie") or ():
            name, _, value = cookie.partition(";")[0].partition("=")
            self._cookies[name] = value
        return Answer(status=answer.status, headers=answer.headers, body=content)
