CREATE TABLE "batches" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"gun_id" uuid,
	"product_id" uuid,
	"mixed_at" timestamp with time zone NOT NULL,
	"batch" jsonb NOT NULL,
	"left_ml" double precision,
	"ended_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "guns" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"gun" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "products" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"product" jsonb NOT NULL,
	"sheet_name" text,
	"sheet_type" text,
	"sheet_bytes" "bytea",
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "pieces" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "mixing" jsonb;--> statement-breakpoint
ALTER TABLE "batches" ADD CONSTRAINT "batches_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "batches_job" ON "batches" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "batches_open" ON "batches" USING btree ("ended_at");