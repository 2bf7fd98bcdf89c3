import re
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.aspects.power.lanes import narrow
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from tests.kits import SMALL, checked, kit, margin, shipped, told, with_part

WIDE = {
    "id": "S98",
    "kind": "power_supply",
    "part_class": "usb_c_pd",
    "maker": "m",
    "model": "Wide",
    "source": {"rated_a": 5.0, "advertises_a": 5.0},
    "sockets": {"o": {"connector": "usb-c", "role": "power_out", "rail": "out"}},
}
"""A supply that announces 5 A from a socket, so that the lead decides."""


def custom_part(kind: str, part_id: str, part_class: str, **figures: Any) -> Catalogue:
    """The shipped catalogue with a part of one's own, called Own."""
    return with_part(
        id=part_id, kind=kind, part_class=part_class, maker="m", model="Own", **figures
    )


def power(plan: Plan, samples: int = 1) -> PowerResult:
    """The solved forest of a plan."""
    return power_of(Kit(plan, shipped(), samples))


def test_what_flows_in_flows_out_at_every_rail() -> None:
    """Kirchhoff: the current into a rail is what its loads and the rails below draw."""
    result = power(kit("B10", "S03", "M02", "A06", "D06", "D04", "X06", "K06", "E03"), 32)
    for place, node in enumerate(result.nodes):
        below = [n for n, child in enumerate(result.nodes) if child.parent == place]
        rest = result.current_a[place] - result.solved.inputs.current_a[below].sum(axis=0)
        assert (rest > -1e-9).all(), node.id
    roots = [n for n, node in enumerate(result.nodes) if node.parent < 0]
    assert len(roots) == 1


def test_a_wire_is_as_warm_as_the_day() -> None:
    """1.5 m of AWG 18 and 14 milliohms of contacts: 77 at 20 °C, more in the heat."""

    def ohms(ambient_max_c: float) -> float:
        result = power(kit("B06", "S01", place={"ambient_max_c": ambient_max_c}))
        resistance = result.resistance_ohm(1)
        assert resistance is not None
        return float(resistance[0])

    assert ohms(20) == pytest.approx(0.014 + 2 * 1.5 * 0.02095, rel=1e-3)
    assert ohms(60) == pytest.approx(0.014 + 2 * 1.5 * 0.02095 * 1.1572, rel=1e-3)


def test_a_converter_draws_what_it_delivers_over_its_efficiency() -> None:
    """3.3 V behind the board's regulator: power in is power out over efficiency."""
    result = power(kit("B10", "S03", "M02", "A02", "D06"))
    place = result.forest.index("A02#1.v33")
    assert place is not None
    parent = result.nodes[place].parent
    delivered = result.voltage_v[place] * result.current_a[place]
    drawn = result.voltage_v[parent] * result.solved.inputs.current_a[place]
    assert np.allclose(delivered / 0.90, drawn)
    assert np.allclose(result.voltage_v[place], 3.3)


def test_states_look_at_peaks_and_heat_at_means() -> None:
    """In a working phase the limits see the peak, and its mean is there beside it."""
    plan = kit("B06", "S01", schedule=[{"name": "w", "hours": 24}])
    result = power(plan)
    at = {state.id: float(result.current_a[0, n, 0]) for n, state in enumerate(result.states)}
    assert at["idle"] < at["phase-1-mean"] < at["phase-1"]
    assert at["phase-1"] == pytest.approx(at["all"])
    assert at["start"] == pytest.approx(at["phase-1-mean"])


