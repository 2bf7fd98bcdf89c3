-- Parts of one's own beside those that ship, and parts that are put away: plans may still hold
-- them, and nobody is offered them any more.

ALTER TABLE part ADD COLUMN origin TEXT NOT NULL DEFAULT 'pack' CHECK (origin IN ('pack', 'own'));

CREATE TABLE part_away (
    id TEXT NOT NULL PRIMARY KEY,
    away_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;
