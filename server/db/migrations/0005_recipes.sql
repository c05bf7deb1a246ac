CREATE TABLE "heat_sources" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"power_w" double precision NOT NULL,
	"efficiency_percent" double precision NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "heat_sources_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "proofs" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"recipe_version_id" uuid NOT NULL,
	"wof_g" double precision NOT NULL,
	"lab" jsonb NOT NULL,
	"wanted" jsonb NOT NULL,
	"conditions" jsonb NOT NULL,
	"tolerance_delta_e" double precision NOT NULL,
	"delta_e" double precision NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "strip_promotions" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"trial_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"recipe_version_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "strip_readings" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"trial_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"lab" jsonb NOT NULL,
	"conditions" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"replaces_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "strip_readings_replaces_id_unique" UNIQUE("replaces_id")
);
--> statement-breakpoint
CREATE TABLE "strip_trials" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"recipe_version_id" uuid NOT NULL,
	"base_material_id" uuid NOT NULL,
	"water_id" uuid,
	"factor" text NOT NULL,
	"material_id" uuid,
	"total_mg" bigint NOT NULL,
	"levels" jsonb NOT NULL,
	"laid" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "strip_trials_name_unique" UNIQUE("name")
);
--> statement-breakpoint
ALTER TABLE "lots" ADD COLUMN "asked" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "lots" ADD COLUMN "checks" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "practice" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "proven_needs" integer DEFAULT 3 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "room_c" double precision DEFAULT 18 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "cold_water_c" double precision DEFAULT 12 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "hot_water_c" double precision DEFAULT 55 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "lift_limit_kg" double precision DEFAULT 15 NOT NULL;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "energy_minor_per_kwh" double precision;--> statement-breakpoint
ALTER TABLE "vessels" ADD COLUMN "held_iron" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "vessels" ADD COLUMN "empty_g" double precision;--> statement-breakpoint
ALTER TABLE "vessels" ADD COLUMN "most_c" double precision;--> statement-breakpoint
ALTER TABLE "vessels" ADD COLUMN "heat_source_id" uuid;--> statement-breakpoint
ALTER TABLE "waters" ADD COLUMN "iron_mg_per_l" double precision;--> statement-breakpoint
ALTER TABLE "proofs" ADD CONSTRAINT "proofs_recipe_version_id_recipe_versions_id_fk" FOREIGN KEY ("recipe_version_id") REFERENCES "public"."recipe_versions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "proofs" ADD CONSTRAINT "proofs_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_promotions" ADD CONSTRAINT "strip_promotions_trial_id_strip_trials_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."strip_trials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_promotions" ADD CONSTRAINT "strip_promotions_recipe_version_id_recipe_versions_id_fk" FOREIGN KEY ("recipe_version_id") REFERENCES "public"."recipe_versions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_promotions" ADD CONSTRAINT "strip_promotions_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_readings" ADD CONSTRAINT "strip_readings_trial_id_strip_trials_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."strip_trials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_readings" ADD CONSTRAINT "strip_readings_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_trials" ADD CONSTRAINT "strip_trials_recipe_version_id_recipe_versions_id_fk" FOREIGN KEY ("recipe_version_id") REFERENCES "public"."recipe_versions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_trials" ADD CONSTRAINT "strip_trials_base_material_id_materials_id_fk" FOREIGN KEY ("base_material_id") REFERENCES "public"."materials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_trials" ADD CONSTRAINT "strip_trials_material_id_materials_id_fk" FOREIGN KEY ("material_id") REFERENCES "public"."materials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_trials" ADD CONSTRAINT "strip_trials_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "proofs_version" ON "proofs" USING btree ("recipe_version_id");--> statement-breakpoint
CREATE INDEX "strip_promotions_trial" ON "strip_promotions" USING btree ("trial_id");--> statement-breakpoint
CREATE INDEX "strip_readings_trial" ON "strip_readings" USING btree ("trial_id");--> statement-breakpoint
ALTER TABLE "vessels" ADD CONSTRAINT "vessels_heat_source_id_heat_sources_id_fk" FOREIGN KEY ("heat_source_id") REFERENCES "public"."heat_sources"("id") ON DELETE no action ON UPDATE no action;