"""Odd input over every route, form, file and command of a real server. `make fuzz` runs it.

Seeded and bounded: so many cases, then it stops and says what broke. A case breaks where the answer
is an error of the program, is not told as HTML or a file of ours, holds NaN, or takes too long.
"""

from __future__ import annotations

import argparse
import contextlib
import html
import io
import json
import random
import re
import sqlite3
import sys
import tempfile
import time
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from urllib.parse import parse_qsl, urlencode, urlsplit

from tools.served import Answer, Browser, Served, served
from widearc.cli import main as command
from widearc.web import create_app

CASES = 10_000
LONGEST_S = 30.0
STARTS = (
    "/room/1", "/room/3", "/room/1/look", "/room/1/edit", "/room/new", "/room/item/1",
    "/room/item/15", "/bench/", "/bench/band/15", "/bench/machine/1", "/bench/machine/36",
    "/bench/angles", "/bench/scale", "/clients/", "/clients/1", "/clients/new", "/swap", "/kept",
    "/swap?place=2&client=2&exercise=goblet-squat&kg=20", "/week", "/intent/", "/arc/",
    "/arc/?exercise=leg-extension", "/arc/?exercise=rear-raised-split-squat", "/arc/compare",
    "/claims/", "/claims/lunge-lean", "/exchange/", "/exchange/changes", "/method/", "/formats/",
)  # fmt: skip
ODD = (
    "", " ", "0", "-1", "1e308", "-1e308", "5e-324", "nan", "inf", "-inf", "1e999", "²", "٣",
    "9" * 40, "9223372036854775808", "0x10", "1_0", "1,5", "−5", "None", "null", "true", "[]",
    "{}", "'", '"', "<b>", "</textarea><script>alert(1)</script>", "{{7*7}}", "${7*7}", "%00",
    "\x00", "\n", "\t", "\r\nX: y", "\x7f", "\u202e", "\ufeff", "💪", "離", "Żółta", "a" * 81,
    "b" * 5000, "../../etc/passwd", "//evil.example", "/\t/evil", "; DROP TABLE client",
    "leg-press-45", "knee_extension", "2026-11-29", "9999-99-99", "best", "-0.0", "1e-9", "140",
)  # fmt: skip
COMMANDS = (
    ["curve", "-"], ["swap", "-"], ["fit", "-", "--kind", "band"], ["fit", "-", "--kind", "sled"],
    ["fit", "-", "--kind", "stack", "--kg", "20"], ["fit", "-", "--kind", "spring"],
)  # fmt: skip
CSV_FORM = [
    ("action", "import"),
    ("law", "best"),
    ("length_unit", "m"),
    ("force_unit", "N"),
    ("strands", "2"),
    ("shape", "loop"),
]


@dataclass(slots=True)
class Seen:
    """Cases by what was asked, answers by their status, and what broke."""

    cases: Counter[str] = field(default_factory=Counter)
    statuses: Counter[int] = field(default_factory=Counter)
    broke: list[str] = field(default_factory=list)


