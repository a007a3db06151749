"""What the core says, in English and SI, as tests read it."""

from __future__ import annotations

import re
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import pytest

from widearc.words import plain


@contextmanager
def refused(kind: Any, match: str) -> Iterator[pytest.ExceptionInfo[Any]]:
    """Expect an error of the core whose sentence has a match for a pattern."""
    with pytest.raises(kind) as caught:
        yield caught
    assert re.search(match, plain(caught.value.said)), plain(caught.value.said)
