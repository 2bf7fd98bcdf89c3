"""Buses: what shares the way to the processor, through hubs and leads too."""

import pytest
from pydantic import ValidationError

from cobblewort.core.aspects.fit.assign import assign
from cobblewort.core.aspects.fit.buses import buses
from cobblewort.core.errors import InputError
from cobblewort.core.judging.item import expand
from cobblewort.core.parts.model import PART
from cobblewort.core.plans.plan import Plan
from tests.kits import checked, kit, shipped


def shared(plan: Plan) -> dict[str, tuple[float, list[str]]]:
    """For each plug on a bus its rate and the lines that share it."""
    found = buses(assign(expand(plan, shipped(), 1)))
    return {
        name.split("#")[0]: (on.bus.rate_mb_s, sorted(o.item.line.id for o in on.others))
        for name, on in found.items()
    }


def test_everything_on_an_older_card_shares_480_mb_s() -> None:
    """USB 2.0: 480 Mb/s, 60 MB/s raw, for all four sockets together."""
    found = shared(kit("B04", "S06", "M02", "X05", "X10"))
    assert found == {"X05": (60, ["X10"]), "X10": (60, ["X05"])}


def test_a_slow_bus_lives_inside_a_fast_one() -> None:
    """On the middle card a USB 2 stick and a USB 3 bridge share the one lane of 4 Gb/s."""
    found = shared(kit("B06", "S01", "M02", "X05", "A12", "D09"))
    assert found["X05"] == (60, ["A12"])
    assert found["A12"] == (400, ["X05"])


def test_the_two_fast_sockets_of_a_fast_card_share_nothing() -> None:
    """Each has 5 Gb/s of its own."""
    found = shared(kit("B10", "S03", "M02", "2xA12", "2xD09"))
    assert found["A12"] == (500, [])


def test_what_hangs_on_a_hub_shares_its_way() -> None:
    """The sticks on a hub name each other; the hub itself is no rival of what hangs on it."""
    plan = kit("B10", "S03", "M02", "H03", "2xX05", "4xX10")
    found = buses(assign(expand(plan, shipped(), 1)))
    hub = next(on for name, on in found.items() if name.startswith("H03"))
    on_hub = [
        name
        for name, (_, at) in assign(expand(plan, shipped(), 1)).placed.items()
        if at.item.line.id == "H03"
    ]
    assert on_hub
    assert not {other.id for other in hub.others} & set(on_hub)
    for name in on_hub:
        assert found[name].bus is hub.bus
        assert {other.id for other in found[name].others} >= set(on_hub) - {name}


def test_the_report_says_it_in_words() -> None:
    """Label, raw rate, and who shares it."""
    report = checked(kit("B04", "S06", "M02", "X05", "X10"))
    entry = next(c for c in report.fit.connections if c.plug_line == "X05")
    assert entry.bus.text == "USB 2 bus, shared with Ethernet, 60 MB/s raw, one direction at a time"
    assert entry.shares_with == "Hop N"
    power = next(c for c in report.fit.connections if c.plug_line == "S06")
    assert (power.bus.text, power.shares_with) == ("", "")


def test_a_bus_that_is_not_there_or_a_ring_is_refused() -> None:
    """With the sentence that says what there is."""
    board = shipped().document(shipped().part("B04"))
    with pytest.raises(InputError, match="there is no bus 'fast' \\(there are: usb\\)"):
        shipped().extended([{**board, "sockets": {"usb1": {"bus": "fast"}}}])
    ring = {
        "a": {"label": "a", "rate_mb_s": 1, "parent": "b"},
        "b": {"label": "b", "rate_mb_s": 1, "parent": "a"},
    }
    with pytest.raises(ValidationError, match="a ring"):
        PART.validate_python(
            {"id": "x", "kind": "board", "maker": "m", "model": "x", "buses": ring}
        )
