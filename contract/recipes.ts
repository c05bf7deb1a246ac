import {
  ANY_WATER,
  DEFAULT_WEIGH_WITHIN_PERCENT,
  FIBRE_KINDS,
  FINISHED_BY,
  HEAT_LEGS,
  KITCHEN_UNITS,
  MATERIAL_FORMS,
  MATERIAL_KINDS,
  PH_REAGENTS,
  PRACTICE,
  STANDINGS,
  STEP_KINDS,
  STOCK_MEASURES,
  STRAIN_WAYS,
  VESSEL_METALS,
  VOLUME_SYSTEMS,
  ZONE_WAYS,
  findChainFault,
  findPlacedFault,
  practiceChoice,
} from '@vestigia/core';
import { z } from 'zod';
import { colourConditions, id, isoTime, lab, lineOf, nameOf, noteOf, numberIn, personRef } from './common';

export const standing = z.enum(STANDINGS);
const minutes = (what: string): z.ZodNumber => numberIn(what, 0, 500_000, 'minutes');
const temperature = (what: string): z.ZodNumber => numberIn(what, 0, 110, '°C');
const shortName = (what: string): z.ZodString =>
  lineOf(what).max(40, { error: `${what} is too long: 40 characters at most.` });

/** A dose, in one of the ways dyers write it. One that says no way is per cent of fibre, as all were once. */
export const dose = z.discriminatedUnion(
  'by',
  [
    z.object({
      materialId: id,
      by: z.literal('percentOwf').default('percentOwf'),
      percentOwf: numberIn('Per cent of fibre', 0.001, 2000, '%'),
      form: z.enum(MATERIAL_FORMS).nullable().optional(),
    }),
    z.object({ materialId: id, by: z.literal('gPerLitre'), gPerL: numberIn('Grams to the litre', 0.001, 500, 'g') }),
    z.object({
      materialId: id,
      by: z.literal('solution'),
      mlPer100G: numberIn('Millilitres for 100 g of fibre', 0.01, 5000, 'ml'),
      gPerL: numberIn('The strength of the solution', 0.001, 1000, 'g/l'),
    }),
    z.object({ materialId: id, by: z.literal('perPiece'), gPerPiece: numberIn('Grams a piece', 0.001, 25_000, 'g') }),
    z.object({ materialId: id, by: z.literal('packet') }),
    z.object({
      materialId: id,
      by: z.literal('spoons'),
      spoonsPer100G: numberIn('Spoons for 100 g of fibre', 0.01, 100),
      unit: z.enum(KITCHEN_UNITS),
      system: z.enum(VOLUME_SYSTEMS),
    }),
    z.object({
      materialId: id,
      by: z.literal('toPh'),
      targetPh: numberIn('The pH to come to', 3, 11.5),
      reagent: z.enum(PH_REAGENTS),
    }),
  ],
  { unionFallback: true },
);
export type DoseBody = z.infer<typeof dose>;

export const heatLeg = z.object({
  do: z.enum(HEAT_LEGS),
  toC: temperature('The temperature').optional(),
  minutes: minutes('The time'),
});

export const recipeStep = z.object({
  key: shortName('The short name').default(''),
  kind: z.enum(STEP_KINDS),
  title: nameOf('The step’s title'),
  instruction: noteOf('What to do'),
  temperatureC: temperature('The temperature').optional(),
  ceilingC: temperature('The ceiling').optional(),
  durationMin: minutes('The time'),
  attended: z.boolean(),
  lookFor: noteOf('What to look for'),
  finishedBy: z.enum(FINISHED_BY).default('clock'),
  wait: z
    .object({ leastMin: minutes('The least wait'), mostMin: minutes('The longest wait').nullable() })
    .nullable()
    .default(null),
  after: z.array(shortName('The step it follows')).max(20).nullable().default(null),
  fibres: z.array(z.enum(FIBRE_KINDS)).default([]),
  parts: z.array(shortName('The part')).max(12).default([]),
  usesBath: z.boolean(),
  bath: shortName('The bath’s name').default(''),
  metals: z.array(z.enum(VESSEL_METALS)).default([]),
  liquorRatio: numberIn('The liquor ratio', 3, 200, 'ml per g').nullable().default(null),
  course: z.array(heatLeg).max(12, { error: 'A course has at most 12 legs. Make two steps of it.' }).default([]),
  repeats: z
    .int()
    .min(1)
    .max(9, { error: 'A step is repeated at most 9 times. Write it as several steps.' })
    .default(1),
  strain: z.enum(STRAIN_WAYS).nullable().default(null),
  targetPh: z
    .object({ low: numberIn('pH', 0, 14), high: numberIn('pH', 0, 14) })
    .nullable()
    .default(null),
  cautions: z.array(lineOf('The caution')).max(8).default([]),
  doses: z.array(dose).max(20),
});

