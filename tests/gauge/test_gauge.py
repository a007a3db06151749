"""The gauge: its lines, steady readings, reconnection, and a known band recovered through noise and
hysteresis.
"""

from __future__ import annotations

import socket
import time

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from widearc.core.equipment import fit_band
from widearc.core.errors import InputError
from widearc.gauge import SCRIPTS, Reader, Sample, Simulator, Steady, format_line, parse_line
from widearc.gauge.scripts import Script, rubber
from widearc.gauge.simulator import RATE_HZ


def played(script: Script, seconds: float, seed: int = 1):
    """Return the samples of a script without waiting."""
    simulator = Simulator(script, port=0, seed=seed)
    samples = [simulator.sample(k / RATE_HZ) for k in range(int(seconds * RATE_HZ))]
    simulator._listening.close()
    return [parse_line(format_line(s)) for s in samples if s is not None]


def until(condition, seconds=8.0):
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        if condition():
            return True
        time.sleep(0.02)
    return False


@given(st.floats(0, 1e5), st.floats(-40, 40), st.floats(-9e4, 9e4))
def test_a_line_round_trips(time_s, position_m, force_n):
    back = parse_line(format_line(Sample(time_s=time_s, position_m=position_m, force_n=force_n)))
    assert back.time_s == pytest.approx(time_s, abs=6e-4) and back.force_n == pytest.approx(
        force_n, abs=0.06
    )
    assert back.position_m == pytest.approx(position_m, abs=6e-5) and not back.overload


@pytest.mark.parametrize(
    "text", ["1,2", "1,2,3,4", "1,2,heavy", "1,nan,3", "1,2,1e9", "1;2;3", "9" * 200]
)
def test_a_line_that_is_none_is_refused(text):
    with pytest.raises(InputError):
        parse_line(text)


def test_remarks_are_passed_over_and_overloads_known():
    assert parse_line("# anything") is None and parse_line("  ") is None
    assert parse_line("1.0,1.2,OL").overload


@pytest.mark.parametrize("name", ["band-light", "band-heavy"])
def test_a_known_band_is_recovered_from_one_pull_and_back(name):
    script = SCRIPTS[name]
    steady = Steady()
    for sample in played(script, script.period_s):
        steady.see(sample)
    up = [c for c in steady.captures if c.direction == "loading"]
    down = [c for c in steady.captures if c.direction == "unloading"]
    assert len(up) == len(script.steps_m) and len(down) >= 4
    for capture, step in zip(up, script.steps_m, strict=True):
        assert capture.position_m == pytest.approx(step, abs=0.001)
        assert capture.force_n == pytest.approx(
            script.law(step), abs=4 * script.noise_n + script.step_n
        )
    lengths, forces = tuple(c.position_m for c in up), tuple(max(0.0, c.force_n) for c in up)
    law = fit_band(lengths, forces, 1.0)
    reach = np.linspace(1.02, 2.0, 50)
    true = np.array([script.law(x) for x in reach])
    assert law.chosen == "mooney-rivlin", "the law that made the readings"
    assert np.abs(law.fits[law.chosen].law.force_n(reach) - true).max() < 0.02 * true.max()
    given_back = [1 - c.force_n / script.law(c.position_m) for c in down if c.position_m > 1.05]
    assert np.mean(given_back) == pytest.approx(script.hysteresis, abs=0.02)


def test_drift_and_overload_are_noticed():
    drifting = Steady()
    for sample in played(SCRIPTS["band-drifting"], SCRIPTS["band-drifting"].period_s + 2.0):
        drifting.see(sample)
    assert drifting.drift_n is not None and drifting.drift_n > 2.0
    calm = Steady()
    for sample in played(SCRIPTS["band-light"], SCRIPTS["band-light"].period_s + 2.0):
        calm.see(sample)
    assert calm.drift_n is None and calm.overloads == 0
    over = Steady()
    for sample in played(SCRIPTS["band-overload"], SCRIPTS["band-overload"].period_s):
        over.see(sample)
    assert over.overloads > 20
    assert all(c.force_n < 405 for c in over.captures), (
        "what is beyond the gauge is never a reading"
    )


def test_a_moving_handle_and_missing_lines_give_no_reading():
    steady = Steady()
    for k in range(100):
        assert steady.see(Sample(time_s=k / 25, position_m=1 + k / 250, force_n=50 + k)) is None
    gap = Steady()
    for k in range(24):
        gap.see(Sample(time_s=k / 25, position_m=1.0, force_n=50))
    assert gap.see(Sample(time_s=3.0, position_m=1.0, force_n=50)) is None, (
        "a hole in the lines starts anew"
    )


def test_the_reader_survives_an_unplugged_gauge_with_nothing_lost():
    script = Script(law=rubber(1.0, 55.0), steps_m=(1.0, 1.2, 1.5))
    first = Simulator(script, port=0, speed=6.0).start()
    reader = Reader(first.address).start()
    assert until(lambda: len(reader.snapshot().captures) >= 2)
    first.stop()
    assert until(lambda: reader.snapshot().state == "unplugged")
    kept = reader.snapshot()
    assert len(kept.captures) >= 2 and kept.seen > 50
    again = Simulator(script, port=first.port, speed=6.0).start()
    assert again.port == first.port
    assert until(
        lambda: reader.snapshot().state == "reading" and reader.snapshot().seen > kept.seen + 50
    )
    assert reader.snapshot().captures[: len(kept.captures)] == kept.captures
    later = reader.snapshot(since=kept.seen, captured=len(kept.captures))
    assert later.samples and len(later.samples) <= later.seen - kept.seen
    reader.stop()
    again.stop()
    assert reader.snapshot().state == "stopped" and reader.snapshot().captures


def test_wrong_lines_are_counted_and_the_trace_does_not_grow():
    listening = socket.create_server(("127.0.0.1", 0))
    reader = Reader(f"socket://127.0.0.1:{listening.getsockname()[1]}").start()
    talking, _ = listening.accept()
    while (
        reader.snapshot().state != "reading"
    ):  # whatever arrived before the port was opened is thrown away
        talking.sendall(b"0,1.0,10.0\n")
        time.sleep(0.05)
    before = reader.snapshot().seen
    lines = [f"{k / 100:.2f},1.0,10.0\n" if k % 10 else "rubbish\n" for k in range(3000)]
    talking.sendall("".join(lines).encode())
    assert until(lambda: reader.snapshot().seen >= before + 2700)
    snapshot = reader.snapshot()
    assert snapshot.wrong_lines == 300 and len(snapshot.samples) == 1500
    reader.stop()
    talking.close()
    listening.close()


def test_a_busy_port_is_answered_with_a_free_one():
    one = Simulator(SCRIPTS["spring"], port=0)
    two = Simulator(SCRIPTS["spring"], port=one.port)
    assert two.port != one.port
    one._listening.close()
    two._listening.close()


@pytest.mark.parametrize("address", ["", "file:///etc/passwd", "loop://", "spy://COM1", "x" * 300])
def test_an_address_that_is_no_gauge_is_refused(address):
    with pytest.raises(InputError, match="address"):
        Reader(address)
