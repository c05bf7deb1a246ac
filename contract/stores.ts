import {
  CONVERSION_KINDS,
  LIQUOR_KINDS,
  LIQUOR_SIGNS,
  MATERIAL_FORMS,
  MATERIAL_KINDS,
  MOVEMENT_KINDS,
  STOCK_ORIGINS,
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
  stockMeasure,
  version,
  written,
} from './common';
import { attachment } from './materials';

const percent = (what: string, max = 100): z.ZodNumber => numberIn(what, 0, max, '%');
const tag = lineOf('The tag').max(20, { error: 'A tag has 20 characters at most.' });

/** What is known of one stock lot beside its label. */
export const stockFacts = z
  .object({
    origin: z.enum(STOCK_ORIGINS).default('receipt'),
    plantPart: lineOf('The part').default(''),
    stage: lineOf('The stage').default(''),
    form: z.enum(MATERIAL_FORMS).nullable().default(null),
    container: lineOf('The container').default(''),
    grossMg: z.int().min(0).nullable().default(null),
    tareMg: z.int().min(0).nullable().default(null),
    moisturePercent: percent('Moisture').nullable().default(null),
    /** Against the studio's reference lot; unknown until tested. */
    strengthPercent: numberIn('Strength', 1, 1000, '%').nullable().default(null),
    strengthBasis: lineOf('How the strength is known').default(''),
    reference: z.boolean().default(false),
    gathering: z
      .object({
        permission: nameOf('Whose permission there was'),
        sharePercent: percent('The share of the stand taken'),
        note: lineOf('The note on the stand').default(''),
      })
      .nullable()
      .default(null),
  })
  .meta({ id: 'StockFacts' });
export type StockFacts = z.infer<typeof stockFacts>;
export const NO_STOCK_FACTS: StockFacts = stockFacts.parse({});

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
    promised: z.int(),
    free: z.int(),
  })
  .meta({ id: 'ShelfRow' });
export type ShelfRow = z.infer<typeof shelfRow>;

export const delivery = z.object({
  id,
  movementId: id,
  materialId: id,
  tag,
  written,
  /** Weighed with its container, and the container alone; then `written` stays empty. */
  grossWritten: written.default(''),
  tareWritten: written.default(''),
  receivedOn: isoDate,
  bestBefore: isoDate.nullable(),
  place: lineOf('The place'),
  source: lineOf('The source'),
  note: noteOf('The note'),
  /** What all of it cost, as written; empty where it cost nothing. */
  cost: z.string().max(30, { error: 'A cost is a number, for example 12.50.' }).default(''),
  facts: stockFacts.default(NO_STOCK_FACTS),
});
export type Delivery = z.infer<typeof delivery>;

const label = { version, place: lineOf('The place'), note: noteOf('The note'), bestBefore: isoDate.nullable() };
export const stockLotEdit = z.object({ ...label, facts: stockFacts.optional() });
export type StockLotEdit = z.infer<typeof stockLotEdit>;

export const count = z.object({
  id,
  written,
  /** On hand as the counter saw it: a change since then is told, not overwritten. */ seenOnHand: z.int(),
  note: noteOf('The note'),
});
export type Count = z.infer<typeof count>;

/** Stock that leaves without a lot: used for a trial, spoiled, or given away. Packets leave whole, with what goes with them. */
export const taking = z.object({
  id,
  kind: z.enum(['use', 'spoil', 'give'], { error: 'Say whether it was used, spoiled or given away.' }),
  written,
  note: noteOf('The reason'),
  auxiliaries: z
    .array(z.object({ movementId: id, stockLotId: id }))
    .max(12)
    .default([]),
});
export type Taking = z.infer<typeof taking>;

export const reversal = z.object({
  id,
  note: noteOf('The reason').min(1, { error: 'Say why this movement is reversed.' }),
});
export type Reversal = z.infer<typeof reversal>;

export const conversion = z.object({
  id,
  kind: z.enum(CONVERSION_KINDS),
  inputs: z
    .array(z.object({ movementId: id, stockLotId: id, written }))
    .min(1, { error: 'Choose what goes in, and how much of it.' })
    .max(40),
  /** The new jar; none for the compost. */
  output: z
    .object({
      movementId: id,
      stockLotId: id,
      materialId: id.nullable(),
      newMaterial: lineOf('The new material’s name').default(''),
      tag,
      written,
      place: lineOf('The place'),
      bestBefore: isoDate.nullable(),
      container: lineOf('The container').default(''),
      tareWritten: written.default(''),
    })
    .nullable(),
  note: noteOf('The note'),
});
export type Conversion = z.infer<typeof conversion>;

export const newLiquor = z.object({
  id,
  movementId: id,
  what: z.enum(LIQUOR_KINDS),
  materialId: id.nullable(),
  newMaterial: lineOf('The name'),
  tag,
  written,
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
    fibreWritten: written,
    carriedOffWritten: written,
    uptakePercent: percent('The uptake'),
    measuredLeftG: numberIn('What was measured', 0, 500_000, 'g').nullable(),
    note: noteOf('The note'),
  }),
  z.object({ id, kind: z.literal('replenish'), movementId: id, stockLotId: id, written, note: noteOf('The note') }),
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

export const LEDGER_KINDS = [...MOVEMENT_KINDS, 'promise', 'release'] as const;
/** A line of one jar's ledger: what moved, or what was promised and let go. Balances stand after it. */
export const ledgerLine = z
  .object({
    id,
    kind: z.enum(LEDGER_KINDS),
    amount: z.int(),
    balance: z.int(),
    promised: z.int(),
    at: isoTime,
    by: personRef,
    note: z.string(),
    lot: z.object({ id: id.nullable(), tag: z.string() }).nullable(),
    conversionId: id.nullable(),
    reversesId: id.nullable(),
    reversed: z.boolean(),
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
    promises: z.array(z.object({ lot: z.object({ id, tag: z.string() }), amount: z.int() })),
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
    parents: z.array(kin),
    children: z.array(kin),
    liquor: liquor.nullable(),
    liquorNow: z.array(bathContent),
    liquorLog: z.array(
      z.object({ id, kind: z.string(), note: z.string(), working: figure.nullable(), at: isoTime, by: personRef }),
    ),
    attachments: z.array(attachment),
  })
  .meta({ id: 'StockLot' });
export type StockLot = z.infer<typeof stockLot>;
