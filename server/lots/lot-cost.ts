import type { LotCost } from '@vestigia/contract';
import type { PlanEffort } from '@vestigia/core';
import { completePlan, effortSoFar, foldRun, planEffort, smallestIn } from '@vestigia/core';
import { eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lots, studio } from '../db/schema';
import { notFound } from '../shared/problem';
import { oneValue } from '../stores/shelf';
import type { WorthKeeper } from '../stores/worth';
import { readEntries } from './lots-store';

type Effort = LotCost['planned'];
type Prices = Pick<typeof studio.$inferSelect, 'energyMinorPerKwh' | 'waterMinorPerM3' | 'hourMinor'>;
const L_IN_M3 = 1000;

/** Heat, water and hands in money, where the studio says what they cost. */
function priced({ heatKwh, waterL, handsMin }: Omit<PlanEffort, 'throughMin'>, prices: Prices | undefined): Effort {
  const of = (amount: number, price: number | null | undefined): number | null =>
    price === null || price === undefined ? null : Math.round(amount * price);
  return {
    heatKwh,
    heatMinor: of(heatKwh, prices?.energyMinorPerKwh),
    waterL,
    waterMinor: of(waterL / L_IN_M3, prices?.waterMinorPerM3),
    handsMin,
    handsMinor: of(handsMin / 60, prices?.hourMinor),
  };
}

interface Taken {
  readonly id: number;
  readonly materialId: string;
  readonly name: string;
  readonly measure: LotCost['rows'][number]['measure'];
  readonly amount: number;
}

/** What a lot took off the shelf, by movement. */
const readTaken = (db: Db, lotId: string): Promise<Taken[]> =>
  oneValue<Taken[]>(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object('id', m.seq, 'materialId', t.id, 'name', t.name, 'measure', t.measure, 'amount', -m.amount) ORDER BY t.name), '[]')
    FROM movements m JOIN stock_lots s ON s.id = m.stock_lot_id JOIN materials t ON t.id = s.material_id
      WHERE m.lot_id = ${lotId})`,
  );

/** What a lot was to cost and what it did: each weighing carries the value it took off the shelf. */
export async function readLotCost(db: Db, worths: WorthKeeper, lotId: string): Promise<LotCost> {
  const [lot] = await db.select({ plan: lots.plan, pieces: lots.pieces }).from(lots).where(eq(lots.id, lotId));
  if (!lot) throw notFound('lot');
  const plan = completePlan(lot.plan);
  const records = foldRun(await readEntries(db, lotId), plan.steps.length);
  const [prices] = await db.select().from(studio);
  const taken = await readTaken(db, lotId);
  await worths.follow(db);
  const planned = plan.materials
    .filter((m) => m.ownGoods !== true)
    .map((m) => ({ ...m, amount: Math.round(m.total.value * smallestIn(m.measure)) }));
  const rows = [...new Set([...planned.map((m) => m.materialId), ...taken.map((t) => t.materialId)])].map(
    (materialId): LotCost['rows'][number] => {
      const own = taken.filter((t) => t.materialId === materialId);
      const known = planned.find((m) => m.materialId === materialId);
      const group = worths.groupOf(materialId);
      const minor = worths.taken(group);
      const sum = (values: ReadonlyMap<number, number>): number =>
        own.reduce((total, t) => total + (values.get(t.id) ?? 0), 0);
      const amount = own.reduce((total, t) => total + t.amount, 0);
      const [fifoMinor, averageMinor] = [sum(minor.fifo), sum(minor.average)];
      const { average, onHand } = worths.worthOf(group);
      const left = onHand.get(materialId) ?? 0;
      // What is already taken says what a gram of it is worth; before that, what lies there does.
      const worthOfOne =
        amount > 0 ? averageMinor / amount : left > 0 ? (average.get(materialId)?.onHandMinor ?? 0) / left : 0;
      const plannedAmount = known?.amount ?? 0;
      return {
        materialId,
        name: known?.name ?? own[0]?.name ?? '',
        measure: known?.measure ?? own[0]?.measure ?? 'weight',
        plannedAmount,
        plannedMinor: Math.round(plannedAmount * worthOfOne),
        amount,
        fifoMinor,
        averageMinor,
      };
    },
  );
  const all = (of: (row: LotCost['rows'][number]) => number): number => rows.reduce((total, r) => total + of(r), 0);
  return {
    currency: prices?.currency ?? 'EUR',
    pieces: lot.pieces,
    rows,
    fifoMinor: all((r) => r.fifoMinor),
    averageMinor: all((r) => r.averageMinor),
    plannedMinor: all((r) => r.plannedMinor),
    planned: priced(planEffort(plan), prices),
    real: priced(effortSoFar(plan, records), prices),
  };
}
