CREATE TABLE "house_times" (
	"only" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"times" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "one_house" CHECK ("house_times"."only")
);
--> statement-breakpoint
CREATE TABLE "lots_wanted" (
	"lot_id" uuid PRIMARY KEY NOT NULL,
	"wanted_on" date NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "plans" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"plan" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "lots_wanted" ADD CONSTRAINT "lots_wanted_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lots_wanted" ADD CONSTRAINT "lots_wanted_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plans" ADD CONSTRAINT "plans_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "plans" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "plans" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();
