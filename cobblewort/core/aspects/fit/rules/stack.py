"""Rules of the stack: boards on boards, room that two things want, standoffs and screws."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import pairwise
from math import pi

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.bays import Bays, bays_of
from cobblewort.core.aspects.fit.collisions import Blocks
from cobblewort.core.aspects.fit.fasteners import Fastener
from cobblewort.core.aspects.fit.model import (
    blocks_of,
    coolers_of,
    fasteners_of,
    layers_of,
    stack_of,
)
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.openings import is_open
from cobblewort.core.aspects.fit.remedies import taller_standoffs
from cobblewort.core.aspects.fit.stack import PCB_MM, Layers, StackResult, raised_mm
from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.reading import Rating
from cobblewort.core.judging.findings import Finding, Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items, Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another, on_offer, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, FAILS, INFORMS
from cobblewort.core.judging.working import Sum, computed_term, reading_term, standard_term
from cobblewort.core.parts.model import AddOn, FlatCable
from cobblewort.core.plans.patch import AddLine, Patch
from cobblewort.core.plans.plan import Requirement
from cobblewort.core.text import Figure, Text, say


def fastener_bag(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A bag of standoffs and screws."""
    del finding
    for part in on_offer(kit, ("fastener",)):
        if part.fasteners is not None:
            yield (AddLine(role="fastener", part=part.id),)


@rule(
    "FIT-23",
    "fit",
    "Stacked boards have clearance",
    why="A tall component on the lower board stops the upper board from sitting on its standoffs.",
    formula="height of the components on the lower board <= clearance under the upper one",
    source="maker's drawings; a circuit board is 1.6 mm thick (common practice)",
    reads=(layers_of,),
    remedies=(taller_standoffs, another("add_on"), remove_named),
    eased_by=("board", "add_on"),
)
def boards_clear(stack: Layers) -> Iterator[Check]:
    """Each board above that stands on another one."""
    stacked = [x for x in stack.layers if x.side == "above" and x.item.part.add_on]
    for lower, upper in pairwise(stacked):
        parts = lower.reach_mm - lower.foot_mm - PCB_MM
        room = stack.gaps[upper.item.id]
        names = lower.item.name, upper.item.name

        def sentence(margin: Margin, names: tuple[str, str] = names) -> Text:
            shown, limit = words.apart(words.mm, margin.value, margin.limit)
            return say(
                "The components on {lower} are {shown} high; the clearance under {upper} is "
                "{limit}.",
                lower=names[0],
                upper=names[1],
                shown=shown,
                limit=limit,
            )

        below, top = float(lower.foot_mm[0]), float(lower.reach_mm[0])
        free = float(room[0])

        def working(
            _: int,
            top: float = top,
            below: float = below,
            free: float = free,
            names: tuple[str, str] = names,
        ) -> Sum:
            return Sum(
                "clearance under the upper board less the component height on the lower board",
                "h_clear - (h_top - h_foot - t)",
                [
                    computed_term("h_clear", f"clearance under {names[1]}", "mm", free, None),
                    computed_term("h_top", f"top of {names[0]}", "mm", top, None),
                    computed_term("h_foot", f"underside of {names[0]}", "mm", below, None),
                    standard_term(
                        "t", "thickness of the circuit board", "mm", PCB_MM, "common practice"
                    ),
                ],
            )

        yield Check(
            upper.item.id,
            f"{names[0]} under {names[1]}",
            "mm",
            "max",
            parts,
            room,
            sentence,
            (lower.item.line.id, upper.item.line.id),
            working=working,
        )


