"""All complete kits that none beats."""

from cobblewort.core.changing.suggest.criteria import CRITERIA, USUAL, Criterion, CriterionId, shown
from cobblewort.core.changing.suggest.easing import Gain, gains
from cobblewort.core.changing.suggest.first import Choice, FirstKit, first_kit
from cobblewort.core.changing.suggest.reasons import Reason, what_stops
from cobblewort.core.changing.suggest.search import (
    Suggested,
    Suggestion,
    Wishes,
    bought,
    cheapest,
    suggest,
)
from cobblewort.core.changing.suggest.standing import OwnKit, also_tried, beaten, own_kit
from cobblewort.core.changing.suggest.surety import stays
from cobblewort.core.changing.suggest.why_not import why_not

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
    "also_tried",
    "beaten",
    "bought",
    "cheapest",
    "first_kit",
    "gains",
    "own_kit",
    "shown",
    "stays",
    "suggest",
    "what_stops",
    "why_not",
]
