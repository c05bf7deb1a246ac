import type { DeltaEFormula } from '../colour/delta-e';
import { deltaEBy } from '../colour/delta-e';
import type { Lab } from '../colour/lab';
import type { Symmetric } from './linear-algebra';
import { factorise } from './linear-algebra';

const STEP = 0.5;

/**
 * A difference about a standard as lengths: three rows m such that ΔE² is nearly Σ (m · Δ)² for a small Δ in L*, a*, b*. The
 * squares of differences along the axes and between them give the form.
 */
export function differenceMetric(
  standard: Lab,
  formula: DeltaEFormula = 'de00',
): readonly (readonly [number, number, number])[] {
  const far = (L: number, a: number, b: number): number =>
    deltaEBy(formula, standard, { L: standard.L + L, a: standard.a + a, b: standard.b + b }) ** 2 / STEP ** 2;
  const axes = [
    [STEP, 0, 0],
    [0, STEP, 0],
    [0, 0, STEP],
  ] as const;
  const cells = new Float64Array(9);
  axes.forEach(([L, a, b], i) => {
    cells[i * 4] = (far(L, a, b) + far(-L, -a, -b)) / 2;
  });
  for (let i = 0; i < 3; i += 1)
    for (let j = 0; j < i; j += 1) {
      const [x, y] = [axes[i], axes[j]];
      if (!x || !y) continue;
      const both = far(x[0] + y[0], x[1] + y[1], x[2] + y[2]);
      const apart = far(x[0] - y[0], x[1] - y[1], x[2] - y[2]);
      cells[i * 3 + j] = (both - apart) / 4;
      cells[j * 3 + i] = (both - apart) / 4;
    }
  const form: Symmetric = { n: 3, cells };
  const { cells: low } = factorise(form, 1e-6);
  // Δᵀ L Lᵀ Δ: rows of Lᵀ.
  return [0, 1, 2].map((i) => [low[i] ?? 0, low[3 + i] ?? 0, low[6 + i] ?? 0] as const);
}
