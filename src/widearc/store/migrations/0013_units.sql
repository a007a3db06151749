-- Units in which a trainer reads and types: kilograms and centimetres, or pounds and inches. Numbers are
-- kept in SI whatever they were typed in; a weight that is whole or half in one of them alone keeps it.
ALTER TABLE trainer ADD COLUMN units TEXT NOT NULL DEFAULT 'metric' CHECK (units IN ('metric', 'imperial'));
