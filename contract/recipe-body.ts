import type { Said } from './common';
import {
  BATH_UNITS,
  ANY_WATER,
  DEFAULT_WEIGH_WITHIN_PERCENT,
  FIBRE_KINDS,
  FINISHED_BY,
  HEAT_LEGS,
  KITCHEN_UNITS,
  MATERIAL_FORMS,
  PH_REAGENTS,
  PRACTICE,
  STEP_KINDS,
  STRAIN_WAYS,
  VESSEL_METALS,
  VOLUME_SYSTEMS,
  ZONE_WAYS,
  findChainFault,
  sayChainFault,
  sayPlacedFault,
  findPlacedFault,
  practiceChoice,
} from '@vestigia/core';
import { z } from 'zod';
import { colourConditions, id, lab, lineOf, nameOf, noteOf, numberIn } from './common';

export const minutes = (what: Said): z.ZodNumber => numberIn(what, 0, 500_000, 'minutes');

export const temperature = (what: Said): z.ZodNumber => numberIn(what, 0, 110, '°C');

export const shortName = (what: Said): z.ZodString =>
  lineOf(what).max(40, { error: () => $localize`${what()} is too long: 40 characters at most.` });

/** A dose, in one of the ways dyers write it. One that says no way is per cent of fibre, as all were once. */
export const dose = z.discriminatedUnion(
  'by',
  [
    z.object({
      materialId: id,
      by: z.literal('percentOwf').default('percentOwf'),
      percentOwf: numberIn(() => $localize`Per cent of fibre`, 0.001, 2000, '%'),
      toPercentOwf: numberIn(() => $localize`The most of the range`, 0.001, 2000, '%').optional(),
      source: z.object({ stockLotId: id, tag: lineOf(() => $localize`The jar`) }).optional(),
      form: z.enum(MATERIAL_FORMS).nullable().optional(),
    }),
    z.object({
      materialId: id,
      by: z.literal('gPerLitre'),
      gPerL: numberIn(() => $localize`Grams to the litre`, 0.001, 500, 'g'),
    }),
    z.object({
      materialId: id,
      by: z.literal('solution'),
      mlPer100G: numberIn(() => $localize`Millilitres for 100 g of fibre`, 0.01, 5000, 'ml'),
      gPerL: numberIn(() => $localize`The strength of the solution`, 0.001, 1000, 'g/l').nullable(),
    }),
    z.object({
      materialId: id,
      by: z.literal('perPiece'),
      gPerPiece: numberIn(() => $localize`Grams a piece`, 0.001, 25_000, 'g'),
    }),
    z.object({
      materialId: id,
      by: z.literal('perBath'),
      amount: numberIn(() => $localize`The amount for the bath`, 0.001, 100_000),
      unit: z.enum(BATH_UNITS),
      system: z.enum(VOLUME_SYSTEMS),
    }),
    z.object({
      materialId: id,
      by: z.literal('count'),
      piecesPer100G: numberIn(() => $localize`Pieces for 100 g of fibre`, 0.01, 1000),
    }),
    z.object({ materialId: id, by: z.literal('packet') }),
    z.object({ materialId: id, by: z.literal('allThere') }),
    z.object({ materialId: id, by: z.literal('liquor') }),
    z.object({
      materialId: id,
      by: z.literal('spoons'),
      spoonsPer100G: numberIn(() => $localize`Spoons for 100 g of fibre`, 0.01, 100),
      unit: z.enum(KITCHEN_UNITS),
      system: z.enum(VOLUME_SYSTEMS),
    }),
    z.object({
      materialId: id,
      by: z.literal('toPh'),
      targetPh: numberIn(() => $localize`The pH to come to`, 3, 11.5),
      reagent: z.enum(PH_REAGENTS),
    }),
  ],
  { unionFallback: true },
);

export type DoseBody = z.infer<typeof dose>;

export const heatLeg = z.object({
  do: z.enum(HEAT_LEGS),
  toC: temperature(() => $localize`The temperature`).optional(),
  minutes: minutes(() => $localize`The time`),
});

export const recipeStep = z.object({
  key: shortName(() => $localize`The short name`).default(''),
  kind: z.enum(STEP_KINDS),
  title: nameOf(() => $localize`The step’s title`),
  instruction: noteOf(() => $localize`What to do`),
  temperatureC: temperature(() => $localize`The temperature`).optional(),
  ceilingC: temperature(() => $localize`The ceiling`).optional(),
  durationMin: minutes(() => $localize`The time`),
  attended: z.boolean(),
  lookFor: noteOf(() => $localize`What to look for`),
  lookEveryMin: numberIn(() => $localize`How often to look`, 1, 1440, 'min')
    .nullable()
    .default(null),
  finishedBy: z.enum(FINISHED_BY).default('clock'),
  wait: z
    .object({
      minMinutes: minutes(() => $localize`The least wait`),
      maxMinutes: minutes(() => $localize`The longest wait`).nullable(),
    })
    .nullable()
    .default(null),
  after: z
    .array(shortName(() => $localize`The step it follows`))
    .max(20)
    .nullable()
    .default(null),
  fibres: z.array(z.enum(FIBRE_KINDS)).default([]),
  parts: z
    .array(shortName(() => $localize`The part`))
    .max(12)
    .default([]),
  usesBath: z.boolean(),
  bath: shortName(() => $localize`The bath’s name`).default(''),
  metals: z.array(z.enum(VESSEL_METALS)).default([]),
  liquorRatio: numberIn(() => $localize`The liquor ratio`, 3, 200, 'ml/g')
    .nullable()
    .default(null),
  course: z
    .array(heatLeg)
    .max(12, { error: () => $localize`A course has at most 12 legs. Make two steps of it.` })
    .default([]),
  repeats: z
    .int()
    .min(1)
    .max(9, { error: () => $localize`A step is repeated at most 9 times. Write it as several steps.` })
    .default(1),
  strain: z.enum(STRAIN_WAYS).nullable().default(null),
  targetPh: z
    .object({ low: numberIn(() => 'pH', 0, 14), high: numberIn(() => 'pH', 0, 14) })
    .nullable()
    .default(null),
  cautions: z
    .array(lineOf(() => $localize`The caution`))
    .max(8)
    .default([]),
  doses: z.array(dose).max(20),
});

