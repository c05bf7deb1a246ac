import type { Material, RecipeBody, RecipeFile, RecipeFileCheck, RecipeFileImport } from '@vestigia/contract';
import { NO_FACTS } from '@vestigia/contract';
import { refusedSalt, said } from '@vestigia/core';
import { eq, inArray } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { materials, recipes } from '../db/schema';
import type { FileReply } from '../http/routes';
import { Refusal } from '../shared/problem';
import { addMaterial, listMaterials } from '../stores/materials-store';
import { findVersion, namedIds } from './recipes-store';
import { addRecipe } from './write-versions';

/** One version as a file, with what it calls each material. */
export async function exportRecipe(db: Db, versionId: string): Promise<FileReply> {
  const version = await findVersion(db, versionId);
  const ids = namedIds(version.body);
  const named = ids.length === 0 ? [] : await db.select().from(materials).where(inArray(materials.id, ids));
  const file: RecipeFile = {
    format: 'vestigia-recipe',
    formatVersion: 2,
    name: version.recipeName,
    number: version.number,
    status: version.status,
    body: version.body,
    materials: ids.flatMap((id) =>
      named
        .filter((m) => m.id === id)
        .map((m) => ({ id, name: m.name, kind: m.kind, measure: m.measure, botanicalName: m.facts.botanicalName })),
    ),
  };
  return {
    name: `${version.recipeName.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-${version.number}.recipe.json`,
    type: 'application/json',
    content: `${JSON.stringify(file, null, 1)}\n`,
  };
}

/**
 * Looks every material of a file up among the studio's own: the same one, one of that name, one of that plant; or
 * none.
 */
export async function checkRecipeFile(db: Db, file: RecipeFile): Promise<RecipeFileCheck> {
  const unnamed = namedIds(file.body).find((id) => !file.materials.some((m) => m.id === id));
  if (unnamed !== undefined)
    throw new Refusal(
      'refused',
      $localize`This recipe file doses a material that it doesn’t name. Have it written anew.`,
      {
        reason: 'incomplete',
      },
    );
  const own = await listMaterials(db);
  const [taken] = await db.select().from(recipes).where(eq(recipes.name, file.name));
  return {
    name: file.name,
    nameTaken: taken !== undefined,
    steps: file.body.steps.length,
    materials: file.materials.map((m) => matchMaterial(m, own)),
  };
}

function matchMaterial(
  wanted: RecipeFile['materials'][number],
  own: readonly Material[],
): RecipeFileCheck['materials'][number] {
  const { id, name, kind, measure } = wanted;
  const fits = own.filter((m) => m.kind === kind && m.measure === measure);
  const found = (here: Material, how: 'same' | 'byName' | 'byBotanicalName', why: string) => ({
    id,
    name,
    kind,
    measure,
    here: { id: here.id, name: here.name },
    how,
    why,
  });
  const same = fits.find((m) => m.id === id);
  if (same) return found(same, 'same', $localize`the same one`);
  const named = fits.find((m) => m.name.toLowerCase() === name.toLowerCase());
  if (named) return found(named, 'byName', $localize`one of that name is here`);
  const plant =
    wanted.botanicalName === ''
      ? undefined
      : fits.find((m) => m.facts.botanicalName.toLowerCase() === wanted.botanicalName.toLowerCase());
  if (plant)
    return found(
      plant,
      'byBotanicalName',
      $localize`the same plant, ${wanted.botanicalName}:botanicalName:: look whether its form is the same`,
    );
  return {
    id,
    name,
    kind,
    measure,
    here: null,
    how: 'missing',
    why:
      refusedSalt(name) ??
      (kind === 'fibre'
        ? $localize`this base is not here: choose one of yours`
        : $localize`not here: choose one of yours, or have it made`),
  };
}

/**
 * Takes a recipe file in as a trial: every material becomes one of the studio's, or is made anew, empty, to be booked
 * in later.
 */
export async function importRecipe(
  db: Db,
  { id, versionId, name, file, mapping }: RecipeFileImport,
  by: By,
): Promise<{ id: string }> {
  await checkRecipeFile(db, file);
  const own = await listMaterials(db);
  const become = new Map<string, string>();
  for (const wanted of file.materials) {
    const mapped = mapping.find((m) => m.fileId === wanted.id);
    if (!mapped)
      throw new Refusal('refused', $localize`Say what ${wanted.name} is here: one of your materials, or a new one.`, {
        reason: 'notMapped',
      });
    if (mapped.materialId === null) {
      if (wanted.kind === 'fibre')
        throw new Refusal(
          'refused',
          $localize`${wanted.name} is a base, with facts this file doesn’t hold. Choose one of yours.`,
          { reason: 'baseMissing' },
        );
      const refused = refusedSalt(wanted.name);
      if (refused !== undefined) throw new Refusal('refused', refused);
      await addMaterial(db, {
        id: mapped.newId,
        name: wanted.name,
        kind: wanted.kind,
        measure: wanted.measure,
        hazards: [],
        note: $localize`Came with a recipe: look up its hazards and facts.`,
        base: null,
        facts: { ...NO_FACTS, botanicalName: wanted.botanicalName },
      });
      become.set(wanted.id, mapped.newId);
      continue;
    }
    const here = own.find((m) => m.id === mapped.materialId);
    if (!here)
      throw new Refusal(
        'notFound',
        $localize`What was chosen for ${wanted.name} is not in Stores any more. Choose again.`,
      );
    if (here.measure !== wanted.measure)
      throw new Refusal(
        'refused',
        $localize`${wanted.name} is dosed by ${said(wanted.measure)}, and ${here.name} is kept by ${said(here.measure)}. Choose another, or add one kept by ${said(wanted.measure)}.`,
        { reason: 'otherMeasure' },
      );
    become.set(wanted.id, here.id);
  }
  return addRecipe(db, { id, versionId, name, body: renamed(file.body, (m) => become.get(m) ?? m) }, by);
}

function renamed(body: RecipeBody, of: (id: string) => string): RecipeBody {
  return {
    ...body,
    steps: body.steps.map((s) => ({ ...s, doses: s.doses.map((d) => ({ ...d, materialId: of(d.materialId) })) })),
    expectedShades: body.expectedShades.map((e) => ({ ...e, baseMaterialId: of(e.baseMaterialId) })),
    placed: body.placed
      ? {
          ...body.placed,
          zones: body.placed.zones.map((z) => ({ ...z, materialId: z.materialId === null ? null : of(z.materialId) })),
        }
      : null,
  };
}
