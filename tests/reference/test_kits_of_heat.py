"""Temperatures of whole kits against scipy.optimize, written from the formulas once more.

The reference takes the figures of the parts and nothing of the model but films, vents and air,
which are checked against published values elsewhere. Every governor is settled inside the balance:
given air and wall it follows what each body gives off, held or not, and scipy finds air and walls.
"""

from __future__ import annotations

import random
from dataclasses import dataclass
from typing import Any

import numpy as np
import pytest
from scipy.optimize import brentq, root

from cobblewort.core.aspects.heat.enclosure import (
    Faces,
    face_conductances_w_k,
    film_conductances_w_k,
    stack_flow_m3_s,
    vent_area_m2,
)
from cobblewort.core.aspects.heat.model import HeatResult
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.figures.reading import Reading
from cobblewort.core.judging.kit import Kit
from cobblewort.core.parts.model import Load, Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.standards.air import density_kg_m3, pressure_pa
from tests.kits import kit, shipped

SIGMA = 5.670374419e-8
"""CODATA 2018. [W/(m² K⁴)]"""
LANE_MB_S = 500.0
"""A flat-cable slot of generation 2 with one lane."""
LOST = 1 / 0.9 - 1
"""Of each watt of a drive, in the converter of its socket."""


def at(load: Load, state: str, share: float = 1.0) -> float:
    """Watts of a load in a state, above rest by a share."""
    watts = {"idle": load.idle, "phase-1-mean": load.normal, "all": load.peak}[state].nominal
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


