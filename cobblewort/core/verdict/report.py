"""The report of an evaluated plan: what every drawing, export and test reads.

Lists by state stand in the order of the `states` beside them.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from cobblewort.core.aspects.fit.boxes import AccessZone, LayerGap, Overlap, PlacedBox
from cobblewort.core.aspects.fit.fasteners import Fastener
from cobblewort.core.aspects.needs.model import NeedStatus
from cobblewort.core.judging.margin import Family, Margin, Severity
from cobblewort.core.parts.model import Edge, Opening, Origin


@dataclass(slots=True, frozen=True)
class FamilyReport:
    """One ruler: the worst of its family.

    Where `judged` is false no rule has anything to look at, and `why_not` says what is missing.
    `margin` is the worst margin, `finding` the worst finding; a finding without a number has no
    margin and is shown by its mark and sentence. `spare`, in `unit`, and the `ruler_` shares are
    those of the margin.
    """

    id: Family
    label: str
    judged: bool
    severity: Severity
    margin: str | None
    finding: str | None
    spare: float | None
    unit: str
    ruler_share: float | None
    ruler_p05: float | None
    ruler_p95: float | None
    why_not: str


@dataclass(slots=True, frozen=True)
class LineReport:
    """One line of the kit, with the figure that tells most about it. Money in plan currency.

    `changed` tells what is different in the newest revision of a part that the line keeps an
    earlier one of; it is empty where the line has the newest.
    """

    id: str
    role: str
    part: str
    name: str
    maker: str
    summary: str
    quantity: int
    owned: bool
    figure: str
    to_pay: Decimal | None
    value: Decimal | None
    severity: Severity
    origin: Origin
    newest_revision: int
    changed: list[str]


@dataclass(slots=True, frozen=True)
class NeedReport:
    """One need of the purpose: how the kit stands to it, by which lines, and what is left to do.

    `have` and `want` are amounts in `unit`. `sentence` is empty for a need that is met.
    """

    id: str
    text: str
    status: NeedStatus
    sentence: str
    lines: tuple[str, ...]
    unit: str
    have: float | None
    want: float | None


@dataclass(slots=True, frozen=True)
class StateReport:
    """A state of the kit. `hard` ones must hold."""

    id: str
    label: str
    hard: bool


@dataclass(slots=True, frozen=True)
class SupplyNode:
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
class SupplyReport:
    """The forest of the kit, parents before children."""

    states: list[StateReport]
    nodes: list[SupplyNode]
    collapsed: list[bool]
    source_w: list[float]
    unfed: list[str]


@dataclass(slots=True, frozen=True)
class HeatNode:
    """A node of the thermal network by state, with the 5 and 95 % values. [°C]"""

    id: str
    label: str
    temp_c: list[float]
    temp_p05_c: list[float] | None
    temp_p95_c: list[float] | None
    limit_c: float | None


@dataclass(slots=True, frozen=True)
class HeatPath:
    """Heat that passes between two nodes by state, `outside` being one of them. [W]"""

    start: str
    end: str
    power_w: list[float]


@dataclass(slots=True, frozen=True)
class HeatReport:
    """Temperatures on the hottest day. `why_not` is empty where they are known.

    `wanted_die_c` is where the die would come to at full clock, `speed_share` the clock it holds
    over the clock that is asked for, the least of them at `least_speed_when`, which is empty where
    it never gives way. Up to `hottest_ambient_c` outside nothing passes its limit; beyond, what
    `hottest_ambient_by` names is first.
    """

    why_not: str
    ambient_c: float
    states: list[StateReport]
    nodes: list[HeatNode]
    paths: list[HeatPath]
    wanted_die_c: list[float]
    speed_share: list[float]
    least_speed_share: float
    least_speed_when: str
    inside_w: list[float]
    hottest_ambient_c: float | None
    hottest_ambient_p05_c: float | None
    hottest_ambient_p95_c: float | None
    hottest_ambient_by: str


@dataclass(slots=True, frozen=True)
class Connection:
    """A plug in its socket. `link` tells the agreed rate where the two ends agree on one.

    `bus` is what its data take to the processor, `shares_with` who takes some of that way too.
    """

    plug: str
    plug_line: str
    plug_label: str
    socket: str
    socket_line: str
    socket_label: str
    connector: str
    link: str
    bus: str
    shares_with: str
    pinned: bool


@dataclass(slots=True, frozen=True)
class SpareSocket:
    """A socket that nothing takes, so that one knows what can still be added."""

    socket: str
    line: str
    label: str
    connector: str


@dataclass(slots=True, frozen=True)
class CaseOutline:
    """The case around the stack, in the main board's frame. [mm]"""

    line: str
    label: str
    open: bool
    inner_length_mm: float
    inner_width_mm: float
    wall_mm: float
    max_above_mm: float
    max_below_mm: float
    openings: list[Opening]
    open_edges: tuple[Edge, ...]


