-- A mix holds any number of colours: what was one pigment and some dyes is now one list.
UPDATE "materials" SET "material" = ("material" - 'pigmentId' - 'pigmentParts' - 'cover' - 'dyes') || jsonb_build_object(
  'colours',
  (CASE WHEN "material"->>'pigmentId' IS NULL THEN '[]'::jsonb ELSE jsonb_build_array(jsonb_build_object(
    'kind', 'flake',
    'id', "material"->'pigmentId',
    'parts', coalesce("material"->'pigmentParts', 'null'::jsonb),
    'strength', "material"->'cover')) END)
  || coalesce((SELECT jsonb_agg(jsonb_build_object(
    'kind', 'dye',
    'id', d->'dyeId',
    'parts', coalesce(d->'parts', 'null'::jsonb),
    'strength', d->'depth') ORDER BY n) FROM jsonb_array_elements("material"->'dyes') WITH ORDINALITY AS t(d, n)), '[]'::jsonb))
WHERE "kind" = 'system' AND NOT "material" ? 'colours';
--> statement-breakpoint
-- A ground that was read says how many coats hide: three, till its painter says otherwise.
UPDATE "materials" SET "material" = '{"hidesIn": 3, "solids": []}'::jsonb || "material" WHERE "kind" = 'ground';
--> statement-breakpoint
-- What a flake is made of is called by its make, not by a finish.
UPDATE "materials" SET "material" = jsonb_set("material", '{structure}', '"metal-spacer"')
WHERE "kind" = 'pigment' AND "material"->>'structure' = 'colour-shift';
