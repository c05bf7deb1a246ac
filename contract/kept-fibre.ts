import { z } from 'zod';
import { id, lineOf, noteOf, quantityText, stockLotTag } from './common';

/** What was done to pieces that are kept: mordanted ahead, or dyed. */
export const TREATMENTS = ['mordanted', 'dyed'] as const;

/**
 * Pieces of a lot kept as fibre: stock that can be a base, and names the lot it came from. Of a base that is there, or
 * of a new one that takes over the lot's own.
 */
export const keptFibre = z.object({
  id,
  movementId: id,
  treatment: z.enum(TREATMENTS),
  /** A base that such fibre is kept as already; `null` makes one of `newBase`. */
  baseId: id.nullable(),
  newBaseId: id,
  newBase: lineOf('The name'),
  tag: stockLotTag,
  quantityText,
  place: lineOf('The place'),
  note: noteOf('The note'),
});
export type KeptFibre = z.infer<typeof keptFibre>;
