"""`make bench`: how long judging takes, written to docs/performance.md.

Repeated runs on one core: their median, and the fastest tenth, which says what the same takes while
nothing else holds the machine up. Not a test: nothing fails here.
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
from collections.abc import Callable, Iterator
from dataclasses import replace
from functools import partial
from itertools import count, cycle
from pathlib import Path
from typing import NamedTuple

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

from cobblewort.cli import made_to_stay
from cobblewort.core.aspects.fit.model import blocks_of, fasteners_of, header_of
from cobblewort.core.changing.candidates import candidates
from cobblewort.core.changing.suggest import Wishes, first_kit, suggest
from cobblewort.core.changing.suggest.search import cheapest
from cobblewort.core.judging.kit import Kit
from cobblewort.core.parts.model import Part
from cobblewort.core.parts.search import PartIndex
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import EditLine, RemoveLine, SetFields, SwapPart, apply_patch
from cobblewort.core.plans.purpose import plan_for
from cobblewort.core.plans.steps import PlanFile
from cobblewort.core.verdict.evaluate import evaluate, evaluation_of
from cobblewort.formats.plan_files import plans_text
from cobblewort.formats.shipped import shipped_catalogue, shipped_places, shipped_purposes
from cobblewort.store.archive import archive
from cobblewort.store.database import Database
from cobblewort.store.plans import PlanStore, StoredPlan
from cobblewort.store.workspace import restore
from tests.browser.conftest import free_port
from tests.kits import kit

DOCUMENT = Path(__file__).parents[2] / "docs" / "performance.md"

STARTS = 7

PLAN_25 = kit(
    "B10",
    "S03",
    "M02",
    "A06",
    "D06",
    "D04",
    "2xH03",
    "4xA12",
    "4xD11",
    "4xX07",
    "X06",
    "K05",
    "E03",
    "F01",
    "T04",
    budget="1800",
    schedule=[
        {"name": "night", "hours": 10, "activity": "light"},
        {"name": "day", "hours": 14, "activity": "idle"},
    ],
    transfers=[
        {
            "id": "calls",
            "text": "four microphones",
            "source": "audio_in",
            "target": "storage",
            "stream_mb_s": 0.768,
            "at_once": 4,
            "hours_a_day": 1.2,
            "stays": True,
            "during": "night",
        },
        {
            "id": "copy",
            "text": "a copy meanwhile",
            "source": "network",
            "target": "storage",
            "amount_gb": 20,
            "within_min": 30,
            "runs_a_day": 0.2,
            "during": "night",
        },
    ],
    retention={
        "replaceable": False,
        "writes": "logger",
        "backups": [
            {"id": "far", "text": "a friend's", "place": "elsewhere", "medium": "disk"},
        ],
    },
)


CHANGES = (
    SwapPart(line="E03", part="E04"),
    SwapPart(line="K05", part="K03"),
    SetFields(fields={"budget": "900"}),
    EditLine(line="A12", quantity=3),
    SetFields(fields={"place": {"ambient_max_c": 35}}),
    RemoveLine(line="T04"),
)
"""What somebody at work does to it, one at a time: case, cooler, budget, a device less, the day."""


class Took(NamedTuple):
    """Durations of repeated runs: their median, and the one that a tenth stay below. [s]"""

    median_s: float
    fast_s: float


def took(times_s: list[float]) -> Took:
    """Sum up runs."""
    ordered = sorted(times_s)
    return Took(statistics.median(ordered), ordered[len(ordered) // 10])


def timed(run: Callable[[], object], repeats: int) -> Took:
    """Duration of a call, after three to warm up."""
    for _ in range(3):
        run()
    times = []
    for _ in range(repeats):
        began = time.perf_counter()
        run()
        times.append(time.perf_counter() - began)
    return took(times)


def sixty_cases() -> Catalogue:
    """The shipped catalogue with cases up to sixty."""
    shipped = shipped_catalogue()
    base = shipped.document(shipped.part("E03"))
    there = len(shipped.parts(("case",)))
    return shipped.extended({**base, "id": f"E{n}"} for n in range(100, 160 - there))


def changed_and_back(shipped: Catalogue, samples: int) -> Callable[[], object]:
    """A call that makes or takes back the next change, and judges the plan like the last one."""
    plans = cycle(p for change in CHANGES for p in (apply_patch(PLAN_25, (change,)), PLAN_25))
    last = evaluation_of(PLAN_25, shipped, samples)

    def step() -> None:
        nonlocal last
        last = evaluation_of(next(plans), shipped, samples, like=last)

    return step


def fit_alone(shipped: Catalogue) -> None:
    """Everything that fit works out, without the rules."""
    made = Kit(PLAN_25, shipped, 1)
    list(blocks_of(made).overlaps)
    fasteners_of(made)
    header_of(made)


def server_start() -> tuple[Took, float, Took, Took]:
    """Until the server answers, its memory in MB, and a report, worked out and as it was kept."""
    with tempfile.TemporaryDirectory() as folder:
        # An installed program has its modules compiled; here they are for the runs after the first.
        compiled = {"PYTHONDONTWRITEBYTECODE": "", "PYTHONPYCACHEPREFIX": f"{folder}/compiled"}
        environment = {**os.environ, **compiled}
        starts = []
        for _ in range(STARTS + 1):
            port = free_port()
            command = [sys.executable, "-m", "cobblewort.cli", "demo", "--port", str(port)]
            report = f"http://127.0.0.1:{port}/api/plans/choir-recorder/report"
            began = time.perf_counter()
            process = subprocess.Popen(
                [*command, "--data", f"{folder}/demo"], stdout=subprocess.DEVNULL, env=environment
            )
            try:
                while not _answers(report):
                    time.sleep(0.01)
                starts.append(time.perf_counter() - began)
                if len(starts) > STARTS:
                    answer = timed(partial(_judged_anew, report, count()), 60)
                    again = timed(partial(_answers, report), 60)
                    status = Path(f"/proc/{process.pid}/status").read_text(encoding="utf-8")
                    memory_mb = int(re.findall(r"VmRSS:\s+(\d+)", status)[0]) / 1024
            finally:
                process.terminate()
                process.wait()
    return took(starts[1:]), memory_mb, answer, again


def _judged_anew(report: str, numbers: Iterator[int]) -> None:
    """A report under an assumption that no earlier one was under, so that none is kept of it."""
    if not _answers(f"{report}?ambient_c={20 + next(numbers) / 100}"):
        raise RuntimeError("the server did not answer")


def _answers(url: str) -> bool:
    try:
        urllib.request.urlopen(url, timeout=5).read()
    except OSError:
        return False
    return True


def many_parts(count: int) -> list[Part]:
    """So many parts, each called otherwise."""
    base = shipped_catalogue().parts(("device", "drive", "cable"))
    names = ("amber", "birch", "clover", "dapple", "elder", "fennel", "gorse", "hazel")
    return [
        replace(base[n % len(base)], id=f"P{n}", model=f"{names[n % 8]} {names[n // 8 % 8]} {n}")
        for n in range(count)
    ]


def carried(folder: Path) -> tuple[Took, Took, Took]:
    """200 plans out as JSON, as an archive, and back."""
    database = Database(folder / "one.sqlite3")
    database.prepare()
    plans, shipped = PlanStore(database), shipped_catalogue()
    for number in range(200):
        plans.create(PLAN_25.model_copy(update={"name": f"plan {number}"}), "new plan")
    stored = [PlanFile(one.plan) for one in plans.all() if isinstance(one, StoredPlan)]
    content = archive(database)
    return (
        timed(lambda: plans_text(stored, shipped), 5),
        timed(lambda: archive(database), 10),
        timed(lambda: restore(database, content), 10),
    )


def main() -> None:
    """Measure, print and write down."""
    with made_to_stay():  # as in the program
        shipped = shipped_catalogue()
    items = sum(line.quantity for line in PLAN_25.lines)
    many = sixty_cases()
    purpose = shipped_purposes()["sound-recorder"]
    begun = plan_for(purpose, purpose.title, shipped_places()["indoor-room"].place)
    frost, shade = shipped_purposes()["frost-camera"], shipped_places()["outdoors-shaded"].place
    camera = plan_for(frost, frost.title, shade)
    full = kit("B10", "S03", "M02", "K05", "E03", "395xX07")
    started, memory_mb, answer, again = server_start()
    rows = [
        ("sum(range(1000)), to compare machines by", timed(lambda: sum(range(1000)), 20000), ""),
        (
            f"margins and findings, {items} parts, from nothing, nominal",
            timed(lambda: evaluation_of(PLAN_25, shipped), 600),
            "6 ms",
        ),
        (
            f"margins and findings, {items} parts, from nothing, 256 samples",
            timed(lambda: evaluation_of(PLAN_25, shipped, 256), 200),
            "25 ms",
        ),
        (
            "the same after one change, like the last, nominal",
            timed(changed_and_back(shipped, 1), 600),
            "3 ms",
        ),
        ("after one change, 256 samples", timed(changed_and_back(shipped, 256), 200), ""),
        (
            "from nothing with all drawings: evaluate(), nominal",
            timed(lambda: evaluate(PLAN_25, shipped), 300),
            "",
        ),
        ("evaluate(), 256 samples", timed(lambda: evaluate(PLAN_25, shipped, 256), 150), ""),
        ("of that fit: plugs, stack, space, header", timed(lambda: fit_alone(shipped), 300), ""),
        (
            "60 candidates for one role",
            timed(lambda: candidates(PLAN_25, many, "case", "E03"), 30),
            "200 ms",
        ),
        (
            "the first kit for a sound recorder",
            timed(lambda: first_kit(begun, shipped), 10),
            "0.6 s",
        ),
        (
            "the lowest-priced kit for a frost camera, proven",
            timed(lambda: cheapest(camera, shipped, Wishes()), 5),
            "0.3 s",
        ),
        (
            "all kits for it that none beats, four criteria, proven",
            timed(lambda: list(suggest(camera, shipped, Wishes())), 2),
            "1 s",
        ),
        ("evaluate(), 400 parts, nominal", timed(lambda: evaluate(full, shipped), 20), "1 s"),
        ("a report over HTTP, choir recorder, 256 samples", answer, "40 ms"),
        ("the same report once more", again, ""),
        ("server, start to first report", started, "1 s"),
    ]
    # Last, as what they hold would slow what is measured before.
    index = PartIndex(many_parts(10_000))
    with tempfile.TemporaryDirectory() as folder:
        out, archived, back = carried(Path(folder))
    rows += [
        (
            "search over 10,000 parts, a name with a typo and a figure",
            timed(lambda: index.find("clovr dapple 5 V 3 A"), 50),
            "20 ms",
        ),
        ("200 plans as JSON with their parts", out, ""),
        ("an archive of 200 plans", archived, ""),
        ("restoring it, with a copy kept", back, ""),
    ]
    table = [
        f"| {what} | {_shown(found.median_s)} | {_shown(found.fast_s)} | {aim} |"
        for what, found, aim in rows
    ]
    table.append(f"| server, memory after 120 reports | {memory_mb:.0f} MB | | 150 MB |")
    text = DOCUMENT.read_text(encoding="utf-8")
    head = text.split("<!-- measured -->")[0]
    frame = ["<!-- measured -->", "", "| what | median | fastest tenth | aim |"]
    body = "\n".join([*frame, "| --- | --- | --- | --- |", *table])
    DOCUMENT.write_text(f"{head}{body}\n", encoding="utf-8")
    print("\n".join(table))


def _shown(duration_s: float) -> str:
    if duration_s < 0.001:
        return f"{duration_s * 1e6:.0f} µs"
    return f"{duration_s * 1e3:.1f} ms" if duration_s < 1 else f"{duration_s:.2f} s"


if __name__ == "__main__":
    main()
