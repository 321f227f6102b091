-- What the instructor chose for all classes, each a JSON text under its name.
CREATE TABLE setting (
    name  TEXT PRIMARY KEY,
    value TEXT NOT NULL
) STRICT;

-- Blocks kept to begin from.
CREATE TABLE template (
    id         TEXT PRIMARY KEY,
    name       TEXT NOT NULL,
    block      TEXT NOT NULL,
    created_at TEXT NOT NULL
) STRICT;
