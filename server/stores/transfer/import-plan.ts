import type { StoresDocument, TransferKind } from '@vestigia/contract';
import { storesDocument } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import type { Db } from '../../db/database';
import { oneValue } from '../shelf';
import { decodeText, readTable } from '../../shared/csv-table';
import type { Read } from './read-cells';
import { MATERIAL_COLUMNS, STOCK_LOT_COLUMNS } from './records';
import { MOVEMENT_COLUMNS } from './movement-records';
import { readHere, Planner } from './import-planner';
import type { ImportPlan, Progress } from './import-outcome';
export type PlanReading =
  { readonly ok: true; readonly plan: ImportPlan } | { readonly ok: false; readonly message: string };

export const stampOf = (db: Db): Promise<string> =>
  oneValue<string>(
    db,
    sql`(SELECT json_build_array((SELECT max(touched) FROM stock_balances), (SELECT count(*) FROM materials), (SELECT max(seq) FROM movements), (SELECT count(*) FROM people))::text)`,
  );

/** Reads a file and says what would become of every row. Changes nothing. */
export async function planImport(
  db: Db,
  kind: TransferKind,
  bytes: Uint8Array,
  importer: string,
  now: Date,
  progress: Progress,
): Promise<PlanReading> {
  const decoded = decodeText(bytes);
  if (!decoded.ok) return decoded;
  const stamp = await stampOf(db);
  const planner = new Planner(db, await readHere(db), now);
  if (kind === 'document') {
    const document = readDocument(decoded.text);
    if (!document.ok) return document;
    await planner.addDocument(document.value, progress);
  } else {
    const columns =
      kind === 'materials' ? MATERIAL_COLUMNS : kind === 'stockLots' ? STOCK_LOT_COLUMNS : MOVEMENT_COLUMNS;
    const reading = readTable(decoded.text, columns);
    if (!reading.ok) return reading;
    await planner.addTable(kind, reading.table, importer, progress);
  }
  return { ok: true, plan: await planner.finish(stamp) };
}

function readDocument(text: string): Read<StoresDocument> {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { ok: false, message: $localize`This is not readable JSON: it may be cut off. Export it again, whole.` };
  }
  const result = storesDocument.safeParse(value);
  if (result.success) return { ok: true, value: result.data };
  const issue = result.error.issues[0];
  return {
    ok: false,
    message:
      issue && /[.!?]$/.test(issue.message)
        ? issue.message
        : $localize`“${issue?.path.join('.') ?? ''}” is missing or can’t be used.`,
  };
}
