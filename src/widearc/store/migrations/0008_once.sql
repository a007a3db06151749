-- What was sent once and answered: a second tap on the same form gets the first one's answer.
CREATE TABLE once (
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    key TEXT NOT NULL CHECK (length(key) BETWEEN 16 AND 64),
    answered_at TEXT NOT NULL,
    location TEXT CHECK (length(location) <= 4000),
    PRIMARY KEY (trainer_id, key)
) STRICT;
