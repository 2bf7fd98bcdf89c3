"""Hole patterns of the catalogue, and clearance holes.

Patterns are those of the classes, by convention of the catalogue: distances between centres, the
first hole at 3.5 mm from both edges. Clearance holes by ISO 273, fine series (from memory).
"""

from __future__ import annotations

PATTERNS_MM: dict[str, tuple[tuple[float, float], ...]] = {
    "H1": ((3.5, 3.5), (61.5, 3.5), (3.5, 52.5), (61.5, 52.5)),
    "H2": ((3.5, 3.5), (61.5, 3.5), (3.5, 26.5), (61.5, 26.5)),
}
CLEARANCE_MM = {"M2": 2.2, "M2.5": 2.7, "M3": 3.2, "M4": 4.3}
"""Diameter of a hole through which a screw passes."""
