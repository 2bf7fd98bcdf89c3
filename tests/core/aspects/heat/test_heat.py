import math
import re

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.aspects.heat.enclosure import (
    Enclosure,
    Faces,
    HeatInput,
    outside_w_k,
    solve_enclosure,
)
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from tests.kits import SMALL, checked, kit, margin, shipped, told, with_part

ROOM = {
    "inner_length_mm": 95,
    "inner_width_mm": 66,
    "inner_height_mm": 35,
    "max_above_mm": 30,
    "max_below_mm": 4,
    "holes": ["H1"],
}


def class_kit(case: str | None, **board: object) -> tuple[Plan, Catalogue]:
    """A fast card with a clip-on cooler, of class figures alone, in a case of class figures."""
    parts = [
        {
            "id": "B00",
            "kind": "board",
            "part_class": "fast_card",
            "maker": "m",
            "model": "b",
            **board,
        },
        {"id": "K00", "kind": "cooler", "part_class": "clip_on_fan", "maker": "m", "model": "k"},
        {
            "id": "E00",
            "kind": "case",
            "part_class": "vented_plastic",
            "maker": "m",
            "model": "v",
            "case": {**ROOM, "vent_low_cm2": 3, "vent_high_cm2": 4},
        },
        {
            "id": "E10",
            "kind": "case",
            "part_class": "sealed_plastic",
            "maker": "m",
            "model": "s",
            "case": ROOM,
        },
    ]
    chosen = ("B00", "K00") if case is None else ("B00", "K00", case)
    return kit(*chosen, place={"ambient_max_c": 25}), shipped().extended(parts)


def die_c(case: str | None, **board: object) -> dict[str, float]:
    """Die temperature by state, as if the clock never gave way."""
    plan, catalogue = class_kit(case, **board)
    heat = checked(plan, catalogue=catalogue).heat
    return dict(zip([s.id for s in heat.states], heat.wanted_die_c, strict=True))


def test_class_figures_in_a_vented_case_are_believable() -> None:
    """Common practice, 25 °C outside: about 43 idle, 57 working, 73 at 8.5 W, 85 at 10.5 W."""
    found = die_c("E00")
    assert found["idle"] == pytest.approx(43, abs=4)
    assert found["phase-1-mean"] == pytest.approx(57, abs=5)
    assert found["all"] == pytest.approx(85, abs=6)
    at_8_5_w = die_c("E00", loads={"own": {"peak": [8.5]}})
    assert at_8_5_w["all"] == pytest.approx(73, abs=5)


def test_class_figures_in_open_air_and_in_a_sealed_case() -> None:
    """Common practice: 57 to 61 °C at peak in the open; sealed plastic throttles hard."""
    assert die_c(None)["all"] == pytest.approx(59, abs=3)
    plan, catalogue = class_kit("E10")
    heat = checked(plan, catalogue=catalogue).heat
    assert heat.wanted_die_c[-1] > 100
    assert heat.speed_share[-1] < 0.75


def test_the_governor_holds_the_die_at_its_limit() -> None:
    """Where it throttles, the die sits at the throttle point and the clock is below full."""
    plan, catalogue = class_kit("E10")
    heat = checked(plan, catalogue=catalogue).heat
    die = next(node for node in heat.nodes if node.id == "die")
    assert die.temp_c[-1] == pytest.approx(80, abs=0.1)
    assert heat.speed_share[0] == 1.0


def test_heat_given_off_leaves_through_the_wall() -> None:
    """Balance: what the kit draws inside is what the outer wall and the vents give off."""
    faces = Faces(0.13, 0.095, 0.045, 0.5)
    shell = Enclosure(faces, faces, np.array([2.0]), np.array([0.9]))
    found = solve_enclosure(shell, HeatInput(np.array([[4.0]])), np.array([[300.0]]))
    out = outside_w_k(shell, found.outer_wall_k, np.array([[300.0]])) * (found.outer_wall_k - 300)
    assert float(out[0, 0]) == pytest.approx(4.0, rel=1e-3)


