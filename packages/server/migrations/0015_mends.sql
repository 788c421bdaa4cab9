ALTER TABLE "job_events" ADD COLUMN "mend" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "texture" text;