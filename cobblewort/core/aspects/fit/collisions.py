"""Blocks in space: every layer to scale, where two want the same room, and what stays free.

All lengths are in the frame of the main board, in mm, at nominal figures: x along its long side, y
across, z up from its upper face.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise

from cobblewort.core.aspects.fit.assign import Assignment, PlugRef, SocketRef
from cobblewort.core.aspects.fit.openings import has_walls, opening_at
from cobblewort.core.aspects.fit.placement import Standing
from cobblewort.core.aspects.fit.stack import PCB_MM, Layer, Layers, StackResult, room_below_mm
from cobblewort.core.judging.item import Item
from cobblewort.core.parts.model import Box, Latch, PlugBody, SocketFace, Stack
from cobblewort.core.words import within

_TOUCH_MM = 0.1
"""Blocks that overlap by less only touch."""
_DRIVE_INSET_MM = 4.0
_DRIVE_STEP_MM = 3.0
_FINGER_MM = 12.0
"""What a fingertip takes up: common practice."""
_CARD_WAY_MM = 15.0
"""A hand needs this much to pull a card: its own length, common practice."""


@dataclass(slots=True, frozen=True)
class PlacedBox:
    """A block in the main board's frame, and the piece that it belongs to."""

    item: str
    line: str
    label: str
    look: str
    x_mm: float
    y_mm: float
    z_mm: float
    dx_mm: float
    dy_mm: float
    dz_mm: float


@dataclass(slots=True, frozen=True)
class Overlap:
    """Room that two blocks both want."""

    one: PlacedBox
    other: PlacedBox
    x_mm: float
    y_mm: float
    z_mm: float
    dx_mm: float
    dy_mm: float
    dz_mm: float


@dataclass(slots=True, frozen=True)
class LayerGap:
    """Free height between two layers that face each other; negative where they collide."""

    below: str
    above: str
    from_mm: float
    to_mm: float
    gap_mm: float


@dataclass(slots=True, frozen=True)
class AccessZone:
    """Room that a hand or a plug needs outside the board, what for, and what comes off first."""

    line: str
    label: str
    first: tuple[str, ...]
    x_mm: float
    y_mm: float
    z_mm: float
    dx_mm: float
    dy_mm: float
    dz_mm: float


class Blocks:
    """Every block on the main board to scale, whatever is around them; without a board there is
    none.
    """

    def __init__(self, layers: Layers, assignment: Assignment) -> None:
        self._layers, self._fit, self._board = layers, assignment, layers.board
        self._own = None if layers.board is None else layers.board.part.stack

    @cached_property
    def boxes(self) -> list[PlacedBox]:
        """The blocks themselves."""
        if self._board is None or self._own is None:
            return []
        return list(_boxes(self._layers, self._board, self._own, self._fit))

    @cached_property
    def plugs(self) -> list[PlacedBox]:
        """The bodies of what is plugged in at the board's edges."""
        if self._board is None or self._own is None:
            return []
        return list(_plugs(self._board, self._own, self._fit))

    @cached_property
    def overlaps(self) -> list[Overlap]:
        """Room that two blocks both want.

        Looked for between other pieces and the sockets and chips of the main board: a cooler under
        a board, and a board on another, have a free height that is judged by itself; a drive lies
        on the board that carries it.
        """
        board = "" if self._board is None else self._board.id
        found: list[Overlap] = []
        own: list[PlacedBox] = []
        others: list[PlacedBox] = []
        for box in self.boxes:
            alike, unlike = (own, others) if box.item == board else (others, own)
            found += [room for other in unlike if (room := overlap_of(other, box)) is not None]
            alike.append(box)
        return found

    @cached_property
    def gaps(self) -> list[LayerGap]:
        """Free heights between layers."""
        return [] if self._own is None else list(_gaps(self._layers, self._own))


class Space:
    """What is around the blocks of a kit to scale: made when somebody looks at it."""

    def __init__(
        self, stack: StackResult, assignment: Assignment, mounting: Standing | None = None
    ) -> None:
        self._stack, self._fit, self._standing = stack, assignment, mounting

    @cached_property
    def beside(self) -> list[PlacedBox]:
        """Further boards in the same case, with their sockets; its compartments and posts."""
        return [] if self._standing is None else list(_beside(self._stack, self._standing))

    @cached_property
    def access(self) -> list[AccessZone]:
        """Room for hands and plugs."""
        board = self._stack.board
        own = None if board is None else board.part.stack
        if board is None or own is None:
            return []
        return list(_access(self._stack, board, own, self._fit))


