import { EYE_EVENNESS, EYE_LIGHTS, STRIP_FACTORS, STRIP_WARMTHS } from '@vestigia/core';
import { z } from 'zod';
import { taken } from './readings';
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
  labUnder,
} from './common';
import { pick } from './lot-plan';

export const stripLevel = z.object({
  value: numberIn(() => 'A level', 0, 100_000).nullable(),
  refId: id.nullable(),
  label: nameOf(() => $localize`What a strip gets`),
});
/** A trial of strips alike but for one factor, weighed together. */
export const newStripTrial = z.object({
  id,
  name: nameOf(() => $localize`The trial’s name`),
  /** `null`: liquors in bowls, by no recipe. */
  recipeVersionId: id.nullable(),
  baseMaterialId: id,
  waterId: id.nullable(),
  factor: z.enum(STRIP_FACTORS),
  materialId: id.nullable(),
  /** Empty: not weighed, which only a trial of liquors does without. */
  totalText: z.union([z.literal(''), quantityText]),
  levels: z.array(stripLevel).max(24, { error: () => $localize`A trial has at most 24 strips.` }),
  note: noteOf(() => $localize`The note`),
});
export type NewStripTrial = z.infer<typeof newStripTrial>;

export const plannedStrip = z.object({
  number: z.int(),
  label: z.string(),
  knots: z.array(z.int()),
  weight: figure.nullable(),
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
    recipeVersionId: id.nullable(),
    factor: z.enum(STRIP_FACTORS),
    strips: z.int(),
    /** How many of them were read or looked at. */
    seen: z.int(),
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
  taken,
  note: lineOf(() => $localize`The note`),
  replacesId: id.nullable(),
});
export type NewStripReading = z.infer<typeof newStripReading>;

/** Strips laid side by side, as an eye places them by depth. */
export const newStripLook = z.object({
  id,
  state: z.enum(['wet', 'dry']),
  light: z.enum(EYE_LIGHTS, { error: () => $localize`Say in what light they were seen.` }),
  seen: z
    .array(
      z.object({
        number: z.int().min(1),
        place: z
          .int({ error: () => $localize`A place is a whole number: 1 is the deepest.` })
          .min(1)
          .max(24),
        warmth: z.enum(STRIP_WARMTHS),
        evenness: z.enum(EYE_EVENNESS),
        goodFor: lineOf(() => $localize`What it is good for`),
      }),
    )
    .max(24),
  replacesId: id.nullable(),
});
export type NewStripLook = z.infer<typeof newStripLook>;

export const stripTrial = z
  .object({
    summary: stripTrialSummary,
    note: z.string(),
    totalG: z.number().nullable(),
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
    looks: z.array(newStripLook.extend({ at: isoTime, by: personRef })),
    promoted: z.array(z.object({ number: z.int(), versionId: id, label: z.string() })),
  })
  .meta({ id: 'StripTrial' });
export type StripTrialDetail = z.infer<typeof stripTrial>;

/** Makes a recipe version of one strip: the next version of the recipe tried, or a recipe of its own. */
export const stripPromotion = z.object({
  id,
  number: z.int().min(1),
  name: nameOf(() => $localize`The recipe’s name`).nullable(),
  recipeId: id,
});
export type StripPromotion = z.infer<typeof stripPromotion>;

const who = { byId: id, at: isoTime };
export const stripTrialRecord = newStripTrial
  .omit({ totalText: true })
  .extend({ totalMg: z.int().min(1).nullable(), layout: z.array(plannedStrip), ...who });
export const stripLookRecord = newStripLook.extend({ trialId: id, ...who });
export const stripReadingRecord = newStripReading.extend({ trialId: id, ...who });
export const stripPromotionRecord = z.object({ id, trialId: id, number: z.int(), recipeVersionId: id, ...who });