@pytest.mark.parametrize(
    ("activity", "mean_w", "peak_w"),
    [
        ("off", 0, 0),
        ("idle", 2.7, 3.3),
        ("light", 3.3, 3.9),
        ("normal", 3.9, 6.2),
        ("full", 6.2, 6.2),
    ],
)
def test_activities_of_a_phase(activity: str, mean_w: float, peak_w: float) -> None:
    """The ladder of activities on a board of 2.7, 3.9 and 6.2 W; a burst is the next level up."""
    plan = kit("B06", "S01", schedule=[{"name": "p", "hours": 1, "activity": activity}])
    result = power(plan)
    place = result.forest.index("B06#1.main")
    assert place is not None
    drawn = result.voltage_v[place] * result.current_a[place]
    at = {state.id: float(drawn[n, 0]) for n, state in enumerate(result.states)}
    assert at["phase-1-mean"] == pytest.approx(mean_w, abs=1e-4)
    assert at["phase-1"] == pytest.approx(peak_w, abs=1e-4)


def test_a_line_can_do_something_else_than_the_rest() -> None:
    """`lines` of a phase overrides its activity."""
    phase = {"name": "p", "hours": 1, "activity": "normal", "lines": {"X06": "off"}}
    result = power(kit("B06", "S01", "X06", schedule=[phase]))
    place = result.forest.index("X06#1.bus")
    assert place is not None
    number = [state.id for state in result.states].index("phase-1")
    assert float(result.current_a[place, number, 0]) == 0.0


def test_pwr_01_a_plug_of_the_wrong_kind_leaves_the_board_dark() -> None:
    """Micro-USB into USB-C; silent with the right plug."""
    finding = told(checked(kit("B06", "S06", "M02")), "PWR-01")[0]
    assert "USB-C power input" in finding.sentence.text
    assert told(checked(kit("B06", "S01", "M02")), "PWR-01") == []


def test_pwr_02_a_supply_too_small_and_its_derating() -> None:
    """2.4 A cannot feed a fast card; on a hot day a supply gives less."""
    small = checked(kit("B10", "S07", "C04", "M02", "2xX06"))
    assert [f.severity for f in told(small, "PWR-02")] == ["problem"]
    (burst,) = told(checked(kit("B10", "S07", "C04", "M02", "X06")), "PWR-02")
    assert burst.severity == "tight", "a burst of 1.1 times the rating"
    assert re.search(
        r"in bursts during “all day”, 1\.\d\d A on average; its rating is", burst.sentence.text
    )
    assert told(checked(kit("B06", "S01", "M02")), "PWR-02") == []
    hot = checked(kit("B06", "S01", "M02", place={"ambient_max_c": 50}))
    assert margin(hot, "PWR-02:S01#1.out").limit == pytest.approx(3.0 * (1 - 0.02 * 10))


def test_pwr_03_five_amperes_through_an_unmarked_lead() -> None:
    """USB Type-C: any lead that is not marked for 5 A carries 3 A."""
    heavy = ("B10", "S98", "M02", "X06")
    day = [{"name": "all day", "hours": 24, "activity": "full"}]
    plain = checked(kit(*heavy, "C01", schedule=day), catalogue=with_part(**WIDE))
    assert margin(plain, "PWR-03:C01#1.wire").limit == 3.0
    assert told(plain, "PWR-03") != []
    marked = checked(kit(*heavy, "C02", schedule=day), catalogue=with_part(**WIDE))
    assert margin(marked, "PWR-03:C02#1.wire").limit == 5.0
    assert told(marked, "PWR-03") == []


@pytest.mark.parametrize(
    ("supply", "cable", "limit"),
    [("S03", (), 1.5), ("S01", (), 0.65), ("S05", ("C02",), 0.65)],
)
def test_pwr_04_the_group_limit_follows_the_announcement(
    supply: str, cable: tuple[str, ...], limit: float
) -> None:
    """5 A announced by supply and path: the full limit; otherwise the lower one."""
    report = checked(kit("B10", supply, *cable, "M02", "X06"))
    found = margin(report, "PWR-04:B10#1.usb")
    assert found.limit == limit
    assert (found.severity == "problem") is (limit < 0.85)


def test_pwr_04_announcement_is_lost_on_an_unmarked_lead() -> None:
    """A supply that can say 5 A is not heard through a 3 A lead."""
    for cable, limit in (("C01", 0.65), ("C02", 1.5)):
        report = checked(kit("B10", "S98", cable, "M02", "X06"), catalogue=with_part(**WIDE))
        assert margin(report, "PWR-04:B10#1.usb").limit == limit