def overlap_of(one: PlacedBox, other: PlacedBox) -> Overlap | None:
    """The room that two blocks share, or None where they do not even touch."""
    # Most pairs lie at different heights or beside each other: ask that first, in few steps.
    if (
        one.z_mm + one.dz_mm - other.z_mm <= _TOUCH_MM
        or other.z_mm + other.dz_mm - one.z_mm <= _TOUCH_MM
        or one.x_mm + one.dx_mm - other.x_mm <= _TOUCH_MM
        or other.x_mm + other.dx_mm - one.x_mm <= _TOUCH_MM
    ):
        return None
    z_mm = max(one.z_mm, other.z_mm)
    dz_mm = min(one.z_mm + one.dz_mm, other.z_mm + other.dz_mm) - z_mm
    x_mm = max(one.x_mm, other.x_mm)
    dx_mm = min(one.x_mm + one.dx_mm, other.x_mm + other.dx_mm) - x_mm
    y_mm = max(one.y_mm, other.y_mm)
    dy_mm = min(one.y_mm + one.dy_mm, other.y_mm + other.dy_mm) - y_mm
    if min(dx_mm, dy_mm, dz_mm) <= _TOUCH_MM:
        return None
    return Overlap(one, other, x_mm, y_mm, z_mm, dx_mm, dy_mm, dz_mm)


def _boxes(layers: Layers, board: Item, own: Stack, assignment: Assignment) -> Iterator[PlacedBox]:
    thickness = own.thickness_mm.nominal
    yield PlacedBox(
        board.id,
        board.line.id,
        board.name,
        "pcb",
        0,
        0,
        -thickness,
        own.length_mm,
        own.width_mm,
        thickness,
    )
    sockets = [_placed(board, b, b.x_mm, b.y_mm, b.z_mm) for b in board.part.boxes.values()]
    yield from sockets
    yield from _die_and_cooler(board, layers.cooler, sockets)
    for layer in layers.layers:
        if layer.item.part.add_on is not None:
            yield from _add_on(layer, own, assignment)


def _beside(stack: StackResult, mounting: Standing) -> Iterator[PlacedBox]:
    """What is on the floor of the case beside the main board, in the main board's frame."""
    main, case = mounting.main, stack.case
    for board, at in mounting.boards[1:]:
        own = board.part.stack
        if own is None:
            continue
        x_mm, y_mm, thickness = at.x_mm - main.x_mm, at.y_mm - main.y_mm, own.thickness_mm.nominal
        yield PlacedBox(
            board.id,
            board.line.id,
            board.name,
            "pcb",
            x_mm,
            y_mm,
            -thickness,
            own.length_mm,
            own.width_mm,
            thickness,
        )
        for box in board.part.boxes.values():
            yield _placed(board, box, x_mm + box.x_mm, y_mm + box.y_mm, box.z_mm)
    shell = None if case is None else case.part.case
    if case is None or shell is None:
        return
    floor_mm = -float(room_below_mm(case)[0])
    for room in shell.compartments.values():
        yield PlacedBox(
            case.id,
            case.line.id,
            room.label,
            "room",
            room.x_mm - main.x_mm,
            room.y_mm - main.y_mm,
            floor_mm,
            room.length_mm,
            room.width_mm,
            0,
        )
    for post in () if case.line.modified else shell.posts.values():
        high_mm = shell.inner_height_mm if post.height_mm is None else post.height_mm
        yield PlacedBox(
            case.id,
            case.line.id,
            post.label,
            "post",
            post.x_mm - main.x_mm,
            post.y_mm - main.y_mm,
            floor_mm,
            post.length_mm,
            post.width_mm,
            high_mm,
        )


def _placed(
    item: Item, box: Box, x_mm: float, y_mm: float, z_mm: float, label: str = ""
) -> PlacedBox:
    return PlacedBox(
        item.id,
        item.line.id,
        label or box.label or item.name,
        box.look,
        x_mm,
        y_mm,
        z_mm,
        box.dx_mm,
        box.dy_mm,
        box.dz_mm,
    )


