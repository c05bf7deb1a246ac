import type { StudioDocument } from '@vestigia/contract';
import { fileRunEntry, lotExtras, readRecipeBody } from '@vestigia/contract';
import { completePlan } from '@vestigia/core';
import { and, asc, getTableColumns, gt, lte, max, sql } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Db } from '../db/database';
import { WRITE_LOCK } from '../db/locks';
import * as schema from '../db/schema';
import { notFound } from '../shared/problem';

const iso = (at: string): string => new Date(at).toISOString();
type Row = Record<string, unknown>;

/** So many rows are read at a time, so that others are served between. */
const PIECE = 500;

/** Leaves out what the document does not carry (order of recording, edit versions) and writes times in UTC. */
function clean<T extends Row, D extends string = never>(row: T, ...drop: readonly D[]): Omit<T, D | 'seq' | 'version'> {
  const kept: Row = { ...row };
  for (const key of ['seq', 'version', ...drop] as string[]) delete kept[key];
  for (const key of ['at', 'recordedAt']) if (typeof kept[key] === 'string') kept[key] = iso(kept[key]);
  return kept as Omit<T, D | 'seq' | 'version'>;
}

/** A list of the document whose rows are never changed: read piece by piece, up to the newest there was at the beginning. */
export interface DocumentList {
  readonly key: keyof StudioDocument;
  rows(): Promise<number>;
  pieces(): AsyncGenerator<readonly unknown[]>;
}

/** The whole studio as it was at one moment, to be written out piece by piece. Passphrases and sessions stay behind. */
export interface DocumentExport {
  /** What can be changed, read at that moment. */
  readonly head: Partial<StudioDocument>;
  readonly lists: readonly DocumentList[];
  /** Photographs and sheets that go beside it. */
  readonly files: readonly { readonly sha256: string; readonly bytes: number }[];
}

interface Appended {
  readonly key: keyof StudioDocument;
  readonly table: PgTable;
  /** What gives the order of recording. */
  readonly order: PgColumn;
  readonly tell: (row: never) => unknown;
}

const list = <T extends PgTable>(
  key: keyof StudioDocument,
  table: T,
  order: PgColumn,
  tell: (row: T['$inferSelect']) => unknown = (row) => clean(row),
): Appended => ({ key, table, order, tell });

/** What is only ever added to, in an order in which each row names only earlier ones. */
const APPENDED: readonly Appended[] = [
  list('conversions', schema.conversions, schema.conversions.seq),
  list('recipeVersions', schema.recipeVersions, schema.recipeVersions.seq, (v) => ({
    ...clean(v),
    body: readRecipeBody(v.body),
  })),
  list('recipeStatuses', schema.recipeStatuses, schema.recipeStatuses.seq),
  list('masters', schema.masters, schema.masters.seq),
  list('lots', schema.lots, schema.lots.number, (l) => ({
    ...clean(l, 'pieces', 'pieceWeightMg', 'batches'),
    plan: completePlan(l.plan),
    extras: lotExtras.parse(l.extras),
    water: l.water ? { ...l.water, ironMgPerL: l.water.ironMgPerL ?? null } : null,
  })),
  list('movements', schema.movements, schema.movements.seq),
  list('reservations', schema.reservations, schema.reservations.seq),
  list('runEntries', schema.runEntries, schema.runEntries.seq, (e) => fileRunEntry.parse(clean(e))),
  list('readings', schema.readings, schema.readings.seq, ({ conditions, groupKey, ...r }) => ({
    ...clean(r),
    group: groupKey,
    ...conditions,
  })),
  list('eyeReadings', schema.eyeReadings, schema.eyeReadings.seq, ({ groupKey, ...r }) => ({
    ...clean(r),
    group: groupKey,
  })),
  list('verdicts', schema.verdicts, schema.verdicts.seq),
  list('verdictTakeBacks', schema.verdictTakeBacks, schema.verdictTakeBacks.seq),
  list('proofs', schema.proofs, schema.proofs.seq, ({ conditions, ...p }) => ({ ...clean(p), ...conditions })),
  list('stripTrials', schema.stripTrials, schema.stripTrials.seq),
  list('stripReadings', schema.stripReadings, schema.stripReadings.seq, ({ conditions, ...r }) => ({
    ...clean(r),
    ...conditions,
  })),
  list('stripLooks', schema.stripLooks, schema.stripLooks.seq),
  list('stripPromotions', schema.stripPromotions, schema.stripPromotions.seq),
  list('spoonWeighings', schema.spoonWeighings, schema.spoonWeighings.seq),
  list('liquorEntries', schema.liquorEntries, schema.liquorEntries.seq),
  list('pickings', schema.pickings, schema.pickings.seq),
  list('fastnessTests', schema.fastnessTests, schema.fastnessTests.seq),
  list('patchCards', schema.patchCards, schema.patchCards.seq),
  list('fastnessReadings', schema.fastnessReadings, schema.fastnessReadings.seq),
  list('plans', schema.plans, schema.plans.seq),
  list('goods', schema.goods, schema.goods.seq, ({ groupKey, ...g }) => ({ ...clean(g), group: groupKey })),
  list('notes', schema.notes, schema.notes.seq),
  list('deeds', schema.deeds, schema.deeds.seq),
  list('tags', schema.tags, schema.tags.seq, (t) => ({ ...t, at: iso(t.at) })),
  list('probeLogs', schema.probeLogs, schema.probeLogs.seq, ({ readings: packed, ...l }) => ({
    ...clean(l),
    base64: Buffer.from(packed).toString('base64'),
  })),
  list('attachments', schema.attachments, schema.attachments.seq, ({ bytes: _bytes, ...a }) => clean(a)),
];