def test_pwr_04_the_setting_lifts_the_limit() -> None:
    """At one's own risk, without the announcement."""
    plan = kit("B10", "S01", "M02", "X06", settings={"lift_port_limit": True})
    report = checked(plan)
    assert margin(report, "PWR-04:B10#1.usb").limit == 1.5
    assert [f.id for f in told(report, "PWR-04") if f.severity == "note"] == [
        "PWR-04:B10#1.usb.lifted"
    ]
    advertised = checked(kit("B10", "S03", "M02", "X06", settings={"lift_port_limit": True}))
    assert told(advertised, "PWR-04") == [], "nothing was held down"


def test_pwr_04_a_setting_lifts_the_limit_of_other_boards_too() -> None:
    """0.6 A, and 1.2 with the setting; its risk is told. Nothing is said of an announcement."""
    older = custom_part(
        "board", "B99", "older_card", rails={"usb": {"limit_a": 0.6, "limit_lifted_a": 1.2}}
    )
    for lift, limit in ((False, 0.6), (True, 1.2)):
        plan = kit("B99", "S06", "M02", "X06", settings={"lift_port_limit": lift})
        report = checked(plan, catalogue=older)
        assert margin(report, "PWR-04:B99#1.usb").limit == limit
        sentences = [f.sentence.text for f in told(report, "PWR-04")]
        assert not any("announced" in sentence for sentence in sentences)
        assert any("own risk" in sentence for sentence in sentences) is lift


def test_trd12_one_disk_on_the_boards_ports_works_and_two_do_not() -> None:
    """Common practice: 1.0 A of spin-up against 1.2 A shared; two ask for 2.0 A."""
    one = checked(kit("B06", "S01", "M02", "A12", "D11"))
    assert margin(one, "PWR-04:B06#1.usb").severity != "problem"
    two = checked(kit("B06", "S01", "M02", "2xA12", "2xD11"))
    crowded = margin(two, "PWR-04:B06#1.usb")
    assert (crowded.severity, crowded.state) == ("problem", "start")


def test_trd15_a_computers_port_is_no_supply() -> None:
    """Common practice: 0.9 A at best against 2.5 to 3 A must fail."""
    port = custom_part("power_supply", "S08", "usb_a_port", source={"set_v": 5.0, "rated_a": 0.9})
    report = checked(kit("B06", "S08", "C04", "M02"), catalogue=port)
    assert [f.severity for f in told(report, "PWR-02")] == ["problem"]


def test_pwr_05_one_greedy_thing_trips_its_socket() -> None:
    """1.6 A through a socket of 1.2 A, while a small thing is silent."""
    greedy = custom_part(
        "device", "X99", "usb2_device", loads={"own": {"idle": 0.2, "normal": 0.3, "peak": 1.6}}
    )
    report = checked(kit("B10", "S03", "M02", "X99"), catalogue=greedy)
    assert any("Own draws" in f.sentence.text for f in told(report, "PWR-05"))
    assert told(checked(kit("B10", "S03", "M02", "X07")), "PWR-05") == []


def test_pwr_06_a_thin_lead_raises_the_flag() -> None:
    """2 m of thin lead under a fast card; the short thick one is silent."""
    thin = told(checked(kit("B06", "S05", "C03", "M02")), "PWR-06")
    assert {f.id.rsplit(".", 1)[1] for f in thin} >= {"flag"}
    assert told(checked(kit("B06", "S01", "M02")), "PWR-06") == []


def test_pwr_06_brown_out_stops_and_the_flag_is_tight() -> None:
    """Below the flag it slows down, below brown-out it resets, and then the flag is not told."""
    report = checked(kit("B10", "S02", "M02", "K05", "E03"))
    severity = {f.id.rsplit(".", 1)[1]: f.severity for f in told(report, "PWR-06")}
    assert severity == {"flag": "tight"}
    worse = checked(kit("B10", "S05", "C03", "M02", "X06", "K05"))
    severity = {f.id.rsplit(".", 1)[1]: f.severity for f in told(worse, "PWR-06")}
    assert severity == {"brownout": "problem"}


