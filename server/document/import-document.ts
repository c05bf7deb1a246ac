import type { OpenedDocument, StudioDocument } from '@vestigia/contract';
import { convertGramsToMilligrams, firstOverdraft, foldGoods } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Context } from '../shared/context';
import type { Db } from '../db/database';
import { insertRows } from '../db/insert-rows';
import { keysAtTheEnd } from '../db/keys-at-the-end';
import * as schema from '../db/schema';
import { hashPassphrase, newCode } from '../shared/passphrase';
import { noteDeed, tellNoRows } from '../shared/deeds';
import type { OpenedStudioFile } from './read-studio-file';
import type { Writer } from '../http/write';
import { refoldAll } from '../lots/lot-progress';
import { lotTag } from '../shared/lot-tag';
import { Refusal } from '../shared/problem';

const SLACK_MS = 2 * 60_000;

/** What goes into an empty studio: the document, and where photographs and sheets beside it are read. */
export type Brought = Pick<OpenedStudioFile, 'document' | 'contentOf'>;

/** A document by itself, with whatever is attached in it. */
export const broughtAlone = (document: StudioDocument): Brought => ({
  document,
  contentOf: () =>
    Promise.reject(new Refusal('unreadable', $localize`A photograph or sheet of this studio file is missing.`)),
});

export interface ImportHow {
  /** Hears how many rows of how many are in; throws to stop. */
  readonly heard?: (done: number, total: number) => void;
  /** From where it was opened, told as the first deed of this studio here; left out where it is only looked over. */
  readonly openedFrom?: string;
}

/**
 * Opens a studio file in an empty studio: all of it or nothing.
 * @returns a code for each person without a passphrase, good for choosing one once
 */
export async function importDocument(
  context: Context,
  writer: Writer,
  { document, contentOf }: Brought,
  { heard = () => undefined, openedFrom }: ImportHow = {},
): Promise<OpenedDocument['codes']> {
  checkTimes(document, context.clock());
  checkGoods(document);
  const codes = document.people.flatMap(({ id, name, passphrase }) =>
    passphrase === undefined ? [{ personId: id, name, code: newCode() }] : [],
  );
  const people = await Promise.all(
    document.people.map(async ({ id, name, role, language, passphrase }) => ({
      id,
      name,
      role,
      language,
      passphraseHash: passphrase === undefined ? null : await hashPassphrase(passphrase),
      codeHash:
        passphrase === undefined ? await hashPassphrase(codes.find((c) => c.personId === id)?.code ?? '') : null,
    })),
  );
  const total = Object.values(document).reduce((sum, list) => sum + (Array.isArray(list) ? list.length : 0), 0);
  let done = 0;
  // Files lie on the disk before any row names them.
  const attachments: (typeof schema.attachments.$inferInsert)[] = [];
  for (const { base64, sha256, ...a } of document.attachments) {
    const content = base64 === undefined ? await contentOf(sha256 ?? '') : Buffer.from(base64, 'base64');
    attachments.push({ ...a, ...(await context.database.files.keep(content)) });
    heard((done += 1), total);
  }
  const insert: Insert = async (tx, table, rows) => {
    await insertRows(tx, table, rows, (at) => {
      heard(done + at, total);
      return new Promise((resolve) => setImmediate(resolve));
    });
    done += rows.length;
  };
  const written = writer.write({
    call: 'openDocument',
    key: undefined,
    body: null,
    run: async (tx, now) => {
      await tellNoRows(tx);
      await keysAtTheEnd(tx, () => insertAll(tx, document, people, attachments, insert));
      if (openedFrom !== undefined)
        await noteDeed(tx, {
          now,
          byId: null,
          kind: 'openedFile',
          thing: 'file',
          name: document.settings.name,
          note: openedFrom,
          changes: { asOf: [null, document.asOf] },
        });
    },
  });
  await written.catch((error: unknown) => {
    throw error instanceof Refusal && error.code === 'notFound' ? incomplete() : error;
  });
  await context.database.tidy();
  return codes;
}

const incomplete = (): Refusal =>
  new Refusal(
    'refused',
    $localize`This studio file names something that is not in it. Nothing was opened; take another copy of it.`,
    { reason: 'damaged' },
  );

