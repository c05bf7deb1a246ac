import { createHash } from 'node:crypto';
import type { MovementRecord, NewMaterial, StockLotRecord } from '@vestigia/contract';
import { materialRecord, movementRecord, stockLotRecord } from '@vestigia/contract';
import type { ConversionKind, StockMeasure } from '@vestigia/core';
import { CONVERSION_KINDS, readAmount, readMoney } from '@vestigia/core';
import type { z } from 'zod';
import { readCell } from './csv-table';

export const MATERIAL_COLUMNS = [
  'id',
  'name',
  'kind',
  'measure',
  'hazards',
  'botanicalName',
  'plantPart',
  'forms',
  'fibreGroups',
  'ceilingC',
  'water',
  'phLow',
  'phHigh',
  'light',
  'wash',
  'bringsTannin',
  'seasonFrom',
  'seasonTo',
  'leadTimeDays',
  'reorderPoint',
  'reorderQuantity',
  'packet',
  'base',
  'note',
] as const;
export const STOCK_LOT_COLUMNS = [
  'id',
  'tag',
  'material',
  'receivedOn',
  'bestBefore',
  'place',
  'source',
  'cost',
  'origin',
  'plantPart',
  'stage',
  'form',
  'container',
  'grossG',
  'tareG',
  'moisturePercent',
  'strengthPercent',
  'strengthBasis',
  'reference',
  'permission',
  'sharePercent',
  'standNote',
  'liquor',
  'note',
] as const;
export const MOVEMENT_COLUMNS = [
  'id',
  'at',
  'recordedAt',
  'tag',
  'kind',
  'amount',
  'unit',
  'lot',
  'by',
  'conversion',
  'conversionKind',
  'lossG',
  'conversionNote',
  'reverses',
  'note',
] as const;

type Cell = string | number | null;
export type Row<C extends string> = Readonly<Partial<Record<C, string>>>;
export type Read<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly sentence: string };

/** Something in a cell that can't be used, told to whoever made the file. */
class CellTrouble extends Error {}
const wrong = (sentence: string): never => {
  throw new CellTrouble(sentence);
};

export function guarded<T>(read: () => T): Read<T> {
  try {
    return { ok: true, value: read() };
  } catch (error) {
    if (error instanceof CellTrouble) return { ok: false, sentence: error.message };
    throw error;
  }
}

/** A row by its columns; a cell a spreadsheet would run stops it. */
export function rowOf<C extends string>(header: readonly string[], cells: readonly string[]): Row<C> {
  const row: Partial<Record<string, string>> = {};
  header.forEach((name, i) => {
    const value = readCell(cells[i] ?? '');
    if (value === undefined)
      wrong(
        `“${(cells[i] ?? '').slice(0, 30)}” begins like a formula, which a spreadsheet would run. Take the sign away, or put an apostrophe before it.`,
      );
    row[name] = value;
  });
  return row as Row<C>;
}