class Fuzz:
    """One run against one server."""

    def __init__(self, server: Served, folder: Path, seed: int, document: str) -> None:
        self._random = random.Random(seed)
        self._browser = Browser(server.port)
        self._document = document
        self._folder = folder
        self._rules = [
            (rule.rule, sorted((rule.methods or set()) & {"GET", "POST"}))
            for rule in create_app(Path(tempfile.gettempdir()) / "no.db").url_map.iter_rules()
            if rule.endpoint not in ("static", "gauge.stream")
        ]
        self._forms: list[tuple[str, str, list[tuple[str, str]]]] = []
        self._links: list[str] = []
        self.seen = Seen()
        self._files: dict[str, bytes] = {}

    def run(self, cases: int) -> Seen:
        """Return what was seen in so many cases."""
        for path in STARTS:
            self._gather(path)
        for path in ("/exchange/1.json", "/exchange/all.zip", "/bench/band/15.csv"):
            self._files[path] = self._browser.get(path).body
        ways: list[tuple[str, float, Callable[[], None]]] = [
            ("form", 0.4, self._form),
            ("link", 0.25, self._link),
            ("route", 0.15, self._route),
            ("file", 0.08, self._file),
            ("command", 0.12, self._command),
        ]
        for _ in range(cases):
            name, _, way = self._random.choices(ways, [share for _, share, _ in ways])[0]
            self.seen.cases[name] += 1
            way()
        return self.seen

    def _gather(self, path: str) -> None:
        """Keep every form of a page with what it would send."""
        page = self._browser.get(path).text
        self._links += [
            html.unescape(link)
            for link in re.findall(r'href="(/[^"#]*)"', page)
            if not link.startswith("/static")
        ]
        for head, inner in re.findall(r"<form([^>]*)>(.*?)</form>", page, re.S):
            action = re.search(r'action="([^"]*)"', head)
            method = "POST" if 'method="post"' in head else "GET"
            fields = [
                (html.unescape(name), html.unescape(value))
                for name, value in re.findall(r'name="([^"]+)"(?:[^>]*?value="([^"]*)")?', inner)
            ]
            target = html.unescape(action[1]) if action else urlsplit(path).path
            if target and "gauge" not in target:
                self._forms.append((method, target, fields))

    def _odd(self, usual: str = "") -> str:
        kind = self._random.random()
        if kind < 0.7:
            return self._random.choice(ODD)
        if kind < 0.85 and usual:
            at = self._random.randrange(len(usual) + 1)
            return usual[:at] + self._random.choice(ODD)[:9] + usual[at:]
        return f"{self._random.choice((-1, 1)) * 10 ** self._random.uniform(-6, 6):.6g}"

    def _form(self) -> None:
        method, path, fields = self._random.choice(self._forms)
        typed = [
            (k, self._odd(v) if self._random.random() < 1.5 / max(1, len(fields)) else v)
            for k, v in fields
            if self._random.random() > 0.03
        ]
        if self._random.random() < 0.1:
            typed.append((self._odd() or "x", self._odd()))
        if method == "POST":
            self._told(f"POST {path} {typed}", lambda: self._browser.post(path, typed))
        else:
            self._visit(path, typed)

    def _link(self) -> None:
        """Follow a link of a page with one part of its address changed."""
        found = urlsplit(self._random.choice(self._links))
        typed = parse_qsl(found.query)
        if typed and self._random.random() < 0.8:
            at = self._random.randrange(len(typed))
            typed[at] = typed[at][0], self._odd(typed[at][1])
        self._visit(found.path, typed)

    def _route(self) -> None:
        rule, methods = self._random.choice(self._rules)
        path = re.sub(r"<[^>]+>", lambda _: self._part(), rule)
        names = [k for _, target, fields in self._forms if target == path for k, _ in fields]
        names = names or ["exercise", "kg", "place", "client", "pick", "view", "depth", "want"]
        typed = [
            (self._random.choice(names), self._odd()) for _ in range(self._random.randrange(4))
        ]
        if "POST" in methods and self._random.random() < 0.4:
            self._told(f"POST {path} {typed}", lambda: self._browser.post(path, typed))
        else:
            self._visit(path, typed)

    def _part(self) -> str:
        number = str(self._random.randrange(1, 70))
        return urlencode({"": self._random.choice((number, number, self._odd()))},
                         errors="surrogatepass")[1:].replace("%2F", "-") or "1"  # fmt: skip

    def _visit(self, path: str, typed: list[tuple[str, str]]) -> None:
        address = f"{path}?{urlencode(typed, errors='surrogatepass')}" if typed else path
        if len(address) < 30_000:
            self._told(f"GET {address}", lambda: self._browser.get(address))

    def _file(self) -> None:
        source = self._random.choice(list(self._files))
        content = bytearray(self._files[source])
        for _ in range(self._random.randrange(1, 6)):
            at = self._random.randrange(len(content))
            odd = self._odd().encode("utf-8", "surrogatepass")[:200]
            content[at : at + self._random.randrange(1, 9)] = odd
        if self._random.random() < 0.2:
            del content[self._random.randrange(len(content)) :]
        name = "archive" if source.endswith("zip") else "file"
        path = "/exchange/all" if name == "archive" else "/exchange/"
        form = {"place": "2", "action": self._random.choice(("preview", "import"))}
        if source.endswith("csv"):
            typed = [*CSV_FORM, ("csv", content.decode("utf-8", "replace"))]
            words = f"CSV {typed[-1][1][:80]!r}"
            self._told(words, lambda: self._browser.post("/bench/band/17", typed))
        else:
            upload = bytes(content)
            self._told(f"FILE {path}", lambda: self._browser.upload(path, form, name, upload))

    def _command(self) -> None:
        """Run a command on a document with a change in it, or with an odd word."""
        if self._random.random() < 0.7:
            words = list(self._random.choice(COMMANDS))
            readings = "length_m,force_n\n0.6,40\n0.9,80"
            text = self._document if words[0] in ("curve", "swap") else readings
            if self._random.random() < 0.3:
                option = self._random.choice(("--rest-m", "--kg", "--ratio"))
                words.append(f"{option}={self._odd()[:20]}")
        else:
            words, text = self._words(), self._files["/exchange/1.json"].decode()
        at = self._random.randrange(len(text))
        self._ran(words, text[:at] + self._odd() + text[at + self._random.randrange(6) :])

    def _words(self) -> list[str]:
        """Return a command with an odd name or number in it, none of which would go on running."""
        odd = self._odd()
        data = ["--demo", "--data", str(self._folder)]
        # a file of that name within the folder of the run, never elsewhere
        file = str(self._folder / odd.replace("/", "_")[:200])
        broken = self._folder / "broken.db"
        content = bytearray((self._folder / "demo.db").read_bytes())
        content[self._random.randrange(len(content))] ^= 0xFF
        broken.write_bytes(bytes(content[: -self._random.randrange(1, 5000)]))
        place = self._random.choice((odd, "Deck container", "Cabin 14"))
        return self._random.choice(
            (
                ["backup", file, *data],
                ["restore", file, *data],
                ["restore", str(broken), *data],
                ["kit", "export", "-", f"--place={place}", *data],
                ["kit", "import", "-", f"--place={place}", "--preview", *data],
                ["kit", "import", "-", f"--place={place}", *data],
                ["gauge", f"--script=no {odd}"],
                ["serve", "--host=192.0.2.1", f"--port={odd}"],
                ["serve", "--host=192.0.2.1", f"--allow-host={odd}"],
                ["exercises", odd],
                [odd],
            )
        )

    def _ran(self, words: list[str], text: str) -> None:
        out, err = io.StringIO(), io.StringIO()
        raw = io.BytesIO(text.encode("utf-8", "surrogatepass"))
        stdin, sys.stdin = sys.stdin, io.TextIOWrapper(raw)
        try:
            with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
                code = command(words)
        except SystemExit as error:
            code = int(error.code or 0)
        except Exception as error:
            self.seen.broke.append(f"{words} {text[:200]!r}: {error!r}"[:400])
            return
        finally:
            sys.stdin = stdin
        told = "Traceback" not in err.getvalue() and not re.search(r"\bNaN\b", out.getvalue())
        if code not in (0, 2) or not told:
            self.seen.broke.append(f"{words} {text[:200]!r}: exit {code} {err.getvalue()[-200:]}")

    def _told(self, words: str, ask: Callable[[], Answer]) -> None:
        start = time.monotonic()
        try:
            answer = ask()
        except (OSError, UnicodeError, ValueError) as error:
            self.seen.broke.append(f"{words[:300]}: no answer ({error!r})")
            return
        took = time.monotonic() - start
        self.seen.statuses[answer.status] += 1
        wrong = _wrong(answer)
        if took > LONGEST_S:
            wrong = f"took {took:.0f} s"
        if wrong:
            self.seen.broke.append(f"{words[:300]}: {wrong}")


