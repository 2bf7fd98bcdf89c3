"""The part model: one composition of sockets, plugs, rails and bodies for every kind of part.

A part has three forms. Its *document* (YAML in the packs, JSON everywhere else) is what somebody
wrote, and says only what differs from its class. `Part` is the document completed and checked: what
rules read. `CompiledPart` adds the samples of its figures: what the sums take.

Lengths are in a part's own frame: x along its long side, y across, z up from the upper face of
its circuit board (or from its underside where it has none). Collections are keyed by id, so that
a part can be written as a merge patch over the document of its class.
"""

from decimal import Decimal
from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, TypeAdapter, model_validator

from cobblewort.core.figures.document_model import Currency, OneLine, stated
from cobblewort.core.figures.reading import (
    Efficiency,
    Level,
    NotNegative,
    NotNegativeRating,
    Percentage,
    Positive,
    PositiveRating,
    Rating,
    Reading,
    Share,
    ShareRating,
)
from cobblewort.core.parts.functions import FunctionId
from cobblewort.core.standards import header

Identifier = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9][A-Za-z0-9_.-]{0,63}$")]
Text = Annotated[str, StringConstraints(max_length=400), OneLine]
MAX_ENTRIES = 64
"""Sockets, rails, boxes, cautions and the like, of each at most so many a part."""
Connector = Annotated[str, StringConstraints(min_length=1, max_length=64), OneLine]
Length = Annotated[float, Field(ge=0, le=2000)]
Generation = Annotated[float, Field(ge=0, le=10)]
"""Of USB or PCIe, by the connector; 0 where nobody states it."""

Kind = Literal[
    "board",
    "power_supply",
    "cable",
    "hub",
    "card",
    "drive",
    "storage_adapter",
    "device",
    "cooler",
    "case",
    "fastener",
    "tool",
    "machine",
]


@stated
class Box:
    """A block in the part's frame, for drawing and for fit. [mm]"""

    label: Text = ""
    look: Literal["socket", "chip", "sink", "fan", "pcb", "drive", "body"] = "body"
    x_mm: float = 0
    y_mm: float = 0
    z_mm: float = 0
    dx_mm: Length
    dy_mm: Length
    dz_mm: Length


Contacts = Literal["up", "down"]
"""Which way the contacts of a flat cable or of its socket face, seen from the socket's latch."""
Edge = Literal["left", "right", "lower", "upper"]
"""A side of a board seen from above, its long side lying along x."""


Limits = Literal["electronic"]
"""How something keeps to a limit by itself; a fuse or nothing does not."""


@stated
class SocketFace:
    """Where a socket opens on an edge of its board, and how large its face is. [mm]

    `along_mm` is the middle of the face, counted from the lower left corner of the board; `z_mm`
    its height above the upper face, negative below it.
    """

    edge: Edge
    along_mm: Annotated[float, Field(ge=-2000, le=2000)]
    z_mm: Annotated[float, Field(ge=-500, le=500)]
    width_mm: Length
    height_mm: Length


@stated
class Port:
    """A socket for which no plug of the catalogue is judged, such as the network's: where it opens.

    `label` is what it is called; leads go in there where the purpose asks for the function.
    """

    label: Text
    face: SocketFace


@stated
class PlugBody:
    """The moulded body of a plug, or the whole of a stick: across, up, and out of the socket.

    Its middle lies on the middle of the socket; that of an angled plug lies `offset_mm` along the
    edge and `rise_mm` above it, as its lead leaves beside the socket. [mm]
    """

    width_mm: Length
    height_mm: Length
    length_mm: Length = 0
    offset_mm: Annotated[float, Field(ge=-500, le=500)] = 0
    rise_mm: Annotated[float, Field(ge=-500, le=500)] = 0


