CREATE TABLE "photos" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"coats" double precision,
	"type" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "verdicts" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"place" text NOT NULL,
	"coats" double precision NOT NULL,
	"spot" text NOT NULL,
	"view" text NOT NULL,
	"verdict" text,
	"taken_at" timestamp with time zone NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "verdicts_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "cards" ADD COLUMN "settings" jsonb;--> statement-breakpoint
ALTER TABLE "cards" ADD COLUMN "hand" jsonb;--> statement-breakpoint
ALTER TABLE "cards" ADD COLUMN "hand_style" text;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD COLUMN "label" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD COLUMN "state" text DEFAULT 'cleared' NOT NULL;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD COLUMN "doubt" double precision;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdicts" ADD CONSTRAINT "verdicts_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "photos_job" ON "photos" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "verdicts_job" ON "verdicts" USING btree ("job_id");