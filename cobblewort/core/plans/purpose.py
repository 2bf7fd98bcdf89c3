"""Purposes and places as data: what is usually asked, and where it usually lives."""

from typing import Annotated, Self

from pydantic import Field, model_validator

from cobblewort.core.figures.stated import Stated
from cobblewort.core.parts.model import Identifier, Text
from cobblewort.core.plans.plan import (
    Flow,
    Image,
    Keeping,
    Line,
    Need,
    Phase,
    Place,
    Plan,
    ReadyMade,
    Reminder,
    Storing,
)


class Purpose(Stated):
    """What people build such a kit for: needs, day, image, flows, and what usually goes wrong.

    One without flows says in `no_flows` why it has none.
    """

    id: Identifier
    title: Text
    summary: Text
    needs: tuple[Need, ...]
    duty: tuple[Phase, ...] = Field(min_length=1)
    place: Identifier | None = None
    image: Image | None
    copies: Annotated[int, Field(ge=1, le=100)] = 1
    borrow: tuple[Identifier, ...] = ()
    cautions: tuple[Text, ...] = ()
    mistakes: tuple[Text, ...] = ()
    reminders: tuple[Reminder, ...] = ()
    ready_made: ReadyMade = ReadyMade()
    flows: tuple[Flow, ...] = ()
    no_flows: Text = ""
    storing: Storing = Storing()
    keeping: Keeping = Keeping()

    @model_validator(mode="after")
    def _says_why_without_flows(self) -> Self:
        if not self.flows and not self.no_flows:
            raise ValueError("a purpose states its flows, or says in no_flows why it has none")
        return self


class KnownPlace(Stated):
    """A place with what it usually means."""

    id: Identifier
    title: Text
    place: Place


def plan_for(purpose: Purpose, name: str, place: Place) -> Plan:
    """An empty plan that asks what the purpose asks."""
    return Plan(
        name=name,
        purpose=purpose.summary,
        purpose_id=purpose.id,
        needs=purpose.needs,
        image=purpose.image,
        ready_made=purpose.ready_made,
        place=place,
        duty=purpose.duty,
        lines=tuple(
            Line(id="borrow" if number == 1 else f"borrow-{number}", role="borrow", part=part)
            for number, part in enumerate(purpose.borrow, 1)
        ),
        copies=purpose.copies,
        reminders=purpose.reminders,
        flows=purpose.flows,
        storing=purpose.storing,
        keeping=purpose.keeping,
    )
