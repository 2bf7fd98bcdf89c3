"""The server on a real socket, in a thread of its own."""

from __future__ import annotations

import socket
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from cobblewort.api import guard, server
from cobblewort.api.app import create_app


@pytest.fixture
def port(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[int]:
    """The port of a server that is less patient than usual."""
    monkeypatch.setattr(server, "_HEADERS_WITHIN_S", 0.4)
    monkeypatch.setattr(guard, "MAX_WAIT_S", 0.4)
    listening = server.bound(0)
    running = server.server_for(create_app(tmp_path / "data.sqlite3"))
    thread = threading.Thread(target=running.run, kwargs={"sockets": [listening]})
    thread.start()
    while not running.started:
        time.sleep(0.01)
    yield listening.getsockname()[1]
    running.should_exit = True
    thread.join(10)
    listening.close()


def reply(port: int, *items: bytes) -> bytes:
    """What comes back, until the server hangs up, to pieces sent one after the other."""
    with socket.create_connection(("127.0.0.1", port), timeout=5) as connection:
        for item in items:
            connection.sendall(item % port if b"%d" in item else item)
            time.sleep(0.05)
        found = b""
        while item := connection.recv(4096):
            found += item
        return found


@pytest.mark.parametrize("items", [(), (b"GET / HT",), (b"GET / HTTP/1.1\r\nHost: x\r\nA:", b"b")])
def test_who_does_not_say_what_they_want_is_hung_up_on(port: int, items: tuple[bytes, ...]) -> None:
    """Nothing sent, half a line, half the headers."""
    began = time.monotonic()
    assert reply(port, *items) == b""
    assert time.monotonic() - began < 3


def test_a_body_that_does_not_come_is_answered_408(port: int) -> None:
    """With a sentence; a request that is whole is answered as ever, on a connection kept open."""
    head = (
        b"POST /api/plans HTTP/1.1\r\nHost: 127.0.0.1:%d\r\nConnection: close\r\n"
        b"X-Cobblewort: test\r\nContent-Type: application/json\r\nContent-Length: 50\r\n\r\n{"
    )
    assert b"408" in reply(port, head).split(b"\r\n")[0]
    get = b"GET /api/places HTTP/1.1\r\nHost: 127.0.0.1:%d\r\n\r\n"
    last = get.replace(b"\r\n\r\n", b"\r\nConnection: close\r\n\r\n")
    assert reply(port, get, get, last).count(b"HTTP/1.1 200") == 3