class Scene:
    """A kit in its place, in one state."""

    def __init__(self, parts: dict[str, Part], place: dict[str, Any], state: str) -> None:
        self.parts, self.place, self.state = list(parts.values()), place, state
        self.ambient = place["ambient_max_c"] + 273.15
        self.pressure = pressure_pa(place.get("altitude_m", 0))
        self.thin = self.pressure / 101325.0
        self.cooler = next((p.cooler for p in self.parts if p.cooler), None)
        self.carrier = next((p for p in self.parts if p.add_on), None)
        self.case_fan = next((p.fan for p in self.parts if p.fan), None)
        self.case = next(p.case for p in self.parts if p.case)
        self.own_fan = self.cooler is not None and self.cooler.r_fan_k_w is not None
        self.stirred = self.own_fan or self.case_fan is not None
        self._board()
        self._sink()
        # A card's heat comes with what the board's regulator for 3.3 V loses.
        self.direct = sum(
            self.at(p) / (0.9 if p.kind == "card" else 1.0)
            for p in self.parts
            if p.kind in ("card", "cooler") and p.loads
        )
        self.bodies: dict[str, Hot] = {}
        self.carrier_w = 0.0
        self._carried()
        self._modules()
        self._disks()

    def at(self, part: Part, share: float = 1.0) -> float:
        """Watts of a part's own load in this state."""
        return at(part.loads["own"], self.state, share)

    def _board(self) -> None:
        board = next(p for p in self.parts if p.kind == "board")
        heat, own = board.board_heat, board.loads["own"]
        assert heat is not None
        self.heat, self.own = heat, own
        self.watts = self.at(board)
        size = board.stack
        assert size is not None
        self.area_m2 = size.length_mm * size.width_mm * 1e-6
        r_ba = heat.r_ba_k_w.nominal * (1.25 if self.carrier is not None else 1.0)
        blown = self.case_fan is not None or (
            self.own_fan and self.cooler is not None and self.cooler.blows_over_board
        )
        self.board_path = split(1 / r_ba, self.thin, 1 / (0.7 * r_ba) if blown else None)
        self.link = 1 / heat.r_db_k_w.nominal

    def divided(self, watts: float) -> tuple[float, float]:
        """What the board draws, as its processor's and the rest."""
        idle, peak = self.own.idle.nominal, self.own.peak.nominal
        low, high = self.heat.soc_share_idle.nominal, self.heat.soc_share_peak.nominal
        soc = watts * (low + (high - low) * (watts - idle) / (peak - idle))
        return soc, watts - soc

    def _sink(self) -> None:
        self.joint, self.sink_path = 0.0, None
        cooler = self.cooler
        if cooler is None:
            if self.case.joint_k_w is not None:
                self.joint = 1 / self.case.joint_k_w.nominal
                across = 0.026 * self.area_m2 / 0.004
                path = self.board_path
                self.board_path = Split(path.air, path.wall + across)
            return
        side = self.heat.soc_side_mm.nominal
        pad = cooler.interface_mm.nominal * 1e3 / (cooler.interface_w_mk.nominal * side * side)
        self.joint = 1 / (self.heat.r_jc_k_w.nominal + pad)
        still = cooler.r_still_k_w.nominal
        forced = 1 / (0.65 * still) if self.case_fan is not None else None
        if cooler.r_fan_k_w is not None:
            forced = 1 / cooler.r_fan_k_w.nominal
        self.sink_path = split(1 / still, self.thin, forced)

    def _carried(self) -> None:
        """Chips of a stacked board; its regulators lose what their drives make them."""
        if self.carrier is None:
            return
        self.carrier_w = self.at(self.carrier)
        self.direct += self.carrier_w
        for name, hot in self.carrier.hot.items():
            still = 1 / value(hot.r_air_k_w)
            path = split(still, self.thin, still / 0.65 if self.stirred else None)
            share = hot.share.nominal if name == "switch" else 0.0
            self.bodies[name] = Hot(path, self.carrier_w * share, pull=0.3)
            self.direct -= self.carrier_w * share

    def _modules(self) -> None:
        modules = [p for p in self.parts if p.drive is not None and not p.drive.spins]
        count = len(modules)
        for number, p in enumerate(modules):
            drive = p.drive
            assert drive is not None
            fastest = max(value(drive.read_mb_s), value(drive.write_mb_s))
            f = max(0.35, min(1.0, LANE_MB_S / count / fastest))
            area = drive.length_mm * 1e-3 * 0.022
            films = split(1.0, self.thin, 1 / 0.65 if self.stirred else None)
            through = 0.026 * area / 0.002 + 5 * area + 0.057
            of_carrier = 2 * 9 * 0.065 * 0.056 / count * films.total
            s = through / (through + of_carrier)
            total = 10 * area * films.total + s * of_carrier
            path = Split(total * films.air / films.total, total * films.wall / films.total)
            limit_k = p.hot["body"].limit_c.nominal + 273.15
            rest = p.loads["own"].idle.nominal
            self.bodies[f"module-{number}"] = Hot(
                path, self.at(p, f), rest, limit_k, 0.3, s / count
            )

    def _disks(self) -> None:
        """A cooler's fan does not reach a bay; one in the case does."""
        for p in self.parts:
            if p.drive is not None and p.drive.spins:
                still = 1 / value(p.hot["body"].r_air_k_w)
                forced = still / 0.65 if self.case_fan is not None else None
                self.bodies["disk"] = Hot(split(still, self.thin, forced), self.at(p))

    def board_at(self, watts: float, air: float, wall: float) -> tuple[float, float, float]:
        """Die, board and sink where the board draws so much, as three balances."""
        soc_w, rest_w = self.divided(watts)
        rows, gives = np.zeros((3, 3)), np.zeros(3)
        rows[0, 0], rows[0, 1] = self.link + self.joint, -self.link
        rows[1, 0], rows[1, 1] = -self.link, self.link + self.board_path.total
        gives[0] = soc_w
        gives[1] = rest_w + self.board_path.air * air + self.board_path.wall * wall
        if self.sink_path is not None:
            rows[0, 2], rows[2, 0] = -self.joint, -self.joint
            rows[2, 2] = self.joint + self.sink_path.total
            gives[2] = self.sink_path.air * air + self.sink_path.wall * wall
        else:
            gives[0] += self.joint * wall
            rows[2, 2], gives[2] = 1.0, wall
        die, board, sink = np.linalg.solve(rows, gives)
        return float(die), float(board), float(sink)

    def settled(self, air: float, wall: float) -> dict[str, float]:
        """What everything comes to between such air and such a wall, all governors settled."""
        limit, watts, idle = (
            self.heat.throttle_c.nominal + 273.15,
            self.watts,
            self.own.idle.nominal,
        )

        def over(watts: float) -> float:
            return self.board_at(watts, air, wall)[0] - limit

        if over(watts) > 0:
            watts = idle if over(idle) > 0 else brentq(over, idle, watts, xtol=1e-12)
        found = dict(zip(("die", "board", "sink"), self.board_at(watts, air, wall), strict=True))
        found["soc"], found["rest"] = self.divided(watts)
        drives = {name: b for name, b in self.bodies.items() if b.limit_k is not None}
        watts_of = {name: b.watts for name, b in self.bodies.items()}

        def near(b: Hot) -> float:
            return air + b.pull * (found["board"] - air)

        for _ in range(60):
            lost = LOST * sum(watts_of[name] for name in drives)
            for name, b in drives.items():
                allowed = b.path.air * ((b.limit_k or 0.0) - near(b))
                allowed += b.path.wall * ((b.limit_k or 0.0) - wall)
                allowed -= b.carried * (self.carrier_w + lost)
                watts_of[name] = min(b.watts, max(min(b.rest, b.watts), allowed))
        found["lost"] = LOST * sum(watts_of[name] for name in drives)
        if "regulator" in self.bodies:  # that of the first socket; a second has its own
            watts_of["regulator"] = LOST * watts_of.get("module-0", 0.0)
        for name, b in self.bodies.items():
            warmth = b.carried * (self.carrier_w + found["lost"])
            around = b.path.air * near(b) + b.path.wall * wall
            found[name] = (watts_of[name] + warmth + around) / b.path.total
            found[f"{name}-w"] = watts_of[name]
            found[f"{name}-wall"] = b.path.wall * (found[name] - warmth / b.path.total - wall)
        return found

    def given_off(self, found: dict[str, float], wall: float) -> tuple[float, float]:
        """Heat to inside air and to the wall. [W]"""
        to_wall = self.board_path.wall * (found["board"] - wall)
        if self.sink_path is not None:
            to_wall += self.sink_path.wall * (found["sink"] - wall)
        elif self.joint:
            to_wall += self.joint * (found["die"] - wall)
        made = found["soc"] + found["rest"]
        for name in self.bodies:
            to_wall += found[f"{name}-wall"]
            made += found[f"{name}-w"]
        regulated = found.get("regulator-w", 0.0)
        return made + self.direct + found["lost"] - regulated - to_wall, to_wall

    def exchanged_m3_s(self, opening_m2: float) -> float:
        """What fans move through the vents."""
        case, cooler, flow = self.case, self.cooler, 0.0
        if opening_m2 > 0 and cooler is not None and cooler.free_flow_m3_h is not None:
            flow += case.fan_exchange_share.nominal * cooler.free_flow_m3_h.nominal / 3600
        if opening_m2 > 0 and self.case_fan is not None:
            flow += 0.45 * self.case_fan.flow_m3_h.nominal / 3600
        return flow

    def solve(self) -> dict[str, float]:
        """Temperatures in °C of all nodes, and watts by `-w`."""
        case, t = self.case, self.case.wall_mm * 1e-3
        mounting = self.place.get("mounting", "feet")
        bottom = {"table": 0.0, "feet": 0.5, "hung": 1.0}[mounting]
        length, width, height = (
            mm * 1e-3 for mm in (case.inner_length_mm, case.inner_width_mm, case.inner_height_mm)
        )
        inner = Faces(length, width, height, bottom)
        outer = inner.grown_by(t)
        area = length * width * (1 + bottom) + 2 * (length + width) * height
        edges = 4 * height + 2 * (length + width) * (1 + bottom)
        corners = 4 * (1 + bottom)
        conducts = case.wall_w_mk.nominal * (area / t + 0.54 * edges + 0.15 * t * corners)
        fins = 1.0 if case.fins is None else case.fins.nominal
        opening = vent_area_m2(case.vent_low_cm2 * 1e-4, case.vent_high_cm2 * 1e-4)
        flow = self.exchanged_m3_s(opening)

        def balance(unknown: np.ndarray) -> list[float]:
            air, wall, out = (float(v) for v in unknown)
            to_air, to_wall = self.given_off(self.settled(air, wall), wall)
            if self.stirred:
                inside = 14.0 * self.thin**0.7 * area
            else:
                inside = sum(film_conductances_w_k(inner, self.pressure, wall, air))
            draught = stack_flow_m3_s(opening, 0.8 * height, air - self.ambient, self.ambient)
            carried = (draught + flow) * density_kg_m3(self.ambient, self.pressure) * 1006.0
            top, below, upright = face_conductances_w_k(outer, self.pressure, out, self.ambient)
            films = (top + upright) * fins + below
            radiates = case.emissivity.nominal * SIGMA * outer.area_m2
            radiates *= out**4 - self.ambient**4
            through = conducts * (wall - out)
            return [
                to_air - inside * (air - wall) - carried * (air - self.ambient),
                inside * (air - wall) + to_wall - through,
                through - films * (out - self.ambient) - radiates,
            ]

        first = self.ambient + np.array([30.0, 15.0, 14.0])
        answer = root(balance, first, method="hybr", tol=1e-10)
        assert np.abs(balance(answer.x)).max() < 1e-5, answer.message
        air, wall, out = (float(v) for v in answer.x)
        found = self.settled(air, wall) | {"inside": air, "wall": out}
        return {name: kelvin - 273.15 for name, kelvin in found.items()}


