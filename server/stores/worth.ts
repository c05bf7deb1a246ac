import type { LotCost, ValuationReport } from '@vestigia/contract';
import type { KeptPlan, StockValue, ValuedMovement } from '@vestigia/core';
import { completePlan, planEffort, valueStock, withoutReversed } from '@vestigia/core';
import { eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lots, studio } from '../db/schema';
import { notFound } from '../shared/problem';
import { studioToday } from '../studio/studio-store';
import { oneValue } from './shelf';

/** One movement as it comes out of the database: short, because there may be very many. */
type Raw = [
  id: string,
  materialId: string,
  stockLotId: string,
  amount: number,
  kind: string,
  conversionId: string | null,
  reversesId: string | null,
  costMinor: number | null,
];

/**
 * Materials whose value hangs together, since what was made of one carries the cost of the other: each in one group.
 */
async function readGroups(db: Db): Promise<string[][]> {
  const { ids, pairs } = await oneValue<{ ids: string[]; pairs: [string, string][] }>(
    db,
    sql`json_build_object(
    'ids', (SELECT coalesce(json_agg(id ORDER BY name), '[]') FROM materials),
    'pairs', (SELECT coalesce(json_agg(DISTINCT jsonb_build_array(a.material_id, b.material_id)), '[]')
      FROM movements m JOIN stock_lots a ON a.id = m.stock_lot_id
      JOIN movements k ON k.conversion_id = m.conversion_id JOIN stock_lots b ON b.id = k.stock_lot_id
        WHERE m.conversion_id IS NOT NULL AND a.material_id < b.material_id))`,
  );
  const groupOf = new Map(ids.map((id) => [id, [id]]));
  for (const [x, y] of pairs) {
    const [one, other] = [groupOf.get(x) ?? [x], groupOf.get(y) ?? [y]];
    if (one === other) continue;
    const together = [...one, ...other];
    for (const id of together) groupOf.set(id, together);
  }
  return [...new Set(groupOf.values())];
}

async function readValued(db: Db, materialIds: readonly string[], until?: string): Promise<ValuedMovement[]> {
  const raw = await oneValue<Raw[]>(
    db,
    sql`(SELECT coalesce(json_agg(json_build_array(m.id, s.material_id, s.id, m.amount, m.kind, m.conversion_id, m.reverses_id, s.cost_minor) ORDER BY m.at, (m.kind = 'convert' AND m.amount > 0), m.seq), '[]')
    FROM movements m JOIN stock_lots s ON s.id = m.stock_lot_id WHERE s.material_id IN ${[...materialIds]} ${until === undefined ? sql`` : sql`AND m.at < (${until}::date + 1)::timestamp AT TIME ZONE (SELECT zone FROM studio)`})`,
  );
  const status = withoutReversed(
    raw.map(([id, materialId, stockLotId, amount, kind, conversionId, reversesId, costMinor]) => ({
      id,
      materialId,
      stockLotId,
      amount,
      kind,
      conversionId,
      reversesId,
      costMinor,
    })),
  );
  // A jar's cost came with its first delivery; what was found or given back later cost nothing.
  const paid = new Set<string>();
  return status.map((m) => {
    const first = m.amount > 0 && (m.kind === 'receive' || m.kind === 'gather') && !paid.has(m.stockLotId);
    if (first) paid.add(m.stockLotId);
    return { ...m, costMinor: first ? m.costMinor : null };
  });
}

const currencyOf = async (db: Db): Promise<string> =>
  (await db.select({ currency: studio.currency }).from(studio))[0]?.currency ?? 'EUR';
const NOTHING = { onHandMinor: 0, usedMinor: 0, receivedMinor: 0 };
const worthOf = (value: StockValue, materialId: string): typeof NOTHING => value.byMaterial.get(materialId) ?? NOTHING;

const groupWith = async (db: Db, materialId: string): Promise<string[]> =>
  (await readGroups(db)).find((g) => g.includes(materialId)) ?? [materialId];

/** One material's stock in money, both ways. */
export async function readWorth(
  db: Db,
  materialId: string,
): Promise<{ fifo: typeof NOTHING; average: typeof NOTHING; currency: string }> {
  const movements = await readValued(db, await groupWith(db, materialId));
  return {
    fifo: worthOf(valueStock(movements, 'fifo'), materialId),
    average: worthOf(valueStock(movements, 'average'), materialId),
    currency: await currencyOf(db),
  };
}

