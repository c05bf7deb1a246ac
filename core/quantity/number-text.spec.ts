import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatAmount, readAmount } from './amount';
import { roundToResolution, weighableDose, weighingToleranceG } from './balance';
import { readLotSize } from './lot-size';
import { formatWeight, readWeight } from './weight';
import { readNumberText } from './number-text';
import { formatVolume } from './volume';
import { granted } from '../result.fixture';

describe('readWrittenNumber', () => {
  it.each<[string, number | undefined]>([
    ['12', 12],
    ['2.4', 2.4],
    ['1,5', 1.5],
    ['1/2', 0.5],
    ['1 1/2', 1.5],
    ['2½', 2.5],
    ['¾', 0.75],
    ['-3', -3],
    ['−3', -3],
    ['.5', 0.5],
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ['1,500', undefined],
    ['0,125', 0.125],
    ['1/0', undefined],
    ['a', undefined],
    ['', undefined],
  ])('%s is %s', (text, value) => expect(readNumberText(text)).toBe(value));
});

describe('readWeight', () => {
  it.each<[string, number]>([
    ['2.4 kg', 2400],
    ['1,5 kg', 1500],
    ['8 oz', 226.796185],
    ['3 lb 4 oz', 1474.1752025],
    ['3lb 4oz', 1474.1752025],
    ['1/2 lb', 226.796185],
    ['250g', 250],
    ['500 mg', 0.5],
    ['½ lb', 226.796185],
    ['2 Kilos', 2000],
  ])('%s', (text, weightG) => {
    const reading = readWeight(text);
    expect(reading.ok && reading.weightG).toBeCloseTo(weightG, 6);
  });

  it.each<[string, string]>([
    ['', 'empty'],
    ['abc', 'notANumber'],
    ['12', 'noUnit'],
    ['5 stone', 'unknownUnit'],
    ['5 constructor', 'unknownUnit'],
    ['-3 g', 'notPositive'],
    ['0 g', 'notPositive'],
    ['900 t', 'unknownUnit'],
    ['900000 kg', 'tooHeavy'],
    ['0.0001 mg', 'tooLight'],
    ['1,500 g', 'ambiguousNumber'],
    ['NaN g', 'notANumber'],
    ['Infinity kg', 'notANumber'],
    ['1e9 kg', 'unknownUnit'],
  ])('refuses “%s” as %s, in a sentence', (text, code) => {
    const reading = readWeight(text);
    expect(reading.ok ? '' : reading.code).toBe(code);
    expect(reading.ok ? '' : reading.message).toMatch(/[.?]$/);
  });

  it('reads back what it writes, to the digits written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400_000_000 }), (mg) => {
        const back = readWeight(formatWeight(mg / 1000));
        expect(Math.abs(granted(back).weightG - mg / 1000)).toBeLessThanOrEqual(
          mg >= 1_000_000 ? 0.5 : mg >= 100_000 ? 0.05 : mg >= 10_000 ? 0.005 : 0.0005,
        );
      }),
      { seed: 21 },
    );
  });
});

