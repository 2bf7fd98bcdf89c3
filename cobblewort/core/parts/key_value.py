"""The one figure by which people choose a part of its kind."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core.parts.model import Part


def telling_figure(part: Part) -> str:
    """The one figure by which people choose a part of this kind."""
    return next(_telling_figures(part), "")


def _telling_figures(part: Part) -> Iterator[str]:
    own = part.loads.get("own")
    if part.kind == "board" and own is not None:
        yield f"{own.peak.nominal:g} W peak"
    if part.source is not None:
        yield f"{part.source.set_v.nominal:g} V, {part.source.rated_a.nominal:g} A"
    if part.storage is not None:
        yield f"{part.storage.capacity_gb:g} GB"
    if part.cooler is not None:
        yield f"{part.cooler.height_mm.nominal:g} mm high"
    if part.case is not None:
        yield f"{part.case.max_above_mm.nominal:g} mm above"
    if part.cable is not None:
        yield f"{part.cable.rated_a.nominal:g} A"
    if part.add_on is not None:
        yield f"{part.add_on.height_mm.nominal:g} mm {part.add_on.side}"
    if own is not None:
        yield f"{own.peak.nominal:g} {own.unit.upper()}"
