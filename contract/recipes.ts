import { FIBRE_KINDS, STEP_KINDS, VESSEL_METALS } from '@vestigia/core';
import { z } from 'zod';
import { id, isoTime, nameOf, noteOf, numberIn, personRef } from './common';

export const STANDINGS = ['trial', 'proof', 'proven', 'retired'] as const;
export const standing = z.enum(STANDINGS);

export const recipeStep = z.object({
  kind: z.enum(STEP_KINDS),
  title: nameOf('The step’s title'),
  instruction: noteOf('What to do'),
  temperatureC: numberIn('The temperature', 0, 110, '°C').optional(),
  ceilingC: numberIn('The ceiling', 0, 110, '°C').optional(),
  durationMin: numberIn('The time', 0, 100_000, 'minutes'),
  attended: z.boolean(),
  lookFor: noteOf('What to look for'),
  usesBath: z.boolean(),
  doses: z.array(z.object({ materialId: id, percentOwf: numberIn('Per cent of fibre', 0.001, 2000, '%') })).max(20),
}).refine((s) => s.temperatureC === undefined || s.ceilingC === undefined || s.temperatureC <= s.ceilingC, { error: 'A step can’t be planned hotter than its own ceiling.' });

export const recipeBody = z.object({
  fibres: z.array(z.enum(FIBRE_KINDS)).min(1, { error: 'Say which fibres the recipe is for.' }),
  liquorRatio: numberIn('The liquor ratio', 3, 200, 'ml per g'),
  allowedMetals: z.array(z.enum(VESSEL_METALS)).min(1, { error: 'Say which metals the pots may be of.' }),
  steps: z.array(recipeStep).min(1, { error: 'A recipe needs at least one step.' }).max(40),
  note: noteOf('The note'),
});
export type RecipeBody = z.infer<typeof recipeBody>;

export const newRecipe = z.object({ id, name: nameOf('The recipe’s name'), versionId: id, body: recipeBody });
export type NewRecipe = z.infer<typeof newRecipe>;
export const newRecipeVersion = z.object({ id, body: recipeBody });
export type NewRecipeVersion = z.infer<typeof newRecipeVersion>;
export const newStanding = z.object({ id, standing, reason: noteOf('The reason') });
export type NewStanding = z.infer<typeof newStanding>;

export const recipeVersionRef = z.object({ id, number: z.int(), standing });
export const recipeSummary = z.object({ id, name: z.string(), versions: z.array(recipeVersionRef), fibres: z.array(z.enum(FIBRE_KINDS)), materials: z.array(z.string()) }).meta({ id: 'RecipeSummary' });
export type RecipeSummary = z.infer<typeof recipeSummary>;

export const recipeVersion = z.object({
  id, number: z.int(), standing, recipe: z.object({ id, name: z.string(), versions: z.array(recipeVersionRef) }),
  body: recipeBody,
  materials: z.array(z.object({ id, name: z.string() })),
  at: isoTime, by: personRef,
  standings: z.array(z.object({ standing, at: isoTime, by: personRef, reason: z.string() })),
  colourways: z.array(z.object({ id, name: z.string() })),
}).meta({ id: 'RecipeVersion' });
export type RecipeVersionDetail = z.infer<typeof recipeVersion>;
