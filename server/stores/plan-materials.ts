import type { PlanMaterial } from '@vestigia/core';
import { asc, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { materials, spoonWeighings } from '../db/schema';
import type { Material } from '@vestigia/contract';
import { notFound } from '../problem';
import { spoonsFrom } from './materials-store';
import type { GradedJar } from './shelf';
import { readAvailable, readDryFactors } from './shelf';

export interface ReadMaterials {
  readonly rows: ReadonlyMap<string, Material>;
  readonly jars: ReadonlyMap<string, readonly GradedJar[]>;
  /** As planning needs it. */
  forPlan(id: string): PlanMaterial;
}

/** Materials with their free stock, spoons and drying, as scaling needs them. Refuses an id that is not here. */
export async function readPlanMaterials(db: Db, wanted: readonly string[]): Promise<ReadMaterials> {
  const ids = [...new Set(wanted)];
  const found = ids.length === 0 ? [] : await db.select().from(materials).where(inArray(materials.id, ids));
  const rows = new Map(found.map((m) => [m.id, m]));
  if (rows.size < ids.length) throw notFound('material');
  const jars = await readAvailable(db, ids);
  const dry = await readDryFactors(db, ids);
  const spoonfuls = ids.length === 0 ? [] : await db.select({ materialId: spoonWeighings.materialId, unit: spoonWeighings.unit, system: spoonWeighings.system, weightMg: spoonWeighings.weightMg }).from(spoonWeighings).where(inArray(spoonWeighings.materialId, ids)).orderBy(asc(spoonWeighings.seq));
  return {
    rows, jars,
    forPlan(id) {
      const m = rows.get(id);
      if (!m) throw notFound('material');
      return { id, name: m.name, hazards: m.hazards, measure: m.measure, packet: m.facts.packet, spoons: spoonsFrom(spoonfuls.filter((s) => s.materialId === id)), stock: jars.get(id) ?? [], dryFactor: dry.get(id) ?? null };
    },
  };
}
