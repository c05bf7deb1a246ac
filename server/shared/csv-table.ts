import Papa from 'papaparse';

export type Separator = ',' | ';';
export interface Table {
  readonly header: readonly string[];
  /** Each row with the line of the file it begins on. */
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
}
export type TableReading =
  { readonly ok: true; readonly table: Table } | { readonly ok: false; readonly message: string };

const refuse = (message: string): TableReading => ({ ok: false, message });
const BOM = '\ufeff';
/** A spreadsheet runs a cell that begins so as a formula; some take the full-width signs for the others. */
const FORMULA = /^[=+\-@\t\r＝＋－＠]/;
const ESCAPED = /^'+[=+\-@\t\r＝＋－＠]/;
const NUMBER = /^[+-]?\d+(?:[.,]\d+)?$/;

/**
 * A text cell made safe for spreadsheets: an apostrophe before what would be run. `readCell` takes it off again,
 * exactly.
 */
export function safeCell(text: string): string {
  return FORMULA.test(text) || ESCAPED.test(text) ? `'${text}` : text;
}

/** A cell as it was meant, or `undefined` where it would be run as a formula. Numbers with a sign are numbers. */
export function readCell(cell: string): string | undefined {
  if (ESCAPED.test(cell)) return cell.slice(1);
  return FORMULA.test(cell) && !NUMBER.test(cell) ? undefined : cell;
}

/** Bytes as text, or a sentence saying how to save the file so that it can be read. */
export function decodeText(bytes: Uint8Array): { ok: true; text: string } | { ok: false; message: string } {
  const again = $localize`Save it again as “CSV UTF-8” and choose it once more.`;
  if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff))
    return { ok: false, message: $localize`This file is written in UTF-16. ${again}` };
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    if (text.includes('\0')) return { ok: false, message: $localize`This is not a text file. ${again}` };
    return { ok: true, text: text.startsWith(BOM) ? text.slice(1) : text };
  } catch {
    return { ok: false, message: $localize`Some letters in this file are not UTF-8. ${again}` };
  }
}

/**
 * Reads a table by RFC 4180, separated by commas or semicolons as its header is. A row with more or fewer fields than
 * the header stops it: a shifted column would put one jar's weight on another.
 */
export function readTable(text: string, known: readonly string[]): TableReading {
  if (text.trim() === '') return refuse($localize`There is nothing in that file. Choose another.`);
  const firstLine = text.split(/\r?\n/, 1)[0] ?? '';
  const separator: Separator = (firstLine.match(/;/g)?.length ?? 0) > (firstLine.match(/,/g)?.length ?? 0) ? ';' : ',';
  const { data, errors } = Papa.parse<string[]>(text, { delimiter: separator, skipEmptyLines: false });
  const broken = errors.find((e) => e.type === 'Quotes');
  if (broken)
    return refuse(
      broken.code === 'MissingQuotes'
        ? $localize`The file ends inside a quoted field: it was cut off. Export it again, whole.`
        : $localize`Row ${(broken.row ?? 0) + 1} has a quotation mark where none can be. Double it inside a quoted field.`,
    );
  const [header = [], ...body] = data;
  const names = header.map((h) => h.trim());
  const unknown = names.find((n) => !known.includes(n));
  if (unknown !== undefined)
    return refuse(
      $localize`The column “${unknown.slice(0, 40)}” is not known here. The first line must name columns from: ${known.join(', ')}.`,
    );
  const twice = names.find((n, i) => names.indexOf(n) !== i);
  if (twice !== undefined)
    return refuse($localize`The column “${twice}” stands twice in the first line. Take one away.`);
  const rows: { line: number; cells: string[] }[] = [];
  let line = 2;
  for (const [i, cells] of body.entries()) {
    const blank = cells.length === 1 && (cells[0] ?? '').trim() === '';
    if (!blank) {
      if (cells.length !== names.length)
        return refuse(raggedMessage(line, cells, names.length, separator, i === body.length - 1));
      rows.push({ line, cells });
    }
    line += 1 + cells.reduce((n, cell) => n + (cell.match(/\n/g)?.length ?? 0), 0);
  }
  return { ok: true, table: { header: names, rows } };
}

function raggedMessage(
  line: number,
  cells: readonly string[],
  wanted: number,
  separator: Separator,
  last: boolean,
): string {
  const other = separator === ',' ? ';' : ',';
  const label = separator === ',' ? ['commas', 'semicolons'] : ['semicolons', 'commas'];
  if (cells.length < wanted && cells.join('').split(other).length >= wanted)
    return $localize`Line ${line} is separated by ${label[1]}, the first line by ${label[0]}. Use one of the two throughout.`;
  if (last && cells.length < wanted)
    return $localize`The last line (${line}) has ${cells.length} of ${wanted} fields: the file may be cut off. Export it again, whole.`;
  return $localize`Line ${line} has ${cells.length} fields, the first line ${wanted}. Put fields that hold a ${separator === ',' ? $localize`comma` : $localize`semicolon`} in quotation marks.`;
}

/**
 * Writes a table: CRLF, quotes where needed, safe for spreadsheets; semicolons bring the byte-order mark that
 * spreadsheets want. Without a header, rows that go on where a table stopped.
 */
export function writeTable(
  header: readonly string[] | undefined,
  rows: readonly (readonly (string | number | null)[])[],
  separator: Separator,
): string {
  const cells = rows.map((row) =>
    row.map((cell) => (cell === null ? '' : typeof cell === 'number' ? String(cell) : safeCell(cell))),
  );
  const text = Papa.unparse([...(header ? [[...header]] : []), ...cells], { delimiter: separator, newline: '\r\n' });
  return `${header && separator === ';' ? BOM : ''}${text}\r\n`;
}