@rule(
    "FIT-24",
    "fit",
    "No two parts occupy the same space",
    why="Two parts that overlap cannot both be fitted.",
    formula="blocks of two parts overlap in length, width and height at once",
    source="maker's drawings, taken as blocks",
    reads=(blocks_of, "connected", coolers_of),
    remedies=(taller_standoffs, another("add_on"), another("cooling"), remove_named),
)
def same_space(blocks: Blocks, connected: Items, coolers: list[Item]) -> Iterator[Observation]:
    """One observation for each pair of items, at the place where they overlap most."""
    worst: dict[tuple[str, str], tuple[float, Observation]] = {}
    owners = {item.id: item.name for item in (*connected, *coolers)}
    for overlap in blocks.overlaps:
        one, other = overlap.one, overlap.other
        volume = overlap.dx_mm * overlap.dy_mm * overlap.dz_mm
        what = f"{one.label} of {owners[one.item]}" if one.label != owners[one.item] else one.label
        told = Observation(
            f"{one.item}+{other.item}",
            FAILS,
            say(
                "{one} collides with the {other}: they overlap by {size}.",
                one=other.label,
                other=words.within(what),
                size=words.sides(
                    Figure(overlap.dx_mm, "mm"),
                    Figure(overlap.dy_mm, "mm"),
                    words.mm(overlap.dz_mm),
                ),
            ),
            tuple(dict.fromkeys((other.line, one.line))),
        )
        key = one.item, other.item
        if key not in worst or worst[key][0] < volume:
            worst[key] = volume, told
    for _, observation in worst.values():
        yield observation


@rule(
    "FIT-25",
    "fit",
    "Each processor has one cooler",
    why="Only one cooler can touch a processor; a case that is the heat sink counts as one.",
    formula="coolers on the processor <= 1",
    source="common practice",
    reads=(layers_of,),
    remedies=(remove_named,),
)
def one_cooler(stack: Layers) -> Iterator[Observation]:
    """Every cooler beyond one for each board."""
    first, boards = stack.cooler, stack.boards
    for cooler in stack.surplus_coolers:
        if first is not None:
            taken = (
                say("{first} is already on the processor", first=words.opening(first.the))
                if len(boards) < 2
                else say("Each of the {count} processors already has a cooler", count=len(boards))
            )
            yield Observation(
                cooler.id,
                FAILS,
                say("{taken}; {cooler} has no processor to cool.", taken=taken, cooler=cooler.the),
                (cooler.line.id,),
            )


@rule(
    "FIT-26",
    "fit",
    "The flat cable reaches a raised board",
    why="Taller standoffs add clearance under a board but stretch its flat cable.",
    formula="height of the standoffs <= height that the cable or pins allow",
    source="maker's drawings",
    reads=("connected",),
    remedies=(another("add_on"),),
    eased_by=("board", "add_on"),
)
def cable_reaches(connected: Items) -> Iterator[Check | Observation]:
    """Boards on taller standoffs than they are delivered with."""
    for item in connected:
        own = item.part.add_on
        if own is None or item.line.standoff_mm is None:
            continue
        if own.clear_mm is None or own.most_clear_mm is None:
            yield Observation(
                item.id,
                FAILS,
                say(
                    "The pins of {board} fix its height; standoffs of {height} do not fit.",
                    board=item.name,
                    height=words.mm(item.line.standoff_mm),
                ),
                (item.line.id,),
            )
            continue
        yield _cable_check(item, own, own.clear_mm, own.most_clear_mm)


def _cable_check(item: Item, own: AddOn, clear: Rating, most: Rating) -> Check:
    of = item.compiled.figure
    stands = of("add_on.clear_mm") + raised_mm(item, own)

    def sentence(margin: Margin) -> Text:
        shown, limit = words.apart(words.mm, margin.value, margin.limit)
        return say(
            "{board} is {shown} above the main board; its flat cable allows {limit}.",
            board=item.name,
            shown=shown,
            limit=limit,
        )

    def working(_: int) -> Sum:
        return Sum(
            "height that the cable allows less the height of the board",
            "h_most - h_stands",
            [
                reading_term(
                    "h_most",
                    "height that its cable allows",
                    "mm",
                    item,
                    "add_on.most_clear_mm",
                    most,
                ),
                computed_term(
                    "h_stands", "clearance on its standoffs", "mm", float(stands[0]), None
                ),
            ],
        )

    return Check(
        item.id,
        f"Cable of {item.name}",
        "mm",
        "max",
        stands,
        of("add_on.most_clear_mm"),
        sentence,
        (item.line.id,),
        working=working,
    )


