"""Cautions: what can hurt somebody."""

from __future__ import annotations

import cobblewort.core.aspects.safety.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="safety",
    label="Cautions",
    prefix="SAFE",
)
