CREATE TABLE "strip_looks" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"trial_id" uuid NOT NULL,
	"state" text NOT NULL,
	"light" text NOT NULL,
	"seen" jsonb NOT NULL,
	"replaces_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "strip_looks_replaces_id_unique" UNIQUE("replaces_id")
);
--> statement-breakpoint
ALTER TABLE "strip_trials" ALTER COLUMN "recipe_version_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "strip_trials" ALTER COLUMN "total_mg" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "strip_looks" ADD CONSTRAINT "strip_looks_trial_id_strip_trials_id_fk" FOREIGN KEY ("trial_id") REFERENCES "public"."strip_trials"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_looks" ADD CONSTRAINT "strip_looks_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "strip_looks_trial" ON "strip_looks" USING btree ("trial_id");--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "strip_looks" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "strip_looks" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();
