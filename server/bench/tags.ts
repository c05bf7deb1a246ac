import type { Tag, TagOf } from '@vestigia/contract';
import type { LotPlan, TagKind } from '@vestigia/core';
import {
  said,
  completePlan,
  countLabel,
  knotTag,
  readTagCode,
  sayKnotTag,
  sayPieceTag,
  writeTagCode,
} from '@vestigia/core';
import { and, eq, inArray, isNull, or } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import type { Db } from '../db/database';
import { colourways, lots, materials, stockLots, tags, vessels } from '../db/schema';
import { lotTag } from '../shared/lot-tag';
import { Refusal } from '../shared/problem';

type Row = typeof tags.$inferSelect;
type Of = Pick<Row, 'kind' | 'stockLotId' | 'vesselId' | 'lotId' | 'number' | 'stepIndex'>;

/** Gives each thing its code; one that has a code already keeps it. */
export async function giveTags(db: Db, wanted: readonly TagOf[], now: Date): Promise<Tag[]> {
  const ofs = wanted.map(
    ({ kind, stockLotId = null, vesselId = null, lotId = null, number = null, stepIndex = null }): Of => ({
      kind,
      stockLotId,
      vesselId,
      lotId,
      number,
      stepIndex,
    }),
  );
  for (const of of ofs) checkWhole(of);
  const rows = new Map<string, Row>();
  const take = (found: readonly Row[]): void => found.forEach((row) => rows.set(keyOf(row), row));
  if (ofs.length > 0)
    take(
      await db
        .select()
        .from(tags)
        .where(or(...ofs.map(isOf))),
    );
  const lacking = new Map(ofs.filter((of) => !rows.has(keyOf(of))).map((of) => [keyOf(of), of]));
  if (lacking.size > 0) {
    const at = now.toISOString();
    take(
      await db
        .insert(tags)
        .values([...lacking.values()].map((of) => ({ ...of, at })))
        .returning(),
    );
  }
  return sayTags(
    db,
    ofs.flatMap((of) => rows.get(keyOf(of)) ?? []),
  );
}

const keyOf = ({ kind, stockLotId, vesselId, lotId, number, stepIndex }: Of): string =>
  JSON.stringify([kind, stockLotId, vesselId, lotId, number, stepIndex]);

function isOf({ kind, stockLotId, vesselId, lotId, number, stepIndex }: Of) {
  const same = (column: AnyPgColumn, value: string | number | null) =>
    value === null ? isNull(column) : eq(column, value);
  return and(
    eq(tags.kind, kind),
    same(tags.stockLotId, stockLotId),
    same(tags.vesselId, vesselId),
    same(tags.lotId, lotId),
    same(tags.number, number),
    same(tags.stepIndex, stepIndex),
  );
}

function checkWhole({ kind, stockLotId, vesselId, lotId, number }: Of): void {
  const whole: Record<TagKind, boolean> = {
    stockLot: stockLotId !== null,
    vessel: vesselId !== null,
    lot: lotId !== null,
    piece: lotId !== null && number !== null,
    bath: lotId !== null,
  };
  if (!whole[kind])
    throw new Refusal('refused', $localize`Say what the tag is for: which jar, pot, lot, piece or bath.`);
}

/** What a code stands for. */
export async function readTag(db: Db, code: string): Promise<Tag> {
  const [tag] = await readTags(db, [code]);
  if (!tag) throw new RangeError('one code, one tag');
  return tag;
}

/** What codes stand for, in their order. A mistyped one is told apart from one that was never given out. */
export async function readTags(db: Db, codes: readonly string[]): Promise<Tag[]> {
  const read = codes.map((code) => {
    const reading = readTagCode(code);
    if (!reading.ok) throw new Refusal('refused', reading.message, { reason: reading.code });
    return reading;
  });
  const numbers = read.map((r) => r.number);
  const given = new Map((await db.select().from(tags).where(inArray(tags.seq, numbers))).map((row) => [row.seq, row]));
  const rows = read.map(({ code, kind, number }) => {
    const row = given.get(number);
    if (row?.kind === kind) return row;
    throw new Refusal('notFound', $localize`${code} was never given out here. Is it from another studio?`);
  });
  return sayTags(db, rows);
}

