"""Fit: whether it goes together."""

from __future__ import annotations

import cobblewort.core.aspects.fit.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.fit.model import fasteners_of, header_of, space_of, stack_of
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.report import fit_report
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="fit",
    label="Fit",
    prefix="FIT",
    ruler="fit",
    reads=(fit_of, stack_of, space_of, fasteners_of, header_of, "settings", "requirements"),
    report=fit_report,
)
