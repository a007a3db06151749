-- Three more kinds of equipment: a trap bar, an adduction machine, a half ball.
CREATE TABLE equipment_new (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    place_id INTEGER NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN (
        'bar', 'trap bar', 'plate', 'dumbbell', 'kettlebell', 'chain', 'band', 'short loop', 'spring',
        'sled press', 'hack squat', 'arc squat', 'leg extension', 'seated curl', 'lying curl', 'standing curl',
        'multi-hip', 'abduction machine', 'adduction machine', 'hip thrust machine', 'standing calf', 'seated calf',
        'pendulum', 'cable', 'belt squat cable', 'belt squat lever', 'dip belt', 'corner pivot', 'sprung carriage',
        'rail bar', 'bench', 'box', 'rack', 'couch', 'table', 'bench 45', 'bench level', 'glute-ham bench', 'peg rail',
        'high bar', 'post', 'ball', 'half ball', 'heel wedge', 'pad', 'ankle hold', 'anchor')),
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
    zone TEXT NOT NULL DEFAULT '' CHECK (length(zone) <= 20),
    state TEXT NOT NULL DEFAULT 'free' CHECK (state IN ('free', 'taken', 'broken')),
    state_at TEXT,
    seen_at TEXT,
    side TEXT NOT NULL DEFAULT '' CHECK (side IN ('', 'left', 'right', 'ahead', 'behind', 'floor', 'overhead')),
    hold TEXT NOT NULL DEFAULT '' CHECK (hold IN ('', 'eye', 'weight', 'furniture', 'feet', 'partner')),
    note TEXT NOT NULL DEFAULT '' CHECK (length(note) <= 500),
    UNIQUE (trainer_id, id),
    UNIQUE (place_id, name),
    FOREIGN KEY (trainer_id, place_id) REFERENCES place (trainer_id, id) ON DELETE CASCADE
) STRICT;
INSERT INTO equipment_new
        (id, trainer_id, place_id, kind, name, zone, state, state_at, seen_at, side, hold, note)
    SELECT id, trainer_id, place_id, kind, name, zone, state, state_at, seen_at, side, hold, note FROM equipment;
DROP TABLE equipment;
ALTER TABLE equipment_new RENAME TO equipment;
CREATE INDEX equipment_by_place ON equipment (place_id);
