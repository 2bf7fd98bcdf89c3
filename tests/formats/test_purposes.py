"""The shipped purposes and places: whole, readable, and only of invented parts."""

import re

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
    """Requirements in plain words, a day of at most 24 hours, set-up tools that exist."""
    assert purpose.summary.endswith(".")
    assert not any(
        re.match(r"[A-Z][a-z]", requirement.text)
        for requirement in purpose.requirements
        if not requirement.text.startswith("Ethernet")
    )
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
