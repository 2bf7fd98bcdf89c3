"""A plan: a kit in a place, with a duty and a budget."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated, Any, Literal, Self, get_args

from pydantic import Field, StringConstraints, ValidationError, model_validator

from cobblewort.core.errors import InputError
from cobblewort.core.figures.document_model import Currency, Lines, OneLine, Stated
from cobblewort.core.parts.functions import FunctionId
from cobblewort.core.parts.model import Feed, Identifier, Part, Pin
from cobblewort.core.plans.former_names import current_plan
from cobblewort.core.standards import header

Role = Literal[
    "board",
    "power_supply",
    "boot_drive",
    "storage",
    "add_on",
    "cooling",
    "case",
    "cable",
    "fastener",
    "set_up",
    "other_equipment",
]
KIT_ORDER: tuple[Role, ...] = get_args(Role)
"""The order in which a kit is put together."""

KINDS_FOR_ROLE: dict[Role, tuple[str, ...]] = {
    "board": ("board",),
    "power_supply": ("power_supply",),
    "boot_drive": ("card", "drive"),
    "storage": ("drive", "card"),
    "add_on": ("storage_adapter", "hub", "device"),
    "cooling": ("cooler",),
    "case": ("case",),
    "cable": ("cable",),
    "fastener": ("fastener",),
    "set_up": ("tool",),
    "other_equipment": ("machine",),
}
"""Which kinds of part can take which role."""

NOT_OF_IT: frozenset[Role] = frozenset({"set_up", "other_equipment"})
"""Roles of what is not part of the kit: lent for an evening, or another machine that it works with,
which is there already."""

Activity = Literal["off", "idle", "light", "normal", "full"]
"""How hard a part works in a phase.

    activity   mean (heat, energy)          burst (limits)
    off        0                            0
    idle       idle                         half way to normal
    light      half way to normal           normal
    normal     normal                       peak
    full       peak                         peak
