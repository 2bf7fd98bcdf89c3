"""Needs: what a purpose asks, met, met with a condition, unmet or not known."""

from typing import Any

import pytest
from pydantic import ValidationError

from cobblewort.core.aspects.purpose.model import RequirementStatus
from cobblewort.core.aspects.purpose.report import RequirementReport
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.parts.functions import FUNCTIONS, FunctionId
from cobblewort.core.plans.plan import Plan, Requirement
from tests.kits import SMALL, checked, demo, kit, shipped, told, with_part


def asked(*parts: str, requirements: list[dict[str, Any]], **fields: Any) -> Plan:
    """A kit with needs; ids and texts are made up."""
    full = [
        {"id": f"n{i}", "text": "for the test", **requirement}
        for i, requirement in enumerate(requirements)
    ]
    return kit(*parts, requirements=full, **fields)


def first(plan: Plan) -> RequirementReport:
    """How the kit stands to its first need."""
    return checked(plan).purpose[0]


SLIM = {"name": "Slim image", "card_gb": 4, "memory_gb": 0.5}
FULL = {"name": "Full image", "card_gb": 16, "memory_gb": 2, "desktop": True}


@pytest.mark.parametrize(
    ("parts", "requirement", "status"),
    [
        (SMALL, {"function": "wifi"}, "met"),
        (SMALL, {"function": "mesh_radio"}, "not_met"),
        ((*SMALL, "X09"), {"function": "mesh_radio"}, "met"),
        (SMALL, {"function": "usb_port", "count": 4}, "met"),
        ((*SMALL, "X05"), {"function": "usb_port", "count": 4}, "not_met"),
        (SMALL, {"function": "memory", "at_least": 2}, "met"),
        (SMALL, {"function": "memory", "at_least": 4}, "not_met"),
        (SMALL, {"function": "users", "at_least": 8}, "met"),
        (SMALL, {"function": "users", "at_least": 9}, "not_met"),
        (("S01", "M02"), {"function": "users", "at_least": 1}, "not_checked"),
        ((*SMALL, "X07"), {"function": "audio_in", "at_least": 16}, "not_met"),
        ((*SMALL, "X06"), {"function": "audio_in", "at_least": 16}, "met"),
        (SMALL, {"function": "storage", "at_least": 30}, "met"),
        ((*SMALL, "A12", "D11"), {"function": "storage", "at_least": 1000}, "met"),
        (SMALL, {"function": "desktop"}, "not_checked"),
        (SMALL, {"condition": "unattended"}, "met_if"),
        (SMALL, {"condition": "power_cut"}, "met_if"),
        (SMALL, {"condition": "remote_access"}, "met_if"),
        (SMALL, {"condition": "silent"}, "met"),
        ((*SMALL, "A12", "D11"), {"condition": "silent"}, "not_met"),
        (SMALL, {"condition": "children"}, "met"),
        (("B06", "S01", "M02", "K03", "E01"), {"condition": "children"}, "not_met"),
        (("B06", "S01", "M02"), {"condition": "children"}, "not_met"),
        (SMALL, {"condition": "without_mains", "at_least": 4}, "not_met"),
        (SMALL, {"condition": "enough_processor", "at_least": 100}, "met"),
        (SMALL, {"condition": "enough_processor", "at_least": 110}, "met_if"),
        (SMALL, {"condition": "enough_processor", "at_least": 170}, "not_met"),
        (SMALL, {"limit": "longest_mm", "at_most": 110}, "met"),
        (SMALL, {"limit": "longest_mm", "at_most": 100}, "not_met"),
        (SMALL, {"condition": "in_vehicle"}, "met_if"),
        ((*SMALL, "A12", "D11"), {"condition": "in_vehicle"}, "not_met"),
        (("B06", "S30", "C01", "M02"), {"condition": "without_mains", "at_least": 8}, "met"),
        (("B06", "S30", "C01", "M02"), {"condition": "without_mains", "at_least": 40}, "not_met"),
        ((*SMALL, "X08", "X42"), {"function": "antenna"}, "met"),
        ((*SMALL, "X08"), {"function": "antenna"}, "not_met"),
        (SMALL, {"limit": "longest_mm", "at_most": 1}, "not_met"),
        (SMALL[:4], {"limit": "longest_mm", "at_most": 100}, "not_checked"),
        (SMALL, {"limit": "noise_dba", "at_most": 20}, "met"),
        ((*SMALL[:3], "K06", "E03"), {"limit": "noise_dba", "at_most": 26}, "met"),
        ((*SMALL[:3], "K05", "E03"), {"limit": "noise_dba", "at_most": 26}, "not_met"),
        (SMALL, {"limit": "mass_g", "at_most": 300}, "met"),
        (SMALL, {"limit": "mass_g", "at_most": 100}, "not_met"),
    ],
)
def test_a_need_is_held_against_the_kit(
    parts: tuple[str, ...], requirement: dict[str, Any], status: RequirementStatus
) -> None:
    """And what is not met says why, in a sentence."""
    found = first(asked(*parts, requirements=[requirement]))
    assert found.status == status
    assert (found.sentence.text == "") == (status == "met")


