"""Fit: whether it goes together."""

from __future__ import annotations

import cobblewort.core.aspects.fit.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.fit.bays import bays_of
from cobblewort.core.aspects.fit.model import (
    blocks_of,
    fasteners_of,
    header_of,
    space_of,
    stack_of,
    standing_of,
)
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.report import fit_report
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="fit",
    label="Fit",
    prefix="FIT",
    ruler="fit",
    reads=(
        stack_of,
        fit_of,
        blocks_of,
        space_of,
        fasteners_of,
        standing_of,
        bays_of,
        header_of,
        "settings",
    ),
    report=fit_report,
)
