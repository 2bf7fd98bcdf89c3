"""Workings of the DC tree: where a current and a voltage come from."""

from __future__ import annotations

from collections.abc import Callable, Hashable

from cobblewort.core import words
from cobblewort.core.aspects.power.forest import Node
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.working import (
    Explained,
    Sum,
    SumFunction,
    Term,
    computed_term,
    reading_term,
)
from cobblewort.core.parts.compiled import LoadArrays

_ACTIVITY_WORDS = ("off", "idle", "light", "normal", "peak", "start")


_CIRCUIT = "Kirchhoff's and Ohm's laws; P = V I"


def explained(kit: Kit, figure: str) -> Explained | None:
    """A figure `rail:{node}:a@{state}`: the current; `:m@` its mean and `:b@` the bursts in it;
    `:v@` the voltage; `:in@` the current into a converter, `:inm@` and `:inb@` its parts.
    """
    kind, _, rest = figure.partition(":")
    name, _, tail = rest.rpartition(":")
    quantity, _, state_id = tail.partition("@")
    if kind != "rail" or quantity not in _QUANTITIES:
        return None
    power = power_of(kit)
    place = power.forest.index(name)
    states = [state.id for state in power.states]
    if place is None or state_id not in states:
        return None
    state = states.index(state_id)
    label, unit, values, build = _QUANTITIES[quantity]
    node = power.nodes[place]
    return Explained(
        f"{label} {node.item.name}, {node.rail.label}",
        build(power, place, state),
        values(power)[place, state],
        unit,
        power.states[state].label,
        _CIRCUIT,
    )


def current_term(power: PowerResult, place: int, state: int, symbol: str = "I") -> Term:
    """The current that a rail carries, as an input with a working of its own."""
    node = power.nodes[place]
    figure = f"rail:{node.id}:a@{power.states[state].id}"
    label = f"current into {node.item.name}, {node.rail.label}"
    return computed_term(symbol, label, "A", float(power.current_a[place, state, 0]), figure)


def voltage_term(power: PowerResult, place: int, state: int, symbol: str) -> Term:
    """The voltage of a rail, as an input with a working of its own."""
    node = power.nodes[place]
    figure = f"rail:{node.id}:v@{power.states[state].id}"
    label = f"voltage at {node.item.name}, {node.rail.label}"
    return computed_term(symbol, label, "V", float(power.voltage_v[place, state, 0]), figure)


def current_sum(power: PowerResult, place: int, state: int) -> Sum:
    """What hangs on a rail in the mean, and what bursts at once."""
    if not power.solved.rails.burst_a[place, state].any():
        return mean_sum(power, place, state)
    return _mean_and_burst(power, place, state, "", "into")


def _mean_and_burst(power: PowerResult, place: int, state: int, at: str, into: str) -> Sum:
    """A current as its mean and its burst."""
    solved, node = power.solved, power.nodes[place]
    mean_a, burst_a = solved.rails.mean_a, solved.rails.burst_a
    if at:
        mean_a, burst_a = solved.inputs.mean_a, solved.inputs.burst_a
    name, figure = f"{node.item.name}, {node.rail.label}", f"rail:{node.id}:{at}"
    state_id = power.states[state].id
    return Sum(
        "mean of all loads behind it plus their bursts",
        "I_mean + I_burst",
        [
            computed_term(
                "I_mean",
                f"mean current {into} {name}",
                "A",
                float(mean_a[place, state, 0]),
                f"{figure}m@{state_id}",
            ),
            computed_term(
                "I_burst",
                f"bursts {into} {name}",
                "A",
                float(burst_a[place, state, 0]),
                f"{figure}b@{state_id}",
            ),
        ],
    )


