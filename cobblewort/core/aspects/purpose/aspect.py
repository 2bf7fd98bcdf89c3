"""Purpose: whether a kit does the job at all."""

from __future__ import annotations

import cobblewort.core.aspects.purpose.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.purpose.model import of as requirements_of
from cobblewort.core.aspects.purpose.report import requirement_reports
from cobblewort.core.judging.aspect import Aspect, FirstKitRole

ASPECT = Aspect(
    id="purpose",
    label="Purpose",
    prefix="NEED",
    in_first_kit=FirstKitRole(decided_by_case=True, before_case=True),
    reads=(requirements_of,),
    report=requirement_reports,
)
