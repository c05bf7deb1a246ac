import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTagCode, writeTagCode } from '../trace/tag-code';
import { adviseLift, depthAt, depthShare, gradedPulls, matchSteps } from './uptake';

const taken = (atLast: number, rate: number, minutes: readonly number[], noise: readonly number[] = []) =>
  minutes.map((minute, i) => ({ minute, depth: depthAt({ atLast, ratePerMin: rate }, minute) + (noise[i] ?? 0) }));

describe('when to lift', () => {
  it('finds the curve it was made from, and the minute on it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.1, max: 2, noNaN: true }),
        fc.double({ min: 0.01, max: 0.1, noNaN: true }),
        (atLast, rate) => {
          const advice = adviseLift(taken(atLast, rate, [5, 10, 20, 30, 45, 60]), 1);
          if (advice.state === 'tooFew') throw new Error('six samples are enough');
          const truth = -Math.log(1 - 1 / atLast) / rate;
          expect(advice.minute).not.toBeNull();
          expect(Math.abs((advice.minute ?? 0) - truth) / truth).toBeLessThan(0.08);
          expect(advice.fromMinute ?? Infinity).toBeLessThanOrEqual(truth * 1.02);
          expect(advice.toMinute ?? Infinity).toBeGreaterThanOrEqual(truth * 0.98);
        },
      ),
    );
  });
  it('holds the truth in its span nearly always, with the scatter of an eye-match', () => {
    let [held, runs] = [0, 0];
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 6, maxLength: 6 }), (noise) => {
        const advice = adviseLift(
          taken(
            1.4,
            0.03,
            [6, 12, 20, 30, 40, 50],
            noise.map((n) => n / 1000),
          ),
          1,
        );
        if (advice.state === 'tooFew') throw new Error('enough');
        const truth = -Math.log(1 - 1 / 1.4) / 0.03;
        runs += 1;
        if ((advice.fromMinute ?? Infinity) <= truth && truth <= (advice.toMinute ?? Infinity)) held += 1;
      }),
      { seed: 7, numRuns: 200 },
    );
    expect(held / runs).toBeGreaterThan(0.85);
  });
  it('says lift, wait or never, and asks for three samples first', () => {
    expect(adviseLift(taken(1.4, 0.03, [5, 10]), 20)).toMatchObject({ state: 'tooFew' });
    expect(adviseLift(taken(1.4, 0.03, [5, 15, 30]), 30)).toMatchObject({ state: 'wait' });
    expect(adviseLift(taken(1.4, 0.03, [5, 15, 30]), 60)).toMatchObject({
      state: 'liftNow',
      message: expect.stringMatching(/Lift now.*wet is darker/s) as string,
    });
    expect(adviseLift(taken(0.6, 0.05, [5, 15, 30, 60]), 60)).toMatchObject({ state: 'neverReaches', minute: null });
  });
  it('spaces pulls evenly in depth: the first ones soon, the last at its minute', () => {
    const minutes = gradedPulls(5, 60, 0.03);
    expect(minutes.at(-1)).toBe(60);
    const steps = minutes.map(
      (m, i) =>
        depthAt({ atLast: 1, ratePerMin: 0.03 }, m) -
        (i === 0 ? 0 : depthAt({ atLast: 1, ratePerMin: 0.03 }, minutes[i - 1] ?? 0)),
    );
    expect(Math.max(...steps) - Math.min(...steps)).toBeLessThan(0.03);
    // Many pieces of a quick dye: no two at once, in order, the last at its minute.
    for (const [pieces, last] of [
      [8, 12],
      [20, 20],
      [12, 5],
      [60, 1],
    ] as const) {
      const pulls = gradedPulls(pieces, last, 0.4);
      expect(new Set(pulls).size).toBe(pieces);
      expect(pulls).toEqual([...pulls].sort((a, b) => a - b));
      expect(pulls.at(-1)).toBeCloseTo(last, 1);
    }
    expect(() => gradedPulls(0, 60)).toThrow(RangeError);
    expect(() => gradedPulls(3, 0)).toThrow(RangeError);
  });
  it('measures depth from undyed to wanted, by chroma where lightness says little', () => {
    const [undyed, dark, pale] = [
      { L: 84, a: 1, b: 12 },
      { L: 40, a: 5, b: 20 },
      { L: 78, a: -4, b: 60 },
    ];
    for (const wanted of [dark, pale]) {
      expect(depthShare(undyed, undyed, wanted)).toBeCloseTo(0, 9);
      expect(depthShare(wanted, undyed, wanted)).toBeCloseTo(1, 9);
      const shares = matchSteps(undyed, wanted).map((m) => depthShare(m.lab, undyed, wanted));
      expect(shares).toEqual([...shares].sort((a, b) => a - b));
    }
  });
});

describe('tags', () => {
  const tag = fc.tuple(
    fc.constantFrom('stockLot', 'vessel', 'lot', 'piece', 'bath' as const),
    fc.integer({ min: 1, max: 32 ** 4 - 1 }),
  );
  it('reads back what it wrote, however it is typed', () => {
    fc.assert(
      fc.property(tag, ([kind, number]) => {
        const code = writeTagCode(kind, number);
        for (const typed of [
          code,
          code.toLowerCase(),
          code.replaceAll('-', ''),
          ` ${code.replaceAll('-', ' ')} `,
          code.replaceAll('0', 'o').replaceAll('1', 'l'),
          `http://localhost:4310/tag/${code}`,
        ])
          expect(readTagCode(typed)).toMatchObject({ ok: true, kind, number, code });
      }),
    );
  });
  it('catches every single mistyped sign, and nearly every swap of neighbours', () => {
    let [swaps, missed] = [0, 0];
    fc.assert(
      fc.property(
        tag,
        fc.integer({ min: 1, max: 5 }),
        fc.constantFrom(...'0123456789ABCDEFGHJKMNPQRSTVWXYZ'),
        ([kind, number], place, sign) => {
          const plain = writeTagCode(kind, number).replaceAll('-', '');
          const wrong = plain.slice(0, place) + sign + plain.slice(place + 1);
          if (wrong !== plain) expect(readTagCode(wrong).ok).toBe(false);
          const swapped =
            plain.slice(0, place) + (plain[place + 1] ?? '') + (plain[place] ?? '') + plain.slice(place + 2);
          if (swapped !== plain && place < 5) {
            swaps += 1;
            if (readTagCode(swapped).ok) missed += 1;
          }
        },
      ),
      { seed: 3, numRuns: 3000 },
    );
    expect(swaps).toBeGreaterThan(1000);
    expect(missed / swaps).toBeLessThan(0.05);
  });
  it('refuses what is no tag, in a sentence', () => {
    for (const typed of ['', 'WELD-3', 'J-00A7', 'Z-0001-1', '<script>'])
      expect(readTagCode(typed)).toMatchObject({ ok: false });
    expect(() => writeTagCode('stockLot', 0)).toThrow(RangeError);
  });
});
