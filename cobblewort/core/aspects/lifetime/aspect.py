"""Life: for how long, and what is kept."""

from __future__ import annotations

import cobblewort.core.aspects.lifetime.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.lifetime.report import lifetime_report
from cobblewort.core.aspects.lifetime.retention import backup_of, carried_of, filling_of
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
        backup_of,
        carried_of,
        "retention",
        "storage_use",
        "requirements",
        "place.dust",
        "place.wet",
        "place.network",
        "catalogue",
        "image",
        "currency",
        "rates",
        "items",
        "transfers",
    ),
    report=lifetime_report,
)
