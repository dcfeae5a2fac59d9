CREATE TABLE "house_rules" (
	"id" uuid PRIMARY KEY NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"data" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "method" (
	"id" text NOT NULL,
	"version" integer NOT NULL,
	"title" text NOT NULL,
	"data" jsonb NOT NULL,
	CONSTRAINT "method_id_version_pk" PRIMARY KEY("id","version")
);
--> statement-breakpoint
CREATE TABLE "observation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"stage_id" uuid NOT NULL,
	"trial_id" uuid,
	"symbol" text NOT NULL,
	"kind" text NOT NULL,
	"text" text NOT NULL,
	"value" numeric,
	"unit" text NOT NULL,
	"source" text NOT NULL,
	"person" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"supersedes" uuid,
	"reason" text
);
--> statement-breakpoint
CREATE TABLE "run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"method_id" text NOT NULL,
	"method_version" integer NOT NULL,
	"house_rules_id" uuid NOT NULL,
	"title" text NOT NULL,
	"sample" text NOT NULL,
	"bench" text NOT NULL,
	"search" text NOT NULL,
	"status" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	"finished_at" timestamp with time zone,
	"summary" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "run_event" (
	"id" uuid PRIMARY KEY NOT NULL,
	"run_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person" text NOT NULL,
	"description" text NOT NULL,
	"inverse" jsonb NOT NULL,
	"undone" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "stage" (
	"id" uuid PRIMARY KEY NOT NULL,
	"run_id" uuid NOT NULL,
	"key" text NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "trial" (
	"id" uuid PRIMARY KEY NOT NULL,
	"stage_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"number" integer,
	"label" text,
	"kind" text NOT NULL,
	"struck_at" timestamp with time zone,
	"struck_by" text,
	"struck_reason" text
);
--> statement-breakpoint
ALTER TABLE "observation" ADD CONSTRAINT "observation_stage_id_stage_id_fk" FOREIGN KEY ("stage_id") REFERENCES "public"."stage"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "observation" ADD CONSTRAINT "observation_trial_id_trial_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."trial"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run" ADD CONSTRAINT "run_house_rules_id_house_rules_id_fk" FOREIGN KEY ("house_rules_id") REFERENCES "public"."house_rules"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_event" ADD CONSTRAINT "run_event_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stage" ADD CONSTRAINT "stage_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_stage_id_stage_id_fk" FOREIGN KEY ("stage_id") REFERENCES "public"."stage"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "observation_of_stage" ON "observation" USING btree ("stage_id","id");--> statement-breakpoint
CREATE UNIQUE INDEX "observation_superseded_once" ON "observation" USING btree ("supersedes") WHERE "observation"."supersedes" is not null;--> statement-breakpoint
CREATE INDEX "run_open_by_update" ON "run" USING btree ("status","updated_at");--> statement-breakpoint
CREATE INDEX "run_by_finish" ON "run" USING btree ("status","finished_at");--> statement-breakpoint
CREATE INDEX "run_event_of_run" ON "run_event" USING btree ("run_id","id");--> statement-breakpoint
CREATE UNIQUE INDEX "stage_of_run" ON "stage" USING btree ("run_id","key");--> statement-breakpoint
CREATE UNIQUE INDEX "trial_position_in_stage" ON "trial" USING btree ("stage_id","position");