import { FIBRE_KINDS, MATERIAL_KINDS, RECIPE_STATUSES, STEP_KINDS, STOCK_MEASURES } from '@vestigia/core';
import { z } from 'zod';
import { colourConditions, id, isoTime, lab, nameOf, noteOf, numberIn, personRef, labUnder } from './common';
import { lotState } from './lots';
import { bodyShape, recipeBody } from './recipe-body';

export const status = z.enum(RECIPE_STATUSES);

export const newRecipe = z.object({
  id,
  name: nameOf(() => $localize`The recipe’s name`),
  versionId: id,
  body: recipeBody,
});
export type NewRecipe = z.infer<typeof newRecipe>;
export const newRecipeVersion = z.object({ id, body: recipeBody });
export type NewRecipeVersion = z.infer<typeof newRecipeVersion>;
export const newRecipeStatus = z.object({ id, status, reason: noteOf(() => $localize`The reason`) });
export type NewRecipeStatus = z.infer<typeof newRecipeStatus>;

const proofFields = {
  wofG: numberIn(() => $localize`The dry weight of the proof`, 0.5, 25_000, 'g'),
  ...colourConditions.shape,
  lab,
  wanted: lab,
  toleranceDeltaE: numberIn(() => $localize`The tolerance`, 0.1, 20, 'ΔE'),
  note: noteOf(() => $localize`The note`),
};
/** A small proof of a version: dyed, read dry, set against the shade wanted. */
export const newProof = z.object({ id, ...proofFields });
export type NewProof = z.infer<typeof newProof>;
export const proofRecord = z.object({
  id,
  recipeVersionId: id,
  ...proofFields,
  deltaE: z.number(),
  byId: id,
  at: isoTime,
});

export const recipeVersionRef = z.object({ id, number: z.int(), status });
export const recipeSummary = z
  .object({
    id,
    name: z.string(),
    versions: z.array(recipeVersionRef),
    /** Kept to some people: the others don't have it at all. */
    isPrivate: z.boolean(),
    /** Whoever asked sees what goes in, and not how much. */
    lacksAmounts: z.boolean(),
    putAway: z.boolean(),
    fibres: z.array(z.enum(FIBRE_KINDS)),
    materials: z.array(z.string()),
    steps: z.int(),
    /** What its newest lot that was read came out as; `null`: none was. */
    gave: z.object({ lab: labUnder, base: z.string() }).nullable(),
  })
  .meta({ id: 'RecipeSummary' });
export type RecipeSummary = z.infer<typeof recipeSummary>;

export const recipeVersion = z
  .object({
    id,
    number: z.int(),
    status,
    recipe: z.object({
      id,
      name: z.string(),
      versions: z.array(recipeVersionRef),
      /** To whom alone it is shown; `null`: to everybody in the studio. */
      keptTo: z.array(personRef).nullable(),
      /** Who alone see how much goes in; `null`: everybody who sees the recipe. */
      amountsKeptTo: z.array(personRef).nullable(),
      putAway: z.boolean(),
    }),
    /** To whom alone this version is shown, whatever is so of the recipe; `null`: to nobody in particular. */
    keptTo: z.array(personRef).nullable(),
    body: bodyShape,
    /** Every material and base it names. */
    materials: z.array(
      z.object({ id, name: z.string(), kind: z.enum(MATERIAL_KINDS), measure: z.enum(STOCK_MEASURES) }),
    ),
    at: isoTime,
    by: personRef,
    recipeStatuses: z.array(z.object({ status, at: isoTime, by: personRef, reason: z.string() })),
    colourways: z.array(z.object({ id, name: z.string() })),
    evidence: z.object({ lotsInTolerance: z.int(), proofsInTolerance: z.int(), needed: z.int() }),
    proofs: z.array(newProof.extend({ deltaE: z.number(), at: isoTime, by: personRef })),
    lots: z.array(
      z.object({ id, tag: z.string(), colourway: z.string(), state: lotState, deltaE: z.number().nullable() }),
    ),
    differsFromHouse: z.array(z.string()),
  })
  .meta({ id: 'RecipeVersion' });
/** A version that is shown to some people alone. */
export const keptVersion = z.object({ versionId: id, keptTo: z.array(id).min(1) });
export type KeptVersion = z.infer<typeof keptVersion>;

/** A version as it is shown to those from whom its amounts are kept. */
export const recipeOutline = z
  .object({
    id,
    number: z.int(),
    status,
    name: z.string(),
    fibres: z.array(z.enum(FIBRE_KINDS)),
    /** Who may tell the amounts. */
    keptTo: z.array(personRef),
    steps: z.array(z.object({ kind: z.enum(STEP_KINDS), materials: z.array(z.string()) })),
  })
  .meta({ id: 'RecipeOutline' });
export type RecipeOutline = z.infer<typeof recipeOutline>;

/** To whom something is kept (a recipe, one version, its amounts, what makes a colourway), and to whom it was when that was decided. */
export const recipePrivacy = z.object({
  keptTo: z
    .array(id)
    .min(1, { error: () => $localize`Choose who may see it, yourself among them.` })
    .max(60)
    .nullable(),
  before: z.array(id).nullable(),
});
export type RecipePrivacy = z.infer<typeof recipePrivacy>;
export type RecipeVersionDetail = z.infer<typeof recipeVersion>;
