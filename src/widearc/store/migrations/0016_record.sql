-- The record: sessions, the lifts done in them, their sets, and what each lift asks a rep.

-- a decision can be done later as it was set up: the scenario, and the address at which it was asked
ALTER TABLE decision ADD COLUMN scenario TEXT CHECK (scenario IS NULL OR json_valid(scenario));
ALTER TABLE decision ADD COLUMN uses TEXT CHECK (uses IS NULL OR json_valid(uses));
ALTER TABLE decision ADD COLUMN asked TEXT CHECK (asked IS NULL OR length(asked) <= 4000);

CREATE TABLE session (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    client_id INTEGER NOT NULL,
    place_id INTEGER NOT NULL,
    started_at TEXT NOT NULL,
    ended_at TEXT,
    note TEXT NOT NULL DEFAULT '' CHECK (length(note) <= 500),
    UNIQUE (trainer_id, id),
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, place_id) REFERENCES place (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX session_by_client ON session (trainer_id, client_id, started_at);

-- A lift of a session. scenario: what is done; asked: the address of what was wanted at Swap; said: the set-up in
-- words, kept as a sentence; why: it differs from what stood in its place before (instead_of).
CREATE TABLE lift (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    session_id INTEGER NOT NULL,
    position INTEGER NOT NULL CHECK (position >= 0),
    exercise TEXT NOT NULL CHECK (length(exercise) BETWEEN 1 AND 60),
    scenario TEXT NOT NULL CHECK (json_valid(scenario)),
    asked TEXT NOT NULL DEFAULT '' CHECK (length(asked) <= 4000),
    said TEXT NOT NULL CHECK (json_valid(said) AND length(said) <= 20000),
    pieces TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(pieces)),
    items TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(items)),
    sets INTEGER NOT NULL CHECK (sets BETWEEN 1 AND 20),
    reps INTEGER NOT NULL CHECK (reps BETWEEN 1 AND 100),
    one_sided INTEGER NOT NULL CHECK (one_sided IN (0, 1)),
    lowering_s REAL NOT NULL CHECK (lowering_s BETWEEN 0.1 AND 120),
    lifting_s REAL NOT NULL CHECK (lifting_s BETWEEN 0.1 AND 120),
    rest_s INTEGER NOT NULL CHECK (rest_s BETWEEN 0 AND 3600),
    instead_of INTEGER,
    why TEXT NOT NULL DEFAULT '' CHECK (why IN ('', 'taken', 'hurts', 'form', 'heavy', 'time', 'choice')),
    ended INTEGER NOT NULL DEFAULT 0 CHECK (ended IN (0, 1)),
    model TEXT NOT NULL,
    UNIQUE (trainer_id, id),
    FOREIGN KEY (trainer_id, session_id) REFERENCES session (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, instead_of) REFERENCES lift (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX lift_by_session ON lift (session_id, position);

-- What a lift asks a rep of one leg: greatest demand, its greatest part of the usual strength, work.
CREATE TABLE lift_action (
    lift_id INTEGER NOT NULL,
    action TEXT NOT NULL,
    trainer_id INTEGER NOT NULL,
    demand_nm REAL NOT NULL,
    ratio REAL,
    work_j REAL NOT NULL,
    first INTEGER NOT NULL CHECK (first IN (0, 1)),
    PRIMARY KEY (lift_id, action),
    FOREIGN KEY (trainer_id, lift_id) REFERENCES lift (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE TABLE lift_muscle (
    lift_id INTEGER NOT NULL,
    grp TEXT NOT NULL,
    trainer_id INTEGER NOT NULL,
    long_j REAL NOT NULL,
    middle_j REAL NOT NULL,
    short_j REAL NOT NULL,
    counts REAL NOT NULL,
    PRIMARY KEY (lift_id, grp),
    FOREIGN KEY (trainer_id, lift_id) REFERENCES lift (trainer_id, id) ON DELETE CASCADE
) STRICT;

-- uid: made where the set was done, so that sending it twice keeps it once.
CREATE TABLE set_done (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    lift_id INTEGER NOT NULL,
    uid TEXT NOT NULL CHECK (length(uid) BETWEEN 8 AND 64),
    side TEXT NOT NULL CHECK (side IN ('both', 'left', 'right')),
    reps INTEGER NOT NULL CHECK (reps BETWEEN 0 AND 100),
    reserve INTEGER CHECK (reserve BETWEEN 0 AND 20),
    limiter TEXT NOT NULL DEFAULT '' CHECK (length(limiter) <= 20),
    felt TEXT NOT NULL DEFAULT '' CHECK (felt IN ('', 'lengthened', 'middle', 'shortened')),
    form TEXT NOT NULL DEFAULT '' CHECK (length(form) <= 20),
    pain_joint TEXT NOT NULL DEFAULT '' CHECK (length(pain_joint) <= 20),
    pain_side TEXT NOT NULL DEFAULT '' CHECK (pain_side IN ('', 'left', 'right', 'both')),
    pain INTEGER CHECK (pain BETWEEN 0 AND 10),
    note TEXT NOT NULL DEFAULT '' CHECK (length(note) <= 300),
    done_at TEXT NOT NULL,
    received_at TEXT NOT NULL,
    UNIQUE (trainer_id, id),
    UNIQUE (trainer_id, uid),
    FOREIGN KEY (trainer_id, lift_id) REFERENCES lift (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX set_done_by_lift ON set_done (lift_id, id);

-- What a set was before it was edited, as JSON.
CREATE TABLE set_was (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    set_id INTEGER NOT NULL,
    changed_at TEXT NOT NULL,
    was TEXT NOT NULL CHECK (json_valid(was)),
    FOREIGN KEY (trainer_id, set_id) REFERENCES set_done (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX set_was_by_set ON set_was (set_id);
