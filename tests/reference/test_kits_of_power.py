"""Operating points of whole kits against scipy.optimize, written from the formulas once more.

The reference knows which rail hangs on which and the figures of the parts, and nothing else of the
model: every voltage is an unknown, currents follow from them edge by edge, bursts in squares
(JCGM 100:2008, 5.1.2), converters as constant power, drives as their lane lets them.
"""

from __future__ import annotations

import random
from collections import defaultdict
from typing import Any

import numpy as np
import pytest
from scipy.optimize import root

from cobblewort.core.aspects.power.forest import Node
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from tests.kits import kit, shipped

LADDER = {"off": (0, 0), "idle": (1, 2), "light": (2, 3), "normal": (3, 4), "full": (4, 4)}
"""Mean and burst of an activity on the ladder nothing, idle, light, working, peak."""
LANES_MB_S = {"D06": 500.0, "D03": 500.0, "D07": 500.0}
"""Raw rate of a flat-cable slot of generation 2 with one lane: 5 GT/s, 8b/10b."""


def levels(node: Node, lanes: dict[str, float]) -> tuple[list[float], list[float], list[float]]:
    """Watts and amperes of a rail's own loads on the ladder, and at the start."""
    watts, amps, start = np.zeros(5), np.zeros(5), np.zeros(2)
    drive = node.item.part.drive
    for load in node.item.part.loads.values():
        if load.rail != node.name:
            continue
        idle, working, peak = load.idle.nominal, load.normal.nominal, load.peak.nominal
        ladder = np.array([0, idle, (idle + working) / 2, working, peak])
        begin = working if load.start is None else load.start.nominal
        if drive is not None and not drive.spins and drive.read_mb_s and drive.write_mb_s:
            rate = lanes.get(node.item.part.id, np.inf) / node.item.line.quantity
            own = max(drive.read_mb_s.nominal, drive.write_mb_s.nominal)
            share = max(0.35, min(1.0, rate / own))
            ladder[2:] = idle + (ladder[2:] - idle) * share
            if load.start is None:
                begin = idle + (working - idle) * share
        if load.unit == "w":
            watts, start[0] = watts + ladder, start[0] + begin
        else:
            amps, start[1] = amps + ladder, start[1] + begin
    return list(watts), list(amps), list(start)


def reference(nodes: list[Node], plan: Plan, state: str) -> np.ndarray | None:
    """Voltages of all rails in one state at nominal figures; None where there is no solution."""
    tables = [levels(node, LANES_MB_S) for node in nodes]

    def own(place: int, volts: float) -> tuple[float, float]:
        watts, amps, start = tables[place]
        if state == "start":
            return start[0] / volts + start[1], 0.0
        if state in ("idle", "all"):
            mean = burst = 1 if state == "idle" else 4
        else:
            phase = plan.schedule[int(state.split("-")[1]) - 1]
            line = nodes[place].item.line.id
            mean, burst = LADDER[phase.lines.get(line, phase.activity)]
            burst = mean if state.endswith("-mean") else burst
        at = watts[mean] / volts + amps[mean]
        return at, watts[burst] / volts + amps[burst] - at

    children = defaultdict(list)
    for place, node in enumerate(nodes):
        children[node.parent].append(place)

    def carried(place: int, volts: np.ndarray, ins: np.ndarray) -> tuple[float, dict[Any, float]]:
        """The mean into a rail, and bursts by what bursts together, as drawn from above."""
        node = nodes[place]
        mean, burst = own(place, volts[place])
        together = node.item.part.drive is not None and node.item.line.quantity > 1
        units: dict[Any, float] = defaultdict(float)
        units[node.item.line.id if together else place] += burst
        for child in children[place]:
            below, bursts = carried(child, volts, ins)
            mean += below
            for unit, amps in bursts.items():
                units[unit] += amps
        if node.converter == place:
            efficiency = 1.0 if node.rail.efficiency is None else node.rail.efficiency.nominal
            factor = volts[place] / (efficiency * ins[place])
            return mean * factor, {unit: amps * factor for unit, amps in units.items()}
        return mean, units

    def residual(unknown: np.ndarray) -> np.ndarray:
        volts, ins = np.split(unknown, 2)
        off = np.empty_like(unknown)
        for place, node in enumerate(nodes):
            source, rail = node.item.part.source, node.rail
            if node.parent < 0:
                assert source is not None
                off[place] = source.set_v.nominal - volts[place]
                off[len(nodes) + place] = volts[place] - ins[place]
                continue
            mean, units = carried(place, volts, ins)
            way, warm_c = node.way, plan.place.ambient_max_c
            ohm = 0.0 if way is None else float(way.resistance_ohm(warm_c)[0])
            amps = mean + np.sqrt(sum(a * a for a in units.values()))
            off[len(nodes) + place] = volts[node.parent] - ohm * amps - ins[place]
            is_head = node.converter == place and rail.out_v is not None
            set_v = rail.out_v.nominal if is_head and rail.out_v is not None else ins[place]
            off[place] = set_v - volts[place]
        return off

    first = np.array([float(node.item.part.source is not None) * 5.0 or 5.0 for node in nodes])
    found = root(residual, np.concatenate([first, first]), method="hybr", tol=1e-12)
    solved = np.abs(residual(found.x)).max() < 1e-9
    return np.split(found.x, 2)[0] if solved else None


