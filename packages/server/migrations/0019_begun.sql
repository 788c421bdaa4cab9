ALTER TABLE "jobs" ADD COLUMN "begun" boolean DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE "jobs" SET "begun" = true WHERE EXISTS (SELECT 1 FROM "job_events" WHERE "job_events"."job_id" = "jobs"."id");
