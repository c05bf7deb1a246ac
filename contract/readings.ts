import { READING_STATES, VERDICTS } from '@vestigia/core';
import { z } from 'zod';
import { colourConditions, id, isoTime, lab, lineOf, noteOf, personRef } from './common';

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
