import type { RunDetail } from '@vestigia/core';
import { BATH_MOVES, READ_BY, RUN_ENTRY_KINDS, SAMPLE_OF } from '@vestigia/core';
import { z } from 'zod';
import { id, isoTime, lab, lineOf, noteOf, numberIn, personRef, quantityText } from './common';

/** What an entry says beside its kind; each kind uses its own few. */
export const runDetailShape = z
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

export const runDetail: z.ZodType<RunDetail, RunDetail> = runDetailShape;

export const newRunEntry = z.object({
  id,
  stepIndex: z.int().min(0).max(60),
  kind: z.enum(RUN_ENTRY_KINDS),
  /** When it happened; now, if absent. */
  at: isoTime.optional(),
  replacesId: id.nullable(),
  temperatureC: numberIn('The temperature', -5, 130, '°C').nullable(),
  text: noteOf('The note').nullable(),
  weighing: z
    .object({ batch: z.int().min(1), materialId: id, stockLotId: id, quantityText, movementId: id })
    .nullable(),
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
