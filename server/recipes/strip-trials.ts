import type {
  NewStripLook,
  NewStripReading,
  NewStripTrial,
  RecipeBody,
  StripPromotion,
  StripTrialDetail,
  StripTrialSummary,
} from '@vestigia/contract';
import type { StripLayout } from '@vestigia/core';
import {
  applyLevel,
  checkStripLook,
  convertGramsToMilligrams,
  layLiquorStrips,
  layStrips,
  sayStripLookRefusal,
  sayStripRefusal,
  rankStrips,
  readWeight,
  sameConditions,
  currentEntries,
} from '@vestigia/core';
import { asc, desc, eq, sql } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import {
  people,
  recipeVersions,
  recipes,
  stockLots,
  stripLooks,
  stripPromotions,
  stripReadings,
  stripTrials,
} from '../db/schema';
import { studioToday } from '../studio/studio-store';
import { Refusal, notFound } from '../shared/problem';
import { findMaterial } from '../stores/materials-store';
import { readPlanMaterials } from '../stores/plan-materials';
import { readRoom } from '../studio/room';
import { findVersion } from './recipes-store';
import { addRecipe, addVersion } from './write-versions';

const iso = (at: string): string => new Date(at).toISOString();
type TrialRow = typeof stripTrials.$inferSelect;

export async function readStripTrials(db: Db, id?: string): Promise<StripTrialSummary[]> {
  const rows = await db
    .select({
      trial: stripTrials,
      recipeName: recipes.name,
      number: recipeVersions.number,
      byId: people.id,
      byName: people.name,
      seen: sql<number>`(SELECT count(DISTINCT n)::int FROM (
        SELECT number AS n FROM strip_readings r WHERE r.trial_id = ${stripTrials.id}
        UNION ALL SELECT (s->>'number')::int FROM strip_looks l, jsonb_array_elements(l.seen) s WHERE l.trial_id = ${stripTrials.id}) q)`,
    })
    .from(stripTrials)
    .leftJoin(recipeVersions, eq(recipeVersions.id, stripTrials.recipeVersionId))
    .leftJoin(recipes, eq(recipes.id, recipeVersions.recipeId))
    .innerJoin(people, eq(people.id, stripTrials.byId))
    .where(id === undefined ? undefined : eq(stripTrials.id, id))
    .orderBy(desc(stripTrials.seq));
  return rows.map(({ trial, recipeName, number, byId, byName, seen }) => ({
    id: trial.id,
    name: trial.name,
    recipe: recipeName === null ? '' : $localize`${recipeName}, version ${number}`,
    recipeVersionId: trial.recipeVersionId,
    factor: trial.factor,
    strips: trial.levels.length,
    seen,
    at: iso(trial.at),
    by: { id: byId, name: byName },
  }));
}

async function findTrial(db: Db, id: string): Promise<TrialRow> {
  const [row] = await db.select().from(stripTrials).where(eq(stripTrials.id, id));
  if (!row) throw notFound($localize`strip trial`);
  return row;
}

