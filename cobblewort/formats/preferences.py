"""How its owner wants the program: units, money, and how the page looks and listens."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

from pydantic import ValidationError

from cobblewort.core.figures.document_model import Currency, Stated
from cobblewort.core.plans.plan import Plan, Rate
from cobblewort.formats.display_units import DecimalSign, DisplayUnits, Length, Temperature

Theme = Literal["light", "dark"]


class Preferences(Stated):
    """How figures are shown, in what money plans begin, and how the page looks and listens.

    `price_of_a_euro` is what one costs in `currency`; with it prices in euros are put into that.
    `theme` is None where the browser decides. A change names only what is to be another.
    """

    temperature: Temperature = "C"
    length: Length = "mm"
    decimal: DecimalSign = "point"
    currency: Currency = "EUR"
    price_of_a_euro: Rate | None = None
    theme: Theme | None = None
    letter_keys: bool = True

    @property
    def units(self) -> DisplayUnits:
        """How figures are shown on what is exported."""
        return DisplayUnits(self.temperature, self.length, self.decimal)

    def begun(self, plan: Plan) -> Plan:
        """A plan that begins, in the money that is preferred."""
        rates = {} if self.price_of_a_euro is None else {"EUR": self.price_of_a_euro}
        rates.pop(self.currency, None)
        return plan.model_copy(update={"currency": self.currency, "rates": rates})


def preferences_from(document: Mapping[str, Any]) -> Preferences:
    """Preferences of what was kept; an entry that this version cannot read counts as none."""
    try:
        return Preferences.model_validate(document)
    except ValidationError as error:
        wrong = {problem["loc"][0] for problem in error.errors() if problem["loc"]}
        return Preferences.model_validate(
            {name: value for name, value in document.items() if name not in wrong}
        )
