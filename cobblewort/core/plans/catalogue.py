"""Looks parts up, and fills what a part does not state from the figures of its class."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from pydantic import ValidationError

from cobblewort.core.errors import InputError, UnknownPartError
from cobblewort.core.parts.compiled import CompiledPart, Moved
from cobblewort.core.parts.model import PART, Part
from cobblewort.core.parts.sheet import Document, PartSheet, part_sheet
from cobblewort.core.plans.plan import Line, Plan


def merge_patch(target: Any, patch: Any) -> Any:
    """Apply a JSON merge patch: objects merge, null removes, anything else replaces.

    References
    ----------
    .. [1] RFC 7396 (2014), section 2.
    """
    if not isinstance(patch, Mapping):
        return patch
    merged = dict(target) if isinstance(target, Mapping) else {}
    for key, value in patch.items():
        if value is None:
            merged.pop(key, None)
        else:
            merged[key] = merge_patch(merged.get(key), value)
    return merged


class Catalogue:
    """Parts by id, with the class documents they are completed from. Not changed once made.

    `older` holds the documents of earlier revisions by id and number, read when a plan asks for
    them. `away` names parts that plans may still hold and that nobody is offered any more.
    Compiled parts are kept per number of samples, so that evaluating twice costs their drawing
    once.
    """

    def __init__(
        self,
        parts: Mapping[str, Part],
        classes: Mapping[str, Document],
        older: Mapping[tuple[str, int], Document] | None = None,
        away: Iterable[str] = (),
    ) -> None:
        self._parts = dict(parts)
        self._documents: dict[str, Document] = {}
        self._classes = classes
        self._older = dict(older or {})
        self._away = frozenset(away)
        self._earlier: dict[tuple[str, int], Part] = {}
        self._compiled: dict[tuple[str, int, int], CompiledPart] = {}
        self._on_offer: dict[frozenset[str] | None, list[Part]] = {}

    @classmethod
    def from_documents(
        cls,
        parts: Iterable[Document],
        classes: Mapping[str, Document],
        older: Mapping[tuple[str, int], Document] | None = None,
        away: Iterable[str] = (),
    ) -> Catalogue:
        """Read part documents, completing each from its class.

        Raises
        ------
        InputError
            With every problem of every part and its place.
        """
        empty = cls({}, classes, older, away)
        return empty.extended(parts)

    def extended(self, documents: Iterable[Document], place: str = "parts") -> Catalogue:
        """A catalogue with these parts besides; a part of the same id replaces the old one."""
        parts, stated = dict(self._parts), dict(self._documents)
        problems: list[tuple[str, str]] = []
        for index, document in enumerate(documents):
            try:
                part = self.complete(document, f"{place}.{index}")
                parts[part.id] = part
                stated[part.id] = document
            except InputError as error:
                problems.extend(error.problems)
        if problems:
            raise InputError(problems)
        new = Catalogue(parts, self._classes, self._older, self._away)
        new._documents = stated
        new._earlier = self._earlier
        new._compiled = {k: c for k, c in self._compiled.items() if parts[k[0]] is c.part}
        return new

    def renewed(
        self, document: Document, older: Mapping[tuple[str, int], Document], *, away: bool
    ) -> Catalogue:
        """This catalogue with another document of one part, its earlier ones, and whether it is
        offered.
        """
        new = self.extended([document])
        new._older = {**self._older, **older}
        part_id = str(document["id"])
        new._away = self._away | {part_id} if away else self._away - {part_id}
        new._on_offer = {}
        return new

    def complete(self, document: Document, place: str = "") -> Part:
        """The part of a document, with what it leaves open taken from its class."""
        class_name = document.get("part_class") if isinstance(document, Mapping) else None
        is_known = isinstance(class_name, str) and class_name in self._classes
        if class_name is not None and not is_known:
            known, place = ", ".join(sorted(self._classes)), f"{place}.part_class".strip(".")
            raise InputError([(place, f"must be one of {known} (got {class_name!r:.60})")])
        try:
            base = self._classes[class_name] if class_name is not None else {}
            return PART.validate_python(merge_patch(base, document))
        except ValidationError as error:
            raise InputError.from_validation(error, place) from error

    def for_plan(self, plan: Plan) -> Catalogue:
        """This catalogue with the parts that the plan carries itself."""
        return self.extended(plan.parts) if plan.parts else self

    def part(self, part_id: str, place: str = "", revision: int | None = None) -> Part:
        """The part with this id, as it is now or as it was at a revision.

        A revision that is not known here, as of a plan from another machine, gives the newest.

        Raises
        ------
        UnknownPartError
            With `place`, when there is none.
        """
        try:
            newest = self._parts[part_id]
        except KeyError:
            raise UnknownPartError(place, part_id) from None
        key = (part_id, revision or newest.revision)
        if revision == newest.revision or key not in self._older:
            return newest
        if key not in self._earlier:
            self._earlier[key] = self.complete({**self._older[key], "revision": key[1]})
        return self._earlier[key]

    def find(self, part_id: str) -> Part | None:
        """The newest part with this id, or None."""
        return self._parts.get(part_id)

    def of_line(self, line: Line) -> Part:
        """The part of a line, at the revision that the line keeps. Raises UnknownPartError."""
        return self.part(line.part, "", line.part_revision)

    def parts(self, kinds: Iterable[str] | None = None) -> list[Part]:
        """The parts on offer, or those of some kinds, in the order in which they were added."""
        wanted = None if kinds is None else frozenset(kinds)
        found = self._on_offer.get(wanted)
        if found is None:
            found = self._on_offer[wanted] = [
                part
                for part in self._parts.values()
                if (wanted is None or part.kind in wanted) and part.id not in self._away
            ]
        return list(found)

    def document(self, part: Part) -> Document:
        """What a part of this catalogue states itself."""
        older = self._older.get((part.id, part.revision))
        return self._documents[part.id] if older is None else older

    def sheet(self, part: Part) -> PartSheet:
        """A part of this catalogue figure by figure, with where each comes from."""
        return part_sheet(part, self.document(part), self.class_document(part.part_class))

    def class_document(self, name: str | None) -> Document:
        """What a class states; nothing for no class."""
        return {} if name is None else self._classes[name]

    def pinned(self, plan: Plan) -> Plan:
        """The plan with every line that names no revision kept at the newest one."""
        carried = {document.get("id") for document in plan.parts}
        lines = tuple(
            line
            if line.part_revision is not None or line.part in carried
            else line.model_copy(update={"part_revision": self.part(line.part).revision})
            for line in plan.lines
        )
        return plan.model_copy(update={"lines": lines})

    def compiled(self, part: Part, samples: int) -> CompiledPart:
        """A part of this catalogue as arrays of `samples` values a figure."""
        key = (part.id, part.revision, samples)
        if key not in self._compiled:
            self._compiled[key] = CompiledPart(part, samples)
        return self._compiled[key]

    def with_moved(self, part: Part, moved: Moved) -> Catalogue:
        """This catalogue with one figure of a part at one end of its band, at nominal figures."""
        new = Catalogue(self._parts, self._classes, self._older, self._away)
        new._documents, new._earlier = self._documents, self._earlier
        new._compiled = dict(self._compiled)
        new._compiled[part.id, part.revision, 1] = CompiledPart(part, 1, moved)
        return new