@rule(
    "FIT-27",
    "fit",
    "Standoffs and screws are in the kit",
    why="Without standoffs and screws of the right length a board cannot be fixed.",
    formula="for each board: standoff >= clearance required; screw = board or wall + at least 2 mm "
    "of thread, and shorter than the depth of the thread",
    source="usual lengths and depth of thread: common practice; threads by ISO 261",
    reads=(fasteners_of, stack_of, "built", "requirements"),
    remedies=(fastener_bag,),
)
def fasteners(
    wanted: list[Fastener], stack: StackResult, built: Items, requirements: Sequence[Requirement]
) -> Iterator[Observation]:
    """What holds the stack: missing altogether, or a length that the bag does not have."""
    if not wanted:
        return
    has_bag = any(i.part.fasteners is not None for i in built)
    lines = tuple(dict.fromkeys(line for f in wanted for line in f.lines))
    moves = any(requirement.condition == "in_vehicle" for requirement in requirements)
    stacked = any(layer.item.part.add_on is not None for layer in stack.layers)
    # A board alone can be glued, clipped or held by two wood screws; a stack stands on its own.
    consequence = BOTHERS if stacked or moves else INFORMS
    if not has_bag:
        counts: Counter[tuple[str, float]] = Counter()
        for item in wanted:
            if item.length_mm is not None:
                counts[item.kind, item.length_mm] += item.count
        # As they are sold, whatever units their reader prefers.
        sold = [f"{count} × {kind} {length:g} mm" for (kind, length), count in counts.items()]
        yield Observation(
            "bag",
            consequence,
            say("The kit has no standoffs and screws. Add {sold}.", sold=words.few(sold, 6)),
            lines,
        )
    for number, item in enumerate(wanted):
        if item.length_mm is None:
            yield Observation(
                f"{item.kind}.{number}",
                consequence,
                say(
                    "No {kind} in the kit has the length required {where}: {length}.",
                    kind=item.kind,
                    where=item.where,
                    length=item.wanted,
                ),
                item.lines,
            )


@rule(
    "FIT-31",
    "fit",
    "Every drive has a bay",
    why="A loose drive works its plug out, and a thick drive does not fit a flat bay.",
    formula="drives of a size <= bays of that size and thickness",
    source="SFF-8201 and SFF-8301 for the sizes (from memory); thickness as the parts state it",
    reads=(stack_of, bays_of),
    remedies=(another("case"), another("storage", "boot_drive")),
)
def bays(stack: StackResult, bays: Bays) -> Iterator[Observation]:
    """2.5- and 3.5-inch drives against the bays of a case that has any."""
    case = stack.case
    if case is None:
        return
    for item, left in bays.without:
        drive = item.part.drive
        thick, size = (0, "") if drive is None else (drive.thickness_mm or 0, drive.size)
        told = (
            say(
                "{drive} is {thick} thick; the bays of {case} take {most}.",
                drive=item.name,
                thick=words.mm(thick),
                case=case.the,
                most=words.mm(left[-1].thickness_mm),
            )
            if left
            else say(
                "{case} has no free {size}-inch bay for {drive}.",
                case=words.opening(case.the),
                size=size,
                drive=item.name,
            )
        )
        yield Observation(item.id, BOTHERS, told, (item.line.id, case.line.id))


@rule(
    "FIT-39",
    "fit",
    "No drive is loose beside the case",
    why="A pull on its cable can disconnect a loose drive; a hard disk also vibrates.",
    formula="2.5- and 3.5-inch drives without a bay",
    source="common practice",
    reads=(stack_of, bays_of, "connected"),
)
def loose_disks(stack: StackResult, bays: Bays, connected: Items) -> Iterator[Observation]:
    """One note for all drives outside; a case with bays that are full is FIT-31's."""
    case = stack.case
    without = {item.id for item, _ in bays.without}
    loose = [
        item
        for item in connected
        if item.part.drive is not None
        and "." in item.part.drive.size
        and item.id not in bays.taken
        and item.id not in without
    ]
    if not loose or case is None:
        return
    names = words.few(item.name for item in loose)
    be, it = ("is", "it") if len(loose) == 1 else ("are", "them")
    spins = any(item.part.drive is not None and item.part.drive.spins for item in loose)
    how = f"Place {it} on a soft pad" if spins else f"Fix {it} in place"
    yield Observation(
        "loose",
        INFORMS,
        say(
            "{names} {be} loose beside {case}. {how}, away from anything that could pull the "
            "cable.",
            names=names,
            be=be,
            case=case.the,
            how=how,
        ),
        tuple(dict.fromkeys(item.line.id for item in loose)),
    )


