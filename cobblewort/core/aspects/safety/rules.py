"""Cautions, shown wherever they apply. They defer to local codes and licensed practice."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.fit.openings import is_open
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.judging.findings import Remark
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import rule

TOUCH_HOT_C = 60.0
"""Above this a bare metal part is too hot for a hand in passing: the lower end for metal at a few
seconds, ISO 13732-1 (from memory). Used to warn, never to clear a design."""


@rule(
    "SAFE-01", "safety", "What the maker cautions against",
    why="Mains, lithium cells, moving blades and sharp shells hurt people.",
    formula="every caution of every part in the kit",
    source="common practice; local codes and licensed practice come first",
    reads=("pieces",),
)  # fmt: skip
def part_cautions(kit: Kit) -> Iterator[Remark]:
    """The cautions of each part, once a line."""
    for line, part in kit.pieces.by_line():
        for number, caution in enumerate(part.cautions, 1):
            yield Remark(f"{line.id}.{number}", "note", caution, (line.id,))


@rule(
    "SAFE-02", "safety", "What burns a finger",
    why="A sink or controller that is fine for the electronics is not always fine for a hand.",
    formula=f"temperature at full load <= {TOUCH_HOT_C:.0f} °C where it can be touched",
    source="ISO 13732-1, bare metal, contact of seconds (from memory; a warning only)",
    reads=(stack_of, heat_of),
)  # fmt: skip
def hot_to_touch(kit: Kit) -> Iterator[Remark]:
    """A note for what passes the temperature where no closed case keeps hands off."""
    stack, heat = stack_of(kit), heat_of(kit)
    if not is_open(stack.case):
        return
    reachable = [(hot.piece, hot.id, hot.label, hot.held_c) for hot in heat.hot_bodies]
    sink = heat.nodes.get("sink")
    if sink is not None and stack.cooler is not None:
        cooler = stack.cooler
        reachable.append((cooler, cooler.id, cooler.name, sink))
    for piece, subject, label, temp_c in reachable:
        hottest = float(temp_c[:, 0].max())
        if hottest > TOUCH_HOT_C:
            yield Remark(
                subject, "note",
                f"{label} comes to {words.degrees(hottest)} and stands open: hot to touch. Let it "
                "cool before you reach in.",
                (piece.line.id,),
            )  # fmt: skip


@rule(
    "SAFE-03", "safety", "Children reach it",
    why="Open boards, hot sinks and coin cells are nothing for small hands.",
    formula="where children can touch it: a case that is closed",
    source="common practice",
    reads=(stack_of, "place.touched_by"),
)  # fmt: skip
def children(kit: Kit) -> Iterator[Remark]:
    """A note where children can lay hands on it and it stands open."""
    stack = stack_of(kit)
    case = stack.case
    reached = kit.plan.place.touched_by == "children" and is_open(case)
    if reached and stack.board is not None:
        yield Remark(
            "case", "note",
            "Children can reach it and it stands open: a closed case, no cells within reach, and "
            "nothing hot to touch.",
            () if case is None else (case.line.id,),
        )  # fmt: skip
