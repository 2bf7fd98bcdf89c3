-- Parts by revision, and plans as immutable numbered revisions, so that undo is a pointer and
-- nothing that was once saved is overwritten.

CREATE TABLE part (
    id TEXT NOT NULL,
    revision INTEGER NOT NULL CHECK (revision >= 1),
    document TEXT NOT NULL CHECK (json_valid(document)),
    kind TEXT NOT NULL GENERATED ALWAYS AS (json_extract(document, '$.kind')) STORED,
    created_at TEXT NOT NULL,
    PRIMARY KEY (id, revision)
) STRICT, WITHOUT ROWID;

CREATE TABLE plan (
    id TEXT NOT NULL PRIMARY KEY,
    -- Rises with every change, undo and redo included; a write names the version it was made from.
    version INTEGER NOT NULL DEFAULT 1 CHECK (version >= 1),
    head INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    changed_at TEXT NOT NULL,
    deleted_at TEXT,
    FOREIGN KEY (id, head) REFERENCES plan_revision (plan_id, number)
        DEFERRABLE INITIALLY DEFERRED
) STRICT;

CREATE TABLE plan_revision (
    plan_id TEXT NOT NULL REFERENCES plan (id) ON DELETE CASCADE,
    number INTEGER NOT NULL CHECK (number >= 1),
    parent INTEGER,
    -- What the change from the parent was, in words.
    label TEXT NOT NULL,
    document TEXT NOT NULL CHECK (json_valid(document)),
    created_at TEXT NOT NULL,
    PRIMARY KEY (plan_id, number),
    FOREIGN KEY (plan_id, parent) REFERENCES plan_revision (plan_id, number)
) STRICT, WITHOUT ROWID;

-- Serves redo: the newest child of a revision.
CREATE INDEX plan_revision_parent ON plan_revision (plan_id, parent, number);
