"""What lies in the case beside the boards."""

import pytest

from cobblewort.core.plans.catalogue import Catalogue
from tests.kits import checked, kit, shipped, told


def bank(length_mm: float, width_mm: float, height_mm: float) -> Catalogue:
    """The catalogue with a power bank of this size, made to lie inside."""
    document = {**shipped().document(shipped().part("S30")), "id": "S91", "inside": True}
    body = {"dx_mm": length_mm, "dy_mm": width_mm, "dz_mm": height_mm}
    return shipped().extended([{**document, "boxes": {"body": body}}])


@pytest.mark.parametrize(
    ("sides", "fits"),
    [
        ((150, 68, 28), True),  # flat in front of the board: 150 of 195 mm, 68 of 145 - 56 mm
        ((150, 89, 28), True),  # just
        ((150, 90, 28), True),  # on its long side behind the board: 28 of 89 mm, 90 over 74 no;
        # over the board: 55 - 17.5 mm of height are left, and 28 is less
        ((150, 100, 60), False),  # 60 high fits neither beside (100 > 89) nor over the board
        ((200, 20, 20), False),  # longer than the case is
    ],
)
def test_a_power_bank_in_a_box(sides: tuple[float, float, float], fits: bool) -> None:
    """The box is 195 x 145 x 74 mm inside and drilled by hand, so that the board of 86 x 56 mm can
    stand in a corner; over it 55 mm less its sockets are free.
    """
    plan = kit("B07", "S91", "C04", "M05", "E12")
    found = told(checked(plan, 1, bank(*sides)), "FIT-43")
    assert [f.severity for f in found] == ([] if fits else ["problem"])
    if not fits:
        assert (
            f"is {sides[0]:g}\u00a0× {sides[1]}\u00a0× {sides[2]} mm; the largest free space"
            in (found[0].sentence.text)
        )


def test_two_bodies_and_one_place() -> None:
    """Each fits alone; 80 and 60 mm leave no room for another in 89 by 74: tight, as a hand may
    know a better way. Of 40 mm two stand side by side.
    """
    plan = kit("B07", "2xS91", "C04", "M05", "E12")
    found = told(checked(plan, 1, bank(150, 80, 60)), "FIT-43")
    assert [f.severity for f in found] == ["tight"]
    assert told(checked(plan, 1, bank(150, 40, 60)), "FIT-43") == []


def test_a_mains_frame_in_a_small_case() -> None:
    """It is higher than a flat case; beside a board in the middle of a tall one it stands."""
    found = told(checked(kit("B06", "S12", "M02", "E02")), "FIT-43")
    assert [f.severity for f in found] == ["problem"]
    assert told(checked(kit("B07", "S12", "M02", "E12")), "FIT-43") == []


def test_what_lies_outside_or_has_no_size_is_silent() -> None:
    """A power bank beside the case, a part whose size is not stated, open plates, no case."""
    assert told(checked(kit("B06", "S30", "C04", "M02", "E02")), "FIT-43") == []
    for case in (("E01",), ()):
        assert told(checked(kit("B06", "S12", "M02", *case)), "FIT-43") == []
