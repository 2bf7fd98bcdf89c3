"""Checking plan files for the command line: one in full, or several in a line each."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path

from pydantic_core import to_json

from cobblewort.core.errors import InputError
from cobblewort.core.labels import SEVERITIES
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import plan_from
from cobblewort.core.plans.what_if import what_if
from cobblewort.core.verdict.evaluate import evaluate
from cobblewort.core.verdict.report import Report
from cobblewort.formats.display_units import DisplayUnits
from cobblewort.formats.documents import MAX_FILE_BYTES, pack_from, parse_document, read_text
from cobblewort.formats.packs import pack_of_text
from cobblewort.formats.shipped import shipped_catalogue
from cobblewort.formats.text import report_text


def shipped_with(packs: Sequence[Path]) -> Catalogue:
    """The shipped catalogue with part packs besides. Raises InputError."""
    catalogue = shipped_catalogue()
    for pack in packs:
        documents = pack_of_file(pack)
        catalogue = catalogue.extended(documents)
    return catalogue


def pack_of_file(file: Path, most: int = MAX_FILE_BYTES) -> list[dict[str, object]]:
    """The part documents of a pack of at most so many bytes: JSON, YAML or CSV by its ending.

    Raises InputError.
    """
    if file.suffix.lower() == ".csv":
        return pack_of_text(read_text(file, most), file.name)
    return pack_from(parse_document(file, most))


@dataclass(slots=True, frozen=True)
class Row:
    """One plan of several: what is said of it, and what the command would exit with for it."""

    text: str
    exit: int


class Checking:
    """Checks plan files against one catalogue, under one assumption, and tells it in some units."""

    def __init__(
        self, catalogue: Catalogue, ambient_c: float | None, samples: int, units: DisplayUnits
    ) -> None:
        self._catalogue, self._ambient_c, self._samples = catalogue, ambient_c, samples
        self._units = units

    def whole(self, file: Path, as_json: bool, width: int) -> tuple[str, bool]:
        """The report of one plan, and whether it has problems. Raises InputError."""
        report = self._report(file)
        text = (
            to_json(report, indent=2).decode()
            if as_json
            else report_text(report, width, self._units)
        )
        return text, report.severity == "problem"

    def summary(self, files: Sequence[Path]) -> Iterator[Row]:
        """Each plan in a line, worst word first, and the count of each at the end."""
        counts = {"problem": 0, "tight": 0, "note": 0, "ok": 0, "wrong": 0}
        for file in files:
            try:
                report = self._report(file)
            except InputError as error:
                counts["wrong"] += 1
                yield Row(f"{file.name}: unreadable file: {error}", 2)
                continue
            except Exception as error:  # one plan takes no other down
                counts["wrong"] += 1
                yield Row(f"{file.name}: the program failed on it ({type(error).__name__})", 2)
                continue
            counts[report.severity] += 1
            worst = next((f.sentence for f in report.findings if f.severity != "note"), "")
            told = f"{file.name}: {SEVERITIES[report.severity]}. {self._units.text(worst)}".rstrip()
            yield Row(told, 1 if report.severity == "problem" else 0)
        fine = counts["note"] + counts["ok"]
        yield Row(
            f"{len(files)} plans: {counts['problem']} with problems, {counts['tight']} tight, "
            f"{fine} OK, {counts['wrong']} unreadable files.",
            0,
        )

    def _report(self, file: Path) -> Report:
        plan = plan_from(parse_document(file))
        return evaluate(what_if(plan, self._ambient_c), self._catalogue, self._samples)
