import type { ValuationReport } from '@vestigia/contract';
import type { Valuation, ValuedMovement } from '@vestigia/core';
import { addDays, instantOf, valueStock, withoutReversed } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import { setImmediate } from 'node:timers/promises';
import type { Db } from '../db/database';
import { materials, studio } from '../db/schema';
import { studioToday, studioZone } from '../studio/studio-store';
import type { LedgerMirror, MirroredMovement } from './ledger-mirror';

/** What each jar cost when it came, minor units, by its id. */
type Costs = ReadonlyMap<string, number>;

async function readCosts(db: Db): Promise<{ readonly costs: Costs; readonly stamp: string }> {
  const { rows } = await db.execute<{ value: string }>(
    sql`SELECT coalesce(json_agg(json_build_array(id, cost_minor) ORDER BY id), '[]')::text AS value FROM stock_lots WHERE cost_minor IS NOT NULL`,
  );
  const stamp = rows[0]?.value ?? '[]';
  return { costs: new Map(JSON.parse(stamp) as [string, number][]), stamp };
}

/** Movements as they are valued, without pairs that were reversed. */
function valued(movements: readonly MirroredMovement[], costs: Costs, beforeMs = Infinity): ValuedMovement<number>[] {
  const seen = beforeMs === Infinity ? movements : movements.filter((m) => m.atMs < beforeMs);
  // A jar's cost came with its first delivery; what was found or given back later cost nothing.
  const paid = new Set<string>();
  return withoutReversed(seen).map(({ id, materialId, amount, kind, stockLotId, conversionId }) => {
    const first = amount > 0 && (kind === 'receive' || kind === 'gather') && !paid.has(stockLotId);
    if (first) paid.add(stockLotId);
    return { id, materialId, amount, conversionId, costMinor: first ? (costs.get(stockLotId) ?? null) : null };
  });
}

interface Worths extends Readonly<Record<'fifo' | 'average', ReadonlyMap<string, Valuation>>> {
  /** Of each material that ever moved, smallest units. */
  readonly onHand: ReadonlyMap<string, number>;
}

/** What stock is worth, by group of materials, kept until something moved in it. */
export class WorthKeeper {
  private readonly kept = new Map<string, { readonly movements: number; readonly worths: Worths }>();
  private costs: Awaited<ReturnType<typeof readCosts>> = { costs: new Map(), stamp: '' };

  constructor(private readonly ledger: LedgerMirror) {}

  /** Takes in what moved since, and what jars cost. */
  async follow(db: Db): Promise<void> {
    await this.ledger.follow(db);
    const costs = await readCosts(db);
    if (costs.stamp !== this.costs.stamp) this.kept.clear();
    this.costs = costs;
  }

  /** Works out the worth of all there is, a group at a time, others served between. */
  async readAhead(db: Db, between: () => Promise<unknown>): Promise<void> {
    await this.follow(db);
    for (const materialId of this.ledger.materialIds()) {
      await between();
      this.worthOf(this.groupOf(materialId));
    }
  }

  worthOf(group: readonly string[]): Worths {
    const movements = this.ledger.count(group);
    const key = group.join(' ');
    const known = this.kept.get(key);
    if (known?.movements === movements) return known.worths;
    const worths = this.worthBefore(group, Infinity);
    this.kept.set(key, { movements, worths });
    return worths;
  }

  worthBefore(group: readonly string[], beforeMs: number): Worths {
    const movements = valued(this.ledger.ofAll(group), this.costs.costs, beforeMs);
    const onHand = new Map<string, number>();
    for (const m of movements) onHand.set(m.materialId, (onHand.get(m.materialId) ?? 0) + m.amount);
    return {
      onHand,
      fifo: valueStock(movements, 'fifo'),
      average: valueStock(movements, 'average'),
    };
  }

  /** What each movement out of a group took with it, by its number. */
  taken(group: readonly string[]): Readonly<Record<'fifo' | 'average', ReadonlyMap<number, number>>> {
    const movements = valued(this.ledger.ofAll(group), this.costs.costs);
    const [fifo, average] = [new Map<number, number>(), new Map<number, number>()];
    valueStock(movements, 'fifo', (id, minor) => fifo.set(id, minor));
    valueStock(movements, 'average', (id, minor) => average.set(id, minor));
    return { fifo, average };
  }

  groupOf(materialId: string): readonly string[] {
    return this.ledger.groupOf(materialId);
  }
}

const currencyOf = async (db: Db): Promise<string> =>
  (await db.select({ currency: studio.currency }).from(studio))[0]?.currency ?? 'EUR';
const NOTHING = { onHandMinor: 0, usedMinor: 0, receivedMinor: 0 };

/** One material's stock in money, both ways. */
export async function readWorth(
  db: Db,
  worths: WorthKeeper,
  materialId: string,
): Promise<{ fifo: typeof NOTHING; average: typeof NOTHING; currency: string }> {
  await worths.follow(db);
  const { fifo, average } = worths.worthOf(worths.groupOf(materialId));
  return {
    fifo: fifo.get(materialId) ?? NOTHING,
    average: average.get(materialId) ?? NOTHING,
    currency: await currencyOf(db),
  };
}

/** The whole studio's stock in money at the end of a day, a group of materials at a time, others served between. */
export async function readValuation(
  db: Db,
  worths: WorthKeeper,
  on: string | undefined,
  now: Date,
): Promise<ValuationReport> {
  await worths.follow(db);
  const all = await db.select({ id: materials.id, name: materials.name, measure: materials.measure }).from(materials);
  const beforeMs = on === undefined ? Infinity : instantOf(addDays(on, 1), '00:00', await studioZone(db));
  const groups = new Map(all.map(({ id }) => [worths.groupOf(id).join(' '), worths.groupOf(id)]));
  const named = new Map(all.map((m) => [m.id, m]));
  const rows: ValuationReport['rows'] = [];
  for (const group of groups.values()) {
    const { onHand, fifo, average } =
      beforeMs === Infinity ? worths.worthOf(group) : worths.worthBefore(group, beforeMs);
    for (const [id, amount] of onHand)
      rows.push({
        materialId: id,
        name: named.get(id)?.name ?? '',
        measure: named.get(id)?.measure ?? 'weight',
        onHand: amount,
        fifo: fifo.get(id) ?? NOTHING,
        average: average.get(id) ?? NOTHING,
      });
    await setImmediate();
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