@pytest.mark.parametrize(
    "parts",
    [
        ("B10", "S03", "M02", "K03", "E01"),
        ("B10", "S03", "M02", "K03", "E04"),
        ("B10", "S12", "M02", "A06", "D03", "D04", "K05", "E03"),
        ("B10", "S03", "M02", "A04", "D03", "E08"),
        ("B10", "S03", "M02", "A05", "2xD06", "K05", "E01"),
    ],
)
def test_what_flows_in_flows_out_of_every_node(parts: tuple[str, ...]) -> None:
    """Balance at cooler, air and wall, held or not; all that is given off reaches the outside."""
    heat = checked(kit(*parts)).heat
    for number, state in enumerate(heat.states):
        net: dict[str, float] = {}
        for path in heat.paths:
            net[path.start] = net.get(path.start, 0.0) - path.power_w[number]
            net[path.end] = net.get(path.end, 0.0) + path.power_w[number]
        for node in ("sink", "inside", "wall"):
            assert net.get(node, 0.0) == pytest.approx(0, abs=0.02), (state.id, node)
        assert net["outside"] == pytest.approx(heat.inside_w[number], rel=0.005), state.id


@pytest.mark.parametrize(
    ("parts", "first"),
    [
        (("B10", "S03", "M02", "K03", "E04"), "the processor throttles"),
        (("B10", "S03", "M02", "K05", "E03", "A06", "2xD04"), "Setts 1T #1 throttles"),
        (("B10", "S03", "M02", "K05", "A02", "D07"), "Sarsen 2T throttles"),
        (("B10", "S03", "M02", "K05", "E11", "A12", "D11"), "the hard disk of Drum 1T is too hot"),
        (("B06", "S01", "M02", "K05"), "Hurdle 2 is outside its rated temperature"),
    ],
)
def test_on_the_highest_safe_day_the_first_thing_gives_way(
    parts: tuple[str, ...], first: str
) -> None:
    """Judged again half a degree below that day nothing planned is too hot, leaves its rating or
    slows to less than is sound; half a degree above something does.
    """
    schedule = [{"name": "recording", "hours": 3, "activity": "normal"}]
    now = checked(kit(*parts, schedule=schedule, place={"ambient_max_c": 25})).heat
    assert now.hottest_ambient_then == first
    assert now.hottest_ambient_c is not None

    def snags(day_c: float) -> list[str]:
        report = checked(kit(*parts, schedule=schedule, place={"ambient_max_c": day_c}))
        planned = [n for n, state in enumerate(report.heat.states) if state.hard]
        return [
            m.id
            for m in report.margins
            if m.family == "heat"
            and any(m.severity_by_state[n] in ("tight", "problem") for n in planned)
        ] + [f.id for f in told(report, "HEAT-03")]

    assert snags(now.hottest_ambient_c - 0.5) == []
    assert snags(now.hottest_ambient_c + 0.5) != []


def test_heat_01_fires_when_hot_and_is_silent_when_cool() -> None:
    """It is judged by the clock that is kept, and told as what will be seen, never as a temperature
    to which no processor comes.
    """
    parts = ("B10", "S03", "M02", "K03", "E04")
    hot, hotter = (checked(kit(*parts, place={"ambient_max_c": day})) for day in (42, 51))
    (tight,), (stops,) = told(hot, "HEAT-01"), told(hotter, "HEAT-01")
    assert (tight.severity, stops.severity) == ("tight", "problem")
    assert re.fullmatch(
        r"The processor of Mullion 8 slows to 8\d % of its clock during “all day” at 42 °C "
        r"ambient\. "
        r"At full clock it would exceed 80 °C by [5-9] °C\.",
        tight.sentence.text,
    )
    assert re.search("slows to [45]. % of its clock", stops.sentence.text)
    assert told(checked(kit(*SMALL)), "HEAT-01") == []


def test_heat_01_a_tenth_of_the_clock_is_not_missed() -> None:
    """Past its throttle point a processor keeps 90 % and more: no snag; a little later one."""
    parts = ("B10", "S03", "M02", "K03", "E04")
    good_c = checked(kit(*parts)).heat.hottest_ambient_c
    assert good_c is not None
    near = checked(kit(*parts, place={"ambient_max_c": good_c - 0.3}))
    assert 0.9 < near.heat.speed_share[1] < 1
    assert told(near, "HEAT-01") == []
    family = next(f for f in near.families if f.id == "heat")
    assert (family.severity, family.spare, family.ruler_share) == ("ok", 0.0, 0.0)
    past = checked(kit(*parts, place={"ambient_max_c": good_c + 0.3}))
    assert past.heat.speed_share[1] < 0.9
    assert [f.severity for f in told(past, "HEAT-01")] == ["tight"]


