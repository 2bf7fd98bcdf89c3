from decimal import Decimal
from typing import Any

import pytest

from cobblewort.core.changing.candidates import candidates
from tests.kits import SMALL, checked, kit, shipped, told


def test_the_bill_counts_quantities_and_leaves_out_what_is_owned() -> None:
    """Two drives cost twice; owned parts show their worth; loans are no purchase."""
    plan = kit("B06", "2xD11", "T04")
    lines = tuple(
        line.model_copy(update={"owned": True}) if line.id == "B06" else line for line in plan.lines
    )
    cost = checked(plan.model_copy(update={"lines": lines})).cost
    assert cost.total == Decimal("96")
    assert cost.owned_value == Decimal("47")


def _card(part_id: str, price: str, capacity_gb: float) -> dict[str, Any]:
    return {
        "id": part_id,
        "kind": "card",
        "maker": "m",
        "model": part_id,
        "price": price,
        "storage": {"capacity_gb": capacity_gb},
    }


@pytest.mark.parametrize(
    ("price", "capacity_gb", "other_price", "says"),
    [
        ("0.70", 2, "0.34", "for less money"),
        ("0.60", 16, "0.75", "costs €0.15 more than"),
        ("0.60", 16, "0.60", "costs as much as"),
        ("0.60", 16, "0.90", ""),
        ("3", 64, "3.60", ""),
    ],
)
def test_a_larger_card_for_little_more(
    price: str, capacity_gb: float, other_price: str, says: str
) -> None:
    """Beside a small card; of a large one nobody asks for twice the room. The shipped cards are
    dearer than all of these.
    """
    cards = _card("M90", price, capacity_gb), _card("M91", other_price, 2 * capacity_gb)
    report = checked(kit("B06", "S01", "M90"), 1, shipped().extended(cards))
    found = [f.sentence.text for f in told(report, "COST-03") if f.lines == ("M90",)]
    assert [says in text for text in found] == ([True] if says else [])


def test_several_copies_are_bought_whole_but_for_what_is_owned() -> None:
    """Three copies of a 47 board that is owned once, and of two drives: 2 x 47 + 3 x 96."""
    plan = kit("B06", "2xD11", "T04", copies=3, budget="380")
    owned = plan.lines[0].model_copy(update={"owned": True})
    report = checked(plan.model_copy(update={"lines": (owned, *plan.lines[1:])}))
    assert report.cost.total == Decimal("382")
    assert report.cost.further == Decimal("143")
    assert told(report, "COST-01")[0].sentence.text.startswith(
        "3 copies of the kit cost €382; the budget"
    )


def test_money_stays_decimal() -> None:
    """Ten at 7.50 are 75.00 exactly."""
    assert checked(kit("B10", "10xK05")).cost.total == Decimal("96") + Decimal("75.00")


def test_cost_01_over_and_within_budget() -> None:
    """One below the sum is tight, the sum itself is enough; without a budget nothing is judged."""
    total = checked(kit(*SMALL)).cost.total
    assert told(checked(kit(*SMALL, budget=total - 1)), "COST-01")[0].severity == "tight"
    assert told(checked(kit(*SMALL, budget=total)), "COST-01") == []
    family = next(f for f in checked(kit(*SMALL)).families if f.id == "cost")
    assert not family.checked


def test_cost_02_a_price_that_is_not_known_or_foreign() -> None:
    """The sum leaves it out and says so; a known price is silent."""
    parts = [
        {"id": "F90", "kind": "fastener", "maker": "m", "model": "Gift"},
        {
            "id": "F91",
            "kind": "fastener",
            "maker": "m",
            "model": "Far",
            "price": "5",
            "currency": "GBP",
        },
    ]
    report = checked(kit("B06", "F90", "F91"), catalogue=shipped().extended(parts))
    sentences = " ".join(f.sentence.text for f in told(report, "COST-02"))
    assert "Gift" in sentences
    assert "not in EUR" in sentences
    assert report.cost.unknown == ["F90", "F91"]
    assert told(checked(kit(*SMALL)), "COST-02") == []


def test_a_price_in_another_currency_counts_at_its_rate() -> None:
    """What one of it costs in the plan's is given by its owner; then nothing is left out, and every
    sum, offer and comparison is in the plan's currency.
    """
    in_euros = checked(kit(*SMALL, budget="100"))
    rates = {"EUR": "1.25"}
    put = checked(kit(*SMALL, budget="125", currency="USD", rates=rates))
    assert put.cost.currency == "USD"
    assert put.cost.unknown == []
    assert put.cost.total == pytest.approx(
        in_euros.cost.total * Decimal("1.25"), abs=Decimal("0.05")
    )
    assert told(put, "COST-02") == []
    assert put.margin("COST-01:budget").limit == 125
    cards = {card.part: card.price for card in put.lifetime.cards}
    assert cards == {
        card.part: (card.price * Decimal("1.25")).quantize(Decimal("0.01"))
        for card in in_euros.lifetime.cards
    }
    offered = candidates(kit(*SMALL, currency="USD", rates=rates), shipped(), "cooling")
    assert {entry.currency for entry in offered if entry.price is not None} == {"USD"}
    plain = candidates(kit(*SMALL, currency="USD"), shipped(), "cooling")
    assert {entry.currency for entry in plain if entry.price is not None} == {"EUR"}


def test_safe_01_a_makers_caution_is_shown() -> None:
    """The wall plate is mains wiring, and the plan says who fits it."""
    finding = told(checked(kit("B06", "S07", "C04", "M02")), "SAFE-01")[0]
    assert "qualified electrician" in finding.sentence.text
    assert finding.severity == "note"
    assert told(checked(kit(*SMALL)), "SAFE-01") == []