@pytest.mark.parametrize(
    ("board", "at_least", "severities"),
    [("B04", 48, []), ("B04", 52, ["tight"]), ("B04", 80, ["problem"]), ("B09", 200, [])],
)
def test_a_processor_is_told_beside_a_mid_range_one(
    board: str, at_least: float, severities: list[str]
) -> None:
    """Four cores of 1150 MB/s are 44 % of four of 2600: nine tenths of 48 %, not of 52 %."""
    requirement = {
        "id": "quick",
        "text": "sorts pictures",
        "condition": "enough_processor",
        "at_least": at_least,
    }
    found = told(checked(kit(board, "S01", "M02", requirements=[requirement])), "NEED-09")
    assert [finding.severity for finding in found] == severities
    assert all("44 % of the speed" in f.sentence.text for f in found)


def test_a_processor_that_is_not_known_is_not_checked() -> None:
    """Of a board that states neither cores nor rate, and has no class."""
    board = {"id": "B90", "kind": "board", "maker": "m", "model": "Board"}
    requirement = {
        "id": "quick",
        "text": "sorts pictures",
        "condition": "enough_processor",
        "at_least": 50,
    }
    report = checked(kit("B90", requirements=[requirement]), 1, with_part(**board))
    assert [f.severity for f in told(report, "NEED-09")] == ["note"]


def test_days_of_recording_follow_from_rate_hours_and_room() -> None:
    """28 GB beside the image, 10 h at 330 MB an hour: 8.5 nights; idle hours record nothing."""
    night = [
        {"name": "night", "hours": 10, "activity": "light"},
        {"name": "day", "hours": 14, "activity": "idle"},
    ]
    requirement = {"function": "recording", "at_least": 30, "rate_mb_h": 330}
    short = first(asked(*SMALL, requirements=[requirement], image=SLIM, schedule=night))
    assert (short.status, short.have, short.want, short.unit) == ("not_met", 8.5, 30, "days")
    assert short.sentence.text == (
        "The free space of 28 GB holds 8.5 days of 30 at 330 MB per hour and 10 hours per day "
        "(requirement “for the test”)."
    )
    larger = asked(
        "B06", "S01", "M03", "K03", "E03", requirements=[requirement], image=SLIM, schedule=night
    )
    assert first(larger).have == pytest.approx(124e3 / 3300, abs=0.05)
    all_day = [{"name": "day", "hours": 24, "activity": "idle"}]
    assert (
        first(asked(*SMALL, requirements=[requirement], image=SLIM, schedule=all_day)).have == 3.5
    )
    with pytest.raises(ValidationError, match="MB per hour in rate_mb_h"):
        asked(*SMALL, requirements=[{"function": "recording", "at_least": 30}])


@pytest.mark.parametrize(
    ("network", "requirement", "status"),
    [
        ("both", {"function": "ethernet"}, "met"),
        ("ethernet", {"function": "ethernet"}, "met"),
        ("wifi", {"function": "ethernet"}, "not_met"),
        ("none", {"function": "ethernet"}, "not_met"),
        ("none", {"function": "wifi"}, "met"),
        ("wifi", {"condition": "remote_access"}, "met_if"),
        ("none", {"condition": "remote_access"}, "not_met"),
    ],
)
def test_the_network_of_the_place(
    network: str, requirement: dict[str, Any], status: RequirementStatus
) -> None:
    """A socket needs one in the wall; a radio can make a network of its own."""
    plan = asked(*SMALL, requirements=[requirement], place={"network": network})
    assert first(plan).status == status
    assert bool(told(checked(plan), "NEED-08")) == (status == "not_met")


def test_a_board_without_a_radio_where_there_is_only_radio() -> None:
    """A stick is the way out; the sentence says what the place has."""
    deaf = {**shipped().document(shipped().part("B06")), "id": "B06", "offers": {"wifi": None}}
    catalogue = shipped().extended([deaf])
    place = {"network": "wifi"}
    plan = asked(*SMALL, requirements=[{"condition": "remote_access"}], place=place)
    finding = told(checked(plan, 1, catalogue), "NEED-08")[0]
    assert finding.sentence.text.startswith(
        "The location has Wi-Fi; no part connects to it (requirement “for"
    )
    assert "Add Hop N" in [f.title.text for f in propose_fixes(plan, catalogue, finding.id)]


