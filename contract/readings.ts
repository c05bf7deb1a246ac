import {
  EYE_AGAINST,
  EYE_EVENNESS,
  EYE_HUES,
  EYE_LIGHTS,
  READING_STATES,
  READING_WAYS,
  VERDICTS,
} from '@vestigia/core';
import { z } from 'zod';
import { colourConditions, id, isoTime, lab, lineOf, noteOf, numberIn, personRef, spectrum } from './common';

/** What of the batch it is of; nothing said is the batch as a whole. */
const part = {
  group: z.string().max(200).nullable().default(null),
  zone: lineOf(() => $localize`The zone`)
    .nullable()
    .default(null),
  piece: lineOf(() => $localize`The piece`)
    .nullable()
    .default(null),
  dip: z.int().min(1).max(200).nullable().default(null),
};

const partView = {
  group: z.string().nullable(),
  zone: z.string().nullable(),
  piece: z.string().nullable(),
  dip: z.int().nullable(),
};

/** What of a lot something was said of. */
export const shadeOf = z.object({ batch: z.int().min(1), ...part });

/** One colour less another. */
const labDifference = z.object({
  L: numberIn(() => 'L*', -100, 100),
  a: numberIn(() => 'a*', -256, 256),
  b: numberIn(() => 'b*', -256, 256),
});

/** How a reading was taken. */
export const takenNow = z.object({
  way: z.enum(READING_WAYS),
  within80: numberIn(() => $localize`The error`, 0, 100).nullable(),
  evenness: z.object({ meanDeltaE00: z.number().min(0), maxDeltaE00: z.number().min(0) }).nullable(),
  spots: z.array(lab).max(60).readonly().default([]),
  reader: lineOf(() => $localize`The reader`).default(''),
  offset: labDifference.nullable().default(null),
  spectrum: spectrum.nullable().default(null),
});
/** The same; `null`: typed, by an early version. */
export const taken = takenNow.nullable().default(null);

export const newReading = z.object({
  id,
  batch: z.int().min(1),
  ...part,
  state: z.enum(READING_STATES),
  lab,
  ...colourConditions.shape,
  taken,
  note: lineOf(() => $localize`The note`),
  replacesId: id.nullable(),
});

export type NewReading = z.infer<typeof newReading>;

export const reading = z
  .object({
    id,
    batch: z.int(),
    ...partView,
    state: z.enum(READING_STATES),
    lab,
    ...colourConditions.shape,
    taken,
    note: z.string(),
    at: isoTime,
    by: personRef,
    replacesId: id.nullable(),
  })
  .meta({ id: 'Reading' });

export type ReadingView = z.infer<typeof reading>;

export const eyeSeen = z.object({
  against: z.enum(EYE_AGAINST, { error: () => $localize`Say what it was held against.` }),
  depth: z.int().min(-2).max(2),
  hue: z.enum(EYE_HUES).nullable(),
  clarity: z.int().min(-1).max(1),
  evenness: z.enum(EYE_EVENNESS, { error: () => $localize`Say whether it is even.` }),
  where: lineOf(() => $localize`Where`),
  light: z.enum(EYE_LIGHTS, { error: () => $localize`Say in what light it was seen.` }),
});

export const newEyeReading = z.object({
  id,
  batch: z.int().min(1),
  ...part,
  state: z.enum(READING_STATES),
  seen: eyeSeen,
  note: lineOf(() => $localize`The note`),
  replacesId: id.nullable(),
});
export type NewEyeReading = z.infer<typeof newEyeReading>;

export const eyeReading = z
  .object({
    id,
    batch: z.int(),
    ...partView,
    state: z.enum(READING_STATES),
    seen: eyeSeen,
    note: z.string(),
    at: isoTime,
    by: personRef,
    replacesId: id.nullable(),
    photos: z.array(id),
  })
  .meta({ id: 'EyeReading' });
export type EyeReadingView = z.infer<typeof eyeReading>;

/** One shade of a lot that is judged by itself; `null`: the lot. */
export const judgedShade = shadeOf.nullable().default(null);

export const newVerdict = z.object({
  id,
  verdict: z.enum(VERDICTS),
  of: judgedShade,
  reason: noteOf(() => $localize`The reason`),
});

export type NewVerdict = z.infer<typeof newVerdict>;

/** That a verdict was a slip, and no longer stands. */
export const verdictTakeBack = z.object({ id, verdictId: id });
export type VerdictTakeBack = z.infer<typeof verdictTakeBack>;

export const verdict = z
  .object({
    id,
    verdict: z.enum(VERDICTS),
    of: judgedShade,
    reason: z.string(),
    at: isoTime,
    by: personRef,
    toMaster: z.number().nullable(),
    toFirst: z.number().nullable(),
    betweenBatches: z.number().nullable(),
    /** `null` where nobody had looked yet: held or refused unseen. */
    restsOn: z.enum(['reading', 'twoEyes', 'eye']).nullable().default('reading'),
    takenBack: z.object({ at: isoTime, by: personRef }).nullable(),
  })
  .meta({ id: 'Verdict' });
