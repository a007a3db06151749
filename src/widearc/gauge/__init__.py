"""A hanging scale or force gauge with a position sensor: lines over a serial port, or from the
simulated stand-in.

May import core only. Knows no page and no database. One line is `time_s,position_m,force_n`; see
`line.py`.
"""

from widearc.gauge.line import Sample, format_line, parse_line
from widearc.gauge.reader import Reader, Snapshot
from widearc.gauge.scripts import SCRIPTS
from widearc.gauge.simulator import Simulator
from widearc.gauge.steady import Capture, Steady

__all__ = [
    "SCRIPTS",
    "Capture",
    "Reader",
    "Sample",
    "Simulator",
    "Snapshot",
    "Steady",
    "format_line",
    "parse_line",
]
