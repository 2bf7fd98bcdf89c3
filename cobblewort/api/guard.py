"""Who may talk to the server: this machine's own pages, with requests of bounded size."""

import asyncio
import logging
import re
import time
from collections import Counter
from collections.abc import Collection, Mapping
from contextlib import suppress
from urllib.parse import urlsplit

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from cobblewort.api.problems import problem
from cobblewort.formats.documents import MAX_IMPORT_BYTES
from cobblewort.store.archive import MAX_ARCHIVE_BYTES

LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "::1"})
MAX_BODY_BYTES = 2_000_000
MAX_BYTES_BELOW = {"/api/workspace/": MAX_ARCHIVE_BYTES, "/api/import/": 2 * MAX_IMPORT_BYTES}
"""Of what is restored and imported; JSON may take twice the bytes of the text that it carries."""
MAX_WAIT_S, MAX_BODY_S = 20.0, 300.0
"""For the next piece of a body, and for all of it."""
OWN_HEADER = b"x-cobblewort"
"""What every change carries: other sites cannot send it without asking, and are not answered."""
_CHANGING = frozenset({"POST", "PUT", "PATCH", "DELETE"})
_ONCE = (b"host", b"origin", OWN_HEADER, b"content-length", b"if-match")
_LOG = logging.getLogger("cobblewort")

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
    """Refuses foreign hosts (DNS rebinding), foreign origins and changes without a header of ours
    (other sites), large and slow bodies; and tells of each in the log.

    Every answer carries the security headers, refusals and faults too.
    """

    def __init__(self, app: ASGIApp, hosts: Collection[str] = LOCAL_HOSTS) -> None:
        self.app, self.hosts = app, frozenset(hosts)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass an allowed request on, and answer the others with a problem document."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        refusal, started = _refusal(scope, self.hosts), False

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

        bounded = _bounded(receive, _most_bytes(scope))
        answer = _guarded(send, scope["path"].startswith("/api"))
        if refusal is None:
            with suppress(_RefusedError):
                try:
                    await self.app(scope, receive_bounded, send_guarded)
                except _RefusedError:
                    raise
                except Exception:
                    _LOG.exception("%s failed", _said(scope))
                    refusal = 500, "The program failed. Your plans are unchanged."
        if refusal is not None and not started:
            _LOG.warning("%s refused: %s", _said(scope), refusal[1])
            await problem(*refusal)(scope, receive, answer)


def _said(scope: Scope) -> str:
    """A request for the log: no query, no headers, nothing that could hold a secret."""
    return f"{scope['method']} {ascii(scope['path'])[:200]}"


def _guarded(send: Send, private: bool) -> Send:
    """Adds the security headers to an answer, and keeps what is `private` out of stores."""

    async def with_headers(message: Message) -> None:
        if message["type"] == "http.response.start":
            headers = list(message.get("headers", []))
            if private and not any(name == b"cache-control" for name, _ in headers):
                headers.append((b"cache-control", b"no-store"))
            message["headers"] = [*headers, *SECURITY_HEADERS]
        await send(message)

    return with_headers


def _too_large(most: int) -> str:
    return f"The request is larger than {most // 10**6} MB. Send less at once."


_FOREIGN = "This request came from another site. Open the page of Cobblewort instead."


_WITHOUT = "Changes need the header X-Cobblewort. Reload the page, or send it from your script."


def _refusal(scope: Scope, hosts: Collection[str]) -> tuple[int, str] | None:
    times = Counter(name for name, _ in scope["headers"])
    twice = next((name.decode() for name in _ONCE if times[name] > 1), None)
    if twice is not None:
        return 400, f"The header {twice} is there twice. Send it once."
    headers = {name: value.decode("latin-1") for name, value in scope["headers"]}
    host = headers.get(b"host", "")
    if _hostname(f"//{host}") not in hosts:
        return 403, "This server only answers at 127.0.0.1 and localhost."
    if _is_foreign(scope, headers):
        return 403, _FOREIGN
    if scope["method"] in _CHANGING and not headers.get(OWN_HEADER):
        return 403, _WITHOUT
    length = headers.get(b"content-length", "0")
    most = _most_bytes(scope)
    if not re.fullmatch("[0-9]{1,18}", length) or int(length) > most:
        return 413, _too_large(most)
    return None


def _is_foreign(scope: Scope, headers: Mapping[bytes, str]) -> bool:
    """Whether a request comes from the page of another site."""
    origin, own = headers.get(b"origin"), f"{scope.get('scheme', 'http')}://{headers[b'host']}"
    if origin is not None and origin != own:
        return True
    crosses = headers.get(b"sec-fetch-site") in ("cross-site", "same-site")
    return crosses and not _follows_link(scope, headers)


def _most_bytes(scope: Scope) -> int:
    path = scope["path"]
    return next((n for at, n in MAX_BYTES_BELOW.items() if path.startswith(at)), MAX_BODY_BYTES)


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
    seen, whole, ends = 0, False, time.monotonic() + MAX_BODY_S

    async def bounded() -> Message:
        nonlocal seen, whole
        if whole:  # what is waited for now is only that the other side hangs up
            return await receive()
        try:
            left_s = min(MAX_WAIT_S, ends - time.monotonic())
            message = await asyncio.wait_for(receive(), max(0.0, left_s))
        except TimeoutError:
            raise _RefusedError(408, "The request did not arrive in time. Send it again.") from None
        seen += len(message.get("body", b""))
        whole = not message.get("more_body", False)
        if seen > most:
            raise _RefusedError(413, _too_large(most))
        return message

    return bounded
