-- By which rule a slot's lift goes on; '' is the client's rule for the exercise.
ALTER TABLE slot ADD COLUMN rule TEXT NOT NULL DEFAULT '' CHECK (length(rule) <= 20);
