"""The first kit against every kit there is, on catalogues small enough to try them all."""

from decimal import Decimal
from itertools import product

import pytest

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.changing.suggest import first_kit
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.plans.purpose import plan_for
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.formats.shipped import (
    shipped_classes,
    shipped_parts,
    shipped_places,
    shipped_purposes,
)
from tests.kits import ROLE_OF_LETTER

BOARDS = ("B04", "B06", "B10")
SUPPLIES = (("S01",), ("S02",), ("S03",), ("S06",), ("S07", "C04"))
CARDS = ("M01", "M02")
COOLERS = ((), ("K02",), ("K03",), ("K05",))
CASES = ("E02", "E03", "E04")


def of_parts(extra: tuple[str, ...]) -> Catalogue:
    """Only the parts that the search below tries, and what the purpose needs besides."""
    flat = {*BOARDS, *CARDS, *CASES, *extra, "T04", "T01", "T02", "T03"}
    flat |= {part for pair in (*SUPPLIES, *COOLERS) for part in pair}
    documents = [document for document in shipped_parts() if document["id"] in flat]
    return Catalogue.from_documents(documents, shipped_classes())


def every_total(empty: Plan, catalogue: Catalogue, extra: tuple[str, ...]) -> list[Decimal]:
    """What each kit costs that meets every need, that nothing stops and in which nothing is
    tight; where there is none, what each kit costs that nothing stops.
    """
    totals, sound = [], []
    cards = (*CARDS, *(part for part in extra if part[0] == "M"))
    others = tuple(part for part in extra if part[0] != "M")
    for board, supply, card, cooler, case in product(BOARDS, SUPPLIES, cards, COOLERS, CASES):
        parts = (board, *supply, card, *cooler, case, *others)
        lines = [{"id": p, "role": ROLE_OF_LETTER[p[0]], "part": p} for p in parts]
        plan = Plan.model_validate({**empty.model_dump(), "lines": lines})
        found = evaluation_of(plan, catalogue)
        if found.count("problem") == 0:
            total = cost_of(found.kit).total
            totals.append(total)
            if not found.count("tight") and not evaluation_of(plan, catalogue, 64).count("tight"):
                sound.append(total)
    return sound or totals


@pytest.mark.parametrize(
    ("purpose", "place", "extra"),
    [
        ("sign", "indoor-room", ()),
        ("sign", "loft", ()),
        ("first-server", "rack", ("M03",)),
        pytest.param("home-hub", "cupboard", ("X09", "M05"), marks=pytest.mark.long),
        pytest.param("climate-logger", "damp-cellar", ("X03", "X17"), marks=pytest.mark.long),
    ],
)
def test_no_kit_of_these_parts_is_cheaper(purpose: str, place: str, extra: tuple[str, ...]) -> None:
    """What is proven is what trying every kit finds."""
    empty = plan_for(shipped_purposes()[purpose], purpose, shipped_places()[place].place)
    empty = empty.model_copy(update={"lines": ()})
    catalogue = of_parts(extra)
    found = first_kit(empty, catalogue)
    totals = every_total(empty, catalogue, extra)
    if totals:
        assert found.failing == []
        assert found.total == min(totals)
    else:
        assert found.failing != []
