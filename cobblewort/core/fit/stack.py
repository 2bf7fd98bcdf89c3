"""The stack: what stands on what, in mm, along the vertical axis.

Heights are measured from the main board: up from its upper face, down from its lower face.

         lid  ------------------------------   case max_above_mm
              add-on above (height_mm)
              cooler: top of die + interface + sink
    ==========  main board, upper face = 0  ==========
              add-on below (height_mm)
       floor  ------------------------------   case max_below_mm
"""

from __future__ import annotations

from dataclasses import dataclass

from cobblewort.core.arrays import FloatArray
from cobblewort.core.fit.assign import Assignment
from cobblewort.core.instance import Instance


@dataclass(slots=True, frozen=True)
class Layer:
    """How far one piece reaches from the main board on its side. [mm]"""

    instance: Instance
    side: str
    reach_mm: FloatArray


@dataclass(slots=True, frozen=True)
class PlacedBox:
    """A block in the main board's frame, for the drawing. [mm]"""

    line: str
    label: str
    look: str
    x_mm: float
    y_mm: float
    z_mm: float
    dx_mm: float
    dy_mm: float
    dz_mm: float


@dataclass(slots=True)
class StackResult:
    """Layers above and below the main board, the case around them, and boxes to draw."""

    board: Instance | None
    case: Instance | None
    cooler: Instance | None
    layers: list[Layer]
    boxes: list[PlacedBox]
    gaps: dict[str, FloatArray]

    def add_ons(self, side: str) -> list[Instance]:
        """The boards stacked on one side of the main board."""
        return [
            layer.instance
            for layer in self.layers
            if layer.side == side and layer.instance.part.add_on is not None
        ]

    def reach_mm(self, side: str) -> tuple[Instance, FloatArray] | None:
        """The piece that reaches farthest on a side at nominal figures, and how far. [mm]"""
        layers = [layer for layer in self.layers if layer.side == side]
        if not layers:
            return None
        farthest = max(layers, key=lambda layer: float(layer.reach_mm[0]))
        return farthest.instance, farthest.reach_mm


def build_stack(instances: list[Instance], assignment: Assignment) -> StackResult:
    """Stack the kit on its first board; without one there is nothing to stack."""
    board = next((i for i in instances if i.part.kind == "board" and i.part.stack), None)
    case = next((i for i in instances if i.part.case is not None), None)
    cooler = next((i for i in instances if i.part.cooler is not None), None)
    result = StackResult(board, case, cooler, [], [], {})
    if board is None:
        return result
    stack = board.part.stack
    if stack is None:
        return result
    arrays = board.compiled
    result.layers.append(Layer(board, "above", arrays.figure("stack.above_mm", stack.above_mm)))
    result.layers.append(Layer(board, "below", arrays.figure("stack.below_mm", stack.below_mm)))
    if cooler is not None and board.part.board_heat is not None:
        result.layers.append(Layer(cooler, "above", cooler_top_mm(board, cooler)))
    for instance in instances:
        add_on = instance.part.add_on
        if add_on is not None:
            reach = instance.compiled.figure("add_on.height_mm", add_on.height_mm)
            result.layers.append(Layer(instance, add_on.side, reach))
            if add_on.clear_mm is not None and cooler is not None and add_on.side == "above":
                clear = instance.compiled.figure("add_on.clear_mm", add_on.clear_mm)
                result.gaps[instance.id] = clear
    result.boxes = _boxes(result, instances, assignment)
    return result


def cooler_top_mm(board: Instance, cooler: Instance) -> FloatArray:
    """Top of a cooler above the board: die, what lies between, and the cooler itself. [mm]"""
    heat, own = board.part.board_heat, cooler.part.cooler
    if heat is None or own is None:
        raise ValueError("a board with thermal figures and a cooler are needed")
    top: FloatArray = (
        board.compiled.figure("board_heat.soc_top_mm", heat.soc_top_mm)
        + cooler.compiled.figure("cooler.interface_mm", own.interface_mm)
        + cooler.compiled.figure("cooler.height_mm", own.height_mm)
    )
    return top


def _boxes(
    stack: StackResult, instances: list[Instance], assignment: Assignment
) -> list[PlacedBox]:
    board = stack.board
    if board is None or board.part.stack is None:
        return []
    own = board.part.stack
    thickness = own.thickness_mm.nominal
    boxes = [
        PlacedBox(
            board.line.id, board.name, "pcb", 0, 0, -thickness,
            own.length_mm, own.width_mm, thickness,
        )
    ]  # fmt: skip
    boxes += [
        PlacedBox(
            board.line.id, box.label, box.look, box.x_mm, box.y_mm, box.z_mm,
            box.dx_mm, box.dy_mm, box.dz_mm,
        )
        for box in board.part.boxes.values()
    ]  # fmt: skip
    boxes += _die_and_cooler(board, stack.cooler)
    for instance in instances:
        if instance.part.add_on is not None:
            boxes += _add_on_boxes(instance, board, assignment)
    return boxes


def _die_and_cooler(board: Instance, cooler: Instance | None) -> list[PlacedBox]:
    heat = board.part.board_heat
    if heat is None:
        return []
    side, top = heat.soc_side_mm.nominal, heat.soc_top_mm.nominal
    boxes = [
        PlacedBox(
            board.line.id, "Processor", "chip", heat.soc_x_mm - side / 2,
            heat.soc_y_mm - side / 2, 0, side, side, top,
        )
    ]  # fmt: skip
    own = None if cooler is None else cooler.part.cooler
    if cooler is not None and own is not None:
        x_mm = max(0.0, heat.soc_x_mm - own.length_mm / 2)
        boxes.append(
            PlacedBox(
                cooler.line.id, cooler.name, "fan" if own.r_fan_k_w else "sink", x_mm,
                heat.soc_y_mm - own.width_mm / 2, top + own.interface_mm.nominal,
                own.length_mm, own.width_mm, own.height_mm.nominal,
            )
        )  # fmt: skip
    return boxes


_PCB_MM = 1.6


def _add_on_boxes(add_on: Instance, board: Instance, assignment: Assignment) -> list[PlacedBox]:
    """An add-on's circuit board with its drives, at the height its maker states.

    Drives stand on the far face of a board above and on the near face of one below.
    """
    own, main = add_on.part.add_on, board.part.stack
    if own is None or main is None:
        return []
    height = own.height_mm.nominal
    if own.side == "above":
        clear = own.clear_mm.nominal if own.clear_mm else max(0.0, height - 2 * _PCB_MM)
        base, drive_base = clear, clear + _PCB_MM
    else:
        base = -main.thickness_mm.nominal - height
        drive_base = base + _PCB_MM
    boxes = [
        PlacedBox(
            add_on.line.id, add_on.name, "pcb", 0, 0, base, main.length_mm, main.width_mm, _PCB_MM
        )
    ]
    taken = [
        plug.instance for plug, socket in assignment.placed.values() if socket.instance is add_on
    ]
    for number, drive in enumerate(taken):
        body = drive.part.boxes.get("body")
        if body is not None:
            y_mm = 4.0 + number * (body.dy_mm + 3)
            boxes.append(
                PlacedBox(
                    drive.line.id, drive.name, body.look, 4, y_mm, drive_base,
                    body.dx_mm, body.dy_mm, body.dz_mm,
                )
            )  # fmt: skip
    return boxes