def _wrong(answer: Answer) -> str:
    """Return what is wrong with an answer, empty for nothing."""
    if answer.status >= 500:
        return f"status {answer.status}"
    text = answer.text if "text/html" in answer.headers.get("Content-Type", "") else ""
    if text and "default-src 'none'" not in answer.headers.get("Content-Security-Policy", ""):
        return "no policy"
    if "Traceback (most recent" in text or "<script>alert(1)" in text:
        return "a traceback or a script of others"
    words = re.sub(r"<textarea.*?</textarea>|<[^>]*>", " ", text, flags=re.S)
    shown = re.search(r"\b(nan|inf)\s+(N|kg|cm|%)|\bNaN\b", words)
    return f"shows {shown[0]!r}" if shown else ""


def fuzz(cases: int, seed: int = 1) -> Seen:
    """Return what so many cases showed, with what the server logged and whether its data are
    whole.
    """
    document = json.dumps(
        {"format": "wide-arc/scenario", "version": 1, "exercise": "back-squat-high",
         "loads": [{"kind": "free-mass", "kg": 60, "port": "back-high"}]}
    )  # fmt: skip
    with tempfile.TemporaryDirectory() as folder:
        with served(folder) as server:
            seen = Fuzz(server, Path(folder), seed, document).run(cases)
            if server.process.poll() is not None:
                seen.broke.append("the server has ended")
            seen.broke += [f"log: {line.strip()[:300]}" for line in server.log if "error" in line]
        with contextlib.closing(sqlite3.connect(Path(folder) / "demo.db")) as con:
            said = con.execute("PRAGMA integrity_check").fetchone()[0]
            loose = con.execute("PRAGMA foreign_key_check").fetchall()
            if said != "ok" or loose:
                seen.broke.append(f"data: {said}, {len(loose)} loose")
    return seen


def main() -> None:
    """Run, print, and end with 1 where anything broke."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("cases", type=int, nargs="?", default=CASES)
    parser.add_argument("--seed", type=int, default=int(time.time()) % 100_000)
    given = parser.parse_args()
    start = time.monotonic()
    seen = fuzz(given.cases, given.seed)
    print(f"seed {given.seed}: {dict(seen.cases)} in {time.monotonic() - start:.0f} s")
    print(f"answers by status: {dict(sorted(seen.statuses.items()))}")
    print(f"broke: {len(seen.broke)}", *sorted(set(seen.broke))[:40], sep="\n")
    raise SystemExit(1 if seen.broke else 0)


if __name__ == "__main__":
    main()
