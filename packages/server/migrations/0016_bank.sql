CREATE TABLE "finish_versions" (
	"finish_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"was" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "finish_versions_finish_id_version_pk" PRIMARY KEY("finish_id","version")
);
--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "teaches" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "batches" ADD COLUMN "corrections" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "cards" ADD COLUMN "gun_id" uuid;--> statement-breakpoint
ALTER TABLE "cards" ADD COLUMN "hand_left_out" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "finishes" ADD COLUMN "codes" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "finishes" ADD COLUMN "origin" text;--> statement-breakpoint
ALTER TABLE "finish_versions" ADD CONSTRAINT "finish_versions_finish_id_finishes_id_fk" FOREIGN KEY ("finish_id") REFERENCES "public"."finishes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "finishes_latest" ON "finishes" USING btree ("updated_at");--> statement-breakpoint
CREATE INDEX "finishes_name" ON "finishes" USING btree (lower("name"));--> statement-breakpoint
CREATE INDEX "jobs_finishes" ON "jobs" USING gin ("finishes" jsonb_path_ops);--> statement-breakpoint
CREATE INDEX "jobs_latest" ON "jobs" USING btree ("updated_at");