def test_pwr_07_a_thing_at_the_end_of_the_line() -> None:
    """4.4 V at the plug, USB 2.0 7.2.2 (from memory); silent on a good supply."""
    low = checked(kit("B10", "S02", "M02", "X06", "X07", "K05"))
    assert told(low, "PWR-07") != []
    assert told(checked(kit("B06", "S01", "M02", "X07")), "PWR-07") == []


def test_pwr_08_a_collapse_is_a_finding_and_not_an_exception() -> None:
    """Twelve ohms of lead: no operating point, and no other rule of supply makes something up."""
    awful = custom_part("cable", "C99", "usb_c_lead_3a", plugs={"in": {"cable_ohm": [12]}})
    report = checked(kit("B06", "S05", "C99", "M02"), 32, awful)
    assert told(report, "PWR-08")[0].severity == "problem"
    assert [m for m in report.margins if m.family == "power_supply"] == []
    assert told(checked(kit(*SMALL), 32), "PWR-08") == []


def test_pwr_08_a_collapse_of_everything_at_once_leaves_the_rest_to_be_judged() -> None:
    """A board that idles at the end of an ohm: fed while it does, and not at its peak."""
    long = custom_part("cable", "C99", "usb_c_lead_3a", plugs={"in": {"cable_ohm": [1.1]}})
    idle = [{"name": "waiting", "hours": 24, "activity": "idle"}]
    report = checked(kit("B06", "S05", "C99", "M02", schedule=idle), 1, long)
    (note,) = told(report, "PWR-08")
    assert (note.severity, "in the worst case" in note.sentence.text) == ("note", True)
    assert margin(report, "PWR-02:S05#1.out").states == ("idle", "phase-1", "start")


def test_pwr_08_some_samples_without_a_point_make_it_tight() -> None:
    """A lead that may be four times as bad: the nominal point is there, some samples have none."""
    old = custom_part("cable", "C99", "usb_c_lead_3a", plugs={"in": {"cable_ohm": [0.3, 0.5, 4.0]}})
    report = checked(kit("B06", "S05", "C99", "M02"), 64, old)
    findings = told(report, "PWR-08")
    assert [f.severity for f in findings] == ["tight"]


def test_a_powered_hub_is_a_source_of_its_own() -> None:
    """What hangs on it loads its supply, and the board's sockets carry nothing of it."""
    plan = kit("B06", "S01", "M02", "H03", "A12", "D11")
    lines = [
        line.model_copy(update={"pins": {"usb": "H03#1.d1"}}) if line.id == "A12" else line
        for line in plan.lines
    ]
    report = checked(plan.model_copy(update={"lines": tuple(lines)}))
    roots = [node for node in report.power.nodes if node.parent is None]
    assert {node.id for node in roots} == {"S01#1.out", "H03#1.down"}
    assert max(roots[1].current_a) > 0.9
    assert report.margin("PWR-04:B06#1.usb") is None


def test_bursts_add_up_in_squares() -> None:
    """Two loads of 1 and 2 W that burst by 3 and 4 W: 3 + 5 W in a phase, 10 W all at once; of one
    line, as drives of an array, they move together.
    """
    load = {"rail": "in", "unit": "w", "idle": 0, "normal": 1, "peak": 4}
    other = {**load, "normal": 2, "peak": 6}
    pair = shipped().extended(
        [
            {
                "id": f"X8{n}",
                "kind": "device",
                "maker": "m",
                "model": "Load",
                "rails": {"in": {"label": "in"}},
                "loads": {"own": own},
                "plugs": {"usb": {"connectors": ["usb-a"], "role": "device", "rail": "in"}},
            }
            for n, own in enumerate((load, other))
        ]
    )
    schedule = [
        {"name": "w", "hours": 24, "activity": "off", "lines": {"X80": "normal", "X81": "normal"}}
    ]
    result = power_of(Kit(kit("B06", "S01", "X80", "X81", schedule=schedule), pair, 1))
    place = result.forest.index("B06#1.usb")
    assert place is not None
    at = {
        state.id: float(result.current_a[place, n, 0] * result.voltage_v[place, n, 0])
        for n, state in enumerate(result.states)
    }
    assert at["phase-1-mean"] == pytest.approx(3)
    assert at["phase-1"] == pytest.approx(3 + 5)
    assert at["all"] == pytest.approx(10)


