import type { RunDetail } from '@vestigia/core';
import {
  BATH_MOVES,
  FIBRE_KINDS,
  FINISHED_BY,
  INTAKE_FLAGS,
  READING_STATES,
  READ_BY,
  RUN_ENTRY_KINDS,
  SAMPLE_OF,
  STEP_KINDS,
  STRAIN_WAYS,
  VERDICTS,
  VESSEL_METALS,
  practiceChoice,
} from '@vestigia/core';
import { z } from 'zod';
import {
  colourConditions,
  figure,
  id,
  isoTime,
  lab,
  lineOf,
  noteOf,
  numberIn,
  personRef,
  stockMeasure,
  written,
} from './common';
import { expectedShade, heatLeg } from './recipes';

const pick = z.object({ stockLotId: id.nullable(), amount: z.int() });
const stepKind = z.enum(['fibre', ...STEP_KINDS]);
const batchNumbers = z.array(z.int());
const heating = z.union([
  z.object({ ok: z.literal(true), minutes: figure, energy: figure, cost: figure.nullable() }),
  z.object({ ok: z.literal(false), reachesC: z.number(), sentence: z.string() }),
]);
const plannedBath = z.object({
  batches: batchNumbers,
  vesselId: id,
  vesselName: z.string(),
  metal: z.enum(VESSEL_METALS),
  pieces: z.int(),
  wof: figure,
  liquor: figure,
  fill: figure,
  turns: z.int(),
  heating: heating.nullable(),
  fullWeight: figure,
  notes: z.array(z.string()),
});
const range = z.object({ low: z.number(), high: z.number() });
/** As agreed or proposed. What a plan of an earlier version doesn't say is filled in when it is read. */
export const lotPlan = z
  .object({
    pieces: z.int(),
    pieceWeightG: z.number(),
    wof: figure,
    liquorRatio: z.number(),
    groups: z
      .array(
        z.object({
          key: z.string(),
          baseId: id,
          baseName: z.string(),
          fibre: z.enum(FIBRE_KINDS),
          pieceWord: z.string(),
          part: z.string(),
          partName: z.string(),
          pieces: z.int(),
          pieceWeightG: z.number(),
        }),
      )
      .default([]),
    batches: z.array(
      z.object({
        number: z.int(),
        vesselId: id,
        vesselName: z.string(),
        metal: z.enum(VESSEL_METALS),
        pieces: z.int(),
        wof: figure,
        liquor: figure,
        fill: figure,
        groups: z.array(z.object({ key: z.string(), pieces: z.int() })).default([]),
        run: z.int().default(1),
      }),
    ),
    materials: z.array(
      z.object({
        materialId: id,
        name: z.string(),
        measure: stockMeasure.default('weight'),
        total: figure,
        picks: z.array(pick),
        short: z.int(),
        notes: z.array(z.string()),
      }),
    ),
    steps: z.array(
      z.object({
        index: z.int(),
        kind: stepKind,
        title: z.string(),
        instruction: z.string(),
        temperatureC: z.number().optional(),
        ceilingC: z.number().optional(),
        durationMin: z.number(),
        attended: z.boolean(),
        lookFor: z.string(),
        usesBath: z.boolean(),
        cautions: z.array(z.string()),
        after: z.array(z.int()).default([]),
        finishedBy: z.enum(FINISHED_BY).default('clock'),
        wait: z.object({ leastMin: z.number(), mostMin: z.number().nullable() }).nullable().default(null),
        course: z.array(heatLeg).default([]),
        repeats: z.int().default(1),
        strain: z.enum(STRAIN_WAYS).nullable().default(null),
        targetPh: range.nullable().default(null),
        forWhom: z.string().default(''),
        baths: z.array(plannedBath).default([]),
        weighings: z.array(
          z.object({
            batch: z.int(),
            forBatches: batchNumbers.default([]),
            materialId: id,
            materialName: z.string(),
            measure: stockMeasure.default('weight'),
            target: figure,
            tolerance: z.number(),
            picks: z.array(pick),
            advice: z.array(z.string()).default([]),
          }),
        ),
      }),
    ),
    cautions: z.array(z.string()),
  })
  .meta({ id: 'LotPlan' });

/** One thing looked at before a lot may start. */
export const lotCheck = z
  .object({
    key: z.string(),
    severity: z.enum(['stop', 'caution']),
    protection: z.boolean(),
    sentence: z.string(),
    why: z.string(),
    cites: z.string(),
  })
  .meta({ id: 'LotCheck' });
