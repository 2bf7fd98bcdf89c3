"""The first kit: it meets every need, nothing is wrong with it, and no cheaper one exists."""

from decimal import Decimal
from functools import cache
from typing import Any

import pytest

from cobblewort.core.changing.suggest import FirstKit, first_kit
from cobblewort.core.plans.plan import Plan, Requirement
from cobblewort.core.plans.purpose import Purpose, plan_for
from cobblewort.formats.shipped import shipped_places, shipped_purposes
from tests.kits import checked, shipped

PURPOSES = list(shipped_purposes().values())


def begun(purpose: Purpose, **fields: Any) -> Plan:
    """An empty plan for a purpose at its usual place."""
    place = shipped_places()[purpose.place or "indoor-room"].place
    return plan_for(purpose, purpose.title, place).model_copy(update=fields)


def kit_for(purpose_id: str, owned: tuple[str, ...] = (), **fields: Any) -> FirstKit:
    """The first kit for a shipped purpose."""
    return first_kit(begun(shipped_purposes()[purpose_id], **fields), shipped(), owned)


@cache
def usual_kit(purpose_id: str) -> FirstKit:
    """The first kit for a shipped purpose at its usual place, worked out once."""
    return kit_for(purpose_id)


@pytest.mark.parametrize("purpose", PURPOSES, ids=lambda purpose: purpose.id)
def test_the_first_kit_does_the_job(purpose: Purpose) -> None:
    """Every need is met, or met with something left to do; nothing stops it; it is complete."""
    found = usual_kit(purpose.id)
    report = checked(found.plan)
    assert found.failing == []
    assert report.count("problem") == 0
    assert {requirement.status for requirement in report.purpose} <= {"met", "met_if"}
    roles = {line.role for line in found.plan.lines}
    assert roles >= {"board", "power_supply", "boot_drive", "case"}
    assert found.total == report.cost.total
    chosen = {line.id for line in found.plan.lines if line.role != "set_up"}
    assert {reason.line for reason in found.reasons} == chosen
    assert all(reason.text for reason in found.reasons)


@pytest.mark.parametrize(
    "place_id", ["indoor-room", pytest.param("outdoors-shaded", marks=pytest.mark.long)]
)
@pytest.mark.parametrize("purpose", PURPOSES, ids=lambda purpose: purpose.id)
def test_the_first_kit_is_sound(purpose: Purpose, place_id: str) -> None:
    """With its draws too: nothing stops it and nothing is tight, in a room and out of doors."""
    place = shipped_places()[place_id].place.model_copy(update={"network": "both"})
    found = first_kit(begun(purpose, place=place), shipped())
    told = [f.sentence.text for f in checked(found.plan, 256).findings if f.severity != "note"]
    assert told == []
    assert (found.failing, found.tight) == ([], [])


def test_a_tight_kit_that_costs_much_less_is_a_choice() -> None:
    """What it saves, and what that means, is told; it is tight indeed, and dearer ones are not."""
    found = kit_for("controller-console", place=shipped_places()["outdoors-sun"].place)
    choice = found.cheaper
    assert choice is not None
    assert choice.less >= 5
    report = checked(choice.plan, 64)
    assert (report.count("problem"), choice.less) == (0, found.total - report.cost.total)
    assert [one.text for one in choice.sentences] == [
        f.sentence.text for f in report.findings if f.severity == "tight"
    ]
    assert any("slows to" in sentence.text for sentence in choice.sentences)


def test_a_tight_kit_that_keeps_to_the_budget_is_a_choice_too() -> None:
    """The sound one is two euros too dear; the one with a smaller sink is not, and slows."""
    place = shipped_places()["outdoors-sun"].place
    budget = kit_for("controller-console", place=place).total - 2
    found = kit_for("controller-console", place=place, budget=budget)
    assert "the budget is" in found.failing[0].text
    assert found.cheaper is not None
    assert found.total - found.cheaper.less <= budget


@pytest.mark.parametrize("purpose", PURPOSES, ids=lambda purpose: purpose.id)
def test_taking_away_what_meets_a_need_raises_exactly_that_need(purpose: Purpose) -> None:
    """Line by line: the needs that only this line met are raised, and no other but what was plugged
    into it.
    """
    plan = usual_kit(purpose.id).plan
    before = {requirement.id: requirement for requirement in checked(plan).purpose}
    for line in plan.lines:
        only = {n.id for n in before.values() if n.lines == (line.id,) and n.status == "met"}
        if line.role == "board" or not only:
            continue  # with the board everything goes
        rest = tuple(entry for entry in plan.lines if entry is not line)
        after = checked(plan.model_copy(update={"lines": rest}))
        idle = {n.id for n in after.purpose if "plugged in nowhere" in n.sentence.text}
        raised = {n.id for n in after.purpose if n.status in ("not_met", "not_checked")}
        assert raised - idle == only, line.part
        told = {f.id.split(":")[1] for f in after.findings if f.family == "purpose"}
        assert only <= told


