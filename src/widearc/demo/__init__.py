"""The demo: an invented wind-farm service vessel with three gyms. Uses only the store's and the use
cases' functions.
"""

from widearc.demo.loader import load_demo
from widearc.demo.record import load_record
from widearc.demo.weeks import load_weeks

__all__ = ["load_demo", "load_record", "load_weeks"]
