"""A real server with demo plans and a real headless browser."""

from __future__ import annotations

import shutil
import socket
import subprocess
import sys
import threading
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import pytest
import uvicorn
from playwright.sync_api import Browser, BrowserContext, Locator, Page, expect

from cobblewort.api.app import create_app
from cobblewort.demo import fill_with_demo
from cobblewort.store.database import Database

_SWITCHED_OFF = [
    # The list below the address bar: two pages of its own for every tab, nearly half of the work.
    *("WebUIOmniboxPopup", "WebUIOmniboxAimPopup", "WebUIOmniboxFullPopup", "WebUIOmnibox"),
    # What Playwright switches off, as the last list counts.
    *("AvoidUnnecessaryBeforeUnloadCheckSync", "DestroyProfileOnBrowserClose", "HttpsUpgrades"),
    *("LensOverlay", "MediaRouter", "OptimizationHints", "PaintHolding"),
    *("ThirdPartyStoragePartitioning", "NetworkTimeServiceQuerying", "PreconnectToSearch"),
]
BROWSER_ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-features=" + ",".join(_SWITCHED_OFF),
]
CHROMIUM = "/usr/bin/chromium"
expect.set_options(timeout=15_000)  # a machine that is shared takes its time


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    """Chromium from the system's packages, without calls of its own."""
    return {"executable_path": CHROMIUM, "args": BROWSER_ARGS}


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    """The size the workbench is made for."""
    return {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce"}


def free_port() -> int:
    """A port that nothing listens on now."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@contextmanager
def running_server(folder: Path) -> Iterator[str]:
    """`cobblewort demo` on a folder, until the end of the block; yields its address."""
    port = free_port()
    command = [sys.executable, "-m", "cobblewort.cli", "demo"]
    process = subprocess.Popen([*command, "--data", str(folder), "--port", str(port)])
    address = f"http://127.0.0.1:{port}"
    try:
        _wait_for(address, process)
        yield address
    finally:
        process.terminate()
        process.wait(timeout=10)


def _wait_for(address: str, process: subprocess.Popen[bytes]) -> None:
    for _ in range(200):
        if process.poll() is not None:
            raise RuntimeError(f"the server ended with code {process.returncode}")
        try:
            urllib.request.urlopen(f"{address}/api/rules", timeout=1).close()
            return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError("the server did not answer in 20 s")


@contextmanager
def served_empty(data_file: Path, port: int = 0) -> Iterator[str]:
    """A data file as it is, served by a thread of this process; its address."""
    config = uvicorn.Config(
        create_app(data_file), host="127.0.0.1", port=port, log_level="warning", lifespan="off"
    )
    server = uvicorn.Server(config)
    thread = threading.Thread(target=server.run)
    thread.start()
    try:
        while not server.started:
            if not thread.is_alive():
                raise RuntimeError("the server ended before it had started")
            time.sleep(0.01)
        host, port = server.servers[0].sockets[0].getsockname()[:2]
        yield f"http://{host}:{port}"
    finally:
        server.should_exit = server.force_exit = True
        thread.join(timeout=10)


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data file with catalogue and demo plans, made once: each test has a copy."""
    file = tmp_path_factory.mktemp("demo") / "demo.sqlite3"
    fill_with_demo(file)
    create_app(file)
    Database(file).settle()
    return file


@pytest.fixture(scope="session")
def port() -> int:
    """The same one for all tests of a process, so that the browser keeps scripts and fonts."""
    return free_port()


@pytest.fixture
def server(tmp_path: Path, demo_file: Path, port: int) -> Iterator[str]:
    """A server of one's own, with the demo plans as they come."""
    file = Path(shutil.copy(demo_file, tmp_path / "demo.sqlite3"))
    with served_empty(file, port) as address:
        yield address


@pytest.fixture(scope="module")
def context(browser: Browser, browser_context_args: dict[str, Any]) -> Iterator[BrowserContext]:
    """One for all tests of a module: each has pages of its own, and nothing stored."""
    context = browser.new_context(**browser_context_args)
    yield context
    context.close()


@pytest.fixture
def page(context: BrowserContext, port: int) -> Iterator[Page]:
    """An empty page in a browser that remembers nothing of the test before."""
    page = context.new_page()
    yield page
    session = context.new_cdp_session(page)
    origin = f"http://127.0.0.1:{port}"
    session.send("Storage.clearDataForOrigin", {"origin": origin, "storageTypes": "all"})
    for one in context.pages:
        one.close()
    context.unroute_all()
    context.set_offline(False)


def complaint(page: Page) -> Locator:
    """What a form says is wrong; not the strip, by which a page on a busy machine may tell that the
    server was slow.
    """
    return page.locator("[role=alert]:not(.server-strip)")


@pytest.fixture
def quiet_page(page: Page) -> Iterator[Page]:
    """A page on which any script error, or error on its console, fails the test."""
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    page.on("console", lambda m: errors.append(m.text) if m.type == "error" else None)
    yield page
    assert errors == []
