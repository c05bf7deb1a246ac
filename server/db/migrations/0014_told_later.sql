ALTER TABLE "lots" ADD COLUMN "recorded_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "lots" ADD COLUMN "off_books" boolean DEFAULT false NOT NULL;