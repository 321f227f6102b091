-- What the booking desk said of its classes. Of an address only its hash is kept; all of it goes a week after the class.
CREATE TABLE desk_event (
    uid        TEXT PRIMARY KEY,
    session_id TEXT REFERENCES session (id) ON DELETE SET NULL,
    sequence   INTEGER NOT NULL,
    title      TEXT NOT NULL,
    starts_at  TEXT NOT NULL,
    cancelled  INTEGER NOT NULL,
    heard_at   TEXT NOT NULL
) STRICT;

CREATE TABLE desk_guest (
    uid       TEXT NOT NULL REFERENCES desk_event (uid) ON DELETE CASCADE,
    guest     TEXT NOT NULL,
    name      TEXT NOT NULL,
    standing  TEXT NOT NULL,
    person_id TEXT REFERENCES person (id) ON DELETE SET NULL,
    PRIMARY KEY (uid, guest)
) STRICT;

-- Who a guest is, as it was answered; without a person: nobody of the roster.
CREATE TABLE desk_answer (
    guest     TEXT PRIMARY KEY,
    person_id TEXT REFERENCES person (id) ON DELETE CASCADE
) STRICT;
