"""Rules of fit, one module a subject."""

from cobblewort.core.aspects.fit.rules import (
    case,
    completeness,
    connections,
    header,
    openings,
    reach,
    stack,
)

__all__ = ["case", "completeness", "connections", "header", "openings", "reach", "stack"]
