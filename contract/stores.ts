import {
  CONVERSION_KINDS,
  LIGHT_PLACES,
  MATERIAL_FORMS,
  MATERIAL_KINDS,
  MOVEMENT_KINDS,
  STOCK_ORIGINS,
  TREATMENTS,
} from '@vestigia/core';
import { z } from 'zod';
import {
  colourConditions,
  figure,
  hazard,
  id,
  isoDate,
  isoTime,
  lab,
  lineOf,
  nameOf,
  noteOf,
  numberIn,
  personRef,
  spectrum,
  stockMeasure,
  version,
  quantityText,
  percent,
  stockLotTag,
} from './common';
import { attachment } from './materials';
import { picking, pickingFacts } from './gathering';
import { LIQUOR_ENTRY_KINDS, bathContent, liquor } from './liquor';

/** What is known of one stock lot beside its label. */
export const stockFacts = z
  .object({
    origin: z.enum(STOCK_ORIGINS).default('receipt'),
    plantPart: lineOf(() => $localize`The part`).default(''),
    stage: lineOf(() => $localize`The stage`).default(''),
    form: z.enum(MATERIAL_FORMS).nullable().default(null),
    container: lineOf(() => $localize`The container`).default(''),
    grossMg: z.int().min(0).nullable().default(null),
    tareMg: z.int().min(0).nullable().default(null),
    moisturePercent: percent(() => $localize`Moisture`)
      .nullable()
      .default(null),
    /** Against the studio's reference lot; unknown until tested. */
    strengthPercent: numberIn(() => $localize`Strength`, 1, 1000, '%')
      .nullable()
      .default(null),
    strengthBasis: lineOf(() => $localize`How the strength is known`).default(''),
    /** It was worked out from what was dyed with it: the match, which knows those lots, doesn’t count it a second time. */
    strengthLearnt: z.boolean().default(false),
    reference: z.boolean().default(false),
    gathering: z
      .object({
        /** Our own ground: nobody is asked, and all of it may be taken. */
        ownGround: z.boolean().default(false),
        permission: lineOf(() => $localize`Whose permission there was`).default(''),
        sharePercent: percent(() => $localize`The share of the stand taken`)
          .nullable()
          .default(null),
        note: lineOf(() => $localize`The note on the stand`).default(''),
      })
      .refine((g) => g.ownGround || g.permission !== '', {
        error: () =>
          $localize`Whose permission there was is empty. Write something, or say that it is your own ground.`,
        path: ['permission'],
      })
      .refine((g) => g.ownGround || g.sharePercent !== null, {
        error: () => $localize`The share of the stand taken must be a number from 0 to 100 %.`,
        path: ['sharePercent'],
      })
      .nullable()
      .default(null),
    /** The lot it came from: the bath it is what is left of, or the pieces it was. */
    fromLotId: id.nullable().default(null),
    /** What was done to fibre before it became stock. */
    treatment: z.enum(TREATMENTS).nullable().default(null),
    /** Fibre: the shade it was dyed, or what this lot of it looks like undyed where that was read. */
    colour: lab.extend(colourConditions.shape).nullable().default(null),
    /** The same band by band, where it was read so. */
    colourSpectrum: spectrum.nullable().default(null),
    /** Finished pieces: open to the light, or in the dark. */
    light: z.enum(LIGHT_PLACES).nullable().default(null),
  })
  .meta({ id: 'StockFacts' });
export type StockFacts = z.infer<typeof stockFacts>;
export const NO_STOCK_FACTS: StockFacts = stockFacts.parse({});

/** One jar, bag or bale. Amounts in whole smallest units of its measure: mg, µl or pieces. */
export const shelfRow = z
  .object({
    id,
    tag: z.string(),
    materialId: id,
    material: z.string(),
    kind: z.enum(MATERIAL_KINDS),
    measure: stockMeasure,
    hazards: z.array(hazard),
    place: z.string(),
    source: z.string(),
    receivedOn: isoDate,
    bestBefore: isoDate.nullable(),
    form: z.enum(MATERIAL_FORMS).nullable(),
    strengthPercent: z.number().nullable(),
    onHand: z.int(),
    reserved: z.int(),
    free: z.int(),
  })
  .meta({ id: 'ShelfRow' });
export type ShelfRow = z.infer<typeof shelfRow>;

export const delivery = z.object({
  id,
  movementId: id,
  materialId: id,
  tag: stockLotTag,
  quantityText,
  /** Weighed with its container, and the container alone; then `written` stays empty. */
  grossText: quantityText.default(''),
  tareText: quantityText.default(''),
  receivedOn: isoDate,
  bestBefore: isoDate.nullable(),
  place: lineOf(() => $localize`The place`),
  source: lineOf(() => $localize`The source`),
  note: noteOf(() => $localize`The note`),
  /** What all of it cost, as written; empty where it cost nothing. */
  cost: z
    .string()
    .max(30, { error: () => $localize`A cost is a number, for example 12.50.` })
    .default(''),
  facts: stockFacts.default(NO_STOCK_FACTS),
  /** Who gathered it, and how long it took. */
  picking: pickingFacts.extend({ id }).nullable().default(null),
});
export type Delivery = z.infer<typeof delivery>;

const label = {
  version,
  place: lineOf(() => $localize`The place`),
  note: noteOf(() => $localize`The note`),
  bestBefore: isoDate.nullable(),
};
export const stockLotEdit = z.object({ ...label, facts: stockFacts.optional() });
export type StockLotEdit = z.infer<typeof stockLotEdit>;

