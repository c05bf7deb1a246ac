import type { Colourway, Material, Proposal, ReadProposalAsk, RecipeBody } from '@vestigia/contract';
import type { LotCheck, LotConditions, LotPlan, PlanBase, PlanInput, RecipeVersion } from '@vestigia/core';
import {
  PRACTICE,
  changesChain,
  chooseDoses,
  findAlternatives,
  findChoiceOutside,
  planEffort,
  rangedDoses,
  checkLot,
  compareThenAndNow,
  planLot,
  practiceChoice,
  practiceDifferences,
  catalogueEntry,
  hazardsOf,
  practiceMaterials,
  readLotSize,
  replanFor,
  sayPlanRefusal,
  sayWayOut,
} from '@vestigia/core';
import { createHash } from 'node:crypto';
import { inArray } from 'drizzle-orm';
import { baseFacts, findColourway } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import { stockLots } from '../db/schema';
import { lotTag } from '../shared/lot-tag';
import { Refusal, notFound } from '../shared/problem';
import { findVersion } from '../recipes/recipes-store';
import { findMaterial, listMaterials } from '../stores/materials-store';
import type { ReadMaterials } from '../stores/plan-materials';
import { readMaterials, readPlanMaterials } from '../stores/plan-materials';
import { readLiquors } from '../stores/liquor-level';
import type { StudioRoom } from '../studio/room';
import { readRoom } from '../studio/room';
import { studioToday } from '../studio/studio-store';
import { readState } from './lot-progress';
import { readUnfolds } from './unfolds';
import type { LotRow } from './lots-store';
import { findLot, readConditions, readStrengths } from './lots-store';

export interface ProposalWithInputs {
  readonly proposal: Proposal;
  readonly colourway: Colourway;
  readonly plan: LotPlan;
  readonly water: LotRow['water'];
}

type Version = Awaited<ReturnType<typeof findVersion>>;

/**
 * Works out a lot from what is on the shelf and in the room now, and looks it over. Changes nothing; refuses in
 * core's words.
 */
export async function propose(db: Db, ask: ReadProposalAsk, now: Date): Promise<ProposalWithInputs> {
  const asked = await gather(db, ask, now);
  const { colourway, earlier, version, room, body, label, recipe, bases, known, water, today } = asked;
  const plan = planOrRefuse(ask, asked);
  const stockLots = await readStockLotsOf(db, plan);
  const liquors = await readLiquors(
    db,
    stockLots.map((j) => j.id),
    now,
  );
  const dissolved = await readMaterials(
    db,
    [...liquors.values()].flatMap((l) => l.contents).filter((id) => !known.rows.has(id)),
  );
  const lotsTaken = stockLotsIn(plan, known).map((j) => ({ ...j, ...liquors.get(j.id) }));
  const named = { id: version.id, name: `${version.recipeName}, version ${version.number}` };
  const baseIds = bases.map((b) => b.id);
  const strengths = await readStrengths(
    db,
    stockLots.map((j) => j.id),
  );
  const here = conditionsOf(plan, named, baseIds, water, stockLots, strengths);
  const factors = earlier ? compareThenAndNow(await readConditions(db, earlier), here) : [];
  const checks = [
    ...checkLot({
      plan,
      recipe,
      status: version.status,
      materials: [...known.rows.values(), ...dissolved].map((m) => ({
        ...m,
        hazards: hazardsOf({ hazards: m.hazards, catalogueKey: m.facts.catalogueKey }),
        ceilingC: m.facts.ceilingC,
        bringsTannin: m.facts.bringsTannin,
        catalogueKey: m.facts.catalogueKey,
        needs: m.facts.needs ?? catalogueEntry(m.facts.catalogueKey)?.needs ?? null,
      })),
      vessels: room.vessels,
      stockLots: lotsTaken,
      intake: { ...ask.intake, flags: [...new Set([...ask.intake.flags, ...treatmentsOf(lotsTaken, baseIds)])] },
      house: room.house,
      water,
      otherWaters: room.waters,
      today,
    }),
    ...label.map(schoolCheck),
  ];
  const proposal: Proposal = {
    understoodAs: asked.understoodAs,
    recipe: { versionId: version.id, name: version.recipeName, number: version.number, status: version.status },
    plan: plan as Proposal['plan'],
    stockLots,
    factors,
    then: earlier ? await tellEarlier(db, earlier) : null,
    checks,
    shades: body.expectedShades.flatMap((e) =>
      bases.filter((b) => b.id === e.baseMaterialId).map((b) => ({ ...e, base: b.name })),
    ),
    effort: planEffort(plan),
    alternatives: findAlternatives(inputOf(ask, asked), plan).map((a) => ({
      ...a,
      batches: [...a.batches],
      ...(a.vesselIds ? { vesselIds: [...a.vesselIds] } : {}),
    })) as Proposal['alternatives'],
    unfolds: await readUnfolds(db, plan),
    ranges: rangesOf(asked),
    schools: practiceDifferences(room.house, body.practice),
    digest: createHash('sha256')
      .update(JSON.stringify([version.id, water, plan, factors, checks]))
      .digest('base64url'),
  };
  return { proposal, colourway, plan, water };
}

