-- What a probe read and which code was given out are records too.

DO $$
DECLARE t text;
BEGIN
  FOREACH t IN ARRAY ARRAY['probe_logs', 'tags'] LOOP
    EXECUTE format('CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION vestigia_append_only()', t);
    EXECUTE format('CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only()', t);
  END LOOP;
END $$;
