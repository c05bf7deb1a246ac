CREATE TABLE "cautions_put_away" (
	"person_id" uuid NOT NULL,
	"on" date NOT NULL,
	"words" text NOT NULL,
	CONSTRAINT "caution_once_a_day" UNIQUE("person_id","on","words")
);
--> statement-breakpoint
CREATE TABLE "containers" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"tare_mg" bigint NOT NULL,
	CONSTRAINT "containers_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "probe_logs" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"lot_id" uuid NOT NULL,
	"step_index" integer NOT NULL,
	"simulated" boolean NOT NULL,
	"readings" "bytea" NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "tags" (
	"seq" bigserial NOT NULL,
	"kind" text NOT NULL,
	"jar_id" uuid,
	"vessel_id" uuid,
	"lot_id" uuid,
	"number" integer,
	"step_index" integer,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "tag_once" UNIQUE NULLS NOT DISTINCT("kind","jar_id","vessel_id","lot_id","number","step_index")
);
--> statement-breakpoint
ALTER TABLE "attachments" ADD COLUMN "run_entry_id" uuid;--> statement-breakpoint
ALTER TABLE "lot_progress" ADD COLUMN "running" jsonb;--> statement-breakpoint
ALTER TABLE "run_entries" ADD COLUMN "detail" jsonb;--> statement-breakpoint
ALTER TABLE "cautions_put_away" ADD CONSTRAINT "cautions_put_away_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "probe_logs" ADD CONSTRAINT "probe_logs_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tags" ADD CONSTRAINT "tags_jar_id_stock_lots_id_fk" FOREIGN KEY ("jar_id") REFERENCES "public"."stock_lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tags" ADD CONSTRAINT "tags_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "probe_logs_lot" ON "probe_logs" USING btree ("lot_id","seq");--> statement-breakpoint
ALTER TABLE "attachments" ADD CONSTRAINT "attachments_run_entry_id_run_entries_id_fk" FOREIGN KEY ("run_entry_id") REFERENCES "public"."run_entries"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "attachments_run_entry" ON "attachments" USING btree ("run_entry_id") WHERE "attachments"."run_entry_id" IS NOT NULL;