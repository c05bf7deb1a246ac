CREATE TABLE "masters" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"colourway_id" uuid NOT NULL,
	"lab" jsonb NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"from_lot_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "colourways" ALTER COLUMN "master" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "lots" ADD COLUMN "master" jsonb;--> statement-breakpoint
ALTER TABLE "masters" ADD CONSTRAINT "masters_colourway_id_colourways_id_fk" FOREIGN KEY ("colourway_id") REFERENCES "public"."colourways"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "masters" ADD CONSTRAINT "masters_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "masters_colourway" ON "masters" USING btree ("colourway_id","seq");--> statement-breakpoint
-- A lot keeps the master it was agreed under, whatever takes its place later.
ALTER TABLE "lots" DISABLE TRIGGER append_only;--> statement-breakpoint
UPDATE "lots" SET "master" = c."master" FROM "colourways" c WHERE c."id" = "lots"."colourway_id";--> statement-breakpoint
ALTER TABLE "lots" ENABLE TRIGGER append_only;--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "masters" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "masters" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();
