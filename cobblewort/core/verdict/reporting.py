"""Lays a worked-out kit out as the parts of a report."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping
from dataclasses import replace

import numpy as np

from cobblewort.core import words
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.fit.assign import PlugRef, SocketRef
from cobblewort.core.aspects.fit.buses import OnBus, buses
from cobblewort.core.aspects.fit.model import fasteners_of, header_of, space_of, stack_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.rules.connections import plug_name
from cobblewort.core.aspects.fit.template import why_no_template
from cobblewort.core.aspects.heat.model import HotTemps
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.needs.model import of as needs_of
from cobblewort.core.aspects.noise.model import of as noise_of
from cobblewort.core.aspects.power.model import Node, State
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Margin, Severity, percentiles
from cobblewort.core.judging.piece import Piece
from cobblewort.core.parts.model import Part
from cobblewort.core.parts.sheet import changed_figures, part_sheet
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.standards import header, pcie
from cobblewort.core.verdict.report import (
    CaseOutline,
    Connection,
    CostReport,
    FindingReport,
    FitReport,
    HeaderAddress,
    HeaderPin,
    HeaderReport,
    HeaderUser,
    HeardPart,
    HeatNode,
    HeatPath,
    HeatReport,
    LineReport,
    NeedReport,
    NextStep,
    NoiseReport,
    PinState,
    Reach,
    SpareSocket,
    StateReport,
    SupplyNode,
    SupplyReport,
    WiredReport,
    WireReport,
)

_HEAT_LABELS = {
    "die": "Processor", "sink": "Cooler", "board": "Board", "inside": "Inside air", "wall": "Wall",
}  # fmt: skip


def line_reports(kit: Kit, severity: Mapping[str, Severity]) -> list[LineReport]:
    """The kit line by line, in kit order."""
    costs = {cost.line: cost for cost in cost_of(kit).lines}
    reports = []
    for line, part in kit.pieces.by_line():
        cost = costs[line.id]
        worst = severity.get(line.id, "sound")
        kept, newest = kit.catalogue.of_line(line), kit.catalogue.part(line.part)
        changed = [] if newest is kept else _changes(kit.catalogue, kept, newest)
        reports.append(
            LineReport(
                line.id, line.role, part.id, part.model, part.maker, part.summary, line.quantity,
                line.owned, telling_figure(part), cost.to_pay, cost.value, worst, part.origin,
                newest.revision, changed,
            )
        )  # fmt: skip
    return reports


def _changes(catalogue: Catalogue, part: Part, newest: Part) -> list[str]:
    """What the newest revision says differently; never empty, as there is a newer one."""
    told = changed_figures(part_sheet(part, catalogue), part_sheet(newest, catalogue))
    return told or ["something that no figure shows"]


def need_reports(kit: Kit) -> list[NeedReport]:
    """The needs of the purpose, in their order."""
    return [
        NeedReport(
            r.need.id, r.need.text, r.status, r.sentence,
            tuple(line for line in r.lines if line), r.unit, r.have, r.want,
        )
        for r in needs_of(kit)
    ]  # fmt: skip


def telling_figure(part: Part) -> str:
    """The one figure by which people choose a part of this kind."""
    return next(_telling_figures(part), "")


def _telling_figures(part: Part) -> Iterator[str]:
    own = part.loads.get("own")
    if part.kind == "board" and own is not None:
        yield f"{own.peak.nominal:g} W peak"
    if part.source is not None:
        yield f"{part.source.set_v.nominal:g} V, {part.source.rated_a.nominal:g} A"
    if part.storage is not None:
        yield f"{part.storage.capacity_gb:g} GB"
    if part.cooler is not None:
        yield f"{part.cooler.height_mm.nominal:g} mm high"
    if part.case is not None:
        yield f"{part.case.max_above_mm.nominal:g} mm above"
    if part.lead is not None:
        yield f"{part.lead.rated_a.nominal:g} A"
    if part.add_on is not None:
        yield f"{part.add_on.height_mm.nominal:g} mm {part.add_on.side}"
    if own is not None:
        yield f"{own.peak.nominal:g} {own.unit.upper()}"


def _states(states: list[State]) -> list[StateReport]:
    return [StateReport(state.id, state.label, state.hard) for state in states]


def supply_report(kit: Kit, margins: list[Margin]) -> SupplyReport:
    """The trees at nominal figures, in the states that limits look at."""
    power = power_of(kit)
    picked = power.limits.places
    by_subject = defaultdict(list)
    for margin in margins:
        if margin.family == "supply":
            by_subject[margin.id.split(":", 1)[1]].append(margin.id)
    currents = power.limit_current_a[:, :, 0]
    inputs = power.input_a[:, :, 0][:, picked]
    into_children = np.zeros_like(currents)
    for place, node in enumerate(power.nodes):
        if node.parent >= 0:
            into_children[node.parent] += inputs[place]
    volts = power.limit_voltage_v[:, :, 0]
    rows = zip(
        power.nodes, volts.tolist(), currents.tolist(), inputs.tolist(),
        np.maximum(currents - into_children, 0.0).tolist(), strict=True,
    )  # fmt: skip
    return SupplyReport(
        states=_states([power.states[n] for n in picked]),
        nodes=[_supply_node(kit, by_subject, *row) for row in rows],
        collapsed=power.collapsed[picked, 0].tolist(),
        source_w=power.out_of_sources()[1].tolist(),
        unfed=[piece.line.id for piece in power.unfed],
    )


def _supply_node(
    kit: Kit,
    by_subject: Mapping[str, list[str]],
    node: Node,
    voltage_v: list[float],
    current_a: list[float],
    input_a: list[float],
    loads_a: list[float],
) -> SupplyNode:
    piece = node.piece
    subjects = [node.id]
    if node.socket is not None:
        subjects += [node.socket.id, piece.id, f"{piece.id}.brownout", f"{piece.id}.flag"]
    return SupplyNode(
        id=node.id,
        parent=power_of(kit).nodes[node.parent].id if node.parent >= 0 else None,
        line=piece.line.id,
        kind=piece.part.kind,
        label=_node_label(node, is_entry=node.parent < 0 or node.via != "inside"),
        rail=node.name,
        via=node.via,
        resistance_ohm=0.0 if node.resistance_ohm is None else float(node.resistance_ohm[0]),
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
    plugs = [plug for plug in node.piece.part.plugs.values() if plug.role != "power_out"]
    if len(plugs) > 1:
        return f"{node.piece.name}, {node.rail.label}"
    return node.piece.name


def heat_report(kit: Kit) -> HeatReport:
    """The thermal network with its bands."""
    heat = heat_of(kit)
    if heat.board is None:
        return HeatReport(
            heat.why_not, heat.ambient_c, _states(heat.states), [], [], [], [], 1.0, "", [],
            None, None, None, "",
        )  # fmt: skip
    banded = kit.samples > 1
    nodes = []
    for name, label in _HEAT_LABELS.items():
        if name not in heat.nodes:
            continue
        temp = heat.nodes[name]
        low, high = _band(temp) if banded else (None, None)
        limit = float(heat.throttle_c[0]) if name == "die" else None
        nodes.append(HeatNode(name, label, temp[:, 0].tolist(), low, high, limit))
    paths = dict(heat.detail.flows_w) if heat.detail else {}
    around = "inside" if "inside" in heat.nodes else "outside"
    for hot in heat.hot_bodies:
        low, high = _band(hot.temp_c) if banded else (None, None)
        name = _hot_body_name(hot)
        temps = hot.temp_c[:, 0].tolist()
        nodes.append(HeatNode(hot.id, name, temps, low, high, float(hot.limit_c[0])))
        paths[hot.id, around] = hot.power_w[:, 0]
    low, high = _band(heat.hottest_ambient_c[np.newaxis, :]) if banded else (None, None)
    speeds: list[float] = heat.speed_share[:, 0].tolist()
    least = min(speeds)
    slowest = heat.means.labels[speeds.index(least)]
    return HeatReport(
        why_not="",
        ambient_c=heat.ambient_c,
        states=_states(heat.states),
        nodes=nodes,
        paths=[HeatPath(start, end, flow.tolist()) for (start, end), flow in paths.items()],
        wanted_die_c=heat.wanted_die_c[:, 0].tolist(),
        speed_share=speeds,
        least_speed_share=least,
        least_speed_when=words.when(slowest).strip() if least < 1 else "",
        inside_w=heat.inside_w[:, 0].tolist(),
        hottest_ambient_c=float(heat.hottest_ambient_c[0]),
        hottest_ambient_p05_c=low[0] if low else None,
        hottest_ambient_p95_c=high[0] if high else None,
        hottest_ambient_by=_first_too_hot(heat.first_hot_body),
    )


def _first_too_hot(hot: HotTemps | None) -> str:
    if hot is None:
        return "the processor"
    return hot.piece.name if hot.body.slows else f"the {words.within(hot.label)}"


def _hot_body_name(hot: HotTemps) -> str:
    """What slows itself is known by its name; of others the body too."""
    return hot.piece.name if hot.body.slows else hot.label


def _band(values: FloatArray) -> tuple[list[float], list[float]]:
    bands = [percentiles(row[1:]) for row in values]
    return [low for low, _ in bands], [high for _, high in bands]


def fit_report(kit: Kit, margins: list[Margin]) -> FitReport:
    """Connections, spare sockets, and the stack around the main board."""
    stack, space, fit = stack_of(kit), space_of(kit), fit_of(kit)
    placed = fit.placed
    on_bus = buses(fit)
    connections = [
        _connection(kit, plug, socket, on_bus.get(plug.id)) for plug, socket in placed.values()
    ]
    taken = {socket.id for _, socket in placed.values()}
    spare = [
        SpareSocket(ref.id, ref.piece.line.id, ref.socket.label or name, ref.socket.connector)
        for name, ref in fit.sockets.items()
        if ref.id not in taken and ref.socket.role != "power_in"
    ]
    board = stack.board
    main = None if board is None else board.part.stack
    by_id = {margin.id for margin in margins}
    reaches = []
    for side in ("above", "below"):
        farthest = stack.reach_mm(side)
        if farthest is not None:
            piece, reach = farthest
            margin_id = f"FIT-05:{side}"
            reaches.append(
                Reach(
                    side, piece.line.id, piece.name, float(reach[0]),
                    margin_id if margin_id in by_id else None,
                )
            )  # fmt: skip
    return FitReport(
        connections=connections,
        spare=spare,
        boxes=space.boxes,
        plugs=space.plugs,
        overlaps=space.overlaps,
        gaps=space.gaps,
        access=space.access,
        fasteners=fasteners_of(kit),
        board_length_mm=None if main is None else main.length_mm,
        board_width_mm=None if main is None else main.width_mm,
        board_thickness_mm=None if main is None else main.thickness_mm.nominal,
        case=_case_outline(stack.case),
        reaches=reaches,
        template_why_not=why_no_template(kit),
        header=header_report(kit),
    )


def header_report(kit: Kit) -> HeaderReport:
    """The header pin by pin, the I2C bus, and the wires to make."""
    used, board = header_of(kit), header_of(kit).board
    own = None if board is None else board.part.pin_header
    why_not = ""
    if own is None:
        why_not = "This board has no header." if board else "There is no board yet."
    elif not own.fitted:
        why_not = "The header of this board comes without its pins soldered in."
    clashes = set(used.clashes)
    pins = [
        HeaderPin(
            number, header.pin_name(number), header.short_name(number),
            _pin_state(number, len(used.users.get(number, ())), number in clashes),
        )
        for number in range(1, header.PINS + 1)
    ]  # fmt: skip
    users: dict[str, HeaderUser] = {}
    for number, of_pin in sorted(used.users.items()):
        for user in of_pin:
            seen = users.get(user.id, HeaderUser(user.id, user.name, user.line, (), ()))
            shares = seen.shares if user.alone else (*seen.shares, number)
            takes = (*seen.takes, number) if user.alone else seen.takes
            users[user.id] = replace(seen, shares=shares, takes=takes)
    addresses = [
        HeaderAddress(address, piece.name, piece.line.id, piece.index,
                      tuple(a for a in _addresses(piece) if a != address))
        for address, pieces in sorted(used.addresses.items())
        for piece in pieces
    ]  # fmt: skip
    return HeaderReport(
        why_not=why_not,
        pins=pins,
        users=list(users.values()),
        addresses=addresses,
        wires=[WireReport(w.pin, header.pin_name(w.pin), w.through, w.to) for w in used.wires],
        wired=[WiredReport(w.wired.id, w.resistor_ohm, w.current_ma, w.why) for w in used.wired],
    )


def _addresses(piece: Piece) -> tuple[int, ...]:
    return piece.part.pins.addresses if piece.part.pins else ()


def _pin_state(number: int, users: int, clashes: bool) -> PinState:
    if clashes:
        return "clash"
    if number in header.POWER:
        return "supply"
    if users:
        return "shared" if users > 1 else "used"
    return "reserved" if number in header.RESERVED else "free"


def _connection(kit: Kit, plug: PlugRef, socket: SocketRef, on_bus: OnBus | None) -> Connection:
    bus = shares = ""
    if on_bus is not None:
        bus = f"{on_bus.bus.label}, {on_bus.bus.rate_mb_s:g} MB/s raw"
        bus += ", one direction at a time" if on_bus.bus.half_duplex else ""
        shares = words.few(map(plug_name, on_bus.others)) if on_bus.others else ""
    return Connection(
        plug=plug.id,
        plug_line=plug.piece.line.id,
        plug_label=plug_name(plug),
        socket=socket.id,
        socket_line=socket.piece.line.id,
        socket_label=f"{socket.piece.name}, {socket.socket.label or socket.name}",
        connector=socket.socket.connector,
        link=_link(kit, plug, socket),
        bus=bus,
        shares_with=shares,
        pinned=bool({plug.name, f"{plug.piece.index}.{plug.name}"} & set(plug.piece.line.pins)),
    )


def _link(kit: Kit, plug: PlugRef, socket: SocketRef) -> str:
    """What a PCIe link comes to, through the board that carries the drive."""
    if socket.socket.connector not in ("flat-16", "m2") or not plug.plug.generation:
        return ""
    generation, lanes = _slot_generation(kit, socket), socket.socket.lanes
    for other, at in fit_of(kit).placed.values():
        if other.piece is socket.piece and at.socket.connector == "flat-16":
            generation, lanes = pcie.negotiated(
                generation, lanes, _slot_generation(kit, at), at.socket.lanes
            )
    agreed = pcie.negotiated(plug.plug.generation, plug.plug.lanes, generation, lanes)
    return f"PCIe gen {agreed[0]} x{agreed[1]}, {pcie.raw_rate_mb_s(*agreed):.0f} MB/s raw"


def _slot_generation(kit: Kit, ref: SocketRef) -> float:
    """The generation that a slot is set to."""
    own = ref.socket
    return (
        own.possible_generation or own.generation if kit.plan.settings.push_slot else own.generation
    )


def _case_outline(case: Piece | None) -> CaseOutline | None:
    own = None if case is None else case.compiled.model.case  # its openings are written as stated
    if case is None or own is None:
        return None
    return CaseOutline(
        case.line.id, case.name, own.open, own.inner_length_mm, own.inner_width_mm, own.wall_mm,
        own.max_above_mm.nominal, own.max_below_mm.nominal, list(own.openings.values()),
        own.open_edges,
    )  # fmt: skip


def cost_report(kit: Kit) -> CostReport:
    """The bill."""
    cost = cost_of(kit)
    unknown = [line.id for line in (*cost.unknown, *cost.other_currency)]
    return CostReport(
        kit.plan.currency, kit.plan.copies, cost.total, cost.further, cost.owned_value,
        kit.plan.budget, unknown,
    )  # fmt: skip


def noise_report(kit: Kit) -> NoiseReport:
    """What is heard, the loudest first; what is not known last."""
    noise = noise_of(kit)
    known = [HeardPart(p.line.id, p.name, float(level[0])) for p, level in noise.heard]
    known.sort(key=lambda part: -(part.level_dba or 0.0))
    unknown = [HeardPart(p.line.id, p.name, None) for p in noise.unknown]
    return NoiseReport([*known, *unknown], float(noise.level_dba[0]), kit.plan.place.noise_max_dba)


_FIRST_CHOICES = (
    ("board", "Choose a board: everything else hangs on it."),
    ("supply", "Choose a supply for it."),
    ("boot", "Choose what it starts from: a memory card, or a drive."),
)
_LATER_CHOICES = (
    ("cooling", "Choose a cooler, or leave the board bare if it stays cool enough."),
    ("case", "Choose a case; until then its heat is that of a bare board in the open."),
)


def finding_reports(findings: list[Finding]) -> list[FindingReport]:
    """The findings with their sentences."""
    return [
        FindingReport(
            f.id, f.rule, f.family, f.severity, f.sentence, f.lines, f.sockets, f.source, f.margin,
            f.has_fixes,
        )
        for f in findings
    ]  # fmt: skip


def next_step(kit: Kit, findings: list[Finding]) -> NextStep:
    """What to do next: what is missing, then what stops it, then what is still open."""
    for role, text in _FIRST_CHOICES:
        if not kit.pieces.of_role(role):
            return NextStep(text, role, None)
    worst = findings[0] if findings else None
    if worst is not None and worst.severity == "stops":
        return NextStep("Open the first snag and try one of its ways out.", None, worst.id)
    for role, text in _LATER_CHOICES:
        if not kit.pieces.of_role(role):
            return NextStep(text, role, None)
    if worst is not None and worst.severity == "tight":
        return NextStep("Nothing stops it. Look at what is tight and decide.", None, worst.id)
    if kit.plan.budget is None:
        return NextStep("Set a budget, so that the cost is judged too.", None, None)
    return NextStep("Nothing stands in the way. Judge by hand what is not judged yet.", None, None)
