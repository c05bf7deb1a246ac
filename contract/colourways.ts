import { z } from 'zod';
import { id, nameOf, noteOf, numberIn, version } from './common';
import { labUnder, lotSummary } from './lots';
import { status } from './recipes';

const fields = {
  name: nameOf('The colourway’s name'),
  recipeVersionId: id,
  baseMaterialId: id,
  master: labUnder,
  toleranceDeltaE: numberIn('The tolerance', 0.1, 20, 'ΔE'),
  note: noteOf('The note'),
};
export const newColourway = z.object({ id, ...fields });
export type NewColourway = z.infer<typeof newColourway>;
/** The master is the promise made to customers, so an edit leaves it and the base alone. */
export const colourwayEdit = z.object({
  version,
  recipeVersionId: id,
  toleranceDeltaE: fields.toleranceDeltaE,
  note: fields.note,
});
export type ColourwayEdit = z.infer<typeof colourwayEdit>;

export const colourway = z
  .object({
    id,
    version,
    name: z.string(),
    master: labUnder,
    toleranceDeltaE: z.number(),
    note: z.string(),
    recipe: z.object({ versionId: id, name: z.string(), number: z.int(), status }),
    base: z.object({ id, name: z.string(), pieceWord: z.string(), usualPieceWeightG: z.number(), undyed: labUnder }),
    lots: z.int(),
    released: z.int(),
    /** The water its newest lot was dyed in: the likely one for the next. */
    lastWaterId: id.nullable(),
  })
  .meta({ id: 'Colourway' });
export type Colourway = z.infer<typeof colourway>;

export const colourwayDetail = z.object({ colourway, lots: z.array(lotSummary) }).meta({ id: 'ColourwayDetail' });
export type ColourwayDetail = z.infer<typeof colourwayDetail>;
