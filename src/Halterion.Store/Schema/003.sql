-- The user's own moves, kept apart from the shipped ones; each a JSON text as it stands in a class file.
CREATE TABLE own_move (
    id   TEXT PRIMARY KEY,
    move TEXT NOT NULL
) STRICT;
