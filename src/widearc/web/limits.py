"""How much may be sent at once: files of one's own data more than forms."""

from __future__ import annotations

from flask import Flask, request

LARGEST_FORM = 1_000_000  # bytes
LARGEST_FILE = 16_000_000  # a place of 500 things with 500 readings each
TAKES_FILES = ("/exchange/", "/exchange/all")


def init_app(app: Flask) -> None:
    """Set the limit of each request; to be called before what reads forms."""
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_FORM
    app.config["MAX_FORM_MEMORY_SIZE"] = LARGEST_FORM

    @app.before_request
    def allow() -> None:
        if request.path in TAKES_FILES:
            # a file looked at before it is taken comes back as text
            request.max_content_length = LARGEST_FILE
            request.max_form_memory_size = LARGEST_FILE