export const placedZone = z.object({
  title: nameOf('The zone’s name'),
  way: z.enum(ZONE_WAYS),
  fromPercent: numberIn('Where a zone begins', 0, 100, '%'),
  toPercent: numberIn('Where a zone ends', 0, 100, '%'),
  order: z.int().min(1).max(40),
  minutes: minutes('The time in the zone'),
  waitMin: minutes('The wait after it'),
  mlPerPiece: numberIn('Millilitres a piece', 0, 5000, 'ml').nullable(),
  gPerPiece: numberIn('Grams a piece', 0, 5000, 'g').nullable().default(null),
  materialId: id.nullable(),
  spacingCm: numberIn('The spacing', 0.5, 1000, 'cm').nullable(),
});
export const placedPlan = z.object({
  lengthCm: z.number(),
  piece: z.enum(['skein', 'length']),
  bleedPercent: numberIn('The bleed margin', 0, 50, '%'),
  zones: z.array(placedZone).max(40, { error: 'A piece has at most 40 zones.' }),
});

const practiceAnswers = z
  .record(z.string(), z.string())
  .refine((p) => Object.entries(p).every(([key, answer]) => practiceChoice(key, answer) !== undefined), {
    error: () =>
      `House practice knows these questions: ${PRACTICE.map((q) => q.question).join('; ')}. Choose one of the answers offered.`,
  });
export const practice = practiceAnswers.default({});
export const waterAsk = z
  .object({ asks: z.enum(['any', 'soft', 'hard']), hardnessDh: numberIn('Hardness', 0, 100, '°dH').nullable() })
  .default(ANY_WATER);

/** What a base comes out as: its own expectation, where several fibres share a pot. */
export const expectedShade = z.object({
  baseMaterialId: id,
  ...lab.shape,
  ...colourConditions.shape,
  note: lineOf('The note'),
});

const bodyShape = z.object({
  fibres: z.array(z.enum(FIBRE_KINDS)).min(1, { error: 'Say which fibres the recipe is for.' }),
  liquorRatio: numberIn('The liquor ratio', 3, 200, 'ml per g'),
  liquorRatioLeast: numberIn('The shortest bath', 3, 200, 'ml per g').nullable().default(null),
  /** How near a weighing must come to its target; the balance's step where that is more. */
  weighWithinPercent: numberIn('How near a weighing must come', 0.1, 20, '%').default(DEFAULT_WEIGH_WITHIN_PERCENT),
  allowedMetals: z.array(z.enum(VESSEL_METALS)).min(1, { error: 'Say which metals the pots may be of.' }),
  water: waterAsk,
  practice,
  parts: z
    .array(
      z.object({
        key: shortName('The part’s short name').min(1, { error: 'A part needs a short name.' }),
        name: nameOf('The part’s name'),
        sharePercent: numberIn('The share', 0.1, 100, '%'),
      }),
    )
    .max(12)
    .default([]),
  placed: placedPlan.nullable().default(null),
  expectedShades: z.array(expectedShade).max(20).default([]),
  steps: z
    .array(recipeStep)
    .min(1, { error: 'A recipe needs at least one step.' })
    .max(60, { error: 'A recipe has at most 60 steps. Divide it into two recipes.' }),
  note: noteOf('The note'),
});
/** What is wrong with a chain or with placed colour is said by core, in its own sentences. */
export const recipeBody = bodyShape.superRefine((body, ctx) => {
  const fault = findChainFault(body.steps, body.parts) ?? (body.placed ? findPlacedFault(body.placed) : undefined);
  if (fault) ctx.addIssue(fault.sentence);
  if (body.liquorRatioLeast !== null && body.liquorRatioLeast > body.liquorRatio)
    ctx.addIssue('The shortest bath allowed is longer than the recipe’s own. Swap the two.');
  for (const s of body.steps)
    if (s.targetPh && s.targetPh.low > s.targetPh.high)
      ctx.addIssue(`The lower pH of “${s.title}” is above the upper one. Swap them.`);
});
export type RecipeBody = z.infer<typeof recipeBody>;
/** A body as it may have been kept by an earlier version: what is unsaid is filled in. */
export const readRecipeBody = (kept: unknown): RecipeBody => bodyShape.parse(kept);

