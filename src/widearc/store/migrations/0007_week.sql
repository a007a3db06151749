-- What is planned for a week at a place: what is wanted of a client, and how often.
CREATE TABLE planned (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    place_id INTEGER NOT NULL,
    client_id INTEGER NOT NULL,
    monday TEXT NOT NULL CHECK (monday GLOB '[0-9][0-9][0-9][0-9]-[0-1][0-9]-[0-3][0-9]'),
    times INTEGER NOT NULL CHECK (times BETWEEN 1 AND 14),
    exercise TEXT CHECK (length(exercise) BETWEEN 1 AND 60),
    kg REAL CHECK (kg BETWEEN 0 AND 500),
    depth_deg REAL CHECK (depth_deg BETWEEN 30 AND 140),
    shape TEXT CHECK (length(shape) BETWEEN 1 AND 20),
    intent_id INTEGER,
    sets INTEGER NOT NULL CHECK (sets BETWEEN 1 AND 20),
    reps INTEGER NOT NULL CHECK (reps BETWEEN 1 AND 100),
    UNIQUE (trainer_id, id),
    CHECK ((intent_id IS NULL) = (exercise IS NOT NULL AND kg IS NOT NULL AND depth_deg IS NOT NULL
                                  AND shape IS NOT NULL)),
    FOREIGN KEY (trainer_id, place_id) REFERENCES place (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, intent_id) REFERENCES intent (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX planned_by_week ON planned (trainer_id, place_id, monday);
CREATE INDEX planned_by_client ON planned (client_id);
CREATE INDEX planned_by_intent ON planned (intent_id);
