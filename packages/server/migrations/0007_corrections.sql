ALTER TABLE "batches" ADD COLUMN "removed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "removed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD COLUMN "removed_at" timestamp with time zone;--> statement-breakpoint
-- Control coats are counted, not ticked.
UPDATE "jobs" SET "choice" = ("choice" - 'controlCoat') || jsonb_build_object('controlCoats', CASE WHEN ("choice"->>'controlCoat') = 'true' THEN 1 ELSE 0 END) WHERE "choice" ? 'controlCoat';
--> statement-breakpoint
-- Greys are named by their lightness.
UPDATE "jobs" SET "choice" = jsonb_set("choice", '{groundId}', to_jsonb('grey-' || CASE "choice"->>'groundId' WHEN 'value-8' THEN '84' WHEN 'value-7' THEN '74' WHEN 'value-6' THEN '63' WHEN 'value-5' THEN '52' WHEN 'value-4' THEN '41' WHEN 'value-3' THEN '31' END)) WHERE "choice"->>'groundId' IN ('value-8', 'value-7', 'value-6', 'value-5', 'value-4', 'value-3');
--> statement-breakpoint
UPDATE "jobs" SET "stacks" = replace(replace(replace(replace(replace(replace("stacks"::text, '"materialId": "value-8"', '"materialId": "grey-84"'), '"materialId": "value-7"', '"materialId": "grey-74"'), '"materialId": "value-6"', '"materialId": "grey-63"'), '"materialId": "value-5"', '"materialId": "grey-52"'), '"materialId": "value-4"', '"materialId": "grey-41"'), '"materialId": "value-3"', '"materialId": "grey-31"')::jsonb WHERE "stacks"::text LIKE '%"materialId": "value-%';
--> statement-breakpoint
UPDATE "cards" SET "settings" = replace("settings"::text, 'grey sealer, value 6', 'grey sealer, grey 63')::jsonb WHERE "settings"::text LIKE '%grey sealer, value 6%';
--> statement-breakpoint
-- Mixes of the shop's own have parts, or say that they are not known, and any number of dyes.
UPDATE "materials" SET "material" = ("material" - 'dyeId' - 'depth') || jsonb_build_object('carrierParts', NULL, 'pigmentParts', NULL, 'strengthFrom', 'typed', 'drawdown', NULL, 'dyes', CASE WHEN "material"->>'dyeId' IS NULL THEN '[]'::jsonb ELSE jsonb_build_array(jsonb_build_object('dyeId', "material"->'dyeId', 'parts', NULL, 'depth', "material"->'depth')) END) WHERE "kind" = 'system' AND "material" ? 'depth';
