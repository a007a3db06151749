"""The one gauge that this process reads, and how many pages may watch it at once."""

from __future__ import annotations

import threading

from widearc.gauge import Reader

MOST_STREAMS = 8  # each holds a server thread: others must stay free for pages


class GaugeDesk:
    """Holds the reader; connecting to another address stops the one before.

    hosts: where a gauge may be besides this machine.
    """

    def __init__(self, hosts: frozenset[str] = frozenset()) -> None:
        self._hosts = hosts
        self._lock = threading.Lock()
        self._reader: Reader | None = None
        self.streams = threading.BoundedSemaphore(MOST_STREAMS)

    @property
    def reader(self) -> Reader | None:
        """Return the reader, running or stopped, None before the first."""
        return self._reader

    def connect(self, address: str) -> Reader:
        """Read the gauge at an address anew; InputError for an address that is none."""
        fresh = Reader(address, hosts=self._hosts)
        with self._lock:
            if self._reader is not None:
                self._reader.stop()
            self._reader = fresh.start()
        return fresh

    def stop(self) -> None:
        """Stop reading; what was captured can still be seen."""
        with self._lock:
            if self._reader is not None:
                self._reader.stop()
