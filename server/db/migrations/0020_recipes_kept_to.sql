ALTER TABLE "stock_lots" ALTER COLUMN "facts" SET DEFAULT '{"origin":"receipt","plantPart":"","stage":"","form":null,"container":"","grossMg":null,"tareMg":null,"moisturePercent":null,"strengthPercent":null,"strengthBasis":"","reference":false,"gathering":null,"fromLotId":null,"treatment":null,"colour":null,"light":null}'::jsonb;--> statement-breakpoint
ALTER TABLE "recipes" ADD COLUMN "kept_to" jsonb;--> statement-breakpoint
UPDATE "stock_lots" SET "facts" = '{"colour":null,"light":null}'::jsonb || "facts";--> statement-breakpoint
UPDATE "stock_lots" SET "facts" = jsonb_set("facts", '{gathering,ownGround}', 'false'::jsonb) WHERE jsonb_typeof("facts"->'gathering') = 'object' AND NOT ("facts"->'gathering' ? 'ownGround');
