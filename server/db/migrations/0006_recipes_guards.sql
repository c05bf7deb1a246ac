-- Proofs and strip trials are records; and what was measured out is no longer always a weight, so its keys lost their unit.

DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['proofs', 'strip_trials', 'strip_readings', 'strip_promotions'] LOOP
    EXECUTE format('CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION vestigia_append_only()', t);
    EXECUTE format('CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only()', t);
  END LOOP;
END $$;
--> statement-breakpoint
ALTER TABLE lots DISABLE TRIGGER append_only;
--> statement-breakpoint
ALTER TABLE run_entries DISABLE TRIGGER append_only;
--> statement-breakpoint
-- Keys only: in JSON text a key stands in quotes before a colon, and a quote inside a person's words is escaped.
UPDATE lots SET plan = replace(replace(replace(plan::text, '"amountMg": ', '"amount": '), '"shortMg": ', '"short": '), '"toleranceG": ', '"tolerance": ')::jsonb;
--> statement-breakpoint
UPDATE run_entries SET weighing = (weighing - 'amountMg') || jsonb_build_object('amount', weighing->'amountMg') WHERE weighing ? 'amountMg';
--> statement-breakpoint
ALTER TABLE lots ENABLE TRIGGER append_only;
--> statement-breakpoint
ALTER TABLE run_entries ENABLE TRIGGER append_only;