@stated
class Socket:
    """A place that one plug can take.

    `role` is what the socket is to the plug: a `host` of a device, a `power_out` that feeds, a
    `power_in` that is fed, a `picture_in` of a screen or of what records one. `rail` is the rail of
    the part that the plug is joined to. `many` plugs can be joined at pins that wires are spliced
    to. `generation` is the rate it is certified for, `possible_generation` one that it mostly
    manages beyond. `bus` names the bus of the part that its data take. `looks_like` names what it
    could be taken for.
    """

    label: Text = ""
    connector: Connector
    role: Literal["host", "power_out", "power_in", "picture_in"]
    rail: Identifier | None = None
    required: bool = False
    generation: Generation = 0
    possible_generation: Generation = 0
    lanes: Annotated[int, Field(ge=1, le=16)] = 1
    limit_a: PositiveRating | None = None
    limits: Limits | None = None
    bus: Identifier | None = None
    many: bool = False
    face: SocketFace | None = None
    looks_like: Text = ""
    contacts: Contacts | None = None
    key: Literal["B", "M", "E"] | None = None
    lengths: Annotated[tuple[str, ...], Field(max_length=MAX_ENTRIES)] = ()
    protocols: Annotated[tuple[str, ...], Field(max_length=MAX_ENTRIES)] = ()


@stated
class Latch:
    """A latch on a board that has to be lifted for a flat cable: where, and how far. [mm]"""

    x_mm: float
    y_mm: float
    z_mm: float = 0
    dx_mm: Length
    dy_mm: Length
    dz_mm: Length
    lift_mm: Length


@stated
class Bus:
    """What several sockets share on the way to the processor. [MB/s, raw]

    Buses form a tree: a slow one can live inside a fast one, its `parent`. `half_duplex` ones carry
    one direction at a time.
    """

    label: Text
    rate_mb_s: Annotated[float, Field(gt=0, le=1e5)]
    parent: Identifier | None = None
    half_duplex: bool = False


@stated
class Wire:
    """A two-wire copper lead: its length one way, its gauge, and the loop of its contacts."""

    length_m: NotNegative
    gauge_awg: Annotated[float, Field(ge=0, le=40)]
    contacts_ohm: NotNegative


@stated
class FlatCable:
    """A flat cable from end to end, and the tightest bend that it stands. [mm]"""

    length_mm: PositiveRating
    bend_mm: PositiveRating


@stated
class Plug:
    """What a part puts into a socket.

    `role` answers the socket's: a `device` goes to a host, `power_in` draws from a `power_out`,
    `power_out` feeds a `power_in`, `picture_out` is the far end of a lead that shows a picture.
    `generation` is the fastest it can do, `min_generation` the
    slowest it accepts. Its own lead is described by its `wire`, or by `cable_ohm`, the loop with
    its contacts [ohm], and is `jacket_mm` thick; at network power these are of the lead to the
    switch, as long as the kit has none. `reach_m` is how far it reaches where no wire is described.
    `feeds_back` says whether a part with a supply of
    its own drives current out of this plug; None where nobody states it.
    """

    label: Text = ""
    connectors: tuple[Connector, ...] = Field(min_length=1, max_length=MAX_ENTRIES)
    role: Literal["device", "power_in", "power_out", "picture_out"]
    rail: Identifier | None = None
    required: bool = True
    generation: Generation = 0
    min_generation: Generation = 0
    lanes: Annotated[int, Field(ge=1, le=16)] = 1
    key: Literal["B", "M", "B+M", "E"] | None = None
    cable_ohm: NotNegative | None = None
    wire: Wire | None = None
    body: PlugBody | None = None
    contacts: Contacts | None = None
    flat_cable: FlatCable | None = None
    jacket_mm: Annotated[float, Field(gt=0, le=60)] | None = None
    feeds_back: bool | None = None
    reach_m: Annotated[float, Field(gt=0, le=200)] | None = None


