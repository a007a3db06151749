-- Any kind of equipment by named quantities, each with where it is from; people and space of a place;
-- what a client brings; repeatable settings; readings of machines; one undo for every change.

CREATE TABLE quantity (
    equipment_id INTEGER NOT NULL,
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 40),
    trainer_id INTEGER NOT NULL,
    value REAL NOT NULL CHECK (value BETWEEN -100000 AND 100000),
    source TEXT NOT NULL DEFAULT 'described' CHECK (source IN ('measured', 'described', 'assumed')),
    PRIMARY KEY (equipment_id, name),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE
) STRICT;
INSERT INTO quantity (equipment_id, name, trainer_id, value) SELECT equipment_id, 'kg', trainer_id, kg FROM stock;
INSERT INTO quantity (equipment_id, name, trainer_id, value) SELECT equipment_id, 'count', trainer_id, count FROM stock;
INSERT INTO quantity (equipment_id, name, trainer_id, value)
    SELECT equipment_id, 'height_m', trainer_id, height_m FROM furniture;
INSERT INTO quantity (equipment_id, name, trainer_id, value)
    SELECT equipment_id, 'height_m', trainer_id, height_m FROM anchor_point;
INSERT INTO quantity (equipment_id, name, trainer_id, value)
    SELECT equipment_id, 'holds_n', trainer_id, holds_n FROM anchor_point WHERE holds_n IS NOT NULL;
INSERT INTO quantity (equipment_id, name, trainer_id, value)
    SELECT equipment_id, 'rail_deg', trainer_id, rail_deg FROM sled_press;
INSERT INTO quantity (equipment_id, name, trainer_id, value)
    SELECT equipment_id, 'empty_kg', trainer_id, empty_kg FROM sled_press;
INSERT INTO quantity (equipment_id, name, trainer_id, value)
    SELECT equipment_id, 'backrest_deg', trainer_id, backrest_deg FROM sled_press;
INSERT INTO quantity (equipment_id, name, trainer_id, value)
    SELECT equipment_id, 'plate_tilt_deg', trainer_id, plate_tilt_deg FROM sled_press;
DROP TABLE stock;
DROP TABLE furniture;
DROP TABLE anchor_point;
DROP TABLE sled_press;

