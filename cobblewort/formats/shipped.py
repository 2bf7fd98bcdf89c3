"""The data that ships with the program: classes, parts, demo plans.

They are written in YAML, for people. `make` reads that once and puts it beside as JSON, which is
read twenty times as fast; where that is missing or of another text, YAML is read.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping, Sequence
from contextlib import suppress
from functools import lru_cache
from importlib.resources import files
from pathlib import Path
from typing import Any, cast
from zlib import crc32

from cobblewort.core.errors import InputError
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Place
from cobblewort.core.plans.purpose import KnownPlace, Purpose

_ANY_PURPOSE = "something-else"


CLASSES, PARTS = "classes.yaml", "parts.yaml"
_FOLDER = Path(str(files("cobblewort.data")))


def _load(name: str) -> Any:
    text = (_FOLDER / name).read_text(encoding="utf-8")
    with suppress(FileNotFoundError):
        built = json.loads(_built(name).read_text(encoding="utf-8"))
        if built["of"] == _digest(text):
            return built["document"]
    return _read(text)


def _read(text: str) -> Any:
    import yaml

    from cobblewort.formats.yaml_documents import YAML_LOADER

    return yaml.load(text, Loader=YAML_LOADER)


def _digest(text: str) -> int:
    return crc32(text.encode())


def _built(name: str) -> Path:
    return _FOLDER / "built" / f"{name.replace('/', '-')}.json"


def build() -> None:
    """Read all YAML and write it as JSON. Raises TypeError for what JSON cannot hold."""
    (_FOLDER / "built").mkdir(exist_ok=True)
    for file in sorted(_FOLDER.rglob("*.yaml")):
        text = file.read_text(encoding="utf-8")
        name = file.relative_to(_FOLDER).as_posix()
        document = {"of": _digest(text), "document": _read(text)}
        _built(name).write_text(json.dumps(document), encoding="utf-8")


@lru_cache(maxsize=1)
def shipped_classes() -> dict[str, Any]:
    """Class documents by name."""
    return cast("dict[str, Any]", _load(CLASSES))


@lru_cache(maxsize=1)
def shipped_parts() -> list[dict[str, Any]]:
    """Part documents of the shipped catalogue."""
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
    """The shipped catalogue, completed from its classes, and a part for each class."""
    classes = shipped_classes()
    return Catalogue.from_documents([*shipped_parts(), *class_parts(classes)], classes)


def catalogue_with(
    parts: Sequence[Mapping[str, Any]],
    older: Mapping[tuple[str, int], dict[str, Any]],
    away: Iterable[str],
) -> tuple[Catalogue, dict[str, str]]:
    """The catalogue of stored parts, and which of them cannot be read, with the reason: one that is
    broken takes no other down.
    """
    classes = shipped_classes()
    typical, why = class_parts(classes), dict[str, str]()
    documents = [dict(part) for part in parts]
    try:
        read = Catalogue.from_documents([*documents, *typical], classes, older, away)
    except InputError:
        alone = Catalogue.from_documents((), classes)
        for document in documents:
            try:
                alone.complete(document)
            except InputError as error:
                why[str(document.get("id"))] = str(error)
        sound = [document for document in documents if str(document.get("id")) not in why]
        read = Catalogue.from_documents([*sound, *typical], classes, older, away)
    return read, why


def demo_plans() -> list[dict[str, Any]]:
    """Plan documents of the demo, each with an `id` beside the plan."""
    return cast("list[dict[str, Any]]", _load("demo_plans.yaml"))


@lru_cache(maxsize=1)
def shipped_purposes() -> dict[str, Purpose]:
    """The purposes by id, one file each: in the order of their titles, "something else" last."""
    names = [file.stem for file in (_FOLDER / "purposes").glob("*.yaml")]
    found = [Purpose(id=name, **_load(f"purposes/{name}.yaml")) for name in names]
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


if __name__ == "__main__":
    build()
