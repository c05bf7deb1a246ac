ALTER TABLE "liquor_entries" ADD COLUMN "takes_back_id" uuid;--> statement-breakpoint
ALTER TABLE "movements" ADD COLUMN "liquor_entry_id" uuid;--> statement-breakpoint
CREATE UNIQUE INDEX "liquor_entries_takes_back" ON "liquor_entries" USING btree ("takes_back_id") WHERE "liquor_entries"."takes_back_id" IS NOT NULL;--> statement-breakpoint
CREATE INDEX "movements_liquor_entry" ON "movements" USING btree ("liquor_entry_id") WHERE "movements"."liquor_entry_id" IS NOT NULL;