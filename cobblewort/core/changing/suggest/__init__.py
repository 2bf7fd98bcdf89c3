"""All complete kits that none beats."""

from cobblewort.core.changing.suggest.criteria import CRITERIA, Criterion, CriterionId, shown
from cobblewort.core.changing.suggest.search import Suggested, Suggestion, Wishes, suggest

__all__ = [
    "CRITERIA",
    "Criterion",
    "CriterionId",
    "Suggested",
    "Suggestion",
    "Wishes",
    "shown",
    "suggest",
]
