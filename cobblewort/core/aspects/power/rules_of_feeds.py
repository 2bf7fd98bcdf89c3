"""Rules of power where several sources meet: back-feed, and PoE from end to end."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment
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
from cobblewort.core.judging.severity import BOTHERS, FAILS, INFORMS, TRIPS
from cobblewort.core.judging.working import (
    Sum,
    computed_term,
    plan_term,
    reading_term,
    standard_term,
)
from cobblewort.core.plans.patch import AddLine, Patch, RemoveLine
from cobblewort.core.standards import poe
from cobblewort.core.text import EMPTY, Text, say


def parted(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A splitter, which passes data and keeps the supplies apart, or one supply less."""
    for part in on_offer(kit, ("device",)):
        if part.splits_device_port:
            yield (AddLine(role="add_on", part=part.id),)
    for line in finding.lines:
        if kit.plan.line(line).role in ("power_supply", "cable"):
            yield (RemoveLine(line=line),)


@rule(
    "PWR-12",
    "power",
    "No two power sources are connected together",
    why="Where two power sources meet, current flows from one into the other: it heats cables, "
    "keeps a board partly on, or damages the weaker port.",
    formula="each rail is connected to one source; a second one only behind isolation",
    source="common practice; USB 2.0, 7.2.1: a device gives no current back (from memory)",
    reads=(power_of, fit_of),
    remedies=(parted, another("add_on")),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def back_feed(power: PowerResult, fit: Assignment) -> Iterator[Observation]:
    """Each pair of energised sources that meet; hubs that are known to feed back, or not known."""
    for second in power.forest.second:
        fed, by = power.forest.index(second.rail), power.forest.index(second.by)
        if fed is None or by is None or power.nodes[fed].root == power.nodes[by].root:
            continue
        node = power.nodes[fed]
        one, other = _source_of(power, fed), _source_of(power, by)
        lines = (one.line.id, other.line.id, second.plug.item.line.id, node.item.line.id)
        yield Observation(
            f"{second.rail}.{second.plug.item.id}",
            FAILS,
            say(
                "{one} and {other} both power {item} without isolation: current flows from one "
                "into the other.",
                one=words.opening(one.the),
                other=other.the,
                item=node.item.name,
            ),
            tuple(dict.fromkeys(lines)),
        )
    yield from _hubs(fit)


def _source_of(power: PowerResult, place: int) -> Item:
    return power.nodes[power.nodes[place].root].item


def _hubs(fit: Assignment) -> Iterator[Observation]:
    """Hubs with a supply of their own on a socket of something that is fed elsewhere."""
    for plug, socket in fit.placed.values():
        source = plug.item.part.source
        if source is None or plug.item.part.kind != "hub" or plug.plug.role != "device":
            continue
        host = socket.item
        if plug.plug.feeds_back:
            yield Observation(
                plug.id,
                BOTHERS,
                say(
                    "{hub} feeds current back into {host}: {host} stays partly on and does not "
                    "restart cleanly.",
                    hub=words.opening(plug.item.the),
                    host=host.name,
                ),
                (plug.item.line.id, host.line.id),
                (socket.id,),
            )
        elif plug.plug.feeds_back is None:
            yield Observation(
                plug.id,
                INFORMS,
                say(
                    "Not checked: whether {hub} feeds current back into {host}. Unplug the power "
                    "supply of {host}: none of its lights may stay on.",
                    hub=plug.item.the,
                    host=host.name,
                ),
                (plug.item.line.id,),
                (socket.id,),
            )


@rule(
    "PWR-13",
    "power",
    "PoE works from switch to splitter",
    why="A PoE splitter does not start at a switch of a lower type, and several splitters can "
    "exceed the power budget of the switch.",
    formula="PoE type of switch and cable >= type of the splitter; V at the end of the cable >= "
    "37 V (Type 1), 42.5 V (2, 3), 41.1 V (4); copies x power out of the switch <= its power "
    "budget",
    source="IEEE 802.3, clauses 33 and 145: powers of types 1 to 4 (from memory)",
    reads=(power_of, "copies"),
    remedies=(another_supply, another("other_equipment", "cable")),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def network_power(power: PowerResult, copies: int) -> Iterator[Observation | Check]:
    """The type that a splitter wants against its switch's and its lead's, or what must be asked of
    a switch; the volts at the end of the lead; and the budget of a switch over all copies.
    """
    for place, node in enumerate(power.nodes):
        source = node.item.part.source
        if source is None or source.poe_type is None or source.rail != node.name:
            continue
        if node.item.part.kind == "machine":
            yield from _budget(power, copies, place)
        elif node.parent < 0:
            port_w = poe.PORT_W[source.poe_type]
            yield Observation(
                node.item.id,
                INFORMS,
                say(
                    "{splitter} requires a Type {type} port ({power}) on the switch{more}.",
                    splitter=words.opening(node.item.the),
                    type=source.poe_type,
                    power=words.counted(port_w, "W"),
                    more=EMPTY
                    if copies == 1
                    else say(
                        "; {count} copies need as many ports, {all} in all",
                        count=copies,
                        all=words.counted(copies * port_w, "W"),
                    ),
                ),
                (node.item.line.id,),
            )
        else:
            yield from _asked(power, place, source.poe_type)


def _asked(power: PowerResult, place: int, wanted: int) -> Iterator[Observation | Check]:
    """Whether switch and lead give what is wanted at the end of the lead, and whether volts do."""
    node = power.nodes[place]
    given = _source_of(power, place)
    gives = None if given.part.source is None else given.part.source.poe_type
    if gives is not None and gives < wanted:
        yield Observation(
            node.item.id,
            FAILS,
            say(
                "{splitter} requires PoE Type {wanted}; {switch} provides Type {gives} and does "
                "not start it.",
                splitter=words.opening(node.item.the),
                wanted=wanted,
                switch=given.the,
                gives=gives,
            ),
            (node.item.line.id, given.line.id),
        )
        return
    above = node.parent
    while above >= 0:
        item, above = power.nodes[above].item, power.nodes[above].parent
        carries = None if item.part.cable is None else item.part.cable.poe_type
        if carries is not None and carries < wanted:
            yield Observation(
                f"{node.item.id}.{item.line.id}",
                BOTHERS,
                say(
                    "{cable} is rated for PoE up to Type {carries}; {splitter} requires Type "
                    "{wanted}.",
                    cable=words.opening(item.the),
                    carries=carries,
                    splitter=node.item.the,
                    wanted=wanted,
                ),
                (item.line.id, node.item.line.id),
            )
    if not power.stands or not power.carries[node.parent]:
        return
    least_v = poe.LEAST_V[wanted]

    def sentence(margin: Margin) -> Text:
        shown, least = words.apart(words.volts, margin.value, margin.limit)
        return say(
            "{splitter} gets {shown} over the Ethernet cable{when}; it needs {least}.",
            splitter=words.opening(node.item.the),
            shown=shown,
            when=margin.when,
            least=least,
        )

    yield Check(
        f"{node.item.id}.reach",
        f"Voltage at {node.item.name}",
        "V",
        "min",
        power.limit_volts[node.parent],
        least_v,
        sentence,
        power.forest.lines_above[place],
        power.limits,
        span=nominal(set_v(power.nodes, place)) - least_v,
        working=volts_over(
            power,
            node.parent,
            partial(
                standard_term,
                "V_limit",
                f"lowest voltage of Type {wanted}",
                "V",
                least_v,
                "IEEE 802.3, clauses 33 and 145",
            ),
        ),
    )


def _budget(power: PowerResult, copies: int, place: int) -> Iterator[Check]:
    """What all copies take out of one switch."""
    node = power.nodes[place]
    own = node.rail.limit_w
    if own is None or not power.stands or not power.carries[place]:
        return
    each_w = power.limit_current_a[place] * power.limit_voltage_v[place]
    path = f"rails.{node.name}.limit_w"

    def sentence(margin: Margin) -> Text:
        shown, most = words.apart(words.watts, margin.value, margin.limit)
        return say(
            "{switch} must deliver {shown}{whose}{when}; its power budget is {most}.",
            switch=words.opening(node.item.the),
            shown=shown,
            when=margin.when,
            most=most,
            whose="" if copies == 1 else f" for {copies} copies",
        )

    def working(state: int) -> Sum:
        return Sum(
            "power budget less the draw of all copies",
            "P_limit - n * P",
            [
                reading_term("P_limit", "power budget", "W", node.item, path, own),
                plan_term("n", "copies", "", float(copies)),
                computed_term("P", "draw of one copy", "W", float(each_w[state, 0]), None),
            ],
        )

    yield Check(
        f"{node.item.id}.budget",
        f"Power out of {node.item.name}",
        "W",
        "max",
        copies * each_w,
        node.item.compiled.figure(path),
        sentence,
        (node.item.line.id,),
        power.limits,
        consequence=TRIPS,
        lasting=copies * power.lasting(place, in_watts=True),
        working=working,
    )
