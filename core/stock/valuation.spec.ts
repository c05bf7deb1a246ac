import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ValuationMethod, ValuedMovement } from './valuation';
import { VALUATION_METHODS, formatMoney, readMoney, valueStock, withoutReversed } from './valuation';

let n = 0;
const move = (
  amount: number,
  costMinor: number | null = null,
  conversionId: string | null = null,
  materialId = 'weld',
): ValuedMovement => ({ id: `m${(n += 1)}`, materialId, amount, costMinor, conversionId });
const value = (movements: readonly ValuedMovement[], method: ValuationMethod) => {
  const takenMinor = new Map<string, number>();
  const byMaterial = valueStock(movements, method, (id, minor) => takenMinor.set(id, minor));
  return { byMaterial, takenMinor };
};

describe('valueStock', () => {
  const twoDeliveries = [move(100, 1000), move(100, 2000), move(-150)];
  it('takes the oldest cost first', () =>
    expect(value(twoDeliveries, 'fifo').byMaterial.get('weld')).toEqual({
      receivedMinor: 3000,
      usedMinor: 2000,
      onHandMinor: 1000,
    }));
  it('mixes at the moving average', () =>
    expect(value(twoDeliveries, 'average').byMaterial.get('weld')).toEqual({
      receivedMinor: 3000,
      usedMinor: 2250,
      onHandMinor: 750,
    }));
  it('passes value through a conversion to what it makes', () => {
    const movements = [
      move(600, 600, null, 'fresh'),
      move(-400, null, 'c', 'fresh'),
      move(80, null, 'c', 'dried'),
      move(-40, null, null, 'dried'),
    ];
    const { byMaterial } = value(movements, 'fifo');
    expect(byMaterial.get('fresh')).toEqual({ receivedMinor: 600, usedMinor: 400, onHandMinor: 200 });
    expect(byMaterial.get('dried')).toEqual({ receivedMinor: 400, usedMinor: 200, onHandMinor: 200 });
  });
  it('values what was found and what was given at nothing', () =>
    expect(value([move(50), move(-20)], 'fifo').byMaterial.get('weld')).toEqual({
      receivedMinor: 0,
      usedMinor: 0,
      onHandMinor: 0,
    }));

  it.each(VALUATION_METHODS)('%s: value used and value left are what was paid, whatever happened', (method) => {
    const step = fc.record({
      amount: fc.integer({ min: -500, max: 500 }).filter((a) => a !== 0),
      cost: fc.integer({ min: 0, max: 99_999 }),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
        let onHand = 0;
        const movements: ValuedMovement[] = [];
        for (const { amount, cost } of steps) {
          const real = amount < 0 ? Math.max(amount, -onHand) : amount;
          if (real === 0) continue;
          onHand += real;
          movements.push(move(real, real > 0 ? cost : null));
        }
        const { byMaterial, takenMinor } = value(movements, method);
        const worth = byMaterial.get('weld') ?? { receivedMinor: 0, usedMinor: 0, onHandMinor: 0 };
        expect(worth.onHandMinor + worth.usedMinor).toBe(movements.reduce((sum, m) => sum + (m.costMinor ?? 0), 0));
        expect([...takenMinor.values()].reduce((sum, v) => sum + v, 0)).toBe(worth.usedMinor);
        if (onHand === 0) expect(worth.onHandMinor).toBe(0);
        expect(worth.onHandMinor).toBeGreaterThanOrEqual(0);
        for (const minor of takenMinor.values()) expect(Number.isInteger(minor)).toBe(true);
      }),
      { seed: 51 },
    );
  });

  it.each(VALUATION_METHODS)('%s: a reversal restores the value exactly', (method) => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 300 }),
        fc.integer({ min: 0, max: 9999 }),
        fc.integer({ min: 1, max: 300 }),
        (amount, cost, used) => {
          const taken = Math.min(used, amount);
          const before = [{ ...move(amount, cost), reversesId: null }];
          const use = { ...move(-taken), reversesId: null };
          const after = withoutReversed([...before, use, { ...move(taken), reversesId: use.id }]);
          expect(value(after, method).byMaterial).toEqual(value(before, method).byMaterial);
        },
      ),
      { seed: 52 },
    );
  });
});

describe('money', () => {
  it.each<[string, number | undefined]>([
    ['12.50', 1250],
    ['12,5', 1250],
    ['8', 800],
    ['£ 8.05', 805],
    ['0', 0],
    ['', undefined],
    ['-3', undefined],
    ['12.505', undefined],
    ['free', undefined],
    ['1,200.00', 120_000],
  ])('reads “%s”', (text, minor) => expect(readMoney(text)).toBe(minor));
  it('writes two places and the currency', () =>
    expect([formatMoney(1250, 'EUR'), formatMoney(-5, 'GBP')]).toEqual(['€12.50', '−£0.05']));
});
