"""Rules of fit, one module a subject."""

from cobblewort.core.aspects.fit.rules import (
    beside,
    cables,
    case,
    completeness,
    connections,
    header,
    openings,
    reach,
    stack,
)

__all__ = [
    "beside",
    "cables",
    "case",
    "completeness",
    "connections",
    "header",
    "openings",
    "reach",
    "stack",
]