export const newRecipe = z.object({ id, name: nameOf('The recipe’s name'), versionId: id, body: recipeBody });
export type NewRecipe = z.infer<typeof newRecipe>;
export const newRecipeVersion = z.object({ id, body: recipeBody });
export type NewRecipeVersion = z.infer<typeof newRecipeVersion>;
export const newStanding = z.object({ id, standing, reason: noteOf('The reason') });
export type NewStanding = z.infer<typeof newStanding>;

const proofFields = {
  wofG: numberIn('The dry weight of the proof', 0.5, 25_000, 'g'),
  ...colourConditions.shape,
  lab,
  wanted: lab,
  toleranceDeltaE: numberIn('The tolerance', 0.1, 20, 'ΔE'),
  note: noteOf('The note'),
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

export const recipeVersionRef = z.object({ id, number: z.int(), standing });
export const recipeSummary = z
  .object({
    id,
    name: z.string(),
    versions: z.array(recipeVersionRef),
    fibres: z.array(z.enum(FIBRE_KINDS)),
    materials: z.array(z.string()),
    steps: z.int(),
  })
  .meta({ id: 'RecipeSummary' });
export type RecipeSummary = z.infer<typeof recipeSummary>;

export const recipeVersion = z
  .object({
    id,
    number: z.int(),
    standing,
    recipe: z.object({ id, name: z.string(), versions: z.array(recipeVersionRef) }),
    body: bodyShape,
    /** Every material and base it names. */
    materials: z.array(
      z.object({ id, name: z.string(), kind: z.enum(MATERIAL_KINDS), measure: z.enum(STOCK_MEASURES) }),
    ),
    at: isoTime,
    by: personRef,
    standings: z.array(z.object({ standing, at: isoTime, by: personRef, reason: z.string() })),
    colourways: z.array(z.object({ id, name: z.string() })),
    evidence: z.object({ lotsInTolerance: z.int(), proofsInTolerance: z.int(), needed: z.int() }),
    proofs: z.array(newProof.extend({ deltaE: z.number(), at: isoTime, by: personRef })),
    lots: z.array(
      z.object({ id, tag: z.string(), colourway: z.string(), state: z.string(), deltaE: z.number().nullable() }),
    ),
    differsFromHouse: z.array(z.string()),
  })
  .meta({ id: 'RecipeVersion' });
export type RecipeVersionDetail = z.infer<typeof recipeVersion>;

/** One recipe version as a file: itself, and what it calls every material, so that another studio can find its own. */
export const recipeFile = z
  .object({
    format: z.literal('vestigia-recipe', { error: 'This is not a recipe file made by Vestigia.' }),
    formatVersion: z.literal(1, { error: 'This recipe file is from a newer version. Update the program first.' }),
    name: nameOf('The recipe’s name'),
    number: z.int().min(1),
    standing,
    body: recipeBody,
    materials: z.array(
      z.object({
        id,
        name: nameOf('A material’s name'),
        kind: z.enum(MATERIAL_KINDS),
        measure: z.enum(STOCK_MEASURES),
        botanicalName: lineOf('The botanical name').default(''),
      }),
    ),
  })
  .meta({ id: 'RecipeFile' });
export type RecipeFile = z.infer<typeof recipeFile>;

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
/** Takes a recipe file in: under a name of its own, each of its materials told to be one of the studio's, or made anew (`null`). */
export const recipeFileImport = z.object({
  id,
  versionId: id,
  name: nameOf('The recipe’s name'),
  file: recipeFile,
  mapping: z.array(z.object({ fileId: id, materialId: id.nullable(), newId: id })).max(200),
});
export type RecipeFileImport = z.infer<typeof recipeFileImport>;

/** The published JSON Schema of the recipe file (docs/recipe.schema.json), as it may be written. */
export function recipeFileSchema(): Record<string, unknown> {
  const { $defs = {}, ...schema } = z.toJSONSchema(recipeFile, { io: 'input' });
  const { RecipeFile: root = schema, ...rest } = $defs;
  return { $schema: schema.$schema, $id: 'urn:vestigia:recipe:1', title: 'Vestigia recipe file', ...root, $defs: rest };
}
