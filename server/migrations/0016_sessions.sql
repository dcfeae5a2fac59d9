CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"count" integer NOT NULL,
	"role" text NOT NULL,
	"address" text NOT NULL,
	"browser" text NOT NULL,
	"began_at" timestamp with time zone NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone
);
