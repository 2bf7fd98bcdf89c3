"""The shipped purposes and places: whole, readable, and only of invented parts."""

import pytest

from cobblewort.core.plans.purpose import Purpose
from cobblewort.formats.shipped import shipped_places, shipped_purposes
from tests.kits import shipped

PURPOSES = list(shipped_purposes().values())


def test_they_stand_in_the_order_of_their_titles() -> None:
    """As somebody looks for one in a list; what fits none of them last."""
    titles = [purpose.title for purpose in PURPOSES]
    assert titles == [*sorted(titles[:-1]), "Something else"]


def test_all_kinds_of_builds_are_there() -> None:
    """Twenty purposes and ten places, each with a title of its own."""
    assert len(PURPOSES) == 20
    assert len({purpose.title for purpose in PURPOSES}) == 20
    assert len(shipped_places()) == 10


@pytest.mark.parametrize("purpose", PURPOSES, ids=lambda purpose: purpose.id)
def test_a_purpose_is_whole(purpose: Purpose) -> None:
    """Needs in plain words, a day of at most 24 hours, things to borrow that exist."""
    assert purpose.summary.endswith(".")
    assert not any(requirement.text[0].isupper() for requirement in purpose.requirements)
    sentences = (*purpose.mistakes, *purpose.cautions)
    assert all(text[0].isupper() and text.endswith(".") for text in sentences)
    assert sum(phase.hours for phase in purpose.schedule) <= 24
    assert all(shipped().part(part).kind == "tool" for part in purpose.set_up)
    assert purpose.place is None or purpose.place in shipped_places()
    if purpose.id != "something-else":
        assert purpose.requirements
        assert purpose.mistakes
        assert purpose.ready_made.better
        assert purpose.ready_made.worse
        assert purpose.image is not None
