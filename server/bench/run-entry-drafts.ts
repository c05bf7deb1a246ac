import type { RunEntryResult } from '@vestigia/contract';
import type { z } from 'zod';
import type { api } from '@vestigia/contract';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import type { EntryResult, TimedEntry } from '../lots/record-entry';
import { recordEntries } from '../lots/record-entry';

export type RunEntryDrafts = z.infer<(typeof api)['recordDrafts']['body']>['drafts'];

/**
 * Takes touches in the order they were made, lot by lot. Each is taken once, however often it is sent; one that can't
 * be taken is answered with its sentence and holds none of the others up.
 */
export async function recordDrafts(db: Db, brought: RunEntryDrafts, by: By): Promise<{ results: RunEntryResult[] }> {
  const results = new Map<string, EntryResult>();
  for (const lotId of new Set(brought.map((t) => t.lotId))) {
    const ofLot = brought.filter((t) => t.lotId === lotId).map((t) => timed(t, by.now.getTime()));
    for (const result of await recordEntries(db, lotId, ofLot, by)) results.set(result.id, result);
  }
  return { results: brought.map(({ entry }) => tell(results.get(entry.id), entry.id)) };
}

/** When it happened: by its own word where it has one, else so long ago by the server's clock. */
export function timed({ entry, ageMs, afterId }: RunEntryDrafts[number], nowMs: number): TimedEntry {
  if (entry.at !== undefined) return { entry, atMs: Date.parse(entry.at) };
  return { entry, atMs: nowMs - ageMs, ...(afterId ? { afterId } : {}) };
}

export function tell(result: EntryResult | undefined, id: string): RunEntryResult {
  return !result || result.ok
    ? { id, ok: true, reason: '', message: '' }
    : { id, ok: false, reason: result.refusal.reason, message: result.refusal.message };
}