@rule(
    "FIT-32",
    "fit",
    "The case is closed on top",
    why="A layered case without its top sheets has more clearance, but dust, fingers and coins "
    "get in.",
    formula="top sheets left off",
    source="common practice",
    reads=(stack_of,),
)
def without_lid(stack: StackResult) -> Iterator[Observation]:
    """What it means that the top of a layered case is left off."""
    case = stack.case
    if case is None or case.part.case is None or case.part.case.open or not is_open(case):
        return
    yield Observation(
        "sheets",
        INFORMS,
        say(
            "{case} is open on top: {sheets} left off. Use screws shorter by the same thickness. "
            "Heat is calculated as if the case were closed, which is warmer.",
            case=words.opening(case.the),
            sheets=words.count(case.part.case.top_sheets, "sheet"),
        ),
        (case.line.id,),
    )


_STIFF_MM = 6.0
"""The stiff ends of a flat cable, 3 mm each, that lie in their sockets: common practice."""


@rule(
    "FIT-33",
    "fit",
    "The flat cable reaches without a crease",
    why="A flat cable that is too short pulls out of its latch; one that is bent too tightly "
    "breaks inside.",
    formula="rise between the boards, two quarter bends at the tightest radius and the stiff ends: "
    "h + (pi - 2) r + 6 mm <= length of the cable",
    source="geometry of two quarter circles; stiff ends of 3 mm: common practice",
    reads=(fit_of, layers_of),
    remedies=(another("add_on"),),
    eased_by=("board", "add_on"),
)
def flat_cables(fit: Assignment, stack: Layers) -> Iterator[Check]:
    """Flat cables between the main board and a stacked one."""
    feet = {layer.item.id: layer.foot_mm for layer in stack.layers}
    for plug, socket in fit.placed.values():
        item, flat_cable = plug.item, plug.plug.flat_cable
        if flat_cable is None or socket.item is not stack.board or item.id not in feet:
            continue
        yield _cable_path(item, plug.name, flat_cable, feet[item.id])


def _cable_path(item: Item, plug: str, flat_cable: FlatCable, rise_mm: FloatArray) -> Check:
    of, path = item.compiled.figure, f"plugs.{plug}.flat_cable"
    bend = of(f"{path}.bend_mm")

    def sentence(margin: Margin) -> Text:
        shown, limit = words.apart(words.mm, margin.value, margin.limit)
        return say(
            "The flat cable of {board} needs {shown} without a crease; it is {limit} long.",
            board=item.name,
            shown=shown,
            limit=limit,
        )

    def working(_: int) -> Sum:
        return Sum(
            "length less the rise, two quarter bends and the stiff ends",
            "L - (h + (pi - 2) * r + e)",
            [
                reading_term(
                    "L",
                    "length of the cable",
                    "mm",
                    item,
                    f"{path}.length_mm",
                    flat_cable.length_mm,
                ),
                computed_term("h", "rise between the boards", "mm", float(rise_mm[0]), None),
                standard_term("pi", "half a turn over its radius", "", pi, "geometry"),
                reading_term(
                    "r", "tightest bend", "mm", item, f"{path}.bend_mm", flat_cable.bend_mm
                ),
                standard_term("e", "stiff ends", "mm", _STIFF_MM, "common practice"),
            ],
        )

    return Check(
        item.id,
        f"Flat cable of {item.name}",
        "mm",
        "max",
        rise_mm + (pi - 2) * bend + _STIFF_MM,
        of(f"{path}.length_mm"),
        sentence,
        (item.line.id,),
        working=working,
    )
