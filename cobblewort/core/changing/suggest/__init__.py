"""All complete kits that none beats."""

from cobblewort.core.changing.suggest.criteria import CRITERIA, Criterion, CriterionId, shown
from cobblewort.core.changing.suggest.first import Choice, FirstKit, first_kit
from cobblewort.core.changing.suggest.reasons import Reason, what_stops
from cobblewort.core.changing.suggest.search import (
    Suggested,
    Suggestion,
    Wishes,
    cheapest,
    suggest,
)
from cobblewort.core.changing.suggest.standing import OwnKit, beaten, own_kit

__all__ = [
    "CRITERIA",
    "Choice",
    "Criterion",
    "CriterionId",
    "FirstKit",
    "OwnKit",
    "Reason",
    "Suggested",
    "Suggestion",
    "Wishes",
    "beaten",
    "cheapest",
    "first_kit",
    "own_kit",
    "shown",
    "suggest",
    "what_stops",
]
