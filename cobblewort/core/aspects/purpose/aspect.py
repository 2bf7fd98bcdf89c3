"""Purpose: whether a kit does the job at all."""

from __future__ import annotations

import cobblewort.core.aspects.purpose.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.purpose.model import of as requirements_of
from cobblewort.core.aspects.purpose.report import requirement_reports
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="purpose",
    label="Purpose",
    prefix="NEED",
    reads=(requirements_of,),
    report=requirement_reports,
)
