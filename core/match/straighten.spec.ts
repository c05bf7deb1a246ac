import { describe, expect, it } from 'vitest';
import { seeded } from '../photo/seeded';
import { broadChannels } from './channels';
import { pulled, ownLevers } from './levers';
import { learn } from './posterior';
import { predict } from './predict';
import { REFERENCES, dose, dyeing, pastLots, recipeFrom, trueShade } from './small-dyehouse.fixture';
import type { Judged } from './straighten';
import { gramOf, leastSquare, straighten } from './straighten';

const learnt = learn(broadChannels(), pastLots(14), REFERENCES);
const plan = recipeFrom('weld 2');
const levers = ownLevers(plan, [], true);
const from = levers.map((l) => l.from);
const judged: Judged = {
  posterior: learnt,
  standard: trueShade(recipeFrom('weld 1')),
  formula: 'de00',
  day: null,
  dyeing: (at) => pulled(plan, levers, at),
  penalties: [],
};
const square = (at: readonly number[], risk = 1): number => gramOf(straighten(judged, at, []), risk)[0] ?? NaN;

describe('a plan made straight', () => {
  const straight = straighten(
    judged,
    from,
    levers.map((_, i) => i),
  );
  it('foresees what turning a little does to what is expected and to what is unsure', () => {
    const random = seeded(4);
    for (let n = 0; n < 30; n += 1) {
      const move = levers.map(() => 0.12 * random.normal());
      const all = [1, ...move];
      for (const risk of [0, 1]) {
        const gram = gramOf(straight, risk);
        const size = all.length;
        const said = all.reduce(
          (sum, x, i) => sum + all.reduce((row, y, j) => row + x * y * (gram[i * size + j] ?? 0), 0),
          0,
        );
        const really = square(
          from.map((v, i) => v + (move[i] ?? 0)),
          risk,
        );
        expect(Math.abs(Math.sqrt(Math.max(0, said)) - Math.sqrt(really))).toBeLessThan(0.35);
      }
    }
  });
  it('is as far off as the prediction says where nothing is turned', () => {
    const { lab } = predict(learnt, plan);
    expect(square(from, 0)).toBeGreaterThan(0);
    expect(Math.sqrt(square(from, 0))).toBeLessThan(
      1.2 * Math.hypot(lab.L - judged.standard.L, lab.a - judged.standard.a, lab.b - judged.standard.b),
    );
    expect(square(from, 1)).toBeGreaterThan(square(from, 0));
  });
  it('what was never dyed in company is less sure than what was dyed alone', () => {
    const alone = learn(
      broadChannels(),
      pastLots(14).map((r) => ({
        ...r,
        dyeing: { ...r.dyeing, doses: r.dyeing.doses.filter((d) => d.materialId !== 'madder') },
      })),
      REFERENCES,
    );
    const [one, both] = [dyeing([dose('weld', 'weld 1', 40)]), recipeFrom('weld 1')];
    expect(predict(alone, both).within80).toBeGreaterThan(1.5 * predict(alone, one).within80);
  });
});

describe('the least square within bounds', () => {
  /** A positive form of so many levers. */
  const form = (n: number, seed: number): Float64Array => {
    const random = seeded(seed);
    const rows = Array.from({ length: n + 2 }, () => Array.from({ length: n + 1 }, () => random.normal()));
    return Float64Array.from({ length: (n + 1) ** 2 }, (_, k) => {
      const [i, j] = [Math.floor(k / (n + 1)), k % (n + 1)];
      return rows.reduce((sum, row) => sum + (row[i] ?? 0) * (row[j] ?? 0), 0);
    });
  };
  const worth = (gram: Float64Array, move: readonly number[]): number => {
    const all = [1, ...move];
    return all.reduce((s, x, i) => s + all.reduce((r, y, j) => r + x * y * (gram[i * all.length + j] ?? 0), 0), 0);
  };
  it('is never worse than leaving all alone, keeps its bounds, and leaves what was not chosen', () => {
    for (let seed = 1; seed <= 80; seed += 1) {
      const gram = form(3, seed);
      const { move, square: said } = leastSquare(gram, [0, 2], [-0.3, -0.3, -0.3], [0.4, 0.4, 0.4]);
      expect(said).toBeCloseTo(worth(gram, move), 6);
      expect(said).toBeLessThanOrEqual(worth(gram, [0, 0, 0]) + 1e-9);
      expect(move[1]).toBe(0);
      for (const m of move) expect(m).toBeGreaterThanOrEqual(-0.3 - 1e-12);
      for (const m of move) expect(m).toBeLessThanOrEqual(0.4 + 1e-12);
    }
  });
  it('is the least that a fine grid finds where no bound is met', () => {
    for (let seed = 1; seed <= 20; seed += 1) {
      const gram = form(2, seed);
      const { square: said } = leastSquare(gram, [0, 1], [-50, -50], [50, 50]);
      let least = Infinity;
      for (let x = -3; x <= 3; x += 0.05)
        for (let y = -3; y <= 3; y += 0.05) least = Math.min(least, worth(gram, [x, y]));
      expect(said).toBeLessThanOrEqual(least + 1e-9);
    }
  });
});