KITS: list[tuple[tuple[str, ...], dict[str, Any]]] = [
    (("B10", "M02", "A04", "D03", "K05", "E03"), {"ambient_max_c": 28}),
    (("B10", "M02", "A04", "D03", "K03", "E03"), {"ambient_max_c": 33, "mounting": "hung"}),
    (("B10", "M02", "A06", "D06", "D03", "K05", "E03"), {"ambient_max_c": 31}),
    (("B10", "M02", "A06", "D01", "D03", "K03", "E04"), {"ambient_max_c": 16, "altitude_m": 2600}),
    (("B10", "M02", "A04", "D03", "E08"), {"ambient_max_c": 25}),
    (("B10", "M02", "E07"), {"ambient_max_c": 38, "mounting": "table"}),
    (("B06", "M02", "K03", "E15"), {"ambient_max_c": 40, "altitude_m": 1200}),
    (("B10", "M02", "K04", "E12"), {"ambient_max_c": 44, "mounting": "hung"}),
    (("B10", "M02", "K05", "E11", "D11"), {"ambient_max_c": 30, "altitude_m": 900}),
    (("B10", "M02", "A04", "D01", "K03", "E03", "K10"), {"ambient_max_c": 32}),
]


@pytest.mark.parametrize(("parts", "place"), KITS, ids=lambda value: str(value)[:40])
def test_a_kit_against_a_general_root_finder(parts: tuple[str, ...], place: dict[str, Any]) -> None:
    """Every node in every state within 0.05 K, held at its limit or not."""
    heat = agrees(parts, place, shipped())
    slowed = sum(float(share[0]) < 1 for share in heat.speed_share)
    assert heat.work is not None
    assert slowed > 0 or float(heat.work.wanted.die_k[-1, 0]) <= 353.15 + 1e-6