def test_a_weight_or_a_level_that_nobody_states() -> None:
    """Not known and told so, unless what is known is too much already."""
    bare = [
        {**shipped().document(shipped().part(name)), **{field: None}}
        for name, field in (("K06", "noise_dba"), ("M02", "mass_g"))
    ]
    catalogue = shipped().extended(bare)
    kit_of = ("B06", "S01", "M02", "K06", "E03")

    def found(**requirement: Any) -> RequirementReport:
        return checked(asked(*kit_of, requirements=[requirement]), 1, catalogue).purpose[0]

    quiet = found(limit="noise_dba", at_most=30)
    assert (
        quiet.sentence.text
        == "Not checked: noise. Hush Clip has no noise value (requirement “for the test”)."
    )
    light = found(limit="mass_g", at_most=900)
    assert (
        light.sentence.text
        == "Not checked: mass. Plain 32 has no mass value (requirement “for the test”)."
    )
    assert found(limit="mass_g", at_most=50).status == "not_met"


def test_people_at_once_share_what_the_image_leaves() -> None:
    """2 GB less 1.25 of the image serve three at 0.25 GB each; a board of 4 GB serves eleven."""
    image = {"name": "Server image", "card_gb": 8, "memory_gb": 1.25}
    requirement = {"function": "users", "at_least": 5}
    assert first(asked(*SMALL, requirements=[requirement], image=image)).have == 3
    more = asked("B07", *SMALL[1:], requirements=[requirement], image=image)
    assert (first(more).have, first(more).status) == (11, "met")


def test_two_radios_and_one_is_not_enough_for_a_travel_router() -> None:
    """The board's own is one; a stick in the image makes two, one to be built makes a condition."""
    requirement = {"function": "wifi", "count": 2}
    one = first(asked(*SMALL, requirements=[requirement]))
    assert (one.status, one.have, one.want) == ("not_met", 1, 2)
    assert first(asked(*SMALL, "X10", requirements=[requirement])).status == "met"
    built = first(asked(*SMALL, "X11", requirements=[requirement]))
    assert built.status == "met_if"
    assert "driver is built" in built.sentence.text


def test_the_device_port_is_the_inlet_until_something_splits_them() -> None:
    """NEED-05 fires for the supply in the port, and a splitter settles it."""
    plan = asked(*SMALL, requirements=[{"function": "device_port"}])
    finding = told(checked(plan), "NEED-05")[0]
    assert "the Kettle 15 power" in finding.sentence.text
    titles = [fix.title.text for fix in propose_fixes(plan, shipped(), finding.id)]
    assert titles[0] == "Add Parting"
    assert first(asked(*SMALL, "X32", requirements=[{"function": "device_port"}])).status == "met"


def test_a_sign_in_page_wants_a_desktop() -> None:
    """A slim image has none; the way out is the full one, which has to fit the card."""
    plan = asked(*SMALL, requirements=[{"function": "desktop"}], image=SLIM)
    finding = told(checked(plan), "NEED-03")[0]
    assert finding.sentence.text.startswith("Slim image has no desktop")
    assert first(asked(*SMALL, requirements=[{"function": "desktop"}], image=FULL)).status == "met"
    fixes = propose_fixes(plan, shipped(), finding.id)
    assert fixes[0].patch[0].op == "set"


def test_an_image_larger_than_the_card_or_the_memory() -> None:
    """NEED-07 says by how much; a larger card settles it."""
    plan = kit("B04", "S06", "M01", image=FULL)
    sentences = [f.sentence.text for f in told(checked(plan), "NEED-07")]
    assert sentences == ["Full image needs 2 GB of memory; Stile has 1 GB."]
    large = {**FULL, "card_gb": 20}
    finding = told(checked(kit(*SMALL[:2], "M01", image=large)), "NEED-07")[0]
    assert finding.sentence.text == "Full image needs 20 GB; the Plain 16 memory card holds 16 GB."
    fixes = propose_fixes(kit(*SMALL[:2], "M01", image=large), shipped(), finding.id)
    titles = [fix.title.text for fix in fixes]
    assert "Swap Plain 16 for Plain 32" in titles
    assert told(checked(kit(*SMALL, image=SLIM)), "NEED-07") == []


