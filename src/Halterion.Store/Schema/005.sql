-- A class is a plan and its versions; a session is an occasion on which it is held. What was one becomes two, and what
-- stood by its place in the plan is named by its id. (Old files wrote no ids, so those given by place hold.)
CREATE TABLE session (
    id            TEXT PRIMARY KEY,
    class_id      TEXT    NOT NULL REFERENCES class (id) ON DELETE CASCADE,
    -- The version that was led or logged, fixed for good from then on.
    class_version INTEGER,
    revision      INTEGER NOT NULL,
    starts_at     TEXT,
    zone          TEXT    NOT NULL,
    head_count    INTEGER NOT NULL CHECK (head_count BETWEEN 0 AND 500),
    created_at    TEXT    NOT NULL,
    removed_at    TEXT
) STRICT;

CREATE INDEX session_of_class ON session (class_id);
CREATE INDEX session_by_start ON session (starts_at);

-- Who is expected.
CREATE TABLE session_person (
    session_id TEXT NOT NULL REFERENCES session (id) ON DELETE CASCADE,
    person_id  TEXT NOT NULL REFERENCES person (id) ON DELETE CASCADE,
    PRIMARY KEY (session_id, person_id)
) STRICT;

-- Of the leads of a class the latest that was started, else the latest, is the one of its booking.
CREATE TEMP TABLE ranked AS
SELECT id, class_id, version, script, created_at, started,
       row_number() OVER (PARTITION BY class_id ORDER BY started DESC, created_at DESC, id DESC) AS place
FROM (SELECT lead.*, EXISTS (SELECT 1 FROM lead_command k WHERE k.lead_id = lead.id) AS started FROM lead);

INSERT INTO session (id, class_id, class_version, revision, starts_at, zone, head_count, created_at, removed_at)
SELECT c.id, c.id,
       coalesce(
           (SELECT version FROM ranked WHERE ranked.class_id = c.id AND place = 1 AND started = 1),
           (SELECT max(v.version) FROM revision v JOIN log ON log.class_id = v.class_id WHERE v.class_id = c.id AND v.saved_at <= log.saved_at)),
       1, r.starts_at, r.zone, r.head_count, c.created_at, NULL
FROM class c JOIN revision r ON r.class_id = c.id AND r.version = (SELECT max(version) FROM revision WHERE class_id = c.id);

-- A class that was led again had no second booking; each such lead becomes a session of its own.
INSERT INTO session (id, class_id, class_version, revision, starts_at, zone, head_count, created_at, removed_at)
SELECT ranked.id, ranked.class_id, ranked.version, 1, NULL, s.zone, s.head_count, ranked.created_at, NULL
FROM ranked JOIN session s ON s.id = ranked.class_id
WHERE place > 1 AND started = 1;

CREATE TABLE lead_5 (
    id            TEXT PRIMARY KEY,
    session_id    TEXT    NOT NULL REFERENCES session (id) ON DELETE CASCADE,
    class_version INTEGER NOT NULL,
    format        INTEGER NOT NULL,
    created_at    TEXT    NOT NULL,
    -- Another lead of the session took its place.
    superseded_at TEXT,
    script        TEXT    NOT NULL
) STRICT;

INSERT INTO lead_5 (id, session_id, class_version, format, created_at, superseded_at, script)
SELECT id, CASE WHEN place > 1 AND started = 1 THEN id ELSE class_id END, version, 1, created_at,
       CASE WHEN place > 1 AND started = 0 THEN created_at END, script
FROM ranked;

DROP TABLE ranked;
DROP TABLE lead;
ALTER TABLE lead_5 RENAME TO lead;
CREATE UNIQUE INDEX open_lead ON lead (session_id) WHERE superseded_at IS NULL;

ALTER TABLE lead_command ADD COLUMN device TEXT NOT NULL DEFAULT '';
ALTER TABLE lead_command ADD COLUMN payload TEXT;

CREATE TABLE log_5 (
    session_id TEXT PRIMARY KEY REFERENCES session (id) ON DELETE CASCADE,
    version    INTEGER NOT NULL,
    saved_at   TEXT NOT NULL,
    note       TEXT NOT NULL
) STRICT;

INSERT INTO log_5 SELECT class_id, version, saved_at, note FROM log;

CREATE TABLE log_row_5 (
    session_id TEXT    NOT NULL REFERENCES log (session_id) ON DELETE CASCADE,
    person_id  TEXT    NOT NULL REFERENCES person (id) ON DELETE CASCADE,
    came       INTEGER NOT NULL CHECK (came IN (0, 1)),
    note       TEXT    NOT NULL,
    PRIMARY KEY (session_id, person_id)
) STRICT;

INSERT INTO log_row_5 SELECT class_id, person_id, came, note FROM log_row;

-- Stations and options by their ids in the version that is logged; no option: left out.
CREATE TABLE log_use_5 (
    session_id TEXT NOT NULL,
    person_id  TEXT NOT NULL,
    station    TEXT NOT NULL,
    option     TEXT,
    PRIMARY KEY (session_id, person_id, station),
    FOREIGN KEY (session_id, person_id) REFERENCES log_row (session_id, person_id) ON DELETE CASCADE
) STRICT;

INSERT INTO log_use_5
SELECT class_id, person_id, 'b' || (block + 1) || 's' || (station + 1), 'b' || (block + 1) || 's' || (station + 1) || 'o' || (option + 1)
FROM log_use;

DROP TABLE log_use;
DROP TABLE log_row;
DROP TABLE log;
ALTER TABLE log_5 RENAME TO log;
ALTER TABLE log_row_5 RENAME TO log_row;
ALTER TABLE log_use_5 RENAME TO log_use;
CREATE INDEX log_row_of_person ON log_row (person_id);

-- What a list needs stands before the plan, so that it is read without it.
CREATE TABLE revision_5 (
    class_id      TEXT    NOT NULL REFERENCES class (id) ON DELETE CASCADE,
    version       INTEGER NOT NULL,
    saved_at      TEXT    NOT NULL,
    title         TEXT    NOT NULL,
    -- Measured by the library named: length and length less the slot, in seconds; no length: a draft with faults.
    measured_with TEXT,
    seconds       INTEGER,
    over_seconds  INTEGER,
    plan          TEXT    NOT NULL,
    PRIMARY KEY (class_id, version)
) STRICT;

INSERT INTO revision_5 (class_id, version, saved_at, title, plan)
SELECT class_id, version, saved_at, title, plan FROM revision;

DROP TABLE revision;
ALTER TABLE revision_5 RENAME TO revision;

-- A copy is told from its original.
ALTER TABLE class ADD COLUMN copy_of TEXT REFERENCES class (id) ON DELETE SET NULL;

-- Written and read back to see whether the store works.
CREATE TABLE health (
    id         INTEGER PRIMARY KEY CHECK (id = 1),
    checked_at TEXT NOT NULL
) STRICT;
