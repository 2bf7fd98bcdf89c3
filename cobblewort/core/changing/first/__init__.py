"""The first kit of a plan."""

from cobblewort.core.changing.first.search import Choice, FirstKit, Reason, first_kit

__all__ = ["Choice", "FirstKit", "Reason", "first_kit"]
