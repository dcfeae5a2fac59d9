ALTER TABLE "solution" ALTER COLUMN "number" DROP IDENTITY;--> statement-breakpoint
ALTER TABLE "lab" ADD COLUMN "journal" uuid;--> statement-breakpoint
ALTER TABLE "lab" ADD COLUMN "journal_seq" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "lab" ADD COLUMN "journal_check" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "lab_event" ADD COLUMN "chain" jsonb;