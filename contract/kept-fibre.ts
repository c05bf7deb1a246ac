import { KEPT_FORMS, LIGHT_PLACES, STOCK_MEASURES, TREATMENTS } from '@vestigia/core';
import { z } from 'zod';
import { colourConditions, id, lab, lineOf, noteOf, quantityText, stockLotTag } from './common';

const kept = {
  id,
  movementId: id,
  tag: stockLotTag,
  quantityText,
  place: lineOf(() => $localize`The place`),
  note: noteOf(() => $localize`The note`),
};

/**
 * Pieces of a lot kept as fibre: stock that can be a base, or that waits to be sold, and names the lot it came from.
 * Of a base that is there, or of a new one that takes over the lot's own.
 */
export const keptFibre = z.object({
  ...kept,
  treatment: z.enum(TREATMENTS),
  /** Which of the lot's shades they are; its first where absent. */
  group: z.string().max(200).nullable().default(null),
  /** Lies open to the light, or in the dark; `null` where nobody said. */
  light: z.enum(LIGHT_PLACES).nullable().default(null),
  /** A base that such fibre is kept as already; `null` makes one of `newBase`. */
  baseId: id.nullable(),
  newBaseId: id,
  newBase: lineOf(() => $localize`The name`),
});
export type KeptFibre = z.input<typeof keptFibre>;
export type ReadKeptFibre = z.infer<typeof keptFibre>;

/** Dyestuff that was drawn once and is kept for a paler bath: chips frozen, husks dried. */
export const keptSpent = z.object({
  ...kept,
  /** What it was before. */
  ofMaterialId: id,
  form: z.enum(KEPT_FORMS),
  /** A material that such stuff is kept as already; `null` makes one of `newMaterial`. */
  materialId: id.nullable(),
  newMaterialId: id,
  newMaterial: lineOf(() => $localize`The name`),
});
export type KeptSpent = z.infer<typeof keptSpent>;

/** Something that came of a lot and stands in Stores, and the lots it went on into. Smallest units. */
export const keptOfLot = z
  .object({
    stockLotId: id,
    tag: z.string(),
    material: z.string(),
    measure: z.enum(STOCK_MEASURES),
    treatment: z.enum(TREATMENTS).nullable(),
    form: z.string().nullable(),
    light: z.enum(LIGHT_PLACES).nullable(),
    place: z.string(),
    received: z.int(),
    onHand: z.int(),
    colour: lab.extend(colourConditions.shape).nullable(),
    wentInto: z.array(z.object({ id, tag: z.string(), colourway: z.string() })),
  })
  .meta({ id: 'KeptOfLot' });
export type KeptOfLot = z.infer<typeof keptOfLot>;
