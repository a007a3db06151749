"""Reads a gauge in the background: reconnects by itself, keeps the last trace, and loses nothing
that was captured.
"""

from __future__ import annotations

import re
import threading
from collections import deque
from dataclasses import dataclass
from urllib.parse import urlsplit

import serial

from widearc.core.errors import InputError
from widearc.core.words import Said
from widearc.gauge.line import LONGEST_LINE, Sample, parse_line
from widearc.gauge.steady import Capture, Steady

BAUD, READ_TIMEOUT_S, RETRY_S, SILENT_S = 115200, 0.2, 0.5, 3.0
READ_BYTES = 24  # a line or a little more: a reading is shown well within a tenth of a second
TRACE_SAMPLES = 1500  # a minute at 25 a second: the trace never grows beyond
LOOPBACK = frozenset({"127.0.0.1", "localhost", "::1"})
DEVICE = re.compile(r"/dev/(tty|cu|serial|rfcomm)[\w./:-]{1,80}|COM\d{1,3}", re.ASCII)


@dataclass(frozen=True, slots=True, kw_only=True)
class Snapshot:
    """What a page shows: state in words, samples since a count, captures since a count, overloads,
    drift.

    seen: samples in all; states: "connecting", "reading", "silent", "unplugged", "stopped".
    """

    state: str
    seen: int
    samples: tuple[Sample, ...]
    captures: tuple[Capture, ...]
    overloads: int
    drift_n: float | None
    wrong_lines: int


def gauge_address(address: str, hosts: frozenset[str] = frozenset()) -> str:
    """Return the address of a gauge: a serial port, or a TCP port of this machine or of `hosts`.

    Raises InputError for any other: whoever may type one must not reach the network through it.
    Options in the address (which could write files) are none.
    """
    if DEVICE.fullmatch(address) and ".." not in address:
        return address
    try:
        found = urlsplit(address)
        host, port = (found.hostname or "").lower(), found.port
    except ValueError:
        host, port = "", None
    plain = port is not None and address in (f"socket://{host}:{port}", f"socket://[{host}]:{port}")
    if not plain:
        raise InputError("address", address, Said("socket://127.0.0.1:7701, /dev/ttyUSB0 or COM3"))
    if host not in LOOPBACK | hosts:
        raise InputError(
            "address", address, Said("a gauge on this machine (--gauge-host admits another)")
        )
    return address


class Reader:
    """One gauge at an address: `socket://host:port`, a serial device, or COM port.

    hosts: where it may be besides this machine.
    """

    def __init__(self, address: str, hosts: frozenset[str] = frozenset()) -> None:
        self.address = gauge_address(address, hosts)
        self._lock = threading.Lock()
        self._stop = threading.Event()
        self._changed = threading.Condition(self._lock)
        self._trace: deque[Sample] = deque(maxlen=TRACE_SAMPLES)
        self._seen, self._wrong, self._state = 0, 0, "connecting"
        self._steady = Steady()
        self._thread = threading.Thread(target=self._run, name="gauge-reader", daemon=True)

    def start(self) -> Reader:
        """Read in the background; return itself."""
        self._thread.start()
        return self

    def stop(self) -> None:
        """Stop reading; what was captured stays."""
        self._stop.set()
        self._thread.join(timeout=2.0)
        self._set("stopped")

    def snapshot(self, since: int = 0, captured: int = 0, wait_s: float = 0.0) -> Snapshot:
        """Return what is new since sample number `since` and capture number `captured`; wait so
        long for news.
        """
        with self._changed:
            if wait_s and self._seen <= since and not self._stop.is_set():
                self._changed.wait(wait_s)
            new = min(self._seen - since, len(self._trace)) if self._seen > since else 0
            samples = tuple(self._trace)[len(self._trace) - new :] if new else ()
            return Snapshot(
                state=self._state,
                seen=self._seen,
                samples=samples,
                captures=tuple(self._steady.captures[captured:]),
                overloads=self._steady.overloads,
                drift_n=self._steady.drift_n,
                wrong_lines=self._wrong,
            )

    def _set(self, state: str) -> None:
        with self._changed:
            self._state = state
            self._changed.notify_all()

    def _run(self) -> None:
        while not self._stop.is_set():
            try:
                port = serial.serial_for_url(self.address, baudrate=BAUD, timeout=READ_TIMEOUT_S)
            except (serial.SerialException, OSError, ValueError):
                self._set("unplugged" if self._seen else "connecting")
                self._stop.wait(RETRY_S)
                continue
            with port:
                self._listen(port)
            if not self._stop.is_set():
                self._set("unplugged")
                self._stop.wait(RETRY_S)

    def _listen(self, port: serial.SerialBase) -> None:
        """Take lines in until the gauge is unplugged or reading stops."""
        waiting, silent = b"", 0.0
        while not self._stop.is_set():
            try:
                got = port.read(READ_BYTES)
            except (serial.SerialException, OSError):
                return
            silent = 0.0 if got else silent + READ_TIMEOUT_S
            if silent >= SILENT_S:
                self._set("silent")
            waiting += got
            *lines, waiting = waiting.split(b"\n")
            if len(waiting) > 4 * LONGEST_LINE:
                waiting, self._wrong = b"", self._wrong + 1
            for line in lines:
                self._take(line)

    def _take(self, line: bytes) -> None:
        try:
            sample = parse_line(line.decode("ascii", errors="replace"))
        except InputError:
            with self._lock:
                self._wrong += 1
            return
        if sample is not None:
            with self._changed:
                self._trace.append(sample)
                self._seen += 1
                self._state = "reading"
                self._steady.see(sample)
                self._changed.notify_all()
