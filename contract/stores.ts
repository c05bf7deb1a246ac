import { FIBRE_KINDS, MOVEMENT_KINDS } from '@vestigia/core';
import { z } from 'zod';
import { colourConditions, hazard, id, isoDate, isoTime, lab, lineOf, nameOf, noteOf, numberIn, personRef, stockMeasure, version, written } from './common';

export const MATERIAL_KINDS = ['fibre', 'dyestuff', 'mordant', 'tannin', 'assistant', 'modifier', 'detergent'] as const;

/** What a base is beyond any material: its fibre, its usual piece, and its colour before dye. */
export const baseFacts = z.object({
  fibre: z.enum(FIBRE_KINDS),
  pieceWord: nameOf('The word for a piece'),
  usualPieceWeightG: numberIn('The usual weight of a piece', 1, 25_000, 'g'),
  undyed: lab.extend(colourConditions.shape),
}).meta({ id: 'BaseFacts' });
export type BaseFacts = z.infer<typeof baseFacts>;

const materialFields = {
  name: nameOf('The material’s name'),
  kind: z.enum(MATERIAL_KINDS, { error: `Choose what kind of material it is: ${MATERIAL_KINDS.join(', ')}.` }),
  measure: stockMeasure,
  hazards: z.array(hazard),
  note: noteOf('The note'),
  base: baseFacts.nullable(),
};
const fibreHasBase = { check: (m: { kind: string; base: unknown }): boolean => (m.kind === 'fibre') === (m.base !== null), error: 'A fibre needs its base facts (fibre, piece, undyed colour); nothing else has them.' };
export const newMaterial = z.object({ id, ...materialFields }).refine(fibreHasBase.check, { error: fibreHasBase.error });
export type NewMaterial = z.infer<typeof newMaterial>;
export const material = z.object({ id, ...materialFields }).meta({ id: 'Material' });
export type Material = z.infer<typeof material>;

/** One jar, bag or bale. Amounts in whole smallest units of its measure: mg or µl. */
export const shelfRow = z.object({
  id, tag: z.string(), materialId: id, material: z.string(), kind: z.enum(MATERIAL_KINDS), measure: stockMeasure, hazards: z.array(hazard),
  place: z.string(), source: z.string(), receivedOn: isoDate, bestBefore: isoDate.nullable(),
  onHand: z.int(), promised: z.int(), free: z.int(),
}).meta({ id: 'ShelfRow' });
export type ShelfRow = z.infer<typeof shelfRow>;

export const delivery = z.object({
  id, movementId: id, materialId: id,
  tag: lineOf('The tag').max(20, { error: 'A tag has 20 characters at most.' }),
  written,
  receivedOn: isoDate,
  bestBefore: isoDate.nullable(),
  place: lineOf('The place'),
  source: lineOf('The source'),
  note: noteOf('The note'),
});
export type Delivery = z.infer<typeof delivery>;

export const stockLotEdit = z.object({ version, place: lineOf('The place'), note: noteOf('The note'), bestBefore: isoDate.nullable() });
export type StockLotEdit = z.infer<typeof stockLotEdit>;

export const count = z.object({ id, written, /** On hand as the counter saw it: a change since then is told, not overwritten. */ seenOnHand: z.int(), note: noteOf('The note') });
export type Count = z.infer<typeof count>;

export const reversal = z.object({ id, note: noteOf('The reason').min(1, { error: 'Say why this movement is reversed.' }) });
export type Reversal = z.infer<typeof reversal>;

export const ledgerLine = z.object({
  id, kind: z.enum(MOVEMENT_KINDS), amount: z.int(), balance: z.int(), at: isoTime, by: personRef, note: z.string(),
  lot: z.object({ id, tag: z.string() }).nullable(), reversesId: id.nullable(), reversed: z.boolean(),
}).meta({ id: 'LedgerLine' });
export type StockLedgerLine = z.infer<typeof ledgerLine>;

export const stockLot = z.object({
  row: shelfRow, version, note: z.string(),
  lines: z.array(ledgerLine),
  promises: z.array(z.object({ lot: z.object({ id, tag: z.string() }), amount: z.int() })),
  /** Every lot this stock went into, newest first; `amount` net of reversals. */
  wentInto: z.array(z.object({ lot: z.object({ id, tag: z.string(), colourway: z.string() }), amount: z.int() })),
}).meta({ id: 'StockLot' });
export type StockLot = z.infer<typeof stockLot>;