@stated
class Rail:
    """A node of the DC tree inside a part.

    Fed from `feeds_from`, another rail of the part, through `path_ohm`; behind a converter the
    voltage is `out_v` and the input power is what it delivers over `efficiency`. `limit_a` is the
    most the rail may carry, and `limits` how it keeps to that; where `limit_unadvertised_a` is
    given it holds instead unless the
    supply path announces `advertise_a`. `limit_lifted_a` is what a setting of the firmware lets a
    rail carry whose limit no announcement decides.
    """

    label: Text
    feeds_from: Identifier | None = None
    path_ohm: NotNegative | None = None
    out_v: PositiveRating | None = None
    efficiency: Efficiency | None = None
    limit_a: PositiveRating | None = None
    limit_unadvertised_a: PositiveRating | None = None
    limit_lifted_a: PositiveRating | None = None
    advertise_a: float | None = None
    limit_w: PositiveRating | None = None
    limits: Limits | None = None


Feed = Literal["mains", "poe", "vehicle", "battery", "solar", "machine"]
"""What a supply takes its power from, and what a place has to give."""


@stated
class Source:
    """Where power enters a tree: a supply, or the supply that comes with a hub.

    `efficiency` is that of the supply itself; what it loses counts only where it stands inside.
    `power_source` is what it takes its power from. Its rail may hang on another one of the part: a
    battery that is fed itself, or a splitter for network power at a switch of the plan, is then a
    converter like any other, and a source only while nothing feeds it. `poe_type` is the type
    of network power that it gives or wants, 1 to 4 (IEEE 802.3).
    """

    rail: Identifier
    power_source: Feed = "mains"
    set_v: Positive
    rated_a: PositiveRating
    advertises_a: Annotated[float, Field(ge=0)] = 0
    full_to_c: Rating
    derate_share_k: NotNegativeRating
    efficiency: Efficiency | None = None
    poe_type: Annotated[int, Field(ge=1, le=4)] | None = None


@stated
class Load:
    """What a part draws from one of its rails, in watts or in amperes, by activity.

    `normal` is the mean while it works, `peak` the most it draws while it works. `start` is what
    it draws while it spins up or boots; without one it starts at `normal`.
    """

    rail: Identifier
    unit: Literal["w", "a"]
    idle: NotNegative
    normal: NotNegative
    peak: NotNegative
    start: NotNegative | None = None

    @model_validator(mode="after")
    def _rises(self) -> Self:
        if not self.idle.nominal <= self.normal.nominal <= self.peak.nominal:
            raise ValueError(
                f"idle, normal and peak must rise in that order (got {self.idle.nominal:g}, "
                f"{self.normal.nominal:g}, {self.peak.nominal:g})"
            )
        return self


@stated
class Voltages:
    """What a part needs at its input. [V]"""

    undervoltage_v: PositiveRating | None = None
    brownout_v: PositiveRating


@stated
class Cable:
    """What a lead carries: the most current it may, the current its marking lets through, whether
    it has `data` wires too, and up to which type of network power it is made for.
    """

    rated_a: PositiveRating
    marked_a: PositiveRating
    data: bool = True
    poe_type: Annotated[int, Field(ge=1, le=4)] | None = None


@stated
class BoardHeat:
    """The thermal figures of a board: die, board and the way between them. [K/W], [°C], [mm]"""

    soc_share_idle: ShareRating
    soc_share_peak: ShareRating
    r_jc_k_w: Positive
    r_db_k_w: Positive
    r_ba_k_w: Positive
    throttle_c: Rating
    soc_side_mm: PositiveRating
    soc_top_mm: NotNegativeRating
    soc_x_mm: float
    soc_y_mm: float


@stated
class Cooler:
    """A heat sink, with or without a fan, that stands on the die.

    `blows_along` says that its fan blows along the board's long side and not down onto it.
    """

    r_still_k_w: Positive
    r_fan_k_w: Positive | None = None
    height_mm: NotNegativeRating
    length_mm: Length
    width_mm: Length
    interface_mm: NotNegativeRating
    interface_w_mk: Positive
    free_flow_m3_h: NotNegative | None = None
    blows_over_board: bool = False
    blows_along: bool = False
    room_above: bool = True


@stated
class Fan:
    """A fan of its own, and what it blows at: out of a `case`, over the `board` as a shim does, or
    `beside` at add-on boards and drives.
    """

    at: Literal["case", "board", "other_equipment"]
    flow_m3_h: NotNegative