def test_heat_01_everything_at_once_is_the_marker_alone_and_the_ruler_shows_the_day() -> None:
    """A fast card under a plate in a vented case: sound at its work, and slower only in what no
    hour of its day holds.
    """
    report = checked(kit("B10", "S03", "M02", "K03", "E03"), 256)
    assert told(report, "HEAT-01") == []
    die = next(m for m in report.margins if m.rule == "HEAT-01")
    assert (die.severity, die.state) == ("ok", "phase-1-mean")
    assert die.spare > 5
    assert die.worst_case is not None
    assert die.worst_case.spare < 0
    assert report.heat.least_speed_share < 0.9


def test_heat_01_in_light_work_nobody_waits() -> None:
    """A middle card bare in a low case slows while it idles along: a note; at its work a snag."""
    light = {"schedule": [{"name": "day", "hours": 24, "activity": "light"}]}
    place = {"ambient_max_c": 36}
    (note,) = told(checked(kit("B06", "S01", "M02", "E02", place=place, **light)), "HEAT-01")
    assert note.severity == "note"
    (snag,) = told(checked(kit("B06", "S01", "M02", "E02", place=place)), "HEAT-01")
    assert snag.severity in ("tight", "problem")


def test_where_nothing_is_sound_there_is_no_highest_ambient() -> None:
    """A bare fast card at full load in a small sealed box: empty, and not the end of the search."""
    full = [{"name": "day", "hours": 24, "activity": "full"}]
    place = {"sun_w_m2": 1000, "ambient_max_c": 35}
    heat = checked(kit("B11", "S03", "M02", "E02", schedule=full, place=place), 64).heat
    assert heat.hottest_ambient_c is None
    assert (heat.hottest_ambient_p05_c, heat.hottest_ambient_p95_c) == (None, None)


def test_heat_02_a_kit_that_cannot_be_cooled() -> None:
    """A bare fast card in a sealed box at 75 °C is too hot even idle."""
    report = checked(kit("B10", "S03", "M02", "E04", place={"ambient_max_c": 75}))
    assert told(report, "HEAT-02")[0].severity == "problem"
    assert told(report, "HEAT-01") == []
    assert told(checked(kit(*SMALL)), "HEAT-02") == []


def test_heat_03_the_coldest_and_the_hottest_day() -> None:
    """A board for 0 to 50 °C at -12; the one chosen for the cold is silent."""
    cold = {"ambient_min_c": -12, "ambient_max_c": 20}
    finding = told(checked(kit("B06", "S01", "M02", place=cold)), "HEAT-03")[0]
    assert "from 0 °C" in finding.sentence.text
    assert told(checked(kit("B07", "S01", "M02", place=cold)), "HEAT-03") == []
    hot = checked(kit("B07", "S01", "D11", "A12", "M02", place={"ambient_max_c": 57}))
    assert [f.lines for f in told(hot, "HEAT-03")] == [("D11",)]


def test_heat_07_what_lies_in_the_sun() -> None:
    """A supply with its full load to 40 °C, at 35 °C of shade: 0.052 x 800 / 4 = 10.4 K more. What
    is cool enough, too warm without sun, in the shade, or made for the sun is not told of.
    """
    sun = {"ambient_min_c": 0, "ambient_max_c": 35, "sun_w_m2": 800, "mounting": "hung"}
    (note,) = told(checked(kit(*SMALL, place=sun)), "HEAT-07")
    assert (note.severity, note.lines) == ("note", ("S01",))
    assert re.search("about 45.°C at 35.°C ambient, rated up to 40.°C", note.sentence.text)
    for other in ({"ambient_max_c": 29}, {"ambient_max_c": 41}, {"sun_w_m2": 0}):
        assert told(checked(kit(*SMALL, place={**sun, **other})), "HEAT-07") == []
    on_sun = ("B06", "S33", "M02", "E03")
    assert told(checked(kit(*on_sun, place={**sun, "power": "solar"})), "HEAT-07") == []