export async function readStripTrial(db: Db, id: string): Promise<StripTrialDetail> {
  const trial = await findTrial(db, id);
  const [summary] = await readStripTrials(db, id);
  const base = await findMaterial(db, trial.baseMaterialId);
  if (!summary || !base.base) throw notFound($localize`strip trial`);
  const { undyed } = base.base;
  const rows = await db
    .select({ reading: stripReadings, byId: people.id, byName: people.name })
    .from(stripReadings)
    .innerJoin(people, eq(people.id, stripReadings.byId))
    .where(eq(stripReadings.trialId, id))
    .orderBy(asc(stripReadings.seq));
  const readings = rows.map(
    ({ reading: { seq: _seq, trialId: _trial, conditions, byId: _by, ...r }, byId, byName }) => ({
      ...r,
      ...conditions,
      at: iso(r.at),
      by: { id: byId, name: byName },
    }),
  );
  // A strip read twice counts by its newest reading.
  const status = new Map(
    currentEntries(readings)
      .filter((r) => sameConditions(r, undyed))
      .map((r) => [r.number, r]),
  );
  const looks = await db
    .select({ look: stripLooks, byId: people.id, byName: people.name })
    .from(stripLooks)
    .innerJoin(people, eq(people.id, stripLooks.byId))
    .where(eq(stripLooks.trialId, id))
    .orderBy(asc(stripLooks.seq));
  const promoted = await db
    .select({
      number: stripPromotions.number,
      versionId: stripPromotions.recipeVersionId,
      name: recipes.name,
      version: recipeVersions.number,
    })
    .from(stripPromotions)
    .innerJoin(recipeVersions, eq(recipeVersions.id, stripPromotions.recipeVersionId))
    .innerJoin(recipes, eq(recipes.id, recipeVersions.recipeId))
    .where(eq(stripPromotions.trialId, id))
    .orderBy(asc(stripPromotions.seq));
  const { waters } = await readRoom(db);
  return {
    summary,
    note: trial.note,
    totalG: trial.totalMg === null ? null : trial.totalMg / 1000,
    materialId: trial.materialId,
    base: { id: base.id, name: base.name, undyed },
    water: waters.find((w) => w.id === trial.waterId)?.name ?? '',
    levels: trial.levels,
    layout: trial.layout as StripTrialDetail['layout'],
    readings,
    ranked: rankStrips([...status.values()], undyed, null),
    looks: looks.map(({ look: { seq: _seq, trialId: _trial, byId: _by, ...look }, byId, byName }) => ({
      ...look,
      at: iso(look.at),
      by: { id: byId, name: byName },
    })),
    promoted: promoted.map((p) => ({
      number: p.number,
      versionId: p.versionId,
      label: $localize`${p.name}, version ${p.version}`,
    })),
  };
}

/** Lays out a trial and keeps it as it was laid: later changes of the recipe or the balance don't touch it. */
export async function addStripTrial(
  db: Db,
  { totalText, ...trial }: NewStripTrial,
  { now, byId }: By,
): Promise<{ id: string }> {
  const base = await findMaterial(db, trial.baseMaterialId);
  if (!base.base) throw new Refusal('refused', $localize`${base.name} is not a base. Choose a fibre.`);
  const total = totalText === '' ? null : readWeight(totalText);
  if (total?.ok === false) throw new Refusal('refused', total.message, { reason: total.code });
  const totalG = total?.weightG ?? null;
  const layout =
    trial.factor === 'liquor'
      ? layLiquorStrips({ totalG, levels: trial.levels })
      : await layByRecipe(db, { ...trial, totalG }, now);
  if (!layout.ok) throw new Refusal('refused', sayStripRefusal(layout.refusal), { reason: 'trial' });
  await db.insert(stripTrials).values({
    ...trial,
    recipeVersionId: trial.factor === 'liquor' ? null : trial.recipeVersionId,
    totalMg: totalG === null ? null : convertGramsToMilligrams(totalG),
    layout: [...layout.strips],
    at: now.toISOString(),
    byId,
  });
  return { id: trial.id };
}

async function layByRecipe(
  db: Db,
  trial: Omit<NewStripTrial, 'totalText'> & { readonly totalG: number | null },
  now: Date,
): Promise<StripLayout> {
  if (trial.recipeVersionId === null)
    throw new Refusal(
      'refused',
      $localize`Choose the recipe whose strips these are; only liquors in bowls need none.`,
      {
        reason: 'trial',
      },
    );
  const version = await findVersion(db, trial.recipeVersionId);
  const room = await readRoom(db);
  const water = trial.waterId === null ? null : (room.waters.find((w) => w.id === trial.waterId) ?? null);
  const ids = [
    ...version.body.steps.flatMap((s) => s.doses.map((d) => d.materialId)),
    ...(trial.factor === 'mordant' || trial.factor === 'modifier' ? trial.levels.flatMap((l) => l.refId ?? []) : []),
  ];
  const known = await readPlanMaterials(db, ids);
  if (trial.factor === 'source') await checkSources(db, trial);
  return layStrips(
    trial,
    { id: version.id, recipeName: version.recipeName, number: version.number, ...version.body },
    [...new Set(ids)].map((id) => known.forPlan(id)),
    { balance: room.balance, water, today: await studioToday(db, now) },
  );
}