/** The whole studio's stock in money at the end of a day, a group of materials at a time: histories may be long. */
export async function readValuation(db: Db, on: string | undefined, now: Date): Promise<ValuationReport> {
  const names = new Map(
    (
      await oneValue<{ id: string; name: string; measure: 'weight' }[]>(
        db,
        sql`(SELECT coalesce(json_agg(json_build_object('id', id, 'name', name, 'measure', measure)), '[]') FROM materials)`,
      )
    ).map((m) => [m.id, m]),
  );
  const rows: ValuationReport['rows'] = [];
  for (const group of await readGroups(db)) {
    const movements = await readValued(db, group, on);
    const [fifo, average] = [valueStock(movements, 'fifo'), valueStock(movements, 'average')];
    const onHand = new Map<string, number>();
    for (const m of movements) onHand.set(m.materialId, (onHand.get(m.materialId) ?? 0) + m.amount);
    for (const [id, amount] of onHand)
      rows.push({
        materialId: id,
        name: names.get(id)?.name ?? '',
        measure: names.get(id)?.measure ?? 'weight',
        onHand: amount,
        fifo: worthOf(fifo, id),
        average: worthOf(average, id),
      });
  }
  rows.sort((a, b) => (a.name < b.name ? -1 : 1));
  const sum = (of: (row: (typeof rows)[number]) => number): number => rows.reduce((total, row) => total + of(row), 0);
  return {
    at: on ?? (await studioToday(db, now)),
    currency: await currencyOf(db),
    rows,
    fifoMinor: sum((r) => r.fifo.onHandMinor),
    averageMinor: sum((r) => r.average.onHandMinor),
  };
}

/** Heat and hands that a lot takes by its plan, in money where the studio says what they cost. */
async function readEffort(
  db: Db,
  kept: KeptPlan,
): Promise<Pick<LotCost, 'heatKwh' | 'heatMinor' | 'handsMin' | 'handsMinor'>> {
  const { heatKwh, handsMin } = planEffort(completePlan(kept));
  const [prices] = await db.select({ kwh: studio.energyMinorPerKwh, hour: studio.hourMinor }).from(studio);
  const of = (amount: number, price: number | null | undefined): number | null =>
    price === null || price === undefined ? null : Math.round(amount * price);
  return {
    heatKwh,
    heatMinor: of(heatKwh, prices?.kwh),
    handsMin,
    handsMinor: of(handsMin / 60, prices?.hour),
  };
}

/** What a lot costs: each weighing carries the value it took off the shelf; heat and hands are by its plan. */
export async function readLotCost(db: Db, lotId: string): Promise<LotCost> {
  const [lot] = await db.select({ plan: lots.plan }).from(lots).where(eq(lots.id, lotId));
  if (!lot) throw notFound('lot');
  const effort = await readEffort(db, lot.plan);
  const taken = await oneValue<{ id: string; materialId: string; name: string; measure: 'weight'; amount: number }[]>(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object('id', m.id, 'materialId', t.id, 'name', t.name, 'measure', t.measure, 'amount', -m.amount) ORDER BY t.name), '[]')
    FROM movements m JOIN stock_lots s ON s.id = m.stock_lot_id JOIN materials t ON t.id = s.material_id
      WHERE m.lot_id = ${lotId})`,
  );
  const materialIds = [...new Set(taken.map((t) => t.materialId))];
  if (materialIds.length === 0)
    return { currency: await currencyOf(db), fifoMinor: 0, averageMinor: 0, ...effort, rows: [] };
  const groups = (await readGroups(db)).filter((g) => g.some((id) => materialIds.includes(id)));
  const fifo = new Map<string, number>();
  const average = new Map<string, number>();
  for (const group of groups) {
    const movements = await readValued(db, group);
    for (const [id, minor] of valueStock(movements, 'fifo').takenMinor) fifo.set(id, minor);
    for (const [id, minor] of valueStock(movements, 'average').takenMinor) average.set(id, minor);
  }
  const rows = materialIds.map((materialId) => {
    const own = taken.filter((t) => t.materialId === materialId);
    const sum = (values: ReadonlyMap<string, number>): number =>
      own.reduce((total, t) => total + (values.get(t.id) ?? 0), 0);
    return {
      materialId,
      name: own[0]?.name ?? '',
      measure: own[0]?.measure ?? ('weight' as const),
      amount: own.reduce((total, t) => total + t.amount, 0),
      fifoMinor: sum(fifo),
      averageMinor: sum(average),
    };
  });
  return {
    currency: await currencyOf(db),
    rows,
    ...effort,
    fifoMinor: rows.reduce((t, r) => t + r.fifoMinor, 0),
    averageMinor: rows.reduce((t, r) => t + r.averageMinor, 0),
  };
}