def test_the_same_answers_give_the_same_kit() -> None:
    """No chance in it."""
    assert kit_for("sound-recorder") == kit_for("sound-recorder")


def test_what_is_owned_is_used_and_costs_nothing() -> None:
    """A board and a supply from the drawer come before cheaper ones from the shop."""
    bought = kit_for("home-hub")
    owned = kit_for("home-hub", owned=("B07", "S03"))
    parts = {line.part: line.owned for line in owned.plan.lines}
    assert parts["B07"]
    assert parts["S03"]
    assert owned.total < bought.total
    assert "owned" in next(r.text.text for r in owned.reasons if r.line == "board")


def test_what_nobody_sells_is_taken_only_from_the_drawer() -> None:
    """The socket of a desk computer costs nothing, and is no supply that one could buy."""
    assert "S08" not in {line.part for line in kit_for("climate-logger").plan.lines}


def test_a_budget_that_is_too_small_says_by_how_much() -> None:
    """The best attempt is shown, with what stops it."""
    found = kit_for("file-store-one", budget=Decimal("60"))
    assert any("the budget is €60" in sentence.text for sentence in found.failing)


def test_a_need_that_nothing_meets_is_named() -> None:
    """With the figure it falls short by."""
    requirement = Requirement(id="fast", text="ten gigabits", function="ethernet", at_least=1100)
    found = kit_for("first-server", requirements=(requirement,))
    (sentence,) = found.failing
    assert "55 MB/s; the requirement “ten gigabits”" in sentence.text


def test_the_place_narrows_the_choice() -> None:
    """Outdoors only a box against water and parts for the cold; a silent one has no fan."""
    outdoors = shipped_places()["outdoors-shaded"].place
    found = kit_for("frost-camera", place=outdoors)
    assert found.failing == []
    parts = [shipped().part(line.part) for line in found.plan.lines]
    assert all(part.case is None or part.case.ip_water >= 4 for part in parts)
    assert all(part.ambient_min_c is None or part.ambient_min_c <= -15 for part in parts)
    quiet = kit_for("wildlife-recorder")
    assert not any(
        shipped().part(line.part).cooler and shipped().part(line.part).cooler.r_fan_k_w
        for line in quiet.plan.lines
    )


@pytest.mark.parametrize(
    ("power", "feed"),
    [
        ("mains", "mains"),
        ("poe", "poe"),
        ("vehicle", "vehicle"),
        ("battery", "battery"),
        ("solar", "solar"),
        ("machine", "machine"),
    ],
)
def test_the_supply_feeds_on_what_the_place_has(power: str, feed: str) -> None:
    """A climate logger at each of them, which nothing stops, at a place that the sun can feed."""
    place = shipped_places()["indoor-room"].place.model_copy(update={"power": power})
    requirements: list[Requirement] = []
    if power == "solar":
        requirements = [
            Requirement(id="solar", text="lives on the sun", function="solar", at_least=120)
        ]
    asked = (*shipped_purposes()["climate-logger"].requirements, *requirements)
    found = kit_for("climate-logger", place=place, requirements=asked)
    assert found.failing == []
    supply = next(line.part for line in found.plan.lines if line.role == "power_supply")
    assert shipped().part(supply).source.power_source == feed


def test_hours_without_mains_want_a_battery() -> None:
    """The power bank is taken where ten hours are asked for; a week is told as too much."""
    purpose = shipped_purposes()["climate-logger"]
    requirement = Requirement(
        id="off", text="through the night", condition="without_mains", at_least=10
    )
    found = kit_for("climate-logger", requirements=(*purpose.requirements, requirement))
    assert found.failing == []
    assert "S30" in {line.part for line in found.plan.lines}
    week = requirement.model_copy(update={"at_least": 168.0})
    assert "h; 168 h are" in kit_for("climate-logger", requirements=(week,)).failing[0].text


