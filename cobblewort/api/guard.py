"""Who may talk to the server: this machine's own pages, with requests of bounded size."""

import asyncio
import re
from collections.abc import Mapping
from contextlib import suppress
from urllib.parse import urlsplit

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from cobblewort.api.problems import problem

LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "::1"})
MAX_BODY_BYTES = 2_000_000
MAX_ARCHIVE_BYTES = 64_000_000
"""Of what is sent to be restored, and nothing else."""
MAX_WAIT_S = 20.0
"""For the next piece of a body."""

SECURITY_HEADERS = [
    (
        b"content-security-policy",
        b"default-src 'self'; img-src 'self' data:; style-src 'self' "
        b"'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
    ),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
]


class _RefusedError(Exception):
    """A body is not taken: status and sentence."""


class LocalOnly:
    """Refuses foreign hosts (DNS rebinding), foreign origins (other sites), large and slow bodies.

    Every answer carries the security headers, refusals too.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass an allowed request on, and answer the others with a problem document."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        refusal, started = _refusal(scope), False

        async def receive_bounded() -> Message:
            nonlocal refusal
            try:
                return await bounded()
            except _RefusedError as error:
                refusal = error.args
                raise

        async def send_guarded(message: Message) -> None:
            nonlocal started
            if refusal is not None and not started:
                return  # the framework's own words for a body that broke off
            started = True
            await answer(message)

        bounded, answer = _bounded(receive, _most_bytes(scope)), _guarded(send)
        if refusal is None:
            with suppress(_RefusedError):
                await self.app(scope, receive_bounded, send_guarded)
        if refusal is not None and not started:
            await problem(*refusal)(scope, receive, answer)


def _guarded(send: Send) -> Send:
    """Adds the security headers to an answer."""

    async def with_headers(message: Message) -> None:
        if message["type"] == "http.response.start":
            message["headers"] = [*message.get("headers", []), *SECURITY_HEADERS]
        await send(message)

    return with_headers


def _too_large(most: int) -> str:
    return f"The request is larger than {most // 10**6} MB. Send less at once."


_FOREIGN = "This request came from another site. Open the page of Cobblewort instead."


def _refusal(scope: Scope) -> tuple[int, str] | None:
    headers = {name: value.decode("latin-1") for name, value in scope["headers"]}
    host = headers.get(b"host", "")
    if _hostname(f"//{host}") not in LOCAL_HOSTS:
        return 403, "This server only answers at 127.0.0.1 and localhost."
    origin = headers.get(b"origin")
    if origin is not None and origin != f"{scope.get('scheme', 'http')}://{host}":
        return 403, _FOREIGN
    if headers.get(b"sec-fetch-site") in ("cross-site", "same-site") and not _follows_link(
        scope, headers
    ):
        return 403, _FOREIGN
    length = headers.get(b"content-length", "0")
    most = _most_bytes(scope)
    if not re.fullmatch("[0-9]{1,18}", length) or int(length) > most:
        return 413, _too_large(most)
    return None


def _most_bytes(scope: Scope) -> int:
    return MAX_ARCHIVE_BYTES if scope["path"].startswith("/api/workspace/") else MAX_BODY_BYTES


def _follows_link(scope: Scope, headers: Mapping[bytes, str]) -> bool:
    """Whether somebody came to the page by a link elsewhere, which may read and change nothing."""
    return (
        scope["method"] == "GET"
        and headers.get(b"sec-fetch-mode") == "navigate"
        and not scope["path"].startswith("/api")
    )


def _hostname(netloc: str) -> str | None:
    try:
        return urlsplit(netloc).hostname
    except ValueError:
        return None


def _bounded(receive: Receive, most: int) -> Receive:
    """Ends a request whose body grows past the limit without having said so, or does not come."""
    seen, whole = 0, False

    async def bounded() -> Message:
        nonlocal seen, whole
        if whole:  # what is waited for now is only that the other side hangs up
            return await receive()
        try:
            message = await asyncio.wait_for(receive(), MAX_WAIT_S)
        except TimeoutError:
            raise _RefusedError(408, "The request did not arrive in time. Send it again.") from None
        seen += len(message.get("body", b""))
        whole = not message.get("more_body", False)
        if seen > most:
            raise _RefusedError(413, _too_large(most))
        return message

    return bounded
