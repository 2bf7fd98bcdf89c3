"""Schools: the side a plan is on, and a sound way to the other."""

import pytest

from cobblewort.core.changing.alternatives import Alternative, alternative_of, alternatives_of
from cobblewort.core.errors import InputError
from cobblewort.core.plans.patch import apply_patch
from cobblewort.core.plans.plan import Plan
from tests.kits import SMALL, checked, demo, kit, shipped

SLIM = {"name": "Slim image", "card_gb": 4, "memory_gb": 1}
FAST = kit(
    "B10", "S03", "M02", "A06", "2xD03", "K05", "E03", image=SLIM, storage_use={"layout": "mirror"}
)


def sides(plan: Plan) -> dict[str, Alternative]:
    """The schools of a plan by id."""
    return {alternative.id: alternative for alternative in alternatives_of(plan, shipped())}


def test_each_school_says_where_the_plan_stands() -> None:
    """A fast card with everything takes a side in all seven."""
    assert {name: alternative.side for name, alternative in sides(FAST).items()} == {
        "boot_drive": "a memory card",
        "cooling": "with a fan",
        "power_supply": "a supply that advertises its current",
        "image": "slim image",
        "drive-board": "below the board",
        "array": "mirror",
        "file-system": "the system's own",
    }


@pytest.mark.parametrize(
    "alternative_id",
    ["boot_drive", "cooling", "power_supply", "image", "drive-board", "array", "file-system"],
)
def test_the_other_side_is_the_other_side_and_back(alternative_id: str) -> None:
    """The variant stands where the school said, and its effect is what the plan then shows."""
    alternative = alternative_of(FAST, shipped(), alternative_id)
    variant = apply_patch(FAST, alternative.patch)
    other = sides(variant)[alternative_id]
    assert other.side != alternative.side
    assert alternative.effect is not None
    assert alternative.effect.problems == checked(variant).count("problem")
    assert alternative.effect.cost_delta == checked(variant).cost.total - checked(FAST).cost.total
    assert alternative.title.text


def test_a_boot_drive_stays_the_boot_medium() -> None:
    """The card gives way; what joins the drive comes with it."""
    plan = apply_patch(kit(*SMALL), alternative_of(kit(*SMALL), shipped(), "boot_drive").patch)
    boot = next(line for line in plan.lines if line.role == "boot_drive")
    assert shipped().part(boot.part).kind == "drive"
    assert checked(plan).count("problem") == 0


def test_a_plan_takes_no_side_in_what_it_does_not_have() -> None:
    """Without a cooler, an image or a drive board there is nothing to differ on."""
    assert set(sides(kit("B06", "S01", "M02"))) == {"boot_drive"}
    with pytest.raises(InputError, match="has no"):
        alternative_of(kit("B06", "S01", "M02"), shipped(), "image")


def test_a_held_down_port_can_be_lifted_by_the_setting() -> None:
    """The choir recorder's supply announces too little; the setting is the other school."""
    alternative = sides(demo("choir-recorder"))["power_supply"]
    assert alternative.title.text == "Lift the port limit in the board settings"