def test_an_old_board_for_a_file_store() -> None:
    """100 Mb/s are 10 MB/s for a shared folder: told once, as a rate."""
    plan = asked("B04", "S06", "M02", requirements=[{"function": "ethernet", "at_least": 80}])
    found = first(plan)
    assert (found.have, found.want, found.unit) == (pytest.approx(11.3, abs=0.1), 80, "MB/s")
    assert told(checked(plan), "DATA-01")[0].severity == "problem"
    assert told(checked(plan), "NEED-02") == []


def test_a_metal_shell_round_a_radio() -> None:
    """16 dB are next to nothing left; what hangs outside on USB is not shut in."""
    plan = asked("B06", "S01", "M02", "K03", "E11", requirements=[{"function": "wifi"}])
    assert "by 16 dB" in told(checked(plan), "NEED-06")[0].sentence.text
    outside = asked("B06", "S01", "M02", "K03", "E11", "X10", requirements=[{"function": "wifi"}])
    assert told(checked(outside), "NEED-06") == []


def test_a_read_only_root_survives_a_pulled_plug() -> None:
    """The setting meets the condition."""
    requirements = [{"condition": "power_cut"}]
    assert (
        first(asked(*SMALL, requirements=requirements, settings={"read_only_root": True})).status
        == "met"
    )


def test_what_meets_a_need_is_named_and_taking_it_away_raises_it() -> None:
    """The line that meets it, and exactly that need when it is gone."""
    plan = asked(
        *SMALL, "X09", "X28", requirements=[{"function": "mesh_radio"}, {"function": "camera"}]
    )
    assert [n.lines for n in checked(plan).purpose] == [("X09",), ("X28",)]
    rest = tuple(line for line in plan.lines if line.id != "X09")
    without = checked(plan.model_copy(update={"lines": rest}))
    assert [n.status for n in without.purpose] == ["not_met", "met"]


def test_what_is_borrowed_meets_nothing() -> None:
    """It goes back after the setting up."""
    plan = asked(*SMALL, requirements=[{"function": "screen"}])
    line = {"id": "x", "role": "set_up", "part": "X25"}
    borrowed = Plan.model_validate({**plan.model_dump(), "lines": [*plan.lines, line]})
    assert first(borrowed).status == "not_met"


@pytest.mark.parametrize(
    ("requirement", "sentence"),
    [
        ({}, "names one function, one condition or one limit"),
        ({"function": "wifi", "condition": "silent"}, "function and condition"),
        ({"limit": "mass_g"}, "needs its value in at_most"),
        ({"condition": "without_mains"}, "needs its hours"),
        ({"condition": "enough_processor"}, "needs its percentage"),
    ],
)
def test_half_a_need_is_refused_with_a_sentence(requirement: dict[str, Any], sentence: str) -> None:
    """What is missing or too much."""
    with pytest.raises(ValidationError, match=sentence):
        Requirement(id="n", text="t", **requirement)


def test_every_function_has_its_words() -> None:
    """The names that parts and needs may use are those that have a label."""
    assert set(FUNCTIONS) == set(FunctionId.__args__)


@pytest.mark.parametrize("plan_id", ["bat-recorder", "moss-cabinet", "choir-recorder"])
def test_the_demo_does_what_it_is_for(plan_id: str) -> None:
    """Whatever else is wrong with them, the demo plans meet their needs."""
    assert {requirement.status for requirement in checked(demo(plan_id)).purpose} == {"met"}


def test_plans_without_needs_are_as_they_were() -> None:
    """Nothing asked, nothing told."""
    report = checked(kit(*SMALL))
    assert report.purpose == []
    assert [f for f in report.findings if f.family == "requirements"] == []


@pytest.mark.parametrize(("radio_db", "deaf"), [(10.0, False), (10.1, True)])
def test_from_which_loss_on_a_radio_is_deaf(radio_db: float, deaf: bool) -> None:
    """Up to 10 dB a third of its reach is left; more is too much."""
    base = shipped().document(shipped().part("E11"))
    shell = {**base, "id": "E11", "case": {**base["case"], "radio_db": radio_db}}
    plan = asked("B06", "S01", "M02", "K03", "E11", requirements=[{"function": "wifi"}])
    report = checked(plan, catalogue=shipped().extended([shell]))
    assert bool(told(report, "NEED-06")) == deaf


def test_only_what_is_plugged_in_counts() -> None:
    """Five adapters on four ports are four inputs; that is told once, by the plug."""

    def inputs(count: int) -> Plan:
        wanted = [{"function": "audio_in", "count": count}]
        return asked("B04", "S06", "M02", f"{count}xX05", requirements=wanted)

    assert first(inputs(4)).status == "met"
    lacking = checked(inputs(5))
    assert lacking.purpose[0].status == "not_met"
    assert (len(told(lacking, "FIT-02")), len(told(lacking, "NEED-01"))) == (1, 1)
