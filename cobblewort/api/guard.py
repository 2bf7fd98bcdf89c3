"""Who may talk to the server: this machine's own pages, with requests of bounded size."""

from urllib.parse import urlsplit

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from cobblewort.api.problems import problem

LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "::1"})
MAX_BODY_BYTES = 2_000_000

SECURITY_HEADERS = [
    (b"content-security-policy", b"default-src 'self'; img-src 'self' data:; style-src 'self' "
     b"'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'"),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
]  # fmt: skip


class LocalOnly:
    """Refuses foreign hosts (DNS rebinding), foreign origins (other sites) and large bodies."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass an allowed request on, and answer the others with a problem document."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = {name: value.decode("latin-1") for name, value in scope["headers"]}
        refusal = _refusal(headers)
        if refusal is not None:
            await problem(*refusal)(scope, receive, send)
            return

        async def send_guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                message["headers"] = [*message.get("headers", []), *SECURITY_HEADERS]
            await send(message)

        await self.app(scope, _bounded(receive), send_guarded)


def _refusal(headers: dict[bytes, str]) -> tuple[int, str] | None:
    if _hostname(f"//{headers.get(b'host', '')}") not in LOCAL_HOSTS:
        return 403, "This server answers only to its own address, 127.0.0.1 or localhost."
    origin = headers.get(b"origin")
    if origin is not None and urlsplit(origin).netloc != headers.get(b"host"):
        return 403, "This request came from another site; open Cobblewort's own page instead."
    length = headers.get(b"content-length", "0")
    if not length.isdigit() or int(length) > MAX_BODY_BYTES:
        return 413, f"What was sent is larger than {MAX_BODY_BYTES // 10**6} MB; send less at once."
    return None


def _hostname(netloc: str) -> str | None:
    try:
        return urlsplit(netloc).hostname
    except ValueError:
        return None


def _bounded(receive: Receive) -> Receive:
    """Cuts off a body that grows past the limit without having stated its length."""
    seen = 0

    async def bounded() -> Message:
        nonlocal seen
        message = await receive()
        seen += len(message.get("body", b""))
        if seen > MAX_BODY_BYTES:
            return {"type": "http.disconnect"}
        return message

    return bounded
