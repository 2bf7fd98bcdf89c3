"""Rules of supply where several feeds meet: back-feed, and network power from end to end."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from cobblewort.core import words
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.power.forest import set_v
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.aspects.power.workings import volts_over
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another, another_supply, on_offer
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.working import (
    Sum,
    computed_term,
    plan_term,
    reading_term,
    standard_term,
)
from cobblewort.core.plans.patch import AddLine, Patch, RemoveLine
from cobblewort.core.standards import poe


def parted(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A splitter, which passes data and keeps the supplies apart, or one supply less."""
    for part in on_offer(kit, ("device",)):
        if part.splits_device_port:
            yield (AddLine(role="add_on", part=part.id),)
    for line in finding.lines:
        if kit.plan.line(line).role in ("power_supply", "cable"):
            yield (RemoveLine(line=line),)


@rule(
    "PWR-12", "power", "Two supplies never meet",
    why="Where a board is fed from one place and plugged into another that has power too, current "
    "flows the wrong way: it warms leads, holds a board half alive, or harms the weaker port.",
    formula="each rail hangs on one source; a second one meets it only where something parts them",
    source="common practice; USB 2.0, 7.2.1: a device gives no current back (from memory)",
    reads=(power_of, fit_of, "connected"),
    remedies=(parted, another("add_on")),
)  # fmt: skip
def back_feed(kit: Kit) -> Iterator[Observation]:
    """Each pair of energised sources that meet; hubs that are known to feed back, or not known."""
    power = power_of(kit)
    for second in power.forest.second:
        fed, by = power.forest.index(second.rail), power.forest.index(second.by)
        if fed is None or by is None or power.nodes[fed].root == power.nodes[by].root:
            continue
        node = power.nodes[fed]
        one, other = _source_of(power, fed), _source_of(power, by)
        lines = (one.line.id, other.line.id, second.plug.item.line.id, node.item.line.id)
        yield Observation(
            f"{second.rail}.{second.plug.item.id}", "problem",
            f"{one.name} and {other.name} both feed {node.item.name}, and nothing keeps them "
            "apart: current flows from one into the other.",
            tuple(dict.fromkeys(lines)),
        )  # fmt: skip
    yield from _hubs(kit)


def _source_of(power: PowerResult, place: int) -> Item:
    return power.nodes[power.nodes[place].root].item


def _hubs(kit: Kit) -> Iterator[Observation]:
    """Hubs with a supply of their own on a socket of something that is fed elsewhere."""
    for plug, socket in fit_of(kit).placed.values():
        source = plug.item.part.source
        if source is None or plug.item.part.kind != "hub" or plug.plug.role != "device":
            continue
        host = socket.item
        if plug.plug.feeds_back:
            yield Observation(
                plug.id, "tight",
                f"{plug.item.name} feeds back into {host.name}: while it has power, {host.name} "
                "stays half alive and does not start afresh.",
                (plug.item.line.id, host.line.id), (socket.id,),
            )  # fmt: skip
        elif plug.plug.feeds_back is None:
            yield Observation(
                plug.id, "note",
                f"Not known: whether {plug.item.name} feeds back into {host.name}. Try it: with "
                f"the supply of {host.name} pulled, none of its lamps may glow.",
                (plug.item.line.id,), (socket.id,),
            )  # fmt: skip


@rule(
    "PWR-13", "power", "Network power reaches from end to end",
    why="A splitter for the stronger kind does not start at a switch that gives the weaker, and "
    "several of them use up what a switch gives in all.",
    formula="type given >= type wanted, by the switch and by the lead; V at the end of the lead >= "
    "37 V (type 1), 42.5 V (2, 3), 41.1 V (4); "
    "copies x power out of the switch <= what it gives in all",
    source="IEEE 802.3, clauses 33 and 145: powers of types 1 to 4 (from memory)",
    reads=(power_of, "connected", "copies"),
    remedies=(another_supply, another("other_equipment", "cable")),
)  # fmt: skip
def network_power(kit: Kit) -> Iterator[Observation | Check]:
    """The type that a splitter wants against its switch's and its lead's, or what must be asked of
    a switch; the volts at the end of the lead; and the budget of a switch over all copies.
    """
    power = power_of(kit)
    for place, node in enumerate(power.nodes):
        source = node.item.part.source
        if source is None or source.poe_type is None or source.rail != node.name:
            continue
        if node.item.part.kind == "machine":
            yield from _budget(kit, place)
        elif node.parent < 0:
            port_w = poe.PORT_W[source.poe_type]
            yield Observation(
                node.item.id, "note",
                f"{node.item.name} asks the switch for network power of type "
                f"{source.poe_type}: {port_w:g} W a port.",
                (node.item.line.id,),
            )  # fmt: skip
        else:
            yield from _asked(kit, place, source.poe_type)


