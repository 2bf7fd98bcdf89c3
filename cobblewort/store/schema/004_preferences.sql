-- How figures are shown and how the page looks and listens: one document, in the archive like all
-- else.

CREATE TABLE preference (
    one INTEGER NOT NULL PRIMARY KEY CHECK (one = 1),
    document TEXT NOT NULL CHECK (json_valid(document))
) STRICT;
