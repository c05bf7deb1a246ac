import { formatAmount } from '@vestigia/core';
import type { Db } from '../db/database';
import { readForecast } from './forecast';
import type { LedgerMirror } from './ledger-mirror';
import { writeTable } from '../shared/csv-table';

/** What to order and what to gather, as a table to take along. */
export async function shoppingList(
  db: Db,
  ledger: LedgerMirror,
  now: Date,
): Promise<{ name: string; type: string; content: string }> {
  const { today, rows } = await readForecast(db, ledger, now);
  const wanted = rows.filter((r) => r.act !== 'none');
  const cells = wanted.map((r) => [
    r.act,
    r.name,
    r.quantity ? formatAmount(r.quantity.value, r.measure) : '',
    formatAmount(Math.max(0, r.free), r.measure),
    r.runOut?.earlyDays ?? null,
    r.runOut?.lateDays ?? null,
    r.why,
  ]);
  return {
    name: `to-get-${today}.csv`,
    type: 'text/csv; charset=utf-8',
    content: writeTable(
      ['what', 'material', 'quantity', 'free', 'runs out in days, early', 'runs out in days, late', 'why'],
      cells,
      ',',
    ),
  };
}
