"""Every rule of the registry: one kit in which it fires, and that it is silent on a sound one."""

from __future__ import annotations

from typing import Any

import pytest

from cobblewort.core.judging.rules import RULES, rule
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import EditLine, apply_patch
from cobblewort.core.plans.plan import FloorPosition, Plan
from tests.kits import SMALL, checked, kit, shipped, told, with_part

HOT, HOTTER = {"ambient_max_c": 45}, {"ambient_max_c": 58}
OWN = {"maker": "m", "model": "Own"}


def replaced(part_id: str, kind: str, part_class: str, **figures: Any) -> Catalogue:
    """The shipped catalogue with one part replaced by one of class figures and these."""
    document = {"id": part_id, "kind": kind, "part_class": part_class, **OWN, **figures}
    return shipped().extended([document])


def asked(*parts: str, image: dict[str, Any] | None = None, **requirement: Any) -> Plan:
    """A kit that is asked for one thing."""
    return kit(
        *parts, requirements=[{"id": "it", "text": "for the test", **requirement}], image=image
    )


def sunk_twin() -> Catalogue:
    """The board for two long drives, set lower than the sockets that it lies over."""
    twin = shipped().document(shipped().part("A05"))
    return shipped().extended([{**twin, "add_on": {**twin["add_on"], "clear_mm": 11}}])


def raised(part_id: str, standoff_mm: float) -> Plan:
    """A board above on standoffs of one's own choice."""
    change = EditLine(line=part_id, standoff_mm=standoff_mm)
    return apply_patch(kit("B06", "S01", "M02", "E12", part_id), (change,))


def cut_open(case: str) -> Plan:
    """A case whose openings are cut by hand."""
    change = EditLine(line=case, modified=True)
    return apply_patch(kit("B06", "S01", "M02", "K03", case), (change,))


def topless(case: str) -> Plan:
    """A layered case without its top sheets."""
    change = EditLine(line=case, sheets_off=True)
    return apply_patch(kit("B06", "S01", "M02", "K03", case), (change,))


def on_a_peg() -> Plan:
    """A board put over a peg on the floor of a shell that is drilled by hand."""
    face = FloorPosition(x_mm=40, y_mm=40)
    return apply_patch(kit("B06", "S01", "M02", "E17"), (EditLine(line="B06", position=face),))


LED = {"id": "lamp", "kind": "led", "label": "lamp", "pin": 11}
SLIM = {"name": "Slim image", "card_gb": 8, "memory_gb": 1}
HUGE = {"name": "Huge image", "card_gb": 400, "memory_gb": 1}

SUN = {"power": "solar"}
TRAY = ("2xB10", "2xS03", "2xM02", "2xK05", "E14")

COPIES = {
    "id": "copies",
    "text": "copies",
    "source": "storage",
    "target": "network",
    "amount_gb": 10,
}
CALLS = {
    "id": "calls",
    "text": "calls",
    "source": "audio_in",
    "target": "storage",
    "stream_mb_s": 0.768,
    "hours_a_day": 1.2,
    "stays": True,
}
ADAPTER = {
    "id": "X91",
    "kind": "device",
    "part_class": "usb2_device",
    "maker": "Clinkerbeck",
    "model": "Wire Thousand",
    "offers": {"ethernet": {"amount": 115}},
    "rates": {"network_mbit_s": 1000},
}


def nobody_states_the_wire() -> Catalogue:
    """The shipped catalogue with a board whose network has neither rate nor amount."""
    silent = {"offers": {"ethernet": {"amount": None}}, "rates": {"network_mbit_s": None}}
    return replaced("B06", "board", "middle_card", **silent)


