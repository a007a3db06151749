"""The list of deliberate faults stays true: what each changes is there, and `check` sees it."""

from __future__ import annotations

import shutil
from dataclasses import replace

from tools.faults import EQUIVALENT, FAULTS
from tools.mutants import CORE, ROOT, applied, copied, noticed_by_check, tried


def test_every_fault_still_finds_its_text_once():
    assert len(FAULTS) >= 60
    assert len({(fault.file, fault.old, fault.new) for fault in FAULTS}) == len(FAULTS)
    assert len({fault.what for fault in FAULTS}) == len(FAULTS)
    for fault in FAULTS:
        text = (ROOT / CORE / fault.file).read_text()
        assert text.count(fault.old) == 1, fault.what
        assert fault.old != fault.new
    assert all(reason for _, reason in EQUIVALENT)


def test_check_passes_on_a_copy_and_fails_on_one_with_a_fault():
    place = copied()
    try:
        assert noticed_by_check(place) == (False, "")
        assert applied(FAULTS[0], place) == ""
        assert "times" in applied(FAULTS[0], place), "it is no longer there"
        noticed, first = noticed_by_check(place)
        assert noticed and "press" in first
    finally:
        shutil.rmtree(place)


def test_a_fault_that_does_nothing_is_alive():
    limit = next(fault for fault in FAULTS if fault.old == "PUSH_SHARE = 0.3")
    idle = replace(limit, new="PUSH_SHARE = 0.30")
    assert tried(idle, tests=False)[1] is False
