import { describe, expect, it } from 'vitest';
import { decodeText, readCell, readTable, safeCell, writeTable } from './csv-table';
import { materialFrom, stockLotFrom } from '../stores/transfer/records';
import { movementFrom } from '../stores/transfer/movement-records';
import { guarded, idFrom, rowOf } from '../stores/transfer/read-cells';

const KNOWN = ['tag', 'kind', 'amount', 'note'];
const cellsOf = (text: string): string[][] | string => {
  const read = readTable(text, KNOWN);
  return read.ok ? read.table.rows.map((r) => [...r.cells]) : read.message;
};

describe('a table', () => {
  it.each<[string, string, string[][]]>([
    ['commas', 'tag,kind\nA,use\n', [['A', 'use']]],
    ['semicolons', 'tag;kind\r\nA;use\r\n', [['A', 'use']]],
    ['a comma in quotes', 'tag,note\nA,"one, two"', [['A', 'one, two']]],
    ['a mark doubled', 'tag,note\nA,"say ""so"""', [['A', 'say "so"']]],
    [
      'a line break in quotes',
      'tag,note\nA,"one\ntwo"\nB,x',
      [
        ['A', 'one\ntwo'],
        ['B', 'x'],
      ],
    ],
    ['blank lines between', 'tag,kind\n\nA,use\n\n', [['A', 'use']]],
    ['one column', 'tag\nA\nB', [['A'], ['B']]],
    ['spaces round a name', ' tag , kind \nA,use', [['A', 'use']]],
    ['a decimal comma', 'tag;amount\nA;1,5', [['A', '1,5']]],
  ])('is read with %s', (_name, text, rows) => expect(cellsOf(text)).toEqual(rows));

  it('keeps the line each row began on, whatever was broken over lines before it', () => {
    const read = readTable('tag,note\nA,"one\ntwo\nthree"\n\nB,x', KNOWN);
    expect(read.ok && read.table.rows.map((r) => r.line)).toEqual([2, 6]);
  });

  it.each<[string, string, RegExp]>([
    ['too many fields', 'tag,kind\nA,use,1', /Line 2 has 3 fields, the first line 2/],
    ['too few in the middle', 'tag,kind,note\nA,use\nB,use,x', /Line 2 has 2 fields/],
    ['the other separator', 'tag;kind;note\nA,use,x\nB;use;x', /separated by commas, the first line by semicolons/],
    ['the end missing', 'tag,kind,note\nA,use,x\nB,u', /last line \(3\) has 2 of 3 fields/],
    ['a stray mark', 'tag,note\nA,x"y"z,\nB,"a"b', /quotation mark|fields/],
    ['nothing', '', /nothing in that file/],
    ['an unknown column', 'tag,price\nA,1', /“price” is not known/],
  ])('is refused with %s', (_name, text, message) => expect(cellsOf(text)).toMatch(message));

  it('is written with CRLF, quotes where needed and nothing a spreadsheet would run', () => {
    expect(
      writeTable(
        ['tag', 'note'],
        [
          ['A', '=SUM(A1)'],
          ['B', 'x,y'],
          ['C', null],
          ['D', -5],
        ],
        ',',
      ),
    ).toBe('tag,note\r\nA,\'=SUM(A1)\r\nB,"x,y"\r\nC,\r\nD,-5\r\n');
    expect(writeTable(['tag'], [['A']], ';')).toBe('\ufefftag\r\nA\r\n');
    expect(writeTable(undefined, [['A', 'b']], ';')).toBe('A;b\r\n');
  });

  it.each<[string, string | undefined]>([
    ['plain', 'plain'],
    ['-5', '-5'],
    ['+3,5', '+3,5'],
    ['=1', undefined],
    ['@a', undefined],
    ['-x', undefined],
    ["'=1", '=1'],
    ["''=1", "'=1"],
    ["'plain", "'plain"],
  ])('reads the cell %s', (cell, meant) => expect(readCell(cell)).toBe(meant));
  it.each([
    ['=1', "'=1"],
    ["'=1", "''=1"],
    ['a=1', 'a=1'],
    ["it's", "it's"],
    ['', ''],
  ])('makes %s safe', (text, safe) => expect(safeCell(text)).toBe(safe));
});

describe('bytes', () => {
  it.each<[string, number[], boolean]>([
    ['UTF-8', [0xc3, 0xa9], true],
    ['UTF-8 with its mark', [0xef, 0xbb, 0xbf, 0x61], true],
    ['Latin-1', [0xe9, 0x61], false],
    ['UTF-16', [0xff, 0xfe, 0x61, 0], false],
    ['zeros', [0x61, 0, 0x62], false],
  ])('of %s are told', (_name, bytes, ok) => expect(decodeText(new Uint8Array(bytes)).ok).toBe(ok));
  it('lose only the mark', () =>
    expect(decodeText(new Uint8Array([0xef, 0xbb, 0xbf, 0x61]))).toEqual({ ok: true, text: 'a' }));
});

