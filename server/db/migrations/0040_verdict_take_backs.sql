CREATE TABLE "verdict_take_backs" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"verdict_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "verdict_take_backs_verdict_id_unique" UNIQUE("verdict_id")
);
--> statement-breakpoint
ALTER TABLE "verdict_take_backs" ADD CONSTRAINT "verdict_take_backs_verdict_id_verdicts_id_fk" FOREIGN KEY ("verdict_id") REFERENCES "public"."verdicts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "verdict_take_backs" ADD CONSTRAINT "verdict_take_backs_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "verdict_take_backs" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "verdict_take_backs" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();