FIRES: dict[str, tuple[Plan, Catalogue]] = {
    "LIFE-07": (
        kit(
            *SMALL,
            "D11",
            "A12",
            transfers=[
                {
                    "id": "in",
                    "text": "pictures",
                    "source": "network",
                    "target": "storage",
                    "stream_mb_s": 4,
                    "hours_a_day": 24,
                }
            ],
        ),
        shipped(),
    ),
    "NEED-09": (
        kit(
            *("B04", *SMALL[1:]),
            requirements=[
                {
                    "id": "quick",
                    "text": "sorts pictures",
                    "condition": "enough_processor",
                    "at_least": 80,
                }
            ],
        ),
        shipped(),
    ),
    "FIT-39": (kit(*SMALL, "D11", "A12"), shipped()),
    "FIT-41": (on_a_peg(), shipped()),
    "FIT-40": (kit(*SMALL, "X09", "D09", "A12"), shipped()),
    "SAFE-04": (kit(*SMALL), shipped()),
    "SOFT-07": (kit(*SMALL, wired=[LED]), shipped()),
    "SAFE-05": (kit(*SMALL, reminders=[{"id": "it", "text": "Mind it."}]), shipped()),
    "COST-03": (
        kit(*SMALL, ready_made={"name": "A bought one", "price": "400"}),
        shipped(),
    ),
    "NEED-08": (
        kit(
            *SMALL,
            requirements=[{"id": "it", "text": "by wire", "function": "ethernet"}],
            place={"network": "wifi"},
        ),
        shipped(),
    ),
    "NOISE-01": (kit("B10", "S03", "M02", "K05", "E03", place={"noise_max_dba": 20}), shipped()),
    "FIT-35": (
        kit("B10", "S03", "M02", "E15", "K03", "A02", "D06", "X28"),
        replaced("K03", "cooler", "plate_sink", cooler={"length_mm": 80}),
    ),
    "FIT-36": (
        kit("B10", "S03", "M02", "K07", "E03"),
        replaced("E03", "case", "vented_plastic", case={"inner_length_mm": 87, "max_above_mm": 60}),
    ),
    "FIT-37": (kit(*TRAY), shipped()),
    "FIT-38": (kit(*SMALL, "C14"), shipped()),
    "FIT-34": (kit(*SMALL, place={"dust": "much"}), shipped()),
    "PWR-09": (kit(*SMALL, place={"power": "vehicle"}), shipped()),
    "PWR-10": (kit("B10", "S33", "M02", "K05", "E03", place=SUN), shipped()),
    "PWR-11": (kit("B06", "S30", "C01", "M02", place={"power": "battery"}), shipped()),
    "PWR-12": (kit("B06", "S01", "S12", "M02"), shipped()),
    "PWR-13": (kit("B10", "S32", "M02", place={"power": "poe"}), shipped()),
    "NEED-01": (asked(*SMALL, function="mesh_radio"), shipped()),
    "NEED-02": (asked("B04", "S06", "M02", function="memory", at_least=8), shipped()),
    "DATA-01": (asked("B04", "S06", "M02", function="ethernet", at_least=80), shipped()),
    "DATA-02": (kit(*SMALL, "D11", "A12", storage_use={"layout": "mirror"}), shipped()),
    "DATA-03": (kit(*SMALL, "D11", "D09", "2xA12", storage_use={"layout": "mirror"}), shipped()),
    "DATA-04": (kit("B04", "S06", "M02", "X91", transfers=[COPIES]), with_part(**ADAPTER)),
    "DATA-05": (
        kit(*SMALL, transfers=[{**COPIES, "source": "program"}], place={"network": "ethernet"}),
        nobody_states_the_wire(),
    ),
    "DATA-06": (
        kit(
            *SMALL,
            "D11",
            "A12",
            storage_use={"file_system": "exchange"},
            requirements=[{"id": "it", "text": "a pulled plug", "condition": "power_cut"}],
        ),
        shipped(),
    ),
    "LIFE-01": (kit(*SMALL, retention={"writes": "server"}), shipped()),
    "LIFE-02": (kit("B06", "S30", "C01", "M02", retention={"years": 10}), shipped()),
    "LIFE-03": (kit(*SMALL, "X07", transfers=[{**CALLS, "hours_a_day": 24}]), shipped()),
    "LIFE-04": (kit(*SMALL, "D11", "A12", retention={"replaceable": False}), shipped()),
    "LIFE-05": (asked(*SMALL, function="ethernet"), shipped()),
    "LIFE-06": (kit(*SMALL, copies=2, image=SLIM), shipped()),
    "NEED-03": (asked("B10", "S03", "M02", "K05", "E03", condition="silent"), shipped()),
    "NEED-04": (asked(*SMALL, limit="longest_mm", at_most=60), shipped()),
    "NEED-05": (asked(*SMALL, function="device_port"), shipped()),
    "NEED-06": (asked("B06", "S01", "M02", "K03", "E11", function="wifi"), shipped()),
    "NEED-07": (kit(*SMALL, image=HUGE), shipped()),
    "FIT-01": (kit("B06"), shipped()),
    "FIT-02": (kit(*SMALL, "A02"), shipped()),
    "FIT-03": (kit(*SMALL), replaced("B06", "board", "middle_card", stack={"holes": "H9"})),
    "FIT-04": (kit(*SMALL), replaced("B06", "board", "middle_card", stack={"length_mm": 120})),
    "FIT-05": (kit("B06", "S01", "M02", "K04", "E02"), shipped()),
    "FIT-06": (kit("B10", "S03", "M02", "K05", "A01", "D03"), shipped()),
    "FIT-07": (kit("B10", "S03", "M02", "A04", "D06"), shipped()),
    "FIT-08": (kit("B10", "S03", "M02", "A02", "D08"), shipped()),
    "FIT-09": (kit("B06", "S07", "M02"), shipped()),
    "FIT-10": (kit("B10", "S03", "M02", "A03", "D05"), shipped()),
    "FIT-11": (kit(*SMALL, place={"wet": True}), shipped()),
    "FIT-12": (kit(*SMALL, "X04", "X34"), shipped()),
    "FIT-13": (kit(*SMALL, "X03", "X21"), shipped()),
    "FIT-14": (kit("B10", "S03", "M02", "A05", "D05", "X33"), shipped()),
    "FIT-15": (kit(*SMALL, "X41"), shipped()),
    "FIT-16": (kit(*SMALL, wired=[{**LED, "made_for_v": 12}]), shipped()),
    "FIT-17": (kit(*SMALL, wired=[{**LED, "current_ma": 30}]), shipped()),
    "FIT-18": (kit(*SMALL, "X11", "X06"), shipped()),
    "FIT-19": (kit("B06", "S01", "M02", "K03", "E06"), shipped()),
    "FIT-20": (kit("B06", "S01", "M02", "K03", "E04", "X07", "X06"), shipped()),
    "FIT-21": (
        kit("B06", "S01", "M02", "K03", "E02"),
        replaced("E02", "case", "vented_plastic", case={"openings": {"card": None}}),
    ),
    "FIT-22": (kit(*SMALL, "X31"), shipped()),
    "FIT-23": (
        kit("B10", "S03", "M02", "A01", "D03", "X04", "E12"),
        replaced("A01", "storage_adapter", "m2_above", add_on={"height_mm": 30, "clear_mm": 9}),
    ),
    "FIT-24": (kit("B10", "S03", "M02", "A05", "2xD06", "E12"), sunk_twin()),
    "FIT-25": (kit(*SMALL, "K05"), shipped()),
    "FIT-26": (raised("X04", 16), shipped()),
    "FIT-27": (kit("B10", "S03", "M02", "A02", "D06", "E03"), shipped()),
    "FIT-42": (kit("B10", "S03", "M02", "K05", "C14", "E14"), shipped()),
    "FIT-43": (kit("B06", "S12", "M02", "E02"), shipped()),
    "FIT-44": (kit(*SMALL, "H02"), shipped()),
    "HEAT-07": (
        kit(*SMALL, place={"sun_w_m2": 800, "ambient_min_c": 0, "ambient_max_c": 35}),
        shipped(),
    ),
    "FIT-45": (kit(*SMALL, "X17", place={"wet": True}), shipped()),
    "SOFT-01": (kit(*SMALL, image={**SLIM, "families": ["Gorsewick"]}), shipped()),
    "SOFT-02": (
        kit(*SMALL, image={**SLIM, "bits": 64}),
        replaced("B06", "board", "middle_card", runs={"bits": [32]}),
    ),
    "SOFT-03": (kit(*SMALL, "X11"), shipped()),
    "SOFT-04": (asked(*SMALL, function="wifi"), shipped()),
    "SOFT-05": (kit("B06", "S01", "M02", "K03", "E03"), shipped()),
    "SOFT-06": (
        kit("B10", "S03", "M02", "A02", "D06", settings={"push_slot": True}),
        shipped(),
    ),
    "FIT-28": (kit(*SMALL, "X27"), shipped()),
    "FIT-29": (
        kit("B10", "S03", "M02", "A02", "D06", "K05"),
        replaced("K05", "cooler", "clip_on_fan", cooler={"height_mm": 12}),
    ),
    "FIT-32": (topless("E06"), shipped()),
    "FIT-33": (
        kit("B10", "S03", "M02", "A02", "D06", "E12"),
        replaced(
            "A02",
            "storage_adapter",
            "m2_above",
            add_on={"clear_mm": 16, "height_mm": 24},
            plugs={"flat": {"flat_cable": {"length_mm": 25}}},
        ),
    ),
    "FIT-31": (kit("B10", "S03", "M02", "K05", "E11", "3xA12", "3xD11"), shipped()),
    "FIT-30": (cut_open("E04"), shipped()),
    "PWR-01": (kit("B06", "S06", "M02"), shipped()),
    "PWR-02": (kit("B06", "S08", "C04", "M02"), shipped()),
    "PWR-03": (kit("B10", "S04", "C01", "M02", "X06", "X11"), shipped()),
    "PWR-04": (kit("B10", "S01", "M02", "X06"), shipped()),
    "PWR-05": (
        kit(*SMALL, "X05"),
        replaced("X05", "device", "usb2_device", loads={"own": {"normal": 0.5, "peak": 2.0}}),
    ),
    "PWR-06": (kit("B06", "S05", "C03", "M02"), shipped()),
    "PWR-07": (kit("B10", "S02", "M02", "X06", "X07", "K05"), shipped()),
    "PWR-08": (
        kit("B06", "S05", "C01", "M02"),
        replaced("C01", "cable", "usb_c_lead_3a", plugs={"in": {"cable_ohm": 12}}),
    ),
    "HEAT-01": (kit("B10", "S03", "M02", "K03", "E04", place=HOT), shipped()),
    "HEAT-02": (kit("B10", "S03", "M02", "E04", place={"ambient_max_c": 75}), shipped()),
    "HEAT-03": (kit(*SMALL, place={"ambient_min_c": -30}), shipped()),
    "HEAT-04": (kit(*SMALL), replaced("B06", "board", "middle_card", board_heat=None)),
    "HEAT-05": (kit("B10", "S03", "M02", "A02", "D07", "K03", "E03"), shipped()),
    "HEAT-06": (
        kit("B10", "S03", "M02", "A06", "D06", "D04", "K05", "E04", place=HOTTER),
        shipped(),
    ),
    "COST-01": (kit(*SMALL, budget="5"), shipped()),
    "COST-02": (kit(*SMALL, "F01"), replaced("F01", "fastener", "open_plates", case=None)),
    "SAFE-01": (kit("B06", "S07", "C04", "M02"), shipped()),
    "SAFE-03": (kit("B06", "S01", "M02", place={"within_reach_of": "children"}), shipped()),
    "SAFE-02": (kit("B10", "S03", "M02", "K03", "E01", place=HOT), shipped()),
}


