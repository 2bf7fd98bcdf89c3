"""Where else a plug could go."""

import pytest

from cobblewort.core.changing.moves import moves
from cobblewort.core.errors import InputError
from cobblewort.core.plans.patch import apply_patch
from tests.kits import SMALL, checked, kit, shipped, told


def test_every_socket_that_takes_it_is_there_and_the_one_in_use_comes_first() -> None:
    """Four sockets of a card; the supply's socket and the hub's are told by name."""
    found = moves(kit(*SMALL, "X06", "H02"), shipped(), "X06#1.usb")
    assert [p.current for p in found] == [True] + [False] * 7
    assert {p.socket.split(".")[0] for p in found} == {"B06#1", "H02#1"}
    assert all(p.label.endswith(")") for p in found)


def test_a_move_is_the_patch_that_it_says() -> None:
    """Applied, the plug stands there, and what stood there has moved."""
    plan = kit(*SMALL, "X06", "X07")
    taken = next(p for p in moves(plan, shipped(), "X06#1.usb") if p.holder)
    assert taken.holder == "Gloaming 384"
    after = {c.plug: c.socket for c in checked(apply_patch(plan, taken.patch)).fit.connections}
    assert after["X06#1.usb"] == taken.socket
    assert after["X07#1.usb"] != taken.socket


def test_the_snag_that_a_move_would_bring_is_told() -> None:
    """A wide stick beside another: where it keeps the other out, it says so."""
    plan = kit(*SMALL, "X11", "C07")
    brought = [p.reason for p in moves(plan, shipped(), "X11#1.usb") if p.reason]
    assert brought
    assert all("do not fit side by side" in reason.text for reason in brought)
    assert told(checked(plan), "FIT-18") == []


def test_a_plug_that_finds_no_socket_can_still_be_asked_about() -> None:
    """The fifth of five on four sockets: every socket is held by another."""
    plan = kit(*SMALL[:5], "X05", "X06", "X07", "X09", "X10")
    left = told(checked(plan), "FIT-02")[0].lines[0]
    found = moves(plan, shipped(), f"{left}#1.usb")
    assert len(found) == 4
    assert all(p.holder and not p.current for p in found)


def test_an_unknown_plug_is_told_in_words() -> None:
    """It went away meanwhile."""
    with pytest.raises(InputError, match="Reload"):
        moves(kit(*SMALL), shipped(), "gone#1.usb")
