-- What of a planned exercise's set-up is otherwise than usual (options, loads, as typed), as JSON; null: nothing.
ALTER TABLE planned ADD COLUMN set_up TEXT CHECK (set_up IS NULL OR (json_valid(set_up) AND length(set_up) <= 8000));
