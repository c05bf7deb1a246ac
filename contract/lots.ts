import { DELTA_E_FORMULAS, JUDGE_RULES } from '@vestigia/core';
import { z } from 'zod';
import { id, isoTime, labUnder, personRef, stockMeasure } from './common';
import { stepKind, lotPlan } from './lot-plan';
import { factor, lotCheck, lotExtras, waterThen } from './proposal';
import { runEntry } from './run-entry';
import { eyeReading, eyeSeen, reading, verdict } from './readings';

export const LOT_STATES = ['planned', 'inWork', 'toJudge', 'held', 'released', 'refused', 'cancelled'] as const;
export const lotState = z.enum(LOT_STATES);
export type LotState = z.infer<typeof lotState>;

/** A station of the thread, as drawn. */
export const station = z.object({
  kind: stepKind,
  title: z.string(),
  state: z.enum(['waiting', 'running', 'paused', 'done', 'skipped']),
  hasDeviation: z.boolean(),
});
export type Station = z.infer<typeof station>;

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
    /** When it was told, where it was dyed before it was written down. */
    recordedAt: isoTime.nullable(),
    strikeOff: z.boolean().default(false),
    /** Dyed before the books began: nothing of it left the shelf. */
    offBooks: z.boolean(),
    by: personRef,
    reorderOf: z.object({ id, tag: z.string() }).nullable(),
    stations: z.array(station),
    undyed: labUnder,
    /** As it was when the lot was agreed; `null` while there is none. */
    master: labUnder.nullable(),
    result: labUnder.nullable(),
    deltaE: z.number().nullable(),
    /** Its shades, where it has several. */
    family: z.array(
      z.object({
        label: z.string(),
        lab: labUnder.nullable(),
        deltaE: z.number().nullable(),
        /** Held or refused by itself, while the lot goes on without it. */
        apart: z.enum(['hold', 'refuse']).nullable().default(null),
      }),
    ),
    /** What an eye said last, where nothing was read. */
    seen: eyeSeen.nullable(),
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

export const lotDetail = z
  .object({
    summary: lotSummary,
    note: z.string(),
    /** As it was asked for: what dyeing it again begins from. */
    quantityText: z.string(),
    extras: lotExtras,
    recipe: z.object({ versionId: id, name: z.string(), number: z.int() }),
    /**
     * Of a private recipe: what others read instead of its materials. `mine` where this person may see it, and these are
     * the names beside the codes; else the codes alone stand everywhere.
     */
    codeNames: z
      .object({ mine: z.boolean(), names: z.array(z.object({ code: z.string(), name: z.string() })) })
      .nullable()
      .default(null),
    base: z.object({ id, name: z.string() }),
    water: waterThen.nullable(),
    plan: lotPlan,
    /** Cautions that were gone past when it was agreed, and why. */
    checks: z.array(lotCheck.extend({ reason: z.string() })),
    toleranceDeltaE: z.number(),
    /** What its colourway is judged by. */
    formula: z.enum(DELTA_E_FORMULAS),
    entries: z.array(runEntry),
    deviations: z.array(z.object({ stepIndex: z.int(), message: z.string() })),
    readings: z.array(reading),
    eyes: z.array(eyeReading),
    /** What each base is expected to come out, by the recipe. */
    expected: z.array(labUnder.extend({ baseMaterialId: id })),
    /** What each zone is to be, by the master it was dyed under. */
    zoneStandards: z.array(labUnder.extend({ zone: z.string() })).default([]),
    /** The master it is judged by, band by band, where that was read so. */
    masterSpectrum: z.array(z.number()).readonly().nullable().default(null),
    judgeRule: z.enum(JUDGE_RULES),
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
    stockLots: z.array(
      z.object({
        id,
        tag: z.string(),
        materialId: id,
        place: z.string(),
        measure: stockMeasure,
        onHand: z.int(),
        reservedHere: z.int(),
        /** Of a stock solution: what is dissolved in it, and how strong it is. */
        solutionOf: z.object({ materialId: id, gPerL: z.number() }).nullable().default(null),
      }),
    ),
  })
  .meta({ id: 'LotDetail' });
export type LotDetail = z.infer<typeof lotDetail>;

/** Two lots side by side, each as it really was. */
export const lotsBeside = z
  .object({
    lots: z.array(lotSummary),
    factors: z.array(factor),
    /** What went otherwise in each. */
    otherwise: z.array(z.array(z.object({ step: z.string(), message: z.string() }))),
  })
  .meta({ id: 'LotsBeside' });
export type LotsBeside = z.infer<typeof lotsBeside>;