"""
PlanStatus = Literal["planning", "ordered", "built", "tested"]
"""How far a build has come."""
FEEDS_AT: dict[Feed, tuple[Feed, ...]] = {
    "mains": ("mains", "battery", "machine"),
    "poe": ("poe", "battery"),
    "vehicle": ("vehicle", "battery"),
    "battery": ("battery",),
    "solar": ("solar", "battery"),
    "machine": ("machine", "battery"),
}
"""Which supplies do at a place, by what it has; a battery does anywhere while it lasts, and another
machine is where mains are.
"""
Temperature = Annotated[float, Field(ge=-60, le=90)]
MAX_ITEMS = 400
"""Pieces of a kit, and lines of it, parts that a plan carries, pins of a line."""
MAX_PHASES = 24
MAX_REQUIREMENTS = 200
MAX_TRANSFERS = 20

Rate = Annotated[Decimal, Field(gt=0, le=10**6, decimal_places=6)]
PlanName = Annotated[
    str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True), OneLine
]
Label = Annotated[
    str, StringConstraints(min_length=1, max_length=60, strip_whitespace=True), OneLine
]
Sentence = Annotated[
    str, StringConstraints(min_length=1, max_length=200, strip_whitespace=True), OneLine
]
Remarks = Annotated[
    tuple[Annotated[str, StringConstraints(max_length=200), OneLine], ...], Field(max_length=40)
]
"""Points for or against something."""


Mounting = Literal["table", "feet", "hung"]
Dust = Literal["clean", "some", "much"]
WithinReachOf = Literal["nobody", "adults", "children"]
NetworkOfPlace = Literal["both", "ethernet", "wifi", "none"]


class Place(Stated):
    """Where it will live. [°C], [m], [W/m²]

    `sun_w_m2` is the sun on it at its strongest, `within_reach_of` says who can lay hands on it,
    `wet` whether it needs a case against water, `dust` how much of it lies in the air.
    `noise_max_dba` is the most that may be heard of it at 1 m, None where nobody minds. `power` and
    `network` are what can be had there. `latitude_deg` is below 0 south of the equator.
    """

    name: Annotated[str, StringConstraints(max_length=200), OneLine] = ""
    ambient_min_c: Temperature = 15
    ambient_max_c: Temperature = 28
    altitude_m: Annotated[float, Field(ge=-400, le=9000)] = 0
    mounting: Mounting = "feet"
    sun_w_m2: Annotated[float, Field(ge=0, le=1400)] = 0
    wet: bool = False
    dust: Dust = "clean"
    noise_max_dba: Annotated[float, Field(gt=0, le=140)] | None = None
    network: NetworkOfPlace = "both"
    within_reach_of: WithinReachOf = "adults"
    power: Feed = "mains"
    latitude_deg: Annotated[float, Field(ge=-90, le=90)] | None = None

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.ambient_min_c > self.ambient_max_c:
            raise ValueError(
                f"The lowest ambient must not be above the highest (got {self.ambient_min_c:g} "
                f"and {self.ambient_max_c:g} °C)"
            )
        return self


class Phase(Stated):
    """A part of the day: how long, and what the kit does then.

    `activity` is for the whole kit; `lines` says which lines do something else.
    """

    name: Annotated[str, StringConstraints(min_length=1, max_length=60), OneLine]
    hours: Annotated[float, Field(gt=0, le=24)]
    activity: Activity = "normal"
    lines: Annotated[dict[Identifier, Activity], Field(max_length=MAX_ITEMS)] = Field(
        default_factory=dict
    )

    def activity_of(self, line: str) -> Activity:
        """What a line does in it."""
        return self.lines.get(line, self.activity)


class Settings(Stated):
    """Choices in the firmware or system that change what is allowed.

    `push_slot` runs a drive slot one generation faster than it is certified for, `logs_in_memory`
    keeps logs off the boot medium, `read_only_root` all writes of the system.
    """

    lift_port_limit: bool = False
    push_slot: bool = False
    read_only_root: bool = False
    logs_in_memory: bool = False


Condition = Literal[
    "unattended",
    "power_cut",
    "silent",
    "children",
    "remote_access",
    "without_mains",
    "in_vehicle",
    "disk_failure",
    "enough_processor",
]
"""What must hold besides functions: runs unattended, survives a pulled plug, makes no sound, may be
touched by children, is reached from outside, runs so many hours without mains, rides in a vehicle,
goes on when a disk fails, has so many percent of the processor of a mid-range board."""
RequirementLimit = Literal["noise_dba", "longest_mm", "mass_g"]


class Requirement(Stated):
    """One thing that is asked of the kit, in plain words and as what is looked for.

    Exactly one of `function`, `condition` and `limit` is given. A function may be wanted `count`
    times or with an amount of `at_least`, in the unit of the function; `without_mains` wants hours.
    Days of recording want `rate_mb_h`, what an hour of it takes. [MB]
    """

    id: Identifier
    text: Annotated[
        str, StringConstraints(min_length=1, max_length=200, strip_whitespace=True), OneLine
    ]
    function: FunctionId | None = None
    condition: Condition | None = None
    limit: RequirementLimit | None = None
    count: Annotated[int, Field(ge=1, le=40)] = 1
    at_least: Annotated[float, Field(gt=0, le=1e6)] | None = None
    at_most: Annotated[float, Field(gt=0, le=1e6)] | None = None
    rate_mb_h: Annotated[float, Field(gt=0, le=1e6)] | None = None

    @model_validator(mode="after")
    def _one_thing(self) -> Self:
        given = [name for name in ("function", "condition", "limit") if getattr(self, name)]
        if len(given) != 1:
            raise ValueError(
                "a requirement names one function, one condition or one limit "
                f"(got {' and '.join(given) or 'none'})"
            )
        if self.limit and self.at_most is None:
            raise ValueError("A limit needs its value in at_most.")
        if self.condition == "without_mains" and self.at_least is None:
            raise ValueError("without_mains needs its hours in at_least")
        if self.condition == "enough_processor" and self.at_least is None:
            raise ValueError("enough_processor needs its percentage in at_least")
        if self.function == "recording" and None in (self.at_least, self.rate_mb_h):
            raise ValueError("recording needs its days in at_least and MB per hour in rate_mb_h")
        return self


End = Literal[
    "storage",
    "boot_drive",
    "network",
    "wifi",
    "access_point",
    "camera",
    "audio_in",
    "video_in",
    "sdr",
    "program",
]
"""Where data come from or go to: the data medium, the boot medium, whoever asks over the network
(by wire where the place has one, else by radio), over Wi-Fi, over a network of its own, a part that
gives a function, or a program that runs on the kit."""
Protocol = Literal["older", "newer", "transfer"]
"""By what files go over a network: an older or a newer kind of shared folder, or one plain
transfer."""


class Transfer(Stated):
    """Data on their way: from where to where, how much, and how soon they have to be there.

    Files of `amount_gb` a run, `within_min` minutes or at `least_mb_s`; where `file_mb` is given
    they come in pieces of that size, each with what it costs besides its bytes. A stream wants
    `stream_mb_s` without a gap, such as a database that writes in pieces of `file_mb`. `at_once` of
    them go side by side. `hours_a_day` is how long a stream runs, `runs_a_day` how often files are
    copied; both tell what is written, and `stays` that it is kept. Flows with the same `during` run
    at the same time.
    """

    id: Identifier
    text: Annotated[
        str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True), OneLine
    ]
    source: End
    target: End
    amount_gb: Annotated[float, Field(gt=0, le=1e6)] | None = None
    within_min: Annotated[float, Field(gt=0, le=1e6)] | None = None
    least_mb_s: Annotated[float, Field(gt=0, le=1e5)] | None = None
    stream_mb_s: Annotated[float, Field(gt=0, le=1e5)] | None = None
    file_mb: Annotated[float, Field(gt=0, le=1e6)] | None = None
    protocol: Protocol = "newer"
    at_once: Annotated[int, Field(ge=1, le=1000)] = 1
    hours_a_day: Annotated[float, Field(gt=0, le=24)] | None = None
    runs_a_day: Annotated[float, Field(ge=0, le=86_400)] = 0.0
    stays: bool = False
    during: Annotated[str, StringConstraints(max_length=60, strip_whitespace=True), OneLine] = ""

    @model_validator(mode="after")
    def _says_what_it_is(self) -> Self:
        if (self.amount_gb is None) == (self.stream_mb_s is None):
            raise ValueError("a transfer is files, with amount_gb, or a stream, with stream_mb_s")
        if self.stream_mb_s is not None and (self.within_min or self.least_mb_s):
            raise ValueError("a stream has no time limit or minimum rate")
        if self.source == self.target:
            raise ValueError("a transfer needs different source and target")
        return self

    @classmethod
    def worked_out(
        cls, transfer_id: str, source: End, target: End, amount_gb: float, text: str = ""
    ) -> "Transfer":
        """One that follows from a kit and that nobody typed: its figures have no bounds. [GB]"""
        return cls.model_construct(
            id=transfer_id,
            text=text or transfer_id,
            source=source,
            target=target,
            amount_gb=amount_gb,
        )

    @property
    def rate_mb_s(self) -> float | None:
        """What all streams of it want together; None of files. [MB/s]"""
        return None if self.stream_mb_s is None else self.stream_mb_s * self.at_once

    @property
    def files_gb(self) -> float | None:
        """What all files of a run come to, those that go side by side together; None of a stream.

        [GB]
        """
        return None if self.amount_gb is None else self.amount_gb * self.at_once

    def hours(self, schedule: Sequence[Phase]) -> float | None:
        """Hours a day that a stream runs: as stated, else those of the phase that it runs during;
        None where neither is known. [h]
        """
        if self.hours_a_day is not None:
            return self.hours_a_day
        own = [phase.hours for phase in schedule if phase.name == self.during]
        return sum(own) if own else None

    @property
    def has_wish(self) -> bool:
        """Whether it matters how fast it is."""
        return any((self.stream_mb_s, self.within_min, self.least_mb_s))


Layout = Literal["separate", "stripe", "mirror", "striped_mirrors", "parity", "double_parity"]
FileSystem = Literal["native", "checksummed", "exchange"]


class StorageUse(Stated):
    """How the data drives are used together, and what is done when they are full.

    `growth_gb_month` is what a store grows by besides what its flows keep. `read_elsewhere` says
    that other computers read the disk itself. [GB a month]
    """

    layout: Layout = "separate"
    file_system: FileSystem = "native"
    encrypted: bool = False
    read_elsewhere: bool = False
    when_full: Literal["deletes_oldest", "stops"] = "stops"
    growth_gb_month: Annotated[float, Field(ge=0, le=1e6)] | None = None


Writes = Literal["logger", "hub", "light", "server", "games"]
"""How much a system writes by itself: a logger, a hub or a server that keeps a database, a console,
sign or receiver (`light`), a shell for games."""


class Backup(Stated):
    """A copy of the data besides the one on the kit: on what, where, and how often it is made.

    One `in_kit` lies on another drive of the same kit.
    """

    id: Identifier
    text: Label
    place: Literal["in_kit", "here", "same_house", "elsewhere"]
    medium: Literal["disk", "solid_state", "card", "somebody_elses"]
    every_days: Annotated[float, Field(gt=0, le=3650)] = 7.0


class Retention(Stated):
    """How long it is to last, and what of its data must not be lost.

    `system_gb_day` is what the system writes by itself, where it is known; without it the class
    `writes` tells. `replaceable` data can be fetched again. [a], [GB a day]
    """

    years: Annotated[float, Field(gt=0, le=50)] = 3.0
    writes: Writes = "light"
    system_gb_day: Annotated[float, Field(ge=0, le=1e5)] | None = None
    replaceable: bool = True
    backups: Annotated[tuple[Backup, ...], Field(max_length=20)] = ()


class Image(Stated):
    """The system image that is written onto the boot medium. [GB]

    `families` are those of boards that it is made for; none means that it does not say.
    """

    name: Annotated[str, StringConstraints(min_length=1, max_length=120), OneLine]
    desktop: bool = False
    card_gb: Annotated[float, Field(gt=0, le=10000)]
    memory_gb: Annotated[float, Field(gt=0, le=1000)]
    families: Annotated[
        tuple[Annotated[str, StringConstraints(min_length=1, max_length=60), OneLine], ...],
        Field(max_length=20),
    ] = ()
    bits: Literal[32, 64] | None = None


class ReadyMade(Stated):
    """What could be bought instead: its price, and what it does better and worse."""

    name: Annotated[str, StringConstraints(max_length=120), OneLine] = ""
    price: Annotated[Decimal, Field(ge=0, max_digits=12, decimal_places=2)] | None = None
    better: Remarks = ()
    worse: Remarks = ()


class Reminder(Stated):
    """What a purpose warns of; said of kits with a part that gives `about`, of all without one."""

    id: Identifier
    text: Sentence
    about: FunctionId | None = None


class Wired(Stated):
    """A button or an LED that is wired to a pin of the header by hand. [V], [mA]

    `made_for_v` is set for an LED with its resistor built in, which wants that voltage.
    """

    id: Identifier
    kind: Literal["led", "button"]
    label: Annotated[
        str, StringConstraints(min_length=1, max_length=60, strip_whitespace=True), OneLine
    ]
    pin: Pin
    forward_v: Annotated[float, Field(gt=0, le=48)] = 2.0
    current_ma: Annotated[float, Field(gt=0, le=1000)] = 5.0
    made_for_v: Annotated[float, Field(gt=0, le=48)] | None = None
    series: header.Series = "E24"

    @model_validator(mode="after")
    def _on_a_signal(self) -> Self:
        if not header.is_signal(self.pin):
            raise ValueError(
                f"pin {self.pin} is {header.pin_name(self.pin)}; choose a GPIO pin that can be "
                f"switched"
            )
        return self


Addresses = dict[
    Annotated[str, StringConstraints(pattern=r"^[1-9][0-9]{0,2}$")],
    Annotated[int, Field(ge=header.I2C_LOWEST, le=header.I2C_HIGHEST)],
]
"""Number of a piece on its line to the I2C address that it is set to."""


PlugName = Annotated[str, StringConstraints(max_length=80), OneLine]
SocketName = Annotated[str, StringConstraints(max_length=160), OneLine]


class FloorPosition(Stated):
    """A place on the floor of a case, from its inner corner, along and across. [mm]"""

    x_mm: Annotated[float, Field(ge=0, le=2000)]
    y_mm: Annotated[float, Field(ge=0, le=2000)]


HeldBy = Literal["screws", "glue", "tape", "clips", "compartment", "nothing"]


class Line(Stated):
    """One line of the kit. `pins` says which plug goes where: plug id to `line#n.socket`.

    `addresses` says which I2C address a piece is set to: its number to the address; pieces without
    one stay as delivered. `part_revision` keeps the figures that the part had when it was chosen;
    None takes the newest. `standoff_mm` lets a stacked board stand on taller standoffs than it is
    delivered with. `position` is where a board stands in a case whose floor is drilled by hand;
    None is the middle. `modified` says that the openings of a case are cut by hand, `sheets_off`
    that the top sheets of a layered one are left off, `held_by` what holds a board in it. What is
    `spare` lies in the drawer: it is bought, and does nothing.
    """

    id: Identifier
    role: Role
    part: Identifier
    part_revision: Annotated[int, Field(ge=1)] | None = None
    quantity: Annotated[int, Field(ge=1, le=MAX_ITEMS)] = 1
    owned: bool = False
    spare: bool = False
    pins: Annotated[dict[PlugName, SocketName], Field(max_length=MAX_ITEMS)] = Field(
        default_factory=dict
    )
    addresses: Annotated[Addresses, Field(max_length=MAX_ITEMS)] = Field(default_factory=dict)
    standoff_mm: Annotated[float, Field(gt=0, le=100)] | None = None
    position: FloorPosition | None = None
    modified: bool = False
    sheets_off: bool = False
    held_by: HeldBy = "screws"


@dataclass(slots=True, frozen=True)
class Prices:
    """What parts cost new in one currency. `rates` is what one of another currency costs in it."""

    currency: str
    rates: Mapping[str, Decimal]

    def of(self, part: Part) -> Decimal | None:
        """None where nobody knows, or where its price is in a currency without a rate."""
        if part.price is None or part.currency == self.currency:
            return part.price
        rate = self.rates.get(part.currency)
        return None if rate is None else (part.price * rate).quantize(Decimal("0.01"))


class Plan(Stated):
    """A build being thought through.

    `copies` is how many of it are to be built; `budget` is for all of them. `rates` is what one of
    another currency costs in that of the plan. `reminders` came with the purpose; `done` are the
    ids of notes that its owner has ticked.
    """

    format: Literal["cobblewort-plan/2"] = "cobblewort-plan/2"
    name: Annotated[
        str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True), OneLine
    ]
    status: PlanStatus = "planning"
    purpose: Annotated[str, StringConstraints(max_length=1000), Lines] = ""
    purpose_id: Identifier | None = None
    requirements: Annotated[tuple[Requirement, ...], Field(max_length=MAX_REQUIREMENTS)] = ()
    image: Image | None = None
    ready_made: ReadyMade | None = None
    place: Place = Place()
    schedule: Annotated[tuple[Phase, ...], Field(max_length=MAX_PHASES)] = (
        Phase(name="all day", hours=24),
    )
    budget: Annotated[Decimal, Field(ge=0, max_digits=12, decimal_places=2)] | None = None
    currency: Currency = "EUR"
    rates: Annotated[dict[Currency, Rate], Field(max_length=20)] = Field(default_factory=dict)
    copies: Annotated[int, Field(ge=1, le=100)] = 1
    settings: Settings = Settings()
    transfers: Annotated[tuple[Transfer, ...], Field(max_length=MAX_TRANSFERS)] = ()
    storage_use: StorageUse = StorageUse()
    retention: Retention = Retention()
    lines: Annotated[tuple[Line, ...], Field(max_length=MAX_ITEMS)] = ()
    wired: Annotated[tuple[Wired, ...], Field(max_length=28)] = ()
    parts: Annotated[tuple[dict[str, Any], ...], Field(max_length=MAX_ITEMS)] = ()
    reminders: Annotated[tuple[Reminder, ...], Field(max_length=40)] = ()
    done: Annotated[
        tuple[Annotated[str, StringConstraints(max_length=200), OneLine], ...],
        Field(max_length=MAX_ITEMS),
    ] = ()

    @model_validator(mode="after")
    def _consistent(self) -> Self:
        ids = [line.id for line in self.lines]
        twice = sorted(name for name, times in Counter(ids).items() if times > 1)[:5]
        if twice:
            raise ValueError(f"each line needs its own id (twice: {', '.join(twice)})")
        asked = [requirement.id for requirement in self.requirements]
        if len(set(asked)) < len(asked):
            raise ValueError("each requirement needs its own id")
        if len({wired.id for wired in self.wired}) < len(self.wired):
            raise ValueError("each wired part needs its own id")
        if len({transfer.id for transfer in self.transfers}) < len(self.transfers):
            raise ValueError("each transfer needs its own id")
        if len({copy.id for copy in self.retention.backups}) < len(self.retention.backups):
            raise ValueError("each backup needs its own id")
        items = sum(line.quantity for line in self.lines)
        if items > MAX_ITEMS:
            raise ValueError(f"a plan holds at most {MAX_ITEMS} parts (got {items})")
        hours = sum(phase.hours for phase in self.schedule)
        if not self.schedule or hours > 24.0001:
            raise ValueError(
                f"the phases of the schedule must add up to at most 24 h (got {hours:g} h)"
            )
        return self

    def price_of(self, part: Part) -> Decimal | None:
        """What one costs new in the plan's currency, or None: see `Prices`."""
        return Prices(self.currency, self.rates).of(part)

    def line(self, line_id: str) -> Line:
        """The line with this id. Raises KeyError when there is none."""
        for line in self.lines:
            if line.id == line_id:
                return line
        raise KeyError(line_id)

    def free_line_id(self, role: str) -> str:
        """An id that no line has yet: the role, numbered from the second on."""
        taken = {line.id for line in self.lines}
        number = 1
        while (candidate := role if number == 1 else f"{role}-{number}") in taken:
            number += 1
        return candidate


def plan_from(document: Any) -> Plan:
    """The plan of a document. Raises InputError with every problem and its place."""
    if not isinstance(document, dict):
        raise InputError([("", "a plan file holds one object with fields such as name and lines")])
    try:
        return Plan.model_validate(current_plan(document))
    except ValidationError as error:
        raise InputError.from_validation(error) from error
