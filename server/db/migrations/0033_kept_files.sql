ALTER TABLE "stock_lots" ALTER COLUMN "facts" SET DEFAULT '{"origin":"receipt","plantPart":"","stage":"","form":null,"container":"","grossMg":null,"tareMg":null,"moisturePercent":null,"strengthPercent":null,"strengthBasis":"","strengthLearnt":false,"reference":false,"gathering":null,"fromLotId":null,"treatment":null,"colour":null,"colourSpectrum":null,"light":null}'::jsonb;--> statement-breakpoint
-- Photographs and sheets lie as files of their own, named by what is in them; they were written out before this ran.
ALTER TABLE "attachments" DISABLE TRIGGER USER;--> statement-breakpoint
ALTER TABLE "attachments" ADD COLUMN "sha256" text;--> statement-breakpoint
ALTER TABLE "attachments" ADD COLUMN "bytes" integer;--> statement-breakpoint
UPDATE "attachments" SET "sha256" = encode(sha256("content"), 'hex'), "bytes" = length("content");--> statement-breakpoint
ALTER TABLE "attachments" ALTER COLUMN "sha256" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "attachments" ALTER COLUMN "bytes" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "attachments" ENABLE TRIGGER USER;