CREATE TABLE equipment_new (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    place_id INTEGER NOT NULL,
    kind TEXT NOT NULL CHECK (kind IN (
        'bar', 'plate', 'dumbbell', 'kettlebell', 'chain', 'band', 'short loop', 'spring',
        'sled press', 'hack squat', 'arc squat', 'leg extension', 'seated curl', 'lying curl', 'standing curl',
        'multi-hip', 'abduction machine', 'hip thrust machine', 'standing calf', 'seated calf', 'pendulum',
        'cable', 'belt squat cable', 'belt squat lever', 'dip belt', 'corner pivot', 'sprung carriage', 'rail bar',
        'bench', 'box', 'rack', 'couch', 'table', 'bench 45', 'bench level', 'glute-ham bench', 'peg rail',
        'high bar', 'post', 'ball', 'heel wedge', 'pad', 'ankle hold', 'anchor')),
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
-- a zone longer than a letter or a word is kept whole in the note
INSERT INTO equipment_new (id, trainer_id, place_id, kind, name, zone, state, state_at, hold, note)
    SELECT id, trainer_id, place_id, kind, name, substr(zone, 1, 20), state, state_at,
        CASE kind WHEN 'anchor' THEN 'eye' ELSE '' END,
        CASE WHEN length(zone) > 20 THEN substr('zone: ' || zone, 1, 500) ELSE '' END
    FROM equipment;
DROP TABLE equipment;
ALTER TABLE equipment_new RENAME TO equipment;
CREATE INDEX equipment_by_place ON equipment (place_id);

-- Readings of machines: `at` is what the kind is read at (m of travel, degrees, kg of stack or plates, m of band).
CREATE TABLE machine_reading (
    equipment_id INTEGER NOT NULL,
    position INTEGER NOT NULL CHECK (position >= 0),
    trainer_id INTEGER NOT NULL,
    purpose TEXT NOT NULL DEFAULT 'fit' CHECK (purpose IN ('fit', 'check')),
    setting TEXT NOT NULL DEFAULT '' CHECK (length(setting) <= 40),
    at REAL NOT NULL CHECK (at BETWEEN -1000 AND 10000),
    force_n REAL NOT NULL CHECK (force_n BETWEEN 0 AND 20000),
    arm_m REAL CHECK (arm_m BETWEEN 0.02 AND 3),
    direction TEXT CHECK (direction IN ('push', 'return')),
    read_on TEXT CHECK (read_on = date(read_on)),
    PRIMARY KEY (equipment_id, position),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE
) STRICT;

-- Repeatable settings of an item (seat, pad, dial, clip link, foot place), for everyone or one client.
CREATE TABLE setting (
    id INTEGER PRIMARY KEY,
    equipment_id INTEGER NOT NULL,
    client_id INTEGER,
    trainer_id INTEGER NOT NULL,
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 40),
    words TEXT NOT NULL CHECK (length(words) BETWEEN 1 AND 80),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE,
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX setting_by_item ON setting (equipment_id);

ALTER TABLE place ADD COLUMN people TEXT NOT NULL DEFAULT 'alone' CHECK (people IN ('alone', 'others', 'partner'));
ALTER TABLE place ADD COLUMN crowding TEXT NOT NULL DEFAULT 'some' CHECK (crowding IN ('empty', 'some', 'packed'));
ALTER TABLE place ADD COLUMN wall INTEGER NOT NULL DEFAULT 1 CHECK (wall IN (0, 1));
ALTER TABLE place ADD COLUMN floor_width_m REAL CHECK (floor_width_m BETWEEN 0.3 AND 50);
ALTER TABLE place ADD COLUMN floor_length_m REAL CHECK (floor_length_m BETWEEN 0.3 AND 100);

-- Everything of a client is optional: null means not asked, and what is computed then says "assumed".
CREATE TABLE client_new (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
    mass_kg REAL CHECK (mass_kg BETWEEN 25 AND 300),
    stature_m REAL CHECK (stature_m BETWEEN 1.0 AND 2.4),
    sex TEXT NOT NULL DEFAULT 'mean' CHECK (sex IN ('male', 'female', 'mean')),
    dorsiflexion_deg REAL CHECK (dorsiflexion_deg BETWEEN 0 AND 60),
    hip_flexion_deg REAL CHECK (hip_flexion_deg BETWEEN 60 AND 160),
    knee_deg REAL CHECK (knee_deg BETWEEN 30 AND 160),
    no_axial_load INTEGER NOT NULL DEFAULT 0 CHECK (no_axial_load IN (0, 1)),
    to_shoulders_kg REAL CHECK (to_shoulders_kg BETWEEN 0 AND 500),
    goal TEXT CHECK (goal IN ('strength', 'muscle', 'endurance', 'return')),
    experience TEXT CHECK (experience IN ('beginner', 'used', 'experienced')),
    stronger_side TEXT CHECK (stronger_side IN ('left', 'right', 'equal')),
    grip_kg REAL CHECK (grip_kg BETWEEN 1 AND 300),
    trains_alone INTEGER CHECK (trains_alone IN (0, 1)),
    foot_m REAL CHECK (foot_m BETWEEN 0.1 AND 0.5),
    shank_m REAL CHECK (shank_m BETWEEN 0.15 AND 0.9),
    thigh_m REAL CHECK (thigh_m BETWEEN 0.15 AND 0.9),
    trunk_m REAL CHECK (trunk_m BETWEEN 0.15 AND 1.1),
    upper_arm_m REAL CHECK (upper_arm_m BETWEEN 0.1 AND 0.7),
    forearm_m REAL CHECK (forearm_m BETWEEN 0.1 AND 0.6),
    note TEXT NOT NULL DEFAULT '' CHECK (length(note) <= 500),
    UNIQUE (trainer_id, id),
    UNIQUE (trainer_id, name)
) STRICT;
INSERT INTO client_new (id, trainer_id, name, mass_kg, stature_m, sex, dorsiflexion_deg, hip_flexion_deg, knee_deg,
    no_axial_load, to_shoulders_kg)
    SELECT id, trainer_id, name, mass_kg, stature_m, sex, dorsiflexion_deg, hip_flexion_deg, knee_deg,
        no_axial_load, to_shoulders_kg FROM client;
DROP TABLE client;
ALTER TABLE client_new RENAME TO client;

CREATE TABLE client_sore (
    client_id INTEGER NOT NULL,
    joint TEXT NOT NULL CHECK (joint IN ('ankle', 'knee', 'hip', 'low back')),
    side TEXT NOT NULL CHECK (side IN ('left', 'right', 'both')),
    trainer_id INTEGER NOT NULL,
    PRIMARY KEY (client_id, joint),
    FOREIGN KEY (trainer_id, client_id) REFERENCES client (trainer_id, id) ON DELETE CASCADE
) STRICT;

-- A decision that is taken back is gone: the undo keeps what it was.
DELETE FROM decision WHERE removed_at IS NOT NULL;
ALTER TABLE decision DROP COLUMN removed_at;

-- The undo history: a change in words, and the statements that put the rows back, newest last.
-- scope: what the change belongs to ("place:3", "clients", "card:back-squat-high"); the newest of a scope can be undone.
CREATE TABLE change_new (
    id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL REFERENCES trainer (id) ON DELETE CASCADE,
    scope TEXT NOT NULL CHECK (length(scope) BETWEEN 1 AND 80),
    kind TEXT NOT NULL CHECK (length(kind) BETWEEN 1 AND 20),
    words TEXT NOT NULL,
    changed_at TEXT NOT NULL,
    undone_at TEXT,
    UNIQUE (trainer_id, id)
) STRICT;
CREATE TABLE change_step (
    id INTEGER PRIMARY KEY,
    change_id INTEGER NOT NULL,
    trainer_id INTEGER NOT NULL,
    statement TEXT NOT NULL,
    FOREIGN KEY (trainer_id, change_id) REFERENCES change_new (trainer_id, id) ON DELETE CASCADE
) STRICT;
CREATE INDEX change_step_by_change ON change_step (change_id);
-- marks of free and taken can still be undone; older changes of other kinds cannot
INSERT INTO change_new (id, trainer_id, scope, kind, words, changed_at)
    SELECT id, trainer_id, 'place:' || place_id, kind, words, changed_at FROM change
    WHERE kind = 'state' AND undone_at IS NULL;
INSERT INTO change_step (change_id, trainer_id, statement)
    SELECT id, trainer_id, 'UPDATE equipment SET state = ' || quote(state_before) || ', state_at = '
        || quote(state_at_before) || ' WHERE id = ' || equipment_id
    FROM change WHERE kind = 'state' AND undone_at IS NULL;
DROP TABLE change_reading;
DROP TABLE change;
ALTER TABLE change_new RENAME TO change;
