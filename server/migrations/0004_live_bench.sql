CREATE TABLE "timer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seq" bigint GENERATED ALWAYS AS IDENTITY (sequence name "timer_seq_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"stage_id" uuid NOT NULL,
	"trial_id" uuid,
	"what" text NOT NULL,
	"flask" text NOT NULL,
	"counts" text NOT NULL,
	"seconds" numeric NOT NULL,
	"strict" boolean NOT NULL,
	"planned_at" timestamp with time zone,
	"started_at" timestamp with time zone,
	"ended_at" timestamp with time zone,
	"outcome" text,
	"person" text NOT NULL
);
--> statement-breakpoint
DROP INDEX "assignment_of_solution";--> statement-breakpoint
DROP INDEX "observation_of_stage";--> statement-breakpoint
DROP INDEX "run_event_of_run";--> statement-breakpoint
ALTER TABLE "assignment" ADD COLUMN "seq" bigint;--> statement-breakpoint
-- Rows that are there are counted in the order of their ids, which were made in time.
UPDATE "assignment" SET "seq" = n FROM (SELECT "id" AS i, row_number() OVER (ORDER BY "id") AS n FROM "assignment") AS counted WHERE "id" = i;--> statement-breakpoint
ALTER TABLE "assignment" ALTER COLUMN "seq" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "assignment" ALTER COLUMN "seq" ADD GENERATED ALWAYS AS IDENTITY (sequence name "assignment_seq_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1);--> statement-breakpoint
SELECT setval('"assignment_seq_seq"', (SELECT coalesce(max("seq"), 0) + 1 FROM "assignment"), false);--> statement-breakpoint
ALTER TABLE "house_rules" ADD COLUMN "seq" bigint;--> statement-breakpoint
-- Rows that are there are counted in the order of their ids, which were made in time.
UPDATE "house_rules" SET "seq" = n FROM (SELECT "id" AS i, row_number() OVER (ORDER BY "id") AS n FROM "house_rules") AS counted WHERE "id" = i;--> statement-breakpoint
ALTER TABLE "house_rules" ALTER COLUMN "seq" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "house_rules" ALTER COLUMN "seq" ADD GENERATED ALWAYS AS IDENTITY (sequence name "house_rules_seq_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1);--> statement-breakpoint
SELECT setval('"house_rules_seq_seq"', (SELECT coalesce(max("seq"), 0) + 1 FROM "house_rules"), false);--> statement-breakpoint
ALTER TABLE "house_rules" ADD COLUMN "run_id" uuid;--> statement-breakpoint
ALTER TABLE "observation" ADD COLUMN "seq" bigint;--> statement-breakpoint
-- Rows that are there are counted in the order of their ids, which were made in time.
UPDATE "observation" SET "seq" = n FROM (SELECT "id" AS i, row_number() OVER (ORDER BY "id") AS n FROM "observation") AS counted WHERE "id" = i;--> statement-breakpoint
ALTER TABLE "observation" ALTER COLUMN "seq" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "observation" ALTER COLUMN "seq" ADD GENERATED ALWAYS AS IDENTITY (sequence name "observation_seq_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1);--> statement-breakpoint
SELECT setval('"observation_seq_seq"', (SELECT coalesce(max("seq"), 0) + 1 FROM "observation"), false);--> statement-breakpoint
ALTER TABLE "run_event" ADD COLUMN "seq" bigint;--> statement-breakpoint
-- Rows that are there are counted in the order of their ids, which were made in time.
UPDATE "run_event" SET "seq" = n FROM (SELECT "id" AS i, row_number() OVER (ORDER BY "id") AS n FROM "run_event") AS counted WHERE "id" = i;--> statement-breakpoint
ALTER TABLE "run_event" ALTER COLUMN "seq" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "run_event" ALTER COLUMN "seq" ADD GENERATED ALWAYS AS IDENTITY (sequence name "run_event_seq_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1);--> statement-breakpoint
SELECT setval('"run_event_seq_seq"', (SELECT coalesce(max("seq"), 0) + 1 FROM "run_event"), false);--> statement-breakpoint
ALTER TABLE "run" ADD COLUMN "revision" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "run_event" ADD COLUMN "detail" jsonb;--> statement-breakpoint
ALTER TABLE "run_event" ADD COLUMN "undone_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "run_event" ADD COLUMN "undone_by" text;--> statement-breakpoint
ALTER TABLE "timer" ADD CONSTRAINT "timer_stage_id_stage_id_fk" FOREIGN KEY ("stage_id") REFERENCES "public"."stage"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "timer_of_stage" ON "timer" USING btree ("stage_id","seq");--> statement-breakpoint
CREATE INDEX "timer_running" ON "timer" USING btree ("seq") WHERE "timer"."ended_at" is null;--> statement-breakpoint
ALTER TABLE "house_rules" ADD CONSTRAINT "house_rules_run_id_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."run"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "assignment_of_solution" ON "assignment" USING btree ("solution_id","seq");--> statement-breakpoint
CREATE INDEX "observation_of_stage" ON "observation" USING btree ("stage_id","seq");--> statement-breakpoint
CREATE INDEX "run_event_of_run" ON "run_event" USING btree ("run_id","seq");--> statement-breakpoint
-- House rules gained choices; rules made before them did as these say.
UPDATE "house_rules" SET "data" = "data" || jsonb_build_object(
  'average', 'results',
  'words', '{"titer": "titer", "volume": "mL", "normality": false}'::jsonb,
  'temperature', ("data" -> 'temperature') || '{"labC": "20"}'::jsonb,
  'burette', (("data" -> 'burette') - 'decimals') || jsonb_build_object(
    'resolutionMl', CASE ("data" -> 'burette' ->> 'decimals') WHEN '1' THEN '0.1' WHEN '3' THEN '0.001' ELSE '0.01' END,
    'start', 'anywhere', 'meniscus', 'by-color', 'readTwice', false, 'readTwiceWithinMl', '0.02'
  )
) WHERE "data" -> 'words' IS NULL;--> statement-breakpoint
UPDATE "solution" SET "making" = jsonb_set("making", '{houseRules}', ("making" -> 'houseRules') || jsonb_build_object(
  'average', 'results',
  'words', '{"titer": "titer", "volume": "mL", "normality": false}'::jsonb,
  'temperature', (("making" -> 'houseRules') -> 'temperature') || '{"labC": "20"}'::jsonb,
  'burette', ((("making" -> 'houseRules') -> 'burette') - 'decimals') || jsonb_build_object(
    'resolutionMl', CASE (("making" -> 'houseRules') -> 'burette' ->> 'decimals') WHEN '1' THEN '0.1' WHEN '3' THEN '0.001' ELSE '0.01' END,
    'start', 'anywhere', 'meniscus', 'by-color', 'readTwice', false, 'readTwiceWithinMl', '0.02'
  )
)) WHERE "making" IS NOT NULL AND "making" -> 'houseRules' -> 'words' IS NULL;
