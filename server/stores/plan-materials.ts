import type { PlanMaterial } from '@vestigia/core';
import { hazardsOf } from '@vestigia/core';
import { asc, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { materials, spoonWeighings } from '../db/schema';
import type { Material } from '@vestigia/contract';
import { notFound } from '../shared/problem';
import { spoonsFrom } from './materials-store';
import type { GradedStockLot } from './shelf';
import { readAvailable, readDryFactors } from './shelf';

export interface ReadMaterials {
  readonly rows: ReadonlyMap<string, Material>;
  readonly stockLots: ReadonlyMap<string, readonly GradedStockLot[]>;
  /** As planning needs it. */
  forPlan(id: string): PlanMaterial;
}

/** Materials by their ids; those that are not here are left out. */
export const readMaterials = async (db: Db, ids: readonly string[]): Promise<Material[]> =>
  ids.length === 0
    ? []
    : db
        .select()
        .from(materials)
        .where(inArray(materials.id, [...ids]));

/** The materials, and those that go with a packet among them. */
async function withAuxiliaries(db: Db, wanted: readonly string[]): Promise<Map<string, Material>> {
  const rows = new Map((await readMaterials(db, wanted)).map((m) => [m.id, m]));
  if (rows.size < wanted.length) throw notFound('material');
  const beside = [...rows.values()]
    .flatMap((m) => m.facts.packet?.auxiliaries.map((a) => a.materialId) ?? [])
    .filter((id) => !rows.has(id));
  for (const m of await readMaterials(db, [...new Set(beside)])) rows.set(m.id, m);
  return rows;
}

/** Materials with their free stock, spoons and drying, as scaling needs them. Refuses an id that is not here. */
export async function readPlanMaterials(db: Db, wanted: readonly string[]): Promise<ReadMaterials> {
  const rows = await withAuxiliaries(db, [...new Set(wanted)]);
  const ids = [...rows.keys()];
  const stockLots = await readAvailable(db, ids);
  const dry = await readDryFactors(db, ids);
  const spoonfuls =
    ids.length === 0
      ? []
      : await db
          .select({
            materialId: spoonWeighings.materialId,
            unit: spoonWeighings.unit,
            system: spoonWeighings.system,
            weightMg: spoonWeighings.weightMg,
          })
          .from(spoonWeighings)
          .where(inArray(spoonWeighings.materialId, ids))
          .orderBy(asc(spoonWeighings.seq));
  return {
    rows,
    stockLots,
    forPlan(id) {
      const m = rows.get(id);
      if (!m) throw notFound('material');
      return {
        id,
        name: m.name,
        kind: m.kind,
        catalogueKey: m.facts.catalogueKey,
        hazards: hazardsOf({ hazards: m.hazards, catalogueKey: m.facts.catalogueKey }),
        measure: m.measure,
        packet: m.facts.packet,
        spoons: spoonsFrom(spoonfuls.filter((s) => s.materialId === id)),
        stock: stockLots.get(id) ?? [],
        dryFactor: dry.get(id) ?? null,
      };
    },
  };
}
