"""The header: who wants which pin, at which address, and how it is wired."""

from typing import Any

import pytest

from cobblewort.core.aspects.fit.header_report import HeaderPin
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.errors import InputError
from cobblewort.core.plans.patch import EditLine, SetFields, apply_patch
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.report import Report
from tests.kits import checked, kit, margin, shipped, told, with_part

BASE = ("B10", "S03", "M02", "E12")


def report_of(*parts: str, wired: list[dict[str, Any]] | None = None) -> Report:
    """A small kit in a box with room, with these parts on its header."""
    return checked(kit(*BASE, *parts, wired=wired or []))


def led(pin: int = 11, **fields: Any) -> dict[str, Any]:
    """A red LED."""
    return {"id": "lamp", "kind": "led", "label": "red lamp", "pin": pin, **fields}


def pin_of(report: Report, number: int) -> HeaderPin:
    """One pin of the drawing."""
    return report.fit.header.pins[number - 1]


@pytest.mark.parametrize(
    ("parts", "rule", "words"),
    [
        (("X04", "X34"), "FIT-12", "12 (PWM, audio clock)"),
        (("X14", "X34"), "FIT-12", "8 (serial out)"),
        (("X14", "X36"), "FIT-12", "8 (serial out) and 10 (serial in)"),
        (("X35", "X37"), "FIT-12", "22 (free use) and 24 (SPI select 0)"),
        (("X03", "X21"), "FIT-13", "0x68"),
        (("2xX17",), "FIT-13", "0x44"),
        (("X19", "X20"), "FIT-13", "0x29"),
        (("A05", "X33"), "FIT-14", "cannot be connected"),
        (("X41",), "FIT-15", "level shifter"),
    ],
)
def test_known_clashes(parts: tuple[str, ...], rule: str, words: str) -> None:
    """Pairs that practitioners know from burnt fingers (common practice)."""
    findings = told(report_of(*parts), rule)
    assert [f.severity for f in findings] == ["problem"]
    assert words in findings[0].sentence.text


@pytest.mark.parametrize(
    "parts",
    [("X04", "X33"), ("X14",), ("X35", "X19"), ("X17", "X19", "X22", "X24"), ("X33", "X37"), ()],
)
def test_what_goes_together(parts: tuple[str, ...]) -> None:
    """A shared bus at distinct addresses, and pins of one's own, are no clash."""
    report = report_of(*parts)
    for rule in ("FIT-12", "FIT-13", "FIT-14", "FIT-15", "FIT-16", "FIT-17"):
        assert told(report, rule) == []


def test_a_shared_bus_is_drawn_as_shared_and_a_clash_as_a_clash() -> None:
    """The states of the pins."""
    report = report_of("X17", "X19", "X14", "X34")
    assert pin_of(report, 3).state == "shared"
    users = {user.name: user for user in report.fit.header.users}
    assert (users["Dew"].shares, users["Dew"].takes) == ((1, 3, 5, 6), ())
    assert users["Governor"].takes == (8, 12)
    assert pin_of(report, 7).state == "used"
    assert pin_of(report, 8).state == "clash"
    assert pin_of(report, 11).state == "free"
    assert pin_of(report, 27).state == "reserved"
    assert {pin_of(report, n).state for n in (1, 2, 6, 39)} == {"power_supply"}


def test_an_address_is_moved_by_a_fix() -> None:
    """Two of a part with two addresses: the fix sets the second one, and that settles it."""
    plan = kit(*BASE, "2xX18")
    finding = told(checked(plan), "FIT-13")[0]
    fixes = propose_fixes(plan, shipped(), finding.id)
    first = fixes[0]
    assert first.title.text == "Set the address of Dew Pair to 0x45"
    assert isinstance(first.patch[0], EditLine)
    assert first.patch[0].addresses in ({"1": 0x45}, {"2": 0x45})
    after = checked(apply_patch(plan, first.patch))
    assert told(after, "FIT-13") == []
    assert [a.address for a in after.fit.header.addresses] == [0x44, 0x45]


def test_an_address_that_cannot_be_had_is_refused_in_words() -> None:
    """The factory setting is the only one of this part."""
    plan = apply_patch(kit(*BASE, "X17"), (EditLine(line="X17", addresses={"1": 0x45}),))
    (finding,) = told(checked(plan), "FIT-13")
    assert finding.sentence.text == "Dew cannot be set to 0x45; its addresses are 0x44."
    with pytest.raises(ValueError, match="119"):
        EditLine(line="X17", addresses={"1": 0x78})


def test_another_part_with_the_same_task_is_proposed() -> None:
    """The fan controller that leaves the audio clock free settles the clash."""
    plan = kit(*BASE, "X04", "X34")
    finding = told(checked(plan), "FIT-12")[0]
    swaps = [
        fix for fix in propose_fixes(plan, shipped(), finding.id) if finding.id in fix.resolves
    ]
    parts = {getattr(fix.patch[0], "part", None) for fix in swaps}
    assert "X33" in parts


def test_a_wired_led_gets_its_resistor_and_its_wires() -> None:
    """R = (3.3 - 2.0) / 5 mA = 260 ohm, next of E24 270 ohm, 4.81 mA (Ohm's law, IEC 60063)."""
    report = report_of(wired=[led()])
    (worked,) = report.fit.header.wired
    assert (worked.resistor_ohm, round(worked.current_ma, 2)) == (270, 4.81)
    rows = [(w.pin, w.through, w.to) for w in report.fit.header.wires]
    assert rows == [
        (9, "", ("red lamp, short leg, flat side (−)",)),
        (11, "270 Ω", ("red lamp, long leg (+)",)),
    ]
    assert margin(report, "FIT-17:wired.lamp").spare == pytest.approx(8 - 1.3 / 270 * 1000)


