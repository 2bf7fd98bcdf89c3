"""Purposes and places as data: what is usually asked, and where it usually lives."""

from typing import Annotated, Self

from pydantic import Field, model_validator

from cobblewort.core.figures.document_model import Stated
from cobblewort.core.parts.model import Identifier, Text
from cobblewort.core.plans.plan import (
    Image,
    Line,
    Phase,
    Place,
    Plan,
    ReadyMade,
    Reminder,
    Requirement,
    Retention,
    StorageUse,
    Transfer,
)


class Purpose(Stated):
    """What people build such a kit for: needs, day, image, flows, and what usually goes wrong.

    One without flows says in `no_transfers` why it has none.
    """

    id: Identifier
    title: Text
    summary: Text
    requirements: tuple[Requirement, ...]
    schedule: tuple[Phase, ...] = Field(min_length=1)
    place: Identifier | None = None
    image: Image | None
    copies: Annotated[int, Field(ge=1, le=100)] = 1
    set_up: tuple[Identifier, ...] = ()
    cautions: tuple[Text, ...] = ()
    mistakes: tuple[Text, ...] = ()
    reminders: tuple[Reminder, ...] = ()
    ready_made: ReadyMade = ReadyMade()
    transfers: tuple[Transfer, ...] = ()
    no_transfers: Text = ""
    storage_use: StorageUse = StorageUse()
    retention: Retention = Retention()

    @model_validator(mode="after")
    def _says_why_without_transfers(self) -> Self:
        if not self.transfers and not self.no_transfers:
            raise ValueError(
                "a purpose states its transfers, or says in no_transfers why it has none"
            )
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
        requirements=purpose.requirements,
        image=purpose.image,
        ready_made=purpose.ready_made,
        place=place,
        schedule=purpose.schedule,
        lines=tuple(
            Line(id="set_up" if number == 1 else f"set_up-{number}", role="set_up", part=part)
            for number, part in enumerate(purpose.set_up, 1)
        ),
        copies=purpose.copies,
        reminders=purpose.reminders,
        transfers=purpose.transfers,
        storage_use=purpose.storage_use,
        retention=purpose.retention,
    )
