"""Life: for how long, and what is kept."""

from __future__ import annotations

import cobblewort.core.aspects.life.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.life.keeping import backup_of, carried_of, filling_of
from cobblewort.core.aspects.life.report import life_report
from cobblewort.core.aspects.life.wear import worn_of, written_of
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="life",
    label="Life",
    prefix="LIFE",
    ruler="life",
    missing="nothing that wears",
    reads=(
        written_of, worn_of, filling_of, backup_of, carried_of, "keeping", "storing", "needs",
        "place.dust", "place.wet", "place.network", "catalogue", "image", "currency", "rates",
        "pieces", "flows",
    ),
    report=life_report,
)  # fmt: skip