type Insert = <T extends PgTable>(tx: Db, table: T, rows: readonly T['$inferInsert'][]) => Promise<void>;

/** A record from a time still to come would stop every later write, so it is refused at the door. */
function checkTimes(document: StudioDocument, now: Date): void {
  const times = [
    document.asOf,
    ...document.movements.map((m) => m.at),
    ...document.lots.map((l) => l.at),
    ...document.runEntries.map((e) => e.recordedAt),
    ...document.deeds.map((deed) => deed.at),
    ...document.orders.map((o) => o.at),
    ...document.goods.map((g) => g.at),
  ];
  if (times.some((at) => Date.parse(at) > now.getTime() + SLACK_MS)) {
    throw new Refusal(
      'refused',
      $localize`This studio file holds records from a time still to come by this computer’s clock. Set the clock right, then open it again.`,
      { reason: 'inFuture' },
    );
  }
}

/** Finished pieces that fall below nothing would stop every later move of their lot. */
function checkGoods({ goods, lots }: StudioDocument): void {
  const { groups, lines } = foldGoods(goods);
  const over =
    groups.find((g) => Math.min(g.onShelf, g.setAside, g.handedOver, g.gone) < 0) ??
    lines.find((l) => Math.min(l.setAside, l.handedOver) < 0);
  if (!over) return;
  const number = lots.find((l) => l.id === over.lotId)?.number ?? 0;
  throw new Refusal(
    'refused',
    $localize`This studio file does not add up: of ${lotTag(number)} more finished pieces went out than came. Nothing was opened.`,
    { reason: 'overdraft' },
  );
}

async function insertAll(
  tx: Db,
  d: StudioDocument,
  people: (typeof schema.people.$inferInsert)[],
  attachments: (typeof schema.attachments.$inferInsert)[],
  into: Insert,
): Promise<void> {
  const insert = <T extends PgTable>(table: T, rows: readonly T['$inferInsert'][]): Promise<void> =>
    into(tx, table, rows);
  await insert(schema.studio, [d.settings]);
  await insert(schema.people, people);
  await insert(schema.atHand, d.atHand);
  await insert(schema.heatSources, d.heatSources);
  await insert(schema.vessels, d.vessels);
  await insert(schema.waters, d.waters);
  await insert(schema.materials, d.materials);
  await insert(
    schema.stockLots,
    d.stockLots.map(({ liquor: _liquor, ...s }) => s),
  );
  await insert(schema.conversions, d.conversions);
  await insert(schema.recipes, d.recipes);
  await insert(schema.recipeVersions, d.recipeVersions);
  await insert(schema.recipeStatuses, d.recipeStatuses);
  await insert(schema.colourways, d.colourways);
  await insert(schema.masters, d.masters);
  await insert(
    schema.lots,
    d.lots.map((l) => ({
      ...l,
      pieces: l.plan.pieces,
      pieceWeightMg: convertGramsToMilligrams(l.plan.pieceWeightG),
      batches: l.plan.batches.length,
      plan: l.plan,
      master: l.master ?? null,
    })),
  );
  await insert(schema.runEntries, d.runEntries);
  await insertLedgers(tx, d, insert);
  await insert(
    schema.readings,
    d.readings.map(({ illuminant, observer, group, ...r }) => ({
      ...r,
      groupKey: group,
      conditions: { illuminant, observer },
    })),
  );
  await insert(
    schema.eyeReadings,
    d.eyeReadings.map(({ group, ...r }) => ({ ...r, groupKey: group })),
  );
  await insert(schema.verdicts, d.verdicts);
  await insert(schema.verdictTakeBacks, d.verdictTakeBacks);
  await insert(
    schema.proofs,
    d.proofs.map(({ illuminant, observer, ...p }) => ({ ...p, conditions: { illuminant, observer } })),
  );
  await insert(schema.swatches, d.swatches);
  await insert(schema.patchCards, d.patchCards);
  await insert(schema.fastnessTests, d.fastnessTests);
  await insert(schema.fastnessReadings, d.fastnessReadings);
  await insert(schema.stripTrials, d.stripTrials);
  await insert(
    schema.stripReadings,
    d.stripReadings.map(({ illuminant, observer, ...r }) => ({ ...r, conditions: { illuminant, observer } })),
  );
  await insert(schema.stripLooks, d.stripLooks);
  await insert(schema.stripPromotions, d.stripPromotions);
  await insert(schema.spoonWeighings, d.spoonWeighings);
  await insert(schema.liquorEntries, d.liquorEntries);
  await insert(schema.pickings, d.pickings);
  await insert(schema.containers, d.containers);
  await insert(schema.tags, d.tags);
  if (d.tags.length > 0)
    await tx.execute(sql`SELECT setval(pg_get_serial_sequence('tags', 'seq'), (SELECT max(seq) FROM tags))`);
  if (d.houseTimes) await insert(schema.houseTimes, [{ times: d.houseTimes }]);
  await insert(schema.lotsWanted, d.lotsWanted);
  await insert(schema.arrivals, d.arrivals);
  await insert(schema.plans, d.plans);
  await insert(schema.customers, d.customers);
  await insert(schema.orders, d.orders);
  await insert(
    schema.orderLines,
    d.orderLines.map(({ pieceWeightG, ...l }) => ({
      ...l,
      pieceWeightMg: pieceWeightG === null ? null : convertGramsToMilligrams(pieceWeightG),
    })),
  );
  await insert(schema.orderLineLots, d.orderLineLots);
  await insert(
    schema.goods,
    d.goods.map(({ group, ...g }) => ({ ...g, groupKey: group })),
  );
  await insert(schema.notes, d.notes);
  for (const { base64, ...l } of d.probeLogs)
    await tx.insert(schema.probeLogs).values({ ...l, readings: Buffer.from(base64, 'base64') });
  await insert(schema.attachments, attachments);
  await insert(schema.deeds, d.deeds);
  await refoldAll(tx);
}

