CREATE TABLE "family_limits" (
	"family" text PRIMARY KEY NOT NULL,
	"own" jsonb NOT NULL,
	"source" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