@stated
class Offer:
    """A function that a part gives, how often, and with what amount in the function's unit.

    `driver` says whether the usual image has its driver or one must be built. `on_power_input`
    names the power input that the function shares: it is gone while power comes in there, unless
    something splits the two.
    """

    count: Annotated[int, Field(ge=1, le=100)] = 1
    amount: Annotated[float, Field(gt=0, le=1e6)] | None = None
    driver: Literal["image", "build"] = "image"
    on_power_input: Identifier | None = None


@stated
class DriveForm:
    """The shape and language of a drive: `2280` and `pcie`, say. `spins` is true for disks.

    Its own rates are those on a link that does not hold it back [MB/s]; `endurance_tb` is what may
    be written to it in its life, `endurance_tb_100gb` the same for each 100 GB of it, and
    `workload_tb` what one that spins may read and write in a year. [TB]
    """

    size: Text
    spins: bool = False
    read_mb_s: Positive | None = None
    write_mb_s: Positive | None = None
    endurance_tb: PositiveRating | None = None
    endurance_tb_100gb: Positive | None = None
    workload_tb: Positive | None = None
    length_mm: Length
    thickness_mm: Length | None = None
    protocol: Literal["pcie", "sata", "usb"]


@stated
class HotBody:
    """A body that warms itself above the air around it: a drive, a controller, a regulator.

    `of` says whose heat it is: `loads.own` for a load (times `share`), `rails.v33` for what a
    converter loses, `source` for what a supply loses. At `limit_c` it slows itself down, or, when
    `slows` is false, leaves what it is rated for. An M.2 module whose `r_air_k_w` nobody states
    gives off its heat by its own face and by the board that carries it.
    """

    label: Text
    of: Annotated[str, StringConstraints(pattern=r"^(source|(loads|rails)\.[A-Za-z0-9_.-]{1,64})$")]
    share: ShareRating = Reading(nominal=1, low=1, high=1, basis="standard")
    r_air_k_w: Positive | None = None
    limit_c: Rating
    slows: bool = False


Pin = Annotated[int, Field(ge=1, le=header.PINS)]


@stated
class PinUse:
    """What a part does with the pins of the header.

    `shares` are power, ground and lines of a bus, which several parts may use together; `takes`
    are pins that it wants for itself. `addresses` are the I2C addresses that it can have, as
    delivered first; one that cannot be moved has a single one. `signal_v` is what it puts onto the
    pins, `plugs_on` whether it stands on the header itself instead of hanging on wires.
    """

    shares: Annotated[tuple[Pin, ...], Field(max_length=MAX_ENTRIES)] = ()
    takes: Annotated[tuple[Pin, ...], Field(max_length=MAX_ENTRIES)] = ()
    addresses: tuple[Annotated[int, Field(ge=header.I2C_LOWEST, le=header.I2C_HIGHEST)], ...] = ()
    signal_v: Annotated[float, Field(gt=0, le=48)] = header.SIGNAL_V
    plugs_on: bool = False

    @model_validator(mode="after")
    def _kinds_of_pins(self) -> Self:
        odd = [n for n in self.shares if n not in header.POWER | header.BUS]
        if odd:
            raise ValueError(f"pins.shares: pin {odd[0]} is no power, ground or bus pin")
        wrong = [n for n in self.takes if not header.is_signal(n)]
        if wrong:
            raise ValueError(
                f"pins.takes: pin {wrong[0]} is {header.pin_name(wrong[0])}; no part can use it "
                "alone"
            )
        if self.addresses and not set(self.shares) >= header.I2C:
            raise ValueError("pins.addresses: a part on I2C shares pins 3 and 5")
        return self


@stated
class PinHeader:
    """The header of a board: whether its pins are fitted, and what they can carry. [mA]"""

    fitted: bool = True
    pin_ma: PositiveRating
    total_ma: PositiveRating


SetUpTask = Literal["reader", "keyboard", "mouse", "screen", "writer"]
"""What a tool does on the evening of setting up."""


