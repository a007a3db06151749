-- A band's law may be rubber or left to the readings; what it gives back and when it was looked over.

CREATE TABLE band_new (
    equipment_id INTEGER PRIMARY KEY,
    trainer_id INTEGER NOT NULL,
    shape TEXT NOT NULL CHECK (shape IN ('loop', 'long')),
    strands INTEGER NOT NULL CHECK (strands IN (1, 2)),
    rest_m REAL CHECK (rest_m BETWEEN 0.02 AND 10),
    law TEXT NOT NULL DEFAULT 'best' CHECK (law IN ('best', 'points', 'linear', 'mooney-rivlin')),
    back_share REAL CHECK (back_share BETWEEN 0 AND 0.5),
    looked_over_on TEXT CHECK (looked_over_on = date(looked_over_on)),
    FOREIGN KEY (trainer_id, equipment_id) REFERENCES equipment (trainer_id, id) ON DELETE CASCADE
) STRICT;
INSERT INTO band_new (equipment_id, trainer_id, shape, strands, rest_m, law)
    SELECT equipment_id, trainer_id, shape, strands, rest_m, law FROM band;
DROP TABLE band;
ALTER TABLE band_new RENAME TO band;

ALTER TABLE change ADD COLUMN back_share_before REAL;
ALTER TABLE change ADD COLUMN looked_over_before TEXT;
