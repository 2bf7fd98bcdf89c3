"""The data that ships with the program: classes, parts, demo plans."""

from __future__ import annotations

from collections.abc import Iterable
from functools import lru_cache
from importlib.resources import files
from typing import Any, cast

import yaml

from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Place
from cobblewort.core.plans.purpose import KnownPlace, Purpose
from cobblewort.formats.documents import YAML_LOADER

_ANY_PURPOSE = "something-else"


CLASSES, PARTS = "classes.yaml", "parts.yaml"


def shipped_text(name: str) -> str:
    """A file of the shipped data as it stands."""
    return (files("cobblewort.data") / name).read_text(encoding="utf-8")


def _load(name: str) -> Any:
    return yaml.load(shipped_text(name), Loader=YAML_LOADER)


@lru_cache(maxsize=1)
def shipped_classes() -> dict[str, Any]:
    """Class documents by name."""
    return cast("dict[str, Any]", _load(CLASSES))


@lru_cache(maxsize=1)
def shipped_parts() -> list[dict[str, Any]]:
    """Part documents of the shipped cupboard."""
    return cast("list[dict[str, Any]]", _load(PARTS))


def class_parts(classes: Iterable[str]) -> list[dict[str, Any]]:
    """A part for each class, made of the figures of the class alone."""
    return [
        {
            "id": f"any-{name.replace('_', '-')}",
            "part_class": name,
            "origin": "typical",
            "maker": "Typical",
            "summary": "Typical values only, no price. Copy it and enter the values you know.",
        }
        for name in classes
    ]


@lru_cache(maxsize=1)
def shipped_catalogue() -> Catalogue:
    """The shipped cupboard, completed from its classes, and a part for each class."""
    classes = shipped_classes()
    return Catalogue.from_documents([*shipped_parts(), *class_parts(classes)], classes)


def demo_plans() -> list[dict[str, Any]]:
    """Plan documents of the demo, each with an `id` beside the plan."""
    return cast("list[dict[str, Any]]", _load("demo_plans.yaml"))


@lru_cache(maxsize=1)
def shipped_purposes() -> dict[str, Purpose]:
    """The purposes by id, one file each: in the order of their titles, "something else" last."""
    folder = files("cobblewort.data") / "purposes"
    names = [entry.name for entry in folder.iterdir() if entry.name.endswith(".yaml")]
    found = [Purpose(id=name.removesuffix(".yaml"), **_load(f"purposes/{name}")) for name in names]
    found.sort(key=lambda purpose: (purpose.id == _ANY_PURPOSE, purpose.title))
    return {purpose.id: purpose for purpose in found}


@lru_cache(maxsize=1)
def shipped_places() -> dict[str, KnownPlace]:
    """The places by id, in the order of their file."""
    return {
        name: KnownPlace(
            id=name,
            title=entry["title"],
            place=Place(name=entry["title"], **{k: v for k, v in entry.items() if k != "title"}),
        )
        for name, entry in _load("places.yaml").items()
    }