/** Base, part, dips and modifier, and the knots that say the number. */
const sayPiece = (plan: LotPlan, number: number): string =>
  [sayPieceTag(plan, number), number <= MOST_KNOTTED ? $localize`knots: ${sayKnotTag(knotTag(number))}` : '']
    .filter((part) => part !== '')
    .join('. ');
const MOST_KNOTTED = 100;

async function sayTags(db: Db, rows: readonly Row[]): Promise<Tag[]> {
  const ids = (of: (row: Row) => string | null): string[] => [...new Set(rows.flatMap((r) => of(r) ?? []))];
  const [stockLotIds, vesselIds, lotIds] = [ids((r) => r.stockLotId), ids((r) => r.vesselId), ids((r) => r.lotId)];
  const taggedStockLots =
    stockLotIds.length === 0
      ? []
      : await db
          .select({ id: stockLots.id, tag: stockLots.tag, place: stockLots.place, material: materials.name })
          .from(stockLots)
          .innerJoin(materials, eq(materials.id, stockLots.materialId))
          .where(inArray(stockLots.id, stockLotIds));
  const pots = vesselIds.length === 0 ? [] : await db.select().from(vessels).where(inArray(vessels.id, vesselIds));
  const lotRows =
    lotIds.length === 0
      ? []
      : await db
          .select({
            id: lots.id,
            number: lots.number,
            pieces: lots.pieces,
            plan: lots.plan,
            colourway: colourways.name,
          })
          .from(lots)
          .innerJoin(colourways, eq(colourways.id, lots.colourwayId))
          .where(inArray(lots.id, lotIds));
  return rows.map((row): Tag => {
    const { seq, at: _at, ...of } = row;
    const code = writeTagCode(row.kind, seq);
    const stockLot = taggedStockLots.find((j) => j.id === row.stockLotId);
    const pot = pots.find((p) => p.id === row.vesselId);
    const lot = lotRows.find((l) => l.id === row.lotId);
    const named = lot ? `${lotTag(lot.number)} ${lot.colourway}` : '';
    switch (row.kind) {
      case 'stockLot':
        return {
          ...of,
          code,
          title: stockLot?.tag ?? $localize`a jar`,
          detail: [stockLot?.material, stockLot?.place].filter(Boolean).join(', '),
          path: `/stores/${row.stockLotId}`,
        };
      case 'vessel':
        return {
          ...of,
          code,
          title: pot?.name ?? $localize`a pot taken out of the studio`,
          detail: pot ? $localize`${said(pot.metal)}, ${Math.round(pot.workingMl / 100) / 10} l. Never for food` : '',
          path: '/studio',
        };
      case 'lot':
        return {
          ...of,
          code,
          title: lot ? lotTag(lot.number) : $localize`a lot`,
          detail: lot ? `${lot.colourway}, ${countLabel(lot.pieces, 'piece')}` : '',
          path: `/bench/${row.lotId}`,
        };
      case 'piece':
        return {
          ...of,
          code,
          title: $localize`${named}, piece ${row.number}`,
          detail: lot && row.number !== null ? sayPiece(completePlan(lot.plan), row.number) : '',
          path: `/lots/${row.lotId}`,
        };
      case 'bath':
        return {
          ...of,
          code,
          title: $localize`${named}, bath`,
          detail: $localize`${lot?.plan.steps[row.stepIndex ?? 0]?.title ?? ''}${row.number === null ? '' : $localize`, batch ${row.number}`}. Never for food`,
          path: `/bench/${row.lotId}`,
        };
    }
  });
}
