"""Looks parts up, and fills what a part does not state from the figures of its class."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from pydantic import ValidationError

from cobblewort.core.errors import InputError, UnknownPartError
from cobblewort.core.parts.compiled import CompiledPart
from cobblewort.core.parts.model import Part
from cobblewort.core.plan import Plan

Document = Mapping[str, Any]


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

    Compiled parts are kept per number of samples, so that evaluating twice costs their drawing
    once.
    """

    def __init__(self, parts: Mapping[str, Part], classes: Mapping[str, Document]) -> None:
        self._parts = dict(parts)
        self._classes = classes
        self._compiled: dict[tuple[str, int], CompiledPart] = {}

    @classmethod
    def from_documents(
        cls, parts: Iterable[Document], classes: Mapping[str, Document]
    ) -> Catalogue:
        """Read part documents, completing each from its class.

        Raises
        ------
        InputError
            With every problem of every part and its place.
        """
        empty = cls({}, classes)
        return empty.extended(parts)

    def extended(self, documents: Iterable[Document], place: str = "parts") -> Catalogue:
        """A catalogue with these parts besides; a part of the same id replaces the old one."""
        parts = dict(self._parts)
        problems: list[tuple[str, str]] = []
        for index, document in enumerate(documents):
            try:
                part = self.complete(document, f"{place}.{index}")
                parts[part.id] = part
            except InputError as error:
                problems.extend(error.problems)
        if problems:
            raise InputError(problems)
        new = Catalogue(parts, self._classes)
        new._compiled = {k: c for k, c in self._compiled.items() if parts[k[0]] is c.part}
        return new

    def complete(self, document: Document, place: str = "") -> Part:
        """The part of a document, with what it leaves open taken from its class."""
        class_name = document.get("part_class") if isinstance(document, Mapping) else None
        if class_name is not None and class_name not in self._classes:
            known = ", ".join(sorted(self._classes))
            raise InputError(
                [(f"{place}.part_class".strip("."), f"must be one of {known} (got '{class_name}')")]
            )
        try:
            base = self._classes[class_name] if class_name is not None else {}
            return Part.model_validate(merge_patch(base, document))
        except ValidationError as error:
            raise InputError.from_validation(error, place) from error

    def for_plan(self, plan: Plan) -> Catalogue:
        """This catalogue with the parts that the plan carries itself."""
        return self.extended(plan.parts) if plan.parts else self

    def part(self, part_id: str, place: str = "") -> Part:
        """The part with this id. Raises UnknownPartError, with `place`, when there is none."""
        try:
            return self._parts[part_id]
        except KeyError:
            raise UnknownPartError(place, part_id) from None

    def parts(self, kinds: Iterable[str] | None = None) -> list[Part]:
        """All parts, or those of some kinds, in the order in which they were added."""
        wanted = None if kinds is None else set(kinds)
        return [p for p in self._parts.values() if wanted is None or p.kind in wanted]

    def compiled(self, part_id: str, samples: int) -> CompiledPart:
        """The part as arrays of `samples` values a figure."""
        key = (part_id, samples)
        if key not in self._compiled:
            self._compiled[key] = CompiledPart(self._parts[part_id], samples)
        return self._compiled[key]
