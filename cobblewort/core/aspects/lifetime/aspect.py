"""Life: for how long, and what is kept."""

from __future__ import annotations

import cobblewort.core.aspects.lifetime.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.lifetime.maintenance import maintenance_of
from cobblewort.core.aspects.lifetime.report import _kept_of, cards_of, lifetime_report
from cobblewort.core.aspects.lifetime.retention import filling_of
from cobblewort.core.aspects.lifetime.wear import worn_of, written_of
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="lifetime",
    label="Lifetime",
    prefix="LIFE",
    ruler="lifetime",
    missing="no part with lifetime data",
    reads=(
        written_of,
        worn_of,
        filling_of,
        _kept_of,
        maintenance_of,
        cards_of,
        "retention",
        "storage_use",
    ),
    report=lifetime_report,
)