def mean_sum(power: PowerResult, place: int, state: int) -> Sum:
    """What hangs on a rail in the mean: its own loads, and what the rails below draw from it."""
    node, solved = power.nodes[place], power.solved
    items: list[str] = []
    inputs: list[Term] = []
    row = power.hung.rows[node.item.line.id].mean[state]
    for name, load in power.hung.loads_of(node.item).items():
        if load.rail != node.name:
            continue
        symbol = f"{'P' if load.in_watts else 'I'}_{len(inputs) + 1}"
        inputs.append(_own_term(power, node, name, load, symbol, int(row)))
        items.append(f"{symbol} / V" if load.in_watts else symbol)
    if any("/ V" in item for item in items):
        inputs.append(voltage_term(power, place, state, "V"))
    for below, child in enumerate(power.nodes):
        if child.parent != place:
            continue
        symbol = f"I_{len(inputs) + 1}"
        drawn = float(solved.inputs.mean_a[below, state, 0])
        figure = f"rail:{child.id}:{'inm' if child.converter == below else 'm'}"
        label = f"mean current into {child.item.name}, {child.rail.label}"
        if child.converter == below:
            label = f"mean into the converter of {child.rail.label}"
        inputs.append(
            computed_term(symbol, label, "A", drawn, f"{figure}@{power.states[state].id}")
        )
        items.append(symbol)
    return Sum("sum of the loads on it", " + ".join(items) or "0", inputs)


def _own_term(
    power: PowerResult, node: Node, name: str, load: LoadArrays, symbol: str, row: int
) -> Term:
    """What a load draws in the mean, and why less than its maker says."""
    own = node.item.part.loads[name]
    label = f"{node.item.name} itself, {_ACTIVITY_WORDS[row]}"
    lane = power.hung.lanes.get(node.item.id)
    if lane is not None:
        label += f", on a lane of {lane.rate_mb_s:.0f} MB/s"
    unit = "W" if load.in_watts else "A"
    term = reading_term(symbol, label, unit, node.item, f"loads.{name}", own.normal)
    term.value = float(load.table[row, 0])
    return term


def burst_sum(power: PowerResult, place: int, state: int) -> Sum:
    """What loads draw beyond their means for a moment: loads add up in squares, as they do not
    peak in the same instant; drives of one line do, and are one load.
    """
    amounts: dict[Hashable, list[tuple[str, float]]] = {}
    for below, node in enumerate(power.nodes):
        drawn_a = _burst_at(power, below, place, state)
        if drawn_a > 0:
            unit = power.hung.drawn.together.get(below, below)
            amounts.setdefault(unit, []).append((node.item.name, drawn_a))
    inputs: list[Term] = []
    squares = []
    for members in amounts.values():
        symbol = f"B_{len(inputs) + 1}"
        label = f"burst of {members[0][0]}"
        if len(members) > 1:
            label = f"bursts of {words.few(name for name, _ in members)} at once"
        inputs.append(computed_term(symbol, label, "A", sum(amps for _, amps in members), None))
        squares.append(f"{symbol} * {symbol}")
    return Sum(
        "bursts added as squares, because they do not peak at the same instant",
        f"sqrt({' + '.join(squares) or '0'})",
        inputs,
    )


def _burst_at(power: PowerResult, load: int, place: int, state: int) -> float:
    """What a rail's own load bursts by, as seen at a rail above it; 0 where it hangs elsewhere.
    [A]
    """
    nodes, solved = power.nodes, power.solved
    amps = float(power.burst_a_of(load)[state])
    while load != place:
        node = nodes[load]
        if node.converter == load and amps:
            efficiency = 1.0
            if node.rail.efficiency is not None:
                efficiency = node.rail.efficiency.nominal
            amps *= float(power.voltage_v[load, state, 0]) / (
                efficiency * float(solved.inputs.voltage_v[load, state, 0])
            )
        load = node.parent
        if load < 0:
            return 0.0
    return amps


def converter_input_sum(power: PowerResult, place: int, state: int) -> Sum:
    """What a converter draws: its mean, and what bursts behind it."""
    if not power.solved.inputs.burst_a[place, state].any():
        return _over_efficiency(power, place, state, "m")
    return _mean_and_burst(power, place, state, "in", "into the converter of")


