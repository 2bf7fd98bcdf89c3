"""Rules of supply: is it fed, does each limit hold, is there voltage enough."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import partial

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.model import board_reached, boards_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.heat.model import HeatResult
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.power.forest import set_v
from cobblewort.core.aspects.power.limits import Limited, rail_limits_of, socket_limits_of
from cobblewort.core.aspects.power.model import PowerResult
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.aspects.power.remedies import lift_port_limit, powered_hub
from cobblewort.core.aspects.power.workings import current_term, volts_over
from cobblewort.core.figures.arrays import ByState, Quantity
from cobblewort.core.figures.one_or_many import at_least, lesser, nominal
from cobblewort.core.figures.reading import PositiveRating
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another, another_cable, another_supply
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import (
    BOTHERS,
    FAILS,
    INFORMS,
    RIDES_BURSTS,
    SHOWS,
    WARNS,
    Consequence,
)
from cobblewort.core.judging.working import (
    Sum,
    Term,
    computed_term,
    plan_term,
    reading_term,
    standard_term,
)
from cobblewort.core.parts.model import Cable, Source
from cobblewort.core.standards import usb
from cobblewort.core.text import EMPTY, Text, say


def _node_check(power: PowerResult, limited: Limited) -> Check:
    """A limit on the current (or power) that passes a node, in every state."""
    node, in_watts = limited.place, limited.in_watts
    value = (power.limit_watts if in_watts else power.limit_amps)[node]

    def sentence(margin: Margin) -> Text:
        show = words.watts if in_watts else words.amps
        value, when = margin.value, say("{when}", when=margin.when)
        if margin.is_loaded_for_hours and margin.loaded_share is not None:
            value, when = margin.loaded_share * margin.limit, say(" for hours every day")
        elif margin.spare < 0 and margin.planned == "tight":
            mean = power.mean_in(node, margin.state, in_watts)
            when = say(" in bursts{when}", when=margin.when)
            if mean is not None:
                when = when + say(", {mean} on average", mean=show(mean))
        shown, most = words.apart(show, value, margin.limit)
        return say(
            "{part} {does} {shown}{when}; {limit} is {most}{loaded}{because}.",
            part=limited.part,
            does=limited.does,
            shown=shown,
            when=when,
            limit=limited.called,
            most=most,
            because=limited.because if margin.spare < 0 else EMPTY,
            loaded=EMPTY
            if margin.spare < 0
            else say(" ({share})", share=words.percent(value / margin.limit)),
        )

    def working(state: int) -> Sum:
        name, at = power.nodes[node].id, power.states[power.limits.places[state]].id
        current = current_term(power, node, power.limits.places[state])
        most = limited.allowed()
        if not in_watts:
            return Sum(
                f"{most.words} less the current", f"{most.expression} - I", [*most.inputs, current]
            )
        volts = computed_term(
            "V",
            "voltage there",
            "V",
            float(power.limit_voltage_v[node][state, 0]),
            f"rail:{name}:v@{at}",
        )
        return Sum(
            f"{most.words} less voltage times current",
            f"{most.expression} - V * I",
            [*most.inputs, volts, current],
        )

    return Check(
        limited.subject,
        limited.label,
        "W" if in_watts else "A",
        "max",
        value,
        limited.limit,
        sentence,
        limited.lines,
        power.limits,
        limited.sockets,
        limited.consequence,
        None if limited.full else power.lasting(node, in_watts),
        working=working,
    )


@rule(
    "PWR-01",
    "power",
    "Every part has power",
    why="A plug of the wrong kind or a missing cable leaves a part without power.",
    formula="every rail with a load is connected to a source",
    source="common practice",
    reads=(power_of, fit_of, boards_of, board_reached, "connected"),
    remedies=(another_supply, another_cable),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def fed(
    power: PowerResult, fit: Assignment, boards: list[Item], reached: bool, connected: Items
) -> Iterator[Observation]:
    """The board that nothing feeds, where there is a supply; and each other thing whose inlet must
    be fed and is empty. What hangs on them follows and is told by FIT-02, a lead that is missing
    between a supply's socket and the main board by FIT-09.
    """
    supplies = connected.of_role("power_supply")
    cable_missing = any(i.part.sockets for i in supplies) and not reached
    wants_cable = next(iter(boards), None) if cable_missing else None
    for item in power.forest.unfed:
        if item.part.kind == "board" and supplies and item is not wants_cable:
            yield Observation(
                item.id,
                FAILS,
                say(
                    "{board} has no power: no plug in the kit fits its {input} power input.",
                    board=item.name,
                    input=_inlet_word(item),
                ),
                (item.line.id, *(i.line.id for i in supplies)),
            )
    for item in connected:
        if item.part.kind == "board":
            continue
        for name, socket in item.part.sockets.items():
            inlet = f"{item.id}.{name}"
            if socket.required and socket.role == "power_in" and fit.into(inlet) is None:
                yield Observation(
                    inlet,
                    FAILS,
                    say(
                        "{item} has no power: nothing is plugged into its {input}.",
                        item=item.name,
                        input=socket.label or name,
                    ),
                    (item.line.id,),
                    (inlet,),
                )


def _inlet_word(item: Item) -> str:
    sockets = item.part.sockets.values()
    inlets = [s.connector for s in sockets if s.role == "power_in" and s.required]
    return words.listed(map(words.connector, inlets)) if inlets else "own"


@rule(
    "PWR-02",
    "power",
    "The power supply delivers enough",
    why="Too little current causes slow running, drives that disconnect and random resets.",
    formula="I_out <= I_rated (1 - k (T - T_full)) for T above T_full, in every state",
    source="maker's rating; tight above 80 %: common practice",
    reads=(heat_of, power_of, "place.ambient_max_c", "samples"),
    remedies=(another_supply,),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def source_rating(
    heat: HeatResult, power: PowerResult, ambient_max_c: float, samples: int
) -> Iterator[Check]:
    """The current out of each source against its rating at the highest ambient."""
    if not power.stands:
        return
    for place, node in enumerate(power.nodes):
        source = node.item.part.source
        if source is None or node.parent >= 0:
            continue
        if node.item.part.kind == "machine" and not power.carries[place]:
            continue  # it is there for its data, or for its picture
        around_c, around = _around(heat, ambient_max_c, samples, node.item)
        of = node.item.compiled.quantity
        warm_k = at_least(0.0, around_c - of("source.full_to_c"))
        limit = of("source.rated_a") * at_least(0.0, 1 - of("source.derate_share_k") * warm_k)
        yield _node_check(
            power,
            Limited(
                place,
                node.id,
                f"{node.item.name} current",
                limit,
                (node.item.line.id,),
                words.opening(node.item.the),
                "must deliver",
                partial(_derated, node.item, source, around),
                called="its rating",
                consequence=RIDES_BURSTS,
            ),
        )


def _derated(item: Item, source: Source, around: Callable[[], Term]) -> Sum:
    """The rated current at the temperature around a supply."""
    return Sum(
        "rated current less the derating above the full-load temperature",
        "I_rated * max(0, 1 - k * max(0, T - T_full))",
        [
            reading_term("I_rated", "rated current", "A", item, "source.rated_a", source.rated_a),
            reading_term(
                "k",
                "derating per kelvin",
                "1/K",
                item,
                "source.derate_share_k",
                source.derate_share_k,
            ),
            around(),
            reading_term(
                "T_full", "full output up to", "°C", item, "source.full_to_c", source.full_to_c
            ),
        ],
    )


def _around(
    heat: HeatResult, ambient_c: float, samples: int, item: Item
) -> tuple[Quantity, Callable[[], Term]]:
    """How warm the air around a supply is: the highest ambient, or inside air where it is inside.

    Inside air is that of the warmest state that must hold.
    """
    outside = ambient_c, partial(plan_term, "T", "highest ambient", "°C", ambient_c)
    if not item.part.inside:
        return outside
    inside = heat.inside_c
    if inside is None:
        return outside
    warmest = max(heat.means.must_hold, key=inside[:, 0].tolist().__getitem__)
    figure = f"heat:inside@{heat.states[warmest].id}"
    inside_c = inside.item(warmest, 0)
    around_c: Quantity = inside_c if samples == 1 else inside[warmest]
    return around_c, partial(computed_term, "T", "air in the case", "°C", inside_c, figure)


@rule(
    "PWR-03",
    "power",
    "Each cable carries its current",
    why="More than 3 A needs a cable that is marked for 5 A; a thin cable gets warm.",
    formula="I_cable <= the lesser of its rating and its marking (3 A or 5 A)",
    source="USB Type-C and USB Power Delivery, electronically marked cables (from memory)",
    reads=(power_of,),
    remedies=(another_cable, another_supply),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def cable_rating(power: PowerResult) -> Iterator[Check]:
    """The current in each cable against its rating and its marking."""
    if not power.stands:
        return
    for place, node in enumerate(power.nodes):
        cable = node.item.part.cable
        if cable is None:
            continue
        rated_a = node.item.compiled.quantity("cable.rated_a")
        limit = lesser(rated_a, usb.cable_limit_a(cable.marked_a.nominal))
        yield _node_check(
            power,
            Limited(
                place,
                node.id,
                f"{node.item.name} current",
                limit,
                (node.item.line.id,),
                words.opening(node.item.the),
                "must carry",
                partial(_rated_and_marked, node.item, cable),
                consequence=RIDES_BURSTS,
            ),
        )


def _rated_and_marked(item: Item, cable: Cable) -> Sum:
    """What a cable carries."""
    marked_a = usb.cable_limit_a(cable.marked_a.nominal)
    return Sum(
        "the lesser of its rating and its marking",
        "min(I_rated, I_mark)",
        [
            reading_term("I_rated", "rated current", "A", item, "cable.rated_a", cable.rated_a),
            standard_term("I_mark", "current allowed by its marking", "A", marked_a, "USB Type-C"),
        ],
    )


@rule(
    "PWR-04",
    "power",
    "Ports that share a limit stay within it",
    why="A board limits its USB ports as a group, and to less unless the power supply advertises "
    "its full current; drives then disconnect under load.",
    formula="sum of the loads on the rail <= its limit; the higher limit if the path from source "
    "to power input advertises it, else the lower one",
    source="maker's limit; the advertised current is the least of source, cable mark and input: "
    "USB Power Delivery (from memory)",
    reads=(rail_limits_of, power_of),
    remedies=(powered_hub, another_supply, lift_port_limit, another("add_on", "storage")),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def shared_limit(rail_limits: list[Limited], power: PowerResult) -> Iterator[Check | Observation]:
    """Each rail inside a part that carries a limit of its own; what a setting lifts at one's own
    risk is told.
    """
    if not power.stands:
        return
    for limited in rail_limits:
        if not power.carries[limited.place]:
            continue
        if limited.lifted:
            yield Observation(
                f"{limited.subject}.lifted",
                INFORMS,
                say(
                    "A setting lifts the limit of {rail} at your own risk. The board resets if "
                    "the power supply or cable cannot carry the load.",
                    rail=limited.lifted,
                ),
                (power.nodes[limited.place].item.line.id,),
            )
        yield _node_check(power, limited)


@rule(
    "PWR-05",
    "power",
    "Each port stays within its own limit",
    why="One part can trip its port while the group limit still has spare.",
    formula="I_port <= limit of the port",
    source="maker's limit; a plain host must deliver 0.5 A (USB 2.0) or 0.9 A (USB 3.2), from "
    "memory",
    reads=(socket_limits_of, power_of),
    remedies=(powered_hub, another("add_on", "storage")),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def socket_limit(socket_limits: list[Limited], power: PowerResult) -> Iterator[Check]:
    """What each plug draws through its socket, where the socket states a limit."""
    if not power.stands:
        return
    for limited in socket_limits:
        yield _node_check(power, limited)


@rule(
    "PWR-06",
    "power",
    "The board gets enough voltage",
    why="Below its undervoltage mark a board slows down, below brown-out it resets. A thin or long "
    "cable is the usual cause.",
    formula="V_board = V_set - I (R_cable + R_contacts), solved with I = P / V",
    source="two-wire DC drop, constant-power load; maker's thresholds",
    reads=(power_of,),
    remedies=(another_cable, another_supply),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def board_voltage(power: PowerResult) -> Iterator[Check]:
    """Voltage at each board against brown-out (stops it) and its flag (tight)."""
    if not power.stands:
        return
    for place, node in enumerate(power.nodes):
        voltages = node.item.part.voltages
        if voltages is None or node.socket is None or node.socket.socket.role != "power_in":
            continue
        of = node.item.compiled.quantity
        lowest_v = min(power.limits.hard_of(_nominally(power.limit_volts[place])))
        limits: list[tuple[str, str, str, str, PositiveRating, Consequence]] = [
            ("brownout", "brownout_v", "brown-out", "resets", voltages.brownout_v, FAILS)
        ]
        if voltages.undervoltage_v is not None:
            limits.append(
                (
                    "flag",
                    "undervoltage_v",
                    "undervoltage",
                    "reports undervoltage",
                    voltages.undervoltage_v,
                    # Of a board that resets nobody reads the mark.
                    SHOWS if lowest_v < voltages.brownout_v.nominal else WARNS,
                )
            )
        for key, field, name_of_limit, does, rating, consequence in limits:

            def sentence(margin: Margin, name: str = node.item.name, does: str = does) -> Text:
                shown, limit = words.apart(words.volts, margin.value, margin.limit)
                return say(
                    "{board} gets {shown}{when}; it {does} below {limit}.",
                    board=name,
                    shown=shown,
                    when=margin.when,
                    does=does,
                    limit=limit,
                )

            limit = of(f"voltages.{field}")
            yield Check(
                f"{node.item.id}.{key}",
                f"Voltage above {name_of_limit}",
                "V",
                "min",
                power.limit_volts[place],
                limit,
                sentence,
                power.forest.lines_above[place],
                power.limits,
                span=nominal(set_v(power.nodes, place)) - nominal(limit),
                consequence=consequence,
                working=volts_over(
                    power,
                    place,
                    partial(
                        reading_term,
                        "V_limit",
                        name_of_limit,
                        "V",
                        node.item,
                        f"voltages.{field}",
                        rating,
                    ),
                ),
            )


def _nominally(values: ByState) -> list[float]:
    """Those of all states at nominal figures."""
    return values if isinstance(values, list) else values[:, 0].tolist()


_FIVE_V = 4.6, 5.6
"""What sets out as 5 V."""


@rule(
    "PWR-07",
    "power",
    "Each 5 V part gets enough voltage",
    why="A drive at the end of a thin cable fails before the board does.",
    formula="V at the plug >= 4.4 V",
    source="USB 2.0, 7.2.2: least voltage at a bus-fed device (from memory)",
    reads=(power_of,),
    remedies=(powered_hub, another_cable, another_supply),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def device_voltage(power: PowerResult) -> Iterator[Check]:
    """Voltage at each part on a USB socket, or behind a converter to 5 V."""
    limit = usb.DEVICE_MIN_V
    if not power.stands:
        return
    for place, node in enumerate(power.nodes):
        if node.socket is None or node.socket.socket.role != "host":
            continue
        top_v = power.forest.top_v[place]
        behind = node.converter >= 0 and _FIVE_V[0] <= top_v <= _FIVE_V[1]
        if not behind and (node.converter >= 0 or node.socket.socket.connector != "usb-a"):
            continue

        def sentence(margin: Margin, name: str = node.item.name) -> Text:
            shown, limit = words.apart(words.volts, margin.value, margin.limit)
            return say(
                "{item} gets {shown}{when}; it needs {limit}.",
                item=name,
                shown=shown,
                when=margin.when,
                limit=limit,
            )

        yield Check(
            node.item.id,
            f"Voltage at {node.item.name}",
            "V",
            "min",
            power.limit_volts[place],
            limit,
            sentence,
            power.forest.lines_above[place],
            power.limits,
            (node.socket.id,),
            span=top_v - limit,
            working=volts_over(
                power,
                place,
                partial(
                    standard_term,
                    "V_limit",
                    "lowest voltage of a USB device",
                    "V",
                    usb.DEVICE_MIN_V,
                    "USB 2.0, 7.2.2",
                ),
            ),
        )


@rule(
    "PWR-08",
    "power",
    "The voltage does not collapse",
    why="Above a certain power a cable cannot deliver more however far the voltage falls: the kit "
    "does not start.",
    formula="a solution of V = V_set - R I, I = P / V exists; for one load P <= V_set² / (4 R)",
    source="maximum power transfer of a DC source behind a resistance",
    reads=(power_of, "connected", "samples"),
    remedies=(another_cable, another_supply),
    eased_by=("board", "power_supply", "cable", "add_on", "other_equipment"),
)
def no_collapse(power: PowerResult, connected: Items, samples: int) -> Iterator[Observation]:
    """The first planned state that has none at nominal figures, or the share of draws that have
    none; and everything at once.
    """
    if not power.nodes or not power.collapsed.any():
        return
    lines = tuple(
        dict.fromkeys(i.line.id for i in connected if i.part.kind in ("power_supply", "cable"))
    )
    hard = [n for n, state in enumerate(power.states) if state.hard]
    beside = [n for n, state in enumerate(power.states) if not state.hard]
    for subject, planned, places in (
        ("collapse", True, hard),
        ("collapse.all", False, beside),
    ):
        lost = power.collapsed[places]
        holds = float(1 - lost[:, 1:].any(axis=0).mean()) if samples > 1 else 1.0
        for number in places:
            if power.collapsed[number, 0]:
                state = power.states[number]
                mostly = not planned and holds < 0.5
                yield Observation(
                    subject,
                    BOTHERS if mostly else FAILS,
                    say(
                        "The voltage collapses{when}: the power supply and cable cannot deliver "
                        "what the kit draws.",
                        when=words.when(state.id, state.label),
                    ),
                    lines,
                    planned=planned,
                )
                return
        yield Observation(
            subject,
            FAILS,
            say(
                "The voltage collapses in {cases}: the power supply and cable have nothing to "
                "spare.",
                cases=words.likely(1 - holds),
            ),
            lines,
            holds_share=holds,
            planned=planned,
        )
