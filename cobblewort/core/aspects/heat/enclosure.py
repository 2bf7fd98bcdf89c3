"""A case as a heat path: inside air, wall, outside, and what the vents carry off."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from cobblewort.core.aspects.heat.films import (
    nusselt_down_mcadams,
    nusselt_up_mcadams,
    nusselt_vertical_churchill_chu,
    radiation_w_m2k,
    rayleigh_per_m3,
)
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import (
    absolute,
    at_least,
    largest,
    nominal,
    sqrt,
)
from cobblewort.core.standards.air import (
    CP_J_KGK,
    GRAVITY_M_S2,
    SEA_LEVEL_PA,
    air_at,
    density_kg_m3,
)

STIRRED_FILM_W_M2K = 14.0
"""Inside film where a fan stirs the air: common practice for small cases."""
NATURAL_EXPONENT, FORCED_EXPONENT = 0.5, 0.7
"""How tabulated convection follows the pressure of the air, still and under a fan: common
practice."""
VENT_DISCHARGE = 0.60
"""Discharge coefficient of a sharp opening. BS 5925 and ASHRAE Fundamentals (from memory)."""
BOTTOM_SHARE = {"table": 0.0, "feet": 0.5, "hung": 1.0}
"""How much of the bottom face gives off heat, by how the case stands: common practice."""

_LEAST_DELTA_K = 1e-3
_TOLERANCE_K = 0.01
"""Change in the last round; what is left is about a twentieth of it."""
_MAX_ROUNDS = 40
_FILM_SLOPE, _OUTSIDE_SLOPE, _DRAUGHT_SLOPE = 1.25, 1.12, 1.5
"""Relative slopes of the flows against their temperature difference. They set the speed of the
iteration, not its result."""
_LEAST_RISE_K = -150.0
"""No step of the iteration goes below this: what is held at an absurd limit takes up heat."""
_FIRST_RISES_K = 20.0, 10.0, 8.0
"""Inside air, inner and outer wall above the ambient, where an iteration begins."""


@dataclass(frozen=True)
class Faces:
    """The faces of a box, inside or outside: lengths in m, and how much of the bottom counts."""

    length_m: float
    width_m: float
    height_m: float
    bottom_share: float = 0.0

    def grown_by(self, wall_m: float) -> Faces:
        """The outside of a box with such walls."""
        both_m = 2 * wall_m
        return Faces(
            self.length_m + both_m,
            self.width_m + both_m,
            self.height_m + both_m,
            self.bottom_share,
        )

    @cached_property
    def level_m2(self) -> float:
        """Area of the top face. [m²]"""
        return self.length_m * self.width_m

    @cached_property
    def upright_m2(self) -> float:
        """Area of the four upright faces. [m²]"""
        return 2 * (self.length_m + self.width_m) * self.height_m

    @cached_property
    def level_length_m(self) -> float:
        """Characteristic length of the top face, area over perimeter. [m]"""
        return self.level_m2 / (2 * (self.length_m + self.width_m))

    @cached_property
    def area_m2(self) -> float:
        """Area that gives off heat. [m²]"""
        return self.level_m2 * (1 + self.bottom_share) + self.upright_m2

    @cached_property
    def edges_m(self) -> float:
        """Length of all edges, those of the bottom as far as it counts. [m]"""
        return 4 * self.height_m + 2 * (1 + self.bottom_share) * (self.length_m + self.width_m)


_EDGE_SHAPE, _CORNER_SHAPE = 0.54, 0.15
"""Shape factors of a box of even walls, for an edge of length 1 and for a corner over the wall's
thickness. Incropera and DeWitt, table 4.1 (from memory)."""


def wall_conductance_w_k(inner: Faces, wall_m: float, wall_w_mk: Quantity) -> Quantity:
    """Conductance of a box's wall from face to face: `k (A/t + 0.54 edges + 0.15 t corners)`. [W/K]

    Edges and corners carry heat too, as the outside of a thick wall is larger than its inside.
    """
    corners = 4 * (1 + inner.bottom_share)
    shape_m = (
        inner.area_m2 / wall_m + _EDGE_SHAPE * inner.edges_m + _CORNER_SHAPE * wall_m * corners
    )
    return wall_w_mk * shape_m


@dataclass(frozen=True, eq=False)
class Enclosure:
    """A box of flat walls. Samples are the last axis of the arrays, which may be scalars.

    `wall_w_k` is the conductance of its wall from face to face, `fins` what fins multiply the
    convection of top and sides by. `vent_area_m2` is the effective area of low and high openings in
    series, `vent_rise_m` the height between them, `fan_flow_m3_s` what a fan exchanges through the
    vents, `sun_w` what the outer wall takes in from the sun. [W]
    """

    inner: Faces
    outer: Faces
    wall_w_k: Quantity
    emissivity: Quantity
    fins: Quantity = 1.0
    stirred: bool = False
    vent_area_m2: float = 0.0
    vent_rise_m: float = 0.0
    fan_flow_m3_s: Quantity = 0.0
    pressure_pa: float = SEA_LEVEL_PA
    sun_w: Quantity = 0.0

    @cached_property
    def nominal(self) -> Enclosure:
        """The same box with nominal figures alone, as plain numbers."""
        return replace(
            self,
            wall_w_k=nominal(self.wall_w_k),
            emissivity=nominal(self.emissivity),
            fins=nominal(self.fins),
            fan_flow_m3_s=nominal(self.fan_flow_m3_s),
            sun_w=nominal(self.sun_w),
        )

    @cached_property
    def sunlit_m2(self) -> float:
        """Area that a sun at 45 degrees sees of top and largest upright face. [m²]"""
        side = max(self.outer.length_m, self.outer.width_m) * self.outer.height_m
        return float((self.outer.level_m2 + side) / np.sqrt(2))

    @cached_property
    def vented(self) -> bool:
        """Whether inside air is exchanged with the air outside."""
        return self.vent_area_m2 > 0 or largest(self.fan_flow_m3_s) > 0

    @cached_property
    def radiant_m2(self) -> Quantity:
        """Emissivity times area. [m²]"""
        return self.emissivity * self.outer.area_m2

    @cached_property
    def stirred_w_k(self) -> float:
        """From inside air to the inner wall where a fan stirs it; thin air carries less. [W/K]"""
        thin = float((self.pressure_pa / SEA_LEVEL_PA) ** FORCED_EXPONENT)
        return STIRRED_FILM_W_M2K * thin * self.inner.area_m2


def vent_area_m2(low_m2: float, high_m2: float) -> float:
    """Effective area of two openings that the same air passes, 1/A² = 1/A1² + 1/A2². [m²]"""
    if low_m2 <= 0 or high_m2 <= 0:
        return 0.0
    return float(low_m2 * high_m2 / np.hypot(low_m2, high_m2))


def stack_flow_m3_s(
    area_m2: float, rise_m: float, delta_k: Quantity, outside_k: Quantity
) -> Quantity:
    """Air that rises through two vents, V = Cd A sqrt(2 g h dT / T). [m³/s]

    References
    ----------
    .. [1] BS 5925 and ASHRAE Fundamentals, stack effect (from memory).
    """
    drive = 2 * GRAVITY_M_S2 * rise_m * at_least(0.0, delta_k) / outside_k
    return VENT_DISCHARGE * area_m2 * sqrt(drive)


def film_conductances_w_k(
    faces: Faces, pressure_pa: float, surface_k: Quantity, air_k: Quantity
) -> tuple[Quantity, Quantity]:
    """Convection of the faces that count, level and upright ones. [W/K]

    The level ones are the top and `bottom_share` of the bottom; a bottom at share 1 hangs free.
    """
    top, bottom, upright = face_conductances_w_k(faces, pressure_pa, surface_k, air_k)
    return top + bottom, upright


def face_conductances_w_k(
    faces: Faces, pressure_pa: float, surface_k: Quantity, air_k: Quantity
) -> tuple[Quantity, Quantity, Quantity]:
    """The same of the top, of what counts of the bottom, and of the upright faces. [W/K]"""
    delta = at_least(_LEAST_DELTA_K, absolute(surface_k - air_k))
    air = air_at((surface_k + air_k) / 2, pressure_pa)
    per_m3 = rayleigh_per_m3(air, delta)
    level, upright = faces.level_length_m, faces.height_m
    ra_level = per_m3 * level**3
    top = nusselt_up_mcadams(ra_level)
    bottom = faces.bottom_share * nusselt_down_mcadams(ra_level) if faces.bottom_share else 0.0
    nu_upright = nusselt_vertical_churchill_chu(per_m3 * upright**3, air.prandtl)
    per_nu = air.conductivity_w_mk * (faces.level_m2 / level)
    return (
        top * per_nu,
        bottom * per_nu,
        nu_upright * air.conductivity_w_mk * (faces.upright_m2 / upright),
    )


def outside_w_k(
    box: Enclosure, wall_k: Quantity, ambient_k: Quantity, radiant_m2: Quantity | None = None
) -> Quantity:
    """From the outer wall to the surroundings: convection and radiation. [W/K]

    `radiant_m2` is emissivity times area, where a caller has it at hand in the right shape.
    """
    radiant = box.radiant_m2 if radiant_m2 is None else radiant_m2
    top, bottom, upright = face_conductances_w_k(box.outer, box.pressure_pa, wall_k, ambient_k)
    finned = (top + upright) * box.fins
    return finned + bottom + radiation_w_m2k(radiant, wall_k, ambient_k)


def inside_w_k(box: Enclosure, air_k: Quantity, wall_k: Quantity) -> Quantity:
    """From the inside air to the inner wall. [W/K]"""
    if box.stirred:
        return box.stirred_w_k
    level, upright = film_conductances_w_k(box.inner, box.pressure_pa, wall_k, air_k)
    return level + upright


def film_paths_w_k(
    box: Enclosure,
    air_k: Quantity,
    inner_k: Quantity,
    outer_k: Quantity,
    ambient_k: Quantity,
    radiant_m2: Quantity,
) -> tuple[Quantity, Quantity]:
    """`inside_w_k` and `outside_w_k`."""
    inside = inside_w_k(box, air_k, inner_k)
    return inside, outside_w_k(box, outer_k, ambient_k, radiant_m2)


def _first_films_w_k(box: Enclosure, ambient_k: float) -> tuple[Quantity, Quantity]:
    """`film_paths_w_k` at the temperatures where an iteration begins.

    Those at one ambient begin the iteration at others too: they set how fast it is, not where it
    ends.
    """
    air, inner, outer = (ambient_k + rise for rise in _FIRST_RISES_K)
    return film_paths_w_k(box, air, inner, outer, ambient_k, box.radiant_m2)


def _shaped(like: Quantity, *values: Quantity) -> list[Quantity]:
    """Values in the shape of states and samples; plain numbers as they are."""
    if isinstance(like, float):
        return list(values)
    return [np.full(like.shape, value) for value in values]


def exchange_w_k(box: Enclosure, air_k: Quantity, ambient_k: Quantity) -> tuple[Quantity, Quantity]:
    """What the vents carry from inside air to outside, by draught and by a fan. [W/K]"""
    capacity = density_kg_m3(ambient_k, box.pressure_pa) * CP_J_KGK
    flow = stack_flow_m3_s(box.vent_area_m2, box.vent_rise_m, air_k - ambient_k, ambient_k)
    return capacity * flow, capacity * box.fan_flow_m3_s


def _exchange_at_1_k(box: Enclosure, ambient_k: Quantity) -> tuple[Quantity, Quantity]:
    """`exchange_w_k` at one kelvin; of a plain number kept for the next state and the next kit."""
    if isinstance(ambient_k, float):
        return _plain_exchange_at_1_k(box, ambient_k)
    return exchange_w_k(box, ambient_k + 1.0, ambient_k)


def _plain_exchange_at_1_k(box: Enclosure, ambient_k: float) -> tuple[Quantity, Quantity]:
    return exchange_w_k(box, ambient_k + 1.0, ambient_k)


@dataclass(slots=True)
class HeatInput:
    """Heat given to inside air and to the wall, each linear in both temperatures.

    `air = air_w + air_per_air * T_air + air_per_wall * T_wall`, the wall alike. [W], [W/K], [K]
    """

    air_w: Quantity
    air_per_air: Quantity = 0.0
    air_per_wall: Quantity = 0.0
    wall_w: Quantity = 0.0
    wall_per_air: Quantity = 0.0
    wall_per_wall: Quantity = 0.0


@dataclass(slots=True)
class CaseTemps:
    """Temperatures of inside air and of the wall's two faces. [K]

    `films_w_k` are the paths inside and outside of the last round, with which the next solution
    nearby may begin.
    """

    air_k: Quantity
    inner_wall_k: Quantity
    outer_wall_k: Quantity
    films_w_k: tuple[Quantity, Quantity] | None = None


def solve_enclosure(
    box: Enclosure, heat: HeatInput, ambient_k: Quantity, start: CaseTemps | None = None
) -> CaseTemps:
    """Steady temperatures of a case, by Newton rounds with the usual slopes of its flows.

    Natural convection grows with about the 1.25th power of a difference and a draught with the
    1.5th; with these as slopes a round leaves a few hundredths of the error. `start` is a solution
    nearby.

    What the bodies give to the air inside equals what its films and vents carry off, and so for
    inner and outer wall: Q = G (T_1 - T_2) on each path, with G by the films of `films.py`. Good
    for a box of flat walls in steady state with one temperature of the air inside, and
    Rayleigh numbers to 1e12 on upright faces and 1e11 on level ones.

    Parameters
    ----------
    box : Enclosure
        The case.
    heat : HeatInput
        What the bodies inside give off, shape (states, samples) or broadcasting to it.
    ambient_k : ndarray, shape (states, samples), or float
        Outside air and surroundings. With a plain number, box and heat are made of such too. [K]

    References
    ----------
    .. [1] Churchill and Chu, Int. J. Heat Mass Transfer 18 (1975), 1323.
    .. [2] McAdams, Heat Transmission, 3rd edition, 1954.
    """
    ambient = ambient_k
    wall_w_k, radiant_m2, sun_w = box.wall_w_k, box.radiant_m2, box.sun_w
    air_per_air, air_per_wall = heat.air_per_air, heat.air_per_wall
    wall_per_air, wall_per_wall = heat.wall_per_air, heat.wall_per_wall
    if not isinstance(ambient, float):
        # In one shape: broadcasting in each of the many small products costs more than they.
        wall_w_k, radiant_m2, sun_w, air_per_air, air_per_wall, wall_per_air, wall_per_wall = (
            _shaped(
                ambient,
                wall_w_k,
                radiant_m2,
                sun_w,
                air_per_air,
                air_per_wall,
                wall_per_air,
                wall_per_wall,
            )
        )
    # Temperatures count from the ambient, which leaves its own part in what is given off.
    air_w = heat.air_w + (air_per_air + air_per_wall) * ambient
    wall_w = heat.wall_w + (wall_per_air + wall_per_wall) * ambient
    films: tuple[Quantity, Quantity] | None
    if start is None:
        air, inner, outer = _shaped(ambient, *_FIRST_RISES_K)
        films = _first_films_w_k(box, nominal(ambient))
    else:
        films = start.films_w_k
        air, inner, outer = (
            start.air_k - ambient,
            start.inner_wall_k - ambient,
            start.outer_wall_k - ambient,
        )
    vented = box.vented
    draught_at_1_k, forced = _exchange_at_1_k(box, ambient) if vented else (0.0, 0.0)
    for _ in range(_MAX_ROUNDS):
        is_fresh = films is None
        inside, outside = used = films or film_paths_w_k(
            box, air + ambient, inner + ambient, outer + ambient, ambient, radiant_m2
        )
        # Each flow is written G d0 + slope (d - d0): the difference d is new, d0 the last one.
        out_slope = _OUTSIDE_SLOPE * outside
        outward = 1 / (wall_w_k + out_slope)
        series = wall_w_k * outward
        outer_w = sun_w + (out_slope - outside) * outer
        to_air_w, to_wall_w = air_w, wall_w + series * outer_w
        in_slope = inside
        if not box.stirred:
            in_slope = _FILM_SLOPE * inside
            passed_w = (in_slope - inside) * (air - inner)
            to_air_w, to_wall_w = to_air_w + passed_w, to_wall_w - passed_w
        air_loss = in_slope - air_per_air
        if vented:
            draught = draught_at_1_k * sqrt(at_least(0.0, air))
            air_loss = air_loss + forced + _DRAUGHT_SLOPE * draught
            to_air_w = to_air_w + (_DRAUGHT_SLOPE - 1) * draught * air
        # Balance of inside air and of the inner wall, two unknowns:
        wall_loss = in_slope + series * out_slope - wall_per_wall
        to_wall, to_air = in_slope + wall_per_air, in_slope + air_per_wall
        det = air_loss * wall_loss - to_air * to_wall
        new_air = at_least(_LEAST_RISE_K, (to_air_w * wall_loss + to_air * to_wall_w) / det)
        inner = at_least(_LEAST_RISE_K, (air_loss * to_wall_w + to_wall * to_air_w) / det)
        outer = at_least(_LEAST_RISE_K, (wall_w_k * inner + outer_w) * outward)
        change_k = largest(absolute(new_air - air))
        air = new_air
        films = None
        if is_fresh and change_k < _TOLERANCE_K:
            break
    return CaseTemps(air + ambient, inner + ambient, outer + ambient, used)
