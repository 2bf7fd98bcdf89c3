"""Plans in the store: immutable revisions, undo and redo, and no silent overwriting."""

from __future__ import annotations

import json
import secrets
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from hashlib import blake2b
from typing import NamedTuple

from cobblewort.core.errors import InputError
from cobblewort.core.plans.plan import Plan, plan_from
from cobblewort.core.plans.steps import PlanFile, Step
from cobblewort.store.database import Database


class PlanNotFoundError(LookupError):
    """There is no plan with this id."""


class NothingToDoError(Exception):
    """There is nothing to undo, or to redo."""


class KeyUsedError(Exception):
    """The key of a new plan was used for one with another content."""


class BrokenPlanError(Exception):
    """A stored plan cannot be read by this version; `str()` says why."""


class StaleWriteError(Exception):
    """The plan has changed since the version that a write was made from.

    `version` is the one it has now; `changes` are the labels of what came in between.
    """

    def __init__(self, version: int, changes: list[str]) -> None:
        self.version, self.changes = version, changes
        super().__init__(f"the plan is at version {version} now")


class Head(NamedTuple):
    """What tells one state of a plan from all others. A version is never used twice, unless
    somebody puts another file in the place of ours.
    """

    id: str
    version: int
    changed_at: str


@dataclass(slots=True, frozen=True)
class StoredPlan:
    """A plan as it stands, and the steps that can be taken from here."""

    id: str
    version: int
    plan: Plan
    changed_at: str
    undo_label: str | None
    redo_label: str | None

    @property
    def head(self) -> Head:
        """What tells this state of it from all others."""
        return Head(self.id, self.version, self.changed_at)


@dataclass(slots=True, frozen=True)
class BrokenPlan:
    """A plan that is there and cannot be read: its name as far as it is one, and why."""

    id: str
    version: int
    name: str
    why: str
    changed_at: str


@dataclass(slots=True, frozen=True)
class Revision:
    """One step in the life of a plan; `current` marks where it stands now."""

    number: int
    parent: int | None
    label: str
    created_at: str
    current: bool


@dataclass(slots=True, frozen=True)
class BinnedPlan:
    """A plan that is put away, and since when."""

    id: str
    name: str
    deleted_at: str


