-- The screens whose short how-to the trainer has put away.
ALTER TABLE trainer ADD COLUMN how_gone TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(how_gone));
