-- How often a document was changed: a writer says from which revision. Where nothing is noted it is the first.
CREATE TABLE document_revision (
    document TEXT    PRIMARY KEY,
    revision INTEGER NOT NULL
) STRICT;

-- Changes that arrived, by their own ids: one that is sent again, because its answer was lost, is answered like the first time.
CREATE TABLE document_change (
    id       TEXT    PRIMARY KEY,
    document TEXT    NOT NULL,
    revision INTEGER NOT NULL,
    made_at  TEXT    NOT NULL
) STRICT;

CREATE INDEX document_change_by_time ON document_change (made_at);
