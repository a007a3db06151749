"""Templates in another language: every text between two tags is a message, and every text of an
attribute that is read out. Nothing is marked, so nothing is forgotten; it is translated when the
template is compiled, so it costs a page nothing.

    <p>{{ n }} of {{ all }} pieces</p>    is the message    {n} of {all} pieces

A text that stands inside an expression is marked as `_("text")`.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field
from string import Formatter

from jinja2 import Environment
from jinja2.ext import Extension
from jinja2.lexer import Token, TokenStream

READ_OUT = frozenset(
    {
        "alt",
        "aria-label",
        "aria-description",
        "aria-valuetext",
        "placeholder",
        "title",
        "data-label",
    }
)
"""Attributes whose values a person reads or hears, besides those that begin with `data-say`."""

_RAW = ("style", "script", "cite")
_OPERATORS = ("if", "else", "not", "is", "and", "or", "in")
_MARK = "_"


@dataclass(slots=True)
class Run:
    """Text and expressions that belong together: `parts` are texts, or the tokens of an
    expression.
    """

    parts: list[str | list[Token]] = field(default_factory=list)

    def message(self) -> tuple[str, str, dict[str, list[Token]], str]:
        """Return what stands before it, its English ("" for none), its expressions by name and what
        stands behind it.
        """
        named: dict[str, list[Token]] = {}
        told = []
        for part in self.parts:
            if isinstance(part, str):
                told.append(part)
                continue
            name = base = _name(part)
            while name in named:
                name = f"{base}{sum(n.startswith(base) for n in named) + 1}"
            named[name] = part
            told.append(f"{{{name}}}")
        text = "".join(told)
        bare = re.sub(r"&\w+;|\{\w+\}", "", text)
        # a macro that writes attributes is no text
        if not any(map(str.isalpha, bare)) or '="' in bare:
            return text, "", named, ""
        inner = text.strip()
        start = text.index(inner)
        inner_words = " ".join(inner.split())
        return text[:start], inner_words, named, text[start + len(inner) :]


def _name(tokens: list[Token]) -> str:
    """Return what an expression is called in its message: its last name before a filter."""
    found = "x"
    for token in tokens:
        if token.type == "pipe":
            break
        if token.type == "name" and token.value not in (
            "if",
            "else",
            "not",
            "is",
            "and",
            "or",
            "in",
        ):
            found = str(token.value)
    return found


class Reader:
    """Reads a template's tokens as HTML and finds its runs."""

    def __init__(self) -> None:
        """Begin outside every tag."""
        self.where = "text"
        self.attribute = ""
        self.quote = ""
        self.raw = ""

    def pieces(self, data: str) -> Iterator[tuple[bool, str]]:
        """Yield the pieces of some HTML in order: whether a person reads it, and its text."""
        i = 0
        while i < len(data):
            if self.where == "text":
                j = self._end_of_text(data, i)
                if j > i:
                    yield not self.raw, data[i:j]
                if j < len(data):
                    i = j
                    j = self._open_tag(data, i)
                    yield False, data[i:j]
                i = j
            elif self.where == "tag":
                found = re.compile(r"([\w:-]+)\s*=\s*([\"'])|>|-->").search(data, i)
                j = found.end() if found else len(data)
                if found and found[1]:
                    self.attribute, self.quote, self.where = found[1], found[2], "value"
                elif found:
                    self.where = "text"
                yield False, data[i:j]
                i = j
            else:
                j = data.find(self.quote, i)
                end = len(data) if j < 0 else j
                if end > i:
                    yield self._is_read_out(), data[i:end]
                if j >= 0:
                    self.where = "tag"
                    yield False, self.quote
                    end += 1
                i = end

    @property
    def readable(self) -> bool:
        """Return whether an expression here stands where a person reads."""
        return (self.where == "text" and not self.raw) or (
            self.where == "value" and self._is_read_out()
        )

    def _is_read_out(self) -> bool:
        return self.attribute in READ_OUT or self.attribute.startswith("data-say")

    def _end_of_text(self, data: str, i: int) -> int:
        found = data.find(f"</{self.raw}" if self.raw else "<", i)
        return len(data) if found < 0 else found

    def _open_tag(self, data: str, i: int) -> int:
        if data.startswith("<!--", i):
            found = data.find("-->", i)
            return len(data) if found < 0 else found + 3
        name = re.compile(r"<(/?)([\w!]+)").match(data, i)
        if name is None:
            return i + 1
        self.raw = name[2] if not name[1] and name[2] in _RAW else ""
        self.where = "tag"
        return name.end()


def _groups(stream: Iterable[Token]) -> Iterator[list[Token]]:
    """Yield a data token, an expression or a block at a time, each with all its tokens."""
    group: list[Token] = []
    for token in stream:
        group.append(token)
        if token.type == "data" or token.type in ("variable_end", "block_end"):
            yield group
            group = []
    if group:
        yield group


Said = Callable[[str], str]


def _marked(tokens: list[Token], say: Said) -> list[Token]:
    """Return tokens with `_("text")` in them said."""
    told: list[Token] = []
    i = 0
    while i < len(tokens):
        token = tokens[i]
        if (
            token.type == "name"
            and token.value == _MARK
            and [t.type for t in tokens[i + 1 : i + 4]] == ["lparen", "string", "rparen"]
        ):
            told.append(Token(token.lineno, "string", say(str(tokens[i + 2].value))))
            i += 4
            continue
        told.append(token)
        i += 1
    return told


def translated_tokens(stream: Iterable[Token], say: Said) -> Iterator[Token]:
    """Yield a template's tokens with every message said by `say`."""
    reader, run = Reader(), Run()
    line = 1

    def close() -> Iterator[Token]:
        nonlocal run
        yield from _said_run(run, say, line)
        run = Run()

    for group in _groups(stream):
        line = group[0].lineno
        kind = group[0].type
        if kind == "data":
            for read, text in reader.pieces(str(group[0].value)):
                if read:
                    run.parts.append(text)
                    continue
                yield from close()
                yield Token(line, "data", text)
        elif kind == "variable_begin" and reader.readable:
            run.parts.append(_marked(group, say))
        else:
            yield from close()
            yield from _marked(group, say)
    yield from close()


def _said_run(run: Run, say: Said, line: int) -> Iterator[Token]:
    """Yield a run's tokens: as they are where it has no words."""
    before, english, named, behind = run.message()
    if not english:
        for part in run.parts:
            if isinstance(part, str):
                yield Token(line, "data", part)
            else:
                yield from part
        return
    yield Token(line, "data", before)
    for text, name, _, _ in Formatter().parse(say(english)):
        if text:
            yield Token(line, "data", text)
        if name is not None:
            yield from named[name]
    yield Token(line, "data", behind)


class Translated(Extension):
    """Says a template's messages by the environment's `say_message`."""

    def filter_stream(self, stream: TokenStream) -> Iterator[Token]:
        """Yield the tokens of the translated template."""
        say: Said = getattr(self.environment, "say_message", str)
        return translated_tokens(stream, say)


def messages_of(source: str) -> list[tuple[int, str]]:
    """Return a template's messages with the lines on which they begin."""
    found: list[tuple[int, str]] = []
    env = Environment(trim_blocks=True, lstrip_blocks=True)
    line = 1

    def note(text: str) -> str:
        found.append((line, text))
        return text

    for token in translated_tokens(env._tokenize(source, None), note):
        line = token.lineno
    return found
