import { MATERIAL_KINDS, STOCK_MEASURES } from '@vestigia/core';
import { z } from 'zod';
import { id, lineOf, nameOf } from './common';
import { upgradeRecipeFile } from './upgrade-files';
import { recipeBody } from './recipe-body';
import { status } from './recipes';

/** One recipe version as a file: itself, and what it calls every material, so that another studio can find its own. */
export const recipeFile = z
  .object({
    format: z.literal('vestigia-recipe', { error: () => $localize`This is not a recipe file made by Vestigia.` }),
    formatVersion: z.literal(2, {
      error: () => $localize`This recipe file is from a newer version. Update the program first.`,
    }),
    name: nameOf(() => $localize`The recipe’s name`),
    number: z.int().min(1),
    status,
    body: recipeBody,
    materials: z.array(
      z.object({
        id,
        name: nameOf(() => $localize`A material’s name`),
        kind: z.enum(MATERIAL_KINDS),
        measure: z.enum(STOCK_MEASURES),
        botanicalName: lineOf(() => $localize`The botanical name`).default(''),
      }),
    ),
  })
  .meta({ id: 'RecipeFile' });

export type RecipeFile = z.infer<typeof recipeFile>;

/** A recipe file as it comes in: one of an earlier version is brought to this one first. */
export const recipeFileIn = z.preprocess(upgradeRecipeFile, recipeFile);

/** What a recipe file would bring: each material of it, with the studio's own where there is one. */
export const recipeFileCheck = z
  .object({
    name: z.string(),
    nameTaken: z.boolean(),
    steps: z.int(),
    materials: z.array(
      z.object({
        id,
        name: z.string(),
        kind: z.enum(MATERIAL_KINDS),
        measure: z.enum(STOCK_MEASURES),
        here: z.object({ id, name: z.string() }).nullable(),
        how: z.enum(['same', 'byName', 'byBotanicalName', 'missing']),
        why: z.string(),
      }),
    ),
  })
  .meta({ id: 'RecipeFileCheck' });

export type RecipeFileCheck = z.infer<typeof recipeFileCheck>;

/**
 * Takes a recipe file in: under a name of its own, each of its materials told to be one of the studio's, or made anew
 * (`null`).
 */
export const recipeFileImport = z.object({
  id,
  versionId: id,
  name: nameOf(() => $localize`The recipe’s name`),
  file: recipeFileIn,
  mapping: z.array(z.object({ fileId: id, materialId: id.nullable(), newId: id })).max(200),
});

export type RecipeFileImport = z.infer<typeof recipeFileImport>;

/** The published JSON Schema of the recipe file (docs/recipe.schema.json), as it may be written. */
export function recipeFileSchema(): Record<string, unknown> {
  const { $defs = {}, ...schema } = z.toJSONSchema(recipeFile, { io: 'input' });
  const { RecipeFile: root = schema, ...rest } = $defs;
  return { $schema: schema.$schema, $id: 'urn:vestigia:recipe:2', title: 'Vestigia recipe file', ...root, $defs: rest };
}