@dataclass(slots=True, frozen=True)
class Reach:
    """How far the kit reaches from the board on one side, and the margin that judges it. [mm]"""

    side: str
    line: str
    label: str
    reach_mm: float
    margin: str | None


PinState = Literal["supply", "reserved", "free", "used", "shared", "clash"]


@dataclass(slots=True, frozen=True)
class HeaderPin:
    """One pin of the header: what it is for, in words and in a few letters.

    `state` is `supply` for power and ground, `reserved`, `free`, `used`, `shared` by several on a
    bus, or `clash`.
    """

    number: int
    name: str
    short: str
    state: PinState


@dataclass(slots=True, frozen=True)
class HeaderUser:
    """A part, or something wired by hand, and its pins: those it shares, those it wants alone."""

    id: str
    name: str
    line: str | None
    shares: tuple[int, ...]
    takes: tuple[int, ...]


@dataclass(slots=True, frozen=True)
class HeaderAddress:
    """An address on the I2C bus and who answers there: piece `index` of a line.

    `others` are addresses that it could be set to.
    """

    address: int
    piece: str
    line: str
    index: int
    others: tuple[int, ...]


@dataclass(slots=True, frozen=True)
class WireReport:
    """One row of the wiring table: from a pin, through a resistor perhaps, to one or more ends."""

    pin: int
    pin_name: str
    through: str
    to: tuple[str, ...]


@dataclass(slots=True, frozen=True)
class WiredReport:
    """A button or LED wired by hand, worked out. [ohm], [mA]"""

    id: str
    resistor_ohm: float | None
    current_ma: float
    why: str


@dataclass(slots=True, frozen=True)
class HeaderReport:
    """The header as it is used. `why_not` is empty where the board has one with its pins fitted."""

    why_not: str
    pins: list[HeaderPin]
    users: list[HeaderUser]
    addresses: list[HeaderAddress]
    wires: list[WireReport]
    wired: list[WiredReport]


@dataclass(slots=True, frozen=True)
class FitReport:
    """What is plugged where, and the stack to scale. [mm]

    `plugs` are the bodies of what is plugged into the edges of the board; `template_why_not` is
    empty where a template of the case can be drawn.
    """

    connections: list[Connection]
    spare: list[SpareSocket]
    boxes: list[PlacedBox]
    plugs: list[PlacedBox]
    overlaps: list[Overlap]
    gaps: list[LayerGap]
    access: list[AccessZone]
    fasteners: list[Fastener]
    board_length_mm: float | None
    board_width_mm: float | None
    board_thickness_mm: float | None
    case: CaseOutline | None
    reaches: list[Reach]
    template_why_not: str
    header: HeaderReport


@dataclass(slots=True, frozen=True)
class CostReport:
    """What is to be paid for all copies, each further one, and what the owned parts are worth."""

    currency: str
    copies: int
    total: Decimal
    further: Decimal
    owned_value: Decimal
    budget: Decimal | None
    unknown: list[str]


@dataclass(slots=True, frozen=True)
class HeardPart:
    """A piece that turns, and what is heard of it at 1 m; None where nobody says. [dB(A)]"""

    line: str
    name: str
    level_dba: float | None


@dataclass(slots=True, frozen=True)
class NoiseReport:
    """What is heard of the kit at 1 m at its loudest, piece by piece and together. [dB(A)]

    `limit_dba` is what its place allows, None where nobody minds.
    """

    heard: list[HeardPart]
    level_dba: float
    limit_dba: float | None


@dataclass(slots=True, frozen=True)
class NextStep:
    """The one next thing to do: choose a part for `role`, or look at `finding`; or neither."""

    text: str
    role: str | None
    finding: str | None


@dataclass(slots=True, frozen=True)
class FindingReport:
    """What a rule has to say: one plain sentence with the figures in it.

    `id` is stable while the cause is the same; `margin` names the margin it comes from.
    """

    id: str
    rule: str
    family: Family
    severity: Severity
    sentence: str
    lines: tuple[str, ...]
    sockets: tuple[str, ...]
    source: str
    margin: str | None
    has_fixes: bool


@dataclass(slots=True, frozen=True)
class Report:
    """A plan, judged. `severity` is the worst there is."""

    plan: str
    samples: int
    severity: Severity
    families: list[FamilyReport]
    margins: list[Margin]
    findings: list[FindingReport]
    needs: list[NeedReport]
    lines: list[LineReport]
    fit: FitReport
    supply: SupplyReport
    heat: HeatReport
    cost: CostReport
    noise: NoiseReport
    next_step: NextStep

    def finding(self, finding_id: str) -> FindingReport | None:
        """The finding with this id, or None."""
        return next((f for f in self.findings if f.id == finding_id), None)

    def margin(self, margin_id: str) -> Margin | None:
        """The margin with this id, or None."""
        return next((m for m in self.margins if m.id == margin_id), None)

    def count(self, severity: Severity) -> int:
        """How many findings have this severity."""
        return sum(f.severity == severity for f in self.findings)