/** An id made from content, so that the same file brought twice is known again (RFC 9562, version 8). */
export function idFrom(...parts: readonly string[]): string {
  const hex = createHash('sha256').update(parts.join('\u001f')).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-9${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

const words = (text: string | undefined): string[] => (text ?? '').split(/\s+/).filter(Boolean);
const text = (value: string | undefined): string => value ?? '';
const orNull = (value: string | undefined): string | null =>
  value === undefined || value.trim() === '' ? null : value.trim();
const number = (value: string | undefined, column: string): number | null => {
  const written = orNull(value);
  if (written === null) return null;
  const parsed = Number(written.replace(',', '.'));
  return Number.isFinite(parsed) ? parsed : (wrong(`“${written.slice(0, 30)}” in ${column} is not a number.`) as never);
};
const grams = (value: string | undefined, column: string): number | null => {
  const g = number(value, column);
  return g === null ? null : Math.round(g * 1000);
};
const flag = (value: string | undefined, column: string): boolean => {
  const written = text(value).trim().toLowerCase();
  if (['', 'no', 'false', '0'].includes(written)) return false;
  return ['yes', 'true', '1'].includes(written)
    ? true
    : (wrong(`“${written.slice(0, 20)}” in ${column} is neither yes nor no.`) as never);
};
const json = (value: string | undefined, column: string): unknown => {
  const written = orNull(value);
  if (written === null) return null;
  try {
    return JSON.parse(written) as unknown;
  } catch {
    return wrong(`What stands in ${column} can’t be read.`);
  }
};

export function checkRecord<S extends z.ZodType>(schema: S, value: unknown): z.infer<S> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const issue = result.error.issues[0];
  return wrong(
    issue && /[.!?]$/.test(issue.message)
      ? issue.message
      : `“${issue?.path.join('.') ?? ''}” is missing or can’t be used.`,
  ) as never;
}

export function materialFrom(row: Row<(typeof MATERIAL_COLUMNS)[number]>): NewMaterial {
  const season =
    orNull(row.seasonFrom) === null
      ? null
      : { fromMonth: number(row.seasonFrom, 'seasonFrom'), toMonth: number(row.seasonTo, 'seasonTo') };
  return checkRecord(materialRecord, {
    id: orNull(row.id) ?? idFrom('material', text(row.name).trim().toLowerCase()),
    name: text(row.name),
    kind: text(row.kind).trim(),
    measure: orNull(row.measure) ?? 'weight',
    hazards: words(row.hazards),
    note: text(row.note),
    base: json(row.base, 'base'),
    facts: {
      botanicalName: text(row.botanicalName),
      plantPart: text(row.plantPart),
      forms: words(row.forms),
      fibreGroups: words(row.fibreGroups),
      ceilingC: number(row.ceilingC, 'ceilingC'),
      water: orNull(row.water) ?? 'any',
      phLow: number(row.phLow, 'phLow'),
      phHigh: number(row.phHigh, 'phHigh'),
      light: orNull(row.light),
      wash: orNull(row.wash),
      bringsTannin: flag(row.bringsTannin, 'bringsTannin'),
      season,
      leadTimeDays: number(row.leadTimeDays, 'leadTimeDays'),
      reorderPoint: number(row.reorderPoint, 'reorderPoint'),
      reorderQuantity: number(row.reorderQuantity, 'reorderQuantity'),
      packet: json(row.packet, 'packet'),
    },
  });
}

export function materialCells(m: NewMaterial): Cell[] {
  const f = m.facts;
  return [
    m.id,
    m.name,
    m.kind,
    m.measure,
    m.hazards.join(' '),
    f.botanicalName,
    f.plantPart,
    f.forms.join(' '),
    f.fibreGroups.join(' '),
    f.ceilingC,
    f.water,
    f.phLow,
    f.phHigh,
    f.light,
    f.wash,
    f.bringsTannin ? 'yes' : 'no',
    f.season?.fromMonth ?? null,
    f.season?.toMonth ?? null,
    f.leadTimeDays,
    f.reorderPoint,
    f.reorderQuantity,
    f.packet === null ? null : JSON.stringify(f.packet),
    m.base === null ? null : JSON.stringify(m.base),
    m.note,
  ];
}

export function stockLotFrom(
  row: Row<(typeof STOCK_LOT_COLUMNS)[number]>,
  materialByName: ReadonlyMap<string, { id: string }>,
): StockLotRecord {
  const material = materialByName.get(text(row.material).trim().toLowerCase());
  if (!material)
    return wrong(
      `There is no material called “${text(row.material).slice(0, 60)}” here. Bring the materials in first.`,
    ) as never;
  const costMinor = orNull(row.cost) === null ? null : readMoney(text(row.cost));
  if (costMinor === undefined)
    return wrong(`“${text(row.cost).slice(0, 30)}” is not an amount of money. Write it like 12.50.`) as never;
  const record = checkRecord(stockLotRecord, {
    id: orNull(row.id) ?? idFrom('stock lot', text(row.tag).trim()),
    materialId: material.id,
    tag: text(row.tag),
    receivedOn: text(row.receivedOn).trim(),
    bestBefore: orNull(row.bestBefore),
    place: text(row.place),
    source: text(row.source),
    note: text(row.note),
    costMinor,
    liquor: json(row.liquor, 'liquor'),
    facts: {
      origin: orNull(row.origin) ?? 'receipt',
      plantPart: text(row.plantPart),
      stage: text(row.stage),
      form: orNull(row.form),
      container: text(row.container),
      grossMg: grams(row.grossG, 'grossG'),
      tareMg: grams(row.tareG, 'tareG'),
      moisturePercent: number(row.moisturePercent, 'moisturePercent'),
      strengthPercent: number(row.strengthPercent, 'strengthPercent'),
      strengthBasis: text(row.strengthBasis),
      reference: flag(row.reference, 'reference'),
      gathering:
        orNull(row.permission) === null
          ? null
          : {
              permission: text(row.permission),
              sharePercent: number(row.sharePercent, 'sharePercent'),
              note: text(row.standNote),
            },
    },
  });
  if (record.bestBefore !== null && record.bestBefore < record.receivedOn)
    wrong('It would be past its best before it came. Check the two dates.');
  return record;
}

const decimal = (mg: number | null): string | null => (mg === null ? null : String(mg / 1000));

export function stockLotCells(s: StockLotRecord, materialName: string): Cell[] {
  const f = s.facts;
  return [
    s.id,
    s.tag,
    materialName,
    s.receivedOn,
    s.bestBefore,
    s.place,
    s.source,
    s.costMinor === null ? null : (s.costMinor / 100).toFixed(2),
    f.origin,
    f.plantPart,
    f.stage,
    f.form,
    f.container,
    decimal(f.grossMg),
    decimal(f.tareMg),
    f.moisturePercent,
    f.strengthPercent,
    f.strengthBasis,
    f.reference ? 'yes' : 'no',
    f.gathering?.permission ?? null,
    f.gathering?.sharePercent ?? null,
    f.gathering?.note ?? null,
    s.liquor === null ? null : JSON.stringify(s.liquor),
    s.note,
  ];
}

export interface ConversionSeed {
  readonly id: string;
  readonly kind: ConversionKind;
  readonly lossMg: number;
  readonly note: string;
  /** Who did it and when, where the file says so; else whoever made its first movement. */
  readonly by?: string;
  readonly at?: string;
}
export type MovementFileRecord = MovementRecord & { readonly made?: ConversionSeed | undefined };

const UNIT = { weight: 'g', volume: 'ml', pieces: 'pieces' } as const;
const EXACT = /^[+-]?\d+(?:[.,]\d{1,3})?$/;
const SIGN = { receive: 1, gather: 1, use: -1, spoil: -1, give: -1 } as const;

export function movementFrom(
  row: Row<(typeof MOVEMENT_COLUMNS)[number]>,
  jarByTag: ReadonlyMap<string, { id: string; measure: StockMeasure }>,
  importer: string,
  nth: (key: string) => number,
): MovementFileRecord {
  const jar = jarByTag.get(text(row.tag).trim());
  if (!jar)
    return wrong(
      `There is no jar tagged “${text(row.tag).slice(0, 40)}” here. Bring the stock lots in first.`,
    ) as never;
  const amount = amountFrom(text(row.amount).trim(), text(row.unit).trim(), jar.measure);
  const kind = text(row.kind).trim();
  const conversion = orNull(row.conversion);
  const content = [jar.id, text(row.at), kind, String(amount), text(row.lot), text(row.by), text(row.note)];
  const record = checkRecord(movementRecord, {
    id: orNull(row.id) ?? idFrom('movement', ...content, String(nth(content.join('|')))),
    stockLotId: jar.id,
    kind,
    amount,
    at: momentFrom(text(row.at)),
    recordedAt: orNull(row.recordedAt),
    by: orNull(row.by) ?? importer,
    lot: text(row.lot),
    conversion,
    reversesId: orNull(row.reverses),
    note: text(row.note),
  });
  const sign = kind in SIGN ? SIGN[kind as keyof typeof SIGN] : 0;
  if (sign !== 0 && Math.sign(amount) !== sign)
    wrong(
      `“${kind}” ${sign > 0 ? 'brings stock in, so its amount is above zero' : 'takes stock out, so its amount is below zero'}.`,
    );
  if (kind === 'reverse' && record.reversesId === null) wrong('A reversal names the movement it reverses.');
  const conversionKind = orNull(row.conversionKind);
  if (conversion === null || conversionKind === null) return record;
  if (!(CONVERSION_KINDS as readonly string[]).includes(conversionKind))
    wrong(
      `“${conversionKind.slice(0, 30)}” is not a way stock changes its form. Use one of: ${CONVERSION_KINDS.join(', ')}.`,
    );
  return {
    ...record,
    made: {
      id: conversion,
      kind: conversionKind as ConversionKind,
      lossMg: grams(row.lossG, 'lossG') ?? 0,
      note: text(row.conversionNote),
    },
  };
}

/** Day alone means noon of it. */
function momentFrom(written: string): string {
  const at = written.trim();
  return /^\d{4}-\d{2}-\d{2}$/.test(at) ? `${at}T12:00:00.000Z` : at;
}

function amountFrom(written: string, unit: string, measure: StockMeasure): number {
  if (EXACT.test(written) && unit === UNIT[measure]) {
    const value = Number(written.replace(',', '.'));
    return measure === 'pieces'
      ? Number.isInteger(value)
        ? value
        : (wrong('Pieces and packets are whole. Write a whole number.') as never)
      : Math.round(value * 1000);
  }
  const negative = /^[-−]/.test(written);
  const reading = readAmount(`${written.replace(/^[-+−]/, '')} ${unit}`.trim(), measure, { allowNothing: true });
  if (!reading.ok) return wrong(reading.sentence) as never;
  return negative ? -reading.amount : reading.amount;
}

export function movementCells(
  m: MovementRecord,
  tag: string,
  measure: StockMeasure,
  made: ConversionSeed | undefined,
): Cell[] {
  const amount = measure === 'pieces' ? String(m.amount) : String(m.amount / 1000);
  return [
    m.id,
    m.at,
    m.recordedAt,
    tag,
    m.kind,
    Number(amount),
    UNIT[measure],
    m.lot,
    m.by,
    m.conversion,
    made?.kind ?? null,
    made ? Number(made.lossMg / 1000) : null,
    made?.note ?? null,
    m.reversesId,
    m.note,
  ];
}
