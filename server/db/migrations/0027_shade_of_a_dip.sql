ALTER TABLE "eye_readings" ADD COLUMN "dip" integer;--> statement-breakpoint
ALTER TABLE "notes" ADD COLUMN "of" jsonb;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "dip" integer;