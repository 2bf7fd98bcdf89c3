"""How fast data come and go: every flow on its way, alone and beside others."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from cobblewort.core.aspects.data.arrays import may_fail, possible, usable_gb
from cobblewort.core.aspects.data.fair_share import alone_mb_s, fair_rates_mb_s
from cobblewort.core.aspects.data.route import (
    Link,
    Route,
    Router,
    cool_router_of,
    router_of,
    run_gb,
)
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import at_least, nominal
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.plans.plan import End, Requirement, StorageUse, Transfer

_FULL_SHARE = 0.999
"""A link used more than this holds back who passes it."""
RATED: tuple[str | None, ...] = ("ethernet", "wifi")
"""Functions of which a rate can be asked for."""


@dataclass(slots=True, frozen=True)
class Array:
    """The data drives as they are used together; `usable_gb` is 0 where they cannot be. [GB]"""

    items: list[Item]
    usable_gb: float
    may_fail: int
    possible: bool


class Company:
    """Flows that run at the same time; what each gets is worked out when somebody asks."""

    def __init__(self, routes: Sequence[Route]) -> None:
        self.routes = routes
        self.loads = [route.load for route in routes]
        self._most: list[Quantity | None] | None = None
        self._rates: list[Quantity] | None = None
        self._slow: tuple[list[Mapping[str, Quantity]], list[Quantity]] | None = None
        self._could: dict[int, Quantity] = {}
        self._necks: dict[int, Link | None] = {}

    @property
    def most(self) -> list[Quantity | None]:
        """What each takes at most: a stream its rate, small files what their overhead leaves."""
        if self._most is None:
            self._most = [_most(route, route.load) for route in self.routes]
        return self._most

    @property
    def fast(self) -> list[Quantity]:
        """What each gets until a cache is full. [MB/s]"""
        if self._rates is None:
            self._rates = fair_rates_mb_s(self.loads, self.most)
        return self._rates

    @property
    def slow(self) -> tuple[list[Mapping[str, Quantity]], list[Quantity]]:
        """What each takes of its links and gets, once all caches are full. [s/MB], [MB/s]"""
        if self._slow is None:
            loads: list[Mapping[str, Quantity]] = [{**r.load, **r.slow} for r in self.routes]
            most = [_most(route, load) for route, load in zip(self.routes, loads, strict=True)]
            self._slow = loads, fair_rates_mb_s(loads, most)
        return self._slow

    def rate(self, place: int) -> Quantity:
        """What one of them gets over its whole run: into caches, and the rest past them. [MB/s]"""
        route, fast = self.routes[place], self.fast[place]
        amount_gb = run_gb(route.transfer)
        if not route.slow or amount_gb is None:
            return fast
        beyond_gb = at_least(0.0, amount_gb - route.cache_gb)
        return amount_gb / ((amount_gb - beyond_gb) / fast + beyond_gb / self.slow[1][place])

    def is_mostly_slow(self, place: int) -> bool:
        """Whether most of its time its caches are full."""
        route = self.routes[place]
        amount_gb = run_gb(route.transfer)
        if not route.slow or amount_gb is None:
            return False
        cache_gb = nominal(route.cache_gb)
        slow_s = max(0.0, amount_gb - cache_gb) / nominal(self.slow[1][place])
        return slow_s > min(amount_gb, cache_gb) / nominal(self.fast[place])

    def could(self, place: int) -> Quantity:
        """What one of them would get if it took all it can. [MB/s]"""
        if self.routes[place].transfer.rate_mb_s is None:
            return self.rate(place)
        if place not in self._could:
            free = [None if n == place else limit for n, limit in enumerate(self.most)]
            self._could[place] = fair_rates_mb_s(self.loads, free)[place]
        return self._could[place]

    def bottleneck(self, of: Moved) -> Link | None:
        """The link that holds one of them back."""
        if of.place not in self._necks:
            self._necks[of.place] = _bottleneck(of)
        return self._necks[of.place]


@dataclass(slots=True, frozen=True)
class Moved:
    """A flow beside those that run at the same time, by its place among them."""

    route: Route
    company: Company
    place: int

    @property
    def rate_mb_s(self) -> Quantity:
        """What it gets. [MB/s]"""
        return self.company.rate(self.place)

    @property
    def load(self) -> Mapping[str, Quantity]:
        """What 1 MB/s of it takes of each link, most of its time. [s/MB]"""
        mostly_slow = self.company.is_mostly_slow(self.place)
        return self.company.slow[0][self.place] if mostly_slow else self.route.load

    @property
    def could_mb_s(self) -> Quantity:
        """What it would get if it took all it can, the same for files. [MB/s]"""
        return self.company.could(self.place)

    @property
    def bottleneck(self) -> Link | None:
        """The link that holds it back, None for a stream that has what it wants."""
        return self.company.bottleneck(self)

    @property
    def minutes(self) -> Quantity | None:
        """Time for the amount of files, None of a stream. [min]"""
        amount_gb = self.route.transfer.files_gb
        return None if amount_gb is None else amount_gb * 1000 / self.rate_mb_s / 60

    @property
    def each_mb_s(self) -> Quantity:
        """What each of the files gets that go side by side. [MB/s]"""
        return self.rate_mb_s / self.route.transfer.at_once


@dataclass(slots=True, frozen=True)
class Situation:
    """Flows that run at the same time. The last of several is `worst_case`: all of them at once."""

    id: str
    label: str
    moved: list[Moved]
    worst_case: bool = False

    def of(self, transfer_id: str) -> Moved | None:
        """How a flow fares in it; None where it does not run."""
        return next((m for m in self.moved if m.route.transfer.id == transfer_id), None)


@dataclass(slots=True, frozen=True)
class Better:
    """What a flow would get without its neck, and what would hold it back then. [MB/s]"""

    rate_mb_s: float
    bottleneck: Link | None


@dataclass(slots=True, frozen=True)
class Asked:
    """A rate that a need asks for, and what the kit moves there. [MB/s]"""

    requirement: Requirement
    least_mb_s: float
    moved: Moved


@dataclass(slots=True)
class DataResult:
    """Every flow with its way, the situations in which they run, and rates that needs ask for; and
    what found the ways.
    """

    routes: list[Route]
    situations: list[Situation]
    asked: list[Asked]
    router: Router

    def planned(self, transfer_id: str) -> tuple[Situation, Moved] | None:
        """The planned situation of a flow; None where it has no way."""
        for situation in self.situations:
            found = None if situation.worst_case else situation.of(transfer_id)
            if found is not None:
                return situation, found
        return None

    @property
    def worst_case(self) -> Situation | None:
        """All at once, where that is more than what is planned."""
        return next((s for s in self.situations if s.worst_case), None)


def with_files(rate_mb_s: Quantity, route: Route) -> Quantity:
    """What is left of a rate where every file costs time of its own: S / (S / B + t0). [MB/s]"""
    size_mb = route.transfer.file_mb
    if size_mb is None:
        return rate_mb_s
    return size_mb / (size_mb / rate_mb_s + route.file_s)


def _most(route: Route, load: Mapping[str, Quantity]) -> Quantity | None:
    """What a flow takes at most: a stream its rate, small files what their overhead leaves."""
    if route.transfer.rate_mb_s is not None:
        return route.transfer.rate_mb_s
    if route.transfer.file_mb is None:
        return None
    return with_files(alone_mb_s(load), route)


def moved(routes: Sequence[Route]) -> list[Moved]:
    """How flows fare that run at the same time."""
    company = Company(routes)
    return [Moved(route, company, place) for place, route in enumerate(routes)]


def _bottleneck(at: Moved) -> Link | None:
    """The link that holds a flow back: of the full ones on its way the one that it takes most of;
    of a single one that wants no more, none.
    """
    route, company = at.route, at.company
    slow = company.is_mostly_slow(at.place)
    loads, rates = company.slow if slow else (company.loads, company.fast)
    full = []
    for link_id in route.load:
        used = sum(
            nominal(load[link_id]) * nominal(rate)
            for load, rate in zip(loads, rates, strict=True)
            if link_id in load
        )
        if used > _FULL_SHARE:
            full.append(link_id)
    if full:  # of those just as narrow the last one, which is the bus and not the socket on it
        own = loads[at.place]
        most = max(nominal(own[link_id]) for link_id in full)
        narrow = [name for name in full if nominal(own[name]) > 0.99 * most]
        return route.link(narrow[-1])
    if route.transfer.file_mb is not None:
        return Link("files", "time per file", "files", at.rate_mb_s)
    return None


def without(link: Link, routes: Sequence[Route], place: int) -> list[Route]:
    """The same flows, one of them without a link on its way, and those that are just as narrow and
    of the same kind: a lane has a socket at each end.
    """
    changed = list(routes)
    old = routes[place]
    narrow = 0.99 * nominal(old.load.get(link.id, 0.0))
    kinds = {other.id: other.kind for other in old.links}
    load = {
        name: share
        for name, share in old.load.items()
        if name != link.id and not (kinds[name] == link.kind and nominal(share) >= narrow)
    }
    slow = {name: share for name, share in old.slow.items() if name in load}
    changed[place] = replace(old, load=load, slow=slow)
    return changed


def _nominal(route: Route) -> Route:
    """The same way at nominal figures alone."""
    load, slow = (
        {name: nominal(share) for name, share in shares.items()}
        for shares in (route.load, route.slow)
    )
    cache_gb, file_s = nominal(route.cache_gb), nominal(route.file_s)
    return replace(route, load=dict(load), slow=dict(slow), cache_gb=cache_gb, file_s=file_s)


def betters(situation: Situation, transfer_id: str, most: int = 2) -> list[Better]:
    """What removing the neck of a flow is worth, and the next one after it."""
    routes = [_nominal(m.route) for m in situation.moved]
    place = next(n for n, route in enumerate(routes) if route.transfer.id == transfer_id)
    bottleneck = situation.moved[place].bottleneck
    found: list[Better] = []
    while bottleneck is not None and len(found) < most:
        routes = without(bottleneck, routes, place)
        if bottleneck.kind == "files":
            routes[place] = replace(routes[place], file_s=0.0)
        if not routes[place].load:
            break
        after = moved(routes)[place]
        found.append(Better(nominal(after.could_mb_s), after.bottleneck))
        bottleneck = after.bottleneck
    return found


def build_data(
    transfers: Sequence[Transfer], requirements: Sequence[Requirement], router: Router
) -> DataResult:
    """Ways, situations and rates that needs ask for."""
    routes = [router.route(transfer) for transfer in transfers]
    open_ways = [route for route in routes if route.links]
    together: dict[str, list[Route]] = {}
    for route in open_ways:
        together.setdefault(route.transfer.during or f"\0{route.transfer.id}", []).append(route)
    situations = [
        Situation(f"flows-{number}", own[0].transfer.during or own[0].transfer.text, moved(own))
        for number, own in enumerate(together.values(), 1)
    ]
    if len(situations) > 1:
        situations.append(Situation("all", "Worst case", moved(open_ways), True))
    result = DataResult(routes, situations, [], router)
    result.asked += _asked(requirements, result, router)
    return result


def _asked(requirements: Sequence[Requirement], result: DataResult, router: Router) -> list[Asked]:
    """What needs of a rate are held against: files that go that way, else the way alone."""
    found = []
    for requirement in requirements:
        if requirement.function not in RATED or requirement.at_least is None:
            continue
        wire = requirement.function == "ethernet"
        own = [
            m
            for situation in result.situations
            for m in situation.moved
            if not situation.worst_case
            and m.route.transfer.amount_gb is not None
            and m.route.transfer.file_mb is None
            and m.route.network is not None
            and any(link.kind == ("ethernet" if wire else "wifi") for link in m.route.links)
        ]
        for source, target in () if own else _ends_of(router, "network" if wire else "wifi"):
            transfer = Transfer.worked_out(requirement.id, source, target, 1.0, requirement.text)
            route = router.route(transfer)
            if any(link.kind in ("ethernet", "wifi") for link in route.links):
                own += moved([route])
        if not own:
            continue
        slowest = min(own, key=lambda m: nominal(m.rate_mb_s))
        found.append(Asked(requirement, requirement.at_least, slowest))
    return found


def _ends_of(router: Router, network: End) -> list[tuple[End, End]]:
    """Between what a rate is wished of which no transfer says more: the data drives, where there
    are any, and the network, both ways.
    """
    if router.has_data_drives:
        return [("storage", network), (network, "storage")]
    return [("program", network)]


@derived("transfers", "requirements", cool_router_of)
def cool_of(
    transfers: Sequence[Transfer], requirements: Sequence[Requirement], cool_router: Router
) -> DataResult:
    """How fast everything moves while no drive is slowed by its heat."""
    return build_data(transfers, requirements, cool_router)


@derived("transfers", "requirements", cool_of, router_of)
def of(
    transfers: Sequence[Transfer],
    requirements: Sequence[Requirement],
    cool: DataResult,
    router: Router,
) -> DataResult:
    """How fast everything moves."""
    if router is cool.router:
        return cool
    return build_data(transfers, requirements, router)


@derived("connected", "storage_use")
def array_of(connected: Items, storage_use: StorageUse) -> Array:
    """The data drives as they are used together."""
    items = [item for item in connected.of_role("storage") if item.part.storage is not None]
    sizes = [p.part.storage.capacity_gb for p in items if p.part.storage is not None]
    layout, count = storage_use.layout, len(items)
    able = count == 0 or possible(layout, count)
    fails = may_fail(layout, count) if able and count else 0
    return Array(items, usable_gb(layout, sizes) if sizes else 0.0, fails, able)
