"""Data: how fast it moves."""

from __future__ import annotations

import cobblewort.core.aspects.data.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.data.model import array_of
from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.aspects.data.report import data_report
from cobblewort.core.aspects.data.route import router_of
from cobblewort.core.aspects.data.workings import explained
from cobblewort.core.judging.aspect import Aspect
from cobblewort.core.judging.prices import prices_of

ASPECT = Aspect(
    id="data",
    label="Data",
    prefix="DATA",
    ruler="data",
    missing="no rate required",
    reads=(data_of, array_of, router_of, prices_of, "storage_use"),
    report=data_report,
    explained=explained,
)