def _over_efficiency(power: PowerResult, place: int, state: int, part: str) -> Sum:
    """What a converter draws: delivered power over efficiency and input voltage."""
    node, solved = power.nodes[place], power.solved
    behind_a = solved.rails.mean_a if part == "m" else solved.rails.burst_a
    inputs = [
        voltage_term(power, place, state, "V_out"),
        computed_term(
            "I_out",
            f"{'mean current' if part == 'm' else 'bursts'} behind {node.rail.label}",
            "A",
            float(behind_a[place, state, 0]),
            f"rail:{node.id}:{part}@{power.states[state].id}",
        ),
    ]
    expression = "V_out * I_out / V_in"
    if node.rail.efficiency is not None:
        path = f"rails.{node.name}.efficiency"
        inputs.append(reading_term("eta", "efficiency", "", node.item, path, node.rail.efficiency))
        expression = "V_out * I_out / (eta * V_in)"
    if node.way is None:
        inputs.append(voltage_term(power, node.parent, state, "V_in"))
    else:
        volts = float(solved.inputs.voltage_v[place, state, 0])
        inputs.append(computed_term("V_in", "voltage at its input", "V", volts, None))
    return Sum("power delivered, divided by efficiency and input voltage", expression, inputs)


def voltage_sum(power: PowerResult, place: int, state: int) -> Sum:
    """The voltage above less the drop of the way; a source's or converter's own voltage."""
    node = power.nodes[place]
    source = node.item.part.source
    if node.parent < 0 and source is not None:
        term = reading_term("V_set", "set voltage", "V", node.item, "source.set_v", source.set_v)
        return Sum("set voltage of the power supply", "V_set", [term])
    if node.converter == place:
        at = power.nodes[node.converter]
        value = float(power.voltage_v[place, state, 0])
        term = computed_term("V_out", f"regulated by {at.rail.label}", "V", value, None)
        return Sum("held by the converter", "V_out", [term])
    inputs = [voltage_term(power, node.parent, state, "V_above")]
    if node.way is None:
        return Sum("voltage above, without a drop", "V_above", inputs)
    via = "the path inside" if node.via == "inside" else "its cable with contacts"
    ohm = float(node.way.resistance_ohm(power.wire_c)[0])
    inputs += [
        computed_term("R", f"loop resistance of {via}", "ohm", ohm, None),
        current_term(power, place, state),
    ]
    return Sum("voltage above less the drop on the path", "V_above - R * I", inputs)


_QUANTITIES: dict[
    str,
    tuple[str, str, Callable[[PowerResult], FloatArray], Callable[[PowerResult, int, int], Sum]],
] = {
    "a": ("Current into", "A", lambda p: p.current_a, current_sum),
    "m": ("Mean current into", "A", lambda p: p.solved.rails.mean_a, mean_sum),
    "b": ("Bursts into", "A", lambda p: p.solved.rails.burst_a, burst_sum),
    "v": ("Voltage at", "V", lambda p: p.voltage_v, voltage_sum),
    "in": (
        "Current into the converter of",
        "A",
        lambda p: p.solved.inputs.current_a,
        converter_input_sum,
    ),
    "inm": (
        "Mean current into the converter of",
        "A",
        lambda p: p.solved.inputs.mean_a,
        lambda power, place, state: _over_efficiency(power, place, state, "m"),
    ),
    "inb": (
        "Bursts into the converter of",
        "A",
        lambda p: p.solved.inputs.burst_a,
        lambda power, place, state: _over_efficiency(power, place, state, "b"),
    ),
}
"""By the name of a quantity: its label, unit, values and formula."""


def volts_over(power: PowerResult, place: int, limit_term: Callable[[], Term]) -> SumFunction:
    """Voltage at a rail less a limit."""

    def working(state: int) -> Sum:
        limit = limit_term()
        at = power.states[power.limits.places[state]].id
        volts = computed_term(
            "V",
            f"voltage at {power.nodes[place].item.name}",
            "V",
            float(power.limit_voltage_v[place][state, 0]),
            f"rail:{power.nodes[place].id}:v@{at}",
        )
        return Sum(f"voltage less {limit.label}", "V - V_limit", [volts, limit])

    return working
