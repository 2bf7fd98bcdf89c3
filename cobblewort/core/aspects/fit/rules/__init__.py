"""Rules of fit, one module a subject."""

from cobblewort.core.aspects.fit.rules import connections, header, openings, reach, stack

__all__ = ["connections", "header", "openings", "reach", "stack"]
