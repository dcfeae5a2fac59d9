ALTER TABLE "run" ADD COLUMN "choices" jsonb;
