CREATE TABLE "pickings" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"stock_lot_id" uuid NOT NULL,
	"movement_id" uuid NOT NULL,
	"pickers" jsonb NOT NULL,
	"minutes_each" integer,
	"portions" integer NOT NULL,
	"tare_mg" bigint NOT NULL,
	"guessed" boolean NOT NULL,
	"picked_with" text NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "pickings_movement_id_unique" UNIQUE("movement_id")
);
--> statement-breakpoint
ALTER TABLE "pickings" ADD CONSTRAINT "pickings_stock_lot_id_stock_lots_id_fk" FOREIGN KEY ("stock_lot_id") REFERENCES "public"."stock_lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pickings" ADD CONSTRAINT "pickings_movement_id_movements_id_fk" FOREIGN KEY ("movement_id") REFERENCES "public"."movements"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pickings" ADD CONSTRAINT "pickings_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "pickings_stock_lot" ON "pickings" USING btree ("stock_lot_id","seq");--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "pickings" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "pickings" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();
