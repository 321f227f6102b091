-- Words that the instructor recorded once, for a device without a voice.
CREATE TABLE clip (
    word  TEXT PRIMARY KEY,
    type  TEXT NOT NULL,
    sound BLOB NOT NULL
) STRICT;
