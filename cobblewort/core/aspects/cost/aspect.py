"""Cost: what it costs."""

from __future__ import annotations

import cobblewort.core.aspects.cost.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.cost.report import cost_report
from cobblewort.core.aspects.cost.workings import explained
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="cost",
    label="Cost",
    prefix="COST",
    ruler="cost",
    missing="no budget",
    reads=(cost_of, "currency", "copies", "budget"),
    report=cost_report,
    explained=explained,
)
