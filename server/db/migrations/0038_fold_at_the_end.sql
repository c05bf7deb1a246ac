-- A whole history that is brought in is folded once, at its end, instead of with each piece: a piece touches most jars, so
-- that every movement cost a row of stock_balances besides, and the dead rows made each piece slower than the one before.
CREATE OR REPLACE FUNCTION vestigia_fold_movement() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF coalesce(current_setting('vestigia.opening', true), '') = 'yes' THEN RETURN NULL; END IF;
  UPDATE stock_balances b SET on_hand = b.on_hand + s.amount, touched = nextval('vestigia_touched')
  FROM (SELECT stock_lot_id, sum(amount)::bigint AS amount FROM added GROUP BY stock_lot_id) s WHERE b.stock_lot_id = s.stock_lot_id;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION vestigia_fold_reservation() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF coalesce(current_setting('vestigia.opening', true), '') = 'yes' THEN RETURN NULL; END IF;
  UPDATE stock_balances b SET reserved = b.reserved + s.amount, touched = nextval('vestigia_touched')
  FROM (SELECT stock_lot_id, sum(amount)::bigint AS amount FROM added GROUP BY stock_lot_id) s WHERE b.stock_lot_id = s.stock_lot_id;
  IF EXISTS (SELECT 1 FROM added a JOIN stock_balances b ON b.stock_lot_id = a.stock_lot_id WHERE a.amount > 0 AND b.reserved > b.on_hand) THEN
    RAISE EXCEPTION 'reservation exceeds what is free' USING ERRCODE = 'VS002';
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
-- Both ledgers of every jar, into an empty studio.
CREATE FUNCTION vestigia_fold_all() RETURNS void LANGUAGE sql AS $$
  UPDATE stock_balances b SET on_hand = coalesce(m.amount, 0), reserved = coalesce(r.amount, 0), touched = nextval('vestigia_touched')
  FROM stock_lots s
    LEFT JOIN (SELECT stock_lot_id, sum(amount)::bigint AS amount FROM movements GROUP BY stock_lot_id) m ON m.stock_lot_id = s.id
    LEFT JOIN (SELECT stock_lot_id, sum(amount)::bigint AS amount FROM reservations GROUP BY stock_lot_id) r ON r.stock_lot_id = s.id
  WHERE b.stock_lot_id = s.id
$$;
