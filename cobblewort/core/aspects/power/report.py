"""The trees of supply, for the drawing of them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from cobblewort.core.aspects.power.forest import Node
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.judging.margin import Margin
from cobblewort.core.judging.states import StateReport, told_states


@dataclass(slots=True, frozen=True)
class PowerNode:
    """A rail of the DC tree: volts on it and amperes that pass into it, by state.

    `margins` are those that limit it. `input_a` is what it draws from the rail above, which differs
    from `current_a` behind a converter; `loads_a` is what hangs on this rail itself.
    """

    id: str
    parent: str | None
    line: str
    kind: str
    label: str
    rail: str
    via: str
    resistance_ohm: float
    voltage_v: list[float]
    current_a: list[float]
    input_a: list[float]
    loads_a: list[float]
    margins: list[str]


@dataclass(slots=True, frozen=True)
class PowerReport:
    """The forest of the kit, parents before children."""

    states: list[StateReport]
    nodes: list[PowerNode]
    collapsed: list[bool]
    source_w: list[float]
    unfed: list[str]


def power_report(power: PowerResult, margins: Sequence[Margin]) -> PowerReport:
    """The trees at nominal figures, in the states that limits look at."""
    picked = power.limits.places
    by_subject = defaultdict(list)
    for margin in margins:
        if margin.family == "power":
            by_subject[margin.id.split(":", 1)[1]].append(margin.id)
    currents = power.limit_current_a[:, :, 0]
    inputs = power.solved.inputs.current_a[:, :, 0][:, picked]
    into_children = np.zeros_like(currents)
    for place, node in enumerate(power.nodes):
        if node.parent >= 0:
            into_children[node.parent] += inputs[place]
    volts = power.limit_voltage_v[:, :, 0]
    rows = zip(
        range(len(power.nodes)),
        volts.tolist(),
        currents.tolist(),
        inputs.tolist(),
        np.maximum(currents - into_children, 0.0).tolist(),
        strict=True,
    )
    return PowerReport(
        states=told_states([power.states[n] for n in picked]),
        nodes=[_power_node(power, by_subject, *row) for row in rows],
        collapsed=power.collapsed[picked, 0].tolist(),
        source_w=power.out_of_sources()[1].tolist(),
        unfed=[item.line.id for item in power.forest.unfed],
    )


def _power_node(
    power: PowerResult,
    by_subject: Mapping[str, list[str]],
    place: int,
    voltage_v: list[float],
    current_a: list[float],
    input_a: list[float],
    loads_a: list[float],
) -> PowerNode:
    node, ohm = power.nodes[place], power.resistance_ohm(place)
    item = node.item
    subjects = [node.id]
    if node.socket is not None:
        subjects += [node.socket.id, item.id, f"{item.id}.brownout", f"{item.id}.flag"]
    return PowerNode(
        id=node.id,
        parent=power.nodes[node.parent].id if node.parent >= 0 else None,
        line=item.line.id,
        kind=item.part.kind,
        label=_node_label(node, is_entry=node.parent < 0 or node.via != "inside"),
        rail=node.name,
        via=node.via,
        resistance_ohm=0.0 if ohm is None else float(ohm[0]),
        voltage_v=voltage_v,
        current_a=current_a,
        input_a=input_a,
        loads_a=loads_a,
        margins=[m for subject in subjects for m in by_subject.get(subject, ())],
    )


def _node_label(node: Node, is_entry: bool) -> str:
    """The piece where power enters it, the rail further in; both where it is fed twice."""
    if not is_entry:
        return node.rail.label
    plugs = [plug for plug in node.item.part.plugs.values() if plug.role != "power_out"]
    if len(plugs) > 1:
        return f"{node.item.name}, {node.rail.label}"
    return node.item.name
