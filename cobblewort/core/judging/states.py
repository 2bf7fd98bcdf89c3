"""The states in which a kit is judged: idle, each phase of its day, all at once, the start."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from operator import itemgetter

import numpy as np

from cobblewort.core.figures.arrays import IntArray
from cobblewort.core.plans.plan import Phase

START = "start"
"""The id of the state in which everything begins at once, for about a second."""


@dataclass(slots=True, frozen=True)
class State:
    """A state of the kit, known by its id, as two phases may have one name.

    `hard` states must hold; `mean` ones are for heat and energy. `phase` is the place of a duty
    phase in the plan, None for the others.
    """

    id: str
    label: str
    hard: bool
    mean: bool
    phase: int | None = None

    @property
    def limits(self) -> bool:
        """Whether limits look at it: all states but the means of phases."""
        return self.phase is None or not self.mean


@dataclass(slots=True, frozen=True)
class LookedAt:
    """Some of the states, by their places among all: ids, labels, and which of them must hold.
    `at` are the places once more, to pick them from arrays.

    `must_hold` and `worst_case` are places among these: of those that must, and of the one that
    need not, if there is any. `hard_of` picks from one value a state those of states that must
    hold.
    """

    places: list[int]
    at: IntArray
    states: list[State]
    ids: tuple[str, ...]
    labels: tuple[str, ...]
    hard: tuple[bool, ...]
    must_hold: tuple[int, ...]
    worst_case: int | None
    hard_of: Callable[[Sequence[float]], tuple[float, ...]]

    @classmethod
    def of(cls, states: Sequence[State], places: list[int]) -> LookedAt:
        """Those at some places."""
        picked = [states[place] for place in places]
        ids, labels = tuple(s.id for s in picked), tuple(s.label for s in picked)
        hard = tuple(s.hard for s in picked)
        must_hold = tuple(k for k, is_hard in enumerate(hard) if is_hard)
        worst_case = hard.index(False) if False in hard else None
        return cls(
            places,
            np.array(places),
            picked,
            ids,
            labels,
            hard,
            must_hold,
            worst_case,
            _picking(must_hold),
        )


def _picking(places: tuple[int, ...]) -> Callable[[Sequence[float]], tuple[float, ...]]:
    """Picks the values at some places."""
    if len(places) == 1:  # of which an itemgetter would give the value itself
        return lambda values: (values[places[0]],)
    return itemgetter(*places)


ANY_TIME = LookedAt.of([State("", "", True, True)], [0])
"""Of limits to which it is all the same what the kit does."""


def looked_at(states: tuple[State, ...]) -> tuple[LookedAt, LookedAt]:
    """The states that limits look at, and those whose means heat looks at."""
    limits = LookedAt.of(states, [n for n, state in enumerate(states) if state.limits])
    return limits, LookedAt.of(states, [n for n, state in enumerate(states) if state.mean])


def states_of(schedule: Iterable[Phase]) -> list[State]:
    """The states a plan is judged in: idle, each phase (peaks and means), all at once, start."""
    states = [State("idle", "Idle", True, True)]
    for number, phase in enumerate(schedule, 1):
        name, place = phase.name, number - 1
        states.append(State(f"phase-{number}", name, True, False, place))
        states.append(State(f"phase-{number}-mean", f"{name} (mean)", True, True, place))
    states.append(State("all", "Worst case", False, True))
    states.append(State(START, "Power-up", True, False))
    return states


@dataclass(slots=True, frozen=True)
class StateReport:
    """A state of the kit. `hard` ones must hold."""

    id: str
    label: str
    hard: bool


def hours_of(schedule: Sequence[Phase], states: Iterable[State]) -> list[float]:
    """Hours a day of idling and of each phase among some states; what no phase covers is idle."""
    idle_h = max(0.0, 24.0 - sum(phase.hours for phase in schedule))
    return [
        idle_h if state.phase is None else schedule[state.phase].hours
        for state in states
        if state.phase is not None or state.id == "idle"
    ]


def light_in(schedule: Sequence[Phase], line: str, states: Iterable[State]) -> tuple[bool, ...]:
    """In which of some states a line has so little to do that nobody waits for it."""
    return tuple(
        state.id == "idle"
        or (state.phase is not None and schedule[state.phase].activity_of(line) in _LIGHT)
        for state in states
    )


_LIGHT = ("off", "idle", "light")


def told_states(states: Iterable[State]) -> list[StateReport]:
    """States as a report tells of them."""
    return [StateReport(state.id, state.label, state.hard) for state in states]