def test_heat_04_says_when_nothing_is_known() -> None:
    """A board without thermal figures is not cool: it is not known."""
    catalogue = shipped().extended(
        [
            {
                "id": "B06",
                "kind": "board",
                "part_class": "middle_card",
                "maker": "m",
                "model": "x",
                "board_heat": None,
            }
        ]
    )
    report = checked(kit("B06", "S01", "M02"), catalogue=catalogue)
    assert told(report, "HEAT-04")[0].sentence.text.startswith("Not checked:")
    assert told(checked(kit(*SMALL)), "HEAT-04") == []


@pytest.mark.parametrize(
    ("parts", "unknown"),
    [
        (("2xB10", "2xK03"), None),
        (("2xB10",), None),
        (("2xB10", "K03"), "Mullion 8 #2"),
        (("B10", "2xB06", "3xK03"), "Hurdle 2 #1 and Hurdle 2 #2"),
    ],
)
def test_heat_04_tells_of_boards_that_are_not_worked_out(
    parts: tuple[str, ...], unknown: str | None
) -> None:
    """One is; others of its kind under a cooler of the same kind get as warm."""
    told_of = [f.sentence.text for f in told(checked(kit(*parts)), "HEAT-04")]
    if unknown is None:
        assert told_of == []
    else:
        assert told_of == [
            f"Not checked: the temperature of {unknown}. It is calculated for "
            f"Mullion 8{' #1' if parts[0] == '2xB10' else ''} only."
        ]


def test_heat_05_a_hungry_drive_slows_itself() -> None:
    """A drive that nobody waits for may slow a little: a note; one that hardly works at all is
    tight; a small one under a fan holds.
    """
    slowed = checked(kit("B10", "S03", "M02", "A04", "D03", "K03", "E03"))
    (slow,) = told(slowed, "HEAT-05")
    assert slow.severity == "note"
    assert re.search(r"slows to [67]\d % of its speed", slow.sentence.text)
    hungry = checked(kit("B10", "S03", "M02", "A02", "D07", "K03", "E03"))
    (stops,) = told(hungry, "HEAT-05")
    assert (stops.severity, stops.sentence.text[-10:]) == ("tight", "when idle.")
    schedule = [{"name": "day", "hours": 24, "activity": "light"}]
    light = checked(kit("B10", "S03", "M02", "A04", "D01", "K05", "E03", schedule=schedule))
    margins = [m for m in light.margins if m.rule == "HEAT-05"]
    assert margins[0].spare_by_state[1] > 0
    assert margins[0].severity_by_state[:2] == ("ok", "ok")


def test_heat_05_a_transfer_that_waits_for_a_drive_tells_of_it() -> None:
    """Of a drive that slows and that a wish hangs on, Data says so with the reason."""
    wish = [{"id": "copy", "text": "a copy", "source": "program", "target": "storage"}]
    wish[0] |= {"amount_gb": 100, "least_mb_s": 480}  # type: ignore[dict-item]
    report = checked(kit("B10", "S03", "M02", "A04", "D03", "K03", "E03", transfers=wish))
    assert told(report, "HEAT-05") == []
    assert [f.severity for f in told(report, "DATA-01")] == ["tight"]


def test_what_slows_itself_is_settled_together() -> None:
    """In every draw drives and processor each sit at their limit, have all their speed, or rest; no
    drive that can slow is told hotter than its throttle point, and less heat never warms the air.
    """
    heat = heat_of(Kit(kit("B10", "S03", "M02", "A06", "D06", "D04", "K05", "E03"), shipped(), 64))
    work = heat.work
    assert work is not None
    held, wanted = work.governed, work.wanted
    assert np.all(held.air_k <= wanted.air_k + 0.01)
    at_limit = heat.speed_share < 1
    assert at_limit.any()
    assert held.die_k[at_limit] == pytest.approx(
        np.broadcast_to(work.limit_k, at_limit.shape)[at_limit], abs=0.02
    )
    slowed = 0
    for hot in heat.hot_bodies:
        if not hot.slows:
            continue
        share = hot.speed_share
        between = (share < 1) & (share > 0)
        slowed += int(between.sum())
        limit_c = np.broadcast_to(hot.limit_c, share.shape)
        assert hot.held_c[between] == pytest.approx(limit_c[between], abs=0.02)
        assert hot.held_w[share == 0] == pytest.approx(hot.rest_w[share == 0])
        assert hot.held_w[share == 1] == pytest.approx(hot.power_w[share == 1])
        assert np.all(hot.held_c[share > 0] <= limit_c[share > 0] + 0.05)
    assert slowed > 10


