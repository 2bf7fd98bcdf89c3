"""Temperatures of whole kits against scipy.optimize, written from the formulas once more.

The reference takes the figures of the parts and nothing of the model but films, vents and air,
which are checked against published values elsewhere. Every governor is settled inside the balance:
given air and wall it follows what each body gives off, held or not, and scipy finds air and walls.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import numpy as np
import pytest
from scipy.optimize import root

from cobblewort.core.aspects.heat.enclosure import (
    Faces,
    film_conductances_w_k,
    stack_flow_m3_s,
    vent_area_m2,
)
from cobblewort.core.aspects.heat.model import HeatResult
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.figures.reading import Reading
from cobblewort.core.judging.kit import Kit
from cobblewort.core.parts.model import Load, Part
from cobblewort.core.standards.air import density_kg_m3, pressure_pa
from tests.kits import kit, shipped

SIGMA = 5.670374419e-8
"""CODATA 2018. [W/(m² K⁴)]"""
LANE_MB_S = 500.0
"""A flat-cable slot of generation 2 with one lane."""


def at(load: Load, state: str, share: float = 1.0) -> float:
    """Watts of a load in a state, above rest by a share."""
    watts = {"idle": load.idle, "phase-1-mean": load.working, "all": load.peak}[state].nominal
    return load.idle.nominal + (watts - load.idle.nominal) * share


def value(reading: Reading | None) -> float:
    """The nominal value of a figure that must be stated."""
    assert reading is not None
    return reading.nominal


@dataclass
class Split:
    """Conductances of a path to air and to the wall. [W/K]"""

    air: float
    wall: float

    @property
    def total(self) -> float:
        """Both together."""
        return self.air + self.wall


def split(still_w_k: float, thin: float, total_w_k: float | None = None) -> Split:
    """40 % of the natural part radiates; thin air carries p^0.5 still, p^0.7 under a fan."""
    if total_w_k is None:
        return Split(0.6 * still_w_k * thin**0.5, 0.4 * still_w_k)
    return Split((total_w_k - 0.4 * still_w_k) * thin**0.7, 0.4 * still_w_k)


@dataclass
class Hot:
    """A body of the reference."""

    path: Split
    watts: float
    rest: float = 0.0
    limit_k: float | None = None
    pull: float = 0.0
    carried: float = 0.0


@dataclass
class Scene:
    """A kit to be solved."""

    parts: dict[str, Part]
    place: dict[str, Any]
    held: dict[str, float] = field(default_factory=dict)


def solve(scene: Scene, state: str) -> dict[str, float]:  # noqa: PLR0912, PLR0915
    """Temperatures in °C, and what processor and drives keep of their watts."""
    parts, place = scene.parts, scene.place
    ambient = place["ambient_max_c"] + 273.15
    pressure = pressure_pa(place.get("altitude_m", 0))
    thin = pressure / 101325.0
    board = next(p for p in parts.values() if p.kind == "board")
    cooler = next((p.cooler for p in parts.values() if p.cooler), None)
    case = next(p.case for p in parts.values() if p.case)
    carrier = next((p for p in parts.values() if p.add_on), None)
    case_fan = next((p for p in parts.values() if p.fan), None)
    modules = [p for p in parts.values() if p.drive and p.drive.size[0] == "2" and "." not in
               p.drive.size]  # fmt: skip
    disks = [p for p in parts.values() if p.drive and p.drive.spins]
    own_fan = cooler is not None and cooler.r_fan_k_w is not None
    stirred = own_fan or case_fan is not None

    heat = board.board_heat
    assert heat is not None
    own = board.loads["own"]
    watts = at(own, state)
    part = (watts - own.idle.nominal) / (own.peak.nominal - own.idle.nominal)
    low, high = heat.soc_share_idle.nominal, heat.soc_share_peak.nominal
    soc = watts * (low + (high - low) * part)
    rest, soc_idle = watts - soc, own.idle.nominal * low

    r_ba = heat.r_ba_k_w.nominal * (1.25 if carrier is not None else 1.0)
    blown = case_fan is not None or (own_fan and cooler is not None and cooler.blows_over_board)
    board_path = split(1 / r_ba, thin, 1 / (0.7 * r_ba) if blown else None)
    link = 1 / heat.r_db_k_w.nominal
    joint, sink_path = 0.0, None
    if cooler is not None:
        side = heat.soc_side_mm.nominal
        pad = cooler.interface_mm.nominal * 1e3 / (cooler.interface_w_mk.nominal * side * side)
        joint = 1 / (heat.r_jc_k_w.nominal + pad)
        still = cooler.r_still_k_w.nominal
        forced = None
        if cooler.r_fan_k_w is not None:
            forced = 1 / cooler.r_fan_k_w.nominal
        elif case_fan is not None:
            forced = 1 / (0.65 * still)
        sink_path = split(1 / still, thin, forced)
    elif case.joint_k_w is not None:
        joint = 1 / case.joint_k_w.nominal

    bodies: dict[str, Hot] = {}
    direct = 0.0
    for p in parts.values():
        if p.kind == "card":
            direct += at(p.loads["own"], state) / 0.9  # by the board's regulator for 3.3 V
        elif p.kind == "cooler" and "own" in p.loads:
            direct += at(p.loads["own"], state)
    carrier_w, lost = 0.0, 1 / 0.9 - 1
    if carrier is not None:
        carrier_w = at(carrier.loads["own"], state)
        direct += carrier_w
        for name, hot in carrier.hot.items():
            still = 1 / value(hot.r_air_k_w)
            path = split(still, thin, still / 0.65 if stirred else None)
            if name == "switch":
                share = hot.share.nominal
                bodies[name] = Hot(path, carrier_w * share, pull=0.3)
                direct -= carrier_w * share
            else:
                bodies[name] = Hot(path, 0.0, pull=0.3)
    for number, p in enumerate(modules):
        assert p.drive is not None
        read, write = p.drive.read_mb_s, p.drive.write_mb_s
        fastest = max(value(read), value(write))
        f = max(0.35, min(1.0, LANE_MB_S / len(modules) / fastest))
        length = p.drive.length_mm * 1e-3
        area = length * 0.022
        films = split(1.0, thin, 1 / 0.65 if stirred else None)
        carrier_m2 = 0.065 * 0.056
        through = 0.026 * area / 0.002 + 5 * area + 0.057
        of_carrier = 2 * 9 * carrier_m2 / len(modules) * films.total
        s = through / (through + of_carrier)
        total = 10 * area * films.total + s * of_carrier
        path = Split(total * films.air / films.total, total * films.wall / films.total)
        limit = p.hot["body"].limit_c.nominal + 273.15
        asked = at(p.loads["own"], state, f)
        bodies[f"module-{number}"] = Hot(
            path, asked, p.loads["own"].idle.nominal, limit, 0.3, s / len(modules)
        )
    for p in disks:
        still = 1 / value(p.hot["body"].r_air_k_w)
        # A cooler's fan does not reach a bay; one in the case does.
        path = split(still, thin, still / 0.65 if case_fan is not None else None)
        bodies["disk"] = Hot(path, at(p.loads["own"], state))

    def settled(air: float, wall: float) -> dict[str, float]:
        """What everything comes to between such air and such a wall."""
        found: dict[str, float] = {}

        def board_at(soc_w: float) -> tuple[float, float, float]:
            rows = np.zeros((3, 3))  # die, board, sink
            gives = np.zeros(3)
            rows[0, 0] = link + joint
            rows[0, 1] = -link
            rows[1, 0], rows[1, 1] = -link, link + board_path.total
            gives[0] = soc_w
            gives[1] = rest + board_path.air * air + board_path.wall * wall
            if sink_path is not None:
                rows[0, 2], rows[2, 0] = -joint, -joint
                rows[2, 2] = joint + sink_path.total
                gives[2] = sink_path.air * air + sink_path.wall * wall
            else:
                gives[0] += joint * wall
                rows[2, 2] = 1.0
                gives[2] = wall
            die, plate, sink = np.linalg.solve(rows, gives)
            return float(die), float(plate), float(sink)

        limit = heat.throttle_c.nominal + 273.15
        soc_w = soc
        if board_at(soc)[0] > limit:
            one, none = board_at(1.0)[0], board_at(0.0)[0]
            soc_w = max(soc_idle, (limit - none) / (one - none))
        found["die"], found["board"], found["sink"] = board_at(soc_w)
        found["soc"] = soc_w
        drives = {name: b for name, b in bodies.items() if name.startswith("module")}
        watts_of = {name: b.watts for name, b in bodies.items()}
        for _ in range(60):
            passed = sum(watts_of[name] for name in drives)
            losses = lost * passed
            for name, b in drives.items():
                assert b.limit_k is not None
                near = air + b.pull * (found["board"] - air)
                # Each socket of a twin has a regulator of its own; a carrier gives off all of it.
                warmth = b.carried * (carrier_w + losses)
                allowed = b.path.air * (b.limit_k - near) + b.path.wall * (b.limit_k - wall)
                watts_of[name] = min(b.watts, max(min(b.rest, b.watts), allowed - warmth))
        found["lost"] = lost * sum(watts_of[name] for name in drives)
        on_first = [name for name in drives if name == "module-0"]
        if "regulator" in bodies:
            watts_of["regulator"] = lost * sum(watts_of[name] for name in on_first)
        for name, b in bodies.items():
            near = air + b.pull * (found["board"] - air)
            warmth = b.carried * (carrier_w + found["lost"])
            found[name] = (
                watts_of[name] + warmth + b.path.air * near + b.path.wall * wall
            ) / b.path.total
            found[f"{name}-w"] = watts_of[name]
            found[f"{name}-wall"] = b.path.wall * (found[name] - warmth / b.path.total - wall)
        return found

    inner = Faces(
        case.inner_length_mm * 1e-3, case.inner_width_mm * 1e-3, case.inner_height_mm * 1e-3,
        {"table": 0.0, "feet": 0.5, "hung": 1.0}[place.get("standing", "feet")],
    )  # fmt: skip
    t = case.wall_mm * 1e-3
    outer = inner.grown_by(t)
    bottom = inner.bottom_share
    length, width, height = inner.length_m, inner.width_m, inner.height_m
    area = length * width * (1 + bottom) + 2 * (length + width) * height
    edges = 4 * height + 2 * (length + width) * (1 + bottom)
    conducts = case.wall_w_mk.nominal * (area / t + 0.54 * edges + 0.15 * t * 4 * (1 + bottom))
    fins = 1.0 if case.fins is None else case.fins.nominal
    opening = vent_area_m2(case.vent_low_cm2 * 1e-4, case.vent_high_cm2 * 1e-4)
    flow = 0.0
    if opening > 0 and own_fan and cooler is not None and cooler.free_flow_m3_h is not None:
        flow += case.fan_exchange_share.nominal * cooler.free_flow_m3_h.nominal / 3600
    if opening > 0 and case_fan is not None and case_fan.fan is not None:
        flow += 0.45 * case_fan.fan.flow_m3_h.nominal / 3600

    def balance(unknown: np.ndarray) -> list[float]:
        air, wall, out = (float(v) for v in unknown)
        found = settled(air, wall)
        to_wall = board_path.wall * (found["board"] - wall)
        made = found["soc"] + rest
        if sink_path is not None:
            to_wall += sink_path.wall * (found["sink"] - wall)
        elif joint:
            to_wall += joint * (found["die"] - wall)
        for name in bodies:
            to_wall += found[f"{name}-wall"]
            made += found[f"{name}-w"]
        regulated = found["regulator-w"] if "regulator" in bodies else 0.0
        to_air = made + direct + found["lost"] - regulated - to_wall
        if stirred:
            inside = 14.0 * thin**0.7 * area
        else:
            inside = sum(film_conductances_w_k(inner, pressure, wall, air))
        rise = 0.8 * case.inner_height_mm * 1e-3
        draught = stack_flow_m3_s(opening, rise, air - ambient, ambient)
        vents = (draught + flow) * density_kg_m3(ambient, pressure) * 1006.0
        films = sum(film_conductances_w_k(outer, pressure, out, ambient)) * fins
        radiates = case.emissivity.nominal * SIGMA * outer.area_m2 * (out**4 - ambient**4)
        through = conducts * (wall - out)
        return [
            to_air - inside * (air - wall) - vents * (air - ambient),
            inside * (air - wall) + to_wall - through,
            through - films * (out - ambient) - radiates,
        ]

    first = ambient + np.array([30.0, 15.0, 14.0])
    answer = root(balance, first, method="hybr", tol=1e-10)
    assert np.abs(balance(answer.x)).max() < 1e-6, answer.message
    air, wall, out = answer.x
    found = settled(float(air), float(wall))
    found |= {"inside": air, "wall": out}
    return {n: v - 273.15 if not n.endswith(("-w", "-wall", "soc", "lost")) else v
            for n, v in found.items()}  # fmt: skip


KITS: list[tuple[tuple[str, ...], dict[str, Any]]] = [
    (("B10", "M02", "A04", "D03", "K05", "E03"), {"ambient_max_c": 28}),
    (("B10", "M02", "A04", "D03", "K03", "E03"), {"ambient_max_c": 33, "standing": "hung"}),
    (("B10", "M02", "A06", "D06", "D03", "K05", "E03"), {"ambient_max_c": 31}),
    (("B10", "M02", "A06", "D01", "D03", "K03", "E04"), {"ambient_max_c": 16, "altitude_m": 2600}),
    (("B10", "M02", "A04", "D03", "E08"), {"ambient_max_c": 25}),
    (("B10", "M02", "E07"), {"ambient_max_c": 38, "standing": "table"}),
    (("B06", "M02", "K03", "E15"), {"ambient_max_c": 40, "altitude_m": 1200}),
    (("B10", "M02", "K04", "E12"), {"ambient_max_c": 44, "standing": "hung"}),
    (("B10", "M02", "K05", "E11", "D11"), {"ambient_max_c": 30, "altitude_m": 900}),
    (("B10", "M02", "A04", "D01", "K03", "E03", "K10"), {"ambient_max_c": 32}),
]


@pytest.mark.parametrize(("parts", "place"), KITS, ids=lambda value: str(value)[:40])
def test_a_kit_against_a_general_root_finder(parts: tuple[str, ...], place: dict[str, Any]) -> None:
    """Every node in every state within 0.05 K, held at its limit or not."""
    extra = ["S03", *(["A12"] if "D11" in parts else [])]
    heat = heat_of(Kit(kit(*parts, *extra, place=place), shipped(), 1))
    scene = Scene({part: shipped().part(part) for part in parts}, place)
    slowed = 0
    for number, state in enumerate(heat.states):
        expected = solve(scene, state.id)
        for node, temp_c in told(heat, number).items():
            assert temp_c == pytest.approx(expected[node], abs=0.05), (state.id, node)
        slowed += float(heat.speed_share[number, 0]) < 1
    assert heat.work is not None
    assert slowed > 0 or float(heat.work.wanted.die_k[-1, 0]) <= 353.15 + 1e-6


def told(heat: HeatResult, state: int) -> dict[str, float]:
    """What the model says, by the names of the reference."""
    found = {name: float(temp_c[state, 0]) for name, temp_c in heat.nodes.items()}
    number = 0
    for hot in heat.hot_bodies:
        name = hot.warm.name
        if hot.piece.part.drive is not None:
            spins = hot.piece.part.drive.spins
            name = "disk" if spins else f"module-{number}"
            number += not spins
        found[name] = float(hot.held_c[state, 0])
    return found


def test_a_module_on_its_carrier() -> None:
    """About 18 K/W for 80 mm in still air and 13.5 under a fan; 25 and 23 for 30 and 42 mm."""
    for length, still, fan in ((0.080, 18.1, 13.5), (0.042, 22.8, None), (0.030, 24.9, None)):
        face, through = 10 * length * 0.022, (0.013 * 1e3 + 5) * length * 0.022 + 0.057
        carrier = 18 * 0.065 * 0.056
        for films, expected in ((1.0, still), (1 / 0.65, fan)):
            total = films * face + 1 / (1 / through + 1 / (films * carrier))
            if expected is not None:
                assert 1 / total == pytest.approx(expected, abs=0.1)


def test_a_thick_wall_against_finite_differences() -> None:
    """K (A/t + 0.54 edges + 0.15 t corners), a box of 60 x 48 x 40 mm with 12 mm of wall.

    The reference divides an eighth of the box into cubes of 2 mm and solves Laplace's equation with
    scipy.sparse, inner face at 1, outer face at 0.
    """
    from scipy.sparse import lil_matrix
    from scipy.sparse.linalg import spsolve

    step, t = 2e-3, 12e-3
    half = np.array([30e-3, 24e-3, 20e-3])
    inner, full = np.round(half / step).astype(int), np.round((half + t) / step).astype(int)
    solid = np.ones(full, dtype=bool)
    solid[: inner[0], : inner[1], : inner[2]] = False
    number = -np.ones(full, dtype=int)
    number[solid] = np.arange(solid.sum())
    system, given = lil_matrix((int(solid.sum()), int(solid.sum()))), np.zeros(int(solid.sum()))
    for cell in np.argwhere(solid):
        row = number[tuple(cell)]
        for axis in range(3):
            for side in (-1, 1):
                other = cell.copy()
                other[axis] += side
                if other[axis] < 0:
                    continue  # a plane of symmetry
                outside = other[axis] >= full[axis]
                if outside or not solid[tuple(other)]:
                    system[row, row] += 2.0  # half a cube to a face
                    given[row] += 0.0 if outside else 2.0
                else:
                    system[row, row] += 1.0
                    system[row, number[tuple(other)]] -= 1.0
    temps = spsolve(system.tocsr(), given)
    flow = 0.0
    for cell in np.argwhere(solid):
        for axis in range(3):
            if cell[axis] == full[axis] - 1:
                flow += 2.0 * temps[number[tuple(cell)]] * step
    length, width, height = 2 * half
    area = 2 * (length * width + length * height + width * height)
    shape = area / t + 0.54 * 4 * (length + width + height) + 0.15 * t * 8
    assert 8 * flow == pytest.approx(shape, rel=0.01)