/** All that a proposal rests on, read as it is now. */
async function gather(db: Db, ask: ReadProposalAsk, now: Date) {
  const colourway = await findColourway(db, ask.colourwayId);
  const earlier = ask.reorderOfId === null ? undefined : await findEarlier(db, ask.reorderOfId, colourway.id);
  const version = await findVersion(db, ask.recipeVersionId ?? colourway.recipe.versionId);
  if (version.id !== colourway.recipe.versionId && version.id !== earlier?.recipeVersionId)
    throw new Refusal(
      'refused',
      'That recipe version is neither the colourway’s nor the earlier lot’s. Choose one of the two.',
    );
  const room = await readRoom(db);
  const { body: inSchool, label } = await inSchools(db, version.body, ask.schools);
  const body = withChosenDoses(inSchool, ask.doses);
  const { sizes, understoodAs } = await readSizes(db, colourway, ask);
  const known = await readPlanMaterials(db, [
    ...sizes.map((s) => s.base.id),
    ...body.steps.flatMap((s) => s.doses.map((d) => d.materialId)),
    ...(body.placed?.zones ?? []).flatMap((z) => z.materialId ?? []),
  ]);
  const bases = sizes.map(({ base, pieces, pieceWeightG }): PlanBase => ({
    ...known.forPlan(base.id),
    fibre: baseFacts(base).fibre,
    blend: baseFacts(base).blend,
    pieceWord: baseFacts(base).pieceWord,
    pieces,
    pieceWeightG,
  }));
  const recipe: RecipeVersion = { id: version.id, recipeName: version.recipeName, number: version.number, ...body };
  const water = ask.waterId === null ? null : findWater(room, ask.waterId);
  const today = await studioToday(db, now);
  return { colourway, earlier, version, room, inSchool, body, label, recipe, bases, known, understoodAs, water, today };
}

function inputOf(
  ask: ReadProposalAsk,
  { bases, recipe, water, room, today, known }: Awaited<ReturnType<typeof gather>>,
): PlanInput {
  const dosed = [...known.rows.keys()].filter((id) => !bases.some((b) => b.id === id));
  return {
    bases: bases as [PlanBase, ...PlanBase[]],
    recipe,
    water,
    room: room.room,
    balance: room.balance,
    house: room.house,
    today,
    liquorRatio: ask.liquorRatio,
    fills: ask.fills,
    materials: dosed.map((id) => known.forPlan(id)),
    vessels: chooseVessels(room, ask.vesselIds),
  };
}

function planOrRefuse(ask: ReadProposalAsk, asked: Awaited<ReturnType<typeof gather>>): LotPlan {
  const planned = planLot(inputOf(ask, asked));
  if (planned.ok) return planned.plan;
  const { refusal } = planned;
  const ways = refusal.ways.map((way) => ({ ...way, message: sayWayOut(way) }));
  throw new Refusal('refused', sayPlanRefusal(refusal), { reason: refusal.code, ...(ways.length > 0 ? { ways } : {}) });
}

async function tellEarlier(db: Db, earlier: LotRow): Promise<Proposal['then']> {
  return {
    lotId: earlier.id,
    tag: lotTag(earlier.number),
    recipeVersionId: earlier.recipeVersionId,
    recipeNumber: (await findVersion(db, earlier.recipeVersionId)).number,
    quantityText: earlier.quantityText,
  };
}

/** The chain laid anew for the schools asked for; each is told, since the version was proven otherwise. */
function withChosenDoses(body: RecipeBody, chosen: ReadProposalAsk['doses']): RecipeBody {
  const outside = findChoiceOutside(body.steps, chosen);
  if (outside)
    throw new Refusal(
      'refused',
      `“${outside.stepTitle}” is written for ${outside.fromPercentOwf} to ${outside.toPercentOwf} % of the fibre. Choose within that.`,
      { reason: 'doseOutside' },
    );
  return { ...body, steps: chooseDoses(body.steps, chosen) };
}

function rangesOf({ inSchool, body, known }: Awaited<ReturnType<typeof gather>>): Proposal['ranges'] {
  const taken = rangedDoses(body.steps);
  return rangedDoses(inSchool.steps).map((range, i) => ({
    ...range,
    material: known.rows.get(range.materialId)?.name ?? '',
    percentOwf: taken[i]?.fromPercentOwf ?? range.fromPercentOwf,
  }));
}

async function inSchools(
  db: Db,
  body: RecipeBody,
  schools: ReadProposalAsk['schools'],
): Promise<{ body: Version['body']; label: string[] }> {
  if (schools.length === 0) return { body, label: [] };
  const own = practiceMaterials(
    (await listMaterials(db)).map(({ id, facts }) => ({
      id,
      catalogueKey: facts.catalogueKey,
      needs: facts.needs ?? catalogueEntry(facts.catalogueKey)?.needs ?? null,
    })),
  );
  const label: string[] = [];
  let layout = body;
  for (const { key, answer } of schools) {
    const schoolLabel = `${PRACTICE.find((q) => q.key === key)?.question ?? ''}: ${practiceChoice(key, answer)?.label ?? ''}`;
    // What core lays anew is a body of the same shape.
    const next = {
      ...replanFor(layout, key, answer, own),
      practice: { ...layout.practice, [key]: answer },
    } as RecipeBody;
    if (!changesChain(layout, next))
      throw new Refusal(
        'refused',
        `${schoolLabel}: that changes nothing in this recipe’s chain. Leave it as the recipe was proven.`,
        { reason: 'schoolWithoutEffect' },
      );
    label.push(`${schoolLabel}, for this lot.`);
    layout = next;
  }
  return { body: layout, label };
}

