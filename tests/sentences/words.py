"""Every word outside the page's own source that a person can read, by where it is read."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from cobblewort.core import labels
from cobblewort.core.aspects.data.arrays import LAYOUTS
from cobblewort.core.parts import functions, names
from cobblewort.core.plans.fields import FORMS
from cobblewort.core.verdict.report import rules_in_order
from cobblewort.formats.shipped import (
    demo_plans,
    shipped_catalogue,
    shipped_places,
    shipped_purposes,
)
from tests.sentences.gather import of_demo, of_rules


def _texts(value: Any) -> Iterator[str]:
    if isinstance(value, str):
        yield value
    elif isinstance(value, Mapping):
        for entry in value.values():
            yield from _texts(entry)
    elif isinstance(value, tuple | list):
        for entry in value:
            yield from _texts(entry)


def by_place() -> Iterator[tuple[str, list[str]]]:
    """A heading and the words below it."""
    tables = [table for name, table in vars(labels).items() if name.isupper()]
    yield "Labels", [text for table in tables for text in _texts(table) if text]
    rows = [row for _, form in FORMS.values() for row in form.values()]
    yield (
        "Fields",
        [text for row in rows for text in (row.label, row.empty, row.example, row.hint) if text],
    )
    yield (
        "Array layouts",
        [text for facts in LAYOUTS.values() for text in (facts.label, facts.speaks_for)],
    )
    yield (
        "Functions, conditions, limits",
        [
            *(one.label for one in functions.FUNCTIONS.values()),
            *functions.CONDITIONS.values(),
            *(label for label, _ in functions.LIMITS.values()),
        ],
    )
    yield "Fields of a part sheet", list(names.WORDS.values())
    yield "Rules", [text for rule in rules_in_order() for text in (rule.title, rule.why)]
    yield (
        "Sentences",
        sorted(
            {text for _, told in of_demo() for _, _, text in told}
            | {text for _, _, said in of_rules() for _, text in said}
        ),
    )
    parts = shipped_catalogue().parts()
    yield (
        "Parts",
        sorted({text for part in parts for text in (part.summary, *part.cautions) if text}),
    )
    yield (
        "Purposes",
        [
            text
            for purpose in shipped_purposes().values()
            for text in (
                purpose.title,
                purpose.summary,
                *purpose.mistakes,
                *purpose.cautions,
                *(requirement.text for requirement in purpose.requirements),
            )
        ],
    )
    yield "Locations", [place.title for place in shipped_places().values()]
    yield "Demo plans", [entry["plan"]["purpose"] for entry in demo_plans()]


def main() -> None:
    """Print them all."""
    for heading, texts in by_place():
        print(f"\n## {heading}\n")
        print("\n".join(dict.fromkeys(texts)))


if __name__ == "__main__":
    main()
