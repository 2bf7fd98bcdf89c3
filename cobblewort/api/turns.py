"""Costly requests take turns: a few at once, a few that wait, and a sentence for the rest."""

import asyncio
import re

from starlette.types import ASGIApp, Receive, Scope, Send

from cobblewort.api.problems import problem

AT_ONCE, WAITING, WITHIN_S = 2, 8, 30.0
_COSTLY = re.compile(
    r"/api/(first-kit|evaluate|workspace/.+|export/.+|import/.+"
    r"|plans/[^/]+/(sheet\.pdf|template\..+|candidates|alternatives|fixes|plan\.json"
    r"|kits/why-not))"
)
_BUSY = "The server is busy with other work. Try again in a moment."


class Turns:
    """Lets `AT_ONCE` costly requests work at the same time, so that the others are answered.

    Whoever waits longer than `WITHIN_S` is told so, and whoever comes while `WAITING` wait already.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app
        self._free = asyncio.Semaphore(AT_ONCE)
        self._waiting = 0

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a request on, a costly one when it is its turn."""
        if scope["type"] != "http" or not _COSTLY.fullmatch(scope["path"]):
            await self.app(scope, receive, send)
            return
        if self._free.locked() and self._waiting >= WAITING:
            await self._told(scope, receive, send)
            return
        self._waiting += 1
        try:
            await asyncio.wait_for(self._free.acquire(), WITHIN_S)
        except TimeoutError:
            await self._told(scope, receive, send)
            return
        finally:
            self._waiting -= 1
        try:
            await self.app(scope, receive, send)
        finally:
            self._free.release()

    async def _told(self, scope: Scope, receive: Receive, send: Send) -> None:
        answer = problem(503, _BUSY)
        answer.headers["Retry-After"] = "5"
        await answer(scope, receive, send)
