"""Purposes and places as data: what is usually asked, and where it usually lives."""

import re
from collections.abc import Collection, Iterable, Mapping
from typing import Annotated, NamedTuple, Self

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

    `text` is what the requirement is called then, with `{amount}` in it, and `summary` what the
    purpose is, where that goes by the amount. Of `transfers` that move so much more or less it says
    what they are called; where that is empty they keep their name.
    """

    text: Text
    summary: Text | None = None
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
    asked = _Asked(form.summary, (*purpose.requirements, *form.besides), purpose.transfers)
    return _with(purpose, _asking(asked, purpose, form.amounts))


def asking(
    purpose: Purpose, amounts: Mapping[str, float], removed: Collection[str] = ()
) -> Purpose:
    """The purpose with other amounts in its requirements, and without some of them: their words,
    its summary and its transfers follow.

    Parameters
    ----------
    amounts : mapping of str to float
        By requirement, in its unit. What a requirement without an amount is given changes nothing.
    removed : collection of str
        Requirements that nobody has.
    """
    asked = _Asked(purpose.summary, purpose.requirements, purpose.transfers)
    return _with(purpose, _asking(asked, purpose, amounts, removed))


def asking_anew(
    plan: Plan, purpose: Purpose | None, requirement: str, amount: float | None, text: str = ""
) -> Plan:
    """A plan with another amount in a requirement, or without it: as far as its words, the summary
    and transfers are those of the purpose it began with, they follow.

    Parameters
    ----------
    purpose : Purpose, optional
        What the plan began with.
    amount : float, optional
        None removes the requirement.
    text : str
        What the requirement is called then, where somebody says so.

    Raises
    ------
    InputError
        If the plan has no such requirement, or that has no amount.
    """
    entry = next((one for one in plan.requirements if one.id == requirement), None)
    if entry is None:
        raise InputError([("requirement", "The plan has no such requirement any more. Reload.")])
    if amount is not None and _amount_of(entry) is None:
        raise InputError([("amount", f"“{entry.text}” has no amount.")])
    asked = _Asked(plan.purpose, plan.requirements, plan.transfers)
    changed = {} if amount is None else {requirement: amount}
    removed = (requirement,) if amount is None else ()
    found = _asking(asked, purpose, changed, removed)
    named = tuple(
        one.model_copy(update={"text": text}) if text and one.id == requirement else one
        for one in found.requirements
    )
    fields = {"purpose": found.summary, "requirements": named, "transfers": found.transfers}
    return plan.model_copy(update=fields)


class _Asked(NamedTuple):
    """What is asked, of a purpose or in a plan."""

    summary: str
    requirements: tuple[Requirement, ...]
    transfers: tuple[Transfer, ...]


def _with(purpose: Purpose, asked: _Asked) -> Purpose:
    return purpose.model_copy(update=asked._asdict())


def _amount_of(requirement: Requirement) -> float | None:
    return requirement.at_least if requirement.at_most is None else requirement.at_most


def _asking(
    asked: _Asked,
    purpose: Purpose | None,
    amounts: Mapping[str, float],
    removed: Collection[str] = (),
) -> _Asked:
    """The same with other amounts and without some requirements."""
    words = _Words(purpose)
    summary, requirements, transfers = asked.summary, [], list(asked.transfers)
    for requirement in asked.requirements:
        usual, wanted = _amount_of(requirement), amounts.get(requirement.id)
        if requirement.id in removed:
            summary = words.summary_without(requirement.id, summary, usual)
            continue
        if wanted is None or usual is None or wanted == usual:
            requirements.append(requirement)
            continue
        summary = words.summary(requirement.id, summary, usual, wanted)
        transfers = [words.transfer(one, requirement.id, usual, wanted) for one in transfers]
        field = "at_least" if requirement.at_most is None else "at_most"
        text = words.requirement(requirement, usual, wanted)
        requirements.append(requirement.model_copy(update={field: wanted, "text": text}))
    kept = transfers_asked(transfers, asked.requirements, requirements)
    return _Asked(summary, tuple(requirements), kept)


class _Words:
    """What is called otherwise when amounts change: the words of a purpose, never one's own."""

    def __init__(self, purpose: Purpose | None) -> None:
        self._amounts = {} if purpose is None else purpose.amounts
        self._forms = () if purpose is None else purpose.forms
        self._title = "" if purpose is None else purpose.title
        self._summary = "" if purpose is None else purpose.summary
        self._shipped: set[tuple[type, str, str]] = set()
        if purpose is not None:
            besides = [one for form in purpose.forms for one in form.besides]
            for asked in (*purpose.requirements, *besides):
                self._shipped.add((Requirement, asked.id, asked.text))
            for transfer in purpose.transfers:
                self._shipped.add((Transfer, transfer.id, transfer.text))

    def requirement(self, requirement: Requirement, usual: float, wanted: float) -> str:
        """What it is called with the amount that is wanted."""
        told = self._amounts.get(requirement.id)
        return self._called(requirement, told.text if told else None, usual, wanted)

    def transfer(
        self, transfer: Transfer, requirement: str, usual: float, wanted: float
    ) -> Transfer:
        """A transfer of so many times as much; itself where it does not go by the amount."""
        told = self._amounts.get(requirement)
        if told is None or transfer.id not in told.transfers:
            return transfer
        times = wanted / usual
        if transfer.amount_gb is not None:
            fields: dict[str, object] = {"amount_gb": float(f"{transfer.amount_gb * times:.2g}")}
        else:
            fields = {"at_once": max(1, round(transfer.at_once * times))}
        if template := told.transfers[transfer.id]:
            fields["text"] = self._called(transfer, template, usual, wanted)
        return transfer.model_copy(update=fields)

    def summary(self, requirement: str, summary: str, usual: float, wanted: float) -> str:
        """What the purpose is with the amount that is wanted."""
        told = self._amounts.get(requirement)
        if told is None or told.summary is None or not self._speaks_of(told, summary, usual):
            return summary
        return told.summary.format(amount=f"{wanted:g}")

    def summary_without(self, requirement: str, summary: str, usual: float | None) -> str:
        """What the purpose is without a requirement that its summary speaks of."""
        for form in self._forms:
            if summary == form.summary and any(one.id == requirement for one in form.besides):
                return self._summary
        told = self._amounts.get(requirement)
        spoken = told is not None and self._speaks_of(told, summary, usual)
        return self._title if spoken else summary

    def _speaks_of(self, told: AskedAmount, summary: str, usual: float | None) -> bool:
        """Whether it is a summary of the purpose, and one that goes by an amount."""
        if told.summary is None:
            return False
        as_usual = "" if usual is None else told.summary.format(amount=f"{usual:g}")
        return summary in (self._summary, as_usual, *(form.summary for form in self._forms))

    def _called(
        self, thing: Requirement | Transfer, template: str | None, usual: float, wanted: float
    ) -> str:
        if template is not None:
            as_usual = template.format(amount=f"{usual:g}")
            if thing.text == as_usual or (type(thing), thing.id, thing.text) in self._shipped:
                return template.format(amount=f"{wanted:g}")
        # In words of one's own only the figure follows, where it is the only one like it.
        figure = rf"(?<![\w.,]){re.escape(f'{usual:g}')}(?![\w]|[.,]\d)"
        changed, count = re.subn(figure, f"{wanted:g}", thing.text)
        return changed if count == 1 else thing.text


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