class PlanStore:
    """Reads and writes plans. Every write names the version that it was made from."""

    def __init__(self, database: Database) -> None:
        self.database = database

    def create(self, plan: Plan, label: str, plan_id: str | None = None) -> StoredPlan:
        """Store a new plan under a fresh id, or the one given."""
        with self.database.writing() as connection:
            return _create(connection, plan_id or _fresh_id(), plan, label)

    def create_once(self, plan: Plan, label: str, key: str) -> StoredPlan:
        """Store a new plan under an id that follows from the key; what that key has stored already
        is returned as it stands.

        Raises
        ------
        KeyUsedError
            If the key has stored another plan.
        PlanNotFoundError
            If what it has stored was deleted since.
        """
        plan_id = blake2b(key.encode(), digest_size=8).hexdigest()
        with self.database.writing() as connection:
            first = connection.execute(
                "SELECT document FROM plan_revision WHERE plan_id = :id AND number = 1",
                {"id": plan_id},
            ).fetchone()
            if first is not None:
                if plan_from(json.loads(first["document"])) != plan:
                    raise KeyUsedError(key)
                return _read(connection, plan_id)
            return _create(connection, plan_id, plan, label)

    def get(self, plan_id: str) -> StoredPlan:
        """The plan as it stands. Raises PlanNotFoundError, BrokenPlanError."""
        with self.database.reading() as connection:
            return _read(connection, plan_id)

    def document(self, plan_id: str) -> str:
        """The plan as it stands, as JSON, readable or not. Raises PlanNotFoundError."""
        with self.database.reading() as connection:
            return str(_plan_row(connection, plan_id)["document"])

    def all(self) -> list[StoredPlan | BrokenPlan]:
        """Every plan that is not deleted, oldest first; one that is broken takes no other down."""
        with self.database.reading() as connection:
            rows = connection.execute(
                "SELECT id FROM plan WHERE deleted_at IS NULL ORDER BY created_at, rowid"
            ).fetchall()
            return [_read_or_told(connection, row["id"]) for row in rows]

    def heads(self) -> list[Head]:
        """Every plan that is not deleted, oldest first, without a look into it."""
        with self.database.reading() as connection:
            rows = connection.execute(
                "SELECT id, version, changed_at FROM plan WHERE deleted_at IS NULL "
                "ORDER BY created_at, rowid"
            ).fetchall()
        return [Head(*row) for row in rows]

    def read_or_told(self, plan_id: str) -> StoredPlan | BrokenPlan:
        """The plan as it stands, or why it cannot be read. Raises PlanNotFoundError."""
        with self.database.reading() as connection:
            return _read_or_told(connection, plan_id)

    def is_empty(self) -> bool:
        """Whether no plan was ever stored."""
        with self.database.reading() as connection:
            return connection.execute("SELECT 1 FROM plan LIMIT 1").fetchone() is None

    def save(self, plan_id: str, version: int, plan: Plan, label: str) -> StoredPlan:
        """Store the next revision, made from `version`.

        Raises
        ------
        PlanNotFoundError
            If the plan is gone.
        StaleWriteError
            If the plan is at another version; nothing is written.
        """
        with self.database.writing() as connection:
            row = _fresh(connection, plan_id, version)
            number = connection.execute(
                "SELECT max(number) + 1 FROM plan_revision WHERE plan_id = :id", {"id": plan_id}
            ).fetchone()[0]
            _insert_revision(connection, plan_id, number, row["head"], label, plan)
            _move_head(connection, plan_id, number)
            return _read(connection, plan_id)

    def undo(self, plan_id: str, version: int) -> StoredPlan:
        """Go back to the revision before. Raises as `save`, or NothingToDoError."""
        with self.database.writing() as connection:
            row = _fresh(connection, plan_id, version)
            parent = connection.execute(
                "SELECT parent FROM plan_revision WHERE plan_id = :id AND number = :head",
                {"id": plan_id, "head": row["head"]},
            ).fetchone()["parent"]
            if parent is None:
                raise NothingToDoError("There is nothing to undo.")
            _move_head(connection, plan_id, parent)
            return _read(connection, plan_id)

    def redo(self, plan_id: str, version: int) -> StoredPlan:
        """Go to the newest revision made from this one. Raises as `undo`."""
        with self.database.writing() as connection:
            row = _fresh(connection, plan_id, version)
            child = _newest_child(connection, plan_id, row["head"])
            if child is None:
                raise NothingToDoError("There is nothing to redo.")
            _move_head(connection, plan_id, child["number"])
            return _read(connection, plan_id)

    def revisions(self, plan_id: str) -> list[Revision]:
        """Every revision of a plan, newest first. Raises PlanNotFoundError."""
        with self.database.reading() as connection:
            head = _plan_row(connection, plan_id)["head"]
            rows = connection.execute(
                "SELECT number, parent, label, created_at FROM plan_revision "
                "WHERE plan_id = :id ORDER BY number DESC",
                {"id": plan_id},
            ).fetchall()
        return [
            Revision(
                row["number"], row["parent"], row["label"], row["created_at"], row["number"] == head
            )
            for row in rows
        ]

    def at_revision(self, plan_id: str, number: int) -> Plan:
        """The plan as it was at one of its steps. Raises PlanNotFoundError, BrokenPlanError."""
        with self.database.reading() as connection:
            _plan_row(connection, plan_id)
            return _plan_at(connection, plan_id, number)

    def go_back(self, plan_id: str, version: int, number: int) -> StoredPlan:
        """Make a plan what it was at one of its steps; that is its next step. Raises as `save`."""
        plan = self.at_revision(plan_id, number)
        label = next(step.label for step in self.revisions(plan_id) if step.number == number)
        return self.save(plan_id, version, plan, f"back to: {label}"[:200])

    def with_steps(self, plan_id: str) -> PlanFile:
        """A plan with all its steps. Raises PlanNotFoundError, BrokenPlanError."""
        steps = tuple(
            Step(
                one.number,
                one.parent,
                one.label,
                one.created_at,
                self.at_revision(plan_id, one.number),
            )
            for one in reversed(self.revisions(plan_id))
        )
        head = next(one.number for one in self.revisions(plan_id) if one.current)
        return PlanFile(steps[head - 1].plan, steps, head)

    def import_all(self, entries: Sequence[PlanFile], label: str) -> list[StoredPlan]:
        """Store plans of a file under fresh ids, with their steps: all of them or none."""
        with self.database.writing() as connection:
            return [_bring_in(connection, entry, label) for entry in entries]

    def in_bin(self) -> list[BinnedPlan]:
        """Plans that are put away, the last one first."""
        with self.database.reading() as connection:
            rows = connection.execute(
                "SELECT plan.id, deleted_at, json_extract(document, '$.name') AS name FROM plan "
                "JOIN plan_revision ON plan_id = plan.id AND number = head "
                "WHERE deleted_at IS NOT NULL ORDER BY deleted_at DESC, plan.id"
            ).fetchall()
        return [BinnedPlan(row["id"], str(row["name"]), row["deleted_at"]) for row in rows]

    def empty_bin(self, plan_ids: Sequence[str]) -> int:
        """Delete plans that are put away for good, with their steps. Returns how many."""
        with self.database.writing() as connection:
            connection.execute("PRAGMA defer_foreign_keys = ON")
            return sum(
                connection.execute(
                    "DELETE FROM plan WHERE id = :id AND deleted_at IS NOT NULL", {"id": plan_id}
                ).rowcount
                for plan_id in plan_ids
            )

    def delete(self, plan_id: str, version: int) -> None:
        """Put a plan away; `restore` brings it back."""
        with self.database.writing() as connection:
            _fresh(connection, plan_id, version)
            connection.execute(
                "UPDATE plan SET deleted_at = :now, version = version + 1 WHERE id = :id",
                {"id": plan_id, "now": _now()},
            )

    def restore(self, plan_id: str) -> StoredPlan:
        """Bring a deleted plan back. Raises PlanNotFoundError, BrokenPlanError."""
        with self.database.writing() as connection:
            connection.execute(
                "UPDATE plan SET deleted_at = NULL, version = version + 1 "
                "WHERE id = :id AND deleted_at IS NOT NULL",
                {"id": plan_id},
            )
        return self.get(plan_id)  # which may be broken, and is back all the same


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="milliseconds")


