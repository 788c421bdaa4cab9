CREATE TABLE "finishes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"code" text DEFAULT '' NOT NULL,
	"matching" text NOT NULL,
	"family" text,
	"mix_id" text,
	"pick" jsonb,
	"layers" jsonb,
	"invented" boolean DEFAULT false NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "cards" DROP CONSTRAINT "cards_job_id_unique";--> statement-breakpoint
ALTER TABLE "cards" DROP CONSTRAINT "cards_job_id_jobs_id_fk";
--> statement-breakpoint
ALTER TABLE "verdicts" DROP CONSTRAINT "verdicts_job_id_jobs_id_fk";
--> statement-breakpoint
DROP INDEX "verdicts_job";--> statement-breakpoint
ALTER TABLE "job_events" ALTER COLUMN "job_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "photos" ALTER COLUMN "job_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "reading_sets" ALTER COLUMN "job_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "cards" ADD COLUMN "finish_id" uuid;--> statement-breakpoint
ALTER TABLE "cards" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "job_events" ADD COLUMN "finish_id" uuid;--> statement-breakpoint
ALTER TABLE "job_events" ADD COLUMN "card_id" uuid;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "finishes" jsonb;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "finish_id" uuid;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "card_id" uuid;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD COLUMN "finish_id" uuid;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD COLUMN "card_id" uuid;--> statement-breakpoint
ALTER TABLE "verdicts" ADD COLUMN "finish_id" uuid;--> statement-breakpoint
ALTER TABLE "verdicts" ADD COLUMN "card_id" uuid;--> statement-breakpoint
-- What a job matched, and what made it, is a finish of its own under the job's id; what is read and seen of it goes with it.
INSERT INTO "finishes" ("id", "name", "matching", "family", "mix_id", "pick", "layers", "invented", "created_at", "updated_at") SELECT "id", left("matching", 80), "matching", "family", "system_id", "choice", "stacks"->0->'layers', "invented", "created_at", "updated_at" FROM "jobs";
--> statement-breakpoint
-- The further finishes of a piece lay a mix of their own, or none.
DO $$
DECLARE
  one_job record;
  one_stack jsonb;
  uses jsonb;
  fresh uuid;
  mix text;
  nth int;
BEGIN
  FOR one_job IN SELECT * FROM "jobs" LOOP
    uses := jsonb_build_array(jsonb_build_object('key', COALESCE(one_job."stacks"->0->>'id', 'main'), 'name', COALESCE(one_job."stacks"->0->>'name', 'whole piece'), 'finishId', one_job."id"));
    FOR nth IN 1 .. COALESCE(jsonb_array_length(one_job."stacks"), 1) - 1 LOOP
      one_stack := one_job."stacks"->nth;
      fresh := gen_random_uuid();
      SELECT l->>'materialId' INTO mix FROM jsonb_array_elements(one_stack->'layers') WITH ORDINALITY AS t(l, n) WHERE l->>'kind' = 'effect' ORDER BY n LIMIT 1;
      INSERT INTO "finishes" ("id", "name", "matching", "family", "mix_id", "layers", "invented", "created_at", "updated_at") VALUES (fresh, one_stack->>'name', '', (SELECT m."material"->>'family' FROM "materials" m WHERE m."id"::text = mix), mix, one_stack->'layers', one_job."invented", one_job."created_at", one_job."updated_at");
      uses := uses || jsonb_build_array(jsonb_build_object('key', one_stack->>'id', 'name', one_stack->>'name', 'finishId', fresh));
    END LOOP;
    UPDATE "jobs" SET "finishes" = uses WHERE "id" = one_job."id";
  END LOOP;
END $$;
--> statement-breakpoint
UPDATE "cards" SET "finish_id" = "job_id";--> statement-breakpoint
UPDATE "verdicts" SET "finish_id" = "job_id";--> statement-breakpoint
UPDATE "reading_sets" SET "finish_id" = "job_id", "job_id" = NULL WHERE "kind" <> 'spot' AND ("kind" <> 'target' OR "object_id" IS NULL);--> statement-breakpoint
UPDATE "photos" SET "finish_id" = "job_id", "job_id" = NULL WHERE "kind" <> 'job';--> statement-breakpoint
UPDATE "job_events" SET "finish_id" = "job_id", "job_id" = NULL WHERE "of_card";--> statement-breakpoint
ALTER TABLE "cards" ALTER COLUMN "finish_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "verdicts" ALTER COLUMN "finish_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ALTER COLUMN "finishes" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "cards" ADD CONSTRAINT "cards_finish_id_finishes_id_fk" FOREIGN KEY ("finish_id") REFERENCES "public"."finishes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_events" ADD CONSTRAINT "job_events_finish_id_finishes_id_fk" FOREIGN KEY ("finish_id") REFERENCES "public"."finishes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_events" ADD CONSTRAINT "job_events_card_id_cards_id_fk" FOREIGN KEY ("card_id") REFERENCES "public"."cards"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_finish_id_finishes_id_fk" FOREIGN KEY ("finish_id") REFERENCES "public"."finishes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_card_id_cards_id_fk" FOREIGN KEY ("card_id") REFERENCES "public"."cards"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD CONSTRAINT "reading_sets_finish_id_finishes_id_fk" FOREIGN KEY ("finish_id") REFERENCES "public"."finishes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD CONSTRAINT "reading_sets_card_id_cards_id_fk" FOREIGN KEY ("card_id") REFERENCES "public"."cards"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdicts" ADD CONSTRAINT "verdicts_finish_id_finishes_id_fk" FOREIGN KEY ("finish_id") REFERENCES "public"."finishes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdicts" ADD CONSTRAINT "verdicts_card_id_cards_id_fk" FOREIGN KEY ("card_id") REFERENCES "public"."cards"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "cards_in_force" ON "cards" USING btree ("finish_id") WHERE "cards"."retired_at" is null;--> statement-breakpoint
CREATE INDEX "job_events_finish" ON "job_events" USING btree ("finish_id");--> statement-breakpoint
CREATE INDEX "photos_finish" ON "photos" USING btree ("finish_id");--> statement-breakpoint
CREATE INDEX "reading_sets_finish" ON "reading_sets" USING btree ("finish_id","kind");--> statement-breakpoint
CREATE INDEX "verdicts_finish" ON "verdicts" USING btree ("finish_id");--> statement-breakpoint
ALTER TABLE "cards" DROP COLUMN "job_id";--> statement-breakpoint
ALTER TABLE "job_events" DROP COLUMN "of_card";--> statement-breakpoint
ALTER TABLE "jobs" DROP COLUMN "matching";--> statement-breakpoint
ALTER TABLE "jobs" DROP COLUMN "family";--> statement-breakpoint
ALTER TABLE "jobs" DROP COLUMN "system_id";--> statement-breakpoint
ALTER TABLE "jobs" DROP COLUMN "choice";--> statement-breakpoint
ALTER TABLE "jobs" DROP COLUMN "stacks";--> statement-breakpoint
ALTER TABLE "verdicts" DROP COLUMN "job_id";