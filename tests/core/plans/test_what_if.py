import pytest

from cobblewort.core.errors import InputError
from cobblewort.core.plans.what_if import what_if
from tests.kits import SMALL, checked, kit

PLAN = kit(*SMALL, place={"ambient_min_c": 10, "ambient_max_c": 30, "altitude_m": 500})


def test_nothing_assumed_is_the_plan_itself() -> None:
    """None leaves it as it is."""
    assert what_if(PLAN) is PLAN


def test_only_the_hottest_day_changes() -> None:
    """The rest of the place stays, and so does the plan that was handed in."""
    hot = what_if(PLAN, 44)
    assert (hot.place.ambient_min_c, hot.place.ambient_max_c) == (10, 44)
    assert hot.place.altitude_m == 500
    assert PLAN.place.ambient_max_c == 30


def test_a_day_colder_than_the_coldest_moves_both() -> None:
    """The coldest day is never warmer than the hottest."""
    cold = what_if(PLAN, -5)
    assert (cold.place.ambient_min_c, cold.place.ambient_max_c) == (-5, -5)


def test_an_absurd_day_is_refused() -> None:
    """With the range in the sentence."""
    with pytest.raises(InputError, match="must be at most 90"):
        what_if(PLAN, 900)


def test_everything_at_work_all_day() -> None:
    """Every phase is as hard as that, for every line; hours and names stay."""
    hard = what_if(PLAN, activity="full")
    assert {phase.activity for phase in hard.schedule} == {"full"}
    assert all(not phase.lines for phase in hard.schedule)
    assert [p.name for p in hard.schedule] == [p.name for p in PLAN.schedule]
    warmest = [max(checked(plan).heat.wanted_die_c[:2]) for plan in (PLAN, hard)]
    assert warmest[1] > warmest[0]
