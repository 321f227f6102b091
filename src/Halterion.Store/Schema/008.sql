-- Screens and phones that were let in over the local network. The token itself is only on the device.
CREATE TABLE device (
    id         TEXT PRIMARY KEY,
    name       TEXT NOT NULL,
    role       TEXT NOT NULL,
    token_hash TEXT NOT NULL UNIQUE,
    paired_at  TEXT NOT NULL,
    last_seen  TEXT NOT NULL
) STRICT;
