import type { RunEntryView } from '@vestigia/contract';
import type { LotConditions, LotPlan, MaterialUse, StepRecord } from '@vestigia/core';
import { foldRun } from '@vestigia/core';
import { inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { stockLots } from '../db/schema';
import type { LotRow, Taken } from './lots-store';

/** Tested strengths of stock lots, as a share of the reference lot; those never tested are left out. */
export async function readStrengths(db: Db, stockLotIds: readonly string[]): Promise<ReadonlyMap<string, number>> {
  if (stockLotIds.length === 0) return new Map();
  const rows = await db
    .select({ id: stockLots.id, facts: stockLots.facts })
    .from(stockLots)
    .where(inArray(stockLots.id, [...stockLotIds]));
  return new Map(
    rows.flatMap((r) => (r.facts.strengthPercent === null ? [] : [[r.id, r.facts.strengthPercent / 100] as const])),
  );
}

/** Of what is taken, how strong it is on the whole; untested stock lots count as the reference lot. */
function meanStrength(picks: LotPlan['materials'][number]['picks'], strengths: ReadonlyMap<string, number>): number {
  const total = picks.reduce((sum, p) => sum + p.amount, 0);
  const worth = picks.reduce((sum, p) => sum + p.amount * (strengths.get(p.stockLotId ?? '') ?? 1), 0);
  return total === 0 ? 1 : worth / total;
}

/** What a lot's conditions rest on beside its plan. */
export interface ConditionFacts {
  readonly recipe: LotConditions['recipe'];
  readonly baseIds: readonly string[];
  readonly water: LotRow['water'];
  /** Tags of the stock lots that the plan names. */
  readonly tagOf: ReadonlyMap<string, string>;
  readonly strengths: ReadonlyMap<string, number>;
}

/** A lot as planned, in the terms of then and now. */
export function plannedConditions(
  plan: LotPlan,
  { recipe, baseIds, water, tagOf, strengths }: ConditionFacts,
): LotConditions {
  const sources = (m: LotPlan['materials'][number]) =>
    m.picks.flatMap((p) =>
      p.stockLotId === null ? [] : [{ stockLotId: p.stockLotId, tag: tagOf.get(p.stockLotId) ?? '' }],
    );
  return {
    recipe,
    water,
    base: plan.materials.filter((m) => baseIds.includes(m.materialId)).flatMap(sources),
    materials: plan.materials
      .filter((m) => !baseIds.includes(m.materialId))
      .map((m) => ({
        materialId: m.materialId,
        name: m.name,
        measure: m.measure,
        percentOwf: (m.total.value / plan.wof.value) * 100,
        worthPercentOwf: (m.total.value / plan.wof.value) * 100 * meanStrength(m.picks, strengths),
        sources: sources(m),
      })),
    vessels: plan.batches.map((b) => ({ id: b.vesselId, name: b.vesselName, metal: b.metal })),
    liquorRatio: plan.liquorRatio,
  };
}

/** Metals of the studio's vessels and its waters, by id. */
export interface RoomFacts {
  readonly metals: ReadonlyMap<string, string>;
  readonly waters: ReadonlyMap<string, NonNullable<LotConditions['water']>>;
}

/**
 * A lot as it really was: what left the shelf for it, what went in from no shelf, the pots and the water it was really
 * in. As planned where nothing was written down yet.
 * @param taken net of corrections
 */
export function realConditions(
  lot: LotRow,
  entries: readonly RunEntryView[],
  taken: readonly Taken[],
  { recipe, baseIds, strengths }: ConditionFacts,
  { metals, waters }: RoomFacts,
): LotConditions {
  const records = foldRun(entries, lot.plan.steps.length);
  const all = [...taken, ...fromNoShelf(lot, records)];
  const base = all.filter((t) => baseIds.includes(t.materialId));
  const wofMg = base.reduce((sum, t) => sum + t.amount, 0) || lot.plan.wof.value * 1000;
  const used = all.filter((t) => !baseIds.includes(t.materialId));
  const moved = records.flatMap((r) => r.vessels ?? []);
  const vessels = lot.plan.batches.map((b) => {
    const other = moved.filter((v) => v.batch === b.number).at(-1);
    return other
      ? { id: other.vesselId, name: other.vesselName, metal: metals.get(other.vesselId) ?? b.metal }
      : { id: b.vesselId, name: b.vesselName, metal: b.metal };
  });
  const otherWater = records.flatMap((r) => r.water ?? []).at(-1);
  return {
    recipe,
    base: base.flatMap(asSource),
    materials: [...new Set(used.map((u) => u.materialId))].map((id) =>
      useOf(
        used.filter((u) => u.materialId === id),
        wofMg,
        strengths,
      ),
    ),
    water: otherWater && otherWater.id !== lot.water?.id ? (waters.get(otherWater.id) ?? lot.water) : lot.water,
    vessels,
    liquorRatio: lot.plan.liquorRatio,
  };
}

const asSource = ({ stockLotId, tag }: Unshelved): { stockLotId: string; tag: string }[] =>
  stockLotId === null ? [] : [{ stockLotId, tag }];

/** Something that went in; `stockLotId` is `null` where it never stood on the shelf. */
type Unshelved = Omit<Taken, 'stockLotId'> & { readonly stockLotId: string | null };

function useOf(used: readonly Unshelved[], wofMg: number, strengths: ReadonlyMap<string, number>): MaterialUse {
  const first = used[0] as Unshelved;
  const perGram = first.measure === 'pieces' ? 1000 : 1;
  const percent = (amountOf: (u: Unshelved) => number): number =>
    ((used.reduce((sum, u) => sum + amountOf(u), 0) * perGram) / wofMg) * 100;
  return {
    materialId: first.materialId,
    name: first.material,
    measure: first.measure,
    percentOwf: percent((u) => u.amount),
    worthPercentOwf: percent((u) => u.amount * (strengths.get(u.stockLotId ?? '') ?? 1)),
    sources: used.flatMap(asSource),
  };
}

/** What went in and never left the shelf: dyed before the books began, or gathered on the way to the pot. */
function fromNoShelf({ plan, offBooks }: LotRow, records: readonly StepRecord[]): Unshelved[] {
  const weighed = records
    .flatMap((r) => r.weighings)
    .filter((w) => offBooks || w.stockLotId === null)
    .flatMap(({ materialId, amount }) => {
      const m = plan.materials.find((known) => known.materialId === materialId);
      return m ? [{ stockLotId: null, tag: '', materialId, material: m.name, measure: m.measure, amount }] : [];
    });
  const added = records
    .flatMap((r) => r.added ?? [])
    .filter((a) => a.amount !== null && (offBooks || a.stockLotId === null))
    .map(({ materialId, name, measure, amount }) => ({
      stockLotId: null,
      tag: '',
      materialId: materialId ?? name,
      material: name,
      measure,
      amount: amount ?? 0,
    }));
  return [...weighed, ...added];
}
