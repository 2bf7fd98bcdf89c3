"""Cautions, shown wherever they apply. They defer to local codes and licensed practice."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.findings import Remark
from cobblewort.core.kit import Kit
from cobblewort.core.rules import rule

TOUCH_HOT_C = 60.0
"""Above this a bare metal part is too hot for a hand in passing: the lower end for metal at a few
seconds, ISO 13732-1 (from memory). Used to warn, never to clear a design."""


@rule(
    "SAFE-01", "safety", "What the maker cautions against",
    why="Mains, lithium cells, moving blades and sharp shells hurt people.",
    formula="every caution of every part in the kit",
    source="common practice; local codes and licensed practice come first",
)  # fmt: skip
def part_cautions(kit: Kit) -> Iterator[Remark]:
    """The cautions of each part, once a line."""
    for line in kit.plan.lines:
        for number, caution in enumerate(kit.catalogue.part(line.part).cautions, 1):
            yield Remark(f"{line.id}.{number}", "note", caution, (line.id,))


@rule(
    "SAFE-02", "safety", "A heat sink that burns",
    why="A sink that is fine for the processor is not always fine for a finger.",
    formula=f"sink temperature at full load <= {TOUCH_HOT_C:.0f} °C where it can be touched",
    source="ISO 13732-1, bare metal, contact of seconds (from memory; a warning only)",
)  # fmt: skip
def hot_sink(kit: Kit) -> Iterator[Remark]:
    """A note where the sink passes the temperature and no closed case keeps hands off."""
    sink = kit.heat.nodes.get("sink")
    case = kit.stack.case
    reachable = case is None or case.part.case is None or case.part.case.open
    if sink is None or kit.stack.cooler is None or not reachable:
        return
    hottest = float(sink[:, 0].max())
    if hottest > TOUCH_HOT_C:
        yield Remark(
            kit.stack.cooler.id, "note",
            f"{kit.stack.cooler.name} comes to {words.degrees(hottest)} and stands open: hot to "
            "touch. Let it cool before you reach in.",
            (kit.stack.cooler.line.id,),
        )  # fmt: skip
