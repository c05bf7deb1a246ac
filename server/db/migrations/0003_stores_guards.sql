-- Balances folded by the statement instead of by the row, so that a file of fifty thousand movements goes in as quickly as it is read;
-- every change of a jar's row on the shelf is numbered, so that a reader asks only for what it has not seen.

DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['conversions', 'liquor_entries', 'spoon_weighings', 'attachments'] LOOP
    EXECUTE format('CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION vestigia_append_only()', t);
    EXECUTE format('CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only()', t);
  END LOOP;
END $$;
--> statement-breakpoint
CREATE SEQUENCE vestigia_touched;
--> statement-breakpoint
UPDATE stock_balances SET touched = nextval('vestigia_touched');
--> statement-breakpoint
DROP TRIGGER open_balance ON stock_lots;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION vestigia_open_balance() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO stock_balances (stock_lot_id, touched) SELECT id, nextval('vestigia_touched') FROM added;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER open_balance AFTER INSERT ON stock_lots REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION vestigia_open_balance();
--> statement-breakpoint
DROP TRIGGER fold_movement ON movements;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION vestigia_fold_movement() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE stock_balances b SET on_hand = b.on_hand + s.amount, touched = nextval('vestigia_touched')
  FROM (SELECT stock_lot_id, sum(amount)::bigint AS amount FROM added GROUP BY stock_lot_id) s WHERE b.stock_lot_id = s.stock_lot_id;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER fold_movement AFTER INSERT ON movements REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION vestigia_fold_movement();
--> statement-breakpoint
DROP TRIGGER fold_promise ON promises;
--> statement-breakpoint
-- A new promise may not exceed what is free; a count that finds less than was promised is the truth and stays.
-- Opening a studio file brings a whole history at once: there each promise was checked against the shelf of its own moment before.
CREATE OR REPLACE FUNCTION vestigia_fold_promise() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE stock_balances b SET promised = b.promised + s.amount, touched = nextval('vestigia_touched')
  FROM (SELECT stock_lot_id, sum(amount)::bigint AS amount FROM added GROUP BY stock_lot_id) s WHERE b.stock_lot_id = s.stock_lot_id;
  IF coalesce(current_setting('vestigia.opening', true), '') <> 'yes' AND EXISTS (
    SELECT 1 FROM added a JOIN stock_balances b ON b.stock_lot_id = a.stock_lot_id WHERE a.amount > 0 AND b.promised > b.on_hand
  ) THEN
    RAISE EXCEPTION 'promise exceeds what is free' USING ERRCODE = 'VS002';
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER fold_promise AFTER INSERT ON promises REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION vestigia_fold_promise();
--> statement-breakpoint
CREATE FUNCTION vestigia_touch_jars() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE stock_balances b SET touched = nextval('vestigia_touched') FROM changed c WHERE b.stock_lot_id = c.id;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER touch_jars AFTER UPDATE ON stock_lots REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION vestigia_touch_jars();
--> statement-breakpoint
CREATE FUNCTION vestigia_touch_jars_of_material() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE stock_balances b SET touched = nextval('vestigia_touched') FROM changed c JOIN stock_lots s ON s.material_id = c.id WHERE b.stock_lot_id = s.id;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER touch_jars AFTER UPDATE ON materials REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION vestigia_touch_jars_of_material();
