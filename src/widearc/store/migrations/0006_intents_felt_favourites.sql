-- What is wanted, said by itself and kept under a name.
CREATE TABLE intent (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id),
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    kept_at TEXT NOT NULL,
    sets INTEGER NOT NULL CHECK (sets BETWEEN 1 AND 20),
    reps INTEGER NOT NULL CHECK (reps BETWEEN 1 AND 100),
    lowering_s REAL NOT NULL CHECK (lowering_s BETWEEN 0.1 AND 120),
    lifting_s REAL NOT NULL CHECK (lifting_s BETWEEN 0.1 AND 120),
    style TEXT NOT NULL CHECK (style IN ('plain', 'pause', 'slow-lowering', 'lowering-only', 'one-and-a-quarter',
                                         'partials', 'hold', 'burn-out')),
    style_at_deg REAL,
    style_seconds REAL,
    style_end TEXT NOT NULL CHECK (style_end IN ('lengthened', 'shortened')),
    style_from_deg REAL,
    style_to_deg REAL,
    by_feel INTEGER NOT NULL CHECK (by_feel IN (0, 1)),
    UNIQUE (trainer_id, id),
    UNIQUE (trainer_id, name)
) STRICT;

CREATE TABLE intent_action (
    intent_id INTEGER NOT NULL,
    trainer_id INTEGER NOT NULL,
    position INTEGER NOT NULL CHECK (position BETWEEN 0 AND 1),
    action TEXT NOT NULL CHECK (action IN ('knee_extension', 'hip_extension', 'knee_flexion', 'hip_flexion',
                                           'plantarflexion', 'hip_abduction', 'hip_adduction')),
    from_deg REAL NOT NULL,
    to_deg REAL NOT NULL,
    shape TEXT CHECK (shape IN ('stretch', 'even', 'squeeze', 'strength')),
    mean_nm REAL CHECK (mean_nm > 0),
    PRIMARY KEY (intent_id, position),
    FOREIGN KEY (trainer_id, intent_id) REFERENCES intent (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE intent_handle (
    intent_id INTEGER NOT NULL,
    position INTEGER NOT NULL,
    trainer_id INTEGER NOT NULL,
    fraction REAL NOT NULL CHECK (fraction BETWEEN 0 AND 1),
    nm REAL NOT NULL CHECK (nm BETWEEN 0 AND 2000),
    PRIMARY KEY (intent_id, position, fraction),
    FOREIGN KEY (intent_id, position) REFERENCES intent_action (intent_id, position) ON DELETE CASCADE
) STRICT;

-- Where a set-up felt hardest, beside where it was computed to be hardest; both as a third of the range.
CREATE TABLE felt (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    client_id INTEGER NOT NULL,
    felt_at TEXT NOT NULL,
    exercise TEXT NOT NULL CHECK (length(exercise) BETWEEN 1 AND 60),
    words TEXT NOT NULL CHECK (length(words) BETWEEN 1 AND 300),
    felt TEXT NOT NULL CHECK (felt IN ('lengthened', 'middle', 'shortened')),
    computed TEXT NOT NULL CHECK (computed IN ('lengthened', 'middle', 'shortened')),
    UNIQUE (trainer_id, id),
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX felt_by_client ON felt (client_id, exercise);

-- A stand-in the trainer prefers whatever is computed, with the reason.
CREATE TABLE favourite (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id),
    wanted TEXT NOT NULL CHECK (length(wanted) BETWEEN 1 AND 60),
    exercise TEXT NOT NULL CHECK (length(exercise) BETWEEN 1 AND 60),
    reason TEXT NOT NULL CHECK (length(reason) BETWEEN 1 AND 200),
    kept_at TEXT NOT NULL,
    UNIQUE (trainer_id, wanted, exercise)
) STRICT;

-- An item that one client uses now: taken for every other client in the room, free for this one.
CREATE TABLE set_aside (
    equipment_id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    client_id INTEGER NOT NULL,
    since TEXT NOT NULL,
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX set_aside_by_client ON set_aside (client_id);

-- The strip of a decision: what was intended and what was actual over the wanted range, lengthened first, N·m.
CREATE TABLE decision_strip (
    decision_id INTEGER NOT NULL,
    position INTEGER NOT NULL CHECK (position >= 0),
    trainer_id INTEGER NOT NULL,
    intended_nm REAL NOT NULL CHECK (intended_nm >= 0),
    actual_nm REAL NOT NULL CHECK (actual_nm >= 0),
    PRIMARY KEY (decision_id, position),
    FOREIGN KEY (trainer_id, decision_id) REFERENCES decision (trainer_id, id) ON DELETE CASCADE
) STRICT;

-- The strip of a set that was done: demand on the joint asked most, even steps from lengthened to shortened, N·m.
CREATE TABLE strength_strip (
    set_id INTEGER NOT NULL,
    position INTEGER NOT NULL CHECK (position >= 0),
    trainer_id INTEGER NOT NULL,
    demand_nm REAL NOT NULL CHECK (demand_nm >= 0),
    PRIMARY KEY (set_id, position),
    FOREIGN KEY (trainer_id, set_id) REFERENCES strength_set (trainer_id, id) ON DELETE CASCADE
) STRICT;
