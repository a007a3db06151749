-- The Floor away from the line and on two devices, holds, and how a lift lies over its range.

-- uid: made on the device that put it there, '' where the server did. hold_s: held at one place of a rep, seconds.
-- tilt: mean demand of the half where the first action is long over that where it is short, less 1; hardest: the
-- third in which a rep asks most; tilt and hardest NULL where nothing is known.
ALTER TABLE lift ADD COLUMN uid TEXT NOT NULL DEFAULT '' CHECK (length(uid) <= 64);
ALTER TABLE lift ADD COLUMN hold_s REAL NOT NULL DEFAULT 0 CHECK (hold_s BETWEEN 0 AND 600);
ALTER TABLE lift ADD COLUMN tilt REAL CHECK (tilt BETWEEN -1 AND 1000);
ALTER TABLE lift ADD COLUMN hardest TEXT CHECK (hardest IN ('lengthened', 'middle', 'shortened'));
CREATE UNIQUE INDEX lift_by_uid ON lift (trainer_id, uid) WHERE uid <> '';

-- number: which set of the lift the device took it for; held_s: how long it was held, seconds.
ALTER TABLE set_done ADD COLUMN number INTEGER CHECK (number BETWEEN 1 AND 200);
ALTER TABLE set_done ADD COLUMN held_s REAL CHECK (held_s BETWEEN 0 AND 3600);

CREATE TABLE client_note (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    client_id INTEGER NOT NULL,
    noted_at TEXT NOT NULL,
    words TEXT NOT NULL CHECK (length(words) BETWEEN 1 AND 500),
    UNIQUE (trainer_id, id),
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX client_note_by_client ON client_note (trainer_id, client_id, noted_at);

-- which sessions are under way: a few of many
CREATE INDEX session_under_way ON session (trainer_id) WHERE ended_at IS NULL;
