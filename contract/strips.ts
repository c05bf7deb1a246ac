import { STRIP_FACTORS } from '@vestigia/core';
import { z } from 'zod';
import {
  colourConditions,
  figure,
  id,
  isoTime,
  lab,
  lineOf,
  nameOf,
  noteOf,
  numberIn,
  personRef,
  quantityText,
} from './common';
import { labUnder } from './lots';
import { pick } from './lot-plan';

export const stripLevel = z.object({
  value: numberIn('A level', 0, 100_000).nullable(),
  refId: id.nullable(),
  label: nameOf('What a strip gets'),
});
/** A trial of strips alike but for one factor, weighed together. */
export const newStripTrial = z.object({
  id,
  name: nameOf('The trial’s name'),
  recipeVersionId: id,
  baseMaterialId: id,
  waterId: id.nullable(),
  factor: z.enum(STRIP_FACTORS),
  materialId: id.nullable(),
  totalText: quantityText,
  levels: z.array(stripLevel).max(24, { error: 'A trial has at most 24 strips.' }),
  note: noteOf('The note'),
});
export type NewStripTrial = z.infer<typeof newStripTrial>;

export const plannedStrip = z.object({
  number: z.int(),
  label: z.string(),
  knots: z.array(z.int()),
  weight: figure,
  minutes: z.number().nullable(),
  weighings: z.array(
    z.object({
      stepTitle: z.string(),
      materialId: id,
      materialName: z.string(),
      target: figure,
      advice: z.array(z.string()),
      picks: z.array(pick).default([]),
    }),
  ),
});
export const stripTrialSummary = z
  .object({
    id,
    name: z.string(),
    recipe: z.string(),
    recipeVersionId: id,
    factor: z.enum(STRIP_FACTORS),
    strips: z.int(),
    read: z.int(),
    at: isoTime,
    by: personRef,
  })
  .meta({ id: 'StripTrialSummary' });
export type StripTrialSummary = z.infer<typeof stripTrialSummary>;

export const newStripReading = z.object({
  id,
  number: z.int().min(1),
  lab,
  ...colourConditions.shape,
  note: lineOf('The note'),
  replacesId: id.nullable(),
});
export type NewStripReading = z.infer<typeof newStripReading>;

export const stripTrial = z
  .object({
    summary: stripTrialSummary,
    note: z.string(),
    totalG: z.number(),
    materialId: id.nullable(),
    base: z.object({ id, name: z.string(), undyed: labUnder }),
    water: z.string(),
    levels: z.array(stripLevel),
    layout: z.array(plannedStrip),
    readings: z.array(newStripReading.extend({ at: isoTime, by: personRef })),
    /** Deepest first: from the readings that stand, under the light the base was read in. */
    ranked: z.array(
      z.object({
        number: z.int(),
        depth: z.number(),
        hueDegrees: z.number(),
        chroma: z.number(),
        toWanted: z.number().nullable(),
      }),
    ),
    promoted: z.array(z.object({ number: z.int(), versionId: id, label: z.string() })),
  })
  .meta({ id: 'StripTrial' });
export type StripTrialDetail = z.infer<typeof stripTrial>;

/** Makes a recipe version of one strip: the next version of the recipe tried, or a recipe of its own. */
export const stripPromotion = z.object({
  id,
  number: z.int().min(1),
  name: nameOf('The recipe’s name').nullable(),
  recipeId: id,
});
export type StripPromotion = z.infer<typeof stripPromotion>;

const who = { byId: id, at: isoTime };
export const stripTrialRecord = newStripTrial
  .omit({ totalText: true })
  .extend({ totalMg: z.int().min(1), layout: z.array(plannedStrip), ...who });
export const stripReadingRecord = newStripReading.extend({ trialId: id, ...who });
export const stripPromotionRecord = z.object({ id, trialId: id, number: z.int(), recipeVersionId: id, ...who });
