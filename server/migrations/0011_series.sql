ALTER TABLE "run" ADD COLUMN "series" jsonb;--> statement-breakpoint
CREATE INDEX "run_of_series" ON "run" USING btree (("series" ->> 'id'));