describe('readLotSize', () => {
  const base = { usualPieceWeightG: 100, pieceWord: 'hank' };
  it.each<[string, number, number]>([
    ['12 hanks of 8 oz', 12, 226.796185],
    ['12 x 100 g', 12, 100],
    ['12×100g', 12, 100],
    ['12 of 100 g', 12, 100],
    ['2.4 kg', 24, 100],
    ['1 hank of 3 lb 4 oz', 1, 1474.1752025],
    ['5 pieces at 1,5 kg', 5, 1500],
    ['250 g', 3, 250 / 3],
    ['30 g', 1, 30],
  ])('%s', (text, pieces, weightG) => {
    const reading = readLotSize(text, base);
    expect(reading.ok && reading.size.pieces).toBe(pieces);
    expect(reading.ok && reading.size.pieceWeightG).toBeCloseTo(weightG, 6);
  });

  it.each<[string, string]>([
    ['', 'empty'],
    ['12', 'noUnit'],
    ['-4', 'notPositive'],
    ['0 hanks of 100 g', 'notPositive'],
    ['-2 hanks of 100 g', 'notPositive'],
    ['2.5 hanks of 100 g', 'notWhole'],
    ['3 hanks of 900 kg', 'tooHeavy'],
    ['1 hank of 90 kg', 'pieceTooHeavy'],
    ['9999 x 1 g', 'tooMany'],
    ['3 hanks of 0 g', 'notPositive'],
    ['x'.repeat(5000), 'notASize'],
    ['3 hanks of <script>', 'notANumber'],
    ['400 kg', 'tooMany'],
    ['a hank', 'notANumber'],
  ])('refuses “%s” as %s', (text, code) => {
    const reading = readLotSize(text, base);
    expect(reading.ok ? '' : reading.code).toBe(code);
    expect(reading.ok ? '' : reading.message.length).toBeLessThan(260);
  });

  it('keeps a bare total whole however it is divided', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 150_000 }), (totalG) => {
        const { size } = granted(readLotSize(`${totalG} g`, base));
        expect(size.pieces * size.pieceWeightG).toBeCloseTo(totalG, 6);
      }),
      { seed: 22 },
    );
  });
});

describe('readAmount', () => {
  it.each<[string, 'weight' | 'volume', number]>([
    ['1.5 l', 'volume', 1_500_000],
    ['500ml', 'volume', 500_000],
    ['2 dl', 'volume', 200_000],
    ['1 kg', 'weight', 1_000_000],
    ['0.1 g', 'weight', 100],
  ])('%s by %s', (text, measure, amount) => {
    expect(readAmount(text, measure)).toEqual({ ok: true, amount });
  });
  it('counts an empty jar only where nothing is a count', () => {
    expect(readAmount('0 g', 'weight', { allowNothing: true })).toEqual({ ok: true, amount: 0 });
    expect(readAmount('0 g', 'weight').ok).toBe(false);
    expect(readAmount('0 ml', 'volume').ok).toBe(false);
  });
  it.each(['3', '2 kg', '-1 l', 'x ml', '9999999 l', '5 toString'])('refuses %s as a volume', (text) =>
    expect(readAmount(text, 'volume').ok).toBe(false),
  );
  it('writes both measures', () =>
    expect([formatAmount(1_500_000, 'weight'), formatAmount(250_000, 'volume'), formatVolume(12_345)]).toEqual([
      '1.5 kg',
      '250 ml',
      '12.35 l',
    ]));
});

describe('the balance', () => {
  const balance = { name: 'bench balance', resolutionG: 0.1, capacityG: 300 };
  it.each<[number, number, number]>([
    [12.34, 0.1, 12.3],
    [12.35, 0.1, 12.4],
    [7, 5, 5],
    [8, 5, 10],
    [0.04, 0.1, 0],
    [0.3, 0.1, 0.3],
  ])('rounds %f to steps of %f', (exact, step, rounded) => expect(roundToResolution(exact, step)).toBe(rounded));
  it('refuses a balance without a step', () => expect(() => roundToResolution(1, 0)).toThrow(RangeError));
  it('warns near its step and over its capacity', () => {
    expect(weighableDose(0.6, balance, '', []).working.notes.join()).toContain('stock solution');
    expect(weighableDose(900, balance, '', []).working.notes.join()).toContain('3 portions');
    expect(weighableDose(90, balance, '', []).working.notes).toHaveLength(1);
  });
  it('is never further off than half a step', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 5000, noNaN: true }), fc.constantFrom(0.01, 0.1, 1, 5), (g, step) => {
        expect(Math.abs(roundToResolution(g, step) - g)).toBeLessThanOrEqual(step / 2 + 1e-6);
      }),
      { seed: 23 },
    );
  });
  it('allows a step or two per cent, whichever is more', () =>
    expect([
      weighingToleranceG(1, 0.1),
      weighingToleranceG(100, 0.1),
      weighingToleranceG(100, 0.1, 0.5),
      weighingToleranceG(100, 1, 0.5),
    ]).toEqual([0.1, 2, 0.5, 1]));
});
