import pytest

from cobblewort.core.errors import InputError
from cobblewort.core.what_if import with_ambient
from tests.kits import SMALL, kit

PLAN = kit(*SMALL, place={"ambient_min_c": 10, "ambient_max_c": 30, "altitude_m": 500})


def test_nothing_assumed_is_the_plan_itself() -> None:
    """None leaves it as it is."""
    assert with_ambient(PLAN, None) is PLAN


def test_only_the_hottest_day_changes() -> None:
    """The rest of the place stays, and so does the plan that was handed in."""
    hot = with_ambient(PLAN, 44)
    assert (hot.place.ambient_min_c, hot.place.ambient_max_c) == (10, 44)
    assert hot.place.altitude_m == 500
    assert PLAN.place.ambient_max_c == 30


def test_a_day_colder_than_the_coldest_moves_both() -> None:
    """The coldest day is never warmer than the hottest."""
    cold = with_ambient(PLAN, -5)
    assert (cold.place.ambient_min_c, cold.place.ambient_max_c) == (-5, -5)


def test_an_absurd_day_is_refused() -> None:
    """With the range in the sentence."""
    with pytest.raises(InputError, match="less than or equal to 90"):
        with_ambient(PLAN, 900)