/** What was asked for beside the colourway, the size and the pots: kept with the lot. */
export const lotExtras = z.object({
  /** Other bases in the same pots. */
  also: z
    .array(z.object({ baseId: id, written }))
    .max(8)
    .default([]),
  liquorRatio: numberIn('The liquor ratio', 3, 200, 'ml per g').optional(),
  runs: z.int().min(1).max(2).optional(),
  intake: z
    .object({
      flags: z.array(z.enum(INTAKE_FLAGS)).max(INTAKE_FLAGS.length),
      syntheticPercent: numberIn('The synthetic share', 0, 100, '%').nullable(),
    })
    .default({ flags: [], syntheticPercent: null }),
  /** Another school for this lot than the version was proven in. */
  schools: z
    .array(
      z
        .object({ key: z.string().max(40), answer: z.string().max(40) })
        .refine((a) => practiceChoice(a.key, a.answer) !== undefined, {
          error: 'That is not one of the schools offered. Choose again.',
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
  .object({ name: z.string(), then: z.string(), now: z.string(), same: z.boolean(), effect: z.string() })
  .meta({ id: 'Factor' });

export const proposalAsk = z.object({
  colourwayId: id,
  written,
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

export const proposal = z
  .object({
    understoodAs: z.string(),
    recipe: z.object({ versionId: id, name: z.string(), number: z.int(), standing: z.string() }),
    plan: lotPlan,
    /** Tags and places of the stock lots named in the plan. */
    jars: z.array(z.object({ id, tag: z.string(), place: z.string() })),
    /** Then beside now, when this is a reorder. */
    factors: z.array(factor),
    then: z
      .object({ lotId: id, tag: z.string(), recipeVersionId: id, recipeNumber: z.int(), written: z.string() })
      .nullable(),
    /** What was looked at before the lot may start; cautions want a reason each. */
    checks: z.array(lotCheck),
    /** Where the recipe, or this lot, is dyed otherwise than the house does. */
    schools: z.array(z.string()),
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
  note: noteOf('The note'),
  /** Cautions gone past, by key, each with its reason. */
  acknowledged: z
    .array(z.object({ key: z.string().max(600), reason: lineOf('The reason') }))
    .max(200)
    .default([]),
});
export type Agreement = z.infer<typeof agreement>;

export const LOT_STATES = ['planned', 'inWork', 'toJudge', 'held', 'released', 'refused', 'cancelled'] as const;
export const lotState = z.enum(LOT_STATES);
export type LotState = z.infer<typeof lotState>;

/** A station of the thread, as drawn. */
export const station = z.object({
  kind: stepKind,
  title: z.string(),
  state: z.enum(['waiting', 'running', 'paused', 'done', 'skipped']),
  knotted: z.boolean(),
});
export type Station = z.infer<typeof station>;

export const labUnder = lab.extend(colourConditions.shape);
export type LabUnder = z.infer<typeof labUnder>;

export const lotSummary = z
  .object({
    id,
    tag: z.string(),
    colourway: z.object({ id, name: z.string() }),
    pieces: z.int(),
    pieceWeightG: z.number(),
    batches: z.int(),
    state: lotState,
    at: isoTime,
    by: personRef,
    reorderOf: z.object({ id, tag: z.string() }).nullable(),
    stations: z.array(station),
    undyed: labUnder,
    master: labUnder,
    result: labUnder.nullable(),
    deltaE: z.number().nullable(),
    next: z
      .object({
        index: z.int(),
        title: z.string(),
        startedAt: isoTime.nullable(),
        durationMin: z.number(),
        attended: z.boolean(),
      })
      .nullable(),
  })
  .meta({ id: 'LotSummary' });
export type LotSummary = z.infer<typeof lotSummary>;

/** What an entry says beside its kind; each kind uses its own few. */
const runDetailShape = z
  .object({
    outOfOrder: z.boolean().optional(),
    vessels: z
      .array(z.object({ batch: z.int().min(1), vesselId: id, vesselName: lineOf('The pot') }))
      .max(40)
      .optional(),
    water: z.object({ id, name: lineOf('The water') }).optional(),
    more: z.boolean().optional(),
    readBy: z.enum(READ_BY).optional(),
    ph: numberIn('pH', 0, 14).optional(),
    heldMin: numberIn('The minutes held', 0, 100_000, 'min').optional(),
    totalDose: numberIn('The dose', 0, 100_000).optional(),
    unit: z.enum(['g', 'ml']).optional(),
    batch: z.int().min(1).max(200).optional(),
    sampleOf: z.enum(SAMPLE_OF).optional(),
    lab: lab.optional(),
    depth: numberIn('The depth', -1, 10).optional(),
    bath: z.object({ kind: z.enum(BATH_MOVES), ml: numberIn('The volume', 0, 500_000, 'ml') }).optional(),
    pullMinutes: z
      .array(numberIn('A pull', 0, 10_000, 'min'))
      .min(1)
      .max(60)
      .optional(),
    piece: z.int().min(1).max(60).optional(),
    rescale: z
      .array(
        z.object({
          stepIndex: z.int().min(0),
          batch: z.int().min(1),
          materialId: id,
          factor: numberIn('The factor', 0.1, 10),
        }),
      )
      .max(200)
      .optional(),
    deviation: z.boolean().optional(),
    toPerson: z.object({ id, name: lineOf('The name') }).optional(),
  })
  .meta({ id: 'RunDetail' });
export const runDetail = runDetailShape as unknown as z.ZodType<RunDetail, RunDetail>;

export const newRunEntry = z.object({
  id,
  stepIndex: z.int().min(0).max(60),
  kind: z.enum(RUN_ENTRY_KINDS),
  /** When it happened; now, if absent. */
  at: isoTime.optional(),
  replacesId: id.nullable(),
  temperatureC: numberIn('The temperature', -5, 130, '°C').nullable(),
  text: noteOf('The note').nullable(),
  weighing: z.object({ batch: z.int().min(1), materialId: id, stockLotId: id, written, movementId: id }).nullable(),
  detail: runDetail.nullable().default(null),
});
/** As it may be written; read, every part is there. */
export type NewRunEntry = z.input<typeof newRunEntry>;
export type ReadRunEntry = z.infer<typeof newRunEntry>;

export const runEntry = z
  .object({
    id,
    stepIndex: z.int(),
    kind: z.enum(RUN_ENTRY_KINDS),
    at: isoTime,
    recordedAt: isoTime,
    by: personRef,
    replacesId: id.nullable(),
    temperatureC: z.number().nullable(),
    text: z.string().nullable(),
    weighing: z.object({ batch: z.int(), materialId: id, stockLotId: id, amount: z.int() }).nullable(),
    detail: runDetail.nullable(),
    /** Photographs attached to it. */
    photos: z.array(id),
  })
  .meta({ id: 'RunEntry' });
export type RunEntryView = z.infer<typeof runEntry>;

export const newReading = z.object({
  id,
  batch: z.int().min(1),
  state: z.enum(READING_STATES),
  lab,
  ...colourConditions.shape,
  note: lineOf('The note'),
  replacesId: id.nullable(),
});
export type NewReading = z.infer<typeof newReading>;

export const reading = z
  .object({
    id,
    batch: z.int(),
    state: z.enum(READING_STATES),
    lab,
    ...colourConditions.shape,
    note: z.string(),
    at: isoTime,
    by: personRef,
    replacesId: id.nullable(),
  })
  .meta({ id: 'Reading' });
export type ReadingView = z.infer<typeof reading>;

export const newVerdict = z.object({ id, verdict: z.enum(VERDICTS), reason: noteOf('The reason') });
export type NewVerdict = z.infer<typeof newVerdict>;

export const verdict = z
  .object({
    id,
    verdict: z.enum(VERDICTS),
    reason: z.string(),
    at: isoTime,
    by: personRef,
    toMaster: z.number().nullable(),
    toFirst: z.number().nullable(),
    betweenBatches: z.number().nullable(),
  })
  .meta({ id: 'Verdict' });

export const lotDetail = z
  .object({
    summary: lotSummary,
    note: z.string(),
    recipe: z.object({ versionId: id, name: z.string(), number: z.int() }),
    base: z.object({ id, name: z.string() }),
    water: waterThen.nullable(),
    plan: lotPlan,
    /** Cautions that were gone past when it was agreed, and why. */
    checks: z.array(lotCheck.extend({ reason: z.string() })),
    toleranceDeltaE: z.number(),
    entries: z.array(runEntry),
    deviations: z.array(z.object({ stepIndex: z.int(), words: z.string() })),
    readings: z.array(reading),
    verdicts: z.array(verdict),
    /** What this lot differs in from the one it repeats. */
    factors: z.array(factor),
    /** The first lot of this colourway in the line of reorders, with its colour as passed. */
    first: z.object({ id, tag: z.string(), colour: labUnder.nullable() }).nullable(),
    again: z.array(z.object({ id, tag: z.string() })),
    /** Every stock lot in it; `amount` is what it really took, net, in smallest units. */
    madeFrom: z.array(
      z.object({
        stockLotId: id,
        tag: z.string(),
        materialId: id,
        material: z.string(),
        measure: stockMeasure,
        amount: z.int(),
      }),
    ),
    /** Jars that can be weighed from at the bench. */
    jars: z.array(
      z.object({
        id,
        tag: z.string(),
        materialId: id,
        place: z.string(),
        measure: stockMeasure,
        onHand: z.int(),
        promisedHere: z.int(),
      }),
    ),
  })
  .meta({ id: 'LotDetail' });
export type LotDetail = z.infer<typeof lotDetail>;