def test_the_regulator_of_a_held_drive_loses_less() -> None:
    """What a converter loses follows its drive: a tenth of what that gives off, over 0.9."""
    heat = heat_of(Kit(kit("B10", "S03", "M02", "A04", "D03", "K03", "E04"), shipped(), 1))
    regulator, drive = heat.hot_bodies
    assert float(drive.speed_share[1, 0]) < 1
    for state in range(3):
        lost_w = float(drive.held_w[state, 0]) * (1 / 0.9 - 1)
        assert float(regulator.held_w[state, 0]) == pytest.approx(lost_w, rel=1e-6)


def test_the_sun_warms_a_box_and_its_heat_leaves_again() -> None:
    """What the wall takes in from the sun leaves over its outside; light grey takes in less."""
    parts = ("B07", "S01", "M02", "K03", "E12")
    sunny = {"ambient_max_c": 30, "sun_w_m2": 800, "mounting": "hung"}
    shade = checked(kit(*parts, place={**sunny, "sun_w_m2": 0}))
    bright = checked(kit(*parts, place=sunny))
    air = [next(n for n in r.heat.nodes if n.id == "inside").temp_c[0] for r in (shade, bright)]
    assert air[1] > air[0] + 4
    out = next(p for p in bright.heat.paths if (p.start, p.end) == ("wall", "outside"))
    box = (0.200 * 0.150 + 0.200 * 0.079) / math.sqrt(2)
    assert out.power_w[0] == pytest.approx(bright.heat.inside_w[0] + 0.45 * 800 * box, rel=0.02)


def test_heat_02_minds_only_states_that_must_hold() -> None:
    """Drives at their peak all at once may heat an idle processor too far: the marker alone."""
    parts = ("B10", "S03", "M02", "A06", "D06", "D04", "K05", "E03")
    schedule = [{"name": "day", "hours": 24, "activity": "light"}]
    report = checked(kit(*parts, schedule=schedule, place={"ambient_max_c": 34}))
    die = next(m for m in report.margins if m.rule == "HEAT-01")
    assert told(report, "HEAT-02") == []
    assert (die.severity, die.state) == ("ok", "phase-1-mean")


def test_heat_06_a_chip_that_cooks() -> None:
    """0.8 of the 1.1 W of a twin's switch under a fan, near a warm board; in a hot box it cooks."""
    parts = ("B10", "S03", "M02", "A06", "D06", "D04", "K05")
    heat = checked(kit(*parts, "E03")).heat
    at = {node.id: node.temp_c[0] for node in heat.nodes}
    near = at["inside"] + 0.3 * (at["board"] - at["inside"])
    inner = heat_of(Kit(kit(*parts, "E03"), shipped(), 1)).work
    assert inner is not None
    wall = float(inner.governed.inner_k[0, 0]) - 273.15
    air_w_k, wall_w_k = (1 / 0.65 - 0.4) / 45, 0.4 / 45
    expected = (1.1 * 0.8 + air_w_k * near + wall_w_k * wall) / (air_w_k + wall_w_k)
    assert at["A06#1.switch"] == pytest.approx(expected, abs=0.05)
    cooked = checked(kit(*parts, "E04", place={"ambient_max_c": 58}))
    assert any("switch chip" in f.sentence.text for f in told(cooked, "HEAT-06"))


def test_a_supply_inside_heats_the_box_and_gives_less_for_it() -> None:
    """What it loses warms the air; it derates at inside air, not at the day outside."""
    outside = checked(kit("B06", "S01", "M02", "K03", "E04", place={"ambient_max_c": 40}))
    inside = checked(kit("B06", "S12", "M02", "K03", "E04", place={"ambient_max_c": 40}))
    air = [next(n for n in r.heat.nodes if n.id == "inside").temp_c for r in (outside, inside)]
    assert air[1][1] > air[0][1] + 1
    source = margin(inside, "PWR-02:S12#1.out")
    warmest = max(air[1][:2])
    assert source.limit == pytest.approx(10 * (1 - 0.025 * max(0, warmest - 50)), rel=0.01)
    assert "S12#1.parts" in {node.id for node in inside.heat.nodes}


