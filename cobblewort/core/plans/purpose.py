"""Purposes and places as data: what is usually asked, and where it usually lives."""

from typing import Annotated

from pydantic import Field

from cobblewort.core.figures.stated import Stated
from cobblewort.core.parts.model import Identifier, Text
from cobblewort.core.plans.plan import Image, Line, Need, Phase, Place, Plan, ReadyMade, Reminder


class Purpose(Stated):
    """What people build such a kit for: needs, day, image, and what usually goes wrong."""

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
    )
