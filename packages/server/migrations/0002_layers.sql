ALTER TABLE "jobs" ADD COLUMN "stacks" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "film_limit_um" double precision;