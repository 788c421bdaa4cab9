CREATE TABLE "booth_events" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"at" bigint NOT NULL,
	"kind" text NOT NULL,
	"coat_id" text,
	"piece_id" text,
	"text" text NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "booth_events_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "plan" jsonb;--> statement-breakpoint
ALTER TABLE "booth_events" ADD CONSTRAINT "booth_events_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "booth_events_job" ON "booth_events" USING btree ("job_id");