describe('rows', () => {
  const stockLots = new Map([
    ['WEL-1', { id: '01900000-0000-7000-8000-000000000001', measure: 'weight' as const }],
    ['BLK', { id: '01900000-0000-7000-8000-000000000002', measure: 'pieces' as const }],
  ]);
  const move = (row: Record<string, string>) =>
    guarded(() =>
      movementFrom(
        { tag: 'WEL-1', kind: 'use', amount: '-5', unit: 'g', at: '2026-05-01', ...row },
        stockLots,
        'Ada',
        'UTC',
        () => 0,
      ),
    );
  it('are read by their columns', () => {
    expect(rowOf(['tag', 'note'], ['A', "'=x"])).toEqual({ tag: 'A', note: '=x' });
    expect(move({})).toMatchObject({
      ok: true,
      value: { amount: -5000, by: 'Ada', at: '2026-05-01T12:00:00.000Z', lot: '' },
    });
    expect(move({ amount: '-1,25', unit: 'kg' })).toMatchObject({ value: { amount: -1_250_000 } });
    expect(move({ tag: 'BLK', amount: '-2', unit: 'pieces' })).toMatchObject({ value: { amount: -2 } });
    expect(move({ kind: 'count', amount: '0', unit: 'g' })).toMatchObject({ ok: true, value: { amount: 0 } });
  });
  it.each<[string, Record<string, string>, RegExp]>([
    ['no such jar', { tag: 'NO' }, /no jar tagged “NO”/],
    ['half a packet', { tag: 'BLK', amount: '-1.5', unit: 'pieces' }, /whole/],
    ['a unit of another kind', { unit: 'stone' }, /not a unit of weight/],
    ['use that brings in', { amount: '5' }, /below zero/],
    ['a receipt that takes', { kind: 'receive' }, /above zero/],
    ['a kind that is none', { kind: 'lose' }, /kind|can’t be used/],
    ['a day that is none', { at: 'May' }, /time|form/],
    ['a reversal of nothing', { kind: 'reverse' }, /names the movement/],
    [
      'a conversion of no kind',
      { kind: 'convert', conversion: '01900000-0000-7000-8000-000000000009', conversionKind: 'melt' },
      /not a way stock changes/,
    ],
    ['no unit', { unit: '' }, /Which unit/],
  ])('are refused with %s', (_name, change, message) => {
    const read = move(change);
    expect(!read.ok && read.message).toMatch(message);
  });
  it('of stock lots know their material by name, whatever its case', () => {
    const weld = new Map([['weld', { id: '01900000-0000-7000-8000-000000000003' }]]);
    const lot = (row: Record<string, string>) =>
      guarded(() => stockLotFrom({ tag: 'W', material: ' WELD ', receivedOn: '2026-05-01', ...row }, weld));
    expect(lot({ cost: '12,50', reference: 'yes', tareG: '380' })).toMatchObject({
      ok: true,
      value: { costMinor: 1250, facts: { reference: true, tareMg: 380_000, gathering: null } },
    });
    for (const [change, message] of [
      [{ material: 'Woad' }, /no material called “Woad”/],
      [{ bestBefore: '2025-01-01' }, /past its best/],
      [{ cost: 'much' }, /not an amount of money/],
      [{ reference: 'perhaps' }, /neither yes nor no/],
      [{ moisturePercent: 'damp' }, /not a number/],
      [{ liquor: '{' }, /can’t be read/],
    ] as const) {
      const read = lot(change);
      expect(!read.ok && read.message).toMatch(message);
    }
  });
  it('of materials are checked as any material is', () => {
    expect(
      guarded(() =>
        materialFrom({ name: 'Weld', kind: 'dyestuff', forms: 'fresh dried', seasonFrom: '6', seasonTo: '8' }),
      ),
    ).toMatchObject({
      ok: true,
      value: { measure: 'weight', facts: { forms: ['fresh', 'dried'], season: { fromMonth: 6, toMonth: 8 } } },
    });
    for (const row of [
      { name: '', kind: 'dyestuff' },
      { name: 'Weld', kind: 'spell' },
      { name: 'Tin crystals', kind: 'mordant' },
      { name: 'Weld', kind: 'dyestuff', forms: 'pickled' },
    ])
      expect(guarded(() => materialFrom(row)).ok).toBe(false);
  });
  it('without ids are known again by what they say, and twins are told apart', () => {
    expect(idFrom('a', 'b')).toBe(idFrom('a', 'b'));
    expect(new Set([idFrom('a', 'b'), idFrom('ab', ''), idFrom('a', 'b', '1')]).size).toBe(3);
    expect(idFrom('a')).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-9[0-9a-f]{3}-[0-9a-f]{12}$/);
  });
});
