-- What was ticked off before the first rep when a decision was kept: a JSON list of texts; null: nothing.
ALTER TABLE decision ADD COLUMN ticks TEXT
    CHECK (ticks IS NULL OR (json_valid(ticks) AND length(ticks) <= 8000));
