-- What of a session's findings is left as it is, and why: what depends on who comes, and where.
CREATE TABLE session_waiver (
    session_id TEXT NOT NULL REFERENCES session (id) ON DELETE CASCADE,
    code       TEXT NOT NULL,
    place      TEXT NOT NULL,
    reason     TEXT NOT NULL,
    PRIMARY KEY (session_id, code, place)
) STRICT;

-- What was ticked off while the room was set up.
CREATE TABLE session_tick (
    session_id TEXT NOT NULL REFERENCES session (id) ON DELETE CASCADE,
    tick       TEXT NOT NULL,
    PRIMARY KEY (session_id, tick)
) STRICT;