def test_a_drive_warms_the_air_it_stands_in() -> None:
    """Its heat leaves to the air and, as radiation, to the wall; the kit without it is cooler."""
    heat = checked(kit("B10", "S03", "M02", "A04", "D03", "K03", "E03")).heat
    ways = {p.end: p.power_w[0] for p in heat.paths if p.start == "D03#1.body"}
    assert set(ways) == {"inside", "wall"}
    assert sum(ways.values()) == pytest.approx(0.6)
    without = checked(kit("B10", "S03", "M02", "A04", "K03", "E03")).heat
    air = [next(n for n in h.nodes if n.id == "inside").temp_c[0] for h in (heat, without)]
    assert air[0] > air[1] + 0.5


def test_altitude_and_a_table_make_it_warmer() -> None:
    """Thin air carries less; a face on a table gives nothing off."""

    def warmest(**place: object) -> float:
        plan = kit("B06", "S01", "M02", "K03", "E04", place={"ambient_max_c": 25, **place})
        return max(checked(plan).heat.wanted_die_c)

    assert warmest(altitude_m=3000) > warmest() + 0.5
    assert warmest(mounting="table") > warmest(mounting="feet") > warmest(mounting="hung")


def test_boards_stacked_on_it_make_a_board_warmer() -> None:
    """A drive board below hampers the air; the drive's own heat counts too."""
    bare = checked(kit("B10", "S03", "M02", "K03", "E01")).heat.wanted_die_c[0]
    stacked = checked(kit("B10", "S03", "M02", "K03", "A04", "D03", "E01")).heat.wanted_die_c[0]
    assert stacked > bare + 0.3


@settings(max_examples=25, deadline=None)
@given(st.floats(2, 20), st.floats(0.1, 10), st.sampled_from(["E03", "E04", None]))
def test_a_better_sink_never_warms_the_die(k_w: float, worse: float, case: str | None) -> None:
    """Property: a higher sink resistance gives a warmer die."""

    def warmest(resistance: float) -> float:
        catalogue = shipped().extended(
            [
                {
                    "id": "K03",
                    "kind": "cooler",
                    "part_class": "plate_sink",
                    "maker": "m",
                    "model": "x",
                    "cooler": {"r_still_k_w": resistance},
                }
            ]
        )
        parts = ["B06", "S01", "M02", "K03", *([case] if case else [])]
        return max(checked(kit(*parts), catalogue=catalogue).heat.wanted_die_c)

    assert warmest(k_w + worse) >= warmest(k_w) - 0.02


def test_safe_02_a_hot_sink_that_can_be_touched() -> None:
    """Open plates leave a hot sink in reach; a closed case keeps hands off."""
    hot = {"ambient_max_c": 45}
    assert told(checked(kit("B10", "S03", "M02", "K03", "E01", place=hot)), "SAFE-02") != []
    assert told(checked(kit("B10", "S03", "M02", "K03", "E03", place=hot)), "SAFE-02") == []


def test_the_least_clock_is_told_with_its_state() -> None:
    """A box holds less while it works than at night; a cool kit holds it all."""
    schedule = [
        {"name": "night", "hours": 8, "activity": "idle"},
        {"name": "day", "hours": 16, "activity": "full"},
    ]
    hot = {"ambient_max_c": 60}
    worked = checked(kit("B10", "S03", "M02", "K05", "E01", schedule=schedule, place=hot)).heat
    assert worked.least_speed_share == min(worked.speed_share) < 1
    assert worked.least_speed_when in ("during “day”", "with everything at once")
    by_label = dict(zip((s.label for s in worked.states), worked.speed_share, strict=True))
    assert by_label["day (mean)"] == pytest.approx(worked.least_speed_share)
    cool = checked(kit("B07", "S01", "M02", "K03")).heat
    assert (cool.least_speed_share, cool.least_speed_when) == (1.0, "")


