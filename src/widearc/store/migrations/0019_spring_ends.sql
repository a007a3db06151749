-- A spring is read at two places: its pull at full travel is kept in place of a stiffness worked out by hand.
INSERT INTO quantity (equipment_id, name, trainer_id, value, source)
    SELECT r.equipment_id, 'end_n', r.trainer_id,
           min(100000, coalesce(s.value, 0) + r.value * coalesce(t.value, 1)), r.source
    FROM quantity r JOIN equipment e ON e.id = r.equipment_id AND e.kind = 'spring'
    LEFT JOIN quantity s ON s.equipment_id = r.equipment_id AND s.name = 'start_n'
    LEFT JOIN quantity t ON t.equipment_id = r.equipment_id AND t.name = 'travel_m'
    WHERE r.name = 'rate_n_per_m';
DELETE FROM quantity WHERE name = 'rate_n_per_m'
    AND equipment_id IN (SELECT id FROM equipment WHERE kind = 'spring');
