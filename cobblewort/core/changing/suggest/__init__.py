"""All complete kits that none beats."""

from cobblewort.core.changing.suggest.criteria import CRITERIA, USUAL, Criterion, CriterionId, shown
from cobblewort.core.changing.suggest.easing import Gain, gains
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
    "USUAL",
    "Choice",
    "Criterion",
    "CriterionId",
    "FirstKit",
    "Gain",
    "OwnKit",
    "Reason",
    "Suggested",
    "Suggestion",
    "Wishes",
    "beaten",
    "cheapest",
    "first_kit",
    "gains",
    "own_kit",
    "shown",
    "suggest",
    "what_stops",
]
