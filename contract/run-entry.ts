import type { RunEntryKind } from '@vestigia/core';
import { BATH_MOVES, NOT_DRY, READ_BY, SAMPLE_OF, STEP_KINDS, STRAIN_WAYS, ZONE_DEEDS } from '@vestigia/core';
import { z } from 'zod';
import { bathContent } from './liquor';
import { id, isoTime, lab, lineOf, noteOf, numberIn, personRef, quantityText, stockMeasure } from './common';
import { shadeOf, takenNow } from './readings';

const batch = z.int().min(1).max(200);
const vesselUsed = z.object({ batch: z.int().min(1), vesselId: id, vesselName: lineOf(() => $localize`The pot`) });
const readBy = {
  readBy: z.enum(READ_BY).optional(),
  about: lineOf(() => $localize`How the time was told`).optional(),
  late: lineOf(() => $localize`Why it is told only now`).optional(),
};
const water = z.object({ id, name: lineOf(() => $localize`The water`) });
const pots = {
  vessels: z.array(vesselUsed).max(40).readonly().optional(),
  water: water.optional(),
};
const rescaling = z.object({
  stepIndex: z.int().min(0),
  batch: z.int().min(1),
  materialId: id,
  factor: numberIn(() => $localize`The factor`, 0.1, 10),
});

/** What an entry of each kind says beside when, at which step and by whom. */
const details = {
  start: z.object({
    ...readBy,
    outOfOrder: z.boolean().optional(),
    ...pots,
  }),
  weigh: z.object({
    ...readBy,
    more: z.boolean().optional(),
    again: z.boolean().optional(),
    notDry: z.enum(NOT_DRY).optional(),
    settles: z.enum(['more', 'empty']).optional(),
    solution: z
      .object({
        stockLotId: id,
        takenMl: numberIn(() => $localize`What is taken of the solution`, 0, 100_000, 'ml'),
        gPerL: numberIn(() => $localize`The solution’s strength`, 0, 2000, 'g/l'),
        made: z
          .object({
            fromStockLotId: id,
            dissolvedG: numberIn(() => $localize`What is dissolved`, 0, 100_000, 'g'),
            madeUpMl: numberIn(() => $localize`The water`, 1, 100_000, 'ml'),
          })
          .optional(),
      })
      .optional(),
    contents: z.array(bathContent).readonly().optional(),
  }),
  leaveOut: z.object({ ...readBy, batch, materialId: id }),
  temperature: z.object({
    ...readBy,
    heldMin: numberIn(() => $localize`The minutes held`, 0, 100_000, 'min').optional(),
    course: z
      .array(
        z.object({
          minute: numberIn(() => 'A minute', 0, 100_000),
          temperatureC: numberIn(() => 'A temperature', -20, 130, '°C'),
        }),
      )
      .max(200)
      .readonly()
      .optional(),
  }),
  ph: z.object({
    ...readBy,
    ph: numberIn(() => 'pH', 0, 14),
    totalDose: numberIn(() => $localize`The dose`, 0, 100_000).optional(),
    unit: z.enum(['g', 'ml']).optional(),
  }),
  sample: z.object({
    ...readBy,
    sampleOf: z.enum(SAMPLE_OF).optional(),
    batch: batch.optional(),
    depth: numberIn(() => $localize`The depth`, -1, 10),
    lab: lab.optional(),
    taken: takenNow.optional(),
  }),
  bath: z.object({
    ...readBy,
    batch: batch.optional(),
    bath: z.object({ kind: z.enum(BATH_MOVES), ml: numberIn(() => $localize`The volume`, 0, 500_000, 'ml') }),
  }),
  add: z.object({
    ...readBy,
    batch,
    name: lineOf(() => $localize`The material`),
    measure: stockMeasure,
    quantityText: lineOf(() => $localize`How much`),
    amount: z.int().min(0).optional(),
    guessed: z.boolean().optional(),
    contents: z.array(bathContent).readonly().optional(),
  }),
  moved: z.object({ ...readBy, ...pots }),
  pieces: z.object({
    ...readBy,
    batch,
    change: z.int().min(-2000).max(2000),
    weightG: numberIn(() => $localize`Their weight`, 0, 500_000, 'g').optional(),
  }),
  extra: z.object({
    ...readBy,
    title: lineOf(() => $localize`What was done`),
    stepKind: z.enum(STEP_KINDS),
    minutes: numberIn(() => $localize`How long`, 0, 100_000, 'min').optional(),
    temperatureC: numberIn(() => $localize`How hot`, -5, 105, '°C').optional(),
  }),
  note: z.object({
    ...readBy,
    deviation: z.boolean().optional(),
    next: z.boolean().optional(),
    of: shadeOf.optional(),
  }),
  pulls: z.object({
    ...readBy,
    pullMinutes: z
      .array(numberIn(() => 'A pull', 0, 10_000, 'min'))
      .min(1)
      .max(60)
      .readonly(),
  }),
  pull: z.object({ ...readBy, piece: z.int().min(1).max(60) }),
  zone: z.object({
    ...readBy,
    zone: z.int().min(0).max(60),
    did: z.enum(ZONE_DEEDS),
    piece: z.int().min(1).max(2000).optional(),
    ml: numberIn(() => $localize`What went on`, 0, 100_000, 'ml').optional(),
  }),
  strained: z.object({ ...readBy, way: z.enum([...STRAIN_WAYS, 'bagOut']) }),
  rescale: z.object({ ...readBy, rescale: z.array(rescaling).max(200).readonly() }),
  hand: z.object({ ...readBy, toPerson: z.object({ id, name: lineOf(() => $localize`The name`) }) }),
  redo: z.object({ ...readBy, keepsWeighings: z.boolean().optional() }),
  plain: z.object(readBy),
};