/** What can be changed: little, and all of one moment. */
async function readHead(db: Db, now: Date): Promise<Partial<StudioDocument>> {
  const [settings] = await db.select().from(schema.studio);
  if (!settings) throw notFound('studio');
  const { only: _only, version: _version, ...rest } = settings;
  const all = async <T extends PgTable>(table: T, ...order: PgColumn[]): Promise<T['$inferSelect'][]> =>
    (await db
      .select()
      .from(table as PgTable)
      .orderBy(...order.map((o) => asc(o)))) as T['$inferSelect'][];
  const swatches = await all(schema.swatches, schema.swatches.at, schema.swatches.id);
  return {
    format: 'vestigia-studio',
    formatVersion: 4,
    asOf: now.toISOString(),
    settings: rest,
    people: (await all(schema.people, schema.people.name)).map(({ id, name, role, language }) => ({
      id,
      name,
      role,
      language,
    })),
    atHand: (await all(schema.atHand, schema.atHand.at, schema.atHand.path)).map((p) => clean(p)),
    vessels: (await all(schema.vessels, schema.vessels.name)).map((v) => clean(v)),
    heatSources: (await all(schema.heatSources, schema.heatSources.name)).map((h) => clean(h)),
    waters: (await all(schema.waters, schema.waters.name)).map((w) => clean(w)),
    materials: (await all(schema.materials, schema.materials.name)).map((m) => clean(m)),
    stockLots: (await all(schema.stockLots, schema.stockLots.tag)).map((s) => ({ ...clean(s), liquor: null })),
    recipes: await all(schema.recipes, schema.recipes.name),
    colourways: (await all(schema.colourways, schema.colourways.name)).map((c) => clean(c)),
    swatches: swatches.map((s) => ({ ...clean(s), takenOutAt: s.takenOutAt === null ? null : iso(s.takenOutAt) })),
    houseTimes: (await all(schema.houseTimes, schema.houseTimes.only))[0]?.times ?? null,
    arrivals: (await all(schema.arrivals, schema.arrivals.materialId)).map((a) => clean(a)),
    lotsWanted: (await all(schema.lotsWanted, schema.lotsWanted.lotId)).map((w) => clean(w)),
    customers: (await all(schema.customers, schema.customers.number)).map((c) => ({
      ...clean(c),
      erasedAt: c.erasedAt === null ? null : iso(c.erasedAt),
    })),
    orders: (await all(schema.orders, schema.orders.number)).map((o) => clean(o)),
    orderLines: (await all(schema.orderLines, schema.orderLines.orderId, schema.orderLines.position)).map(
      ({ pieceWeightMg, taggedAt, ...l }) => ({
        ...l,
        pieceWeightG: pieceWeightMg === null ? null : pieceWeightMg / 1000,
        taggedAt: taggedAt === null ? null : iso(taggedAt),
      }),
    ),
    orderLineLots: (await all(schema.orderLineLots, schema.orderLineLots.at, schema.orderLineLots.lineId)).map((l) =>
      clean(l),
    ),
    containers: await all(schema.containers, schema.containers.name),
  };
}

/**
 * Begins to write out the whole studio: what can be changed is read at once, while nobody writes; what is only added to
 * is read afterwards, up to the newest there was, so that nobody waits for it.
 */
export async function beginExport(db: Db, now: Date): Promise<DocumentExport> {
  return db.transaction(async (tx) => {
    await tx.execute(sql`SELECT pg_advisory_xact_lock(${WRITE_LOCK})`);
    const head = await readHead(tx, now);
    const lists: DocumentList[] = [];
    for (const appended of APPENDED) lists.push(await upToNow(tx, db, appended));
    const files = await tx
      .select({ sha256: schema.attachments.sha256, bytes: max(schema.attachments.bytes) })
      .from(schema.attachments)
      .groupBy(schema.attachments.sha256)
      .orderBy(asc(schema.attachments.sha256));
    return { head, lists, files: files.map(({ sha256, bytes }) => ({ sha256, bytes: bytes ?? 0 })) };
  });
}

async function upToNow(tx: Db, db: Db, { key, table, order, tell }: Appended): Promise<DocumentList> {
  const [newest] = await tx.select({ last: max(order) }).from(table);
  const last = Number(newest?.last ?? 0);
  async function* pieces(): AsyncGenerator<readonly unknown[]> {
    for (let from = 0; from < last;) {
      const rows = await db
        .select({ ...getTableColumns(table), cursor: order })
        .from(table)
        .where(and(gt(order, from), lte(order, last)))
        .orderBy(asc(order))
        .limit(PIECE);
      if (rows.length === 0) return;
      from = Number(rows.at(-1)?.['cursor']);
      yield rows.map(({ cursor: _cursor, ...row }) => tell(row as never));
    }
  }
  return { key, rows: () => db.$count(table, lte(order, last)), pieces };
}

/** The document as text, piece by piece. */
export async function* documentText({ head, lists }: DocumentExport): AsyncGenerator<string> {
  const text = JSON.stringify(head);
  yield text.slice(0, -1);
  for (const { key, pieces } of lists) {
    yield `,"${key}":[`;
    let isFirst = true;
    for await (const rows of pieces()) {
      yield (isFirst ? '' : ',') + rows.map((row) => JSON.stringify(row)).join(',');
      isFirst = false;
    }
    yield ']';
  }
  yield '}';
}
