"""Ways out of a snag, as patches still to be evaluated."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.patch import AddLine, EditLine, Patch, RemoveLine, SetFields, SwapPart
from cobblewort.core.plans.plan import FEEDS_AT, KINDS_FOR_ROLE, NOT_OF_IT, Line, Role

RemedyFunction = Callable[[Kit, Finding], Iterator[Patch]]


def _named(kit: Kit, finding: Finding, *roles: str) -> list[Line]:
    """Lines that the finding names, or all of these roles where it names none of them."""
    of_roles = [line for line in kit.plan.lines if line.role in roles and not line.spare]
    return [line for line in of_roles if line.id in finding.lines] or of_roles


def _alternatives(kit: Kit, line: Line) -> Iterator[Part]:
    """Parts of the same kind that hold as much; a device must give what it is there for."""
    now = kit.catalogue.of_line(line)
    if now.kind == "device" and not now.offers:
        return
    for part in on_offer(kit, (now.kind,)):
        if part.id == now.id or _capacity_gb(part) < _capacity_gb(now):
            continue
        if (part.cooler is None) != (now.cooler is None):
            continue  # a fan does not stand in for a sink
        if now.kind in ("machine", "cable") and not _connectors(now) <= _connectors(part):
            continue  # nor a computer for a switch, nor a power cable for an extension
        if (part.panel_hole is None) != (now.panel_hole is None):
            continue  # nor an extension for a port in the front
        if now.kind != "device" or _gives_as_much(part, now):
            yield part


def _connectors(part: Part) -> set[str]:
    return {socket.connector for socket in part.sockets.values()}


def _gives_as_much(part: Part, now: Part) -> bool:
    return all(
        (other := part.offers.get(name)) is not None
        and other.count >= offer.count
        and (other.amount or 0) >= (offer.amount or 0)
        for name, offer in now.offers.items()
    )


def _capacity_gb(part: Part) -> float:
    return 0.0 if part.storage is None else part.storage.capacity_gb


def on_offer(kit: Kit, kinds: Iterable[str]) -> list[Part]:
    """Parts that can be had: what stands for a class only is no way out."""
    return [part for part in kit.catalogue.parts(kinds) if part.origin != "typical"]


def another(*roles: Role) -> RemedyFunction:
    """Swap a line of these roles for each other part that could stand there."""

    def remedy(kit: Kit, finding: Finding) -> Iterator[Patch]:
        for line in _named(kit, finding, *roles):
            for part in _alternatives(kit, line):
                yield (SwapPart(line=line.id, part=part.id),)

    return remedy


def add_missing(*roles: Role) -> RemedyFunction:
    """Add a part of a role that the kit has none of."""

    def remedy(kit: Kit, finding: Finding) -> Iterator[Patch]:
        del finding
        for role in roles:
            if not kit.items.of_role(role):
                for part in on_offer(kit, KINDS_FOR_ROLE[role]):
                    yield (AddLine(role=role, part=part.id),)

    return remedy


def remove_named(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Leave the thing out."""
    for line in finding.lines:
        yield (RemoveLine(line=line),)


def mark_spare(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Keep the thing in the drawer."""
    del kit
    for line in finding.lines:
        yield (EditLine(line=line, spare=True),)


def another_supply(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Each other supply."""
    del finding
    yield from other_supplies(kit)


def other_supplies(kit: Kit) -> Iterator[Patch]:
    """Each other supply, with the lead that it needs and without the one that it does not.

    A supply that stands inside, with its mains wires, is never proposed for one outside, and one
    that empties only where hours without mains are asked for.
    """
    supplies, inlets = kit.items.of_role("power_supply"), _inlets(kit)
    old_cables = [i.line for i in _cables_in_use(kit)]
    stands_inside = bool(supplies) and supplies[0].part.inside
    has = kit.plan.place.power
    off_mains = any(
        requirement.condition == "without_mains" for requirement in kit.plan.requirements
    )
    feeds = FEEDS_AT[has] if off_mains else (has,)
    for part in on_offer(kit, ("power_supply",)):
        if part.source is not None and part.source.power_source not in feeds:
            continue
        if (supplies and part.id == supplies[0].part.id) or part.inside != stands_inside:
            continue
        head: Patch = (
            (SwapPart(line=supplies[0].line.id, part=part.id),)
            if supplies
            else (AddLine(role="power_supply", part=part.id),)
        )
        drop: Patch = tuple(RemoveLine(line=line.id) for line in old_cables)
        if any(p.role == "power_out" and set(p.connectors) & inlets for p in part.plugs.values()):
            yield (*head, *drop)
            continue
        for cable in on_offer(kit, ("cable",)):
            if joins(cable, part, inlets):
                if any(line.part == cable.id for line in old_cables):
                    yield head
                else:
                    yield (*head, *drop, AddLine(role="cable", part=cable.id))


def another_cable(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Each other lead between the supply and the board, or a first one."""
    del finding
    cables = [i.line for i in _cables_in_use(kit)]
    for part in on_offer(kit, ("cable",)):
        if not _feeds(part):
            continue
        if not cables:
            yield (AddLine(role="cable", part=part.id),)
        for line in cables:
            if line.part != part.id:
                yield (SwapPart(line=line.id, part=part.id),)


def cheaper(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """Any line with a cheaper part of its kind."""
    del finding
    for line in kit.plan.lines:
        now = kit.plan.price_of(kit.catalogue.of_line(line))
        if line.owned or now is None or line.role in NOT_OF_IT:
            continue
        for part in _alternatives(kit, line):
            price = kit.plan.price_of(part)
            if price is not None and price < now:
                yield (SwapPart(line=line.id, part=part.id),)


def place_with(kit: Kit, **fields: str) -> Patch:
    """Say that the place has something after all."""
    return (SetFields(fields={"place": {**kit.plan.place.model_dump(), **fields}}),)


def joining_cables(kit: Kit) -> list[Part]:
    """Leads on offer that join the kit's supply to an inlet of its board, cheapest first."""
    supplies = kit.items.of_role("power_supply")
    if not supplies:
        return []
    inlets = _inlets(kit)
    found = [part for part in on_offer(kit, ("cable",)) if joins(part, supplies[0].part, inlets)]
    return sorted(found, key=lambda part: (part.price is None, part.price or 0, part.id))


def _inlets(kit: Kit) -> set[str]:
    return inlets_of(item.part for item in kit.items)


def inlets_of(parts: Iterable[Part]) -> set[str]:
    """Connectors by which boards take power."""
    boards = [part for part in parts if part.kind == "board"]
    return {s.connector for b in boards for s in b.sockets.values() if s.role == "power_in"}


def joins(cable: Part, supply: Part, inlets: set[str]) -> bool:
    """Whether a cable goes from a socket of a supply to one of these inlets."""
    outlets = {s.connector for s in supply.sockets.values() if s.role == "power_out"}
    takes = any(p.role == "power_in" and set(p.connectors) & outlets for p in cable.plugs.values())
    gives = any(p.role == "power_out" and set(p.connectors) & inlets for p in cable.plugs.values())
    return takes and gives


def _feeds(cable: Part) -> bool:
    """Whether a lead carries power from a supply; an extension only passes a socket on."""
    return any(plug.role == "power_out" for plug in cable.plugs.values())


def _cables_in_use(kit: Kit) -> list[Item]:
    return [i for i in kit.items if i.line.role == "cable" and _feeds(i.part)]