@stated
class Runs:
    """What a board can be started with: its family of images, and the word sizes it runs. One that
    fetches its image over Ethernet writes its boot drive itself.
    """

    family: Text = ""
    bits: Annotated[tuple[Literal[32, 64], ...], Field(max_length=MAX_ENTRIES)] = ()
    fetches_image: bool = False


@stated
class FastenerSet:
    """What is in a bag of standoffs and screws: the lengths of each, all of one thread. [mm]"""

    thread: Text = "M2.5"
    standoffs_mm: tuple[Annotated[float, Field(gt=0, le=100)], ...] = ()
    screws_mm: tuple[Annotated[float, Field(gt=0, le=100)], ...] = ()


@stated
class Storage:
    """Room on a medium [GB = 10^9 bytes], and of cards what may be written to it in its life [TB],
    as far as that is stated, and how fast [MB/s].
    """

    capacity_gb: Annotated[float, Field(gt=0, le=1e9)]
    endurance_tb: PositiveRating | None = None
    write_mb_s: PositiveRating | None = None


MediumKind = Literal["card", "stick", "solid_state", "disk"]


@stated
class Medium:
    """How a medium behaves where data come and go, by class where nobody states it.

    `read_mb_s` and `write_mb_s` are its own where no drive or card states them; `sustained_mb_s` is
    what it still writes when its cache of `cache_gb` is full; [MB/s], [GB]. `pause_s` is how long
    it may stand still while it tidies up, `settle_ms` what a file costs on it besides its bytes.
    `endurance_tb_100gb` is what may be written to each 100 GB of it in its life [TB], `fails_pct`
    how many of a hundred fail in a year.
    """

    kind: MediumKind
    read_mb_s: Positive | None = None
    write_mb_s: Positive | None = None
    sustained_mb_s: Positive | None = None
    cache_gb: NotNegative | None = None
    pause_s: NotNegative | None = None
    settle_ms: NotNegative | None = None
    endurance_tb_100gb: Positive | None = None
    fails_pct: Percentage | None = None


@stated
class Rates:
    """What a part lets by, apart from its sockets and buses. [MB/s]

    `network_mbit_s` is the rate of its network socket, whose data take `network_bus` where it names
    one; `radio_mb_s` what people get by its radio through one wall; `slot_mb_s` the most that its
    card slot moves, `bridge_mb_s` a bridge from one bus to another. A processor works through
    `encrypt_mb_s` when it encrypts and `checksum_mb_s` when it adds up checksums, with one core;
    `parity_path_mb_s` is what a parity array of it takes in.
    """

    network_mbit_s: Annotated[float, Field(gt=0, le=1e5)] | None = None
    network_bus: Identifier | None = None
    radio_mb_s: Positive | None = None
    slot_mb_s: Positive | None = None
    bridge_mb_s: Positive | None = None
    encrypt_mb_s: Positive | None = None
    checksum_mb_s: Positive | None = None
    parity_path_mb_s: Positive | None = None


@stated
class Wears:
    """What of a part wears out by itself, whatever is written to it.

    It lasts `life_h` hours in use at `at_c`, or `life_y` years in any case; `halves_k` is how much
    warmer it has to be to last half as long, and `warmer_k` how much warmer it is than the air
    around it. [h], [a], [°C], [K]
    """

    label: Text
    life_h: Positive | None = None
    life_y: Positive | None = None
    at_c: float = 25
    halves_k: Positive | None = None
    warmer_k: NotNegative | None = None

    @model_validator(mode="after")
    def _one_life(self) -> Self:
        if (self.life_h is None) == (self.life_y is None):
            raise ValueError("a wearing part states either life_h or life_y")
        return self


@stated
class Stack:
    """What a board takes up, and how it is held.

    `above_mm` is measured from the upper face, `below_mm` from the lower. `holes` names the
    pattern its standoffs use.
    """

    length_mm: Annotated[float, Field(gt=0, le=2000)]
    width_mm: Annotated[float, Field(gt=0, le=2000)]
    thickness_mm: NotNegativeRating
    above_mm: NotNegativeRating
    below_mm: NotNegativeRating
    holes: Text | None = None


