"""Answers `304 Not Modified` to who has the answer already (RFC 9110, 13.1.2 and 15.4.5)."""

from hashlib import blake2b

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send


class NotModified:
    """Gives every answer of a GET below /api an ETag, and leaves out the body where the caller
    names it. A version as ETag gets the content added, as another data file may count the same
    versions; files to keep are sent as they are.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a request on, and look at the answer of a GET."""
        read = scope["type"] == "http" and scope["method"] == "GET"
        if not read or not scope["path"].startswith("/api/"):
            await self.app(scope, receive, send)
            return
        known = Headers(scope=scope).get("if-none-match", "")
        start: Message | None = None
        body: list[bytes] = []

        async def look(message: Message) -> None:
            nonlocal start
            if message["type"] == "http.response.start" and _is_compared(message):
                start = message
                return
            if start is None:
                await send(message)
                return
            body.append(message.get("body", b""))
            if not message.get("more_body", False):
                await _answer(start, b"".join(body), known, send)

        await self.app(scope, receive, look)


def _is_compared(start: Message) -> bool:
    headers = Headers(raw=start["headers"])
    return start["status"] == 200 and "content-disposition" not in headers


async def _answer(start: Message, body: bytes, known: str, send: Send) -> None:
    headers = MutableHeaders(raw=start["headers"])
    content = blake2b(body, digest_size=8).hexdigest()
    version = headers.get("etag", "").strip('"')
    headers["etag"] = tag = f'"{version}-{content}"' if version else f'"{content}"'
    headers.setdefault("cache-control", "no-store")
    if _names(known, tag):
        start["status"], body = 304, b""
        del headers["content-length"]
        del headers["content-type"]
    await send({**start, "headers": headers.raw})
    await send({"type": "http.response.body", "body": body})


def _names(known: str, tag: str) -> bool:
    """Whether an If-None-Match header names a tag, compared weakly."""
    tags = [one.strip().removeprefix("W/") for one in known.split(",")]
    return "*" in tags or tag in tags
