"""Workings of the DC tree: where a current and a voltage come from."""

from __future__ import annotations

from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.working import Explained, Sum, Term, computed_term, reading_term

_ACTIVITY_WORDS = ("off", "idle", "light", "working", "peak", "start")


_CIRCUIT = "Kirchhoff's and Ohm's laws; P = V I"


def explained(kit: Kit, figure: str) -> Explained | None:
    """A figure `rail:{node}:a@{state}` (current), `:v@` (voltage) or `:in@` (into a converter)."""
    kind, _, rest = figure.partition(":")
    name, _, tail = rest.rpartition(":")
    quantity, _, state_id = tail.partition("@")
    if kind != "rail" or quantity not in ("a", "v", "in"):
        return None
    power = power_of(kit)
    place = power.index(name)
    states = [state.id for state in power.states]
    if place is None or state_id not in states:
        return None
    state = states.index(state_id)
    build, values, unit = {
        "a": (current_sum, power.current_a, "A"),
        "v": (voltage_sum, power.voltage_v, "V"),
        "in": (converter_input_sum, power.input_a, "A"),
    }[quantity]
    node = power.nodes[place]
    label = (
        f"{'Voltage at' if unit == 'V' else 'Current into'} {node.piece.name}, {node.rail.label}"
    )
    formula = build(kit, place, state)
    return Explained(
        label, formula, values[place, state], unit, power.states[state].label, _CIRCUIT
    )


def current_term(power: PowerResult, place: int, state: int, symbol: str = "I") -> Term:
    """The current that a rail carries, as an input with a working of its own."""
    node = power.nodes[place]
    figure = f"rail:{node.id}:a@{power.states[state].id}"
    label = f"current into {node.piece.name}, {node.rail.label}"
    return computed_term(symbol, label, "A", float(power.current_a[place, state, 0]), figure)


def voltage_term(power: PowerResult, place: int, state: int, symbol: str) -> Term:
    """The voltage of a rail, as an input with a working of its own."""
    node = power.nodes[place]
    figure = f"rail:{node.id}:v@{power.states[state].id}"
    label = f"voltage at {node.piece.name}, {node.rail.label}"
    return computed_term(symbol, label, "V", float(power.voltage_v[place, state, 0]), figure)


def current_sum(kit: Kit, place: int, state: int) -> Sum:
    """What hangs on a rail: its own loads, and what the rails below draw from it."""
    power = power_of(kit)
    node = power.nodes[place]
    pieces: list[str] = []
    inputs: list[Term] = []
    row = power.rows[node.piece.line.id][state]
    for name, load in node.piece.compiled.loads.items():
        if load.rail != node.name:
            continue
        number = len(inputs) + 1
        value = float(load.table[row, 0])
        own = node.piece.part.loads[name]
        label = f"{node.piece.name} itself, {_ACTIVITY_WORDS[row]}"
        unit = "W" if load.in_watts else "A"
        symbol = f"{'P' if load.in_watts else 'I'}_{number}"
        term = reading_term(symbol, label, unit, node.piece, f"loads.{name}", own.working)
        term.value = value
        inputs.append(term)
        pieces.append(f"{symbol} / V" if load.in_watts else symbol)
    if any("/ V" in piece for piece in pieces):
        inputs.append(voltage_term(power, place, state, "V"))
    for below, child in enumerate(power.nodes):
        if child.parent != place:
            continue
        symbol = f"I_{len(inputs) + 1}"
        drawn = float(power.input_a[below, state, 0])
        if child.converter == below:
            figure = f"rail:{child.id}:in@{power.states[state].id}"
            label = f"into the converter of {child.rail.label}"
            inputs.append(computed_term(symbol, label, "A", drawn, figure))
        else:
            inputs.append(current_term(power, below, state, symbol))
        pieces.append(symbol)
    return Sum("what hangs on it, added up", " + ".join(pieces) or "0", inputs)


def converter_input_sum(kit: Kit, place: int, state: int) -> Sum:
    """What a converter draws: delivered power over efficiency and input voltage."""
    power = power_of(kit)
    node = power.nodes[place]
    inputs = [
        voltage_term(power, place, state, "V_out"),
        current_term(power, place, state, "I_out"),
    ]
    expression = "V_out * I_out / V_in"
    if node.rail.efficiency is not None:
        path = f"rails.{node.name}.efficiency"
        inputs.append(reading_term("eta", "efficiency", "", node.piece, path, node.rail.efficiency))
        expression = "V_out * I_out / (eta * V_in)"
    inputs.append(voltage_term(power, node.parent, state, "V_in"))
    return Sum("power delivered, over efficiency and input voltage", expression, inputs)


def voltage_sum(kit: Kit, place: int, state: int) -> Sum:
    """The voltage above less the drop of the way; a source's or converter's own voltage."""
    power = power_of(kit)
    node = power.nodes[place]
    source = node.piece.part.source
    if node.parent < 0 and source is not None:
        term = reading_term("V_set", "set voltage", "V", node.piece, "source.set_v", source.set_v)
        return Sum("the voltage the supply is set to", "V_set", [term])
    if node.converter >= 0:
        at = power.nodes[node.converter]
        value = float(power.voltage_v[place, state, 0])
        term = computed_term("V_out", f"regulated by {at.rail.label}", "V", value, None)
        return Sum("held by the converter", "V_out", [term])
    inputs = [voltage_term(power, node.parent, state, "V_above")]
    if node.resistance_ohm is None:
        return Sum("the voltage above, with nothing between", "V_above", inputs)
    via = "the way inside" if node.via == "inside" else "its lead with contacts"
    ohm = float(node.resistance_ohm[0])
    inputs += [
        computed_term("R", f"loop resistance of {via}", "ohm", ohm, None),
        current_term(power, place, state),
    ]
    return Sum("the voltage above less the drop on the way", "V_above - R * I", inputs)
