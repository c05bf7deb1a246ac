CREATE TABLE "answered" (
	"key" text PRIMARY KEY NOT NULL,
	"body_hash" text NOT NULL,
	"status" integer NOT NULL,
	"reply" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "colourways" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"recipe_version_id" uuid NOT NULL,
	"base_material_id" uuid NOT NULL,
	"master" jsonb NOT NULL,
	"tolerance_delta_e" real NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "colourways_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "lot_progress" (
	"lot_id" uuid PRIMARY KEY NOT NULL,
	"state" text NOT NULL,
	"stations" jsonb NOT NULL,
	"next" jsonb,
	"result" jsonb,
	"delta_e" real,
	"last_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "lots" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer NOT NULL,
	"colourway_id" uuid NOT NULL,
	"recipe_version_id" uuid NOT NULL,
	"base_material_id" uuid NOT NULL,
	"water_id" uuid,
	"water" jsonb,
	"reorder_of_id" uuid,
	"written" text NOT NULL,
	"pieces" integer NOT NULL,
	"piece_weight_mg" bigint NOT NULL,
	"batches" integer NOT NULL,
	"plan" jsonb NOT NULL,
	"factors" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "lots_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "materials" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"measure" text NOT NULL,
	"hazards" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"base" jsonb,
	CONSTRAINT "materials_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "movements" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"stock_lot_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"amount" bigint NOT NULL,
	"lot_id" uuid,
	"run_entry_id" uuid,
	"reverses_id" uuid,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "movements_reverses_id_unique" UNIQUE("reverses_id")
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"passphrase_hash" text,
	CONSTRAINT "people_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "promises" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"lot_id" uuid NOT NULL,
	"stock_lot_id" uuid NOT NULL,
	"amount" bigint NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "readings" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"lot_id" uuid NOT NULL,
	"batch" integer NOT NULL,
	"state" text NOT NULL,
	"lab" jsonb NOT NULL,
	"conditions" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"replaces_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "readings_replaces_id_unique" UNIQUE("replaces_id")
);
--> statement-breakpoint
CREATE TABLE "recipe_versions" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"recipe_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"body" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "recipe_version_number" UNIQUE("recipe_id","number")
);
--> statement-breakpoint
CREATE TABLE "recipes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "recipes_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "run_entries" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"lot_id" uuid NOT NULL,
	"step_index" integer NOT NULL,
	"kind" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"recorded_at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	"replaces_id" uuid,
	"temperature_c" real,
	"text" text,
	"weighing" jsonb,
	CONSTRAINT "run_entries_replaces_id_unique" UNIQUE("replaces_id")
);
--> statement-breakpoint
CREATE TABLE "secrets" (
	"name" text PRIMARY KEY NOT NULL,
	"value" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"sid" text PRIMARY KEY NOT NULL,
	"data" jsonb NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "standings" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"recipe_version_id" uuid NOT NULL,
	"standing" text NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "stock_balances" (
	"stock_lot_id" uuid PRIMARY KEY NOT NULL,
	"on_hand" bigint DEFAULT 0 NOT NULL,
	"promised" bigint DEFAULT 0 NOT NULL,
	CONSTRAINT "on_hand_not_negative" CHECK ("stock_balances"."on_hand" >= 0),
	CONSTRAINT "promised_not_negative" CHECK ("stock_balances"."promised" >= 0)
);
--> statement-breakpoint
CREATE TABLE "stock_lots" (
	"id" uuid PRIMARY KEY NOT NULL,
	"material_id" uuid NOT NULL,
	"tag" text NOT NULL,
	"received_on" date NOT NULL,
	"best_before" date,
	"place" text DEFAULT '' NOT NULL,
	"source" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "stock_lots_tag_unique" UNIQUE("tag")
);
--> statement-breakpoint
CREATE TABLE "studio" (
	"only" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"name" text NOT NULL,
	"zone" text NOT NULL,
	"sign_in_note" text DEFAULT '' NOT NULL,
	"balance_name" text DEFAULT 'bench balance' NOT NULL,
	"balance_resolution_g" real DEFAULT 0.1 NOT NULL,
	"balance_capacity_g" real DEFAULT 3000 NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "one_studio" CHECK ("studio"."only")
);
--> statement-breakpoint
CREATE TABLE "verdicts" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"lot_id" uuid NOT NULL,
	"verdict" text NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"to_master" real,
	"to_first" real,
	"between_batches" real,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "vessels" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"metal" text NOT NULL,
	"working_ml" integer NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "vessels_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "waters" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"ph" real,
	"hardness_dh" real,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "waters_name_unique" UNIQUE("name")
);
--> statement-breakpoint
ALTER TABLE "colourways" ADD CONSTRAINT "colourways_recipe_version_id_recipe_versions_id_fk" FOREIGN KEY ("recipe_version_id") REFERENCES "public"."recipe_versions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colourways" ADD CONSTRAINT "colourways_base_material_id_materials_id_fk" FOREIGN KEY ("base_material_id") REFERENCES "public"."materials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot_progress" ADD CONSTRAINT "lot_progress_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lots" ADD CONSTRAINT "lots_colourway_id_colourways_id_fk" FOREIGN KEY ("colourway_id") REFERENCES "public"."colourways"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lots" ADD CONSTRAINT "lots_recipe_version_id_recipe_versions_id_fk" FOREIGN KEY ("recipe_version_id") REFERENCES "public"."recipe_versions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lots" ADD CONSTRAINT "lots_base_material_id_materials_id_fk" FOREIGN KEY ("base_material_id") REFERENCES "public"."materials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lots" ADD CONSTRAINT "lots_water_id_waters_id_fk" FOREIGN KEY ("water_id") REFERENCES "public"."waters"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lots" ADD CONSTRAINT "lots_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movements" ADD CONSTRAINT "movements_stock_lot_id_stock_lots_id_fk" FOREIGN KEY ("stock_lot_id") REFERENCES "public"."stock_lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movements" ADD CONSTRAINT "movements_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movements" ADD CONSTRAINT "movements_run_entry_id_run_entries_id_fk" FOREIGN KEY ("run_entry_id") REFERENCES "public"."run_entries"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "movements" ADD CONSTRAINT "movements_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "promises" ADD CONSTRAINT "promises_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "promises" ADD CONSTRAINT "promises_stock_lot_id_stock_lots_id_fk" FOREIGN KEY ("stock_lot_id") REFERENCES "public"."stock_lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "promises" ADD CONSTRAINT "promises_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recipe_versions" ADD CONSTRAINT "recipe_versions_recipe_id_recipes_id_fk" FOREIGN KEY ("recipe_id") REFERENCES "public"."recipes"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recipe_versions" ADD CONSTRAINT "recipe_versions_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_entries" ADD CONSTRAINT "run_entries_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_entries" ADD CONSTRAINT "run_entries_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "standings" ADD CONSTRAINT "standings_recipe_version_id_recipe_versions_id_fk" FOREIGN KEY ("recipe_version_id") REFERENCES "public"."recipe_versions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "standings" ADD CONSTRAINT "standings_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_balances" ADD CONSTRAINT "stock_balances_stock_lot_id_stock_lots_id_fk" FOREIGN KEY ("stock_lot_id") REFERENCES "public"."stock_lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_lots" ADD CONSTRAINT "stock_lots_material_id_materials_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."materials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdicts" ADD CONSTRAINT "verdicts_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdicts" ADD CONSTRAINT "verdicts_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "lot_progress_state" ON "lot_progress" USING btree ("state");--> statement-breakpoint
CREATE INDEX "lots_colourway" ON "lots" USING btree ("colourway_id");--> statement-breakpoint
CREATE INDEX "lots_reorder" ON "lots" USING btree ("reorder_of_id");--> statement-breakpoint
CREATE INDEX "movements_stock_lot" ON "movements" USING btree ("stock_lot_id","seq");--> statement-breakpoint
CREATE INDEX "movements_lot" ON "movements" USING btree ("lot_id");--> statement-breakpoint
CREATE INDEX "promises_lot" ON "promises" USING btree ("lot_id");--> statement-breakpoint
CREATE INDEX "promises_stock_lot" ON "promises" USING btree ("stock_lot_id");--> statement-breakpoint
CREATE INDEX "readings_lot" ON "readings" USING btree ("lot_id","seq");--> statement-breakpoint
CREATE INDEX "run_entries_lot" ON "run_entries" USING btree ("lot_id","seq");--> statement-breakpoint
CREATE INDEX "standings_version" ON "standings" USING btree ("recipe_version_id");--> statement-breakpoint
CREATE INDEX "stock_lots_material" ON "stock_lots" USING btree ("material_id");--> statement-breakpoint
CREATE INDEX "verdicts_lot" ON "verdicts" USING btree ("lot_id","seq");