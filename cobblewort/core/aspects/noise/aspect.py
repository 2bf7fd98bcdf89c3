"""Noise: what is heard of it."""

from __future__ import annotations

import cobblewort.core.aspects.noise.rules  # noqa: F401  fills the registry of rules
from cobblewort.core.aspects.noise.model import of as noise_of
from cobblewort.core.aspects.noise.report import noise_report
from cobblewort.core.judging.aspect import Aspect

ASPECT = Aspect(
    id="noise",
    label="Noise",
    prefix="NOISE",
    ruler="noise",
    missing="no noise limit",
    reads=(noise_of, "place.noise_max_dba"),
    report=noise_report,
)
