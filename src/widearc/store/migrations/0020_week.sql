-- Weeks of days of slots, of a client or as templates; what of a session answers which.

-- monday: ISO date, NULL for a template, which is no client's either
CREATE TABLE week (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    client_id INTEGER,
    monday TEXT CHECK (length(monday) = 10),
    name TEXT NOT NULL DEFAULT '' CHECK (length(name) <= 80),
    CHECK ((client_id IS NULL) = (monday IS NULL)),
    UNIQUE (trainer_id, id),
    UNIQUE (trainer_id, client_id, monday),
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE
) STRICT;

CREATE TABLE week_day (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    week_id INTEGER NOT NULL,
    weekday INTEGER NOT NULL CHECK (weekday BETWEEN 0 AND 6),
    place_id INTEGER NOT NULL,
    starts_at TEXT NOT NULL DEFAULT '09:00' CHECK (starts_at GLOB '[0-2][0-9]:[0-5][0-9]'),
    UNIQUE (trainer_id, id),
    UNIQUE (week_id, weekday),
    FOREIGN KEY (trainer_id, week_id) REFERENCES week (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, place_id) REFERENCES place (trainer_id, id) ON DELETE CASCADE
) STRICT;

-- scenario: how it is set up, NULL until it is first looked at; minutes: of what is not counted in sets
CREATE TABLE slot (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    day_id INTEGER NOT NULL,
    position INTEGER NOT NULL CHECK (position >= 0),
    kind TEXT NOT NULL DEFAULT 'lift' CHECK (kind IN ('lift', 'warm-up', 'finisher', 'mobility')),
    exercise TEXT NOT NULL CHECK (length(exercise) BETWEEN 1 AND 60),
    scenario TEXT CHECK (json_valid(scenario)),
    said TEXT NOT NULL DEFAULT '' CHECK (length(said) <= 20000),
    pieces TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(pieces)),
    items TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(items)),
    asked TEXT NOT NULL DEFAULT '' CHECK (length(asked) <= 4000),
    sets_low INTEGER NOT NULL CHECK (sets_low BETWEEN 1 AND 20),
    sets_high INTEGER NOT NULL CHECK (sets_high BETWEEN sets_low AND 20),
    reps_low INTEGER NOT NULL CHECK (reps_low BETWEEN 1 AND 100),
    reps_high INTEGER NOT NULL CHECK (reps_high BETWEEN reps_low AND 100),
    lowering_s REAL NOT NULL DEFAULT 2 CHECK (lowering_s BETWEEN 0.1 AND 120),
    hold_s REAL NOT NULL DEFAULT 0 CHECK (hold_s BETWEEN 0 AND 600),
    lifting_s REAL NOT NULL DEFAULT 1 CHECK (lifting_s BETWEEN 0.1 AND 120),
    rest_s INTEGER NOT NULL CHECK (rest_s BETWEEN 0 AND 3600),
    minutes REAL CHECK (minutes BETWEEN 0.5 AND 180),
    note TEXT NOT NULL DEFAULT '' CHECK (length(note) <= 300),
    UNIQUE (trainer_id, id),
    FOREIGN KEY (trainer_id, day_id) REFERENCES week_day (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX slot_by_day ON slot (day_id, position);

CREATE TABLE finding_aside (
    trainer_id INTEGER NOT NULL,
    week_id INTEGER NOT NULL,
    finding TEXT NOT NULL CHECK (length(finding) BETWEEN 1 AND 40),
    reason TEXT NOT NULL CHECK (length(reason) BETWEEN 1 AND 300),
    PRIMARY KEY (week_id, finding),
    FOREIGN KEY (trainer_id, week_id) REFERENCES week (trainer_id, id) ON DELETE CASCADE
) STRICT;

ALTER TABLE session ADD COLUMN day_id INTEGER REFERENCES week_day (id) ON DELETE SET NULL;
ALTER TABLE lift ADD COLUMN slot_id INTEGER REFERENCES slot (id) ON DELETE SET NULL;
