CREATE TABLE "cards" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"rungs" jsonb NOT NULL,
	"gun" text NOT NULL,
	"pressure_bar" double precision NOT NULL,
	"on_stand" boolean NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "cards_job_id_unique" UNIQUE("job_id")
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"piece" text NOT NULL,
	"matching" text NOT NULL,
	"family" text NOT NULL,
	"system_id" text NOT NULL,
	"status" text DEFAULT 'open' NOT NULL,
	"choice" jsonb,
	"invented" boolean DEFAULT false NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "reading_sets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"rung_coats" double precision,
	"source" text NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "reading_sets_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "readings" (
	"set_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"spot" text NOT NULL,
	"incidence" double precision NOT NULL,
	"aspecular" double precision NOT NULL,
	"l" double precision NOT NULL,
	"a" double precision NOT NULL,
	"b" double precision NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "cards" ADD CONSTRAINT "cards_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading_sets" ADD CONSTRAINT "reading_sets_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_set_id_reading_sets_id_fk" FOREIGN KEY ("set_id") REFERENCES "public"."reading_sets"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "reading_sets_job" ON "reading_sets" USING btree ("job_id","kind");--> statement-breakpoint
CREATE INDEX "readings_set" ON "readings" USING btree ("set_id");