"""Whatever feeds a board is a supply, and two of them must not meet."""

from typing import Any

import pytest

from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.verdict.report import Report
from tests.kits import checked, kit, margin, shipped, told, with_part

DEVICE = [{"id": "d", "text": "acts as a device", "function": "device_port"}]
LIGHT = [{"name": "light", "hours": 24, "activity": "light"}]
WORKING = [{"name": "normal", "hours": 24}]


def above(report: Report) -> dict[str, str | None]:
    """The piece that each piece hangs on where power enters it."""
    items = {node.id: node.id.rpartition(".")[0] for node in report.power.nodes}
    return {
        items[node.id]: None if node.parent is None else items[node.parent]
        for node in report.power.nodes
        if node.parent is None or items[node.parent] != items[node.id]
    }


@pytest.mark.parametrize(
    ("parts", "feeder"),
    [
        (("B06", "H03", "C04"), "H03#1"),
        (("B06", "N01", "C04"), "N01#1"),
        (("B06", "S12"), "S12#1"),
        (("B06", "S21"), "S21#1"),
        (("B10", "A07", "D03"), "A07#1"),
    ],
)
def test_what_feeds_a_board_is_its_supply(parts: tuple[str, ...], feeder: str) -> None:
    """A hub, another computer, terminal wires, a battery board: neither "no supply" nor "no lead"
    is said, and what feeds it is judged as one.
    """
    report = checked(kit(*parts, "M02", schedule=LIGHT))
    assert told(report, "FIT-01") == told(report, "FIT-09") == told(report, "PWR-01") == []
    assert report.next_step.role != "power_supply"
    assert [f for f in told(report, "PWR-12") if "Feedstone" in f.sentence.text] == []
    assert any(m.rule == "PWR-02" and m.id.startswith(f"PWR-02:{feeder}") for m in report.margins)


def test_a_board_with_nothing_near_it_has_no_supply() -> None:
    """A hub with its own supply lies in the kit, and no lead joins it to the inlet."""
    assert told(checked(kit("B06", "H03", "M02")), "FIT-01") != []


@pytest.mark.parametrize("cable", ["C03", "C04"])
def test_a_cable_that_hangs_free_is_no_supply(cable: str) -> None:
    """Its one end in the board, the other in nothing."""
    assert told(checked(kit("B06", cable, "M02")), "FIT-01") != []


def test_a_spare_lead_takes_no_socket_of_a_hub() -> None:
    """It feeds nothing, so that it is not plugged in at all."""
    report = checked(kit("B06", "S01", "H03", "C04", "4xX07", "M02"))
    assert "C04#1" not in above(report)
    assert told(report, "FIT-02") == []
    assert [f.lines for f in told(report, "FIT-44")] == [("C04",)]


@pytest.mark.parametrize(
    ("board", "cable", "schedule", "severity"),
    [
        ("B10", "C04", LIGHT, "problem"),
        ("B06", "C04", LIGHT, "tight"),
        ("B06", "C04", WORKING, "problem"),
        ("B04", "C06", LIGHT, "note"),
    ],
)
def test_a_port_of_another_computer_as_supply(
    board: str, cable: str, schedule: list[dict[str, Any]], severity: str
) -> None:
    """0.9 A stop a fast board from light work on and a middle one from working on; everything at
    once passes them for an older one, by a tenth.
    """
    report = checked(kit(board, "N01", cable, "M02", schedule=schedule))
    assert [f.severity for f in told(report, "PWR-05") if "Desk computer" in f.sentence.text] == [
        severity
    ]


