-- Sets that tell how strong a client is: what was asked of an action at most, and how many reps were done and left.
CREATE TABLE strength_set (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    client_id INTEGER NOT NULL,
    logged_at TEXT NOT NULL,
    exercise TEXT NOT NULL CHECK (length(exercise) BETWEEN 1 AND 60),
    words TEXT NOT NULL CHECK (length(words) BETWEEN 1 AND 300),
    side TEXT NOT NULL CHECK (side IN ('left', 'right', 'both')),
    reps INTEGER NOT NULL CHECK (reps BETWEEN 1 AND 100),
    reserve INTEGER NOT NULL CHECK (reserve BETWEEN 0 AND 20),
    formula TEXT NOT NULL CHECK (formula IN ('epley', 'brzycki')),
    UNIQUE (trainer_id, id),
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX strength_set_by_client ON strength_set (client_id);

-- kappa: strength over the usual curve; at_least: another joint gave out first, so it may be more.
CREATE TABLE strength_scale (
    set_id INTEGER NOT NULL,
    action TEXT NOT NULL CHECK (action IN ('hip_extension', 'hip_flexion', 'knee_extension', 'knee_flexion',
                                           'plantarflexion', 'dorsiflexion')),
    trainer_id INTEGER NOT NULL,
    kappa REAL NOT NULL CHECK (kappa > 0 AND kappa < 100),
    error_share REAL NOT NULL CHECK (error_share BETWEEN 0 AND 1),
    demand_nm REAL NOT NULL CHECK (demand_nm > 0),
    at_least INTEGER NOT NULL CHECK (at_least IN (0, 1)),
    PRIMARY KEY (set_id, action),
    FOREIGN KEY (trainer_id, set_id) REFERENCES strength_set (trainer_id, id) ON DELETE CASCADE
) STRICT;