const brought = <K extends RunEntryKind>(kind: K) => ({
  id,
  stepIndex: z.int().min(0).max(60),
  kind: z.literal(kind),
  /** When it happened; now, if absent. */
  at: isoTime.optional(),
  replacesId: id.nullable(),
  temperatureC: z.null(),
  text: noteOf(() => $localize`The note`).nullable(),
  weighing: z.null(),
});
const broughtPlain = <K extends RunEntryKind>(kind: K) =>
  z.object({ ...brought(kind), detail: details.plain.nullable().default(null) });

/** An entry as it is brought. What its kind needs may be missing: `checkEntry` in core says so, in a sentence. */
export const newRunEntry = z.discriminatedUnion('kind', [
  z.object({ ...brought('start'), detail: details.start.partial().nullable().default(null) }),
  z.object({
    ...brought('weigh'),
    weighing: z
      .object({ batch: z.int().min(1), materialId: id, stockLotId: id.nullable(), quantityText, movementId: id })
      .nullable(),
    detail: details.weigh.partial().nullable().default(null),
  }),
  z.object({
    ...brought('temperature'),
    temperatureC: numberIn(() => $localize`The temperature`, -5, 130, '°C').nullable(),
    detail: details.temperature.partial().nullable().default(null),
  }),
  z.object({ ...brought('leaveOut'), detail: details.leaveOut.partial().nullable().default(null) }),
  z.object({ ...brought('ph'), detail: details.ph.partial().nullable().default(null) }),
  z.object({ ...brought('sample'), detail: details.sample.partial().nullable().default(null) }),
  z.object({ ...brought('bath'), detail: details.bath.partial().nullable().default(null) }),
  z.object({
    ...brought('add'),
    weighing: z
      .object({ batch: z.int().min(1), materialId: id, stockLotId: id.nullable(), quantityText, movementId: id })
      .nullable(),
    detail: details.add.partial().nullable().default(null),
  }),
  z.object({ ...brought('moved'), detail: details.moved.nullable().default(null) }),
  z.object({ ...brought('pieces'), detail: details.pieces.partial().nullable().default(null) }),
  z.object({ ...brought('extra'), detail: details.extra.partial().nullable().default(null) }),
  z.object({ ...brought('note'), detail: details.note.partial().nullable().default(null) }),
  z.object({ ...brought('pulls'), detail: details.pulls.partial().nullable().default(null) }),
  z.object({ ...brought('pull'), detail: details.pull.partial().nullable().default(null) }),
  z.object({ ...brought('zone'), detail: details.zone.partial().nullable().default(null) }),
  z.object({ ...brought('strained'), detail: details.strained.partial().nullable().default(null) }),
  z.object({ ...brought('rescale'), detail: details.rescale.partial().nullable().default(null) }),
  z.object({ ...brought('hand'), detail: details.hand.partial().nullable().default(null) }),
  broughtPlain('pause'),
  broughtPlain('resume'),
  z.object({ ...brought('redo'), detail: details.redo.nullable().default(null) }),
  broughtPlain('finish'),
  broughtPlain('skip'),
  broughtPlain('takeBack'),
  broughtPlain('cancel'),
]);

