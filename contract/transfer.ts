import { CONVERSION_KINDS, MOVEMENT_KINDS } from '@vestigia/core';
import { z } from 'zod';
import { id, isoDate, isoTime, lineOf, nameOf, noteOf } from './common';
import { materialRecord } from './materials';
import { NO_STOCK_FACTS, stockFacts } from './stores';
import { liquor } from './liquor';

export const TRANSFER_KINDS = ['materials', 'stockLots', 'movements', 'document'] as const;
export type TransferKind = (typeof TRANSFER_KINDS)[number];

/** One stock lot as it stands in a file. */
export const stockLotRecord = z.object({
  id,
  materialId: id,
  tag: nameOf(() => $localize`The tag`).max(20, { error: () => $localize`A tag has 20 characters at most.` }),
  receivedOn: isoDate,
  bestBefore: isoDate.nullable(),
  place: lineOf(() => $localize`The place`),
  source: lineOf(() => $localize`The source`),
  note: noteOf(() => $localize`The note`),
  costMinor: z.int().min(0).nullable().default(null),
  facts: stockFacts.default(NO_STOCK_FACTS),
  liquor: liquor.nullable().default(null),
});
export type StockLotRecord = z.infer<typeof stockLotRecord>;

export const conversionRecord = z.object({
  id,
  kind: z.enum(CONVERSION_KINDS),
  note: noteOf(() => $localize`The note`),
  lossMg: z.int(),
  byId: id,
  at: isoTime,
});

/** A movement as it stands in a stores file: names instead of what only one studio has. */
export const movementRecord = z.object({
  id,
  stockLotId: id,
  kind: z.enum(MOVEMENT_KINDS),
  amount: z.int(),
  at: isoTime,
  recordedAt: isoTime.nullable(),
  by: nameOf(() => $localize`Who did it`),
  lot: z.string(),
  conversion: id.nullable(),
  reversesId: id.nullable(),
  note: noteOf(() => $localize`The note`),
});
export type MovementRecord = z.infer<typeof movementRecord>;

/** Stores alone, as one document: what they hold and every movement. Its JSON Schema is published beside it. */
export const storesDocument = z
  .object({
    format: z.literal('vestigia-stores', { error: () => $localize`This is not a stores file made by Vestigia.` }),
    formatVersion: z.literal(1, {
      error: () => $localize`This stores file is from a newer version. Update the program first.`,
    }),
    materials: z.array(materialRecord),
    stockLots: z.array(stockLotRecord),
    conversions: z.array(
      z.object({
        id,
        kind: z.enum(CONVERSION_KINDS),
        note: noteOf(() => $localize`The note`),
        lossMg: z.int(),
        by: nameOf(() => $localize`Who did it`),
        at: isoTime,
      }),
    ),
    movements: z.array(movementRecord),
  })
  .meta({ id: 'StoresDocument' });
export type StoresDocument = z.infer<typeof storesDocument>;

export const ROW_FATES = ['new', 'here', 'refused'] as const;
export const importJob = z
  .object({
    id,
    kind: z.enum(TRANSFER_KINDS),
    state: z.enum(['reading', 'ready', 'writing', 'done', 'refused', 'cancelled']),
    done: z.int(),
    total: z.int(),
    fates: z.object({ new: z.int(), here: z.int(), refused: z.int() }),
    /** Whoever the file names and is not here: they are added, without a passphrase. */
    newPeople: z.array(z.string()),
    /** The first rows, each with its fate; refused ones first. */
    rows: z.array(z.object({ line: z.int(), label: z.string(), fate: z.enum(ROW_FATES), why: z.string() })),
    problem: z.string(),
  })
  .meta({ id: 'ImportJob' });
export type ImportJob = z.infer<typeof importJob>;

/** The published JSON Schema of the stores file (docs/stores.schema.json), as it may be written. */
export function storesSchema(): Record<string, unknown> {
  const { $defs = {}, ...schema } = z.toJSONSchema(storesDocument, { io: 'input' });
  const { StoresDocument: root = schema, ...rest } = $defs;
  return { $schema: schema.$schema, $id: 'urn:vestigia:stores:1', title: 'Vestigia stores file', ...root, $defs: rest };
}
