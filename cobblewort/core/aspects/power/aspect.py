"""Supply: whether it stays powered."""

from __future__ import annotations

import cobblewort.core.aspects.power.rules
import cobblewort.core.aspects.power.rules_of_feeds
import cobblewort.core.aspects.power.rules_of_place  # noqa: F401
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.aspects.power.report import power_report
from cobblewort.core.aspects.power.workings import explained
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="power",
    label="Power",
    prefix="PWR",
    ruler="power",
    missing="no power supply",
    reads=(power_of,),
    report=power_report,
    explained=explained,
)