@stated
class AddOn:
    """A board that is stacked on the main one.

    `height_mm` is from the main board's face to the far side of the add-on; `clear_mm` is the free
    height between the two boards, `most_clear_mm` the most that its cable allows on taller
    standoffs; without it the height is fixed by its pins. Without a size of its own it is taken to
    be as large as the main board. `covers_header` says that it hides the header and does not pass
    it on. `fits_under` names coolers that its maker sells with it or tested under it. `closes`
    names sockets of the main board that cannot be used under it, `hampers` those that can hardly be
    reached any more.
    """

    side: Literal["above", "below"]
    height_mm: NotNegativeRating
    clear_mm: NotNegativeRating | None = None
    most_clear_mm: NotNegativeRating | None = None
    length_mm: Annotated[float, Field(gt=0, le=2000)] | None = None
    width_mm: Annotated[float, Field(gt=0, le=2000)] | None = None
    closes: Annotated[tuple[Identifier, ...], Field(max_length=MAX_ENTRIES)] = ()
    hampers: Annotated[tuple[Identifier, ...], Field(max_length=MAX_ENTRIES)] = ()
    fits_under: Annotated[tuple[Identifier, ...], Field(max_length=MAX_ENTRIES)] = ()
    covers_header: bool = False


@stated
class Opening:
    """A hole in a wall of a case, by its middle in the frame of the board that stands in it.

    All lengths in mm.
    """

    edge: Edge
    along_mm: Annotated[float, Field(ge=-2000, le=2000)]
    z_mm: Annotated[float, Field(ge=-500, le=500)]
    width_mm: Length
    height_mm: Length


@stated
class Bay:
    """Places for drives of one size in a case, and how thick a drive they take. [mm]"""

    size: Text
    count: Annotated[int, Field(ge=1, le=100)] = 1
    thickness_mm: Length


@stated
class Gland:
    """A gland for one lead: the thickness of jacket that it seals, and the bore a plug passes.

    A `split` insert is laid round the lead, so that no plug has to pass. [mm]
    """

    clamp_min_mm: Length
    clamp_max_mm: Length
    bore_mm: Length
    split: bool = False


@stated
class Post:
    """A peg or post on the floor of a case, by its corner from the inner corner of the case.

    One of which no height is stated reaches the lid. [mm]
    """

    label: Text = "post"
    x_mm: Length
    y_mm: Length
    length_mm: Length
    width_mm: Length
    height_mm: Length | None = None


@stated
class Compartment:
    """A room of its own inside a larger shell, by its corner from the inner corner of the case.

    `above_mm` is the room above a board in it; where none is stated it is that of the case. [mm]
    """

    label: Text
    x_mm: Length
    y_mm: Length
    length_mm: Annotated[float, Field(gt=0, le=2000)]
    width_mm: Annotated[float, Field(gt=0, le=2000)]
    above_mm: Length | None = None


