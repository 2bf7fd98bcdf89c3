"""Schools: the side a plan is on, and a sound way to the other."""

import pytest

from cobblewort.core.changing.schools import School, school_of, schools_of
from cobblewort.core.errors import InputError
from cobblewort.core.plans.patch import apply_patch
from cobblewort.core.plans.plan import Plan
from tests.kits import SMALL, demo, judged, kit, shipped

SLIM = {"name": "Slim image", "card_gb": 4, "memory_gb": 1}
FAST = kit(
    "B10", "S03", "M02", "A06", "2xD03", "K05", "E03", image=SLIM, storing={"layout": "mirror"}
)


def sides(plan: Plan) -> dict[str, School]:
    """The schools of a plan by id."""
    return {school.id: school for school in schools_of(plan, shipped())}


def test_each_school_says_where_the_plan_stands() -> None:
    """A fast card with everything takes a side in all seven."""
    assert {name: school.side for name, school in sides(FAST).items()} == {
        "boot": "boots from a card",
        "cooling": "is cooled by a fan",
        "supply": "has a supply that announces it",
        "image": "has a slim image",
        "drive-board": "has its drive board below",
        "array": "mirrors its disks",
        "file-system": "has the system's own file system",
    }


@pytest.mark.parametrize(
    "school_id", ["boot", "cooling", "supply", "image", "drive-board", "array", "file-system"]
)
def test_the_other_side_is_the_other_side_and_back(school_id: str) -> None:
    """The variant stands where the school said, and its effect is what the plan then shows."""
    school = school_of(FAST, shipped(), school_id)
    variant = apply_patch(FAST, school.patch)
    other = sides(variant)[school_id]
    assert other.side != school.side
    assert school.effect is not None
    assert school.effect.stops == judged(variant).count("stops")
    assert school.effect.cost_delta == judged(variant).cost.total - judged(FAST).cost.total
    assert school.title


def test_a_boot_drive_stays_the_boot_medium() -> None:
    """The card gives way; what joins the drive comes with it."""
    plan = apply_patch(kit(*SMALL), school_of(kit(*SMALL), shipped(), "boot").patch)
    boot = next(line for line in plan.lines if line.role == "boot")
    assert shipped().part(boot.part).kind == "drive"
    assert judged(plan).count("stops") == 0


def test_a_plan_takes_no_side_in_what_it_does_not_have() -> None:
    """Without a cooler, an image or a drive board there is nothing to differ on."""
    assert set(sides(kit("B06", "S01", "M02"))) == {"boot"}
    with pytest.raises(InputError, match="takes no side"):
        school_of(kit("B06", "S01", "M02"), shipped(), "image")


def test_a_held_down_port_can_be_lifted_by_the_setting() -> None:
    """The choir recorder's supply announces too little; the setting is the other school."""
    school = sides(demo("choir-recorder"))["supply"]
    assert school.title == "Lift the port limit in the board's settings"