def agrees(parts: tuple[str, ...], place: dict[str, Any], catalogue: Catalogue) -> HeatResult:
    """What the model says of a kit, once every node of it agrees with the reference."""
    extra = ["S03", *(["A12"] if "D11" in parts else [])]
    heat = heat_of(Kit(kit(*parts, *extra, place=place), catalogue, 1))
    known = {part: catalogue.part(part) for part in parts}
    for number, state in enumerate(heat.states):
        expected = Scene(known, place, state.id).solve()
        for node, temp_c in told(heat, number).items():
            assert temp_c == pytest.approx(expected[node], abs=0.05), (state.id, node)
    return heat


def a_shell(rng: random.Random, part_class: str) -> dict[str, Any]:
    """A case of any size, of plastic, wood or metal, with vents or none, with walls up to 12 mm."""
    vents = rng.uniform(1, 12) if part_class == "vented_plastic" else 0.0
    return {
        "id": "E90",
        "kind": "case",
        "part_class": part_class,
        "maker": "m",
        "model": "Shell",
        "case": {
            "inner_length_mm": rng.uniform(90, 220),
            "inner_width_mm": rng.uniform(60, 160),
            "inner_height_mm": rng.uniform(30, 110),
            "max_above_mm": 25,
            "max_below_mm": 4,
            "any_holes": True,
            "wall_mm": rng.uniform(1.5, 12),
            "emissivity": rng.uniform(0.1, 0.95),
            "wall_w_mk": rng.choice([0.12, 0.19, 0.25, 50, 150]),
            "vent_low_cm2": vents,
            "vent_high_cm2": vents * rng.uniform(0.5, 2),
        },
    }


def a_module(rng: random.Random) -> dict[str, Any]:
    """A drive of 80 mm that draws, and moves, what it will."""
    idle, working, peak = sorted(rng.uniform(0.2, 8) for _ in range(3))
    return {
        "id": "D90",
        "kind": "drive",
        "part_class": "nvme_2280",
        "maker": "m",
        "model": "Module",
        "drive": {
            "read_mb_s": rng.uniform(300, 3500),
            "write_mb_s": rng.uniform(200, 3000),
        },
        "loads": {"own": {"idle": idle, "normal": working, "peak": peak}},
    }


@pytest.mark.parametrize("seed", range(20))
def test_a_random_kit_against_a_general_root_finder(seed: int) -> None:
    """Any shell, module, cooler and place: every node within 0.05 K, held or past holding."""
    rng = random.Random(seed)
    sinks = rng.random() < 0.2
    shell = a_shell(
        rng, "metal_shell" if sinks else rng.choice(["vented_plastic", "sealed_plastic"])
    )
    cooler = [] if sinks else rng.choice([[], ["K03"], ["K04"], ["K05"]])
    drives = rng.choice([[], ["A04", "D90"], ["A06", "D90", "D03"]])
    fan = ["K10"] if not sinks and rng.random() < 0.3 else []
    board = "B10" if drives else rng.choice(["B10", "B06"])
    place = {
        "ambient_min_c": -10,
        "ambient_max_c": rng.uniform(-5, 48),
        "altitude_m": rng.choice([0, rng.uniform(0, 3500)]),
        "mounting": rng.choice(["table", "feet", "hung"]),
    }
    agrees(
        (board, "M02", *drives, *cooler, "E90", *fan),
        place,
        shipped().extended([shell, a_module(rng)]),
    )


def told(heat: HeatResult, state: int) -> dict[str, float]:
    """What the model says, by the names of the reference."""
    found = {name: float(temp_c[state, 0]) for name, temp_c in heat.nodes.items()}
    number = 0
    for hot in heat.hot_bodies:
        name = hot.warm.name
        if hot.item.part.drive is not None:
            spins = hot.item.part.drive.spins
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
