"""Routes of the catalogue: the parts, their sheets, and parts of one's own."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response

from cobblewort.api import problems
from cobblewort.api.answers import answer, written
from cobblewort.api.deps import CatalogueInUse, Parts, Version, renew_part
from cobblewort.api.models import PartEdit, PartView
from cobblewort.core.errors import UnknownPartError
from cobblewort.core.parts.key_value import key_value
from cobblewort.core.parts.model import Kind, Part
from cobblewort.core.parts.readings import class_figures
from cobblewort.core.parts.search import find_parts
from cobblewort.core.parts.sheet import PartSheet, with_figures
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.store.parts import PartNotFoundError

router = APIRouter(prefix="/api/parts", responses=problems.RESPONSES, tags=["Parts"])


def _view(part: Part) -> PartView:
    return PartView(
        id=part.id,
        revision=part.revision,
        origin=part.origin,
        kind=part.kind,
        maker=part.maker,
        model=part.model,
        summary=part.summary,
        figure=key_value(part),
        price=part.price,
        currency=part.currency,
        class_figures=class_figures(part),
    )


@lru_cache(maxsize=2)
def _views(catalogue: Catalogue) -> list[PartView]:
    """The parts on offer. Every page asks for them, and a change makes another catalogue."""
    return [_view(part) for part in catalogue.parts()]


def _known(catalogue: Catalogue, part_id: str, revision: int | None = None) -> Part:
    """A part that an address names. Raises PartNotFoundError."""
    try:
        return catalogue.part(part_id, "part", revision)
    except UnknownPartError:
        raise PartNotFoundError(part_id) from None


def _sheet(part: Part, catalogue: Catalogue, status: int = 200) -> Response:
    headers = {"ETag": f'"{part.revision}"'}
    if status == 201:
        headers["Location"] = f"/api/parts/{part.id}"
    return written(catalogue.sheet(part), status, headers)


@router.get("")
def list_parts(
    catalogue: CatalogueInUse, kind: Annotated[list[Kind] | None, Query()] = None
) -> list[PartView]:
    """The catalogue, or some kinds of it."""
    return [view for view in _views(catalogue) if kind is None or view.kind in kind]


@dataclass(slots=True, frozen=True)
class BrokenPart:
    """A part that is kept and cannot be read, and why."""

    id: str
    why: str


@router.get("/broken", responses=answer(list[BrokenPart]))
def list_broken_parts(request: Request) -> Response:
    """Parts of one's own that this version cannot read; nobody is offered them."""
    broken: dict[str, str] = request.app.state.broken_parts
    return written([BrokenPart(part_id, why) for part_id, why in broken.items()])


@router.get("/{part_id}/document", response_class=Response)
def part_document(part_id: str, parts: Parts) -> Response:
    """A part as it is stored, to keep or to mend: also one that this version cannot read."""
    headers = {"Content-Disposition": 'attachment; filename="part.json"'}
    return Response(parts.text(part_id), media_type="application/json", headers=headers)


@router.get("/search")
def search_parts(
    catalogue: CatalogueInUse, text: Annotated[str, Query(max_length=200)] = ""
) -> list[str]:
    """The ids of parts by whatever is shown of them, what is named first; one typo is forgiven."""
    return [part.id for part in find_parts(catalogue.parts(), text)]


@router.get("/{part_id}")
def get_part(part_id: str, catalogue: CatalogueInUse) -> Part:
    """One part with every figure and its basis."""
    return _known(catalogue, part_id)


@router.get("/{part_id}/sheet", responses=answer(PartSheet))
def get_sheet(
    part_id: str, catalogue: CatalogueInUse, revision: Annotated[int | None, Query(ge=1)] = None
) -> Response:
    """One part figure by figure, as it is now or was at a revision."""
    return _sheet(_known(catalogue, part_id, revision), catalogue)


@router.post("/{part_id}/copy", status_code=201, responses=answer(PartSheet, 201))
def copy_part(part_id: str, request: Request, catalogue: CatalogueInUse, parts: Parts) -> Response:
    """A part of one's own that begins as a copy of this one."""
    part = _known(catalogue, part_id)
    stated = {"kind": part.kind, **catalogue.document(part)}
    name = part.model.removeprefix("Any ") if part.origin == "typical" else part.model
    summary = "" if part.origin == "typical" else part.summary
    stored = parts.create({**stated, "model": f"{name[:80]} (copy)", "summary": summary})
    return _after_write(stored.id, request, 201)


@router.patch("/{part_id}", responses=answer(PartSheet))
def edit_part(
    part_id: str,
    body: PartEdit,
    version: Version,
    request: Request,
    catalogue: CatalogueInUse,
    parts: Parts,
) -> Response:
    """Change a part of one's own; the change is its next revision."""
    before = parts.get(part_id)
    sheet = catalogue.sheet(_known(catalogue, part_id))
    figures = {
        path: None if figure is None else figure.model_dump(exclude_none=True)
        for path, figure in body.figures.items()
    }
    document = with_figures(sheet, before.document, figures)
    names = {"maker", "model", "summary", "currency"}
    document.update(body.model_dump(include=names, exclude_none=True))
    if "price" in body.model_fields_set:
        document["price"] = None if body.price is None else str(body.price)
    catalogue.complete(document, "figures")
    parts.save(part_id, version, document)
    return _after_write(part_id, request)


@router.delete("/{part_id}", status_code=204)
def bin_part(part_id: str, version: Version, request: Request, parts: Parts) -> None:
    """Offer a part of one's own no more; plans that hold it keep it."""
    parts.bin(part_id, version)
    renew_part(request.app, part_id)


@router.post("/{part_id}/restore", responses=answer(PartSheet))
def restore_part(part_id: str, request: Request, parts: Parts) -> Response:
    """Offer a part again."""
    parts.restore(part_id)
    return _after_write(part_id, request)


def _after_write(part_id: str, request: Request, status: int = 200) -> Response:
    catalogue = renew_part(request.app, part_id)
    return _sheet(_known(catalogue, part_id), catalogue, status)