def test_drives_of_one_line_burst_together() -> None:
    """Two mirrored drives behind converters of their own are one load, two strangers are two."""

    def burst_w(*parts: str) -> float:
        result = power(kit("B10", "S03", "A05", *parts, schedule=[{"name": "w", "hours": 24}]))
        state = [s.id for s in result.states].index("phase-1")
        lines = {parts[0].removeprefix("2x"), parts[-1]}
        places = [n for n, node in enumerate(result.nodes) if node.item.line.id in lines]
        own = [float(result.burst_a_of(n)[state] * result.voltage_v[n, state, 0]) for n in places]
        root = next(n for n, node in enumerate(result.nodes) if node.parent < 0)
        board = result.forest.index("B10#1.main")
        assert board is not None
        alone = float(result.burst_a_of(board)[state])
        carried = float(result.solved.rails.burst_a[root, state, 0])
        drives_w = np.sqrt(carried**2 - alone**2) * float(result.voltage_v[board, state, 0])
        return float(drives_w * 0.9 / sum(own))

    assert burst_w("2xD06") == pytest.approx(1, rel=0.02)
    assert burst_w("D06", "D05") == pytest.approx(np.sqrt(0.5), rel=0.03)


@pytest.mark.parametrize(
    ("part", "adapter", "share"),
    [("D07", "A02", 0.35), ("D06", "A02", 0.35), ("D09", "A12", 500 / 540), ("D11", "A12", 1.0)],
)
def test_a_drive_draws_what_its_lane_lets_through(part: str, adapter: str, share: float) -> None:
    """P_idle + (P - P_idle) f with f the raw rate over its own, at least 0.35; a disk always 1."""
    result = power(kit("B10", "S03", adapter, part))
    (name,) = (n.id for n in result.nodes if n.item.part.id == part)
    place = result.forest.index(name)
    assert place is not None
    state = [s.id for s in result.states].index("all")
    own = shipped().part(part).loads["own"]
    drawn_w = float(result.voltage_v[place, state, 0] * result.current_a[place, state, 0])
    expected = own.idle.nominal + (own.peak.nominal - own.idle.nominal) * share
    assert drawn_w == pytest.approx(expected)


def test_drives_on_one_lane_share_it() -> None:
    """Two on one lane of 500 have 250 each; alone, a slot that is pushed lets 985 through."""

    def rate(*parts: str, **fields: Any) -> float:
        return next(iter(power(kit("B10", "S03", *parts, **fields)).hung.lanes.values())).rate_mb_s

    assert rate("A06", "2xD01") == 250
    assert rate("A04", "D01") == 500
    pushed = rate("A04", "D01", settings={"push_slot": True})
    assert pushed == pytest.approx(8000 * 128 / 130 / 8), "generation 3, one lane"


@settings(max_examples=20, deadline=None)
@given(st.floats(10, 4000), st.floats(1, 3))
def test_a_faster_lane_never_lowers_a_draw(rate_mb_s: float, faster: float) -> None:
    """Property: at no activity does a drive draw less where more comes through."""
    compiled = shipped().compiled(shipped().part("D06"), 8)
    slow, fast = narrow(compiled, rate_mb_s), narrow(compiled, rate_mb_s * faster)
    table = compiled.loads["own"].table
    slow_w = table if slow is None else slow.loads["own"].table
    fast_w = table if fast is None else fast.loads["own"].table
    assert (fast_w >= slow_w - 1e-12).all()
    assert (table >= fast_w - 1e-12).all()


