"""The rule of what lies in the case beside the boards."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.fit.beside import Lying, Sides, lying_of
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.remedies import another, another_supply
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, FAILS
from cobblewort.core.text import Text, say


@rule(
    "FIT-43",
    "fit",
    "What lies in the case has room beside the boards",
    why="A battery or a power supply in the case needs room that the boards leave, and is often "
    "forgotten until the lid does not close.",
    formula="each body, turned as it fits best, in the room beside the boards, over them or in "
    "another compartment",
    source="maker's drawings",
    reads=(lying_of, stack_of),
    remedies=(another("case"), another_supply),
)
def has_room(lying: Lying, stack: StackResult) -> Iterator[Observation]:
    """Each body that goes in nowhere; and all others where they have no room together."""
    case, most = stack.case, lying.largest
    if case is None:
        return
    for item, sides in lying.too_large:
        left = (
            say("beside the boards {case} has no room.", case=case.the)
            if most is None
            else say(
                "the largest free space in {case} is {sides}.", case=case.the, sides=_sides(most)
            )
        )
        yield Observation(
            item.id,
            FAILS,
            say(
                "{item} is {sides}; {left}",
                item=words.opening(item.the),
                sides=_sides(sides),
                left=left,
            ),
            (item.line.id, case.line.id),
        )
    if lying.crowded:
        yield Observation(
            "together",
            BOTHERS,
            say(
                "{items} do not fit into {case} together, as far as could be tried.",
                items=words.opening(words.listed(item.name for item, _ in lying.crowded)),
                case=case.the,
            ),
            (*dict.fromkeys(item.line.id for item, _ in lying.crowded), case.line.id),
        )


def _sides(sides: Sides) -> Text:
    return words.sides(*(words.stated_mm(side) for side in sides))
