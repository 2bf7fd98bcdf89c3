"""Purposes and places as data: what is usually asked, and where it usually lives."""

from collections.abc import Collection, Iterable, Mapping
from typing import Annotated, Self

from pydantic import Field, model_validator

from cobblewort.core.errors import InputError
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


class AskedAmount(Stated):
    """How a purpose says that it asks for more or less than usual of one requirement.

    `text` is what the requirement is called then, with `{amount}` in it. Of `transfers` that move
    so much more or less it says what they are called; where that is empty they keep their name.
    """

    text: Text
    transfers: dict[Identifier, str] = Field(default_factory=dict)


class PurposeForm(Stated):
    """A smaller or larger kind of a purpose: amounts that differ, and what is asked besides."""

    id: Identifier
    title: Text
    summary: Text
    amounts: dict[Identifier, Annotated[float, Field(gt=0)]] = Field(default_factory=dict)
    besides: tuple[Requirement, ...] = ()


class Purpose(Stated):
    """What people build such a kit for: needs, day, image, flows, and what usually goes wrong.

    One without flows says in `no_transfers` why it has none. `amounts` are by the requirement that
    asks for them. Where it has `forms`, the first is what it is without a choice.
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
    amounts: dict[Identifier, AskedAmount] = Field(default_factory=dict)
    forms: tuple[PurposeForm, ...] = ()

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


def in_form(purpose: Purpose, form_id: str) -> Purpose:
    """The purpose in one of its forms.

    Raises
    ------
    InputError
        If it has no such form.
    """
    form = next((form for form in purpose.forms if form.id == form_id), None)
    if form is None:
        known = ", ".join(form.id for form in purpose.forms) or "none"
        raise InputError([("form", f"“{purpose.title}” has no form '{form_id}' (it has: {known})")])
    requirements = (*purpose.requirements, *form.besides)
    whole = purpose.model_copy(update={"requirements": requirements, "summary": form.summary})
    return asking(whole, form.amounts)


def asking(
    purpose: Purpose, amounts: Mapping[str, float], removed: Collection[str] = ()
) -> Purpose:
    """The purpose with other amounts in its requirements, and without some of them: their words and
    transfers follow.

    Parameters
    ----------
    amounts : mapping of str to float
        By requirement, in its unit. What a requirement without an amount is given changes nothing.
    removed : collection of str
        Requirements that nobody has.
    """
    requirements, transfers = [], list(purpose.transfers)
    for requirement in purpose.requirements:
        if requirement.id in removed:
            continue
        wanted = amounts.get(requirement.id)
        usual = requirement.at_least if requirement.at_most is None else requirement.at_most
        if wanted is None or usual is None or wanted == usual:
            requirements.append(requirement)
            continue
        told = purpose.amounts.get(requirement.id)
        of_it = {} if told is None else told.transfers
        transfers = [_scaled(one, wanted / usual, wanted, of_it.get(one.id)) for one in transfers]
        field = "at_least" if requirement.at_most is None else "at_most"
        text = requirement.text if told is None else told.text.format(amount=f"{wanted:g}")
        requirements.append(requirement.model_copy(update={field: wanted, "text": text}))
    kept = transfers_asked(transfers, purpose.requirements, requirements)
    return purpose.model_copy(update={"requirements": tuple(requirements), "transfers": kept})


def _scaled(transfer: Transfer, times: float, amount: float, text: str | None) -> Transfer:
    """A transfer of so many times as much; itself where it does not go by the amount."""
    if text is None:
        return transfer
    called = text.format(amount=f"{amount:g}") or transfer.text
    if transfer.amount_gb is not None:
        fields: dict[str, object] = {"amount_gb": float(f"{transfer.amount_gb * times:.2g}")}
    else:
        fields = {"at_once": max(1, round(transfer.at_once * times))}
    return transfer.model_copy(update={**fields, "text": called})


def transfers_asked(
    transfers: Iterable[Transfer], before: Iterable[Requirement], after: Iterable[Requirement]
) -> tuple[Transfer, ...]:
    """The transfers but those from or to what nobody asks for any more, such as a camera."""
    wanted = {requirement.function for requirement in after}
    gone = {requirement.function for requirement in before} - wanted
    return tuple(one for one in transfers if not gone & {one.source, one.target})


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
