"""The demo: an invented wind-farm service vessel with three gyms. Uses only the store's
functions.
"""

from widearc.demo.loader import load_demo

__all__ = ["load_demo"]
