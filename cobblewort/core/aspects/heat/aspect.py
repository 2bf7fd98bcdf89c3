"""Heat: whether it stays cool."""

from __future__ import annotations

import cobblewort.core.aspects.heat.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.heat.report import heat_report
from cobblewort.core.aspects.heat.workings import explained
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="heat",
    label="Heat",
    prefix="HEAT",
    ruler="heat",
    missing="no board",
    reads=(
        heat_of,
        "samples",
    ),
    report=heat_report,
    explained=explained,
)
