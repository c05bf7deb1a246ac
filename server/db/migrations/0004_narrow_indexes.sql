ALTER TABLE "movements" DROP CONSTRAINT "movements_reverses_id_unique";--> statement-breakpoint
DROP INDEX "movements_lot";--> statement-breakpoint
DROP INDEX "movements_conversion";--> statement-breakpoint
CREATE UNIQUE INDEX "movements_reverses_id_unique" ON "movements" USING btree ("reverses_id") WHERE "movements"."reverses_id" IS NOT NULL;--> statement-breakpoint
CREATE INDEX "movements_lot" ON "movements" USING btree ("lot_id") WHERE "movements"."lot_id" IS NOT NULL;--> statement-breakpoint
CREATE INDEX "movements_conversion" ON "movements" USING btree ("conversion_id") WHERE "movements"."conversion_id" IS NOT NULL;