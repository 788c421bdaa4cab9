CREATE TABLE "job_events" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"of_card" boolean DEFAULT false NOT NULL,
	"at" bigint NOT NULL,
	"kind" text NOT NULL,
	"cells" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"layer_id" text,
	"check_id" text,
	"coats" double precision,
	"look" jsonb,
	"text" text NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "job_events_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "objects" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "areas" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "done" jsonb;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD COLUMN "object_id" text;--> statement-breakpoint
ALTER TABLE "job_events" ADD CONSTRAINT "job_events_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "job_events_job" ON "job_events" USING btree ("job_id");--> statement-breakpoint
-- What was pieces of a job are areas of its one object.
UPDATE "jobs" SET "areas" = (SELECT jsonb_agg(p || '{"objectId": "object-1", "finishId": null, "on": null}'::jsonb ORDER BY n) FROM jsonb_array_elements("pieces") WITH ORDINALITY AS t(p, n)) WHERE jsonb_array_length("pieces") > 0;
--> statement-breakpoint
-- A piece with several stacks had each of them all over: the further ones become areas that lie on it, and their sprays go with them.
DO $$
DECLARE
  one_job record;
  one_stack jsonb;
  one_layer jsonb;
  one_piece jsonb;
  nth int;
BEGIN
  FOR one_job IN SELECT "id", "stacks", COALESCE("areas", '[{"id": "piece-1", "name": "Whole piece", "shape": "area", "measures": {"area": 2}, "count": 1, "x": null, "y": null, "mounting": "object", "first": false, "objectId": "object-1", "finishId": null, "on": null}]'::jsonb) AS "areas" FROM "jobs" WHERE jsonb_array_length("stacks") > 1 LOOP
    UPDATE "jobs" SET "areas" = one_job."areas" WHERE "id" = one_job."id";
    FOR nth IN 1 .. jsonb_array_length(one_job."stacks") - 1 LOOP
      one_stack := one_job."stacks"->nth;
      FOR one_piece IN SELECT * FROM jsonb_array_elements(one_job."areas") LOOP
        UPDATE "jobs" SET "areas" = "areas" || jsonb_build_array(one_piece || jsonb_build_object('id', left(one_piece->>'id', 54) || '/' || nth, 'name', left((one_piece->>'name') || ', ' || (one_stack->>'name'), 40), 'finishId', one_stack->>'id', 'on', one_piece->>'id')) WHERE "id" = one_job."id";
      END LOOP;
      FOR one_layer IN SELECT * FROM jsonb_array_elements(one_stack->'layers') LOOP
        UPDATE "booth_events" SET "piece_id" = left("piece_id", 54) || '/' || nth WHERE "job_id" = one_job."id" AND "piece_id" IS NOT NULL AND starts_with("coat_id", (one_layer->>'id') || '/');
      END LOOP;
    END LOOP;
  END LOOP;
END $$;
--> statement-breakpoint
INSERT INTO "job_events" ("id", "job_id", "at", "kind", "cells", "text", "created_at", "updated_at") SELECT "id", "job_id", "at", "kind", CASE WHEN "coat_id" IS NULL OR "piece_id" IS NULL THEN '[]'::jsonb ELSE jsonb_build_array(jsonb_build_object('coatId', "coat_id", 'areaId', "piece_id")) END, "text", "created_at", "updated_at" FROM "booth_events" ORDER BY "sequence";
--> statement-breakpoint
-- What was seen on the job stands in its log.
INSERT INTO "job_events" ("id", "job_id", "at", "kind", "coats", "look", "text", "created_at", "updated_at") SELECT "id", "job_id", (extract(epoch FROM "taken_at") * 1000)::bigint, 'look', "coats", jsonb_build_object('spot', "spot", 'view', "view", 'verdict', "verdict", 'patch', "patch"), '', "created_at", "updated_at" FROM "verdicts" WHERE "place" = 'job' ORDER BY "sequence";
--> statement-breakpoint
DELETE FROM "verdicts" WHERE "place" = 'job';--> statement-breakpoint
DROP TABLE "booth_events" CASCADE;--> statement-breakpoint
ALTER TABLE "jobs" DROP COLUMN "pieces";--> statement-breakpoint
ALTER TABLE "verdicts" DROP COLUMN "place";--> statement-breakpoint
ALTER TABLE "verdicts" DROP COLUMN "spot";--> statement-breakpoint
ALTER TABLE "verdicts" DROP COLUMN "patch";
