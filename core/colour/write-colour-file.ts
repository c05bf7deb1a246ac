import type { ColourConditions, Lab } from './lab';
import type { Spectrum } from './spectrum';
import { BANDS_NM } from './spectrum';

/** A swatch as it is written into a file: its colour, and its spectrum where it was read. */
export interface WrittenSwatch {
  readonly name: string;
  readonly lab: Lab;
  readonly conditions: ColourConditions;
  readonly spectrum: Spectrum | null;
}

const round = (value: number, places: number): string => String(Number(value.toFixed(places)));
/** Quotes would end a name, and a line break would end the row. */
const plain = (name: string): string => name.replace(/["\s]+/g, ' ').trim();
const hasSpectra = (swatches: readonly WrittenSwatch[]): boolean => swatches.every((s) => s.spectrum !== null);

/**
 * Colours as CGATS.17 text (ANSI CGATS.17-2009). Spectra, in per cent, are written where every swatch has one; the
 * conditions stand as keywords where all share them.
 */
export function writeCgats(swatches: readonly WrittenSwatch[]): string {
  const spectral = swatches.length > 0 && hasSpectra(swatches);
  const shared = new Set(
    swatches.map(({ conditions: c }) => `${c.illuminant} illuminant, ${c.observer} degree observer`),
  );
  const [conditions] = shared.size === 1 ? [...shared] : [];
  const fields = ['SAMPLE_ID', 'SAMPLE_NAME', 'LAB_L', 'LAB_A', 'LAB_B'];
  const bands = spectral ? BANDS_NM.map((nm) => `SPECTRAL_NM${nm}`) : [];
  const rows = swatches.map(({ name, lab, spectrum }, i) =>
    [
      i + 1,
      `"${plain(name)}"`,
      round(lab.L, 3),
      round(lab.a, 3),
      round(lab.b, 3),
      ...(spectral ? (spectrum ?? []).map((r) => round(r * 100, 4)) : []),
    ].join('\t'),
  );
  return [
    'CGATS.17',
    'ORIGINATOR\t"Vestigia"',
    ...(conditions === undefined ? [] : [`MEASUREMENT_SOURCE\t"${conditions}"`]),
    `NUMBER_OF_FIELDS\t${fields.length + bands.length}`,
    'BEGIN_DATA_FORMAT',
    [...fields, ...bands].join('\t'),
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS\t${rows.length}`,
    'BEGIN_DATA',
    ...rows,
    'END_DATA',
    '',
  ].join('\n');
}

/** The same as a table parted by commas (RFC 4180), each row with the light and observer it was read under. */
export function writeColourTable(swatches: readonly WrittenSwatch[]): string {
  const spectral = swatches.length > 0 && hasSpectra(swatches);
  const heading = ['name', 'L*', 'a*', 'b*', 'illuminant', 'observer', ...(spectral ? BANDS_NM.map(String) : [])];
  const rows = swatches.map(({ name, lab, conditions, spectrum }) => [
    `"${plain(name)}"`,
    round(lab.L, 3),
    round(lab.a, 3),
    round(lab.b, 3),
    conditions.illuminant,
    conditions.observer,
    ...(spectral ? (spectrum ?? []).map((r) => round(r, 6)) : []),
  ]);
  return [heading, ...rows].map((row) => row.join(',')).join('\r\n') + '\r\n';
}
