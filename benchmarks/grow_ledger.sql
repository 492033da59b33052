-- Ever more lines on the bags of the demo studio, which stay as full as they are: pairs (each a gram taken and put back), mark.
WITH lot AS (SELECT id, studio_id, row_number() OVER () AS at, count(*) OVER () AS count FROM stash_lot WHERE weighed AND NOT waste),
m AS (SELECT id FROM studio_member WHERE role = 'owner' LIMIT 1),
line AS (SELECT n, lot.id AS lot, lot.studio_id FROM generate_series(1, %(pairs)s) n JOIN lot ON lot.at = 1 + n %% lot.count),
entry AS (
    INSERT INTO stash_entry (id, studio_id, by_id, verb, happened_at, recorded_at, client_key, content, note)
    SELECT gen_random_uuid(), line.studio_id, m.id, 'took', now(), now(), %(mark)s || line.n, '', '' FROM line, m
    RETURNING id, client_key)
INSERT INTO stash_movement (id, studio_id, entry_id, lot_id, kind, amount)
SELECT gen_random_uuid(), line.studio_id, entry.id, line.lot, way.kind, way.amount
FROM line JOIN entry ON entry.client_key = %(mark)s || line.n, (VALUES ('pulled', -1), ('returned', 1)) AS way (kind, amount)
