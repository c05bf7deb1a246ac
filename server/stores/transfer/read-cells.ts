import { createHash } from 'node:crypto';
import { readCell } from '../../shared/csv-table';

export type Cell = string | number | null;

export type Row<C extends string> = Readonly<Partial<Record<C, string>>>;

export type Read<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };

/** Something in a cell that can't be used, told to whoever made the file. */
export class CellTrouble extends Error {}

export const wrong = (message: string): never => {
  throw new CellTrouble(message);
};

export function guarded<T>(read: () => T): Read<T> {
  try {
    return { ok: true, value: read() };
  } catch (error) {
    if (error instanceof CellTrouble) return { ok: false, message: error.message };
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
        $localize`“${(cells[i] ?? '').slice(0, 30)}” begins like a formula, which a spreadsheet would run. Take the sign away, or put an apostrophe before it.`,
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

export const label = (text: string | undefined): string[] => (text ?? '').split(/\s+/).filter(Boolean);

export const text = (value: string | undefined): string => value ?? '';

export const orNull = (value: string | undefined): string | null =>
  value === undefined || value.trim() === '' ? null : value.trim();

export const number = (value: string | undefined, column: string): number | null => {
  const writtenText = orNull(value);
  if (writtenText === null) return null;
  const parsed = Number(writtenText.replace(',', '.'));
  return Number.isFinite(parsed)
    ? parsed
    : (wrong($localize`“${writtenText.slice(0, 30)}” in ${column} is not a number.`) as never);
};

export const grams = (value: string | undefined, column: string): number | null => {
  const g = number(value, column);
  return g === null ? null : Math.round(g * 1000);
};

export const flag = (value: string | undefined, column: string): boolean => {
  const writtenText = text(value).trim().toLowerCase();
  if (['', 'no', 'false', '0'].includes(writtenText)) return false;
  return ['yes', 'true', '1'].includes(writtenText)
    ? true
    : (wrong($localize`“${writtenText.slice(0, 20)}” in ${column} is neither yes nor no.`) as never);
};

export const json = (value: string | undefined, column: string): unknown => {
  const writtenText = orNull(value);
  if (writtenText === null) return null;
  try {
    return JSON.parse(writtenText) as unknown;
  } catch {
    return wrong($localize`What stands in ${column} can’t be read.`);
  }
};

export const decimal = (mg: number | null): string | null => (mg === null ? null : String(mg / 1000));
