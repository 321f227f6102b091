-- All that is known of a person is one text of data, read by the version of it that it names.
ALTER TABLE person ADD COLUMN format INTEGER NOT NULL DEFAULT 1;
ALTER TABLE person ADD COLUMN details TEXT NOT NULL DEFAULT '{}';

UPDATE person SET details = json_patch(
    CASE usual_tier
        WHEN 'Easier' THEN '{"level":{"squat":"easier","lunge":"easier","hinge":"easier","bridge":"easier"}}'
        WHEN 'Harder' THEN '{"level":{"squat":"harder","lunge":"harder","hinge":"harder","bridge":"harder"}}'
        ELSE '{}'
    END,
    CASE WHEN stature_cm IS NULL THEN '{}' ELSE json_object('statureCm', stature_cm) END);

ALTER TABLE person DROP COLUMN usual_tier;
ALTER TABLE person DROP COLUMN stature_cm;

-- People who belong together: who usually come on a day, or who want to stay in one group.
CREATE TABLE circle (
    id       TEXT PRIMARY KEY,
    name     TEXT    NOT NULL,
    -- They stay in one group of a rotation.
    together INTEGER NOT NULL CHECK (together IN (0, 1))
) STRICT;

CREATE TABLE circle_person (
    circle_id TEXT NOT NULL REFERENCES circle (id) ON DELETE CASCADE,
    person_id TEXT NOT NULL REFERENCES person (id) ON DELETE CASCADE,
    PRIMARY KEY (circle_id, person_id)
) STRICT;

-- Rooms with their floor and their stock, each as one text of data.
CREATE TABLE room (
    id     TEXT PRIMARY KEY,
    name   TEXT    NOT NULL,
    format INTEGER NOT NULL DEFAULT 1,
    floor  TEXT    NOT NULL,
    stock  TEXT    NOT NULL
) STRICT;

ALTER TABLE session ADD COLUMN room_id TEXT REFERENCES room (id) ON DELETE SET NULL;

-- The instructor's own choice for somebody at a station.
CREATE TABLE session_pin (
    session_id TEXT NOT NULL REFERENCES session (id) ON DELETE CASCADE,
    person_id  TEXT NOT NULL REFERENCES person (id) ON DELETE CASCADE,
    station    TEXT NOT NULL,
    option     TEXT NOT NULL,
    reason     TEXT NOT NULL,
    PRIMARY KEY (session_id, person_id, station)
) STRICT;

-- In which group of a block somebody begins, from 0.
CREATE TABLE session_group (
    session_id TEXT    NOT NULL REFERENCES session (id) ON DELETE CASCADE,
    person_id  TEXT    NOT NULL REFERENCES person (id) ON DELETE CASCADE,
    block      TEXT    NOT NULL,
    place      INTEGER NOT NULL,
    PRIMARY KEY (session_id, person_id, block)
) STRICT;

-- Where stations stand on the floor, and which looks before use are done.
CREATE TABLE session_layout (
    session_id TEXT PRIMARY KEY REFERENCES session (id) ON DELETE CASCADE,
    layout     TEXT NOT NULL,
    looked     TEXT NOT NULL
) STRICT;

CREATE INDEX session_pin_of_person ON session_pin (person_id);
CREATE INDEX session_group_of_person ON session_group (person_id);

-- How many of those who came were erased since: what others are counted with stays, without a name.
ALTER TABLE log ADD COLUMN erased INTEGER NOT NULL DEFAULT 0;
