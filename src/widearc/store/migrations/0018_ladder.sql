-- By which rule a client's lift goes on, and what a trainer does where practice leaves it open.

-- low, high: reps; percent: share a week; weeks: until a light one, at deload (share of the load)
CREATE TABLE progression (
    trainer_id INTEGER NOT NULL,
    client_id INTEGER NOT NULL,
    exercise TEXT NOT NULL CHECK (length(exercise) BETWEEN 1 AND 60),
    rule TEXT NOT NULL CHECK (rule IN ('all', 'first', 'reps', 'minute', 'percent', 'deload')),
    sets INTEGER NOT NULL CHECK (sets BETWEEN 1 AND 20),
    low INTEGER NOT NULL CHECK (low BETWEEN 1 AND 100),
    high INTEGER NOT NULL CHECK (high BETWEEN low AND 100),
    percent REAL NOT NULL CHECK (percent BETWEEN 0.001 AND 0.2),
    weeks INTEGER NOT NULL CHECK (weeks BETWEEN 1 AND 52),
    deload REAL NOT NULL CHECK (deload BETWEEN 0.1 AND 0.95),
    PRIMARY KEY (trainer_id, client_id, exercise),
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE own_rule (
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    event TEXT NOT NULL CHECK (event IN ('pain', 'failure', 'missed', 'light')),
    act TEXT NOT NULL CHECK (act IN ('same', 'below', 'share', 'back')),
    share REAL NOT NULL CHECK (share BETWEEN 0.1 AND 1),
    reason TEXT NOT NULL DEFAULT '' CHECK (length(reason) <= 300),
    PRIMARY KEY (trainer_id, event)
) STRICT;

-- without a number on the screen
ALTER TABLE trainer ADD COLUMN by_feel INTEGER NOT NULL DEFAULT 0 CHECK (by_feel IN (0, 1));