@stated
class Case:
    """A shell: room, walls, vents. `open` means no walls that hold air.

    `openings` are the holes for sockets; through `open_edges` everything passes. `self_made` walls
    are cut to measure. `top_sheets` of a layered shell can be left off. `tabs_mm` is what tabs all
    round its inner walls take from length and width until they are cut off by hand; single `posts`
    are places that are taken, until then. A board goes into one of the `compartments` where there
    are any. A tray has several `places` for boards, side by side across their long sides,
    `place_gap_mm` apart.

    `holes` lists the patterns that it can hold; empty with `any_holes` means a plate to be drilled.
    `absorptance` is the share of the sun that its colour takes in, white to black. One that is the
    heat sink states `joint_k_w`, from the die through pad and pillar to its wall; `fins` is what
    fins multiply the convection of its top and sides by.
    `radio_db` is what it takes from a radio inside; `ip_solid` and `ip_water` are the two digits of
    its IP rating. `wall_g_cm3` is the density of its walls, from which its mass follows where that
    is not stated.
    """

    open: bool = False
    inner_length_mm: Annotated[float, Field(gt=0, le=2000)]
    inner_width_mm: Annotated[float, Field(gt=0, le=2000)]
    inner_height_mm: Annotated[float, Field(gt=0, le=2000)]
    max_above_mm: NotNegativeRating
    max_below_mm: NotNegativeRating
    holes: Annotated[tuple[str, ...], Field(max_length=MAX_ENTRIES)] = ()
    any_holes: bool = False
    self_made: bool = False
    top_sheets: Annotated[int, Field(ge=0, le=20)] = 0
    tabs_mm: Length = 0
    places: Annotated[int, Field(ge=1, le=40)] = 1
    place_gap_mm: Length = 0
    posts: dict[Identifier, Post] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    compartments: dict[Identifier, Compartment] = Field(
        default_factory=dict, max_length=MAX_ENTRIES
    )
    openings: dict[Identifier, Opening] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    open_edges: Annotated[tuple[Edge, ...], Field(max_length=MAX_ENTRIES)] = ()
    glands: dict[Identifier, Gland] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    bays: dict[Identifier, Bay] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    wall_mm: Annotated[float, Field(gt=0, le=100)]
    wall_w_mk: Positive
    joint_k_w: Positive | None = None
    fins: Positive | None = None
    emissivity: Share
    vent_low_cm2: Annotated[float, Field(ge=0, le=10000)] = 0
    vent_high_cm2: Annotated[float, Field(ge=0, le=10000)] = 0
    vent_rise_mm: Annotated[float, Field(ge=0, le=2000)] | None = None
    fan_exchange_share: Share
    absorptance: Share = Reading(nominal=0.6, low=0.3, high=0.9, basis="typical")
    radio_db: NotNegativeRating = Reading(nominal=1, low=1, high=1, basis="typical")
    ip_solid: Annotated[int, Field(ge=0, le=6)] = 0
    ip_water: Annotated[int, Field(ge=0, le=9)] = 0
    wall_g_cm3: Positive | None = None


Origin = Literal["pack", "custom", "typical"]
"""Where a part comes from: a pack, the user, or the figures of its class alone."""


