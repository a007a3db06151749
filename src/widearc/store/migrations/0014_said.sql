-- What was said of a decision, so that it can be said again in other units: JSON; null: kept before this, as
-- plain text alone.
ALTER TABLE decision ADD COLUMN set_up_said TEXT
    CHECK (set_up_said IS NULL OR (json_valid(set_up_said) AND length(set_up_said) <= 20000));
ALTER TABLE decision ADD COLUMN sentence_said TEXT
    CHECK (sentence_said IS NULL OR (json_valid(sentence_said) AND length(sentence_said) <= 20000));
