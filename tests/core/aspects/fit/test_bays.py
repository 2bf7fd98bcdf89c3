"""Drives in the bays of a case."""

from tests.kits import checked, kit, told

TOWER = ("B10", "S03", "M02", "K05", "E11")


def test_thick_disks_take_the_deep_bays_and_flat_ones_the_rest() -> None:
    """Two of 9.5 mm in two bays of 15 mm, two of 7 mm in two of 7 mm."""
    full = kit(*TOWER, "2xA12", "2xD11", "2xD09", "H03")
    assert told(checked(full), "FIT-31") == []


def test_a_third_thick_disk_does_not_go_into_a_flat_bay() -> None:
    """9.5 mm in 7 mm, though bays are left."""
    (finding,) = told(checked(kit(*TOWER, "3xA12", "3xD11")), "FIT-31")
    assert finding.severity == "tight"
    assert "#3 is 9.5 mm thick; the bays of the Benchbox" in finding.sentence.text


def test_a_fifth_drive_finds_no_bay() -> None:
    """Four bays in all."""
    found = told(checked(kit(*TOWER, "H03", "5xA12", "5xD09")), "FIT-31")
    assert len(found) == 1
    assert "has no free 2.5-inch bay" in found[0].sentence.text


def test_modules_and_cases_without_bays_are_silent() -> None:
    """A module lies on its board; a case that states no bays is not asked."""
    assert told(checked(kit(*TOWER, "A06", "D06", "D04")), "FIT-31") == []
    assert told(checked(kit("B10", "S03", "M02", "E12", "A12", "D11")), "FIT-31") == []
