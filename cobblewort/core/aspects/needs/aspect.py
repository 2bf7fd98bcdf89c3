"""Purpose: whether a kit does the job at all."""

from __future__ import annotations

import cobblewort.core.aspects.needs.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.needs.model import of as needs_of
from cobblewort.core.aspects.needs.report import need_reports
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="needs",
    label="Purpose",
    prefix="NEED",
    reads=(needs_of,),
    report=need_reports,
)