/** Jars carried somewhere else, each with its place from now on. */
export const stockLotsMove = z.object({
  id,
  moved: z
    .array(z.object({ stockLotId: id, place: lineOf(() => $localize`The place`) }))
    .min(1)
    .max(500),
});
export type StockLotsMove = z.infer<typeof stockLotsMove>;

export const count = z.object({
  id,
  quantityText,
  /** On hand as the counter saw it: a change since then is told, not overwritten. */ seenOnHand: z.int(),
  note: noteOf(() => $localize`The note`),
});
export type Count = z.infer<typeof count>;

/**
 * Stock that leaves without a lot: used for a trial, spoiled, or given away. Packets leave whole, with what goes with
 * them.
 */
export const taking = z.object({
  id,
  kind: z.enum(['use', 'spoil', 'give'], { error: () => $localize`Say whether it was used, spoiled or given away.` }),
  quantityText,
  note: noteOf(() => $localize`The reason`),
  auxiliaries: z
    .array(z.object({ movementId: id, stockLotId: id }))
    .max(12)
    .default([]),
});
export type Taking = z.infer<typeof taking>;

export const reversal = z.object({
  id,
  note: noteOf(() => $localize`The reason`).min(1, { error: () => $localize`Say why this movement is reversed.` }),
});
export type Reversal = z.infer<typeof reversal>;

export const conversion = z.object({
  id,
  kind: z.enum(CONVERSION_KINDS),
  inputs: z
    .array(z.object({ movementId: id, stockLotId: id, quantityText }))
    .min(1, { error: () => $localize`Choose what goes in, and how much of it.` })
    .max(40),
  /** The new jar; none for the compost. */
  output: z
    .object({
      movementId: id,
      stockLotId: id,
      materialId: id.nullable(),
      newMaterial: lineOf(() => $localize`The new material’s name`).default(''),
      tag: stockLotTag,
      quantityText,
      place: lineOf(() => $localize`The place`),
      bestBefore: isoDate.nullable(),
      container: lineOf(() => $localize`The container`).default(''),
      tareText: quantityText.default(''),
      /** Fibre wound off or cut: what a piece is called now, and what it weighs. */
      piece: z
        .object({ word: nameOf(() => $localize`The word for a piece`), weightText: quantityText })
        .nullable()
        .default(null),
    })
    .nullable(),
  note: noteOf(() => $localize`The note`),
});
export type Conversion = z.infer<typeof conversion>;

export const LEDGER_KINDS = [...MOVEMENT_KINDS, 'reservation', 'release'] as const;
/** A line of one jar's ledger: what moved, or what was promised and let go. Balances stand after it. */
export const ledgerLine = z
  .object({
    id,
    kind: z.enum(LEDGER_KINDS),
    amount: z.int(),
    balance: z.int(),
    reserved: z.int(),
    at: isoTime,
    by: personRef,
    /** Who brought it in from a file, in that name. */
    broughtBy: personRef.nullable(),
    note: z.string(),
    lot: z.object({ id: id.nullable(), tag: z.string() }).nullable(),
    conversionId: id.nullable(),
    reversesId: id.nullable(),
    reversed: z.boolean(),
    /** It is part of what was done to a kept liquor, and is put right with it. */
    ofLiquor: z.boolean(),
  })
  .meta({ id: 'LedgerLine' });
export type StockLedgerLine = z.infer<typeof ledgerLine>;

const kin = z.object({
  id,
  tag: z.string(),
  material: z.string(),
  kind: z.enum(CONVERSION_KINDS),
  amount: z.int(),
  measure: stockMeasure,
  /** What of this jar went that way, in its own smallest unit. */ share: z.int(),
  note: z.string(),
});
export const stockLot = z
  .object({
    row: shelfRow,
    version,
    note: z.string(),
    facts: stockFacts,
    costMinor: z.int().nullable(),
    currency: z.string(),
    bulkDensityGPerMl: z.number().nullable(),
    /** The newest lines, oldest of them first; `earlier` more stand before. */
    lines: z.array(ledgerLine),
    earlier: z.int(),
    reservations: z.array(z.object({ lot: z.object({ id, tag: z.string() }), amount: z.int() })),
    /** Every lot this stock went into, newest first; `amount` net of reversals, and the colour it came out. */
    wentInto: z.array(
      z.object({
        lot: z.object({ id, tag: z.string(), colourway: z.string() }),
        amount: z.int(),
        colour: lab.extend(colourConditions.shape).nullable(),
      }),
    ),
    /** What left it for no lot and was not reversed. */
    otherwise: z.array(z.object({ kind: z.enum(['use', 'spoil', 'give']), amount: z.int() })),
    pickings: z.array(picking),
    parents: z.array(kin),
    children: z.array(kin),
    liquor: liquor.nullable(),
    liquorNow: z.array(bathContent),
    liquorLog: z.array(
      z.object({
        id,
        kind: z.enum(LIQUOR_ENTRY_KINDS),
        note: z.string(),
        working: figure.nullable(),
        takenBack: z.boolean(),
        at: isoTime,
        by: personRef,
      }),
    ),
    attachments: z.array(attachment),
  })
  .meta({ id: 'StockLot' });
export type StockLot = z.infer<typeof stockLot>;
