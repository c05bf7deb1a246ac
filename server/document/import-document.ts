import type { StudioDocument } from '@vestigia/contract';
import { convertGramsToMilligrams } from '@vestigia/core';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Context } from '../context';
import type { Db } from '../db/database';
import * as schema from '../db/schema';
import { hashPassphrase } from '../door/passphrase';
import type { Writer } from '../http/write';
import { refoldAll } from '../lots/lot-progress';
import { Refusal } from '../problem';

/** Rows sent in one statement: well under the 65 535 parameters a statement may carry. */
const CHUNK = 500;
const SLACK_MS = 2 * 60_000;

/** Opens a studio file in an empty studio: all of it or nothing. */
export async function importDocument(context: Context, writer: Writer, document: StudioDocument): Promise<void> {
  checkTimes(document, context.clock());
  const people = await Promise.all(document.people.map(async ({ passphrase, ...p }) => ({ ...p, passphraseHash: passphrase === undefined ? null : await hashPassphrase(passphrase) })));
  await writer.write({ call: 'openDocument', key: undefined, body: null, run: (tx) => insertAll(tx, document, people) });
  await context.database.tidy();
}

/** A record from a time still to come would stop every later write, so it is refused at the door. */
function checkTimes(document: StudioDocument, now: Date): void {
  const times = [document.asOf, ...document.movements.map((m) => m.at), ...document.lots.map((l) => l.at), ...document.runEntries.map((e) => e.recordedAt)];
  if (times.some((at) => Date.parse(at) > now.getTime() + SLACK_MS)) {
    throw new Refusal('refused', 'This studio file holds records from a time still to come by this computer’s clock. Set the clock right, then open it again.', { reason: 'inFuture' });
  }
}

async function insertAll(tx: Db, d: StudioDocument, people: (typeof schema.people.$inferInsert)[]): Promise<void> {
  const insert = async <T extends PgTable>(table: T, rows: readonly T['$inferInsert'][]): Promise<void> => {
    for (let i = 0; i < rows.length; i += CHUNK) await tx.insert(table).values(rows.slice(i, i + CHUNK) as never);
  };
  await insert(schema.studio, [d.settings]);
  await insert(schema.people, people);
  await insert(schema.vessels, d.vessels);
  await insert(schema.waters, d.waters);
  await insert(schema.materials, d.materials);
  await insert(schema.stockLots, d.stockLots);
  await insert(schema.recipes, d.recipes);
  await insert(schema.recipeVersions, d.recipeVersions);
  await insert(schema.standings, d.standings);
  await insert(schema.colourways, d.colourways);
  await insert(schema.lots, d.lots.map((l) => ({ ...l, pieces: l.plan.pieces, pieceWeightMg: convertGramsToMilligrams(l.plan.pieceWeightG), batches: l.plan.batches.length, plan: l.plan })));
  await insert(schema.runEntries, d.runEntries);
  await insertLedgers(d, insert);
  await insert(schema.readings, d.readings.map(({ illuminant, observer, ...r }) => ({ ...r, conditions: { illuminant, observer } })));
  await insert(schema.verdicts, d.verdicts);
  await refoldAll(tx);
}

/** Movements and promises as they happened, one time line: a promise is checked against the shelf of its moment. */
async function insertLedgers(d: StudioDocument, insert: <T extends PgTable>(table: T, rows: readonly T['$inferInsert'][]) => Promise<void>): Promise<void> {
  const line = [
    ...d.movements.map((row) => ({ at: row.at, table: schema.movements, row })),
    ...d.promises.map((row) => ({ at: row.at, table: schema.promises, row })),
  ].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  let start = 0;
  for (let i = 1; i <= line.length; i += 1) {
    const first = line[start];
    if (!first || (i < line.length && line[i]?.table === first.table)) continue;
    await insert(first.table, line.slice(start, i).map((entry) => entry.row));
    start = i;
  }
}