def _fresh_id() -> str:
    return secrets.token_urlsafe(6).replace("-", "a").replace("_", "b")


def _create(connection: sqlite3.Connection, plan_id: str, plan: Plan, label: str) -> StoredPlan:
    connection.execute(
        "INSERT INTO plan (id, head, created_at, changed_at) VALUES (:id, 1, :now, :now)",
        {"id": plan_id, "now": _now()},
    )
    _insert_revision(connection, plan_id, 1, None, label, plan)
    return _read(connection, plan_id)


def _plan_at(connection: sqlite3.Connection, plan_id: str, number: int) -> Plan:
    row = connection.execute(
        "SELECT document FROM plan_revision WHERE plan_id = :id AND number = :number",
        {"id": plan_id, "number": number},
    ).fetchone()
    if row is None:
        raise PlanNotFoundError(f"{plan_id}, step {number}")
    try:
        return plan_from(json.loads(row["document"]))
    except InputError as error:
        raise BrokenPlanError(f"This version cannot read that step. {error}") from error


def _bring_in(connection: sqlite3.Connection, entry: PlanFile, label: str) -> StoredPlan:
    new_id, now = _fresh_id(), _now()
    connection.execute("PRAGMA defer_foreign_keys = ON")
    connection.execute(
        "INSERT INTO plan (id, head, created_at, changed_at) VALUES (:id, :head, :now, :now)",
        {"id": new_id, "head": entry.head if entry.steps else 1, "now": now},
    )
    for step in entry.steps:
        _insert_revision(
            connection,
            new_id,
            step.number,
            step.parent,
            step.label or label,
            step.plan,
            step.created_at or None,
        )
    if not entry.steps:
        _insert_revision(connection, new_id, 1, None, label, entry.plan)
    return _read(connection, new_id)


