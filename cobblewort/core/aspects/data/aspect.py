"""Data: how fast it moves."""

from __future__ import annotations

import cobblewort.core.aspects.data.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.data.model import array_of
from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.aspects.data.report import data_report
from cobblewort.core.aspects.data.workings import explained
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="data",
    label="Data",
    prefix="DATA",
    ruler="data",
    missing="no transfers",
    reads=(data_of, array_of, "storage_use", "currency", "rates"),
    report=data_report,
    explained=explained,
)
