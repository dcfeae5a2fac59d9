CREATE TABLE "lab" (
	"id" uuid PRIMARY KEY NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"clock_high" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "lab_event" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seq" bigint DEFAULT nextval('run_event_seq_seq') NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person" text NOT NULL,
	"about" text NOT NULL,
	"subject_id" text,
	"subject" text NOT NULL,
	"description" text NOT NULL,
	"detail" jsonb,
	"received_from" text
);
--> statement-breakpoint
ALTER TABLE "house_rules" ADD COLUMN "person" text;--> statement-breakpoint
ALTER TABLE "house_rules" ADD COLUMN "reason" text;--> statement-breakpoint
ALTER TABLE "method" ADD COLUMN "saved_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "method" ADD COLUMN "saved_by" text;--> statement-breakpoint
ALTER TABLE "method" ADD COLUMN "reason" text;--> statement-breakpoint
ALTER TABLE "method" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "run_event" ADD COLUMN "received_from" text;--> statement-breakpoint
CREATE INDEX "lab_event_order" ON "lab_event" USING btree ("seq");--> statement-breakpoint
CREATE INDEX "run_event_order" ON "run_event" USING btree ("seq");