async function checkSources(
  db: Db,
  { materialId, levels }: Pick<NewStripTrial, 'materialId' | 'levels'>,
): Promise<void> {
  const sources =
    materialId === null
      ? []
      : await db.select({ id: stockLots.id }).from(stockLots).where(eq(stockLots.materialId, materialId));
  if (levels.some((l) => !sources.some((j) => j.id === l.refId)))
    throw new Refusal(
      'refused',
      $localize`A trial of sources takes one jar of the dyestuff for each strip. Choose them from the shelf.`,
      { reason: 'source' },
    );
}

export async function recordStripReading(
  db: Db,
  trialId: string,
  { illuminant, observer, ...reading }: NewStripReading,
  { now, byId }: By,
): Promise<{ id: string }> {
  const trial = await findTrial(db, trialId);
  if (reading.number > trial.levels.length)
    throw new Refusal('refused', $localize`This trial has ${trial.levels.length} strips. Choose one of them.`);
  if (reading.replacesId !== null) {
    const [old] = await db.select().from(stripReadings).where(eq(stripReadings.id, reading.replacesId));
    if (old?.trialId !== trialId || old.number !== reading.number)
      throw new Refusal('refused', $localize`A correction names a reading of the same strip. Choose it again.`);
  }
  await db
    .insert(stripReadings)
    .values({ ...reading, trialId, conditions: { illuminant, observer }, at: now.toISOString(), byId });
  return { id: reading.id };
}

/** Records how somebody’s eye placed the strips, wet or dry. */
export async function recordStripLook(
  db: Db,
  trialId: string,
  look: NewStripLook,
  { now, byId }: By,
): Promise<{ id: string }> {
  const trial = await findTrial(db, trialId);
  const refusal = checkStripLook(look.seen, trial.levels.length);
  if (refusal) throw new Refusal('refused', sayStripLookRefusal(refusal), { reason: refusal.code });
  if (look.replacesId !== null) {
    const [old] = await db.select().from(stripLooks).where(eq(stripLooks.id, look.replacesId));
    if (old?.trialId !== trialId || old.byId !== byId)
      throw new Refusal(
        'refused',
        $localize`A correction names something you said yourself of these strips. Choose it again.`,
      );
  }
  await db.insert(stripLooks).values({ ...look, trialId, at: now.toISOString(), byId });
  return { id: look.id };
}

/** One strip becomes a recipe version: the chain with that strip's level in it, a trial still to be proven. */
export async function promoteStrip(
  db: Db,
  trialId: string,
  { id, number, name, recipeId }: StripPromotion,
  by: By,
): Promise<{ id: string }> {
  const trial = await findTrial(db, trialId);
  const level = trial.levels[number - 1];
  if (!level)
    throw new Refusal('refused', $localize`This trial has ${trial.levels.length} strips. Choose one of them.`);
  if (trial.recipeVersionId === null)
    throw new Refusal(
      'refused',
      $localize`These liquors were by no recipe. Write one of the strip you like, and say what was in it.`,
      {
        reason: 'noRecipe',
      },
    );
  const version = await findVersion(db, trial.recipeVersionId);
  const steps = applyLevel(version.body.steps, trial, level) as RecipeBody['steps'];
  const body: RecipeBody = {
    ...version.body,
    steps,
    ...(trial.factor === 'water' ? { water: await waterOf(db, level.refId, version.body.water) } : {}),
    note: [version.body.note, $localize`Strip ${number} of “${trial.name}”: ${level.label}.`]
      .filter((n) => n !== '')
      .join('\n')
      .slice(0, 2000),
  };
  const created =
    name === null
      ? await addVersion(db, { id, recipeId: version.recipeId, body }, by)
      : await addRecipe(db, { id: recipeId, name, versionId: id, body }, by);
  await db
    .insert(stripPromotions)
    .values({ id, trialId, number, recipeVersionId: created.id, at: by.now.toISOString(), byId: by.byId });
  return created;
}

/** The strip's water as the recipe asks for it from now on: as hard or as soft as that source is. */
async function waterOf(db: Db, waterId: string | null, before: RecipeBody['water']): Promise<RecipeBody['water']> {
  const source = (await readRoom(db)).waters.find((w) => w.id === waterId);
  if (!source || source.hardnessDh === null) return before;
  const middle = 4;
  return { asks: source.hardnessDh > middle ? 'hard' : 'soft', hardnessDh: source.hardnessDh };
}
