"""Import and export of plans, parts and workspaces, for the command line."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator, Sequence
from datetime import date
from pathlib import Path

from cobblewort.core import words
from cobblewort.core.errors import InputError
from cobblewort.core.labels import SEVERITIES
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.steps import PlanFile
from cobblewort.core.verdict.evaluate import evaluate
from cobblewort.formats.display_units import DisplayUnits
from cobblewort.formats.documents import MAX_IMPORT_BYTES, parse_document
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
from cobblewort.formats.shipped import catalogue_with, shipped_parts
from cobblewort.store.archive import Holdings, archive, look_at
from cobblewort.store.database import Database
from cobblewort.store.parts import PartStore
from cobblewort.store.plans import BrokenPlan, PlanStore, StoredPlan
from cobblewort.store.preferences import preferences_in
from cobblewort.store.workspace import holdings, restore


def units_of_settings(data_file: Path) -> DisplayUnits:
    """The units of the settings of a data file; those of the core where it cannot be read.

    The file is only read: nothing is created or brought up to date.
    """
    return preferences_from(preferences_in(data_file)).units


class Workshop:
    """A data file with its plans and its parts, which is there already unless it may be made.

    Raises
    ------
    InputError
        If there is none.
    StoreError
        If the file cannot be used.
    """

    def __init__(self, data_file: Path, *, make: bool = False, beside: str = "") -> None:
        _look_for(data_file, make, beside)
        self._database = Database(data_file)
        self._database.prepare()
        self._plans, self._parts = PlanStore(self._database), PartStore(self._database)
        if make:
            self._parts.bring_up_to_date(shipped_parts())

    @property
    def _catalogue(self) -> Catalogue:
        parts = self._parts.all()
        return catalogue_with(
            [part.document for part in parts],
            self._parts.older(),
            [part.id for part in parts if part.away],
        )[0]

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

        plan = self._the_one(names, "A plan sheet").plan
        report = evaluate(plan, self._catalogue, 256)
        return sheet_pdf(plan, report, paper, units=units)

    def calendar(self, names: Sequence[str]) -> bytes:
        """What one kit wants of its owner, for a calendar from today on. Raises InputError."""
        from cobblewort.formats.calendar import maintenance_ics

        stored = self._the_one(names, "A calendar")
        maintenance = evaluate(stored.plan, self._catalogue).lifetime.maintenance
        return maintenance_ics(stored.id, stored.plan.name, maintenance, date.today())

    def _the_one(self, names: Sequence[str], what: str) -> StoredPlan:
        if len(names) != 1:
            raise InputError([("", f"{what} needs exactly one plan. Name it.")])
        return self._named(names)[0]

    def import_all(self, file: Path, *, dry_run: bool, with_parts: bool) -> Iterator[str]:
        """Import a file, and tell what came. Raises InputError."""
        from cobblewort.commands.checking import pack_of_file

        if file.suffix.lower() == ".csv":
            yield from self._import_parts(pack_of_file(file, MAX_IMPORT_BYTES), dry_run)
            return
        value = parse_document(file, MAX_IMPORT_BYTES)
        if isinstance(value, list) or (
            isinstance(value, dict)
            and "lines" not in value
            and "plans" not in value
            and "parts" in value
        ):
            yield from self._import_parts(pack_of_file(file, MAX_IMPORT_BYTES), dry_run)
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


def what_would_be_replaced(data_file: Path, file: Path) -> Iterator[str]:
    """What an archive holds, and what is here, which may be damaged. Raises InputError."""
    if not file.is_file():
        raise InputError([("", f"{file} is not there, or is not a plain file.")])
    try:
        found = look_at(file)
    except OSError as error:
        raise InputError([("", f"{file.name} cannot be read: {error.strerror}")]) from error
    yield f"The backup of {found.made_at} contains {_held(found.holds)}."
    if not data_file.exists():
        yield f"It creates a workspace in {data_file.parent}."
        return
    try:
        here = _held(holdings(Database(data_file)))
    except sqlite3.Error:
        here = "a workspace that cannot be read; its file is kept"
    yield f"It replaces {here}."


def restored(data_file: Path, file: Path) -> str:
    """Put an archive in the place of everything, and say where that is kept. The file that is here
    is not opened first, so that a damaged one is mended.
    """
    database = Database(data_file)
    was_there = data_file.exists()
    _, copy = restore(database, file)
    PartStore(database).bring_up_to_date(shipped_parts())
    return f"Restored. The former workspace is kept as {copy}." if was_there else "Restored."


def _look_for(data_file: Path, make: bool, beside: str) -> None:
    """Tell of a folder without a workspace, where none is to be made. Raises InputError."""
    folder = data_file.parent
    if make or data_file.exists() or folder.is_file() or folder.parent.is_file():
        return  # what is wrong with a file is told when it is opened
    if not folder.is_dir():
        raise InputError([("", f"There is no folder {folder}. Name another one with --data.")])
    if beside and (folder / beside).exists():
        raise InputError(
            [
                (
                    "",
                    f"{folder} contains the demo ({beside}), not your own plans. Name another",
                )
            ]
        )
    raise InputError([("", f"{folder} contains no workspace. Name another folder with --data.")])


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
