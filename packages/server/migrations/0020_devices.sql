CREATE TABLE "inbox_files" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"hash" text NOT NULL,
	"text" text NOT NULL,
	"state" text DEFAULT 'offered' NOT NULL,
	"found" jsonb,
	"fault" text,
	"written_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "finishes" ADD COLUMN "try_out" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "try_out" jsonb;--> statement-breakpoint
CREATE UNIQUE INDEX "inbox_files_once" ON "inbox_files" USING btree ("name","hash");--> statement-breakpoint
CREATE INDEX "inbox_files_state" ON "inbox_files" USING btree ("state");