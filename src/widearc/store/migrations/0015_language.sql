-- The language in which a trainer reads, by its two letters; which are shipped is known to the program.
ALTER TABLE trainer ADD COLUMN language TEXT NOT NULL DEFAULT 'en' CHECK (length(language) = 2);
