-- Ever more fibres and bags with their lines in the demo studio: fibres, lots, each (lines and grams of a bag), mark (of this batch).
-- The bags are of the fibres grown so far, turn by turn; each came once, and was taken from gram by gram for what was planned.
WITH s AS (SELECT id FROM studio_studio WHERE slug = 'saltgrass'),
m AS (SELECT id FROM studio_member WHERE role = 'owner' LIMIT 1),
drawers AS (SELECT array_agg(id) AS ids FROM stash_drawer),
item AS (
    INSERT INTO stash_item (id, studio_id, kind, name, unit, breed, form, notion, minimum, note, recipe, told)
    SELECT gen_random_uuid(), s.id, 'fibre', 'wool ' || n || ' ' || %(mark)s, 'g',
        (ARRAY['merino','corriedale','shetland','romney'])[1 + n %% 4], (ARRAY['tops','batt','sliver','locks'])[1 + n %% 4], '', 0, '', '[]', '{}'
    FROM s, generate_series(1, %(fibres)s) n RETURNING id),
grown AS (
    SELECT id, row_number() OVER () AS at, count(*) OVER () AS count FROM (
        SELECT id FROM item UNION ALL SELECT id FROM stash_item WHERE name LIKE 'wool %%') every),
lot AS (
    INSERT INTO stash_lot (id, studio_id, item_id, drawer_id, dye_lot, srgb, lab_l, lab_a, lab_b, hue, on_hand, weighed, waste, photo, made_at, predicted, came_as, mixed)
    SELECT gen_random_uuid(), s.id, grown.id, drawers.ids[1 + (random() * 5)::int], '', '#6f7d43', 50, -10, 30, 'green',
        %(each)s, true, false, '', now(), '', '', '{}' FROM s, drawers, generate_series(1, %(lots)s) n JOIN grown ON grown.at = 1 + n %% grown.count
    RETURNING id, studio_id, on_hand),
entry AS (
    INSERT INTO stash_entry (id, studio_id, by_id, verb, happened_at, recorded_at, client_key, content, note)
    SELECT gen_random_uuid(), lot.studio_id, m.id, 'opening', now(), now(), lot.id::text, '', '' FROM lot, m RETURNING id, client_key)
INSERT INTO stash_movement (id, studio_id, entry_id, lot_id, kind, amount, need)
SELECT gen_random_uuid(), lot.studio_id, entry.id, lot.id, way.kind, way.amount, way.need
FROM lot JOIN entry ON entry.client_key = lot.id::text, generate_series(1, %(each)s) n, LATERAL (
    SELECT 'received' AS kind, 2 * %(each)s - 1 AS amount, NULL::uuid AS need WHERE n = 1
    UNION ALL SELECT 'pulled', -1, gen_random_uuid() WHERE n > 1) way
