import type { NewProof, NewRecipeStatus, RecipeBody } from '@vestigia/contract';
import { said, ciede2000, mayHaveStatus } from '@vestigia/core';
import { eq, inArray, max } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { materials, proofs, recipeVersions, recipes, recipeStatuses } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { Refusal, notFound } from '../shared/problem';
import { readRoom } from '../studio/room';
import { findVersion, namedIds, readEvidence } from './recipes-store';

interface RecordedVersion {
  readonly id: string;
  readonly recipeId: string;
  readonly body: RecipeBody;
}

/** Writes a recipe and its first version, a trial. */
export async function addRecipe(
  db: Db,
  recipe: { id: string; name: string; versionId: string; body: RecipeBody },
  by: By,
): Promise<{ id: string }> {
  await db.insert(recipes).values({ id: recipe.id, name: recipe.name });
  return addVersion(db, { id: recipe.versionId, recipeId: recipe.id, body: recipe.body }, by);
}

/** Writes the next version of a recipe, a trial. Those before it stay as they are. */
export async function addVersion(
  db: Db,
  { id, recipeId, body }: RecordedVersion,
  { now, byId }: By,
): Promise<{ id: string }> {
  const [recipe] = await db.select().from(recipes).where(eq(recipes.id, recipeId));
  if (!recipe) throw notFound('recipe');
  await checkMaterials(db, body);
  const [newest] = await db
    .select({ number: max(recipeVersions.number) })
    .from(recipeVersions)
    .where(eq(recipeVersions.recipeId, recipeId));
  const at = now.toISOString();
  await db.insert(recipeVersions).values({ id, recipeId, number: (newest?.number ?? 0) + 1, body, at, byId });
  await db.insert(recipeStatuses).values({ id: uuidv7(now), recipeVersionId: id, status: 'trial', at, byId });
  return { id };
}

/** Says where a version stands; proven only on the evidence the studio asks for. */
export async function setRecipeStatus(
  db: Db,
  versionId: string,
  status: NewRecipeStatus,
  { now, byId }: By,
): Promise<{ id: string }> {
  const version = await findVersion(db, versionId);
  if (version.status === status.status)
    throw new Refusal('alreadyDone', $localize`This version is ${said(status.status)} already.`);
  const may = mayHaveStatus(
    version.status,
    status.status,
    await readEvidence(db, versionId),
    (await readRoom(db)).provenNeeds,
  );
  if (!may.ok) throw new Refusal('refused', may.message, { reason: 'notProven' });
  if (status.status === 'retired' && status.reason.trim() === '')
    throw new Refusal('refused', $localize`Say why it is retired: whoever meets it later will want to know.`, {
      reason: 'reasonMissing',
    });
  await db.insert(recipeStatuses).values({ ...status, recipeVersionId: versionId, at: now.toISOString(), byId });
  return { id: status.id };
}

/** Records a small proof of a version, dyed and read dry. */
export async function recordProof(
  db: Db,
  versionId: string,
  { illuminant, observer, ...proof }: NewProof,
  { now, byId }: By,
): Promise<{ id: string }> {
  const version = await findVersion(db, versionId);
  if (version.status === 'retired')
    throw new Refusal('refused', $localize`This version is retired. Make it a trial again before proving it.`);
  const { deltaE } = ciede2000(proof.wanted, proof.lab, { kL: 1, kC: 1, kH: 1 });
  await db.insert(proofs).values({
    ...proof,
    recipeVersionId: versionId,
    conditions: { illuminant, observer },
    deltaE: Math.round(deltaE * 1000) / 1000,
    at: now.toISOString(),
    byId,
  });
  return { id: proof.id };
}

/** Ways in which a liquor is dosed. */
const BY_VOLUME = ['solution', 'spoons', 'perBath', 'toPh', 'allThere', 'liquor'];

/** What a recipe doses must be in Stores, and measurable in the way it says. */
export async function checkMaterials(db: Db, body: RecipeBody): Promise<void> {
  const refuse = (message: string): never => {
    throw new Refusal('refused', message);
  };
  for (const step of body.steps) {
    if (new Set(step.doses.map((d) => d.materialId)).size < step.doses.length)
      refuse($localize`“${step.title}” doses one material twice. Add the two together.`);
  }
  const ids = namedIds(body);
  const known = ids.length === 0 ? [] : await db.select().from(materials).where(inArray(materials.id, ids));
  if (known.length < ids.length)
    throw new Refusal(
      'notFound',
      $localize`The recipe names a material that is not in Stores. Add the material first.`,
    );
  for (const { materialId, ...dose } of body.steps.flatMap((s) => s.doses)) {
    const m = known.find((k) => k.id === materialId);
    if (!m) continue;
    if (m.kind === 'fibre')
      refuse($localize`${m.name} is a base: the weight of fibre comes from the lot, so it is not dosed.`);
    if (dose.by === 'packet' && m.facts.packet === null)
      refuse(
        $localize`Nothing says how much fibre a packet of ${m.name} dyes. Write it on the material’s page in Stores.`,
      );
    if (m.measure === 'pieces' && !['packet', 'count', 'perBath', 'allThere'].includes(dose.by))
      refuse($localize`${m.name} is counted, and never opened by halves. Dose it by the packet or by the piece.`);
    if (m.measure === 'volume' && !BY_VOLUME.includes(dose.by))
      refuse(
        $localize`${m.name} is kept by volume and this dose is a weight. Dose it as ml of a solution, or from a jar kept by weight.`,
      );
  }
  for (const shade of body.expectedShades)
    if (known.find((k) => k.id === shade.baseMaterialId)?.kind !== 'fibre')
      refuse($localize`An expected shade is for a base. Choose a fibre.`);
}
