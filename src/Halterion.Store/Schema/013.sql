-- What happened, set by set; what a use of a station was is kept with it, so that a history needs no class to be read.
ALTER TABLE log ADD COLUMN details TEXT NOT NULL DEFAULT '{}';
ALTER TABLE log ADD COLUMN minutes INTEGER;
ALTER TABLE log ADD COLUMN effort REAL;
ALTER TABLE log_row ADD COLUMN effort REAL;
ALTER TABLE log_row ADD COLUMN details TEXT NOT NULL DEFAULT '{}';
ALTER TABLE log_use ADD COLUMN details TEXT NOT NULL DEFAULT '{}';
-- The main move of the station; null with an option: written before this step, to be filled in when the file is opened.
ALTER TABLE log_use ADD COLUMN move TEXT;
ALTER TABLE log_use ADD COLUMN work TEXT;
CREATE INDEX log_use_of_person ON log_use (person_id, move);

-- A log as it was before a late correction.
CREATE TABLE log_past (
    session_id TEXT    NOT NULL REFERENCES session (id) ON DELETE CASCADE,
    version    INTEGER NOT NULL,
    saved_at   TEXT    NOT NULL,
    log        TEXT    NOT NULL,
    PRIMARY KEY (session_id, version)
) STRICT;

CREATE TABLE series (
    id         TEXT PRIMARY KEY,
    series     TEXT NOT NULL,
    created_at TEXT NOT NULL,
    removed_at TEXT
) STRICT;

-- The classes that a series begins from, by the names it gives them.
CREATE TABLE series_class (
    series_id TEXT NOT NULL REFERENCES series (id) ON DELETE CASCADE,
    name      TEXT NOT NULL,
    class_id  TEXT NOT NULL REFERENCES class (id) ON DELETE CASCADE,
    PRIMARY KEY (series_id, name)
) STRICT;

-- The occasions that it made. A class whose latest version is not the one written here was changed by hand.
CREATE TABLE series_session (
    series_id  TEXT    NOT NULL REFERENCES series (id) ON DELETE CASCADE,
    session_id TEXT    NOT NULL REFERENCES session (id) ON DELETE CASCADE,
    starts     TEXT    NOT NULL,
    version    INTEGER NOT NULL,
    -- The weeks after it go on from what was changed here by hand.
    followed   INTEGER NOT NULL DEFAULT 0 CHECK (followed IN (0, 1)),
    PRIMARY KEY (series_id, session_id)
) STRICT;
