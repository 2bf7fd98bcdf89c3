"""The rule of cables both of whose ends have a place in the case: whether they are long enough."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment, PlugRef, SocketRef
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.model import stack_of, standing_of
from cobblewort.core.aspects.fit.placement import Standing
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.working import Sum, computed_term, standard_term
from cobblewort.core.text import Text, say

_BENDS_MM = 50.0
"""For the bends of a cable, and so that it is not pulled at: common practice."""


@rule(
    "FIT-42",
    "fit",
    "A front-panel cable reaches the front",
    why="A cable that is too short is noticed when everything else is screwed down.",
    formula="straight distance from the port to the opposite wall, plus what the plug protrudes, "
    "plus 50 mm for the bends <= length of the cable",
    source="maker's drawings; 50 mm for the bends: common practice",
    reads=(fit_of, stack_of, standing_of),
    remedies=(another("cable"), another("case")),
)
def front_cables(fit: Assignment, stack: StackResult, standing: Standing | None) -> Iterator[Check]:
    """Cables from a port of a board to a hole in the wall on its other side, where a front is."""
    case = stack.case
    if case is None or standing is None:
        return
    for plug, socket in fit.placed.values():
        if plug.item.part.panel_hole is None or plug.plug.reach_m is None:
            continue
        apart_mm = _to_opposite_wall_mm(socket, standing, case)
        if apart_mm is not None:
            yield _reaching(plug, socket, case, plug.plug.reach_m * 1000, apart_mm)


def _to_opposite_wall_mm(socket: SocketRef, standing: Standing, case: Item) -> float | None:
    """From a port over its board to the wall behind; None where its place is not known. [mm]"""
    face, at, shell = socket.socket.face, dict(standing.boards).get(socket.item), case.part.case
    if face is None or at is None or shell is None:
        return None
    return {
        "left": shell.inner_length_mm - at.x_mm,
        "right": at.x_mm + at.length_mm,
        "lower": shell.inner_width_mm - at.y_mm,
        "upper": at.y_mm + at.width_mm,
    }[face.edge]


def _reaching(
    plug: PlugRef, socket: SocketRef, case: Item, length_mm: float, apart_mm: float
) -> Check:
    cable = plug.item
    plug_mm = 0.0 if plug.plug.body is None else plug.plug.body.length_mm

    def sentence(margin: Margin) -> Text:
        shown, limit = words.apart(words.mm, margin.value, margin.limit)
        return say(
            "{cable} is {shown} long; from the {port} of {board} to the opposite wall of {case} "
            "it needs {limit}.",
            cable=words.opening(cable.the),
            shown=shown,
            limit=limit,
            port=words.within(socket.socket.label or socket.name),
            board=socket.item.name,
            case=case.the,
        )

    def working(_: int) -> Sum:
        return Sum(
            "length less the distance, the plug and the bends",
            "L - (l_wall + l_plug + l_bends)",
            [
                computed_term("L", "length of the cable", "mm", length_mm, None),
                computed_term("l_wall", "port to opposite wall", "mm", apart_mm, None),
                computed_term("l_plug", "what its plug protrudes", "mm", plug_mm, None),
                standard_term("l_bends", "for the bends", "mm", _BENDS_MM, "common practice"),
            ],
        )

    return Check(
        cable.id,
        f"Length of {cable.name}",
        "mm",
        "min",
        length_mm,
        apart_mm + plug_mm + _BENDS_MM,
        sentence,
        (cable.line.id, case.line.id),
        working=working,
    )