def _die_and_cooler(
    board: Item, cooler: Item | None, sockets: list[PlacedBox]
) -> Iterator[PlacedBox]:
    heat = board.part.board_heat
    if heat is None:
        return
    side, top = heat.soc_side_mm.nominal, heat.soc_top_mm.nominal
    yield PlacedBox(
        board.id,
        board.line.id,
        "Processor",
        "chip",
        heat.soc_x_mm - side / 2,
        heat.soc_y_mm - side / 2,
        0,
        side,
        side,
        top,
    )
    own = None if cooler is None else cooler.part.cooler
    if cooler is not None and own is not None:
        block = PlacedBox(
            cooler.id,
            cooler.line.id,
            cooler.name,
            "fan" if own.r_fan_k_w else "sink",
            max(0.0, heat.soc_x_mm - own.length_mm / 2),
            heat.soc_y_mm - own.width_mm / 2,
            top + own.interface_mm.nominal,
            own.length_mm,
            own.width_mm,
            own.height_mm.nominal,
        )
        if not own.r_fan_k_w:
            block = _moved_aside(block, sockets, (own.width_mm - side) / 2)
        yield block


def _moved_aside(block: PlacedBox, sockets: list[PlacedBox], most_mm: float) -> PlacedBox:
    """A plain sink moved across the board as far as it still covers the die, where that frees it.

    A cooler with a fan sits in the holes made for its clips.
    """
    for box in sockets:
        clash = overlap_of(block, box)
        if clash is not None and clash.dy_mm <= most_mm:
            away = -1 if box.y_mm > block.y_mm else 1
            block = replace(block, y_mm=block.y_mm + away * clash.dy_mm)
            most_mm -= clash.dy_mm
    return block


def _add_on(layer: Layer, main: Stack, assignment: Assignment) -> Iterator[PlacedBox]:
    """A stacked board with its drives: they lie on its far face above, on its near face below."""
    item, own = layer.item, layer.item.part.add_on
    if own is None:
        return
    foot = float(layer.foot_mm[0])
    length = main.length_mm if own.length_mm is None else own.length_mm
    width = main.width_mm if own.width_mm is None else own.width_mm
    base = foot if own.side == "above" else -main.thickness_mm.nominal - foot - PCB_MM
    yield PlacedBox(item.id, item.line.id, item.name, "pcb", 0, 0, base, length, width, PCB_MM)
    carried = [plug.item for plug, socket in assignment.placed.values() if socket.item is item]
    y_mm = _DRIVE_INSET_MM
    for drive in carried:
        body = drive.part.boxes.get("body")
        if body is not None:
            yield _placed(drive, body, _DRIVE_INSET_MM, y_mm, base + PCB_MM, drive.name)
            y_mm += body.dy_mm + _DRIVE_STEP_MM


def _plugs(board: Item, own: Stack, assignment: Assignment) -> Iterator[PlacedBox]:
    for plug, socket in assignment.placed.values():
        if socket.item is board and (box := _plug_box(plug, socket, own)) is not None:
            yield box


def _plug_box(plug: PlugRef, socket: SocketRef, own: Stack) -> PlacedBox | None:
    face, body = socket.socket.face, plug.plug.body
    if face is None or body is None:
        return None
    item = plug.item
    x_mm, y_mm, dx_mm, dy_mm = _outside(face, body, own)
    return PlacedBox(
        item.id,
        item.line.id,
        item.name,
        "plug",
        x_mm,
        y_mm,
        face.z_mm + body.rise_mm - body.height_mm / 2,
        dx_mm,
        dy_mm,
        body.height_mm,
    )


def _gaps(stack: Layers, own: Stack) -> Iterator[LayerGap]:
    """Free heights from the board outward: between the cooler or the board and what stands over it,
    and between one stacked board and the next.
    """
    for side in ("above", "below"):
        stacked = [
            layer
            for layer in stack.layers
            if layer.side == side and layer.item.part.add_on is not None
        ]
        first = [layer for layer in stack.layers if layer.side == side and layer not in stacked]
        if side == "above":
            under = next((x for x in first if x.item is stack.cooler), None)
            for layer in stacked:
                if under is not None:
                    yield _gap(
                        under.item, layer.item, float(under.reach_mm[0]), float(layer.foot_mm[0])
                    )
                under = layer
        else:
            thickness = own.thickness_mm.nominal
            for near, far in pairwise(stacked):
                yield _gap(
                    far.item,
                    near.item,
                    -thickness - float(far.foot_mm[0]),
                    -thickness - float(near.reach_mm[0]),
                )


def _gap(below: Item, above: Item, from_mm: float, to_mm: float) -> LayerGap:
    return LayerGap(below.name, above.name, from_mm, to_mm, to_mm - from_mm)


