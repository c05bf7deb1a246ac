import { LIQUOR_KINDS, LIQUOR_SIGNS, VAT_KINDS, VAT_LOOKS } from '@vestigia/core';
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

export const bathContent = z.object({
  materialId: id.nullable(),
  name: z.string(),
  grams: z.number(),
  drawn: z.boolean().optional(),
});

const vatLooked = {
  look: z.enum(VAT_LOOKS, { error: () => $localize`Say how it looks under its film: yellow, green, blue or cloudy.` }),
  ph: numberIn(() => 'pH', 0, 14).nullable(),
  temperatureC: numberIn(() => $localize`The temperature`, -5, 105, '°C').nullable(),
};

/** A vat as it stands: its kind, and how it was when somebody last looked; `look` `null` before that. */
export const vat = z.object({
  kind: z.enum(VAT_KINDS),
  look: vatLooked.look.nullable(),
  ph: vatLooked.ph,
  temperatureC: vatLooked.temperatureC,
  at: isoTime,
});

/** A liquor kept for later: what it is, what is in it by estimate, and in what volume that estimate was made. */
export const liquor = z
  .object({
    what: z.enum(LIQUOR_KINDS),
    vessel: z.string(),
    contents: z.array(bathContent),
    volumeUl: z.int(),
    working: figure.nullable(),
    signs: z.array(z.enum(LIQUOR_SIGNS)),
    vat: vat.nullable().default(null),
    at: isoTime,
  })
  .meta({ id: 'Liquor' });

export type Liquor = z.infer<typeof liquor>;

/** What can stand in the log of a kept liquor; `save` begins it, `return` comes from a lot’s pot. */
export const LIQUOR_ENTRY_KINDS = [
  'save',
  'use',
  'replenish',
  'feed',
  'return',
  'level',
  'check',
  'vat',
  'ladder',
  'takeBack',
] as const;
export type LiquorEntryKind = (typeof LIQUOR_ENTRY_KINDS)[number];

export const newLiquor = z.object({
  id,
  movementId: id,
  what: z.enum(LIQUOR_KINDS),
  /** Of a vat only. */
  vatKind: z.enum(VAT_KINDS).nullable().default(null),
  materialId: id.nullable(),
  newMaterial: lineOf(() => $localize`The name`),
  tag: stockLotTag,
  quantityText,
  contents: z
    .array(
      z.object({
        materialId: id.nullable(),
        name: nameOf(() => $localize`What is in it`),
        grams: numberIn(() => $localize`The grams in it`, 0, 500_000, 'g'),
      }),
    )
    .max(12),
  working: figure.nullable(),
  fromLotId: id.nullable(),
  vessel: lineOf(() => $localize`The vessel`),
  place: lineOf(() => $localize`The place`),
  bestBefore: isoDate.nullable(),
  note: noteOf(() => $localize`The note`),
});

export type NewLiquor = z.infer<typeof newLiquor>;

/** Of a lot’s pot, back into the jar it was poured from: what is there now, measured or by eye. */
export const returnedLiquor = z.object({
  id,
  movementId: id,
  stepIndex: z.int().min(0).max(60),
  batch: z.int().min(1).max(200),
  stockLotId: id,
  quantityText,
  note: noteOf(() => $localize`The note`),
});
export type ReturnedLiquor = z.infer<typeof returnedLiquor>;

/** What happens to a kept liquor. */
export const liquorEntry = z.discriminatedUnion('kind', [
  z.object({
    id,
    kind: z.literal('use'),
    movementId: id,
    fibreText: quantityText,
    carriedOffText: quantityText,
    uptakePercent: percent(() => $localize`The uptake`),
    measuredLeftG: numberIn(() => $localize`What was measured`, 0, 500_000, 'g').nullable(),
    note: noteOf(() => $localize`The note`),
  }),
  z.object({
    id,
    kind: z.literal('replenish'),
    movementId: id,
    stockLotId: id,
    quantityText,
    note: noteOf(() => $localize`The note`),
  }),
  /** Dyestuff, reducer and alkali into a vat, each from its jar. */
  z.object({
    id,
    kind: z.literal('feed'),
    parts: z
      .array(z.object({ movementId: id, stockLotId: id, quantityText }))
      .min(1, { error: () => $localize`Say what was fed to it, and from which jar.` })
      .max(8),
    note: noteOf(() => $localize`The note`),
  }),
  z.object({ id, kind: z.literal('vat'), ...vatLooked, note: noteOf(() => $localize`The note`) }),
  /** Boiled down, steamed off or topped up with water: less or more of it, and as much dissolved as before. */
  z.object({ id, kind: z.literal('level'), movementId: id, quantityText, note: noteOf(() => $localize`The note`) }),
  z.object({
    id,
    kind: z.literal('check'),
    signs: z
      .array(z.enum(LIQUOR_SIGNS))
      .min(1, { error: () => $localize`Say what you saw: clear, cloudy, growth, settled, or a bad smell.` }),
    note: noteOf(() => $localize`The note`),
  }),
  z.object({
    id,
    kind: z.literal('ladder'),
    rungs: z
      .array(
        z.object({
          percentOwf: numberIn(() => $localize`A rung’s dose`, 0.01, 50, '% WOF'),
          lightness: numberIn(() => 'L*', 0, 100),
        }),
      )
      .max(12),
    lightness: numberIn(() => $localize`L* of the strip`, 0, 100),
    liquorMl: numberIn(() => $localize`The liquor used`, 0.1, 100_000, 'ml'),
    fibreG: numberIn(() => $localize`The strip’s weight`, 0.1, 10_000, 'g'),
    note: noteOf(() => $localize`The note`),
  }),
]);

export type LiquorEntry = z.infer<typeof liquorEntry>;

/** An entry of a kept liquor that was a slip, and why. */
export const liquorTakeBack = z.object({
  id,
  note: noteOf(() => $localize`The reason`).min(1, { error: () => $localize`Say what was wrong with it.` }),
});
export type LiquorTakeBack = z.infer<typeof liquorTakeBack>;