def _asked(kit: Kit, place: int, wanted: int) -> Iterator[Observation | Check]:
    """Whether switch and lead give what is wanted at the end of the lead, and whether volts do."""
    power, node = power_of(kit), power_of(kit).nodes[place]
    given = _source_of(power, place)
    gives = None if given.part.source is None else given.part.source.poe_type
    if gives is not None and gives < wanted:
        yield Observation(
            node.item.id, "problem",
            f"{node.item.name} needs network power of type {wanted}; "
            f"{given.name} gives type {gives} and does not start it.",
            (node.item.line.id, given.line.id),
        )  # fmt: skip
        return
    above = node.parent
    while above >= 0:
        item, above = power.nodes[above].item, power.nodes[above].parent
        carries = None if item.part.cable is None else item.part.cable.poe_type
        if carries is not None and carries < wanted:
            yield Observation(
                f"{node.item.id}.{item.line.id}", "tight",
                f"{item.name} is made for network power up to type {carries}; {node.item.name} "
                f"needs type {wanted}.",
                (item.line.id, node.item.line.id),
            )  # fmt: skip
    if not power.stands or not power.carries[node.parent]:
        return
    least_v = poe.LEAST_V[wanted]

    def sentence(margin: Margin) -> str:
        shown, least = words.apart(words.volts, margin.value, margin.limit)
        return f"{node.item.name} gets {shown} by the network lead{margin.when}; it needs {least}."

    yield Check(
        f"{node.item.id}.reach", f"Voltage at {node.item.name}", "V", "min",
        power.limit_volts[node.parent], least_v, sentence, power.forest.lines_above[place],
        power.limits, span=nominal(set_v(power.nodes, place)) - least_v,
        working=volts_over(kit, node.parent, partial(
            standard_term, "V_limit", f"least voltage of type {wanted}", "V", least_v,
            "IEEE 802.3, clauses 33 and 145",
        )),
    )  # fmt: skip


def _budget(kit: Kit, place: int) -> Iterator[Check]:
    """What all copies take out of one switch."""
    power, node = power_of(kit), power_of(kit).nodes[place]
    own = node.rail.limit_w
    if own is None or not power.stands or not power.carries[place]:
        return
    copies = kit.plan.copies
    each_w = power.limit_current_a[place] * power.limit_voltage_v[place]
    path = f"rails.{node.name}.limit_w"

    def sentence(margin: Margin) -> str:
        shown, most = words.apart(words.watts, margin.value, margin.limit)
        whose = "" if copies == 1 else f" for {copies} copies"
        return f"{node.item.name} must give {shown}{whose}{margin.when}; in all it gives {most}."

    def working(state: int) -> Sum:
        return Sum(
            "what it gives in all, less what all copies take", "P_limit - n * P",
            [
                reading_term("P_limit", "what it gives in all", "W", node.item, path, own),
                plan_term("n", "copies", "", float(copies)),
                computed_term("P", "what one takes", "W", float(each_w[state, 0]), None),
            ],
        )  # fmt: skip

    yield Check(
        f"{node.item.id}.budget", f"Power out of {node.item.name}", "W", "max", copies * each_w,
        node.item.compiled.figure(path), sentence, (node.item.line.id,), power.limits,
        lasting=[copies * watts for watts in power.lasting(place, in_watts=True)], working=working,
    )  # fmt: skip
