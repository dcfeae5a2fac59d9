CREATE TABLE "assignment" (
	"id" uuid PRIMARY KEY NOT NULL,
	"solution_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person" text NOT NULL,
	"how" text NOT NULL,
	"value" numeric NOT NULL,
	"plus_minus" numeric NOT NULL,
	"shape" text NOT NULL,
	"unit" text NOT NULL,
	"run_id" uuid,
	"stage_key" text
);
--> statement-breakpoint
CREATE TABLE "assignment_source" (
	"assignment_id" uuid NOT NULL,
	"source_id" uuid NOT NULL,
	CONSTRAINT "assignment_source_assignment_id_source_id_pk" PRIMARY KEY("assignment_id","source_id")
);
--> statement-breakpoint
CREATE TABLE "recomputation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"run_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person" text NOT NULL,
	"changes" jsonb NOT NULL,
	"replaced" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "solution" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer GENERATED ALWAYS AS IDENTITY (sequence name "solution_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"form" text NOT NULL,
	"formula" text NOT NULL,
	"name" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"made_by" text NOT NULL,
	"amount_made" numeric,
	"amount_left" numeric,
	"amount_unit" text NOT NULL,
	"restandardize_by" date,
	"used_up_at" timestamp with time zone,
	"hazards" text NOT NULL,
	"note" text NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"making" jsonb
);
--> statement-breakpoint
ALTER TABLE "observation" ADD COLUMN "assignment_id" uuid;--> statement-breakpoint
ALTER TABLE "assignment" ADD CONSTRAINT "assignment_solution_id_solution_id_fk" FOREIGN KEY ("solution_id") REFERENCES "public"."solution"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "assignment" ADD CONSTRAINT "assignment_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "assignment_source" ADD CONSTRAINT "assignment_source_assignment_id_assignment_id_fk" FOREIGN KEY ("assignment_id") REFERENCES "public"."assignment"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "assignment_source" ADD CONSTRAINT "assignment_source_source_id_assignment_id_fk" FOREIGN KEY ("source_id") REFERENCES "public"."assignment"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recomputation" ADD CONSTRAINT "recomputation_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "assignment_of_solution" ON "assignment" USING btree ("solution_id","id");--> statement-breakpoint
CREATE INDEX "recomputation_of_run" ON "recomputation" USING btree ("run_id","id");--> statement-breakpoint
CREATE UNIQUE INDEX "solution_number" ON "solution" USING btree ("number");--> statement-breakpoint
CREATE INDEX "solution_by_formula" ON "solution" USING btree ("formula");--> statement-breakpoint
ALTER TABLE "observation" ADD CONSTRAINT "observation_assignment_id_assignment_id_fk" FOREIGN KEY ("assignment_id") REFERENCES "public"."assignment"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "observation_from_shelf" ON "observation" USING btree ("assignment_id") WHERE "observation"."assignment_id" is not null;