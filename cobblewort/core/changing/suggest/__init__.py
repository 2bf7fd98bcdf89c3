"""All complete kits that none beats."""

from cobblewort.core.changing.suggest.criteria import CRITERIA, Criterion, CriterionId, shown
from cobblewort.core.changing.suggest.search import Suggested, Suggestion, Wishes, suggest
from cobblewort.core.changing.suggest.standing import OwnKit, beaten, own_kit

__all__ = [
    "CRITERIA",
    "Criterion",
    "CriterionId",
    "OwnKit",
    "Suggested",
    "Suggestion",
    "Wishes",
    "beaten",
    "own_kit",
    "shown",
    "suggest",
]
