"""`make bench`: how long judging takes, written to docs/performance.md.

Medians of repeated runs on one core. Not a test: nothing fails here.
"""

from __future__ import annotations

import os
import re
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

from cobblewort.core.catalogue import Catalogue
from cobblewort.core.evaluate import evaluate
from cobblewort.core.fit.assign import assign
from cobblewort.core.fit.boxes import Space
from cobblewort.core.fit.fasteners import fasteners_of
from cobblewort.core.fit.pins import build_header
from cobblewort.core.fit.stack import build_stack
from cobblewort.core.fixes import candidates
from cobblewort.core.instance import Instance, expand
from cobblewort.core.purpose import plan_for
from cobblewort.core.suggest.first import first_kit
from cobblewort.formats.shipped import shipped_catalogue, shipped_places, shipped_purposes
from tests.browser.conftest import free_port
from tests.kits import kit

DOCUMENT = Path(__file__).parents[2] / "docs" / "performance.md"

PLAN_25 = kit(
    "B10", "S03", "M02", "A06", "D06", "D04", "2xH03", "4xA12", "4xD11", "4xX07", "X06", "K05",
    "E03", "F01", "T04",
    budget="1800",
    duty=[
        {"name": "night", "hours": 10, "activity": "light"},
        {"name": "day", "hours": 14, "activity": "idle"},
    ],
)  # fmt: skip


def median_ms(run: Callable[[], object], repeats: int) -> float:
    """Median duration of a call, after three to warm up. [ms]"""
    for _ in range(3):
        run()
    times = []
    for _ in range(repeats):
        began = time.perf_counter()
        run()
        times.append((time.perf_counter() - began) * 1e3)
    return statistics.median(times)


def sixty_cases() -> Catalogue:
    """The shipped cupboard with cases up to sixty."""
    shipped = shipped_catalogue()
    base = shipped.part("E03").model_dump(mode="json")
    there = len(shipped.parts(("case",)))
    return shipped.extended({**base, "id": f"E{n}"} for n in range(100, 160 - there))


def fit_alone(pieces: list[Instance]) -> None:
    """Everything that fit works out, without the rules."""
    fit = assign(pieces)
    stack = build_stack(pieces)
    assert Space(stack, fit).overlaps is not None
    fasteners_of(stack, pieces)
    build_header(PLAN_25, pieces)


def server_start() -> tuple[float, float, float]:
    """Seconds until the server answers, its memory in MB, and one report in ms."""
    with tempfile.TemporaryDirectory() as folder:
        port = free_port()
        command = [sys.executable, "-m", "cobblewort.cli", "demo", "--port", str(port)]
        # The first run writes the demo data, the second is the one that counts.
        subprocess.run([*command, "--data", folder, "--reset"], check=True, capture_output=True)
        began = time.perf_counter()
        process = subprocess.Popen([*command, "--data", folder], stdout=subprocess.DEVNULL)
        try:
            address = f"http://127.0.0.1:{port}/api/plans/choir-recorder"
            while not _answers(f"{address}/report"):
                time.sleep(0.01)
            started_s = time.perf_counter() - began
            answer_ms = median_ms(lambda: _answers(f"{address}/report"), 30)
            status = Path(f"/proc/{process.pid}/status").read_text(encoding="utf-8")
            memory_mb = int(re.findall(r"VmRSS:\s+(\d+)", status)[0]) / 1024
        finally:
            process.terminate()
            process.wait()
    return started_s, memory_mb, answer_ms


def _answers(url: str) -> bool:
    try:
        urllib.request.urlopen(url, timeout=5).read()
    except OSError:
        return False
    return True


def main() -> None:
    """Measure, print and write down."""
    shipped = shipped_catalogue()
    pieces = sum(line.quantity for line in PLAN_25.lines)
    many = sixty_cases()
    purpose = shipped_purposes()["sound-recorder"]
    begun = plan_for(purpose, purpose.title, shipped_places()["indoor-room"].place)
    pieces_of = expand(PLAN_25, shipped, 1)
    full = kit("B10", "S03", "M02", "K05", "E03", "395xX07")
    started_s, memory_mb, answer_ms = server_start()
    rows = [
        (f"evaluate(), {pieces} parts, nominal",
         median_ms(lambda: evaluate(PLAN_25, shipped), 200), "2 ms"),
        (f"evaluate(), {pieces} parts, 256 samples",
         median_ms(lambda: evaluate(PLAN_25, shipped, 256), 100), "15 ms"),
        (f"fit alone, {pieces} parts: plugs, stack, space, header",
         median_ms(lambda: fit_alone(pieces_of), 200), "part of the above"),
        ("60 candidates for one role",
         median_ms(lambda: candidates(PLAN_25, many, "case", "E03"), 10), "150 ms"),
        ("the first kit for a sound recorder",
         median_ms(lambda: first_kit(begun, shipped), 5), "1000 ms"),
        ("evaluate(), 400 parts, nominal",
         median_ms(lambda: evaluate(full, shipped), 5), "1000 ms"),
        ("a report over HTTP, choir recorder, 256 samples", answer_ms, "30 ms"),
    ]  # fmt: skip
    table = [f"| {what} | {found:.1f} ms | {aim} |" for what, found, aim in rows]
    table.append(f"| server, start to first report | {started_s:.2f} s | 1.5 s |")
    table.append(f"| server, memory after 30 reports | {memory_mb:.0f} MB | 150 MB |")
    text = DOCUMENT.read_text(encoding="utf-8")
    head = text.split("<!-- measured -->")[0]
    frame = ["<!-- measured -->", "", "| what | median | aim |", "| --- | --- | --- |"]
    body = "\n".join([*frame, *table])
    DOCUMENT.write_text(f"{head}{body}\n", encoding="utf-8")
    print("\n".join(table))


if __name__ == "__main__":
    main()
