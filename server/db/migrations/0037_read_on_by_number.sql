CREATE UNIQUE INDEX "movements_seq" ON "movements" USING btree ("seq");--> statement-breakpoint
CREATE UNIQUE INDEX "run_entries_seq" ON "run_entries" USING btree ("seq");