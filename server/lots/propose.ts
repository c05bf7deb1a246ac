import type { Colourway, Proposal, ProposalAsk } from '@vestigia/contract';
import type { LotConditions, LotPlan, PlanMaterial } from '@vestigia/core';
import { compareThenAndNow, planLot, readLotSize } from '@vestigia/core';
import { createHash } from 'node:crypto';
import { eq, inArray } from 'drizzle-orm';
import { baseFacts, findColourway } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import { materials, stockLots, studio, vessels, waters } from '../db/schema';
import { lotTag } from '../lot-tag';
import { Refusal, notFound } from '../problem';
import { findVersion } from '../recipes/recipes-store';
import { findMaterial } from '../stores/materials-store';
import { readAvailable } from '../stores/shelf';
import { studioToday } from '../studio/studio-store';
import { readState } from './lot-progress';
import type { LotRow } from './lots-store';
import { findLot, readConditions } from './lots-store';

export interface MadeProposal {
  readonly proposal: Proposal;
  readonly colourway: Colourway;
  readonly plan: LotPlan;
  readonly water: LotRow['water'];
}

/** Works out a lot from what is on the shelf and in the room now. Changes nothing; refuses in core's words. */
export async function propose(db: Db, ask: ProposalAsk, now: Date): Promise<MadeProposal> {
  const colourway = await findColourway(db, ask.colourwayId);
  const earlier = ask.reorderOfId === null ? undefined : await findEarlier(db, ask.reorderOfId, colourway.id);
  const version = await findVersion(db, ask.recipeVersionId ?? colourway.recipe.versionId);
  if (version.id !== colourway.recipe.versionId && version.id !== earlier?.recipeVersionId) throw new Refusal('refused', 'That recipe version is neither the colourway’s nor the earlier lot’s. Choose one of the two.');
  const size = readLotSize(ask.written, colourway.base);
  if (!size.ok) throw new Refusal('refused', size.sentence, { reason: size.code });

  const base = await findMaterial(db, colourway.base.id);
  const facts = baseFacts(base);
  const water = ask.waterId === null ? null : await findWater(db, ask.waterId);
  const planned = planLot({
    pieces: size.size.pieces,
    pieceWeightG: size.size.pieceWeightG,
    recipe: { id: version.id, recipeName: version.recipeName, number: version.number, ...version.body },
    ...(await readPlanMaterials(db, base, version.body.steps.flatMap((s) => s.doses.map((d) => d.materialId)), facts)),
    vessels: await readVessels(db, ask.vesselIds),
    balance: await readBalance(db),
    today: await studioToday(db, now),
  });
  if (!planned.ok) throw new Refusal('refused', planned.refusal.sentence, { reason: planned.refusal.code });
  const { plan } = planned;
  const jars = await readJarsOf(db, plan);
  const here = conditionsOf(plan, { id: version.id, name: `${version.recipeName}, version ${version.number}` }, base.id, water, jars);
  const factors = earlier ? compareThenAndNow(await readConditions(db, earlier), here) : [];
  const then = earlier ? { lotId: earlier.id, tag: lotTag(earlier.number), recipeVersionId: earlier.recipeVersionId, recipeNumber: (await findVersion(db, earlier.recipeVersionId)).number, written: earlier.written } : null;
  const proposal: Proposal = {
    understoodAs: size.size.understoodAs,
    recipe: { versionId: version.id, name: version.recipeName, number: version.number, standing: version.standing },
    plan: plan as Proposal['plan'], jars, factors, then,
    digest: createHash('sha256').update(JSON.stringify([version.id, water, plan, factors])).digest('base64url'),
  };
  return { proposal, colourway, plan, water };
}

async function findEarlier(db: Db, id: string, colourwayId: string): Promise<LotRow> {
  const earlier = await findLot(db, id);
  if (earlier.colourwayId !== colourwayId) throw new Refusal('refused', `${lotTag(earlier.number)} is of another colourway, so this can’t be its reorder.`);
  if ((await readState(db, id)) !== 'released') throw new Refusal('refused', `${lotTag(earlier.number)} has not been released, so there is nothing proven to dye again. Judge it first.`);
  return earlier;
}

async function findWater(db: Db, id: string): Promise<LotRow['water']> {
  const [row] = await db.select({ id: waters.id, name: waters.name, ph: waters.ph, hardnessDh: waters.hardnessDh }).from(waters).where(eq(waters.id, id));
  if (!row) throw notFound('water source');
  return row;
}

async function readBalance(db: Db): Promise<{ name: string; resolutionG: number; capacityG: number }> {
  const [row] = await db.select({ name: studio.balanceName, resolutionG: studio.balanceResolutionG, capacityG: studio.balanceCapacityG }).from(studio);
  if (!row) throw notFound('studio');
  // A step of 0.1 g is stored in single precision; the balance shows no such dust.
  return { ...row, resolutionG: Number(row.resolutionG.toPrecision(6)) };
}

async function readVessels(db: Db, ids: readonly string[] | undefined): Promise<(typeof vessels.$inferSelect)[]> {
  const all = await db.select().from(vessels);
  if (ids === undefined) return all;
  const unknown = ids.find((id) => !all.some((v) => v.id === id));
  if (unknown !== undefined) throw notFound('vessel');
  return all.filter((v) => ids.includes(v.id));
}

async function readPlanMaterials(db: Db, base: typeof materials.$inferSelect, dosedIds: readonly string[], facts: ReturnType<typeof baseFacts>) {
  const ids = [...new Set(dosedIds)];
  const dosed = ids.length === 0 ? [] : await db.select().from(materials).where(inArray(materials.id, ids));
  const stock = await readAvailable(db, [base.id, ...ids]);
  const forPlan = (m: typeof materials.$inferSelect): PlanMaterial => ({ id: m.id, name: m.name, hazards: m.hazards, stock: stock.get(m.id) ?? [] });
  return { base: { ...forPlan(base), fibre: facts.fibre, pieceWord: facts.pieceWord }, materials: dosed.map(forPlan) };
}

async function readJarsOf(db: Db, plan: LotPlan): Promise<Proposal['jars']> {
  const ids = plan.materials.flatMap((m) => m.picks.flatMap((p) => (p.stockLotId === null ? [] : [p.stockLotId])));
  return ids.length === 0 ? [] : db.select({ id: stockLots.id, tag: stockLots.tag, place: stockLots.place }).from(stockLots).where(inArray(stockLots.id, ids)).orderBy(stockLots.tag);
}

/** The lot as planned, in the terms of then and now. */
function conditionsOf(plan: LotPlan, recipe: LotConditions['recipe'], baseId: string, water: LotRow['water'], jars: Proposal['jars']): LotConditions {
  const tagOf = new Map(jars.map((j) => [j.id, j.tag]));
  const sources = (m: LotPlan['materials'][number]) => m.picks.flatMap((p) => (p.stockLotId === null ? [] : [{ stockLotId: p.stockLotId, tag: tagOf.get(p.stockLotId) ?? '' }]));
  return {
    recipe, water,
    base: plan.materials.filter((m) => m.materialId === baseId).flatMap(sources),
    materials: plan.materials.filter((m) => m.materialId !== baseId).map((m) => ({ materialId: m.materialId, name: m.name, percentOwf: (m.total.value / plan.wof.value) * 100, sources: sources(m) })),
    vessels: plan.batches.map((b) => ({ id: b.vesselId, name: b.vesselName, metal: b.metal })),
    liquorRatio: plan.liquorRatio,
  };
}
