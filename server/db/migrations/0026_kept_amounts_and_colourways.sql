ALTER TABLE "colourways" ADD COLUMN "kept_to" jsonb;--> statement-breakpoint
ALTER TABLE "recipes" ADD COLUMN "amounts_kept_to" jsonb;