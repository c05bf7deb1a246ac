-- What the tables' own words can't say: append-only records, and balances that never disagree with the ledgers.

CREATE FUNCTION vestigia_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% is append-only: a correction is a new entry that names what it replaces', TG_TABLE_NAME USING ERRCODE = 'VS001';
END $$;
--> statement-breakpoint
DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['movements', 'promises', 'run_entries', 'readings', 'verdicts', 'recipe_versions', 'standings', 'lots'] LOOP
    EXECUTE format('CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION vestigia_append_only()', t);
    EXECUTE format('CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only()', t);
  END LOOP;
END $$;
--> statement-breakpoint
CREATE FUNCTION vestigia_open_balance() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO stock_balances (stock_lot_id) VALUES (NEW.id);
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER open_balance AFTER INSERT ON stock_lots FOR EACH ROW EXECUTE FUNCTION vestigia_open_balance();
--> statement-breakpoint
CREATE FUNCTION vestigia_fold_movement() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE stock_balances SET on_hand = on_hand + NEW.amount WHERE stock_lot_id = NEW.stock_lot_id;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER fold_movement AFTER INSERT ON movements FOR EACH ROW EXECUTE FUNCTION vestigia_fold_movement();
--> statement-breakpoint
-- A new promise may not exceed what is free; a count that finds less than was promised is the truth and stays.
CREATE FUNCTION vestigia_fold_promise() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE b stock_balances%ROWTYPE;
BEGIN
  UPDATE stock_balances SET promised = promised + NEW.amount WHERE stock_lot_id = NEW.stock_lot_id RETURNING * INTO b;
  IF NEW.amount > 0 AND b.promised > b.on_hand THEN
    RAISE EXCEPTION 'promise exceeds what is free' USING ERRCODE = 'VS002';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER fold_promise AFTER INSERT ON promises FOR EACH ROW EXECUTE FUNCTION vestigia_fold_promise();
