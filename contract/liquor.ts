import { LIQUOR_KINDS, LIQUOR_SIGNS } from '@vestigia/core';
import { z } from 'zod';
import {
  figure,
  id,
  isoDate,
  isoTime,
  lineOf,
  nameOf,
  noteOf,
  numberIn,
  quantityText,
  percent,
  stockLotTag,
} from './common';

export const bathContent = z.object({ materialId: id.nullable(), name: z.string(), grams: z.number() });

/** A liquor kept for later: what it is, what is in it by estimate, and in what volume that estimate was made. */
export const liquor = z
  .object({
    what: z.enum(LIQUOR_KINDS),
    vessel: z.string(),
    contents: z.array(bathContent),
    volumeUl: z.int(),
    working: figure.nullable(),
    signs: z.array(z.enum(LIQUOR_SIGNS)),
    at: isoTime,
  })
  .meta({ id: 'Liquor' });

export type Liquor = z.infer<typeof liquor>;

export const newLiquor = z.object({
  id,
  movementId: id,
  what: z.enum(LIQUOR_KINDS),
  materialId: id.nullable(),
  newMaterial: lineOf('The name'),
  tag: stockLotTag,
  quantityText,
  contents: z
    .array(
      z.object({
        materialId: id.nullable(),
        name: nameOf('What is in it'),
        grams: numberIn('The grams in it', 0, 500_000, 'g'),
      }),
    )
    .max(12),
  working: figure.nullable(),
  fromLotId: id.nullable(),
  vessel: lineOf('The vessel'),
  place: lineOf('The place'),
  bestBefore: isoDate.nullable(),
  note: noteOf('The note'),
});

export type NewLiquor = z.infer<typeof newLiquor>;

/** What happens to a kept liquor. */
export const liquorEntry = z.discriminatedUnion('kind', [
  z.object({
    id,
    kind: z.literal('use'),
    movementId: id,
    fibreText: quantityText,
    carriedOffText: quantityText,
    uptakePercent: percent('The uptake'),
    measuredLeftG: numberIn('What was measured', 0, 500_000, 'g').nullable(),
    note: noteOf('The note'),
  }),
  z.object({
    id,
    kind: z.literal('replenish'),
    movementId: id,
    stockLotId: id,
    quantityText,
    note: noteOf('The note'),
  }),
  /** Boiled down, steamed off or topped up with water: less or more of it, and as much dissolved as before. */
  z.object({ id, kind: z.literal('level'), movementId: id, quantityText, note: noteOf('The note') }),
  z.object({
    id,
    kind: z.literal('check'),
    signs: z
      .array(z.enum(LIQUOR_SIGNS))
      .min(1, { error: 'Say what you saw: clear, cloudy, growth, settled, or a bad smell.' }),
    note: noteOf('The note'),
  }),
  z.object({
    id,
    kind: z.literal('ladder'),
    rungs: z
      .array(z.object({ percentOwf: numberIn('A rung’s dose', 0.01, 50, '% WOF'), lightness: numberIn('L*', 0, 100) }))
      .max(12),
    lightness: numberIn('L* of the strip', 0, 100),
    liquorMl: numberIn('The liquor used', 0.1, 100_000, 'ml'),
    fibreG: numberIn('The strip’s weight', 0.1, 10_000, 'g'),
    note: noteOf('The note'),
  }),
]);

export type LiquorEntry = z.infer<typeof liquorEntry>;
