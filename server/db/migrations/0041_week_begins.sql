ALTER TABLE "studio" ALTER COLUMN "shown_in" SET DEFAULT '{"weight":"metric","volume":"metric","temperature":"celsius","decimalMark":".","days":"dayMonthYear","weekBegins":"monday"}'::jsonb;--> statement-breakpoint
-- Nobody did this, so it is no deed.
SET LOCAL vestigia.deeds = 'off';--> statement-breakpoint
UPDATE "studio" SET "shown_in" = "shown_in" || '{"weekBegins":"monday"}';--> statement-breakpoint
SET LOCAL vestigia.deeds = '';
