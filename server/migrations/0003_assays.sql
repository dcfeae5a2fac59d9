CREATE TABLE "trace" (
	"id" uuid PRIMARY KEY NOT NULL,
	"stage_id" uuid NOT NULL,
	"trial_id" uuid,
	"name" text NOT NULL,
	"x_unit" text NOT NULL,
	"x" jsonb NOT NULL,
	"absorbance" jsonb NOT NULL,
	"source" text NOT NULL,
	"person" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"removed_at" timestamp with time zone,
	"removed_by" text,
	"removed_reason" text
);
--> statement-breakpoint
ALTER TABLE "stage" ADD COLUMN "choices" jsonb;--> statement-breakpoint
ALTER TABLE "trace" ADD CONSTRAINT "trace_stage_id_stage_id_fk" FOREIGN KEY ("stage_id") REFERENCES "public"."stage"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trace" ADD CONSTRAINT "trace_trial_id_trial_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."trial"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "trace_of_stage" ON "trace" USING btree ("stage_id","id");