-- Tables, columns and keys get the names of the glossary (docs/glossary.md). What they hold stays as it was.

ALTER TABLE "promises" RENAME TO "reservations";--> statement-breakpoint
ALTER TABLE "standings" RENAME TO "recipe_statuses";--> statement-breakpoint
ALTER TABLE "answered" RENAME TO "idempotency_keys";--> statement-breakpoint
ALTER TABLE "count_walks" RENAME TO "stocktakes";--> statement-breakpoint
ALTER TABLE "stock_balances" RENAME COLUMN "promised" TO "reserved";--> statement-breakpoint
ALTER TABLE "recipe_statuses" RENAME COLUMN "standing" TO "status";--> statement-breakpoint
ALTER TABLE "vessels" RENAME COLUMN "most_c" TO "max_c";--> statement-breakpoint
ALTER TABLE "tags" RENAME COLUMN "jar_id" TO "stock_lot_id";--> statement-breakpoint
ALTER TABLE "strip_trials" RENAME COLUMN "laid" TO "layout";--> statement-breakpoint
ALTER TABLE "lots" RENAME COLUMN "written" TO "quantity_text";--> statement-breakpoint
ALTER TABLE "lots" RENAME COLUMN "asked" TO "extras";--> statement-breakpoint
ALTER TABLE "cautions_put_away" RENAME COLUMN "words" TO "caution";--> statement-breakpoint
ALTER TABLE "stock_balances" RENAME CONSTRAINT "promised_not_negative" TO "reserved_not_negative";--> statement-breakpoint
ALTER TABLE "reservations" RENAME CONSTRAINT "promises_lot_id_lots_id_fk" TO "reservations_lot_id_lots_id_fk";--> statement-breakpoint
ALTER TABLE "reservations" RENAME CONSTRAINT "promises_stock_lot_id_stock_lots_id_fk" TO "reservations_stock_lot_id_stock_lots_id_fk";--> statement-breakpoint
ALTER TABLE "reservations" RENAME CONSTRAINT "promises_by_id_people_id_fk" TO "reservations_by_id_people_id_fk";--> statement-breakpoint
ALTER TABLE "recipe_statuses" RENAME CONSTRAINT "standings_recipe_version_id_recipe_versions_id_fk" TO "recipe_statuses_recipe_version_id_recipe_versions_id_fk";--> statement-breakpoint
ALTER TABLE "recipe_statuses" RENAME CONSTRAINT "standings_by_id_people_id_fk" TO "recipe_statuses_by_id_people_id_fk";--> statement-breakpoint
ALTER TABLE "stocktakes" RENAME CONSTRAINT "count_walks_by_id_people_id_fk" TO "stocktakes_by_id_people_id_fk";--> statement-breakpoint
ALTER TABLE "tags" RENAME CONSTRAINT "tags_jar_id_stock_lots_id_fk" TO "tags_stock_lot_id_stock_lots_id_fk";--> statement-breakpoint
ALTER INDEX "movements_jar" RENAME TO "movements_stock_lot";--> statement-breakpoint
ALTER INDEX "promises_lot" RENAME TO "reservations_lot";--> statement-breakpoint
ALTER INDEX "promises_stock_lot" RENAME TO "reservations_stock_lot";--> statement-breakpoint
ALTER INDEX "standings_version" RENAME TO "recipe_statuses_version";--> statement-breakpoint
DROP TRIGGER fold_promise ON reservations;--> statement-breakpoint
DROP FUNCTION vestigia_fold_promise();--> statement-breakpoint
-- A new reservation may not exceed what is free; a count that finds less than was reserved is the truth and stays.
-- Opening a studio file brings a whole history at once: there each reservation was checked against the shelf of its own moment before.
CREATE FUNCTION vestigia_fold_reservation() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE stock_balances b SET reserved = b.reserved + s.amount, touched = nextval('vestigia_touched')
  FROM (SELECT stock_lot_id, sum(amount)::bigint AS amount FROM added GROUP BY stock_lot_id) s WHERE b.stock_lot_id = s.stock_lot_id;
  IF coalesce(current_setting('vestigia.opening', true), '') <> 'yes' AND EXISTS (
    SELECT 1 FROM added a JOIN stock_balances b ON b.stock_lot_id = a.stock_lot_id WHERE a.amount > 0 AND b.reserved > b.on_hand
  ) THEN
    RAISE EXCEPTION 'reservation exceeds what is free' USING ERRCODE = 'VS002';
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER fold_reservation AFTER INSERT ON reservations REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION vestigia_fold_reservation();
--> statement-breakpoint
-- Keys inside kept documents. In the text of a jsonb value a key stands as "key": and a quotation mark inside a string as \", so that only
-- keys match. The records stay what they were; only what their parts are called changes, which is why they may be opened here.
CREATE FUNCTION vestigia_rename_keys(doc jsonb, pairs text[]) RETURNS jsonb LANGUAGE plpgsql IMMUTABLE AS $$
DECLARE t text := doc::text; p text;
BEGIN
  FOREACH p IN ARRAY pairs LOOP
    t := replace(t, '"' || split_part(p, '>', 1) || '": ', '"' || split_part(p, '>', 2) || '": ');
  END LOOP;
  RETURN t::jsonb;
END $$;
--> statement-breakpoint
ALTER TABLE recipe_versions DISABLE TRIGGER append_only;--> statement-breakpoint
ALTER TABLE lots DISABLE TRIGGER append_only;--> statement-breakpoint
ALTER TABLE tags DISABLE TRIGGER append_only;--> statement-breakpoint
UPDATE recipe_versions SET body = vestigia_rename_keys(body, ARRAY['liquorRatioLeast>minLiquorRatio', 'leastMin>minMinutes', 'mostMin>maxMinutes']);--> statement-breakpoint
UPDATE lots SET
  plan = vestigia_rename_keys(plan, ARRAY['leastMin>minMinutes', 'mostMin>maxMinutes', 'sentence>message', 'fill>fillLevel', 'run>fill']),
  extras = vestigia_rename_keys(extras, ARRAY['written>quantityText', 'runs>fills']),
  checks = vestigia_rename_keys(checks, ARRAY['sentence>message']);--> statement-breakpoint
UPDATE tags SET kind = 'stockLot' WHERE kind = 'jar';--> statement-breakpoint
ALTER TABLE recipe_versions ENABLE TRIGGER append_only;--> statement-breakpoint
ALTER TABLE lots ENABLE TRIGGER append_only;--> statement-breakpoint
ALTER TABLE tags ENABLE TRIGGER append_only;--> statement-breakpoint
UPDATE lot_progress SET stations = vestigia_rename_keys(stations, ARRAY['knotted>hasDeviation']);--> statement-breakpoint
DROP FUNCTION vestigia_rename_keys(jsonb, text[]);