def behind_a_converter() -> Catalogue:
    """The catalogue with a converter to 5 V behind a lead, and a lamp on a long lead behind it."""
    converter = {
        "id": "X90",
        "kind": "device",
        "maker": "m",
        "model": "Converter",
        "rails": {
            "in": {"label": "In"},
            "out": {"label": "Out", "feeds_from": "in", "out_v": [5.0], "efficiency": [0.9]},
        },
        "plugs": {
            "in": {"connectors": ["usb-a"], "role": "device", "rail": "in", "cable_ohm": [0.1]}
        },
        "sockets": {"out": {"connector": "lamp", "role": "host", "rail": "out"}},
        "loads": {"own": {"rail": "in", "unit": "w", "idle": 0.1, "normal": 0.1, "peak": 0.1}},
    }
    lamp = {
        "id": "X91",
        "kind": "device",
        "maker": "m",
        "model": "Lamp",
        "rails": {"in": {"label": "Lamp"}},
        "plugs": {
            "in": {"connectors": ["lamp"], "role": "device", "rail": "in", "cable_ohm": [0.75]}
        },
        "loads": {"own": {"rail": "in", "unit": "w", "idle": 1, "normal": 3.2, "peak": 4.3}},
    }
    return shipped().extended([converter, lamp])


PHASES = [
    {"name": "one", "hours": 8, "activity": "normal"},
    {"name": "two", "hours": 8, "activity": "light", "lines": {"X06": "normal"}},
    {"name": "three", "hours": 4, "activity": "idle"},
]


@pytest.mark.parametrize(
    "parts",
    [
        ("B10", "S03", "M02", "A06", "D03", "X06", "K06"),
        ("B10", "S05", "C03", "M02", "A02", "D06", "K05"),
        ("B06", "S01", "M02", "X06", "X07", "H03"),
        ("B10", "S03", "M02", "A02", "D07", "X07", "X08", "K07"),
        ("B10", "S03", "M02", "X90", "X91", "A03", "D06"),
        ("B06", "S05", "C03", "M02", "X90", "X91"),
        ("B04", "S06", "M02", "A12", "D11", "X07"),
    ],
)
def test_a_kit_against_a_general_root_finder(parts: tuple[str, ...]) -> None:
    """Every rail in every state within 0.1 %, behind converters and on weak leads too."""
    plan, catalogue = kit(*parts, schedule=PHASES), behind_a_converter()
    power = power_of(Kit(plan, catalogue, 1))
    assert not power.collapsed.any()
    for number, state in enumerate(power.states):
        expected = reference(power.nodes, plan, state.id)
        assert expected is not None
        assert power.voltage_v[:, number, 0] == pytest.approx(expected, rel=1e-3), state.id


