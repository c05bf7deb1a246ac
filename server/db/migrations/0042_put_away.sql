ALTER TABLE "colourways" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "materials" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "recipes" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;