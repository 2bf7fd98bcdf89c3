"""Cautions, shown wherever they apply. They defer to local codes and licensed practice."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import NamedTuple

from cobblewort.core import words
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.fit.openings import is_open
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.aspects.heat.model import HeatResult
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.noise.model import turns
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.kit import Items
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, INFORMS
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.plan import Reminder, WithinReachOf
from cobblewort.core.text import as_text, say

TOUCH_HOT_C = 60.0
"""Above this a bare metal part is too hot for a hand in passing: the lower end for metal at a few
seconds, ISO 13732-1 (from memory). Used to warn, never to clear a design."""


@rule(
    "SAFE-01",
    "safety",
    "The maker's cautions are known",
    why="Mains, lithium cells, fan blades and sharp edges can injure people.",
    formula="every caution of every part in the kit",
    source="common practice; local codes and licensed practice come first",
    reads=("items",),
    aside=True,
)
def part_cautions(items: Items) -> Iterator[Observation]:
    """Each caution of a part, once however many parts state it."""
    told: dict[str, tuple[str, list[str]]] = {}
    for line, part in items.by_line():
        for number, caution in enumerate(part.cautions, 1):
            told.setdefault(caution, (f"{line.id}.{number}", []))[1].append(line.id)
    for caution, (subject, lines) in told.items():
        yield Observation(subject, INFORMS, as_text(caution), tuple(lines))


@rule(
    "SAFE-02",
    "safety",
    "No hot part can be touched",
    why="A temperature that is fine for electronics can burn skin.",
    formula=f"temperature at full load <= {TOUCH_HOT_C:.0f} °C where it can be touched",
    source="ISO 13732-1, bare metal, contact of seconds (from memory; a warning only)",
    reads=(stack_of, heat_of, "place.within_reach_of"),
)
def hot_to_touch(
    stack: StackResult, heat: HeatResult, within_reach_of: WithinReachOf
) -> Iterator[Observation]:
    """A note for what exceeds the temperature where no closed case keeps hands off, once for those
    that are alike; tight where children reach it.
    """
    if not is_open(stack.case):
        return
    reachable = [(hot.item, hot.id, hot.label, hot.held_c) for hot in heat.hot_bodies]
    sink = heat.nodes.get("sink")
    if sink is not None and stack.cooler is not None:
        cooler = stack.cooler
        reachable.append((cooler, cooler.id, cooler.name, sink))
    hottest: dict[tuple[str, str], tuple[float, str, str]] = {}
    for item, subject, label, temp_c in reachable:
        peak_c, alike = float(temp_c[:, 0].max()), (item.line.id, subject.partition(".")[2])
        if peak_c > max(TOUCH_HOT_C, hottest.get(alike, (TOUCH_HOT_C, "", ""))[0]):
            hottest[alike] = peak_c, subject, label
    consequence = BOTHERS if within_reach_of == "children" else INFORMS
    for (line, _), (peak_c, subject, label) in hottest.items():
        yield Observation(
            subject,
            consequence,
            say(
                "{part} reaches {temp} and can burn. Let it cool before you touch it.",
                part=label,
                temp=words.degrees(peak_c),
            ),
            (line,),
        )


@rule(
    "SAFE-03",
    "safety",
    "A kit within reach of children is closed",
    why="Open boards, hot parts and coin cells can injure children.",
    formula="within reach of children: a closed case",
    source="common practice",
    reads=(stack_of, "place.within_reach_of"),
)
def children(stack: StackResult, within_reach_of: WithinReachOf) -> Iterator[Observation]:
    """A note where children can reach it and it is open."""
    case = stack.case
    reached = within_reach_of == "children" and is_open(case)
    if reached and stack.board is not None:
        yield Observation(
            "case",
            INFORMS,
            say(
                "The kit is open and within reach of children. Use a closed case; keep cells and "
                "hot parts out of reach."
            ),
            () if case is None else (case.line.id,),
        )


class _Around(NamedTuple):
    """What is around a part: whether a hand can reach in, and whose."""

    is_open: bool
    within_reach_of: WithinReachOf


_About = Callable[[_Around, Part], bool]
"""Whether a caution is about a part."""


def _is_blade(around: _Around, part: Part) -> bool:
    return turns(part) and part.drive is None and around.is_open


def _watches(around: _Around, part: Part) -> bool:
    return "camera" in part.offers and around.within_reach_of != "nobody"


_OF_THE_KIT: tuple[tuple[str, str, _About, str], ...] = (
    (
        "static",
        "",
        lambda _, part: bool(part.stack or part.add_on),
        "Static electricity can destroy a bare board. Touch an earthed metal object before "
        "you handle it.",
    ),
    (
        "spinning",
        "",
        lambda _, part: part.drive is not None and part.drive.spins,
        "Do not move a hard disk while it spins.",
    ),
    ("blades", "", _is_blade, "The fan blades are open. Keep fingers and cables away."),
    (
        "lithium",
        "ithium",
        lambda _, part: "battery" in part.offers,
        "Lithium cells can catch fire. Use the right charger; do not short, pierce or heat "
        "the cells, or charge them unattended.",
    ),
    (
        "vehicle",
        "use at the battery",
        lambda _, part: part.source is not None and part.source.power_source == "vehicle",
        "Vehicle wiring needs a fuse at the battery. Follow local rules.",
    ),
    ("watching", "", _watches, "The camera can record people. Tell them, and follow local law."),
)
"""Cautions by what a kit is: subject, a word by which a part's own caution says it already, the
parts that it is about, and the sentence."""


@rule(
    "SAFE-04",
    "safety",
    "The hazards of this kit are known",
    why="Static electricity, hard disks, fan blades, cells and vehicle wiring can harm people or "
    "parts.",
    formula="bare boards, hard disks, open fans, cells, vehicle power, cameras where people are: "
    "each once",
    source="common practice; local codes and licensed practice come first",
    reads=(stack_of, "items", "place.within_reach_of"),
    aside=True,
)
def kit_cautions(
    stack: StackResult, items: Items, within_reach_of: WithinReachOf
) -> Iterator[Observation]:
    """Each caution that applies and that no part of the kit states itself."""
    rows = list(items.by_line())
    stated = " ".join(c for _, part in rows for c in part.cautions)
    around = _Around(is_open(stack.case), within_reach_of)
    for subject, said_by, is_about, sentence in _OF_THE_KIT:
        lines = tuple(line.id for line, part in rows if is_about(around, part))
        if lines and not (said_by and said_by in stated):
            yield Observation(subject, INFORMS, say(sentence), lines)


@rule(
    "SAFE-05",
    "safety",
    "The reminders of the purpose are done",
    why="Kits for the same purpose have the same known pitfalls.",
    formula="each reminder of the plan whose subject the kit has, until it is marked as done",
    source="common practice",
    reads=("reminders", "connected"),
)
def reminders(reminders: Sequence[Reminder], connected: Items) -> Iterator[Observation]:
    """The reminders of the plan, each once; those about a function only where the kit has it."""
    given = {function for _, part in connected.by_line() for function in part.offers}
    for reminder in reminders:
        if reminder.about is None or reminder.about in given:
            yield Observation(reminder.id, INFORMS, as_text(reminder.text))
