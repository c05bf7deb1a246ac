CREATE TABLE "fastness_readings" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"test_id" uuid NOT NULL,
	"cloth" text,
	"on_date" date NOT NULL,
	"before" jsonb,
	"after" jsonb,
	"typed_grade" real,
	"note" text DEFAULT '' NOT NULL,
	"replaces_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "fastness_readings_replaces_id_unique" UNIQUE("replaces_id")
);
--> statement-breakpoint
CREATE TABLE "fastness_tests" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"place" text,
	"name" text NOT NULL,
	"lot_id" uuid,
	"made_with" jsonb NOT NULL,
	"cloths" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"started_on" date NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "swatches" (
	"id" uuid PRIMARY KEY NOT NULL,
	"page" integer NOT NULL,
	"slot" integer NOT NULL,
	"name" text NOT NULL,
	"lot_id" uuid,
	"of" jsonb,
	"lab" jsonb,
	"made_with" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"taken_out_at" timestamp with time zone,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "fastness_readings" ADD CONSTRAINT "fastness_readings_test_id_fastness_tests_id_fk" FOREIGN KEY ("test_id") REFERENCES "public"."fastness_tests"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fastness_readings" ADD CONSTRAINT "fastness_readings_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fastness_tests" ADD CONSTRAINT "fastness_tests_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fastness_tests" ADD CONSTRAINT "fastness_tests_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "swatches" ADD CONSTRAINT "swatches_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "swatches" ADD CONSTRAINT "swatches_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "fastness_readings_test" ON "fastness_readings" USING btree ("test_id","seq");--> statement-breakpoint
CREATE INDEX "swatches_place" ON "swatches" USING btree ("page","slot");--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "fastness_tests" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "fastness_tests" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "fastness_readings" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "fastness_readings" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();
--> statement-breakpoint
CREATE UNIQUE INDEX "swatches_one_a_place" ON "swatches" ("page", "slot") WHERE taken_out_at IS NULL;
