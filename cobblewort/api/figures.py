"""The route that reads a figure as somebody wrote it, with a unit of their own."""

from dataclasses import dataclass
from typing import Annotated

from fastapi import APIRouter, Query

from cobblewort.api import problems

router = APIRouter(prefix="/api", responses=problems.RESPONSES, tags=["Units"])


@dataclass(slots=True)
class ReadFigure:
    """A figure in the unit of its field."""

    value: float


@router.get("/read-figure")
def read(
    text: Annotated[str, Query(max_length=100)], unit: Annotated[str, Query(max_length=20)]
) -> ReadFigure:
    """Bring what was typed, such as `500 mA`, to the unit of a field."""
    from cobblewort.formats.units import read_figure

    return ReadFigure(read_figure(text, unit))