@pytest.mark.parametrize(
    ("add_ons", "factor"),
    [((), 1.0), (("A02",), 1.25), (("A04",), 1.25), (("A02", "A04"), 1.5)],
)
def test_how_much_boards_above_and_below_hamper_a_bare_one(
    add_ons: tuple[str, ...], factor: float
) -> None:
    """All heat of a bare board in the open leaves by its own resistance, times 1.25 or 1.5.

    Factors for boards stacked on it: rough figures of the trade, from memory.
    """
    heat = checked(kit("B10", "S03", "M02", *add_ons, "E01", place={"ambient_max_c": 25})).heat
    board = next(node for node in heat.nodes if node.id == "board")
    own, thermal = shipped().part("B10").loads["own"], shipped().part("B10").board_heat
    assert thermal is not None
    rise_k = own.idle.nominal * thermal.r_ba_k_w.nominal * factor
    assert board.temp_c[0] - 25 == pytest.approx(rise_k, rel=1e-6)


def test_how_much_a_fan_over_the_board_helps_it() -> None:
    """0.7 of its resistance is left where the fan of a clip-on cooler blows over it: rough."""

    def resistance_k_w(blows: bool) -> float:
        cooler = {
            **shipped().document(shipped().part("K03")),
            "id": "K00",
            "cooler": {
                "r_still_k_w": 9,
                "r_fan_k_w": 4,
                "height_mm": 11,
                "length_mm": 40,
                "width_mm": 40,
                "blows_over_board": blows,
            },
        }
        plan = kit("B10", "S03", "M02", "K00", "E01", place={"ambient_max_c": 25})
        heat = checked(plan, catalogue=shipped().extended([cooler])).heat
        board = next(node for node in heat.nodes if node.id == "board").temp_c[0]
        away = sum(path.power_w[0] for path in heat.paths if path.start == "board")
        return (board - 25) / away

    assert resistance_k_w(True) / resistance_k_w(False) == pytest.approx(0.7)


def test_what_a_supply_inside_loses() -> None:
    """Its output over its efficiency, less its output: all that the box takes up besides."""
    parts = ("B06", "M02", "K03", "E04")
    outside, inside = checked(kit("S01", *parts)), checked(kit("S12", *parts))
    source = shipped().part("S12").source
    assert source is not None
    assert source.efficiency is not None
    given_w = inside.power.source_w[0]
    lost_w = given_w * (1 / source.efficiency.nominal - 1)
    assert inside.heat.inside_w[0] - outside.heat.inside_w[0] == pytest.approx(lost_w, rel=0.02)


def test_a_battery_that_is_charged_keeps_most_of_it() -> None:
    """8 W go into the cells of a board below, of which 14 % are heat: 1.1 W, not 8."""
    light = [{"name": "day", "hours": 24, "activity": "light"}]
    with_cells = heat_of(Kit(kit("B06", "S01", "S21", "M02", "E03", schedule=light), shipped(), 1))
    without = heat_of(Kit(kit("B06", "S01", "M02", "E03", schedule=light), shipped(), 1))
    at = with_cells.means.ids.index("phase-1-mean")
    more_w = float(with_cells.inside_w[at, 0] - without.inside_w[at, 0])
    charge_w = shipped().part("S21").loads["charge"].normal
    assert charge_w is not None
    assert 0.1 * charge_w.nominal / 2 < more_w < 0.4 * charge_w.nominal


def test_a_fan_beside_a_part_reaches_all_but_the_main_board() -> None:
    """A loose fan at the add-ons stirs a disk in its bay too; a cooler's own does not."""
    beside = with_part(
        id="K90",
        kind="cooler",
        part_class="fan_shim_30",
        maker="m",
        model="Near",
        fan={"at": "other_equipment"},
    )
    parts = ("B06", "S01", "M02", "D11", "A12", "E11")
    still, blown = (
        checked(kit(*parts, *more, schedule=[{"name": "on", "hours": 24}]), 1, beside)
        for more in ((), ("K90",))
    )
    disks = [
        next(node.temp_c[1] for node in report.heat.nodes if node.id.startswith("D11"))
        for report in (still, blown)
    ]
    assert disks[1] < disks[0]
