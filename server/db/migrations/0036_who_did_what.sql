CREATE TABLE "deeds" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid,
	"kind" text NOT NULL,
	"thing" text NOT NULL,
	"thing_id" uuid,
	"name" text DEFAULT '' NOT NULL,
	"changes" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
ALTER TABLE "movements" ADD COLUMN "brought_by_id" uuid;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "role" text DEFAULT 'dyer' NOT NULL;--> statement-breakpoint
ALTER TABLE "deeds" ADD CONSTRAINT "deeds_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "deeds_thing" ON "deeds" USING btree ("thing_id");--> statement-breakpoint
CREATE INDEX "deeds_seq" ON "deeds" USING btree ("seq");--> statement-breakpoint
ALTER TABLE "movements" ADD CONSTRAINT "movements_brought_by_id_people_id_fk" FOREIGN KEY ("brought_by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Before there were roles everybody could do everything, and may still.
UPDATE "people" SET "role" = 'owner';--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "deeds" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "deeds" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
-- Who writes, and when, is told by the writing transaction (server/http/write.ts). While a file is brought in, its rows
-- are not told one by one: one deed says who brought it. A secret is told as changed, without what it was.
CREATE FUNCTION vestigia_note_deed() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  was jsonb := CASE WHEN TG_OP = 'INSERT' THEN '{}' ELSE to_jsonb(OLD) END;
  is_now jsonb := CASE WHEN TG_OP = 'DELETE' THEN '{}' ELSE to_jsonb(NEW) END;
  of_row jsonb := CASE WHEN TG_OP = 'DELETE' THEN was ELSE is_now END;
  changed jsonb;
BEGIN
  IF coalesce(current_setting('vestigia.deeds', true), '') = 'off' THEN RETURN NULL; END IF;
  IF TG_OP = 'UPDATE' THEN
    SELECT coalesce(jsonb_object_agg(key, CASE WHEN key LIKE '%\_hash' THEN '[null, null]'::jsonb ELSE jsonb_build_array(was -> key, value) END), '{}')
      INTO changed FROM jsonb_each(is_now) WHERE key <> 'version' AND value IS DISTINCT FROM was -> key;
    IF changed = '{}' THEN RETURN NULL; END IF;
  ELSE
    changed := '{}';
  END IF;
  INSERT INTO deeds (at, by_id, kind, thing, thing_id, name, changes) VALUES (
    coalesce(nullif(current_setting('vestigia.now', true), '')::timestamptz, now()),
    nullif(current_setting('vestigia.person', true), '')::uuid,
    CASE TG_OP WHEN 'INSERT' THEN 'added' WHEN 'UPDATE' THEN 'changed' ELSE 'removed' END,
    TG_ARGV[0], (of_row ->> 'id')::uuid, coalesce(of_row ->> TG_ARGV[1], ''), changed);
  RETURN NULL;
END $$;
--> statement-breakpoint
DO $$
DECLARE t text[];
BEGIN
  FOREACH t SLICE 1 IN ARRAY ARRAY[
    ['studio', 'studio', 'name'], ['people', 'person', 'name'], ['heat_sources', 'heatSource', 'name'],
    ['vessels', 'vessel', 'name'], ['waters', 'water', 'name'], ['materials', 'material', 'name'],
    ['stock_lots', 'jar', 'tag'], ['recipes', 'recipe', 'name'], ['colourways', 'colourway', 'name'],
    ['swatches', 'swatch', 'name'], ['containers', 'container', 'name']] LOOP
    EXECUTE format('CREATE TRIGGER note_deed AFTER INSERT OR UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION vestigia_note_deed(%L, %L)', t[1], t[2], t[3]);
  END LOOP;
END $$;
