import type { Lab } from './lab';
import type { Spectrum, SpectrumRefusal } from './spectrum';
import { readSpectrum, saySpectrumRefusal } from './spectrum';

/** One swatch of a file: its spectrum, or a colour that was worked out elsewhere. */
export type FileSwatch = { readonly name: string } & (
  { readonly spectrum: Spectrum; readonly lab: null } | { readonly spectrum: null; readonly lab: Lab }
);

/** Why a file of colours can’t be read. */
export type ColourFileRefusal =
  | { readonly code: 'noTable' }
  | { readonly code: 'noColours' }
  | { readonly code: 'noRows' }
  | { readonly code: 'fields'; readonly row: number; readonly wanted: number; readonly found: number }
  | { readonly code: 'spectrum'; readonly row: number; readonly refusal: SpectrumRefusal }
  | { readonly code: 'lab'; readonly row: number };

/** Why a file of colours can’t be read, in a sentence that says what to do. */
export function sayColourFileRefusal(refusal: ColourFileRefusal): string {
  switch (refusal.code) {
    case 'noTable':
      return $localize`That is neither CGATS.17 text nor a table with a heading. Save the readings as one of them.`;
    case 'noColours':
      return $localize`The heading names no wavelengths and no L*, a*, b*. Save the spectra, 400 to 700 nm, or the colours, with it.`;
    case 'noRows':
      return $localize`The table has a heading and no rows. Read a swatch, and save it again.`;
    case 'fields':
      return $localize`Row ${refusal.row} has ${refusal.found} fields, and the heading has ${refusal.wanted}. Save the file again, whole.`;
    case 'spectrum':
      return $localize`Row ${refusal.row}:row:: ${saySpectrumRefusal(refusal.refusal)}`;
    case 'lab':
      return $localize`Row ${refusal.row}:row:: L* goes from 0 to 100, a* and b* from −200 to 200. Read that swatch again.`;
  }
}

/** The swatches of a file; or why it can’t be read. */
export type ReadColourFile =
  | { readonly ok: true; readonly swatches: readonly FileSwatch[] }
  | { readonly ok: false; readonly refusal: ColourFileRefusal };

/** More than this is no reflectance factor but per cent. */
const PER_CENT_FROM = 2;
/** `SPECTRAL_NM400`, `SPECTRAL_400`, `NM_400`, `R_400`, `400`, `400 nm`. */
const WAVELENGTH = /^(?:[a-z_]*?)_?(\d{3})(?:\s*nm)?$/i;
const LAB_FIELDS = {
  L: /^(?:lab_?)?l\*?$/i,
  a: /^(?:lab_?)?a\*?$/i,
  b: /^(?:lab_?)?b\*?$/i,
} as const;
const NAME_FIELDS = [/^sample_?name$/i, /^name$/i, /^sample_?id$/i, /^sample$/i];

/**
 * Reads spectra or L*a*b* from CGATS.17 text (ANSI CGATS.17-2009: BEGIN_DATA_FORMAT, BEGIN_DATA) or from a table whose
 * heading names wavelengths, or L*, a* and b*: parted by commas, semicolons or tabs. Values in per cent are taken as
 * such where one of them is above 2.
 */
export function readColourFile(text: string): ReadColourFile {
  const refuse = (refusal: ColourFileRefusal): ReadColourFile => ({ ok: false, refusal });
  const table = /BEGIN_DATA_FORMAT/.test(text) ? readCgats(text) : readTable(text);
  if (!table) return refuse({ code: 'noTable' });
  const { heading, rows } = table;
  const bands = heading.flatMap((field, i) => {
    const nm = Number(WAVELENGTH.exec(field)?.[1]);
    return nm >= 300 && nm <= 800 ? [{ nm, i }] : [];
  });
  const at = (pattern: RegExp): number => heading.findIndex((field) => pattern.test(field));
  const lab = [at(LAB_FIELDS.L), at(LAB_FIELDS.a), at(LAB_FIELDS.b)] as const;
  if (bands.length === 0 && lab.includes(-1)) return refuse({ code: 'noColours' });
  if (rows.length === 0) return refuse({ code: 'noRows' });
  const nameAt = NAME_FIELDS.map(at).find((i) => i !== -1);
  const swatches: FileSwatch[] = [];
  for (const [i, fields] of rows.entries()) {
    const row = i + 1;
    if (fields.length !== heading.length)
      return refuse({ code: 'fields', row, wanted: heading.length, found: fields.length });
    const name = (nameAt === undefined ? '' : fields[nameAt]) || $localize`swatch ${row}`;
    const number = (field: number): number => Number((fields[field] ?? '').replace(',', '.') || NaN);
    if (bands.length === 0) {
      const [L, a, b] = [number(lab[0]), number(lab[1]), number(lab[2])];
      if (!(L >= 0 && L <= 100 && Math.abs(a) <= 200 && Math.abs(b) <= 200)) return refuse({ code: 'lab', row });
      swatches.push({ name, spectrum: null, lab: { L, a, b } });
      continue;
    }
    const values = bands.map((band) => number(band.i));
    const scale = values.some((v) => v > PER_CENT_FROM) ? 100 : 1;
    const read = readSpectrum(
      bands.map((band) => band.nm),
      values.map((v) => v / scale),
    );
    if (!read.ok) return refuse({ code: 'spectrum', row, refusal: read.refusal });
    swatches.push({ name, spectrum: read.spectrum, lab: null });
  }
  return { ok: true, swatches };
}

interface Table {
  readonly heading: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Fields of a row; a mark between quotes parts nothing. */
function splitRow(line: string, mark: string): string[] {
  const fields = [''];
  let isQuoted = false;
  for (const sign of line) {
    if (sign === '"') isQuoted = !isQuoted;
    if (sign === mark && !isQuoted) fields.push('');
    else fields[fields.length - 1] += sign;
  }
  return fields;
}

/** Words of a line; what stands in quotes is one. */
const wordsOf = (line: string): string[] => [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((m) => m[1] ?? m[2] ?? '');

function readCgats(text: string): Table | undefined {
  const lines = text.split(/\r\n?|\n/).map((line) => line.trim());
  const between = (from: string, to: string): string[] | undefined => {
    const [start, end] = [lines.indexOf(from), lines.indexOf(to)];
    return start === -1 || end < start
      ? undefined
      : lines.slice(start + 1, end).filter((l) => l !== '' && !l.startsWith('#'));
  };
  const heading = between('BEGIN_DATA_FORMAT', 'END_DATA_FORMAT')?.flatMap(wordsOf);
  const data = between('BEGIN_DATA', 'END_DATA');
  return heading && data && heading.length > 0 ? { heading, rows: data.map(wordsOf) } : undefined;
}

function readTable(text: string): Table | undefined {
  const lines = text
    .split(/\r\n?|\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const [first, ...rest] = lines;
  const mark = ['\t', ';', ','].find((m) => first?.includes(m));
  if (first === undefined || mark === undefined) return undefined;
  const fields = (line: string): string[] =>
    splitRow(line, mark).map((field) => field.trim().replace(/^"(.*)"$/, '$1'));
  return { heading: fields(first.replace(/^\ufeff/, '')), rows: rest.map(fields) };
}
