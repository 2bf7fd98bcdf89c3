"""Cautions: what can hurt somebody."""

from __future__ import annotations

import cobblewort.core.aspects.safety.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.judging.aspect import Aspect, FirstKitRole

ASPECT = Aspect(
    id="safety",
    label="Cautions",
    prefix="SAFE",
    in_first_kit=FirstKitRole(decided_by_case=True),
)