def _insert_revision(
    connection: sqlite3.Connection,
    plan_id: str,
    number: int,
    parent: int | None,
    label: str,
    plan: Plan,
    created_at: str | None = None,
) -> None:
    connection.execute(
        "INSERT INTO plan_revision (plan_id, number, parent, label, document, created_at) "
        "VALUES (:id, :number, :parent, :label, :document, :now)",
        {
            "id": plan_id,
            "number": number,
            "parent": parent,
            "label": label,
            "document": plan.model_dump_json(),
            "now": created_at or _now(),
        },
    )


def _move_head(connection: sqlite3.Connection, plan_id: str, number: int) -> None:
    connection.execute(
        "UPDATE plan SET head = :number, version = version + 1, changed_at = :now WHERE id = :id",
        {"id": plan_id, "number": number, "now": _now()},
    )


def _plan_row(connection: sqlite3.Connection, plan_id: str) -> sqlite3.Row:
    row: sqlite3.Row | None = connection.execute(
        "SELECT plan.version, plan.head, plan.changed_at, plan_revision.document, "
        "plan_revision.parent, plan_revision.label FROM plan JOIN plan_revision "
        "ON plan_revision.plan_id = plan.id AND plan_revision.number = plan.head "
        "WHERE plan.id = :id AND plan.deleted_at IS NULL",
        {"id": plan_id},
    ).fetchone()
    if row is None:
        raise PlanNotFoundError(plan_id)
    return row


def _fresh(connection: sqlite3.Connection, plan_id: str, version: int) -> sqlite3.Row:
    row = _plan_row(connection, plan_id)
    if row["version"] != version:
        labels = connection.execute(
            "SELECT label FROM plan_revision WHERE plan_id = :id ORDER BY number DESC LIMIT :count",
            {"id": plan_id, "count": min(max(row["version"] - version, 1), 5)},
        ).fetchall()
        raise StaleWriteError(row["version"], [entry["label"] for entry in labels])
    return row


def _newest_child(connection: sqlite3.Connection, plan_id: str, head: int) -> sqlite3.Row | None:
    child: sqlite3.Row | None = connection.execute(
        "SELECT number, label FROM plan_revision WHERE plan_id = :id AND parent = :head "
        "ORDER BY number DESC LIMIT 1",
        {"id": plan_id, "head": head},
    ).fetchone()
    return child


def _read_or_told(connection: sqlite3.Connection, plan_id: str) -> StoredPlan | BrokenPlan:
    try:
        return _read(connection, plan_id)
    except BrokenPlanError as error:
        row = _plan_row(connection, plan_id)
        document = json.loads(row["document"])
        name = document.get("name") if isinstance(document, dict) else None
        told = name if isinstance(name, str) else "Plan without a name"
        return BrokenPlan(plan_id, row["version"], told[:120], str(error), row["changed_at"])


def _read(connection: sqlite3.Connection, plan_id: str) -> StoredPlan:
    row = _plan_row(connection, plan_id)
    child = _newest_child(connection, plan_id, row["head"])
    try:
        plan = plan_from(json.loads(row["document"]))
    except InputError as error:
        raise BrokenPlanError(f"This version cannot read it. {error}") from error
    return StoredPlan(
        id=plan_id,
        version=row["version"],
        plan=plan,
        changed_at=row["changed_at"],
        undo_label=row["label"] if row["parent"] is not None else None,
        redo_label=child["label"] if child is not None else None,
    )
