-- Which clock a trainer's days are counted by; empty: the browser's.
ALTER TABLE trainer ADD COLUMN time_zone TEXT CHECK (length(time_zone) BETWEEN 1 AND 64);
