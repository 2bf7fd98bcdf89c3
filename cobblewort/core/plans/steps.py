"""A plan with the steps in which it came to be."""

from __future__ import annotations

from dataclasses import dataclass

from cobblewort.core.plans.plan import Plan


@dataclass(slots=True, frozen=True)
class Step:
    """One revision of a plan: the number of the one it was made from, and what it was called."""

    number: int
    parent: int | None
    label: str
    created_at: str
    plan: Plan


@dataclass(slots=True, frozen=True)
class PlanFile:
    """A plan with its steps, oldest first; `head` is the number of the one it stands at.

    Without steps it begins as it stands.
    """

    plan: Plan
    steps: tuple[Step, ...] = ()
    head: int = 1
