import { READING_STATES, RUN_ENTRY_KINDS, STEP_KINDS, VERDICTS, VESSEL_METALS } from '@vestigia/core';
import { z } from 'zod';
import { colourConditions, figure, id, isoTime, lab, lineOf, noteOf, numberIn, personRef, stockMeasure, written } from './common';

const pick = z.object({ stockLotId: id.nullable(), amountMg: z.int() });
const stepKind = z.enum(['fibre', ...STEP_KINDS]);
export const lotPlan = z.object({
  pieces: z.int(), pieceWeightG: z.number(), wof: figure, liquorRatio: z.number(),
  batches: z.array(z.object({ number: z.int(), vesselId: id, vesselName: z.string(), metal: z.enum(VESSEL_METALS), pieces: z.int(), wof: figure, liquor: figure, fill: figure })),
  materials: z.array(z.object({ materialId: id, name: z.string(), total: figure, picks: z.array(pick), shortMg: z.int(), notes: z.array(z.string()) })),
  steps: z.array(z.object({
    index: z.int(), kind: stepKind, title: z.string(), instruction: z.string(), temperatureC: z.number().optional(), ceilingC: z.number().optional(),
    durationMin: z.number(), attended: z.boolean(), lookFor: z.string(), usesBath: z.boolean(), cautions: z.array(z.string()),
    weighings: z.array(z.object({ batch: z.int(), materialId: id, materialName: z.string(), target: figure, toleranceG: z.number(), picks: z.array(pick) })),
  })),
  cautions: z.array(z.string()),
}).meta({ id: 'LotPlan' });

export const factor = z.object({ name: z.string(), then: z.string(), now: z.string(), same: z.boolean(), effect: z.string() }).meta({ id: 'Factor' });

export const proposalAsk = z.object({
  colourwayId: id,
  written,
  waterId: id.nullable(),
  /** Vessels that may be used; all of them when absent. */
  vesselIds: z.array(id).max(200).optional(),
  recipeVersionId: id.optional(),
  reorderOfId: id.nullable(),
});
export type ProposalAsk = z.infer<typeof proposalAsk>;

export const proposal = z.object({
  understoodAs: z.string(),
  recipe: z.object({ versionId: id, name: z.string(), number: z.int(), standing: z.string() }),
  plan: lotPlan,
  /** Tags and places of the stock lots named in the plan. */
  jars: z.array(z.object({ id, tag: z.string(), place: z.string() })),
  /** Then beside now, when this is a reorder. */
  factors: z.array(factor),
  then: z.object({ lotId: id, tag: z.string(), recipeVersionId: id, recipeNumber: z.int(), written: z.string() }).nullable(),
  /** Stands for exactly this proposal; send it back to agree. */
  digest: z.string(),
}).meta({ id: 'Proposal' });
export type Proposal = z.infer<typeof proposal>;

export const agreement = z.object({ id, ask: proposalAsk, digest: z.string().max(100), acceptShortages: z.boolean(), note: noteOf('The note') });
export type Agreement = z.infer<typeof agreement>;

export const LOT_STATES = ['planned', 'inWork', 'toJudge', 'held', 'released', 'refused', 'cancelled'] as const;
export const lotState = z.enum(LOT_STATES);
export type LotState = z.infer<typeof lotState>;

/** A station of the thread, as drawn. */
export const station = z.object({ kind: stepKind, title: z.string(), state: z.enum(['waiting', 'running', 'done', 'skipped']), knotted: z.boolean() });
export type Station = z.infer<typeof station>;

export const labUnder = lab.extend(colourConditions.shape);
export type LabUnder = z.infer<typeof labUnder>;

export const lotSummary = z.object({
  id, tag: z.string(), colourway: z.object({ id, name: z.string() }), pieces: z.int(), pieceWeightG: z.number(), batches: z.int(),
  state: lotState, at: isoTime, by: personRef, reorderOf: z.object({ id, tag: z.string() }).nullable(),
  stations: z.array(station), undyed: labUnder, master: labUnder, result: labUnder.nullable(), deltaE: z.number().nullable(),
  next: z.object({ index: z.int(), title: z.string(), startedAt: isoTime.nullable(), durationMin: z.number(), attended: z.boolean() }).nullable(),
}).meta({ id: 'LotSummary' });
export type LotSummary = z.infer<typeof lotSummary>;

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
});
export type NewRunEntry = z.infer<typeof newRunEntry>;

export const runEntry = z.object({
  id, stepIndex: z.int(), kind: z.enum(RUN_ENTRY_KINDS), at: isoTime, recordedAt: isoTime, by: personRef, replacesId: id.nullable(),
  temperatureC: z.number().nullable(), text: z.string().nullable(),
  weighing: z.object({ batch: z.int(), materialId: id, stockLotId: id, amountMg: z.int() }).nullable(),
}).meta({ id: 'RunEntry' });
export type RunEntryView = z.infer<typeof runEntry>;

export const newReading = z.object({
  id, batch: z.int().min(1), state: z.enum(READING_STATES), lab, ...colourConditions.shape, note: lineOf('The note'), replacesId: id.nullable(),
});
export type NewReading = z.infer<typeof newReading>;

export const reading = z.object({
  id, batch: z.int(), state: z.enum(READING_STATES), lab, ...colourConditions.shape, note: z.string(), at: isoTime, by: personRef, replacesId: id.nullable(),
}).meta({ id: 'Reading' });
export type ReadingView = z.infer<typeof reading>;

export const newVerdict = z.object({ id, verdict: z.enum(VERDICTS), reason: noteOf('The reason') });
export type NewVerdict = z.infer<typeof newVerdict>;

export const verdict = z.object({
  id, verdict: z.enum(VERDICTS), reason: z.string(), at: isoTime, by: personRef,
  toMaster: z.number().nullable(), toFirst: z.number().nullable(), betweenBatches: z.number().nullable(),
}).meta({ id: 'Verdict' });

export const lotDetail = z.object({
  summary: lotSummary,
  note: z.string(),
  recipe: z.object({ versionId: id, name: z.string(), number: z.int() }),
  base: z.object({ id, name: z.string() }),
  water: z.object({ id, name: z.string(), ph: z.number().nullable(), hardnessDh: z.number().nullable() }).nullable(),
  plan: lotPlan,
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
  madeFrom: z.array(z.object({ stockLotId: id, tag: z.string(), materialId: id, material: z.string(), measure: stockMeasure, amount: z.int() })),
  /** Jars that can be weighed from at the bench. */
  jars: z.array(z.object({ id, tag: z.string(), materialId: id, place: z.string(), onHand: z.int(), promisedHere: z.int() })),
}).meta({ id: 'LotDetail' });
export type LotDetail = z.infer<typeof lotDetail>;
