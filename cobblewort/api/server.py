"""The server on its socket: bound before anything else, patient only so long, ended in time."""

from __future__ import annotations

import asyncio
import errno
import socket
from typing import Any

import uvicorn
from fastapi import FastAPI
from uvicorn.protocols.http.h11_impl import H11Protocol

from cobblewort.store.database import StoreError

HOST = "127.0.0.1"
_HEADERS_WITHIN_S = 15.0
_END_WITHIN_S = 3


def bound(port: int) -> socket.socket:
    """A socket of this machine alone. Raises StoreError, with what to do, if the port is taken."""
    listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind((HOST, port))
    except OSError as error:
        listening.close()
        taken = error.errno == errno.EADDRINUSE
        why = "another program uses it" if taken else str(error.strerror)
        raise StoreError(
            f"Port {port} cannot be used: {why}. Stop that program, or choose another port with "
            f"--port."
        ) from error
    return listening


class _Impatient(H11Protocol):
    """Hangs up on whoever opens a connection and does not say what they want."""

    _deadline: asyncio.TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:
        super().connection_made(transport)
        self._wait()

    def handle_events(self) -> None:
        super().handle_events()
        if self.cycle is not None and not self.cycle.response_complete:
            self._cancel()
        elif self._deadline is None:
            self._wait()

    def connection_lost(self, exc: Exception | None) -> None:
        self._cancel()
        super().connection_lost(exc)

    def _wait(self) -> None:
        self._deadline = self.loop.call_later(_HEADERS_WITHIN_S, self.transport.close)

    def _cancel(self) -> None:
        if self._deadline is not None:
            self._deadline.cancel()
            self._deadline = None


def server_for(application: FastAPI) -> uvicorn.Server:
    """The server, not started yet; once told to stop, what is under way has three seconds."""
    config = uvicorn.Config(
        application,
        log_level="warning",
        http=_Impatient,
        timeout_graceful_shutdown=_END_WITHIN_S,
    )
    return uvicorn.Server(config)