/**
 * The ledgers, each at once, folded at their end. That no jar ever held less than nothing, and that no promise was more
 * than was free, is looked at here over all of time.
 */
async function insertLedgers(
  tx: Db,
  d: StudioDocument,
  insert: <T extends PgTable>(table: T, rows: readonly T['$inferInsert'][]) => Promise<void>,
): Promise<void> {
  const tagOf = new Map(d.stockLots.map((s) => [s.id, s.tag]));
  const over = firstOverdraft(d.movements) ?? firstOverReservation(d);
  if (over)
    throw new Refusal(
      'refused',
      $localize`This studio file does not add up: ${tagOf.get(over.stockLotId) ?? $localize`a jar`} would have held or promised more than there was on ${over.at.slice(0, 10)}. Nothing was opened.`,
      { reason: 'overdraft' },
    );
  await tx.execute(sql`SELECT set_config('vestigia.opening', 'yes', true)`);
  await insert(schema.movements, placed(d.movements));
  await insert(schema.reservations, placed(d.reservations));
  await tx.execute(sql`SELECT vestigia_fold_all()`);
  for (const [table, rows] of [
    ['movements', d.movements],
    ['reservations', d.reservations],
  ] as const)
    if (rows.length > 0) await tx.execute(sql`SELECT setval(pg_get_serial_sequence(${table}, 'seq'), ${rows.length})`);
  await tx.execute(sql`SELECT set_config('vestigia.opening', '', true)`);
}

/** Each with its place in the order of recording. */
const placed = <T extends object>(rows: readonly T[]): (T & { readonly seq: number })[] =>
  rows.map((row, i) => ({ ...row, seq: i + 1 }));

/** A promise is looked at against the shelf of its own moment, with all that happened in that moment done. */
function firstOverReservation(d: StudioDocument): { stockLotId: string; at: string } | undefined {
  const line = [
    ...d.movements.map((m) => ({ ...m, bound: 0 })),
    ...d.reservations.map((p) => ({ ...p, amount: 0, bound: p.amount })),
  ].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  const free = new Map<string, number>();
  const bound = new Set<string>();
  for (const [i, { stockLotId, at, amount, bound: reserved }] of line.entries()) {
    free.set(stockLotId, (free.get(stockLotId) ?? 0) + amount - reserved);
    if (reserved > 0) bound.add(stockLotId);
    if (line[i + 1]?.at === at) continue;
    for (const id of bound) if ((free.get(id) ?? 0) < 0) return { stockLotId: id, at };
    bound.clear();
  }
  return undefined;
}
