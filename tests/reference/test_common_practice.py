"""What people measure on such kits, as bands; figures of common practice, from memory.

Class parts and parts of the catalogue, none by a special case. Rooms of 25 °C where nothing else is
said.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.aspects.heat.model import HeatResult
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.catalogue import Catalogue
from tests.kits import kit, shipped, with_part

ROOM = {"ambient_max_c": 25}
IDLE, WORKING, PEAK = 0, 1, 2


def heat(*parts: str, catalogue: Catalogue | None = None, **place: Any) -> HeatResult:
    """Temperatures of a kit that works all day."""
    plan = kit(*parts, place={**ROOM, **place})
    return heat_of(Kit(plan, catalogue or shipped(), 1))


def node_c(found: HeatResult, name: str, state: int) -> float:
    """A node by its name, a hot body by the end of its id."""
    if name in found.nodes:
        return float(found.nodes[name][state, 0])
    (hot,) = (hot for hot in found.hot_bodies if hot.id.endswith(name))
    return float(hot.held_c[state, 0])


CLIP_ON = ("any-fast-card", "any-clip-on-fan", "any-vented-plastic")


@pytest.mark.parametrize(
    ("parts", "node", "state", "low", "high"),
    [
        (CLIP_ON, "die", IDLE, 40, 46),
        (CLIP_ON, "die", WORKING, 53, 61),
        (("any-older-card",), "die", IDLE, 40, 51),
        (("B04", "S06", "M02", "E02"), "die", IDLE, 40, 51),
        (("B10", "S03", "K05", "E03", "A04", "D03"), "D03#1.body", WORKING, 60, 80),
        (("B10", "S03", "K05", "E03", "A03", "D06"), "D06#1.body", WORKING, 60, 80),
        ((*CLIP_ON, "S03", "any-m2-below", "any-nvme-2242"), ".body", WORKING, 60, 80),
        (("B10", "S03", "K05", "E11", "A12", "D11"), "D11#1.body", WORKING, 35, 46),
        (
            ("any-fast-card", "any-clip-on-fan", "E11", "S03", "any-usb-sata", "any-disk-2-5"),
            ".body",
            WORKING,
            35,
            46,
        ),
    ],
)
def test_a_temperature_that_people_measure(
    parts: Sequence[str], node: str, state: int, low: float, high: float
) -> None:
    """Idle, at work, a drive that writes without a sink, a disk in its bay."""
    assert low <= node_c(heat(*parts), node, state) <= high


def fast_card(peak_w: float) -> Catalogue:
    """A fast card of class figures with such a peak."""
    return with_part(
        id="B00",
        kind="board",
        part_class="fast_card",
        maker="m",
        model="b",
        loads={"own": {"peak": [peak_w]}},
    )


def test_a_fast_card_under_a_clip_on() -> None:
    """73 °C at 8.5 W; held at its throttle point with 95 % or more of its clock at 10.5 W."""
    parts = ("B00", "any-clip-on-fan", "any-vented-plastic")
    cool = heat(*parts, catalogue=fast_card(8.5))
    assert 68 <= node_c(cool, "die", PEAK) <= 78
    hot = heat(*parts, catalogue=fast_card(10.5))
    assert node_c(hot, "die", PEAK) == pytest.approx(80, abs=1)
    assert float(hot.speed_share[PEAK, 0]) >= 0.95


def test_a_bare_fast_card_in_the_open() -> None:
    """About two thirds of its clock."""
    bare = heat("any-fast-card")
    assert float(bare.speed_share[PEAK, 0]) == pytest.approx(0.67, abs=0.07)


@pytest.mark.parametrize("shell", ["any-metal-shell", "E07", "E08"])
def test_a_shell_that_is_the_sink(shell: str) -> None:
    """At 9.8 W it holds a fast card at 60 to 80 °C, by its size."""
    found = heat("B00", shell, catalogue=fast_card(9.8))
    assert 60 <= node_c(found, "die", PEAK) <= 80
    assert float(found.speed_share[PEAK, 0]) == 1.0


def test_a_coil_bare_and_with_a_fan_near() -> None:
    """120 °C bare and about 90 with a fan near, of one stated resistance: the ratio is the test."""
    coil = {
        "id": "A99",
        "kind": "storage_adapter",
        "part_class": "m2_above",
        "maker": "m",
        "model": "Coil",
        "hot": {
            "coil": {"label": "Coil", "of": "loads.own", "r_air_k_w": [45], "limit_c": [130]},
            "regulator": None,
        },
        "loads": {"own": {"idle": [2.0], "normal": [2.0], "peak": [2.0]}},
    }
    loose = {
        "id": "K99",
        "kind": "cooler",
        "part_class": "fan_shim_30",
        "maker": "m",
        "model": "Fan",
        "fan": {"at": "other_equipment"},
    }
    catalogue = shipped().extended([coil, loose])
    bare = node_c(heat("B10", "S03", "A99", catalogue=catalogue), "A99#1.coil", IDLE)
    blown = node_c(heat("B10", "S03", "A99", "K99", catalogue=catalogue), "A99#1.coil", IDLE)
    assert 115 <= bare <= 125
    assert 85 <= blown <= 95


@pytest.mark.parametrize(
    "parts",
    [
        ("B06", "S01", "M02", "K09", "E03"),
        ("B06", "S01", "M02", "K03", "K10", "E03"),
        ("any-middle-card", "any-fan-shim-30", "any-vented-plastic"),
    ],
)
def test_stock_clocks_with_a_small_fan_in_an_airy_shell(parts: Sequence[str]) -> None:
    """They do not slow at their work."""
    assert float(heat(*parts).speed_share[WORKING, 0]) == 1.0


@settings(max_examples=15, deadline=None)
@given(st.floats(1, 10), st.floats(0.5, 10), st.sampled_from([0.12, 0.2, 150.0]))
def test_a_thicker_wall_never_cools_in_the_shade(
    wall_mm: float, thicker_mm: float, wall_w_mk: float
) -> None:
    """Property: of boxes as large outside the one with more wall is no cooler inside."""

    def inside_c(wall: float) -> float:
        inner = {
            "inner_length_mm": 140 - 2 * wall,
            "inner_width_mm": 110 - 2 * wall,
            "inner_height_mm": 70 - 2 * wall,
        }
        shell = with_part(
            id="E99",
            kind="case",
            part_class="sealed_plastic",
            maker="m",
            model="Box",
            case={**inner, "wall_mm": wall, "wall_w_mk": [wall_w_mk]},
        )
        return node_c(heat("B07", "K03", "E99", catalogue=shell), "inside", IDLE)

    assert inside_c(wall_mm + thicker_mm) >= inside_c(wall_mm) - 0.02


@settings(max_examples=15, deadline=None)
@given(st.floats(0, 20), st.floats(0.1, 20), st.sampled_from(["E03", "E02", "E15"]))
def test_the_air_that_a_case_fan_exchanges_never_warms(
    transfer: float, more: float, case: str
) -> None:
    """Property: the fan's own watts left out, more flow is never warmer inside."""

    def inside_c(flow_m3_h: float) -> float:
        fan = with_part(
            id="K99",
            kind="cooler",
            part_class="case_fan_40",
            maker="m",
            model="Fan",
            fan={"flow_m3_h": [flow_m3_h]},
            loads={"own": {"idle": [0], "normal": [0], "peak": [0]}},
        )
        return node_c(heat("B07", "S01", "K03", "K99", case, catalogue=fan), "inside", WORKING)

    assert inside_c(transfer + more) <= inside_c(transfer) + 0.02
