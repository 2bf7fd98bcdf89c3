"""Kits of anything with data on any way: what nobody would plan must be judged like the rest."""

from __future__ import annotations

from random import Random
from typing import Any, get_args

from cobblewort.core.plans.plan import End, FileSystem, Layout, Plan, Writes
from tests.kits import kit, shipped

_KINDS = ("drive", "storage_adapter", "hub", "device", "case", "cooler", "cable", "machine")
_COPY_ON = ("disk", "solid_state", "card", "somebody_elses")


def any_plan(seed: int) -> Plan:
    """A kit drawn from the catalogue, with flows, storing and keeping over the whole of what a plan
    may ask: from bytes to petabytes, from milliseconds to years.
    """
    draw = Random(seed)
    parts: dict[str, list[str]] = {}
    for part in shipped().parts():
        parts.setdefault(part.kind, []).append(part.id)
    chosen = [
        draw.choice(parts[kind])
        for kind in ("board", "power_supply", "card")
        if draw.random() < 0.9
    ]
    for kind in _KINDS:
        some = draw.sample(parts[kind], min(len(parts[kind]), draw.choice((0, 0, 1, 2))))
        chosen += [f"{draw.choice((1, 2, 4))}x{part}" if kind == "drive" else part for part in some]
    return kit(
        *chosen,
        transfers=[
            _transfer(draw, f"flow-{number}") for number in range(draw.choice((0, 1, 3, 20)))
        ],
        storage_use={
            "layout": draw.choice(get_args(Layout)),
            "file_system": draw.choice(get_args(FileSystem)),
            "encrypted": draw.random() < 0.3,
            "when_full": draw.choice(("deletes_oldest", "stops")),
            "growth_gb_month": draw.choice((None, 0.0, _between(draw, 1e-3, 1e6))),
        },
        retention={
            "years": _between(draw, 0.01, 50),
            "writes": draw.choice(get_args(Writes)),
            "system_gb_day": draw.choice((None, 0.0, _between(draw, 1e-6, 1e5))),
            "replaceable": draw.random() < 0.5,
            "backups": [
                {
                    "id": f"copy-{number}",
                    "text": f"copy {number}",
                    "place": draw.choice(("here", "same_house", "elsewhere")),
                    "medium": draw.choice(_COPY_ON),
                    "every_days": _between(draw, 0.01, 3650),
                }
                for number in range(draw.choice((0, 1, 3)))
            ],
        },
        settings={"push_slot": draw.random() < 0.3, "logs_in_memory": draw.random() < 0.3},
        place={"network": draw.choice(("both", "ethernet", "wifi", "none"))},
    )


def _transfer(draw: Random, name: str) -> dict[str, Any]:
    source, target = draw.sample(get_args(End), 2)
    transfer: dict[str, Any] = {
        "id": name,
        "text": name,
        "source": source,
        "target": target,
        "at_once": draw.choice((1, 1, 2, 1000)),
        "stays": draw.random() < 0.5,
        "during": draw.choice(("", "night")),
        "hours_a_day": draw.choice((None, 0.1, 24.0)),
        "runs_a_day": draw.choice((0, 0.1, 1000)),
        "protocol": draw.choice(("older", "newer", "transfer")),
    }
    if draw.random() < 0.5:
        return transfer | {"stream_mb_s": _between(draw, 1e-4, 1e5)}
    return transfer | {
        "amount_gb": _between(draw, 1e-6, 1e6),
        "within_min": draw.choice((None, _between(draw, 1e-3, 1e6))),
        "least_mb_s": draw.choice((None, _between(draw, 1e-3, 1e5))),
        "file_mb": draw.choice((None, _between(draw, 1e-3, 1e6))),
    }


def _between(draw: Random, low: float, high: float) -> float:
    """A figure as somebody may type it, each power of ten as likely as the next."""
    return float(f"{low * (high / low) ** draw.random():.3g}")
