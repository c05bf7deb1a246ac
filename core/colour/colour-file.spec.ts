import { describe, expect, it } from 'vitest';
import { readColourFile, sayColourFileRefusal } from './colour-file';
import { BANDS_NM } from './spectrum';

const cgats = (fields: readonly string[], rows: readonly string[]): string =>
  [
    'CGATS.17',
    'ORIGINATOR "a reader"',
    `NUMBER_OF_FIELDS ${fields.length}`,
    'BEGIN_DATA_FORMAT',
    fields.join(' '),
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS ${rows.length}`,
    'BEGIN_DATA',
    ...rows,
    'END_DATA',
    '',
  ].join('\r\n');
const bands = (prefix: string): string[] => BANDS_NM.map((nm) => `${prefix}${nm}`);
const grey = (value: number): string => BANDS_NM.map(() => String(value)).join(' ');

describe('files of colours', () => {
  it.each(['SPECTRAL_NM', 'SPECTRAL_', 'NM_', 'R_'])(
    'CGATS.17 text with fields %s400 … gives spectra by name',
    (prefix) => {
      const read = readColourFile(
        cgats(['SAMPLE_ID', 'SAMPLE_NAME', ...bands(prefix)], [`1 "weld, first dip" ${grey(0.4)}`]),
      );
      expect(read).toMatchObject({ ok: true, swatches: [{ name: 'weld, first dip', lab: null }] });
      expect(read.ok && read.swatches[0]?.spectrum).toEqual(BANDS_NM.map(() => 0.4));
    },
  );
  it('in per cent are what they are', () => {
    const read = readColourFile(cgats(['SAMPLE_ID', ...bands('SPECTRAL_NM')], [`A7 ${grey(40)}`]));
    expect(read.ok && [read.swatches[0]?.name, read.swatches[0]?.spectrum?.[0]]).toEqual(['A7', 0.4]);
  });
  it('with L*, a* and b* alone give colours', () => {
    const read = readColourFile(
      cgats(['SAMPLE_NAME', 'LAB_L', 'LAB_A', 'LAB_B'], ['weld 74.2 -4.1 52', 'madder 41 38 22']),
    );
    expect(read.ok && read.swatches.map((s) => [s.name, s.lab?.L])).toEqual([
      ['weld', 74.2],
      ['madder', 41],
    ]);
  });
  it.each<[string, string]>([
    ['commas', ['name', ...bands('')].join(',') + '\n' + ['weld', ...BANDS_NM.map(() => 0.4)].join(',')],
    [
      'semicolons and decimal commas',
      ['Name', ...bands('')].join(';') + '\n' + ['weld', ...BANDS_NM.map(() => '0,4')].join(';'),
    ],
    [
      'tabs',
      ['sample', ...BANDS_NM.map((nm) => `${nm} nm`)].join('\t') +
        '\n' +
        ['weld', ...BANDS_NM.map(() => 0.4)].join('\t'),
    ],
  ])('tables parted by %s are read', (_name, text) => {
    const read = readColourFile(text);
    expect(read.ok && read.swatches.map((s) => [s.name, s.spectrum?.[5]])).toEqual([['weld', 0.4]]);
  });
  it.each<[string, string, RegExp]>([
    ['prose', 'a nice yellow', /neither CGATS.17 text nor a table/],
    ['a table of something else', 'jar,place\nWEL-1,shelf', /names no wavelengths/],
    ['no rows', cgats(['SAMPLE_ID', ...bands('NM_')], []), /no rows/],
    [
      'a row cut off',
      cgats(['SAMPLE_ID', ...bands('NM_')], ['1 0.2 0.3']),
      /Row 1 has 3 fields, and the heading has 32/,
    ],
    [
      'bands missing',
      cgats(['SAMPLE_ID', 'NM_400', 'NM_410'], ['1 0.2 0.3']),
      /Row 1: The spectrum goes from 400 to 410/,
    ],
    [
      'a word for a number',
      cgats(['SAMPLE_ID', ...bands('NM_')], [`1 ${grey(0.4).replace('0.4', 'dark')}`]),
      /At 400 nm there is no number/,
    ],
    ['L* of 140', 'name,L,a,b\nweld,140,0,0', /Row 1: L\* goes from 0 to 100/],
  ])('%s says what to do', (_name, text, said) => {
    const read = readColourFile(text);
    expect(read.ok ? 'read' : sayColourFileRefusal(read.refusal)).toMatch(said);
  });
});