export const placedZone = z.object({
  title: nameOf(() => $localize`The zone’s name`),
  way: z.enum(ZONE_WAYS),
  fromPercent: numberIn(() => $localize`Where a zone begins`, 0, 100, '%'),
  toPercent: numberIn(() => $localize`Where a zone ends`, 0, 100, '%'),
  order: z.int().min(1).max(40),
  minutes: minutes(() => $localize`The time in the zone`),
  waitMin: minutes(() => $localize`The wait after it`),
  mlPerPiece: numberIn(() => $localize`Millilitres a piece`, 0, 5000, 'ml').nullable(),
  gPerPiece: numberIn(() => $localize`Grams a piece`, 0, 5000, 'g')
    .nullable()
    .default(null),
  materialId: id.nullable(),
  spacingCm: numberIn(() => $localize`The spacing`, 0.5, 1000, 'cm').nullable(),
});

export const placedPlan = z.object({
  lengthCm: z.number(),
  piece: z.enum(['skein', 'length']),
  bleedPercent: numberIn(() => $localize`The bleed margin`, 0, 50, '%'),
  zones: z.array(placedZone).max(40, { error: () => $localize`A piece has at most 40 zones.` }),
});

export const practiceAnswers = z
  .record(z.string(), z.string())
  .refine((p) => Object.entries(p).every(([key, answer]) => practiceChoice(key, answer) !== undefined), {
    error: () =>
      $localize`House practice knows these questions: ${PRACTICE.map((q) => q.question).join('; ')}. Choose one of the answers offered.`,
  });

export const practice = practiceAnswers.default({});

export const waterAsk = z
  .object({
    asks: z.enum(['any', 'soft', 'hard']),
    hardnessDh: numberIn(() => $localize`Hardness`, 0, 100, '°dH').nullable(),
  })
  .default(ANY_WATER);

/** What a base comes out as: its own expectation, where several fibres share a pot. */
export const expectedShade = z.object({
  baseMaterialId: id,
  ...lab.shape,
  ...colourConditions.shape,
  note: lineOf(() => $localize`The note`),
});

export const bodyShape = z.object({
  fibres: z.array(z.enum(FIBRE_KINDS)).min(1, { error: () => $localize`Say which fibres the recipe is for.` }),
  liquorRatio: numberIn(() => $localize`The liquor ratio`, 3, 200, 'ml/g'),
  minLiquorRatio: numberIn(() => $localize`The shortest bath`, 3, 200, 'ml/g')
    .nullable()
    .default(null),
  /** How near a weighing must come to its target; the balance's step where that is more. */
  weighWithinPercent: numberIn(() => $localize`How near a weighing must come`, 0.1, 20, '%').default(
    DEFAULT_WEIGH_WITHIN_PERCENT,
  ),
  allowedMetals: z
    .array(z.enum(VESSEL_METALS))
    .min(1, { error: () => $localize`Say which metals the pots may be of.` }),
  water: waterAsk,
  practice,
  parts: z
    .array(
      z.object({
        key: shortName(() => $localize`The part’s short name`).min(1, {
          error: () => $localize`A part needs a short name.`,
        }),
        name: nameOf(() => $localize`The part’s name`),
        sharePercent: numberIn(() => $localize`The share`, 0.1, 100, '%'),
      }),
    )
    .max(12)
    .default([]),
  placed: placedPlan.nullable().default(null),
  expectedShades: z.array(expectedShade).max(20).default([]),
  steps: z
    .array(recipeStep)
    .min(1, { error: () => $localize`A recipe needs at least one step.` })
    .max(60, { error: () => $localize`A recipe has at most 60 steps. Divide it into two recipes.` }),
  note: noteOf(() => $localize`The note`),
});

/** What is wrong with a chain or with placed colour is said by core, in its own sentences. */
export const recipeBody = bodyShape.superRefine((body, ctx) => {
  const fault = findChainFault(body.steps, body.parts);
  const placedFault = body.placed ? findPlacedFault(body.placed) : undefined;
  if (fault) ctx.addIssue(sayChainFault(fault));
  else if (placedFault) ctx.addIssue(sayPlacedFault(placedFault));
  if (body.minLiquorRatio !== null && body.minLiquorRatio > body.liquorRatio)
    ctx.addIssue($localize`The shortest bath allowed is longer than the recipe’s own. Swap the two.`);
  for (const s of body.steps)
    if (s.targetPh && s.targetPh.low > s.targetPh.high)
      ctx.addIssue($localize`The lower pH of “${s.title}” is above the upper one. Swap them.`);
  for (const s of body.steps)
    for (const d of s.doses)
      if (d.by === 'percentOwf' && d.toPercentOwf !== undefined && d.toPercentOwf <= d.percentOwf)
        ctx.addIssue($localize`A range of “${s.title}” ends no higher than it begins. Write the lower figure first.`);
});

export type RecipeBody = z.infer<typeof recipeBody>;

/** A body as it may have been kept by an earlier version: what is unsaid is filled in. */
export const readRecipeBody = (kept: unknown): RecipeBody => bodyShape.parse(kept);