def drawn_parts(rng: random.Random) -> list[dict[str, Any]]:
    """Up to three converters, behind each other or beside, and lamps on leads of any length, some
    of them more than their lead carries.
    """
    parts: list[dict[str, Any]] = []
    outlets = ["usb-a"] * 4
    for number in range(rng.randint(0, 3)):
        out_v = rng.choice([3.3, 5.0, 5.2, 9.0, 12.0])
        parts.append(
            {
                "id": f"X{80 + number}",
                "kind": "device",
                "maker": "m",
                "model": f"Converter {number}",
                "rails": {
                    "in": {"label": "In"},
                    "out": {
                        "label": "Out",
                        "feeds_from": "in",
                        "out_v": [out_v],
                        "efficiency": [rng.uniform(0.7, 0.98)],
                    },
                },
                "plugs": {
                    "in": {
                        "connectors": [outlets.pop(rng.randrange(len(outlets)))],
                        "role": "device",
                        "rail": "in",
                        "cable_ohm": [rng.uniform(0.02, 0.4)],
                    }
                },
                "sockets": {
                    f"s{place}": {"connector": f"out-{number}", "role": "host", "rail": "out"}
                    for place in range(2)
                },
                "loads": {"own": {"rail": "in", "unit": "w", **rising(rng, 0.3)}},
            }
        )
        outlets += [f"out-{number}"] * 2
    for number in range(rng.randint(1, 4)):
        unit, most = rng.choice([("w", 4.0), ("a", 0.6)])
        parts.append(
            {
                "id": f"X{90 + number}",
                "kind": "device",
                "maker": "m",
                "model": f"Lamp {number}",
                "rails": {"in": {"label": "Lamp"}},
                "plugs": {
                    "in": {
                        "connectors": [outlets.pop(rng.randrange(len(outlets)))],
                        "role": "device",
                        "rail": "in",
                        "cable_ohm": [rng.uniform(0, 1.2)],
                    }
                },
                "loads": {"own": {"rail": "in", "unit": unit, **rising(rng, most)}},
            }
        )
    return parts


def rising(rng: random.Random, most: float) -> dict[str, list[float]]:
    """Idle, working and peak in rising order, as figures without a band."""
    figures = sorted(rng.uniform(0, most) for _ in range(3))
    return {n: [v] for n, v in zip(("idle", "normal", "peak"), figures, strict=True)}


@pytest.mark.parametrize("seed", range(20))
def test_a_random_kit_against_a_general_root_finder(seed: int) -> None:
    """Every rail in every state within 0.1 %; where nothing stands, the reference finds nothing."""
    rng = random.Random(seed)
    parts = drawn_parts(rng)
    board = rng.choice([("B10", "S03"), ("B10", "S05", "C03"), ("B06", "S01"), ("B04", "S06")])
    drive = rng.choice([(), (), ("A03", "D06"), ("A06", "D03")]) if board[0] == "B10" else ()
    phases = [{**phase, "activity": rng.choice(["light", "normal", "full"])} for phase in PHASES]
    phases[0]["lines"] = {part["id"]: rng.choice(list(LADDER)) for part in parts[:2]}
    phases[1]["lines"] = {}
    plan = kit(*board, "M02", *drive, *(part["id"] for part in parts), schedule=phases)
    power = power_of(Kit(plan, shipped().extended(parts), 1))
    assert {part["id"] for part in parts} <= {node.item.line.id for node in power.nodes}
    for number, state in enumerate(power.states):
        expected = reference(power.nodes, plan, state.id)
        if power.collapsed[number, 0]:
            assert expected is None, state.id
        else:
            assert expected is not None, state.id
            assert power.voltage_v[:, number, 0] == pytest.approx(expected, rel=1e-3), state.id


def test_volts_are_lost_behind_a_converter_too() -> None:
    """5.0 V behind a converter and 0.75 ohm of lead: closed form for 4.3 W, 4.243 V."""
    plan = kit("B10", "S03", "M02", "X90", "X91")
    power = power_of(Kit(plan, behind_a_converter(), 1))
    place = power.forest.index("X91#1.in")
    assert place is not None
    everything = [state.id for state in power.states].index("all")
    expected = (5 + np.sqrt(25 - 4 * 0.75 * 4.3)) / 2
    assert power.voltage_v[place, everything, 0] == pytest.approx(expected, abs=1e-5)
