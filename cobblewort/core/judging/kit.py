"""A plan with its parts looked up, and what has been worked out of it, each thing once.

What is worked out of a kit, and each rule, declares what of the plan it reads, and is given the
values of that and nothing else. So it follows what a kit may take over from another one that it is
like. Some of what is worked out is
firm: it comes out the same after many a change, and what reads it asks for no more than that.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from functools import update_wrapper
from operator import attrgetter, eq
from typing import Any, Generic, TypeVar

from cobblewort.core.errors import InputError
from cobblewort.core.judging.item import Item, expand
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import NOT_OF_IT, Line, Place, Plan

T = TypeVar("T")

_OF_PLACE = tuple(f"place.{name}" for name in Place.model_fields)
_IN_ITEMS = ("format", "lines", "parts", "place")
"""Fields of a plan that are read as something else: `items`, `catalogue`, `place.…`."""
FACETS: tuple[str, ...] = (
    "items",
    "spares",
    "built",
    "connected",
    "catalogue",
    "samples",
    *_OF_PLACE,
    *(name for name in Plan.model_fields if name not in _IN_ITEMS),
)
"""What can be read of a kit: its pieces with their lines, its spares, those of which the thing is
built, those that are connected to others, the catalogue around them, how many samples a figure has,
each figure of its place, and each other field of its plan by its name."""
_OF_KIT = ("items", "spares", "built", "connected", "catalogue", "samples")


class Derived(Generic[T]):
    """What is worked out of a kit when it is first asked for, and kept on it.

    Called with a kit it gives the result. `work` is called with the values of what is declared to
    be read, in that order, and sees nothing else. Of what is firm, `same` tells whether two results
    are as good as one.
    """

    __name__: str

    def __init__(
        self, work: Callable[..., T], inputs: Inputs, same: Callable[[Any, Any], bool] | None
    ) -> None:
        self.work, self.inputs, self.same = work, inputs, same
        update_wrapper(self, work)

    def __call__(self, kit: Kit) -> T:
        """What is kept on the kit, worked out first where nothing is."""
        try:
            value: T = kit.known[self]
        except KeyError:
            value = kit.work_out(self)
        return value


Read = str | Derived[Any]
"""A facet, or something derived that is asked for."""


@dataclass(slots=True, frozen=True)
class Reads:
    """What is read of a kit, with all that is read by what is asked for: facets, and what is
    firm.
    """

    facets: frozenset[str]
    firm: frozenset[Derived[Any]] = frozenset()


@dataclass(slots=True, frozen=True, eq=False)
class Inputs:
    """What somebody declares to read of a kit, and gets: the value of each, in that order."""

    reads: Reads
    getters: tuple[Callable[[Kit], Any], ...]

    def of(self, kit: Kit) -> list[Any]:
        """The values in one kit."""
        return [get(kit) for get in self.getters]


def inputs_of(reads: Sequence[Read], reader: Callable[..., Any], more: int = 0) -> Inputs:
    """The inputs of a function with a parameter for each of `reads`, and so many `more`.

    Raises
    ------
    ValueError
        If there is no such facet, or the function takes more or fewer values.
    """
    takes = reader.__code__.co_argcount
    if takes != len(reads) + more:
        raise ValueError(f"{reader.__name__} takes {takes} values and declares {len(reads)}")
    return Inputs(closed(reads), tuple(_getter(read) for read in reads))


def _getter(read: Read) -> Callable[[Kit], Any]:
    if isinstance(read, Derived):
        return read
    return attrgetter(read if read in _OF_KIT else f"plan.{read}")


def closed(reads: Iterable[Read]) -> Reads:
    """All that is read where `reads` are: facets, what is firm, and what others there read.

    Raises
    ------
    ValueError
        If there is no such facet.
    """
    facets: set[str] = set()
    kept: set[Derived[Any]] = set()
    for read in reads:
        if isinstance(read, Derived):
            if read.same is None:
                facets |= read.inputs.reads.facets
                kept |= read.inputs.reads.firm
            else:
                kept.add(read)
        elif read in FACETS:
            facets.add(read)
        else:
            raise ValueError(f"a plan has no facet '{read}' (it has: {', '.join(FACETS)})")
    return Reads(frozenset(facets), frozenset(kept))


def derived(*reads: Read) -> Callable[[Callable[..., T]], Derived[T]]:
    """Make the decorated function something derived: it is called with the values of `reads`."""
    return lambda work: Derived(work, inputs_of(reads, work), None)


def firm(
    *reads: Read, same: Callable[[Any, Any], bool] = eq
) -> Callable[[Callable[..., T]], Derived[T]]:
    """The same of what is worth comparing, as it comes out the same after many a change."""
    return lambda work: Derived(work, inputs_of(reads, work), same)


class Items(tuple[Item, ...]):
    """Pieces in kit order."""

    def of_role(self, role: str) -> list[Item]:
        """Those on lines of one role."""
        return [item for item in self if item.line.role == role]

    def by_line(self) -> list[tuple[Line, Part]]:
        """The lines with their parts."""
        return [(item.line, item.part) for item in self if item.index == 1]


class Kit:
    """A plan with its parts looked up, from which rules get the values that they declare.

    `items` are all of it but the `spares`, `built` those that are not merely lent or there already,
    `connected` the ones among them of which supply and data know. `differs` are the facets in which
    it differs from the kit that it was made like; all of them where it was made like none.

    Parameters
    ----------
    plan : Plan
        What is judged.
    catalogue : Catalogue
        Where its parts are looked up; those that the plan carries come first.
    samples : int
        Values a figure.
    like : Kit, optional
        A kit of nearly the same plan: pieces whose lines are unchanged are taken from it, and all
        that is derived from nothing that has changed.

    Raises
    ------
    UnknownPartError
        If a line names a part that is nowhere.
    InputError
        If it has more hubs, sockets or rails than are judged.
    """

    def __init__(
        self, plan: Plan, catalogue: Catalogue, samples: int, like: Kit | None = None
    ) -> None:
        self.plan = plan
        self.offered = catalogue
        self.catalogue = catalogue.for_plan(plan)
        self.samples = samples
        if like is not None and like.samples != samples:
            like = None
        self.items: Items
        self.spares: Items
        self.built: Items
        self.connected: Items
        alike = like is not None and like.catalogue is self.catalogue
        if like is not None and alike and like.plan.lines == plan.lines:
            self.items, self.built, self.connected = like.items, like.built, like.connected
            self.spares = like.spares
        else:
            known = () if like is None else (*like.items, *like.spares)
            there = expand(plan, self.catalogue, samples, known, alike)
            self.items = Items(item for item in there if not item.line.spare)
            self.spares = Items(item for item in there if item.line.spare)
            _check_size(self.items)
            self.built = Items(
                item
                for item in self.items
                if item.compiled.connected or item.line.role not in NOT_OF_IT
            )
            self.connected = Items(item for item in self.built if item.compiled.connected)
        self.known: dict[Derived[Any], Any] = {}
        self.differs = _ALL if like is None else self._changed_since(like)
        # What was known of the other kit, and what of it has stayed.
        self._before: dict[Derived[Any], Any] = {} if like is None else dict(like.known)
        self._stayed: dict[Derived[Any], bool] = {}

    def work_out(self, wanted: Derived[T]) -> T:
        """Work something out, or take it over, and keep it."""
        known = wanted in self._before
        if known and self.still(wanted.inputs.reads):
            value: T = self._before[wanted]
        else:
            value = wanted.work(*wanted.inputs.of(self))
            if known and wanted.same is not None:
                before = self._before[wanted]
                self._stayed[wanted] = stays = bool(wanted.same(value, before))
                value = before if stays else value
        self.known[wanted] = value
        return value

    def still(self, reads: Reads) -> bool:
        """Whether all that is read is as it was in the kit that this one was made like; what is
        firm and may have changed is worked out for it.
        """
        return self.differs.isdisjoint(reads.facets) and all(map(self._has_stayed, reads.firm))

    def _has_stayed(self, one: Derived[Any]) -> bool:
        stays = self._stayed.get(one)
        if stays is None:
            stays = self.still(one.inputs.reads)
            if not stays and one in self._before:
                self.work_out(one)
                stays = self._stayed[one]
            self._stayed[one] = stays
        return stays

    def settle(self) -> None:
        """Take over what has stayed and was not asked for, and let go of the other kit."""
        for wanted, value in self._before.items():
            if wanted not in self.known and self.still(wanted.inputs.reads):
                self.known[wanted] = value
        self._before = {}

    def _changed_since(self, other: Kit) -> frozenset[str]:
        """The facets in which this kit differs from another of as many samples."""
        mine, theirs = self.plan, other.plan
        changed: set[str] = set()
        if self.items != other.items:
            changed.add("items")
            if self.built != other.built:
                changed.add("built")
            if self.connected != other.connected:
                changed.add("connected")
        if self.spares != other.spares:
            changed.add("spares")
        if self.offered is not other.offered or mine.parts != theirs.parts:
            changed.add("catalogue")
        if mine.place is not theirs.place:
            changed |= _differing(_OF_PLACE, _figures_of(mine.place), _figures_of(theirs.place))
        changed |= _differing(_OF_PLAN, _fields_of(mine), _fields_of(theirs))
        return frozenset(changed)


_MOST_RELAYS, _MOST_SOCKETS, _MOST_RAILS = 60, 3000, 2000
"""More hubs and extension leads, sockets and rails than these take too long to be judged."""


def _check_size(items: Items) -> None:
    relays = sockets = rails = 0
    for item in items:
        if item.index == 1:
            count = item.line.quantity
            relays += count * item.compiled.passes_on
            sockets += count * len(item.part.sockets)
            rails += count * len(item.part.rails)
    for what, count, most in (
        ("hubs and extension cables", relays, _MOST_RELAYS),
        ("sockets", sockets, _MOST_SOCKETS),
        ("rails", rails, _MOST_RAILS),
    ):
        if count > most:
            raise InputError(
                [("lines", f"The kit has {count} {what}; at most {most} can be checked.")]
            )


_ALL = frozenset(FACETS)
_OF_PLAN = tuple(name for name in Plan.model_fields if name in FACETS)
_figures_of = attrgetter(*Place.model_fields)
_fields_of = attrgetter(*_OF_PLAN)


def _differing(names: tuple[str, ...], ours: tuple[Any, ...], theirs: tuple[Any, ...]) -> set[str]:
    """Names of the values that are not alike."""
    if ours == theirs:  # as mostly, and known at once of what is the same object
        return set()
    pairs = zip(names, ours, theirs, strict=True)
    return {name for name, one, other in pairs if one != other}
