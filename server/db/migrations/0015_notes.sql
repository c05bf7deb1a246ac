CREATE TABLE "notes" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"subject" text NOT NULL,
	"subject_id" uuid NOT NULL,
	"text" text NOT NULL,
	"mark" text,
	"replaces_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "notes_replaces_id_unique" UNIQUE("replaces_id")
);
--> statement-breakpoint
ALTER TABLE "notes" ADD CONSTRAINT "notes_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "notes_subject" ON "notes" USING btree ("subject","subject_id","seq");--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "notes" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "notes" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();
