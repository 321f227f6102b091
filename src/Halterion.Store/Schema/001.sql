-- A class is its revisions: what it was is never overwritten.
CREATE TABLE class (
    id         TEXT PRIMARY KEY,
    created_at TEXT NOT NULL,
    removed_at TEXT
) STRICT;

-- The plan is the class file, to the byte. What belongs to the booking stands beside it.
CREATE TABLE revision (
    class_id   TEXT    NOT NULL REFERENCES class (id) ON DELETE CASCADE,
    version    INTEGER NOT NULL,
    saved_at   TEXT    NOT NULL,
    plan       TEXT    NOT NULL,
    title      TEXT    NOT NULL,
    starts_at  TEXT,
    zone       TEXT    NOT NULL,
    head_count INTEGER NOT NULL CHECK (head_count BETWEEN 0 AND 500),
    PRIMARY KEY (class_id, version)
) STRICT;

CREATE TABLE person (
    id         TEXT PRIMARY KEY,
    name       TEXT NOT NULL,
    usual_tier TEXT NOT NULL,
    created_at TEXT NOT NULL
) STRICT;

-- A led class keeps its script for good, whatever becomes of the plan.
CREATE TABLE lead (
    id         TEXT PRIMARY KEY,
    class_id   TEXT    NOT NULL REFERENCES class (id) ON DELETE CASCADE,
    version    INTEGER NOT NULL,
    script     TEXT    NOT NULL,
    created_at TEXT    NOT NULL
) STRICT;

CREATE INDEX lead_of_class ON lead (class_id, created_at);

CREATE TABLE lead_command (
    lead_id   TEXT    NOT NULL REFERENCES lead (id) ON DELETE CASCADE,
    seq       INTEGER NOT NULL,
    id        TEXT    NOT NULL,
    kind      TEXT    NOT NULL,
    tapped_at INTEGER NOT NULL,
    PRIMARY KEY (lead_id, seq),
    UNIQUE (lead_id, id)
) STRICT;

CREATE TABLE log (
    class_id TEXT PRIMARY KEY REFERENCES class (id) ON DELETE CASCADE,
    version  INTEGER NOT NULL,
    saved_at TEXT NOT NULL,
    note     TEXT NOT NULL
) STRICT;

CREATE TABLE log_row (
    class_id  TEXT    NOT NULL REFERENCES log (class_id) ON DELETE CASCADE,
    person_id TEXT    NOT NULL REFERENCES person (id) ON DELETE CASCADE,
    came      INTEGER NOT NULL CHECK (came IN (0, 1)),
    note      TEXT    NOT NULL,
    PRIMARY KEY (class_id, person_id)
) STRICT;

CREATE TABLE log_use (
    class_id  TEXT    NOT NULL,
    person_id TEXT    NOT NULL,
    block     INTEGER NOT NULL,
    station   INTEGER NOT NULL,
    option    INTEGER,
    PRIMARY KEY (class_id, person_id, block, station),
    FOREIGN KEY (class_id, person_id) REFERENCES log_row (class_id, person_id) ON DELETE CASCADE
) STRICT;
