-- What files that ship with the program were read as. Reading YAML takes a tenth of the start on a
-- small board; a reading is good for as long as the text of its file is the same.

CREATE TABLE reading (
    file TEXT NOT NULL PRIMARY KEY,
    text TEXT NOT NULL,
    document TEXT NOT NULL CHECK (json_valid(document))
) STRICT;
