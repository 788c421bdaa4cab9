UPDATE "finishes" SET "codes" = jsonb_build_array(btrim("code")) WHERE btrim("code") <> '';--> statement-breakpoint
UPDATE "cards" SET "gun_id" = (
  SELECT "guns"."id" FROM "guns"
  WHERE lower("guns"."name") = lower(btrim("cards"."gun")) OR lower("guns"."name") LIKE lower(btrim("cards"."gun")) || ',%'
  ORDER BY length("guns"."name") LIMIT 1
) WHERE btrim("cards"."gun") <> '';--> statement-breakpoint
ALTER TABLE "finishes" DROP COLUMN "code";
