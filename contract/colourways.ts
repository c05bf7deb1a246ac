import { DELTA_E_FORMULAS } from '@vestigia/core';
import { z } from 'zod';
import { id, isoTime, nameOf, noteOf, numberIn, personRef, version, labUnder } from './common';
import { lotSummary } from './lots';
import { taken } from './readings';
import { status } from './recipes';

const fields = {
  name: nameOf(() => $localize`The colourway’s name`),
  recipeVersionId: id,
  baseMaterialId: id,
  /** `null` while nobody has said “this is it”. */
  master: labUnder.nullable(),
  toleranceDeltaE: numberIn(() => $localize`The tolerance`, 0.1, 20, 'ΔE'),
  formula: z.enum(DELTA_E_FORMULAS).default('de00'),
  note: noteOf(() => $localize`The note`),
};
export const newColourway = z.object({ id, ...fields });
export type NewColourway = z.infer<typeof newColourway>;
/** Named with the swatch that is its master: how that was read. */
export const namedColourway = newColourway.extend({ masterTaken: taken });
export type NamedColourway = z.infer<typeof namedColourway>;
/** The master is the promise made to customers: an edit leaves it and the base alone, and another takes a reason. */
export const colourwayEdit = z.object({
  version,
  recipeVersionId: id,
  toleranceDeltaE: fields.toleranceDeltaE,
  formula: z.enum(DELTA_E_FORMULAS).optional(),
  note: fields.note,
});
export type ColourwayEdit = z.infer<typeof colourwayEdit>;

/** A colour that becomes the master: given as a swatch, or as a lot came out. */
/** What one zone of a variegated master is. */
export const zoneMaster = labUnder.extend({ zone: nameOf(() => $localize`The zone`) });

export const newMaster = z.object({
  id,
  lab: labUnder.nullable(),
  lotId: id.nullable().default(null),
  /** One reading of that lot: of a piece, a zone, a group. */
  readingId: id.nullable().default(null),
  /** Zones as given; those that were read in the lot come along by themselves. */
  zones: z.array(zoneMaster).max(40).default([]),
  reason: noteOf(() => $localize`The reason`),
  /** How a given swatch was read. */
  taken,
  /** Write the recipe's next version as that lot was really dyed, under this id, and dye by it from now on. */
  asDoneVersionId: id.nullable().default(null),
});
export type NewMaster = z.input<typeof newMaster>;
export type ReadNewMaster = z.infer<typeof newMaster>;

/** One master a colourway had or has. */
export const masterRecord = z.object({
  id,
  lab: labUnder,
  zones: z.array(zoneMaster),
  reason: z.string(),
  taken,
  fromLot: z.object({ id, tag: z.string() }).nullable(),
  at: isoTime,
  by: personRef,
});

export const colourway = z
  .object({
    id,
    version,
    name: z.string(),
    master: labUnder.nullable(),
    toleranceDeltaE: z.number(),
    formula: z.enum(DELTA_E_FORMULAS),
    note: z.string(),
    recipe: z.object({ versionId: id, name: z.string(), number: z.int(), status }),
    base: z.object({ id, name: z.string(), pieceWord: z.string(), usualPieceWeightG: z.number(), undyed: labUnder }),
    lots: z.int(),
    released: z.int(),
    /** To whom alone it is told what makes it; `null`: to everybody who sees its recipe. */
    keptTo: z.array(personRef).nullable(),
    /** Whether that is kept from whoever asked, by the colourway or by its recipe. */
    isVeiled: z.boolean(),
    putAway: z.boolean(),
    /** The water its newest lot was dyed in: the likely one for the next. */
    lastWaterId: id.nullable(),
  })
  .meta({ id: 'Colourway' });
export type Colourway = z.infer<typeof colourway>;

export const colourwayDetail = z
  .object({
    colourway,
    lots: z.array(lotSummary),
    /** Newest first; older ones were superseded. */
    masters: z.array(masterRecord),
  })
  .meta({ id: 'ColourwayDetail' });
export type ColourwayDetail = z.infer<typeof colourwayDetail>;

/** Other pieces put into a liquor that stands, as a small lot of their own: what is done with them, and their name. */
export const dyeInLiquor = z.object({
  /** Of the colourway that waits for what comes out, of the recipe and of its version. */
  id,
  recipeId: id,
  versionId: id,
  name: fields.name,
  baseMaterialId: id,
  temperatureC: numberIn(() => $localize`The temperature`, 5, 100, '°C').nullable(),
  minutes: numberIn(() => $localize`The time`, 1, 40_000, 'min'),
  /** In a vat: how often they are dipped, with air between. */
  dips: z
    .int()
    .min(1, { error: () => $localize`Dip it at least once.` })
    .max(30, { error: () => $localize`Thirty dips are the most.` }),
  /** Out of a vat, between two dips. */
  airMinutes: numberIn(() => $localize`The airing`, 1, 1440, 'min'),
});
export type DyeInLiquor = z.infer<typeof dyeInLiquor>;