def _access(
    stack: StackResult, board: Item, own: Stack, assignment: Assignment
) -> Iterator[AccessZone]:
    """The way of the card, of plugs whose body is known, and of a hand to buttons and latches."""
    yield from _hands(stack, board, own, assignment)
    for plug, socket in assignment.placed.values():
        face = socket.socket.face
        if socket.item is not board or face is None:
            continue
        line, first = plug.item.line.id, tuple(_in_the_way(stack, socket, face))
        if plug.item.part.kind == "cable" and socket.socket.connector == "memory-card":
            continue  # an extender goes in once; the card is reached at its other end
        if socket.socket.connector == "memory-card":
            yield AccessZone(
                line,
                f"remove {plug.item.name}",
                first,
                -_CARD_WAY_MM,
                face.along_mm - face.width_mm / 2,
                face.z_mm - face.height_mm / 2,
                _CARD_WAY_MM,
                face.width_mm,
                face.height_mm,
            )
        elif (box := _plug_box(plug, socket, own)) is not None:
            yield AccessZone(
                line,
                f"plug in {plug.item.name}",
                first,
                box.x_mm,
                box.y_mm,
                box.z_mm,
                box.dx_mm,
                box.dy_mm,
                box.dz_mm,
            )


def _hands(
    stack: StackResult, board: Item, own: Stack, assignment: Assignment
) -> Iterator[AccessZone]:
    """A finger's room at each button, and over each latch whose socket is in use."""
    for button in board.part.buttons.values():
        face, half = button.face, _FINGER_MM / 2
        finger = PlugBody(width_mm=_FINGER_MM, height_mm=_FINGER_MM, length_mm=_FINGER_MM)
        x_mm, y_mm, dx_mm, dy_mm = _outside(face, finger, own)
        yield AccessZone(
            board.line.id,
            f"press the {within(button.label)}",
            tuple(_walls_before(stack, face)),
            x_mm,
            y_mm,
            face.z_mm - half,
            dx_mm,
            dy_mm,
            _FINGER_MM,
        )
    for item, latch in latches_in_use(board, assignment):
        over = [f"remove {layer.item.name}" for layer in boards_over(stack, latch)]
        yield AccessZone(
            board.line.id,
            f"lift the latch of {item.name}",
            tuple(over),
            latch.x_mm,
            latch.y_mm,
            latch.z_mm + latch.dz_mm,
            latch.dx_mm,
            latch.dy_mm,
            max(latch.lift_mm, _FINGER_MM),
        )


def latches_in_use(board: Item, assignment: Assignment) -> list[tuple[Item, Latch]]:
    """What is plugged in under a latch, and the latch."""
    return [
        (plug.item, board.part.latches[socket.name])
        for plug, socket in assignment.placed.values()
        if socket.item is board and socket.name in board.part.latches
    ]


def boards_over(stack: Layers, latch: Latch) -> list[Layer]:
    """Boards above that cover a latch, so that no finger comes to it."""
    found = []
    for layer in stack.layers:
        add_on = layer.item.part.add_on
        if add_on is None or add_on.side != "above":
            continue
        length = add_on.length_mm or float("inf")
        width = add_on.width_mm or float("inf")
        if latch.x_mm < length and latch.y_mm < width:
            found.append(layer)
    return found


def _outside(face: SocketFace, body: PlugBody, own: Stack) -> tuple[float, float, float, float]:
    """Where a body lies that meets a spot from outside its edge: x, y and size. [mm]"""
    along_mm = face.along_mm + body.offset_mm - body.width_mm / 2
    if face.edge in ("left", "right"):
        x_mm = own.length_mm + 2 if face.edge == "right" else -body.length_mm
        return x_mm, along_mm, body.length_mm, body.width_mm
    y_mm = own.width_mm if face.edge == "upper" else -body.length_mm - 1
    return along_mm, y_mm, body.width_mm, body.length_mm


def _walls_before(stack: StackResult, face: SocketFace) -> Iterator[str]:
    case = None if stack.case is None else stack.case.part.case
    if (
        stack.case is not None
        and case is not None
        and has_walls(stack.case)
        and face.edge not in case.open_edges
        and opening_at(case, face) is None
    ):
        yield f"open {stack.case.name}"


def _in_the_way(stack: StackResult, socket: SocketRef, face: SocketFace) -> Iterator[str]:
    """What has to come off before a socket is reached: the case, and boards over it."""
    yield from _walls_before(stack, face)
    for layer in stack.layers:
        add_on = layer.item.part.add_on
        if add_on is not None and socket.name in (*add_on.closes, *add_on.hampers):
            yield f"remove {layer.item.name}"