def test_every_rule_has_a_kit_in_which_it_fires() -> None:
    """A new rule needs a row here."""
    assert set(FIRES) == set(RULES)


@pytest.mark.parametrize("rule_id", list(FIRES))
def test_it_fires(rule_id: str) -> None:
    """One plain sentence, with the lines that it concerns, and a source."""
    plan, catalogue = FIRES[rule_id]
    findings = told(checked(plan, 32, catalogue), rule_id)
    assert findings
    for finding in findings:
        assert finding.sentence.text[0].isupper()
        assert finding.sentence.text.endswith(".")
        assert "nan" not in finding.sentence.text.lower().split()
        assert finding.source
        assert set(finding.lines) <= {line.id for line in plan.lines}


@pytest.mark.parametrize("rule_id", list(FIRES))
def test_it_is_silent_on_a_sound_kit(rule_id: str) -> None:
    """A small kit with a budget that is enough, in a mild room; bare boards are in every kit."""
    report = checked(kit(*SMALL, budget="500", place={"ambient_max_c": 22}), 32)
    assert [f.id for f in told(report, rule_id)] in ([], ["SAFE-04:static"])


def test_an_id_is_given_once() -> None:
    """Two rules under one id would hide each other."""
    with pytest.raises(ValueError, match="registered twice"):
        rule("FIT-01", "fit", "Again", why="-", formula="-", source="-", reads=())(lambda _: [])


def test_only_what_stands_in_the_way_has_ways_out() -> None:
    """A finding that stops or is tight, of a rule with remedies; notes have none."""
    for plan, catalogue in FIRES.values():
        for finding in checked(plan, 1, catalogue).findings:
            there = bool(RULES[finding.rule].remedies) and finding.severity in ("problem", "tight")
            assert finding.has_fixes == there
