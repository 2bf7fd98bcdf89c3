"""What a kit weighs: the box with all that is in it or plugged into it."""

import pytest

from cobblewort.core.aspects.fit.mass import counts, kit_mass_g, mass_g
from cobblewort.core.judging.item import expand
from tests.kits import kit, shipped


def test_the_walls_of_a_case_weigh_what_their_volume_does() -> None:
    """98 x 68 x 58 mm inside, walls of 2 mm: 68.9 cm3, worked by hand, at 1.15 g/cm3."""
    case = expand(kit("E03"), shipped(), 1)[0]
    volume_cm3 = (10.2 * 7.2 * 6.2) - (9.8 * 6.8 * 5.8)
    assert volume_cm3 == pytest.approx(68.8, abs=0.1)
    assert mass_g(case) == pytest.approx(volume_cm3 * 1.15)


def test_supply_lead_and_what_is_borrowed_stay_on_the_table() -> None:
    """All else is carried, outside on USB too."""
    items = expand(kit("B06", "S05", "C01", "M02", "X10", "F01", "T04"), shipped(), 1)
    assert [p.line.id for p in items if counts(p)] == ["B06", "M02", "X10", "F01"]
    inside = expand(kit("S12"), shipped(), 1)[0]
    assert counts(inside)


def test_the_sum_and_what_is_not_in_it() -> None:
    """Board 47 g, card 0.4 g and a plate of 58 g; a part without a mass is named."""
    known, unknown = kit_mass_g(expand(kit("B06", "M02", "K03"), shipped(), 1))
    assert known == pytest.approx(47 + 0.4 + 58)
    assert unknown == []
    light = {"id": "own", "kind": "device", "maker": "m", "model": "Own", "revision": 1}
    catalogue = shipped().extended([light])
    plan = kit("B06")
    line = plan.lines[0].model_copy(update={"id": "own", "role": "add_on", "part": "own"})
    items = expand(plan.model_copy(update={"lines": (*plan.lines, line)}), catalogue, 1)
    assert [item.line.id for item in kit_mass_g(items)[1]] == ["own"]
