CREATE TABLE "attachments" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"material_id" uuid,
	"stock_lot_id" uuid,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"content" "bytea" NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "conversions" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"loss_mg" bigint NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "count_walks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"place" text NOT NULL,
	"blind" boolean NOT NULL,
	"entries" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"booked_at" timestamp with time zone,
	"by_id" uuid NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "liquor_entries" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"stock_lot_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"after" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "spoon_weighings" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"material_id" uuid NOT NULL,
	"unit" text NOT NULL,
	"system" text NOT NULL,
	"weight_mg" bigint NOT NULL,
	"from_balance" boolean DEFAULT false NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
DROP INDEX "movements_stock_lot";--> statement-breakpoint
ALTER TABLE "materials" ADD COLUMN "facts" jsonb DEFAULT '{"botanicalName":"","plantPart":"","forms":[],"fibreGroups":[],"ceilingC":null,"water":"any","phLow":null,"phHigh":null,"light":null,"wash":null,"bringsTannin":false,"season":null,"leadTimeDays":null,"reorderPoint":null,"reorderQuantity":null,"packet":null}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "materials" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "movements" ADD COLUMN "lot_ref" text;--> statement-breakpoint
ALTER TABLE "movements" ADD COLUMN "conversion_id" uuid;--> statement-breakpoint
ALTER TABLE "movements" ADD COLUMN "recorded_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "stock_balances" ADD COLUMN "touched" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "stock_lots" ADD COLUMN "cost_minor" bigint;--> statement-breakpoint
ALTER TABLE "stock_lots" ADD COLUMN "facts" jsonb DEFAULT '{"origin":"receipt","plantPart":"","stage":"","form":null,"container":"","grossMg":null,"tareMg":null,"moisturePercent":null,"strengthPercent":null,"strengthBasis":"","reference":false,"gathering":null}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "volume_system" text;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "currency" text DEFAULT 'EUR' NOT NULL;--> statement-breakpoint
ALTER TABLE "attachments" ADD CONSTRAINT "attachments_material_id_materials_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."materials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attachments" ADD CONSTRAINT "attachments_stock_lot_id_stock_lots_id_fk" FOREIGN KEY ("stock_lot_id") REFERENCES "public"."stock_lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attachments" ADD CONSTRAINT "attachments_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "conversions" ADD CONSTRAINT "conversions_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "count_walks" ADD CONSTRAINT "count_walks_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "liquor_entries" ADD CONSTRAINT "liquor_entries_stock_lot_id_stock_lots_id_fk" FOREIGN KEY ("stock_lot_id") REFERENCES "public"."stock_lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "liquor_entries" ADD CONSTRAINT "liquor_entries_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spoon_weighings" ADD CONSTRAINT "spoon_weighings_material_id_materials_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."materials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spoon_weighings" ADD CONSTRAINT "spoon_weighings_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "attachments_material" ON "attachments" USING btree ("material_id");--> statement-breakpoint
CREATE INDEX "attachments_stock_lot" ON "attachments" USING btree ("stock_lot_id");--> statement-breakpoint
CREATE INDEX "liquor_entries_stock_lot" ON "liquor_entries" USING btree ("stock_lot_id","seq");--> statement-breakpoint
CREATE INDEX "spoon_weighings_material" ON "spoon_weighings" USING btree ("material_id");--> statement-breakpoint
ALTER TABLE "movements" ADD CONSTRAINT "movements_conversion_id_conversions_id_fk" FOREIGN KEY ("conversion_id") REFERENCES "public"."conversions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "movements_jar" ON "movements" USING btree ("stock_lot_id","at","seq");--> statement-breakpoint
CREATE INDEX "movements_conversion" ON "movements" USING btree ("conversion_id");--> statement-breakpoint
CREATE INDEX "stock_balances_touched" ON "stock_balances" USING btree ("touched");