@pytest.mark.parametrize(
    ("fields", "rule", "severity"),
    [
        ({"made_for_v": 5}, "FIT-16", "note"),
        ({"made_for_v": 12}, "FIT-16", "tight"),
        ({"made_for_v": 12, "forward_v": 3.4}, "FIT-16", "tight"),
        ({"forward_v": 3.4}, "FIT-16", "tight"),
        ({"forward_v": 3.0}, "FIT-16", "note"),
        ({"current_ma": 20}, "FIT-17", "problem"),
        ({"current_ma": 7.5}, "FIT-17", "tight"),
    ],
)
def test_leds_that_do_not_go(fields: dict[str, Any], rule: str, severity: str) -> None:
    """Made for 12 V: dim, or dark; no voltage to spare; too much current for a pin."""
    assert [f.severity for f in told(report_of(wired=[led(**fields)]), rule)] == [severity]


def test_an_led_for_12_v_glows_dimly() -> None:
    """20 mA (3.3 - 2.0) / (12 - 2.0) = 2.6 mA (Ohm's law); one for 5 V at 8.7 mA says nothing."""
    (dim,) = told(report_of(wired=[led(made_for_v=12, current_ma=20)]), "FIT-16")
    assert "2.6 mA instead of 20.0 mA" in dim.sentence.text
    assert told(report_of(wired=[led(made_for_v=3.3, current_ma=5)]), "FIT-16") == []


def test_all_leds_together_are_judged() -> None:
    """Each alone is within the limit of a pin; eight of them are not within that of all."""
    pins = (11, 13, 15, 16, 18, 22, 29, 31)
    lamps = [{**led(pin, current_ma=6.4), "id": f"lamp{pin}"} for pin in pins]
    report = report_of(wired=lamps)
    assert margin(report, "FIT-17:all").severity != "ok"
    assert margin(report_of(wired=lamps[:2]), "FIT-17:all").severity == "ok"


def test_wires_that_share_a_pin_are_one_row() -> None:
    """A pin takes one wire: what shares it is joined before."""
    rows = {w.pin: w.to for w in report_of("X17", "X19", "X03").fit.header.wires}
    assert rows == dict.fromkeys((1, 3, 5, 6), ("Dew", "Dapple"))


def test_a_button_on_a_busy_pin_is_moved_by_a_fix() -> None:
    """To a pin that nobody uses."""
    plan = kit(*BASE, "X14", wired=[{"id": "b", "kind": "button", "label": "stop", "pin": 8}])
    finding = told(checked(plan), "FIT-12")[0]
    assert "Waymark and stop" in finding.sentence.text
    fixes = propose_fixes(plan, shipped(), finding.id)
    moved = next(f for f in fixes if finding.id in f.resolves and isinstance(f.patch[0], SetFields))
    assert moved.title.text == "Wire stop to GPIO pin 11"
    after = apply_patch(plan, moved.patch)
    assert after.wired[0].pin in {11, 13, 15}
    assert told(checked(after), "FIT-12") == []


def test_a_board_without_its_header_says_so() -> None:
    """Pins that are not soldered in take no wires."""
    catalogue = with_part(
        id="B99",
        kind="board",
        part_class="middle_card",
        maker="Marlpit",
        model="Bare",
        pin_header={"fitted": False},
    )
    report = checked(kit("B99", "S01", "M02", "X17"), catalogue=catalogue)
    assert "comes without a soldered" in told(report, "FIT-14")[0].sentence.text
    assert report.fit.header.why_not
    assert told(checked(kit("B99", "S01", "M02"), catalogue=catalogue), "FIT-14") == []


@pytest.mark.parametrize(
    ("use", "words"),
    [
        ({"shares": [11]}, "pin 11 is no power, ground or bus pin"),
        ({"takes": [2]}, "pin 2 is 5 V"),
        ({"shares": [3], "addresses": [0x40]}, "shares pins 3 and 5"),
        ({"takes": [41]}, "must be at most 40"),
    ],
)
def test_pins_that_make_no_sense_are_refused(use: dict[str, Any], words: str) -> None:
    """With a sentence that says what to change."""
    with pytest.raises(InputError, match=words):
        with_part(id="X99", kind="device", maker="Marlpit", model="Odd", pins=use)


def test_a_button_cannot_be_wired_to_ground() -> None:
    """Nor to what is kept for add-on boards."""
    for pin in (6, 27):
        with pytest.raises(ValueError, match="choose a GPIO pin that can be switched"):
            Plan.model_validate({"name": "x", "wired": [led(pin)]})


@pytest.mark.parametrize("fields", [{"made_for_v": 12}, {"current_ma": 20}, {"forward_v": 3.4}])
def test_a_bare_led_is_a_way_out(fields: dict[str, Any]) -> None:
    """With its resistor, at half of what a pin gives."""
    plan = kit(*BASE, wired=[led(**fields)])
    report = checked(plan)
    finding = next(f for f in report.findings if f.rule in ("FIT-16", "FIT-17"))
    first = propose_fixes(plan, shipped(), finding.id)[0]
    assert first.title.text == "Use a bare LED with a resistor"
    after = checked(apply_patch(plan, first.patch))
    assert told(after, "FIT-16") == []
    assert told(after, "FIT-17") == []