def test_the_budget_of_the_header_is_not_that_of_card_and_camera() -> None:
    """0.35 A of a card and a camera leave the header's 3.3 V as it is."""
    report = checked(kit("B06", "S01", "M02", "X28", "X18"))
    found = margin(report, "PWR-04:B06#1.header33")
    assert found.value == pytest.approx(0.001)
    assert report.margin("PWR-04:B06#1.v33") is None


def test_a_fan_may_take_all_that_its_plug_gives() -> None:
    """0.18 of 0.2 A, while a drive so close to its limit is tight."""
    report = checked(kit("B11", "S03", "M02", "K05", "E03"))
    found = margin(report, "PWR-04:B11#1.fan")
    assert found.value / found.limit > 0.8
    assert found.severity == "ok"


def test_a_disk_takes_the_hub_that_can_feed_it() -> None:
    """Beside free sockets of the board the powered hub's comes first, for a disk alone."""
    result = power(kit("B06", "S01", "M02", "H03", "A12", "D11", "X07"))
    above = {node.item.id: result.nodes[node.parent].item.id for node in result.nodes}
    assert above["A12#1"] == "H03#1"
    assert above["X07#1"] == "B06#1"


@settings(max_examples=40, deadline=None)
@given(st.floats(0, 3), st.floats(0, 3))
def test_more_load_never_raises_a_voltage(first_w: float, more_w: float) -> None:
    """Property: add watts to the board, and no rail of the kit rises."""

    def volts(peak_w: float) -> np.ndarray:
        catalogue = shipped().extended(
            [
                {
                    "id": "B06",
                    "kind": "board",
                    "part_class": "middle_card",
                    "maker": "m",
                    "model": "x",
                    "loads": {"own": {"idle": 0.1, "normal": 0.2, "peak": 0.3 + peak_w}},
                }
            ]
        )
        plan = kit("B06", "S01", "M02", "X06")
        return power_of(Kit(plan, catalogue, 1)).voltage_v

    assert (volts(first_w + more_w) <= volts(first_w) + 1e-6).all()


@pytest.mark.parametrize("added", ["X05", "X07", "X09", "X10", "X28", "X38", "H02", "K05"])
def test_a_load_on_a_way_of_its_own_never_raises_a_voltage(added: str) -> None:
    """In no state and no draw, with bursts in squares: what joins draws more from what is above."""
    parts = ("B10", "S02", "M02", "A02", "D06", "X06")
    schedule = [{"name": "day", "hours": 12}, {"name": "night", "hours": 12, "activity": "light"}]
    before, after = (
        power(kit(*parts, schedule=schedule), 32),
        power(kit(*parts, added, schedule=schedule), 32),
    )
    for place, node in enumerate(before.nodes):
        there = after.forest.index(node.id)
        assert there is not None
        assert (after.voltage_v[there] <= before.voltage_v[place] + 1e-5).all(), node.id


@pytest.mark.parametrize(("limits", "severity"), [("electronic", "tight"), (None, "note")])
def test_a_limit_that_trips_bears_nothing_above_it(limits: str | None, severity: str) -> None:
    """1.58 A of 1.50 with everything running at once: the ports of a fast board switch off then; a
    plain fuse would not notice.
    """
    board = {
        "id": "B90",
        "kind": "board",
        "part_class": "fast_card",
        "maker": "m",
        "model": "Board",
        "rails": {"usb": {"limit_a": 1.5, "limits": limits}},
    }
    day = [{"name": "all day", "hours": 24, "activity": "light"}]
    plan = kit("B90", "S03", "M02", "X06", "X11", "X09", schedule=day)
    (finding,) = told(checked(plan, 1, with_part(**board)), "PWR-04")
    assert (finding.severity, "the worst case" in finding.sentence.text) == (severity, True)
