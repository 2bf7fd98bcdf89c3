"""A kit seen through what is declared of it: any other read raises."""

from __future__ import annotations

from typing import Any, cast

from cobblewort.core.judging.kit import Derived, Items, Kit, Reads
from cobblewort.core.plans.catalogue import Catalogue

_READ_AS = {
    "lines": "items",
    "line": "items",
    "free_line_id": "items",
    "parts": "catalogue",
    "price_of": "rates",
}


_WIDER = {"connected": ("built", "items"), "built": ("items",)}
"""Of some pieces the facets that hold them all."""


class UndeclaredReadError(AssertionError):
    """Something reads a facet of a plan that it does not declare."""


class Watched:
    """Stands in the place of a kit, and lets read what `declared` names."""

    def __init__(self, kit: Kit, declared: Reads, reader: str) -> None:
        self.kit, self.declared, self.reader = kit, declared, reader
        self.samples = kit.samples
        self.known: dict[Derived[Any], Any] = {}  # so that each is asked for here

    def read(self, *facets: str) -> None:
        """Note that something is read. Raises UndeclaredReadError unless it is named."""
        for facet in facets:
            if self.declared.facets.isdisjoint((facet, *_WIDER.get(facet, ()))):
                raise UndeclaredReadError(f"{self.reader} reads '{facet}', and does not declare it")

    @property
    def plan(self) -> _Watched:
        """The plan, watched too."""
        return _Watched(self, self.kit.plan)

    @property
    def items(self) -> Items:
        """All of them."""
        self.read("items")
        return self.kit.items

    @property
    def built(self) -> Items:
        """Those of which the thing is made."""
        self.read("built")
        return self.kit.built

    @property
    def connected(self) -> Items:
        """Those that are joined to others."""
        self.read("connected")
        return self.kit.connected

    @property
    def catalogue(self) -> Catalogue:
        """The cupboard."""
        self.read("catalogue")
        return self.kit.catalogue

    def work_out(self, wanted: Derived[Any]) -> Any:
        """What is derived, worked out through what it declares itself."""
        if wanted not in self.declared.firm:
            self.read(*wanted.reads.facets)
            for one in wanted.reads.firm:
                self.work_out(one)
        if wanted not in self.kit.known:
            self.kit.known[wanted] = wanted.work(watched(self.kit, wanted.reads, wanted.__name__))
        return self.kit.known[wanted]


class _Watched:
    """A plan or its place, of which each field is a facet."""

    def __init__(self, watched: Watched, of: Any, prefix: str = "") -> None:
        self._watched, self._of, self._prefix = watched, of, prefix

    def __getattr__(self, name: str) -> Any:
        if name == "place":
            return _Watched(self._watched, self._of.place, "place.")
        self._watched.read(_READ_AS.get(name, self._prefix + name))
        return getattr(self._of, name)


def watched(kit: Kit, declared: Reads, reader: str) -> Kit:
    """A kit that raises on a read which is not declared."""
    return cast("Kit", Watched(kit, declared, reader))