def test_a_splitter_helps_where_it_is_in_the_path() -> None:
    """The supply goes into the splitter, which goes into the inlet; the other machine's lead goes
    into its other socket and carries no power. Beside a lead that is in the inlet it is no help.
    """
    plan = kit("B06", "S01", "N01", "C04", "X32", "M02", requirements=DEVICE)
    report = checked(plan)
    assert above(report)["B06#1"] == "X32#1"
    assert above(report)["X32#1"] == "S01#1"
    assert told(report, "NEED-05") == told(report, "PWR-12") == []
    crowded = checked(kit("B06", "S01", "N01", "C04", "X32", "M02", "D09", "A12", "H04"))
    assert above(crowded)["X32#1"] == "S01#1"
    cables = checked(kit("B06", "N01", "C04", "S05", "C01", "X32", "M02"))
    assert above(cables)["X32#1"] == "C01#1"
    without = checked(kit("B06", "S01", "N01", "C04", "M02", requirements=DEVICE))
    assert "the Kettle 15 power" in told(without, "NEED-05")[0].sentence.text
    lying = kit("B06", "S01", "X32", "M02", requirements=DEVICE).lines
    pinned = [
        line.model_copy(update={"pins": {"out": "B06#1.inlet"}}) if line.id == "S01" else line
        for line in lying
    ]
    beside = checked(
        kit("B06", "M02", requirements=DEVICE).model_copy(update={"lines": tuple(pinned)})
    )
    assert told(beside, "NEED-05") != []


def test_one_lead_carries_data_and_power() -> None:
    """Fed by the machine to which it is a device: no splitter is needed, and nothing meets."""
    report = checked(kit("B04", "N01", "C06", "M02", schedule=LIGHT))
    assert told(report, "PWR-12") == []
    fed = checked(kit("B06", "N01", "C04", "M02", requirements=DEVICE, schedule=LIGHT))
    assert told(fed, "NEED-05") == []


@pytest.mark.parametrize(
    ("parts", "both"),
    [
        (
            ("B06", "S12", "N01", "C04"),
            "Hearthframe 50 power supply and Desk computer both power Hurdle 2",
        ),
        (("B06", "S01", "S12"), "and the Hearthframe 50 power supply both power Hurdle 2"),
    ],
)
def test_pwr_12_two_sources_that_meet(parts: tuple[str, ...], both: str) -> None:
    """Header and inlet fed from two places; one of them alone is silent."""
    (finding,) = told(checked(kit(*parts, "M02")), "PWR-12")
    assert finding.severity == "problem"
    assert both in finding.sentence.text
    assert told(checked(kit(*parts[:2], "M02")), "PWR-12") == []


@pytest.mark.parametrize(
    ("hub", "severities"), [("H03", []), ("H04", ["tight"]), ("any-hub-self-3", ["note"])]
)
def test_pwr_12_a_hub_that_feeds_back(hub: str, severities: list[str]) -> None:
    """One that is known not to is silent, one that does is tight, and one of which nobody says."""
    report = checked(kit("B06", "S01", "M02", hub))
    assert [f.severity for f in told(report, "PWR-12")] == severities


def test_a_battery_board_is_charged_and_passes_on() -> None:
    """The supply goes into its inlet before the board's; 3 A are too little for both, in bursts;
    and on its own it is the source, for hours of what the day is called.
    """
    charged = checked(kit("B06", "S01", "S21", "M02"))
    assert above(charged)["B06#1"] == "S21#1"
    assert above(charged)["S21#1"] == "S01#1"
    assert [f.severity for f in told(charged, "PWR-02")] == ["tight"]
    assert told(charged, "PWR-09") == []
    play = [{"name": "play", "hours": 3}, {"name": "off", "hours": 21, "activity": "off"}]
    alone = checked(kit("B06", "S21", "M02", place={"power": "battery"}, schedule=play))
    own, card = shipped().part("B06").loads["own"], shipped().part("M02").loads["own"]
    watts = own.normal.nominal + card.normal.nominal / 0.9
    (note,) = told(alone, "PWR-11")
    assert f"lasts about {20 * 0.85 / watts:.1f} hours of “play”" in note.sentence.text


