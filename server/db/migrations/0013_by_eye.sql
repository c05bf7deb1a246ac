CREATE TABLE "eye_readings" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"lot_id" uuid NOT NULL,
	"batch" integer NOT NULL,
	"group_key" text,
	"zone" text,
	"piece" text,
	"state" text NOT NULL,
	"seen" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"replaces_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "eye_readings_replaces_id_unique" UNIQUE("replaces_id")
);
--> statement-breakpoint
ALTER TABLE "lot_progress" ADD COLUMN "family" jsonb;--> statement-breakpoint
ALTER TABLE "lot_progress" ADD COLUMN "seen" jsonb;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "group_key" text;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "zone" text;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "piece" text;--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "judge_rule" text DEFAULT 'eye' NOT NULL;--> statement-breakpoint
ALTER TABLE "verdicts" ADD COLUMN "rests_on" text DEFAULT 'reading';--> statement-breakpoint
ALTER TABLE "eye_readings" ADD CONSTRAINT "eye_readings_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "eye_readings" ADD CONSTRAINT "eye_readings_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "eye_readings_lot" ON "eye_readings" USING btree ("lot_id","seq");--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "eye_readings" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "eye_readings" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();
