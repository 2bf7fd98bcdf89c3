"""Single steps of the supply network that a sum over all of them would hide."""

from __future__ import annotations

import numpy as np
import pytest

from cobblewort.core.aspects.power.network import Bursts, carried_by
from tests.kits import checked, kit


def test_a_burst_of_watts_and_one_of_amperes_add() -> None:
    """2 W at 5 V are 0.4 A, and 0.1 A besides; where the voltage is lost only the amperes."""
    at = np.array([0])
    carried = carried_by(np.ones((1, 1)), at)
    bursts = Bursts(np.array([[2.0, 2.0]]), np.array([[0.1, 0.1]]), at, carried)
    assert bursts.drawn_a(np.array([[5.0, 0.0]]), some_lost=True)[0] == pytest.approx([0.5, 0.1])
    assert bursts.drawn_a(np.array([[5.0, 4.0]]), some_lost=False)[0] == pytest.approx([0.5, 0.6])


def test_two_bursts_add_in_squares_and_those_of_a_group_at_once() -> None:
    """0.3 and 0.4 A are 0.5 A by themselves and 0.7 A in one array."""
    below, both = np.ones((1, 1)), np.array([0, 0])
    drawn = np.array([[0.3], [0.4]])
    assert carried_by(below, both).carried_a(drawn)[0, 0] == pytest.approx(0.5)
    assert carried_by(below, both, [(0, 1)]).carried_a(drawn)[0, 0] == pytest.approx(0.7)


def test_what_hangs_on_a_rail_itself_is_what_its_children_leave() -> None:
    """In the mean states, where currents add up: the board's own draw is neither counted twice
    nor lost.
    """
    supply = checked(kit("B10", "S03", "M02", "H02", "X05", "X07", "K05")).power
    means = [n for n, state in enumerate(supply.states) if state.id in ("all", "start")]
    for node in supply.nodes:
        children = [child for child in supply.nodes if child.parent == node.id]
        for state in means:
            own = node.current_a[state] - sum(child.input_a[state] for child in children)
            assert node.loads_a[state] == pytest.approx(max(0, own), abs=1e-6)
    board = next(node for node in supply.nodes if node.id == "B10#1.main")
    assert 0 < board.loads_a[means[0]] < 0.9 * board.current_a[means[0]]