@stated
class Part:
    """One model in the catalogue, with everything the core knows about it.

    `noise_dba` is what is heard of it at 1 m at its loudest, for what turns. `buttons` are pressed
    while it runs, `latches` are those of the sockets of the same name. `panel_hole` is what a
    socket for a front wall wants cut there. `parity_mb_s` is what one of the `cores` of a
    board works through of parity, which tells how fast it is beside another. [MB/s] `ip_water` is
    the second digit of the IP rating of what has one without a case.
    """

    id: Identifier
    revision: int = Field(default=1, ge=1)
    origin: Origin = "pack"
    kind: Kind
    part_class: Identifier | None = None
    maker: Text
    model: Text
    summary: Text = ""
    price: Annotated[Decimal, Field(ge=0, max_digits=12, decimal_places=2)] | None = None
    currency: Currency = "EUR"
    inside: bool = True
    mass_g: Positive | None = None
    noise_dba: Level | None = None
    ambient_min_c: float | None = None
    ambient_max_c: float | None = None
    ip_water: Annotated[int, Field(ge=0, le=9)] | None = None
    cautions: Annotated[tuple[Text, ...], Field(max_length=MAX_ENTRIES)] = ()
    offers: dict[FunctionId, Offer] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    splits_device_port: bool = False
    sockets: dict[Identifier, Socket] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    plugs: dict[Identifier, Plug] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    rails: dict[Identifier, Rail] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    loads: dict[Identifier, Load] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    boxes: dict[Identifier, Box] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    source: Source | None = None
    voltages: Voltages | None = None
    cable: Cable | None = None
    board_heat: BoardHeat | None = None
    parity_mb_s: Positive | None = None
    cores: Annotated[int, Field(ge=1, le=256)] | None = None
    cooler: Cooler | None = None
    fan: Fan | None = None
    drive: DriveForm | None = None
    hot: dict[Identifier, HotBody] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    storage: Storage | None = None
    stack: Stack | None = None
    add_on: AddOn | None = None
    pin_header: PinHeader | None = None
    pins: PinUse | None = None
    case: Case | None = None
    fasteners: FastenerSet | None = None
    runs: Runs | None = None
    sets_up: Annotated[tuple[SetUpTask, ...], Field(max_length=MAX_ENTRIES)] = ()
    ports: dict[FunctionId, Port] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    buttons: dict[Identifier, Port] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    latches: dict[Identifier, Latch] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    buses: dict[Identifier, Bus] = Field(default_factory=dict, max_length=MAX_ENTRIES)
    panel_hole: PlugBody | None = None
    radio_ghz: Annotated[tuple[float, ...], Field(max_length=MAX_ENTRIES)] = ()
    medium: Medium | None = None
    rates: Rates | None = None
    wears: dict[Identifier, Wears] = Field(default_factory=dict, max_length=MAX_ENTRIES)

    @property
    def name(self) -> str:
        """Maker and model, as people say it."""
        return f"{self.maker} {self.model}"

    @model_validator(mode="after")
    def _rails_exist(self) -> Self:
        named = [("sockets", k, s.rail) for k, s in self.sockets.items()]
        named += [("plugs", k, p.rail) for k, p in self.plugs.items()]
        named += [("loads", k, x.rail) for k, x in self.loads.items()]
        named += [("rails", k, r.feeds_from) for k, r in self.rails.items()]
        named += [("source", "rail", self.source.rail)] if self.source else []
        for group, key, rail in named:
            if rail is not None and rail not in self.rails:
                known = ", ".join(self.rails) or "none"
                raise ValueError(f"{group}.{key}: there is no rail '{rail}' (there are: {known})")
        self._rails_end_somewhere()
        self._hot_bodies_have_heat()
        self._buses_end_somewhere()
        return self

    def _buses_end_somewhere(self) -> None:
        named = [(f"sockets.{k}", s.bus) for k, s in self.sockets.items()]
        named += [(f"buses.{k}", bus.parent) for k, bus in self.buses.items()]
        named += [("rates.network_bus", self.rates.network_bus)] if self.rates else []
        for place, name in named:
            if name is not None and name not in self.buses:
                known = ", ".join(self.buses) or "none"
                raise ValueError(f"{place}: there is no bus '{name}' (there are: {known})")
        for start in self.buses:
            if start in self.buses_above(start)[1:]:
                raise ValueError(f"buses.{start}: the buses form a ring")

    def buses_above(self, bus: str) -> list[str]:
        """A bus and those that it lies in, outermost last; a ring is followed once round."""
        found, at = [bus], self.buses[bus].parent
        while at is not None:
            found.append(at)
            if at == bus or len(found) > len(self.buses):
                break
            at = self.buses[at].parent
        return found

    def _hot_bodies_have_heat(self) -> None:
        for name, hot in self.hot.items():
            group, _, key = hot.of.partition(".")
            rail = self.rails.get(key)
            known = {
                "source": self.source is not None and self.source.efficiency is not None,
                "loads": key in self.loads and self.loads[key].unit == "w",
                "rails": rail is not None and rail.efficiency is not None,
            }
            if not known[group]:
                raise ValueError(
                    f"hot.{name}.of: '{hot.of}' gives no heat here; it must be a load in watts, a "
                    "converter rail with an efficiency, or a source with one"
                )
            module = self.drive is not None and "." not in self.drive.size
            if hot.r_air_k_w is None and not module:
                raise ValueError(f"hot.{name}.r_air_k_w: only an M.2 module may leave it out")

    def _rails_end_somewhere(self) -> None:
        for start in self.rails:
            seen, rail = set(), start
            while (above := self.rails[rail].feeds_from) is not None:
                if above in seen:
                    raise ValueError(f"rails.{start}: the rails form a ring")
                seen.add(above)
                rail = above


PART = TypeAdapter(Part)
"""Reads and writes parts as documents."""
