-- A trainer's own words on an exercise's card, and their undo.

CREATE TABLE card_edit (
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    exercise TEXT NOT NULL CHECK (length(exercise) BETWEEN 1 AND 60),
    section TEXT NOT NULL CHECK (section IN ('checks', 'cues', 'mistakes', 'breathing', 'cautions')),
    words TEXT NOT NULL CHECK (length(words) BETWEEN 1 AND 2000),
    PRIMARY KEY (trainer_id, exercise, section)
) STRICT;

-- Card changes belong to no place: rebuilt so that the place may be missing.
CREATE TABLE change_new (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    place_id INTEGER,
    changed_at TEXT NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN ('state', 'readings', 'decision', 'card')),
    words TEXT NOT NULL,
    equipment_id INTEGER,
    state_before TEXT CHECK (state_before IN ('free', 'taken', 'broken')),
    state_at_before TEXT,
    rest_m_before REAL,
    law_before TEXT,
    strands_before INTEGER,
    shape_before TEXT,
    decision_id INTEGER,
    exercise TEXT,
    section TEXT,
    words_before TEXT,
    undone_at TEXT,
    UNIQUE (trainer_id, id),
    CHECK (place_id IS NOT NULL OR kind = 'card'),
    CHECK (kind <> 'card' OR (exercise IS NOT NULL AND section IS NOT NULL)),
    FOREIGN KEY (trainer_id, place_id) REFERENCES place (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, decision_id) REFERENCES decision (trainer_id, id) ON DELETE CASCADE
) STRICT;
INSERT INTO change_new (id, trainer_id, place_id, changed_at, kind, words, equipment_id, state_before, state_at_before,
    rest_m_before, law_before, strands_before, shape_before, decision_id, undone_at)
    SELECT id, trainer_id, place_id, changed_at, kind, words, equipment_id, state_before, state_at_before,
        rest_m_before, law_before, strands_before, shape_before, decision_id, undone_at FROM change;
DROP TABLE change;
ALTER TABLE change_new RENAME TO change;
