"""The pages. A view parses, asks one use case, and renders; it computes nothing of the job.

May import usecases, store's rows, formats, demo and core's values; never sqlite3.
"""

from widearc.web.app import create_app

__all__ = ["create_app"]
