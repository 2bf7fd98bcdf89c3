"""Import and export of plans, parts and workspaces, for the command line."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import date
from pathlib import Path

from cobblewort.core import words
from cobblewort.core.errors import InputError
from cobblewort.core.labels import SEVERITIES
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.plans.steps import PlanFile
from cobblewort.core.verdict.evaluate import evaluate
from cobblewort.formats.display_units import DisplayUnits
from cobblewort.formats.documents import parse_document
from cobblewort.formats.packs import arriving, pack_csv, pack_json
from cobblewort.formats.plan_files import (
    carried_parts,
    new_parts,
    plan_text,
    plans_from,
    plans_text,
    settled_file,
)
from cobblewort.formats.preferences import preferences_from
from cobblewort.formats.shipped import class_parts, shipped_classes, shipped_parts
from cobblewort.store.database import Database
from cobblewort.store.parts import PartStore
from cobblewort.store.plans import BrokenPlan, PlanStore, StoredPlan
from cobblewort.store.preferences import preferences_in
from cobblewort.store.workspace import (
    MAX_ARCHIVE_BYTES,
    Holdings,
    archive,
    holdings,
    look_at,
    restore,
)


def units_of_settings(data_file: Path) -> DisplayUnits:
    """The units of the settings of a data file; those of the core where it cannot be read.

    The file is only read: nothing is created or brought up to date.
    """
    return preferences_from(preferences_in(data_file)).units


class Workshop:
    """A data file with its plans and its parts.

    Raises
    ------
    StoreError
        If the file cannot be used.
    """

    def __init__(self, data_file: Path) -> None:
        self._database = Database(data_file)
        self._database.prepare()
        self._plans, self._parts = PlanStore(self._database), PartStore(self._database)
        self._parts.bring_up_to_date(shipped_parts())

    @property
    def _catalogue(self) -> Catalogue:
        classes = shipped_classes()
        parts = self._parts.all()
        return Catalogue.from_documents(
            [*(part.document for part in parts), *class_parts(classes)],
            classes,
            self._parts.older(),
            [part.id for part in parts if part.away],
        )

    def _named(self, names: Sequence[str]) -> list[StoredPlan]:
        """Plans by id or name, or all that can be read. Raises InputError."""
        there = [one for one in self._plans.all() if not isinstance(one, BrokenPlan)]
        if not names:
            return there
        found = []
        for name in names:
            match = [one for one in there if name in (one.id, one.plan.name)]
            if not match:
                known = ", ".join(f"“{one.plan.name}”" for one in there) or "none"
                raise InputError([("", f"There is no plan “{name}”. Plans: {known}.")])
            found += match
        return found

    def plans(self, names: Sequence[str], *, steps: bool) -> str:
        """One plan with its parts, or several, with their steps on wish. Raises InputError."""
        chosen, catalogue = self._named(names), self._catalogue
        if len(chosen) == 1 and names and not steps:
            return plan_text(chosen[0].plan, catalogue)
        entries = [
            self._plans.with_steps(one.id) if steps else PlanFile(one.plan) for one in chosen
        ]
        return plans_text(entries, catalogue)

    def parts(self, kind: str) -> str:
        """Parts of one's own as a pack, JSON or CSV."""
        documents = [part.document for part in self._parts.all() if part.own]
        return pack_csv(documents) if kind == "csv" else pack_json(documents)

    def sheet(self, names: Sequence[str], paper: str, units: DisplayUnits) -> bytes:
        """The sheet of one plan as PDF. Raises InputError."""
        from cobblewort.formats.sheet import sheet_pdf

        plan = self._the_one(names, "A plan sheet")
        report = evaluate(plan, self._catalogue, 256)
        return sheet_pdf(plan, report, paper, units=units)

    def calendar(self, names: Sequence[str]) -> bytes:
        """What one kit wants of its owner, for a calendar from today on. Raises InputError."""
        from cobblewort.formats.calendar import maintenance_ics

        plan = self._the_one(names, "A calendar")
        maintenance = evaluate(plan, self._catalogue).lifetime.maintenance
        return maintenance_ics(plan.name, maintenance, date.today())

    def _the_one(self, names: Sequence[str], what: str) -> Plan:
        if len(names) != 1:
            raise InputError([("", f"{what} needs exactly one plan. Name it.")])
        return self._named(names)[0].plan

    def import_all(self, file: Path, *, dry_run: bool, with_parts: bool) -> Iterator[str]:
        """Import a file, and tell what came. Raises InputError."""
        from cobblewort.commands.checking import pack_of_file

        if file.suffix.lower() == ".csv":
            yield from self._import_parts(pack_of_file(file), dry_run)
            return
        value = parse_document(file)
        if isinstance(value, list) or (
            isinstance(value, dict)
            and "lines" not in value
            and "plans" not in value
            and "parts" in value
        ):
            yield from self._import_parts(pack_of_file(file), dry_run)
            return
        yield from self._import_plans(plans_from(value), dry_run, with_parts)

    def _import_parts(self, documents: list[dict[str, object]], dry_run: bool) -> Iterator[str]:
        found = arriving(documents, self._catalogue)
        taken = {part.id for part in found if part.state in ("new", "changes")}
        if not dry_run:
            self._parts.import_all([d for d in documents if d["id"] in taken])
        for part in found:
            told = _PART_WORDS[part.state]
            more = (
                f" ({', '.join(part.fields[:5])})" if part.state in ("changes", "clashes") else ""
            )
            yield f"{part.maker} {part.model}: {told}{more}"

    def _import_plans(
        self, entries: list[PlanFile], dry_run: bool, with_parts: bool
    ) -> Iterator[str]:
        catalogue = self._catalogue
        told = []
        for entry in entries:
            report = evaluate(entry.plan, catalogue)
            carried = carried_parts(entry.plan, catalogue)
            apart = sum(part.state != "same" for part in carried)
            told.append(
                f"“{entry.plan.name}”: {words.count(len(entry.plan.lines), 'line')}, "
                f"{words.count(len(entry.steps), 'step')} of history, "
                f"{words.count(apart, 'custom part')}, {SEVERITIES[report.severity]}"
            )
        if not dry_run:
            if with_parts:
                self._parts.import_all(new_parts(entries, catalogue))
                catalogue = self._catalogue
            self._plans.import_all(
                [settled_file(entry, catalogue) for entry in entries], "imported from a file"
            )
        yield from told

    def archive(self) -> bytes:
        """The whole workspace as one file."""
        return archive(self._database)

    def read_archive(self, file: Path) -> bytes:
        """The bytes of an archive. Raises InputError."""
        try:
            with file.open("rb") as opened:
                return opened.read(MAX_ARCHIVE_BYTES + 1)
        except OSError as error:
            raise InputError([("", f"{file.name} cannot be read: {error.strerror}")]) from error

    def what_would_be_replaced(self, content: bytes) -> Iterator[str]:
        """What an archive holds, and what is here. Raises ArchiveError."""
        found = look_at(content)
        yield f"The backup of {found.made_at} contains {_held(found.holds)}."
        yield f"It replaces {_held(holdings(self._database))}."

    def restore(self, content: bytes) -> str:
        """Put an archive in the place of everything, and say where that is kept."""
        _, copy = restore(self._database, content)
        self._parts.bring_up_to_date(shipped_parts())
        return f"Restored. The former workspace is kept as {copy}."


_PART_WORDS = {
    "new": "new",
    "changes": "updates your part",
    "same": "unchanged",
    "clashes": "not imported, because a shipped part has this id",
}


def _held(holds: Holdings) -> str:
    return (
        f"{words.count(len(holds.plans), 'plan')} with {words.count(holds.steps, 'step')} of "
        f"history, {words.count(holds.custom_parts, 'custom part')} and "
        f"{words.count(holds.in_bin, 'plan')} in the bin"
    )
