CREATE TABLE "run_result" (
	"run_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"main" boolean NOT NULL,
	"stage_key" text NOT NULL,
	"symbol" text NOT NULL,
	"name" text NOT NULL,
	"unit" text NOT NULL,
	"value" double precision NOT NULL,
	"u" double precision NOT NULL,
	"shown" jsonb NOT NULL,
	CONSTRAINT "run_result_run_id_position_pk" PRIMARY KEY("run_id","position")
);
--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "countersigned" jsonb;--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "people" text;--> statement-breakpoint
ALTER TABLE "run_result" ADD CONSTRAINT "run_result_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "run_result_by_value" ON "run_result" USING btree ("unit","symbol","value");--> statement-breakpoint
CREATE INDEX "run_by_start" ON "run" USING btree ("started_at");