const schoolCheck = (message: string): LotCheck => ({
  key: `school: ${message}`,
  severity: 'caution',
  protection: false,
  message,
  why: 'The version was proven the other way: dye a strike-off before the whole lot.',
  cites: 'asked for with this lot',
});

async function readSizes(db: Db, colourway: Colourway, ask: ReadProposalAsk) {
  const wanted = [{ baseId: colourway.base.id, quantityText: ask.quantityText }, ...ask.also];
  const twice = wanted.find((w, i) => wanted.findIndex((o) => o.baseId === w.baseId) !== i);
  if (twice) throw new Refusal('refused', 'One base stands in the lot twice. Put all its pieces on one line.');
  const sizes: { base: Material; pieces: number; pieceWeightG: number }[] = [];
  const understood: string[] = [];
  for (const { baseId, quantityText } of wanted) {
    const base = await findMaterial(db, baseId);
    const size = readLotSize(quantityText, baseFacts(base));
    if (!size.ok) throw new Refusal('refused', size.message, { reason: size.code });
    sizes.push({ base, ...size.size });
    understood.push(wanted.length === 1 ? size.size.understoodAs : `${size.size.understoodAs} of ${base.name}`);
  }
  return { sizes, understoodAs: understood.join(' and ') };
}

async function findEarlier(db: Db, id: string, colourwayId: string): Promise<LotRow> {
  const earlier = await findLot(db, id);
  if (earlier.colourwayId !== colourwayId)
    throw new Refusal('refused', `${lotTag(earlier.number)} is of another colourway, so this can’t be its reorder.`);
  if ((await readState(db, id)) !== 'released')
    throw new Refusal(
      'refused',
      `${lotTag(earlier.number)} has not been released, so there is nothing proven to dye again. Judge it first.`,
    );
  return earlier;
}

function findWater({ waters }: StudioRoom, id: string): StudioRoom['waters'][number] {
  const found = waters.find((w) => w.id === id);
  if (!found) throw notFound('water source');
  return found;
}

function chooseVessels({ vessels }: StudioRoom, ids: readonly string[] | undefined): StudioRoom['vessels'] {
  if (ids === undefined) return vessels;
  if (ids.some((id) => !vessels.some((v) => v.id === id))) throw notFound('vessel');
  return vessels.filter((v) => ids.includes(v.id));
}

async function readStockLotsOf(db: Db, plan: LotPlan): Promise<Proposal['stockLots']> {
  const ids = plan.materials.flatMap((m) => m.picks.flatMap((p) => (p.stockLotId === null ? [] : [p.stockLotId])));
  return ids.length === 0
    ? []
    : db
        .select({ id: stockLots.id, tag: stockLots.tag, place: stockLots.place })
        .from(stockLots)
        .where(inArray(stockLots.id, ids))
        .orderBy(stockLots.tag);
}

/** What was done before to the fibre that is taken: seen at intake, though nobody ticked it. */
const treatmentsOf = (taken: ReturnType<typeof stockLotsIn>, baseIds: readonly string[]): ('mordanted' | 'dyed')[] =>
  taken.filter((j) => baseIds.includes(j.materialId)).flatMap((j) => j.treatment ?? []);

function stockLotsIn(plan: LotPlan, known: ReadMaterials) {
  return plan.materials.flatMap((m) =>
    m.picks.flatMap((p) =>
      (known.stockLots.get(m.materialId) ?? [])
        .filter((j) => j.stockLotId === p.stockLotId)
        .map((j) => ({ ...j, id: j.stockLotId, materialId: m.materialId })),
    ),
  );
}

/** Of what is taken, how strong it is on the whole; untested stock lots count as the reference lot. */
function meanStrength(picks: LotPlan['materials'][number]['picks'], strengths: ReadonlyMap<string, number>): number {
  const total = picks.reduce((sum, p) => sum + p.amount, 0);
  const worth = picks.reduce((sum, p) => sum + p.amount * (strengths.get(p.stockLotId ?? '') ?? 1), 0);
  return total === 0 ? 1 : worth / total;
}

/** The lot as planned, in the terms of then and now. */
function conditionsOf(
  plan: LotPlan,
  recipe: LotConditions['recipe'],
  baseIds: readonly string[],
  water: LotRow['water'],
  stockLots: Proposal['stockLots'],
  strengths: ReadonlyMap<string, number>,
): LotConditions {
  const tagOf = new Map(stockLots.map((j) => [j.id, j.tag]));
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
