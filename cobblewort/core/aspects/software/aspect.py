"""Software: whether image and board go together; counted with fit."""

from __future__ import annotations

import cobblewort.core.aspects.software.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="software",
    label="Software",
    prefix="SOFT",
    ruler="fit",
)
