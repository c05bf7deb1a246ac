import {
  INTAKE_FLAGS,
  LEAST_CORRECTED_SHARE,
  LEAST_DYE_TIME_SHARE,
  MOST_CORRECTED_SHARE,
  MOST_DYE_TIME_SHARE,
  practiceChoice,
} from '@vestigia/core';
import { z } from 'zod';
import { id, isoTime, lineOf, nameOf, noteOf, numberIn, quantityText } from './common';
import { expectedShade } from './recipe-body';
import { lotPlan } from './lot-plan';

/** One thing looked at before a lot may start. */
export const lotCheck = z
  .object({
    key: z.string(),
    severity: z.enum(['stop', 'caution']),
    protection: z.boolean(),
    message: z.string(),
    why: z.string(),
    cites: z.string(),
  })
  .meta({ id: 'LotCheck' });

/** What was asked for beside the colourway, the size and the pots: kept with the lot. */
export const lotExtras = z.object({
  /** Other bases in the same pots. */
  also: z
    .array(z.object({ baseId: id, quantityText }))
    .max(8)
    .default([]),
  /** Bases that are a customer's own, and never stood on the shelf. */
  ownGoods: z.array(id).max(9).default([]),
  liquorRatio: numberIn(() => $localize`The liquor ratio`, 3, 200, 'ml/g').optional(),
  fills: z.int().min(1).max(2).optional(),
  intake: z
    .object({
      flags: z.array(z.enum(INTAKE_FLAGS)).max(INTAKE_FLAGS.length),
      syntheticPercent: numberIn(() => $localize`The synthetic share`, 0, 100, '%').nullable(),
      /** What was seen on one base or one piece: a stain, a mend, a mark left by bleach. */
      marks: z
        .array(z.object({ of: nameOf(() => $localize`The piece`), text: nameOf(() => $localize`What was seen on it`) }))
        .max(60)
        .default([]),
    })
    .default({ flags: [], syntheticPercent: null, marks: [] }),
  /** What was chosen of doses that the recipe gives as a range. */
  doses: z
    .array(
      z.object({
        stepKey: z.string().max(40),
        materialId: id,
        percentOwf: numberIn(() => $localize`Per cent of fibre`, 0.001, 2000, '%'),
      }),
    )
    .max(40)
    .default([]),
  /** How much of a material this lot takes beside what the recipe says, so that its shade comes nearer. */
  corrected: z
    .array(
      z.object({
        materialId: id,
        share: numberIn(() => $localize`The correction`, LEAST_CORRECTED_SHARE, MOST_CORRECTED_SHARE),
      }),
    )
    .max(20)
    .default([]),
  /** What goes into its dye bath, or into a bath after it, that the recipe doesn’t have, to shade it. */
  added: z
    .array(
      z.object({
        materialId: id,
        percentOwf: numberIn(() => $localize`Per cent of fibre`, 0.001, 100, '%'),
        afterDye: z.boolean().default(false),
      }),
    )
    .max(4)
    .default([]),
  /** Out of which jars a material comes, in parts of what is weighed; empty: as the shelf offers it. */
  outOf: z
    .array(z.object({ materialId: id, stockLotId: id, part: numberIn(() => $localize`The part of a jar`, 0.001, 1) }))
    .max(20)
    .default([]),
  /** A strike-off: a little, dyed and read to see what the whole lot needs. */
  strikeOff: z.boolean().default(false),
  /** How long it stays in the dye beside what the recipe says. */
  dyeTimeShare: numberIn(() => $localize`The stay in the dye`, LEAST_DYE_TIME_SHARE, MOST_DYE_TIME_SHARE).default(1),
  /** A graded family: when each piece comes out of the dye, minutes, palest first; empty: all together. */
  pullMinutes: z
    .array(numberIn(() => 'A pull', 0.1, 1440, 'min'))
    .max(60)
    .default([]),
  /** Another school for this lot than the version was proven in. */
  schools: z
    .array(
      z
        .object({ key: z.string().max(40), answer: z.string().max(40) })
        .refine((a) => practiceChoice(a.key, a.answer) !== undefined, {
          error: () => $localize`That is not one of the schools offered. Choose again.`,
        }),
    )
    .max(20)
    .default([]),
});

export type LotExtras = z.infer<typeof lotExtras>;

/** The water as it was when the lot was agreed. */
export const waterThen = z.object({
  id,
  name: z.string(),
  ph: z.number().nullable(),
  hardnessDh: z.number().nullable(),
  ironMgPerL: z.number().nullable().default(null),
});