/** As it may be written; read, every part is there. */
export type NewRunEntry = z.input<typeof newRunEntry>;

export type ReadRunEntry = z.infer<typeof newRunEntry>;

/** A recorded entry of every kind, with the parts that the place it stands in adds to each. */
export function recordedEntry<Rest extends z.ZodRawShape>(rest: Rest) {
  const recorded = <K extends RunEntryKind>(kind: K) => ({
    id,
    stepIndex: z.int(),
    kind: z.literal(kind),
    at: isoTime,
    recordedAt: isoTime,
    replacesId: id.nullable(),
    text: z.string().nullable(),
    ...rest,
  });
  const unweighed = <K extends RunEntryKind>(kind: K) => ({
    ...recorded(kind),
    temperatureC: z.null(),
    weighing: z.null(),
  });
  const plain = <K extends RunEntryKind>(kind: K) =>
    z.object({ ...unweighed(kind), detail: details.plain.nullable().default(null) });
  return z.discriminatedUnion('kind', [
    z.object({ ...unweighed('start'), detail: details.start.nullable().default(null) }),
    z.object({
      ...recorded('weigh'),
      temperatureC: z.null(),
      weighing: z.object({ batch: z.int(), materialId: id, stockLotId: id.nullable(), amount: z.int() }),
      detail: details.weigh.nullable().default(null),
    }),
    z.object({
      ...recorded('temperature'),
      weighing: z.null(),
      temperatureC: z.number(),
      detail: details.temperature.nullable().default(null),
    }),
    z.object({ ...unweighed('leaveOut'), detail: details.leaveOut }),
    z.object({ ...unweighed('ph'), detail: details.ph }),
    z.object({ ...unweighed('sample'), detail: details.sample }),
    z.object({ ...unweighed('bath'), detail: details.bath }),
    z.object({
      ...recorded('add'),
      temperatureC: z.null(),
      weighing: z.object({ batch: z.int(), materialId: id, stockLotId: id.nullable(), amount: z.int() }).nullable(),
      detail: details.add,
    }),
    z.object({ ...unweighed('moved'), detail: details.moved }),
    z.object({ ...unweighed('pieces'), detail: details.pieces }),
    z.object({ ...unweighed('extra'), detail: details.extra }),
    z.object({ ...unweighed('note'), detail: details.note.nullable().default(null) }),
    z.object({ ...unweighed('pulls'), detail: details.pulls }),
    z.object({ ...unweighed('pull'), detail: details.pull }),
    z.object({ ...unweighed('zone'), detail: details.zone }),
    z.object({ ...unweighed('strained'), detail: details.strained }),
    z.object({ ...unweighed('rescale'), detail: details.rescale }),
    z.object({ ...unweighed('hand'), detail: details.hand }),
    plain('pause'),
    plain('resume'),
    z.object({ ...unweighed('redo'), detail: details.redo.nullable().default(null) }),
    plain('finish'),
    plain('skip'),
    plain('takeBack'),
    plain('cancel'),
  ]);
}

/** An entry as a lot's record shows it; `photos` are the photographs attached to it. */
export const runEntry = recordedEntry({ by: personRef, photos: z.array(id) }).meta({ id: 'RunEntry' });

export type RunEntryView = z.infer<typeof runEntry>;
