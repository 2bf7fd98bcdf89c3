"""Searches that run beside the server's other work: one a plan, in a thread of their own."""

from __future__ import annotations

import logging
from collections.abc import Iterator
from dataclasses import dataclass, field
from threading import Lock, Thread
from time import sleep

from cobblewort.core.changing.suggest import (
    Gain,
    OwnKit,
    Suggestion,
    Wishes,
    gains,
    own_kit,
    suggest,
)
from cobblewort.core.changing.suggest.search import SAMPLES
from cobblewort.core.errors import InputError
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.evaluate import evaluation_of, samples_that_fit

AT_ONCE, KEPT = 2, 8
BREATH_S = 0.001
"""Between two kits the other threads are let in: a search works without a pause otherwise."""
_LOG = logging.getLogger("cobblewort")


@dataclass(slots=True)
class Search:
    """One search: what it was asked of which version of a plan, and what is known so far.

    `own` is the kit that the plan has, None where it has no board. `gains` are what less would
    cost, worked out once all kits are known. `failed` says why it ended early, empty where it did
    not.
    """

    plan_id: str
    version: int
    wishes: Wishes
    currency: str
    known: Suggestion
    own: OwnKit | None = None
    running: bool = True
    stopped: bool = False
    failed: str = ""
    gains: list[Gain] = field(default_factory=list)
    steps: Iterator[Suggestion] | None = field(default=None, repr=False)
    further: Iterator[Gain] | None = field(default=None, repr=False)


class Searches:
    """The searches of a server, the latest of each plan."""

    def __init__(self) -> None:
        self._latest: dict[str, Search] = {}
        self._lock = Lock()

    def start(
        self, plan_id: str, version: int, plan: Plan, catalogue: Catalogue, wishes: Wishes
    ) -> Search:
        """Begin a search; an earlier one of the plan ends.

        Raises
        ------
        InputError
            If a wish cannot be taken as it stands, or as many searches run already as may.
        """
        steps = suggest(plan, catalogue, wishes)
        first, own = next(steps), _own(plan, catalogue, wishes)
        with self._lock:
            others = (one for one in self._latest.values() if one.plan_id != plan_id)
            running = sum(one.running for one in others)
            if running >= AT_ONCE:
                told = "Other searches are running. Stop one of them, or wait until it ends."
                raise InputError([("", told)])
            self._stop(plan_id)
            search = Search(plan_id, version, wishes, plan.currency, first, own, steps=steps)
            search.further = gains(plan, catalogue, wishes)
            self._latest.pop(plan_id, None)
            self._latest[plan_id] = search
            while len(self._latest) > KEPT:
                del self._latest[next(iter(self._latest))]
        Thread(target=_run, args=(search,), name=f"search of {plan_id}", daemon=True).start()
        return search

    def of(self, plan_id: str, version: int) -> Search | None:
        """The latest search of a plan; None where there is none of this version."""
        with self._lock:
            search = self._latest.get(plan_id)
            if search is not None and search.version != version:
                self._stop(plan_id)
                del self._latest[plan_id]
                return None
            return search

    def stop(self, plan_id: str) -> None:
        """End the search of a plan; what it knows stays."""
        with self._lock:
            self._stop(plan_id)

    def stop_all(self) -> None:
        """End every search."""
        with self._lock:
            for plan_id in self._latest:
                self._stop(plan_id)

    def _stop(self, plan_id: str) -> None:
        search = self._latest.get(plan_id)
        if search is not None and search.running:
            search.stopped, search.running = True, False


def _own(plan: Plan, catalogue: Catalogue, wishes: Wishes) -> OwnKit | None:
    if not any(line.role == "board" for line in plan.lines):
        return None
    samples = samples_that_fit(plan, SAMPLES)
    return own_kit(evaluation_of(plan, catalogue, samples), wishes.criteria)


def _run(search: Search) -> None:
    """Go on until everything is known or somebody stops it."""
    steps, search.steps = search.steps, None
    further, search.further = search.further, None
    try:
        for known in steps or ():
            if search.stopped:
                return
            search.known = known
            sleep(BREATH_S)
        for gain in further or ():
            if search.stopped:
                return
            search.gains = [*search.gains, gain]
            sleep(BREATH_S)
    except InputError as error:
        search.failed = str(error)
    except Exception:
        _LOG.exception("the search for plan %s failed", search.plan_id)
        search.failed = "The search failed. This is a fault of the program, not of your plan."
    finally:
        search.running = False
