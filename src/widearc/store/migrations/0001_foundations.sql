-- Trainers, clients, places, equipment with what was measured, decisions, and the undo history.
-- Every row belongs to a trainer; composite keys hold children to their parent's trainer.

CREATE TABLE trainer (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
    created_at TEXT NOT NULL
) STRICT;

CREATE TABLE client (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
    mass_kg REAL NOT NULL CHECK (mass_kg BETWEEN 25 AND 300),
    stature_m REAL NOT NULL CHECK (stature_m BETWEEN 1.0 AND 2.4),
    sex TEXT NOT NULL DEFAULT 'mean' CHECK (sex IN ('male', 'female', 'mean')),
    dorsiflexion_deg REAL NOT NULL DEFAULT 35 CHECK (dorsiflexion_deg BETWEEN 0 AND 60),
    hip_flexion_deg REAL NOT NULL DEFAULT 125 CHECK (hip_flexion_deg BETWEEN 60 AND 160),
    knee_deg REAL NOT NULL DEFAULT 140 CHECK (knee_deg BETWEEN 30 AND 160),
    no_axial_load INTEGER NOT NULL DEFAULT 0 CHECK (no_axial_load IN (0, 1)),
    to_shoulders_kg REAL CHECK (to_shoulders_kg BETWEEN 0 AND 500),
    UNIQUE (trainer_id, id),
    UNIQUE (trainer_id, name)
) STRICT;

CREATE TABLE place (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
    note TEXT NOT NULL DEFAULT '',
    UNIQUE (trainer_id, id),
    UNIQUE (trainer_id, name)
) STRICT;

CREATE TABLE equipment (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    place_id INTEGER NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('sled press', 'bar', 'plate', 'dumbbell', 'kettlebell', 'band',
                                       'bench', 'box', 'rack', 'anchor')),
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
    zone TEXT NOT NULL DEFAULT '',
    state TEXT NOT NULL DEFAULT 'free' CHECK (state IN ('free', 'taken', 'broken')),
    state_at TEXT,
    UNIQUE (trainer_id, id),
    UNIQUE (place_id, name),
    FOREIGN KEY (trainer_id, place_id) REFERENCES place (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE INDEX equipment_by_place ON equipment (place_id);

-- How many of a size there are: bars, plates, dumbbells, kettlebells.
CREATE TABLE stock (
    equipment_id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    kg REAL NOT NULL CHECK (kg > 0 AND kg <= 200),
    count INTEGER NOT NULL CHECK (count BETWEEN 0 AND 200),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE
) STRICT;

-- Heights of benches, boxes and racks.
CREATE TABLE furniture (
    equipment_id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    height_m REAL NOT NULL CHECK (height_m BETWEEN 0.02 AND 3),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE anchor_point (
    equipment_id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    height_m REAL NOT NULL CHECK (height_m BETWEEN 0 AND 5),
    holds_n REAL CHECK (holds_n BETWEEN 0 AND 100000),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE sled_press (
    equipment_id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    rail_deg REAL NOT NULL CHECK (rail_deg BETWEEN 0 AND 90),
    empty_kg REAL NOT NULL CHECK (empty_kg BETWEEN 0 AND 500),
    backrest_deg REAL NOT NULL DEFAULT 15 CHECK (backrest_deg BETWEEN 0 AND 80),
    plate_tilt_deg REAL NOT NULL DEFAULT 10 CHECK (plate_tilt_deg BETWEEN -20 AND 30),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE
) STRICT;

-- A band as it was measured: strands = how many strands pulled on the scale.
CREATE TABLE band (
    equipment_id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    shape TEXT NOT NULL CHECK (shape IN ('loop', 'long')),
    strands INTEGER NOT NULL CHECK (strands IN (1, 2)),
    rest_m REAL CHECK (rest_m BETWEEN 0.02 AND 10),
    law TEXT NOT NULL DEFAULT 'points' CHECK (law IN ('points', 'linear')),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE reading (
    equipment_id INTEGER NOT NULL,
    position INTEGER NOT NULL CHECK (position >= 0),
    trainer_id INTEGER NOT NULL,
    length_m REAL NOT NULL CHECK (length_m > 0 AND length_m <= 20),
    force_n REAL NOT NULL CHECK (force_n >= 0 AND force_n <= 20000),
    PRIMARY KEY (equipment_id, position),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE decision (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    place_id INTEGER NOT NULL,
    client_id INTEGER NOT NULL,
    decided_at TEXT NOT NULL,
    wanted_exercise TEXT NOT NULL,
    wanted_kg REAL NOT NULL CHECK (wanted_kg >= 0),
    sets INTEGER NOT NULL CHECK (sets BETWEEN 1 AND 20),
    reps INTEGER NOT NULL CHECK (reps BETWEEN 1 AND 100),
    exercise TEXT NOT NULL,
    set_up TEXT NOT NULL,
    sentence TEXT NOT NULL,
    "match" REAL NOT NULL CHECK ("match" BETWEEN 0 AND 1),
    shape REAL NOT NULL CHECK (shape BETWEEN 0 AND 1),
    reach REAL NOT NULL CHECK (reach BETWEEN 0 AND 1),
    level REAL NOT NULL CHECK (level >= 0),
    removed_at TEXT,
    UNIQUE (trainer_id, id),
    FOREIGN KEY (trainer_id, place_id) REFERENCES place (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE decision_piece (
    decision_id INTEGER NOT NULL,
    position INTEGER NOT NULL CHECK (position >= 0),
    trainer_id INTEGER NOT NULL,
    kind TEXT NOT NULL,
    label TEXT NOT NULL,
    number INTEGER NOT NULL CHECK (number > 0),
    kg REAL NOT NULL CHECK (kg >= 0),
    PRIMARY KEY (decision_id, position),
    FOREIGN KEY (trainer_id, decision_id) REFERENCES decision (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE decision_option (
    decision_id INTEGER NOT NULL,
    name TEXT NOT NULL,
    trainer_id INTEGER NOT NULL,
    value REAL NOT NULL,
    PRIMARY KEY (decision_id, name),
    FOREIGN KEY (trainer_id, decision_id) REFERENCES decision (trainer_id, id) ON DELETE CASCADE
) STRICT;

-- What can be undone, newest first; a readings change keeps the rows as they were before.
CREATE TABLE change (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    place_id INTEGER NOT NULL,
    changed_at TEXT NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('state', 'readings', 'decision')),
    words TEXT NOT NULL,
    equipment_id INTEGER,
    state_before TEXT CHECK (state_before IN ('free', 'taken', 'broken')),
    state_at_before TEXT,
    rest_m_before REAL,
    law_before TEXT,
    strands_before INTEGER,
    shape_before TEXT,
    decision_id INTEGER,
    undone_at TEXT,
    UNIQUE (trainer_id, id),
    FOREIGN KEY (trainer_id, place_id) REFERENCES place (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, decision_id) REFERENCES decision (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE change_reading (
    change_id INTEGER NOT NULL,
    position INTEGER NOT NULL CHECK (position >= 0),
    trainer_id INTEGER NOT NULL,
    length_m REAL NOT NULL,
    force_n REAL NOT NULL,
    PRIMARY KEY (change_id, position),
    FOREIGN KEY (trainer_id, change_id) REFERENCES change (trainer_id, id) ON DELETE CASCADE
) STRICT;
