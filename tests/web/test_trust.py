"""Whom the server answers: names it is called by, pages its forms come from, gauges it may open."""

from __future__ import annotations

import socket
import subprocess
from pathlib import Path

import pytest

from widearc.core.errors import InputError
from widearc.gauge.reader import gauge_address
from widearc.web import trust
from widearc.web.server import Serving, for_phones, serve
from widearc.web.trust import Trust, is_loopback, reached_at, trust_of


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "", "evil:80", "[::1"])
def test_a_page_called_by_a_foreign_name_gets_no_page_and_no_token(client, host):
    answer = client.get("/clients/1", headers={"Host": host})
    assert answer.status_code == 421
    assert "csrf" not in answer.text and "Bosun" not in answer.text
    assert "--allow-host" in answer.text and "Set-Cookie" not in answer.headers


@pytest.mark.parametrize("host", ["localhost", "127.0.0.1:5000", "[::1]:5000", "LOCALHOST:1"])
def test_loopback_names_are_answered_at_any_port(client, host):
    assert client.get("/clients/", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "http://evil.example"},
        {"Origin": "null"},
        {"Origin": "http://localhost:6000"},
        {"Origin": "file://localhost"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
        {"Origin": "http://localhost", "Sec-Fetch-Site": "cross-site"},
    ],
)
def test_a_form_of_another_site_changes_nothing(client, con, headers):
    before = con.execute("SELECT count(*) FROM client").fetchone()[0]
    answer = client.post("/clients/", data={"name": "Stowaway"}, headers=headers)
    assert answer.status_code == 403
    assert con.execute("SELECT count(*) FROM client").fetchone()[0] == before


@pytest.mark.parametrize(
    "headers", [{}, {"Origin": "http://localhost"}, {"Sec-Fetch-Site": "same-origin"}]
)
def test_a_form_of_our_own_page_is_taken(client, headers):
    answer = client.post("/clients/", data={"name": "Bosun's mate"}, headers=headers)
    assert answer.status_code == 302


def test_names_come_from_host_public_address_and_what_is_allowed():
    assert trust_of("127.0.0.1") == Trust()
    own = trust_of("192.168.7.5", "https://gym.example/", ["cabin"])
    assert {"192.168.7.5", "gym.example", "cabin", "localhost"} <= own.names
    assert own.own_page("https://gym.example", "anything") and own.public == "https://gym.example"
    assert not own.own_page("http://gym.example", "anything")
    anywhere = trust_of("0.0.0.0")
    assert socket.gethostname().lower() in anywhere.names
    assert not anywhere.answers_to("evil.example") and "0.0.0.0" not in anywhere.names


@pytest.mark.parametrize(
    ("public", "allowed", "where"),
    [
        ("gym.example", [], "--public-url"),
        ("ftp://gym.example", [], "--public-url"),
        ("https://gym.example/path", [], "--public-url"),
        ("", ["gym.example:80"], "--allow-host"),
        ("", [""], "--allow-host"),
        ("", ["a/b"], "--allow-host"),
    ],
)
def test_a_name_that_is_none_is_refused_at_the_start(public, allowed, where):
    with pytest.raises(InputError) as refused:
        trust_of("127.0.0.1", public, allowed)
    assert refused.value.where == where


def test_another_address_than_this_machine_s_needs_a_word(tmp_path):
    with pytest.raises(InputError, match="--trust-network") as refused:
        serve(Serving(host="0.0.0.0", port=0, data=tmp_path / "new"))
    assert refused.value.where == "--host" and not (tmp_path / "new").exists()
    assert is_loopback("127.1.2.3") and is_loopback("::1") and is_loopback("localhost")
    assert not is_loopback("example") and not is_loopback("10.0.0.1")


def test_a_phone_is_told_where_to_look(monkeypatch):
    assert for_phones("127.0.0.1", 5000) == "" == for_phones("::1", 5000)
    said = for_phones("10.1.2.3", 5077)
    assert said.startswith("A phone on the same network: http://10.1.2.3:5077/\n")
    assert "http://[fd00::5]:80/" in for_phones("fd00::5", 80)
    assert for_phones("10.1.2.3", 5077, "ascii") == said.splitlines(keepends=True)[0]
    # two rows of the code in each line of text: 25 and its edges of two
    code = said.splitlines()[1:]
    assert len(code) == 15 and all(set("▀▄█") & set(line) for line in code[2:-2])
    # every address: an address or name that the server answers to, and never "every"
    assert reached_at("0.0.0.0") in trust_of("0.0.0.0").names
    monkeypatch.setattr(trust, "_spoken_from", lambda family, far: set())
    assert reached_at("0.0.0.0") == socket.gethostname().lower()


def test_the_demo_opens_to_a_network_only_when_asked():
    root = Path(__file__).parents[2]
    for host, opened in (("127.0.0.1", False), ("localhost", False), ("0.0.0.0", True)):
        made = ["make", "--dry-run", "-o", "setup", "demo", f"HOST={host}"]
        said = subprocess.run(made, cwd=root, capture_output=True, text=True, check=True).stdout
        assert ("--trust-network" in said) is opened, host


@pytest.mark.parametrize(
    "address",
    [
        "socket://127.0.0.1:7701",
        "socket://[::1]:7701",
        "socket://localhost:80",
        "/dev/ttyUSB0",
        "/dev/tty.usbserial-1",
        "/dev/serial/by-id/usb-gauge",
        "COM3",
    ],
)
def test_a_gauge_may_be_a_serial_port_or_on_this_machine(address):
    assert gauge_address(address) == address


@pytest.mark.parametrize(
    "address",
    [
        "socket://10.0.0.1:22",
        "socket://127.0.0.1.evil.example:80",
        "socket://127.0.0.1",
        "socket://127.0.0.1:99999",
        "socket://127.0.0.1:80?logging=debug",
        "socket://127.0.0.1:80/path",
        "socket://user@127.0.0.1:80",
        "rfc2217://127.0.0.1:80?logging=debug",
        "/dev/../etc/passwd",
        "/dev/sda",
        "/dev/tty\n",
        "COM3?x",
        "",
    ],
)
def test_a_gauge_is_no_way_into_the_network(address):
    with pytest.raises(InputError, match="address"):
        gauge_address(address)


def test_a_setting_admits_one_other_machine():
    hosts = frozenset({"10.0.0.7"})
    assert gauge_address("socket://10.0.0.7:7701", hosts) == "socket://10.0.0.7:7701"
    with pytest.raises(InputError, match="--gauge-host"):
        gauge_address("socket://10.0.0.8:7701", hosts)
