import { z } from 'zod';
import {
  colourConditions,
  figure,
  id,
  isoDate,
  isoTime,
  lab,
  lineOf,
  nameOf,
  noteOf,
  numberIn,
  personRef,
  quantityText,
} from './common';

/** How something was gathered: by whom, how long, and what came along. */
const picked = {
  /** Names as they were told: who helped needs no name in the studio. */
  pickers: z.array(nameOf(() => $localize`The name`)).max(20),
  minutesEach: numberIn(() => $localize`The minutes`, 1, 1440, 'min').nullable(),
  /** Guessed, not weighed. */
  guessed: z.boolean().default(false),
  /** What was picked with it: stems, green, seed heads. */
  pickedWith: lineOf(() => $localize`What was picked with it`).default(''),
};

export const pickingFacts = z.object(picked);
export type PickingFacts = z.infer<typeof pickingFacts>;

/** One more picking into a jar, weighed in as many portions as the balance wanted, each with its bag or without. */
export const newPicking = z.object({
  id,
  movementId: id,
  pickedOn: isoDate,
  portions: z
    .array(z.object({ grossText: quantityText, tareText: quantityText.default('') }))
    .min(1, { error: () => $localize`Say how much was picked.` })
    .max(40, { error: () => $localize`That is more than 40 portions. Add some of them up.` }),
  note: noteOf(() => $localize`The note`).default(''),
  ...picked,
});
export type NewPicking = z.infer<typeof newPicking>;

const kept = { id, stockLotId: id, movementId: id, portions: z.int(), tareMg: z.int(), note: z.string(), ...picked };
/** A picking as a studio's file keeps it. */
export const pickingRecord = z.object({ ...kept, byId: id, at: isoTime });

/** A picking as it is read: `amount` in mg, `null` once its movement was reversed. */
export const picking = z
  .object({ ...kept, pickedAt: isoTime, amount: z.int(), reversed: z.boolean(), by: personRef })
  .meta({ id: 'Picking' });
export type Picking = z.infer<typeof picking>;

/** A jar of what was gathered: what it gave, and what became of it. */
export const gatheredRow = z
  .object({
    stockLotId: id,
    tag: z.string(),
    materialId: id,
    material: z.string(),
    pickedOn: isoDate,
    amount: z.int(),
    pickings: z.int(),
    perHour: figure.nullable(),
    fibrePerHour: figure.nullable(),
    lots: z.array(
      z.object({
        id,
        tag: z.string(),
        colourway: z.string(),
        pickedMg: z.int(),
        fibreMg: z.int(),
        colour: lab.extend(colourConditions.shape).nullable(),
      }),
    ),
  })
  .meta({ id: 'GatheredRow' });
export type GatheredRow = z.infer<typeof gatheredRow>;
