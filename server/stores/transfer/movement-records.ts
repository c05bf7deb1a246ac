import type { MovementRecord } from '@vestigia/contract';
import { movementRecord } from '@vestigia/contract';
import type { ConversionKind, StockMeasure } from '@vestigia/core';
import { instantOf, CONVERSION_KINDS, readAmount } from '@vestigia/core';
import type { Cell, Row } from './read-cells';
import { wrong, idFrom, text, orNull, grams } from './read-cells';
import { checkRecord } from './records';

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

export interface ConversionSeed {
  readonly id: string;
  readonly kind: ConversionKind;
  readonly lossMg: number;
  readonly note: string;
  /** Who did it and when, where the file says so; else whoever made its first movement. */
  readonly by?: string;
  readonly at?: string;
}

export type MovementFileRecord = MovementRecord & { readonly created?: ConversionSeed | undefined };

export const UNIT = { weight: 'g', volume: 'ml', pieces: 'pieces' } as const;

export const EXACT = /^[+-]?\d+(?:[.,]\d{1,3})?$/;

export const SIGN = { receive: 1, gather: 1, use: -1, spoil: -1, give: -1 } as const;

export function movementFrom(
  row: Row<(typeof MOVEMENT_COLUMNS)[number]>,
  stockLotByTag: ReadonlyMap<string, { id: string; measure: StockMeasure }>,
  importer: string,
  zone: string,
  nth: (key: string) => number,
): MovementFileRecord {
  const stockLot = stockLotByTag.get(text(row.tag).trim());
  if (!stockLot)
    return wrong(
      $localize`There is no jar tagged “${text(row.tag).slice(0, 40)}” here. Bring the stock lots in first.`,
    ) as never;
  const amount = amountFrom(text(row.amount).trim(), text(row.unit).trim(), stockLot.measure);
  const kind = text(row.kind).trim();
  const conversion = orNull(row.conversion);
  const content = [stockLot.id, text(row.at), kind, String(amount), text(row.lot), text(row.by), text(row.note)];
  const record = checkRecord(movementRecord, {
    id: orNull(row.id) ?? idFrom('movement', ...content, String(nth(content.join('|')))),
    stockLotId: stockLot.id,
    kind,
    amount,
    at: momentFrom(text(row.at), zone),
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
      `“${kind}” ${sign > 0 ? $localize`brings stock in, so its amount is above zero` : $localize`takes stock out, so its amount is below zero`}.`,
    );
  if (kind === 'reverse' && record.reversesId === null) wrong($localize`A reversal names the movement it reverses.`);
  const conversionKind = orNull(row.conversionKind);
  if (conversion === null || conversionKind === null) return record;
  if (!(CONVERSION_KINDS as readonly string[]).includes(conversionKind))
    wrong(
      $localize`“${conversionKind.slice(0, 30)}” is not a way stock changes its form. Use one of: ${CONVERSION_KINDS.join(', ')}.`,
    );
  return {
    ...record,
    created: {
      id: conversion,
      kind: conversionKind as ConversionKind,
      lossMg: grams(row.lossG, 'lossG') ?? 0,
      note: text(row.conversionNote),
    },
  };
}

/** Day alone means noon of it. */
/** A bare day is noon of that day in the studio; anything else is taken as it is and checked later. */
export function momentFrom(writtenText: string, zone: string): string {
  const at = writtenText.trim();
  if (!/^\d{4}-\d{2}-\d{2}$/.test(at) || Number.isNaN(Date.parse(at))) return at;
  return new Date(instantOf(at, '12:00', zone)).toISOString();
}

export function amountFrom(writtenText: string, unit: string, measure: StockMeasure): number {
  if (EXACT.test(writtenText) && unit === UNIT[measure]) {
    const value = Number(writtenText.replace(',', '.'));
    return measure === 'pieces'
      ? Number.isInteger(value)
        ? value
        : (wrong($localize`Pieces and packets are whole. Write a whole number.`) as never)
      : Math.round(value * 1000);
  }
  const negative = /^[-−]/.test(writtenText);
  const reading = readAmount(`${writtenText.replace(/^[-+−]/, '')} ${unit}`.trim(), measure, { allowNothing: true });
  if (!reading.ok) return wrong(reading.message) as never;
  return negative ? -reading.amount : reading.amount;
}

export function movementCells(
  m: MovementRecord,
  tag: string,
  measure: StockMeasure,
  created: ConversionSeed | undefined,
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
    created?.kind ?? null,
    created ? Number(created.lossMg / 1000) : null,
    created?.note ?? null,
    m.reversesId,
    m.note,
  ];
}