export const factor = z
  .object({
    name: z.string(),
    then: z.string(),
    now: z.string(),
    /** What had been planned then, where it came otherwise. */
    planned: z.string().optional(),
    same: z.boolean(),
    effect: z.string(),
  })
  .meta({ id: 'Factor' });

export const proposalAsk = z.object({
  colourwayId: id,
  quantityText,
  waterId: id.nullable(),
  /** Vessels that may be used; all of them when absent. */
  vesselIds: z.array(id).max(200).optional(),
  recipeVersionId: id.optional(),
  reorderOfId: id.nullable(),
  ...lotExtras.shape,
});

/** As it may be written: what is left out is filled in. */
export type ProposalAsk = z.input<typeof proposalAsk>;

export type ReadProposalAsk = z.infer<typeof proposalAsk>;

/** What a plan asks of heat, hands and the calendar. */
export const planEffort = z.object({ heatKwh: z.number(), handsMin: z.number(), throughMin: z.number() });

export const proposal = z
  .object({
    understoodAs: z.string(),
    recipe: z.object({ id, versionId: id, name: z.string(), number: z.int(), status: z.string() }),
    plan: lotPlan,
    /** Tags and places of the stock lots named in the plan. */
    stockLots: z.array(z.object({ id, tag: z.string(), place: z.string() })),
    /** Then beside now, when this is a reorder. */
    factors: z.array(factor),
    then: z
      .object({
        lotId: id,
        tag: z.string(),
        recipeVersionId: id,
        recipeNumber: z.int(),
        quantityText: z.string(),
        /** What people said of it, to be heard before it is dyed again. */
        said: z.array(z.object({ text: z.string(), by: z.string(), at: isoTime, of: z.enum(['verdict', 'next']) })),
        /** What went otherwise than planned. */
        deviations: z.array(z.object({ step: z.string(), message: z.string() })),
      })
      .nullable(),
    /** What was looked at before the lot may start; cautions want a reason each. */
    checks: z.array(lotCheck),
    /** Ways to dye it in batches more alike, each planned through. */
    alternatives: z.array(
      z.object({
        code: z.enum(['oneVessel', 'shorterBath', 'fewerVessels']),
        vesselIds: z.array(id).optional(),
        fills: z.int().optional(),
        liquorRatio: z.number().optional(),
        batches: z.array(z.object({ vesselName: z.string(), pieces: z.int(), wofG: z.number() })),
        effort: planEffort,
      }),
    ),
    /** Heat, hands and time by this plan. */
    effort: planEffort,
    /** Lots to dye first: what is short is what their baths leave. */
    unfolds: z.array(z.object({ lotId: id, tag: z.string(), colourway: z.string(), material: z.string() })),
    /** Doses that the recipe gives as a range, and what is taken of each. */
    ranges: z.array(
      z.object({
        stepKey: z.string(),
        stepTitle: z.string(),
        materialId: id,
        material: z.string(),
        fromPercentOwf: z.number(),
        toPercentOwf: z.number(),
        percentOwf: z.number(),
      }),
    ),
    /** Where the recipe, or this lot, is dyed otherwise than the house does. */
    schools: z.array(z.string()),
    /** Materials of which no share can be taken: counted, poured whole, tried by pH. A correction leaves them. */
    whole: z.array(id).default([]),
    /** What the recipe says each base of this lot comes out as. */
    shades: z.array(expectedShade.extend({ base: z.string() })),
    /** Stands for exactly this proposal; send it back to agree. */
    digest: z.string(),
  })
  .meta({ id: 'Proposal' });

export type Proposal = z.infer<typeof proposal>;

export const agreement = z.object({
  id,
  ask: proposalAsk,
  digest: z.string().max(100),
  acceptShortages: z.boolean(),
  /** It was dyed already, from then on; before the books began, it takes nothing off the shelf. */
  told: z.object({ at: isoTime, beforeBooks: z.boolean() }).nullable().default(null),
  /** The line of an order it is dyed for. */
  forLineId: id.nullable().default(null),
  note: noteOf(() => $localize`The note`),
  /** Cautions gone past, by key, each with its reason. */
  acknowledged: z
    .array(z.object({ key: z.string().max(600), reason: lineOf(() => $localize`The reason`) }))
    .max(200)
    .default([]),
});

export type Agreement = z.input<typeof agreement>;
export type ReadAgreement = z.infer<typeof agreement>;
