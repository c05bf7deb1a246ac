import { FIBRE_KINDS, STARTERS, VESSEL_METALS } from '@vestigia/core';
import { z } from 'zod';
import { id, nameOf, numberIn, quantityText } from './common';

/** All that a first lot needs, said on one page: a pot, a cloth, a dyestuff, a school, and what stands on the shelf. */
export const firstLot = z.object({
  /** Of the colourway that waits for what comes out. */
  id,
  name: nameOf(() => $localize`The colour’s name`),
  pot: z
    .object({
      name: nameOf(() => $localize`The pot’s name`),
      metal: z.enum(VESSEL_METALS, { error: () => $localize`Choose the pot’s metal: ${VESSEL_METALS.join(', ')}.` }),
      litres: numberIn(() => $localize`What the pot holds`, 0.5, 500, 'l'),
    })
    .nullable(),
  /** The cloth: one that the studio has, or a new one. */
  base: z.union([
    z.object({ materialId: id }),
    z.object({
      name: nameOf(() => $localize`The fibre’s name`),
      fibre: z.enum(FIBRE_KINDS),
      pieceWord: nameOf(() => $localize`The word for a piece`),
      usualPieceWeightG: numberIn(() => $localize`The weight of a piece`, 1, 25_000, 'g'),
    }),
  ]),
  starter: z.enum(STARTERS),
  dyestuffKey: z.string().max(80),
  /**
   * What there is of each: the cloth by an empty key, all else by the catalogue's. Nothing of what isn't named. Taken as
   * enough, or weighed.
   */
  onHand: z.array(z.object({ key: z.string().max(80), quantityText, guessed: z.boolean().default(false) })).max(12),
});
export type FirstLot = z.input<typeof firstLot>;
export type ReadFirstLot = z.infer<typeof firstLot>;