def test_dust_wants_a_closed_box_and_a_ride_no_disk() -> None:
    """In sawdust only dust-protected cases; where it rides along nothing that spins."""
    workshop = shipped_places()["workshop"].place.model_copy(update={"dust": "much"})
    cases = [
        part.case
        for line in kit_for("climate-logger", place=workshop).plan.lines
        if (part := shipped().part(line.part)).case
    ]
    assert [case.ip_solid >= 5 for case in cases] == [True]
    ride = Requirement(id="ride", text="rides along", condition="in_vehicle")
    purpose = shipped_purposes()["file-store-one"]
    found = kit_for("file-store-one", requirements=(*purpose.requirements, ride))
    assert found.failing == []
    drives = [d for line in found.plan.lines if (d := shipped().part(line.part).drive)]
    assert drives
    assert not any(drive.spins for drive in drives)


def test_children_get_a_closed_case() -> None:
    """The cheapest case is open plates; with children it is not taken."""
    assert "E01" not in {line.part for line in kit_for("games-console").plan.lines}


def test_without_a_board_there_is_nothing_to_begin_with() -> None:
    """An empty catalogue is told, not raised."""
    from cobblewort.core.plans.catalogue import Catalogue

    found = first_kit(begun(PURPOSES[0]), Catalogue({}, {}))
    assert found.failing[0].text == "No kit of these parts meets the requirements."
    assert found.failing[1].text.startswith("Board: no part on offer")
    assert (found.proven, found.reasons) == (True, [])


def test_what_a_kit_cannot_have_is_given_up_alone() -> None:
    """Of two requirements that nothing meets together the smaller is eased, the other kept; and
    what is borrowed stays.
    """
    purpose = shipped_purposes()["sign"]
    week = Requirement(id="off", text="a week", condition="without_mains", at_least=168)
    found = kit_for("sign", requirements=(*purpose.requirements, week))
    assert found.plan.requirements[-1] == week
    assert len(found.failing) == 1
    assert "T04" in {line.part for line in found.plan.lines}


def test_a_reason_tells_what_the_next_cheaper_part_fails_at() -> None:
    """By its own figures; a supply with another plug is no alternative, nor is there a cheaper one
    than the cheapest.
    """
    outdoors = shipped_places()["outdoors-shaded"].place
    found = kit_for("frost-camera", place=outdoors)
    told = {reason.line: reason.text.text for reason in found.reasons}
    assert told["boot_drive"].startswith(
        "Holds the image and 20 GB of data. With the cheaper Plain 16: The kit provides 12 GB; "
    )
    assert told["board"] == "Lowest-priced board rated down to −20 °C"
    assert "With the cheaper" not in told["power_supply"]
    logger = {reason.line: reason.text.text for reason in usual_kit("climate-logger").reasons}
    assert logger["power_supply"] == "Lowest-priced power supply within its limits all day"


def test_it_says_how_much_was_looked_at() -> None:
    """And that no cheaper kit exists, as the cheapest is gone on with first."""
    found = usual_kit("climate-logger")
    assert found.proven
    assert found.checked > 0


def test_what_no_card_holds_is_not_begun_on_a_card() -> None:
    """Nor without what only a dear part gives: few kits are judged of a recorder with 663 GB and
    sixteen microphones. A card that holds it all is taken without a drive.
    """
    found = usual_kit("sound-recorder")
    assert "storage" in {line.role for line in found.plan.lines}
    assert found.checked < 200
    logger = usual_kit("climate-logger")
    assert "storage" not in {line.role for line in logger.plan.lines}


def test_whoever_asks_can_end_the_search() -> None:
    """By what is called between kits, where there is one and where none is."""

    def stop() -> None:
        raise InterruptedError

    for limits in ((), (Requirement(id="none", text="0.1 g", limit="mass_g", at_most=0.1),)):
        purpose = shipped_purposes()["climate-logger"]
        plan = begun(purpose, requirements=(*purpose.requirements, *limits))
        with pytest.raises(InterruptedError):
            first_kit(plan, shipped(), between=stop)


def test_a_failed_disk_is_survived_where_that_is_asked() -> None:
    """A store with one disk gets two that are mirrored, with what joins both to the board."""
    purpose = shipped_purposes()["file-store-one"]
    one = Requirement(id="disk", text="survives a disk failure", condition="disk_failure")
    found = kit_for("file-store-one", requirements=(*purpose.requirements, one))
    assert found.failing == []
    assert found.plan.storage_use.layout == "mirror"
    disks = [line for line in found.plan.lines if line.role == "storage"]
    assert sum(line.quantity for line in disks) == 2