@pytest.mark.parametrize(
    ("parts", "copies", "severities"),
    [
        (("B10", "S32"), 1, ["note"]),
        (("B10", "S32", "N03"), 1, ["problem"]),
        (("B10", "S32", "N02"), 1, []),
        (("B10", "S32", "N02"), 4, []),
        (("B10", "S32", "N02"), 5, ["problem"]),
        (("B10", "S32", "N02"), 6, ["problem"]),
        (("B06", "S31", "N03"), 1, []),
        (("B10", "A07", "D03"), 1, ["note"]),
        (("B10", "A07", "D03", "N02"), 1, []),
    ],
)
def test_pwr_13_network_power_from_end_to_end(
    parts: tuple[str, ...], copies: int, severities: list[str]
) -> None:
    """The type is asked of the switch where there is none in the plan; type 2 does not start at
    type 1; four copies of 12 W are no load for 60 W, five are too many.
    """
    report = checked(kit(*parts, "M02", place={"power": "poe"}, copies=copies))
    assert [f.severity for f in told(report, "PWR-13")] == severities
    assert told(report, "FIT-02") == []
    if copies == 6:
        budget = margin(report, "PWR-13:N02#1.budget")
        assert budget.value == pytest.approx(6 * 12.2, rel=0.02)


def test_pwr_13_copies_need_a_port_each() -> None:
    """Where no switch is in the plan either: five of type 2 take 150 W in all."""
    plan = kit("B10", "S32", "M02", place={"power": "poe"}, copies=5)
    (finding,) = told(checked(plan), "PWR-13")
    assert "5 copies need as many ports, 150" in finding.sentence.text


def test_pwr_13_another_switch_is_the_way_out() -> None:
    """One of the stronger type, and never a machine of another kind."""
    plan = kit("B10", "S32", "N03", "M02", place={"power": "poe"})
    (finding,) = told(checked(plan), "PWR-13")
    titles = [fix.title.text for fix in propose_fixes(plan, shipped(), finding.id)]
    assert "Swap Inject 15 for Fiveways" in titles
    assert not any("Desk computer" in title for title in titles)


def test_what_it_works_with_is_no_part_of_the_kit() -> None:
    """It costs and weighs nothing, and is rated for its own place."""
    alone, joined = (checked(kit("B06", "S01", "M02", *more)) for more in ((), ("N01",)))
    assert alone.cost.total == joined.cost.total
    assert not any("N01" in margin.id for margin in joined.margins), "it feeds nothing here"
    assert [f.id for f in alone.findings] == [f.id for f in joined.findings]


def test_an_empty_inlet_of_something_else_is_told() -> None:
    """A splitter without a supply leaves the board dark: the splitter's inlet is what is empty."""
    (finding,) = told(checked(kit("B06", "X32", "M02")), "PWR-01")
    assert "supply port" in finding.sentence.text


def test_pwr_13_the_network_lead_has_a_length() -> None:
    """40 m of AWG 26: 13.4 ohm for 100 m of two pairs (common tables); short of nothing at 54 V."""
    network = {"power": "poe"}
    report = checked(kit("B10", "S32", "N02", "C16", "M02", place=network))
    reach = margin(report, "PWR-13:S32#1.reach")
    amps = margin(report, "PWR-03:C16#1.wire").value
    assert reach.value == pytest.approx(54 - amps * (0.4 * 13.4 + 0.05), rel=2e-3)
    assert told(report, "PWR-13") == []


def test_pwr_13_a_lead_too_long_or_of_the_wrong_kind() -> None:
    """350 m leave less than 42.5 V; what is made for type 1 is tight for type 2."""
    far = with_part(
        id="C90",
        kind="cable",
        part_class="network_lead",
        maker="m",
        model="Far",
        plugs={"in": {"wire": {"length_m": 350, "gauge_awg": 26}}},
        cable={"poe_type": 1},
    )
    plan = kit("B10", "S32", "N02", "C90", "M02", place={"power": "poe"})
    told_of = told(checked(plan, catalogue=far), "PWR-13")
    assert [f.severity for f in told_of] == ["problem", "tight"]
    assert "it needs 42.5 V" in told_of[0].sentence.text
    assert "rated for PoE up to Type 1" in told_of[1].sentence.text


def test_a_network_lead_without_a_switch_in_the_plan_is_in_use() -> None:
    """It goes to a switch that nobody described: nothing is said of its free end."""
    report = checked(kit("B10", "S32", "C15", "M02", place={"power": "poe"}))
    assert told(report, "FIT-02") == []
