"""The one value by which people choose a part of its kind."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.parts.model import Part
from cobblewort.core.text import EMPTY, Text, as_text, joined, say


def key_value(part: Part) -> Text:
    """The one value by which people choose a part of this kind."""
    return next(_key_values(part), EMPTY)


def short_name(part: Part) -> str:
    """A part where space is small, by what it is: `Card reader (Cattlegrid)`.

    A typical part is named by its kind anyway; so is what stands below its own role.
    """
    noun = part.summary.partition(",")[0]
    if part.origin == "typical" or part.kind in _KNOWN_BY_ROLE or not noun:
        return part.model
    return f"{noun} ({part.model})"


_KNOWN_BY_ROLE = frozenset({"board", "power_supply", "case", "cooler"})


def _key_values(part: Part) -> Iterator[Text]:
    own = part.loads.get("own")
    if part.kind == "board" and own is not None:
        yield say("{power} peak", power=words.counted(own.peak.nominal, "W"))
    if part.source is not None:
        volts = words.counted(part.source.set_v.nominal, "V")
        yield joined([volts, words.counted(part.source.rated_a.nominal, "A")], ", ")
    if part.storage is not None:
        yield as_text(words.size(part.storage.capacity_gb))
    if part.cooler is not None:
        yield say("{height} high", height=words.stated_mm(part.cooler.height_mm.nominal))
    if part.case is not None:
        room = words.stated_mm(part.case.max_above_mm.nominal)
        yield say("{height} above the board", height=room)
    if part.cable is not None:
        yield as_text(words.counted(part.cable.rated_a.nominal, "A"))
    if part.add_on is not None:
        height = words.stated_mm(part.add_on.height_mm.nominal)
        yield say("{height} {side}", height=height, side=part.add_on.side)
    if own is not None:
        yield as_text(words.counted(own.peak.nominal, own.unit.upper()))
