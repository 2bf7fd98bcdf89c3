"""The vocabulary: what no text may say, with what stands in its place."""

from __future__ import annotations

import ast
import re
import subprocess
from collections.abc import Iterator
from pathlib import Path
from typing import get_args

import pytest

import cobblewort.core
from cobblewort.core import labels
from cobblewort.core.aspects.purpose.model import RequirementStatus
from cobblewort.core.judging.severity import Severity
from cobblewort.core.parts.model import Feed, Kind
from cobblewort.core.plans.plan import (
    Activity,
    End,
    FileSystem,
    Layout,
    PlanStatus,
    Protocol,
    Role,
    Writes,
)
from cobblewort.formats.page_labels import labels_text
from tests.sentences.words import by_place

ROOT = Path(__file__).parents[2]
PAGE_WORDS = ROOT / "web" / "tools" / "words.mjs"
INSTEAD = {
    r"cupboard": "Parts",
    r"\bbring (?:it )?(?:in|back)\b": "Import, Restore",
    r"\bput away\b": "Move to bin",
    r"\bback-ups?\b": "backup",
    r"\bthe neck\b": "bottleneck",
    r"\bways? out\b": "fix",
    r"\bcarries it all\b": "has every interface needed",
    r"\bclass figures?\b": "typical value",
    r"\bany (?:fast|middle) card\b": "Typical fast board",
    r"\blikely figures\b": "OK in 84 of 100 likely cases",
    r"\beverything at once\b": "worst case",
    r"\bgood up to\b": "OK up to",
    r"°C outside\b": "ambient",
    r"\bhottest day\b": "highest ambient",
    r"\bcoldest day\b": "lowest ambient",
    r"\bhow it stands\b": "Mounting",
    r"\bwho can touch\b": "within reach of",
    r"\bwhat feeds it\b": "Power source",
    r"\bnetwork power\b": "PoE",
    r"\bpower inlet\b": "power input",
    r"\bhas to give\b": "must deliver",
    r"\bannounce[sd]?\b": "advertise",
    r"\bat the start\b(?! of)": "at power-up",
    r"\bthe die\b": "the processor",
    r"\bslows? itself\b": "throttles",
    r"\bstick\b(?!-on)": "USB drive",
    r"\bsolid-state drive\b": "SSD",
    r"\bwritten out\b": "worn out",
    r"\bupkeep\b": "maintenance",
    r"\bit holds with\b": "OK in … of 100 likely cases",
    r"\bnobody\b(?!$)": "no …, not stated",
    r"\bsomebody\b": "someone, or the part",
    r"\bsomething (?!else)\b": "the part",
    r"\bstops it\b": "problem",
    r"\bsettles? \d": "fixes",
    r"\bdo it\b": "Apply",
    r"\bleave it\b(?! empty)": "Cancel",
    r"\btake out\b": "Remove",
    r"\bleave out\b": "Remove",
    r"\bkeep it so\b": "Save",
    r"\bthat is settled\b": "Mark as done",
    r"\bin all\b": "Total",
    r"\bnight bench\b": "Dark theme",
    r"\brule book\b": "Rules",
    r"^side by side$": "Compare",
    r"\b(?-i:Mb)/s\b": "Mbit/s",
    r"\b(?-i:gen) [1-5]\b": "Gen 3",
    r"€ \d": "€89",
    r"\(s\)": "1 snag, 2 snags",
    r"\bflat-cable (?:lead|ribbon)\b": "flat cable (FFC)",
    r"\bschools? of\b": "alternatives",
    r"\bwants of you\b": "Maintenance",
    r"\bNot known:": "Not checked:",
}
"""What may not be read anywhere, and what stands in its place."""
ALLOWED = re.compile(r"^Nobody$|do not fit side by side")
DOCS = (
    "README.md",
    "CONTRIBUTING.md",
    "CHANGELOG.md",
    "docs/model.md",
    "docs/testing.md",
    "docs/performance.md",
    "docs/rules.md",
    "docs/sentences.md",
)


def _page() -> Iterator[str]:
    told = subprocess.run(["node", str(PAGE_WORDS)], capture_output=True, text=True, check=True)
    yield from (line.partition(": ")[2] for line in told.stdout.splitlines())


def _faults(texts: Iterator[str] | list[str]) -> list[tuple[str, str]]:
    return [
        (text, f"{found.group()} -> {instead}")
        for text in texts
        if not ALLOWED.search(text)
        for pattern, instead in INSTEAD.items()
        if (found := re.search(pattern, text, re.IGNORECASE))
    ]


@pytest.mark.parametrize(("place", "texts"), list(by_place()), ids=lambda value: str(value)[:24])
def test_labels_and_sentences_keep_to_the_vocabulary(place: str, texts: list[str]) -> None:
    """Rules, parts, purposes, labels: each says one thing by one word."""
    assert texts, place
    assert _faults(texts) == []


def test_the_page_keeps_to_the_vocabulary() -> None:
    """Its own words, read from its source."""
    texts = list(_page())
    assert len(texts) > 500
    assert _faults(texts) == []


@pytest.mark.parametrize("name", DOCS)
def test_the_docs_keep_to_the_vocabulary(name: str) -> None:
    """What a user reads first."""
    assert _faults((ROOT / name).read_text(encoding="utf-8").splitlines()) == []


def test_a_forbidden_phrase_is_found() -> None:
    """Else the lists above would prove nothing."""
    assert len(_faults(["The neck is wire.", "Bring it in", "€ 12", "All is well."])) == 3


def test_every_choice_has_its_label_and_the_page_has_them_all() -> None:
    """`make types` writes the page's copy."""
    tables = (
        (labels.SEVERITIES, Severity),
        (labels.STATUSES, PlanStatus),
        (labels.ROLES, Role),
        (labels.KINDS, Kind),
        (labels.LOADS, Activity),
        (labels.POWER_SOURCES, Feed),
        (labels.ENDS, End),
        (labels.FILE_SYSTEMS, FileSystem),
        (labels.WRITES, Writes),
        (labels.PROTOCOLS, Protocol),
        (labels.ARRAY_LAYOUTS, Layout),
        (labels.REQUIREMENT_STATUSES, RequirementStatus),
    )
    for table, kind in tables:
        assert set(table) == set(get_args(kind)), kind
    assert (ROOT / "web/src/api/labels.ts").read_text(encoding="utf-8") == labels_text()


_UNIT = re.compile(r"^[ \u00a0]?(?:mm|°C|V|W|Wh|A|mA|MB/s|dB\(A\)|%)(?![a-z])")


def test_no_figure_is_written_into_a_sentence_by_hand() -> None:
    """A unit behind a value in an f-string would stay in °C and mm in every choice of units."""
    found = []
    for path in sorted(Path(cobblewort.core.__file__).parent.rglob("*.py")):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if not isinstance(node, ast.JoinedStr):
                continue
            for before, after in zip(node.values, node.values[1:], strict=False):
                behind = isinstance(before, ast.FormattedValue) and isinstance(after, ast.Constant)
                if behind and _UNIT.match(str(after.value)):
                    found.append(f"{path.name} {after.value}")
    assert found == IN_UNITS_OF_THE_CORE


IN_UNITS_OF_THE_CORE = [
    "stack.py  mm",
    "workings.py  MB/s",
    "rules.py  °C where it can be touched",
    "describe.py  mm",
    "reading.py  dB(A), its range included (got ",
    "plan.py  °C)",
]
"""Fasteners in the sizes that they are sold in, workings, a formula, and what files are told."""
