import type { Lab } from '../colour/lab';
import type { Triple } from '../colour/xyz';
import { SCREEN, convertLabToLinearSrgb } from '../colour/xyz';
import { cholesky, solveCholesky } from './least-squares';
import type { Place } from './light-model';
import { GAINS, LIGHT_PARAMETERS, PRIOR_DEVIATION, labThroughLight } from './light-model';

/** A patch whose colour is known, as it lies in the picture. */
export interface KnownPatch extends Place {
  readonly linear: Triple;
  readonly standardError: Triple;
  readonly lab: Lab;
}

/** The light of a picture: the likeliest numbers, and how sure they are. */
export interface FittedLight {
  readonly parameters: readonly number[];
  /** Cholesky's lower triangle of the precision: `solveUpper` draws from it. */
  readonly precision: readonly (readonly number[])[];
  /** How far known patches still lie from what is known of them, root mean square, ΔE*ab. */
  readonly residual: number;
  /** How much patches scatter about the model, ΔE*ab a coordinate. */
  readonly scatter: number;
}

/** How well a patch is known, and its picture drawn, before noise: L*, a*, b*. */
const PATCH_DEVIATION = 0.17;
/** A patch this far off what is known of it, ΔE*ab, is likely wrong itself, and weighs less the further it lies. */
const DOUBTFUL_DELTA_E = 2;
const ROUNDS = 12;
const STEP = 1e-4;
const COORDINATES = ['L', 'a', 'b'] as const;

/**
 * Finds exposure, cast, crosstalk, falloff and tone of a picture from patches that are known: least squares in L*a*b*
 * with normal priors (Gauss and Newton, damped), so that one grey card says what one can say, and a chart says all.
 * Throws RangeError without a patch.
 */
export function fitLight(patches: readonly KnownPatch[]): FittedLight {
  if (patches.length === 0) throw new RangeError('light is found by patches that are known');
  let parameters = firstGuess(patches);
  let cost = costOf(parameters, patches);
  let damping = 1e-3;
  for (let round = 0; round < ROUNDS; round += 1) {
    const { normal, gradient } = linearise(parameters, patches);
    const damped = normal.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) : v)));
    const step = solveCholesky(cholesky(damped), gradient);
    const next = parameters.map((p, i) => p + (step[i] ?? 0));
    const nextCost = costOf(next, patches);
    if (nextCost >= cost) {
      damping *= 10;
      if (damping > 1e6) break;
      continue;
    }
    const gained = cost - nextCost;
    [parameters, cost, damping] = [next, nextCost, Math.max(1e-9, damping / 10)];
    if (gained < 1e-9 * (1 + cost)) break;
  }
  const residuals = patches.flatMap((patch) => residualsOf(parameters, patch));
  const squares = residuals.reduce((sum, r) => sum + r.value ** 2, 0);
  const trusted = residuals.reduce((sum, r) => sum + (r.trust * r.value) ** 2, 0);
  // With few patches the scatter is what is usual; many say for themselves.
  const usual = 6;
  const free = Math.max(0, residuals.length - effective(patches.length));
  const scatter = Math.sqrt((usual * PATCH_DEVIATION ** 2 + trusted) / (usual + free));
  const { normal } = linearise(parameters, patches, Math.max(1, scatter / PATCH_DEVIATION));
  return {
    parameters,
    precision: cholesky(normal),
    residual: Math.sqrt(squares / patches.length),
    scatter,
  };
}

/** How many numbers so many patches really settle. */
const effective = (patches: number): number => Math.min(LIGHT_PARAMETERS, 3 + 2 * (patches - 1));

function firstGuess(patches: readonly KnownPatch[]): number[] {
  const parameters = new Array<number>(LIGHT_PARAMETERS).fill(0);
  for (const channel of GAINS) {
    const logs = patches.map(({ linear, lab }) =>
      Math.log(Math.max(1e-3, convertLabToLinearSrgb(lab, SCREEN)[channel]) / Math.max(1e-4, linear[channel])),
    );
    parameters[channel] = logs.reduce((sum, l) => sum + l, 0) / logs.length;
  }
  return parameters;
}

/** How far a patch still lies from what is known of it, in L*, a* and b*, and how much that weighs. */
function residualsOf(
  parameters: readonly number[],
  { lab, linear, standardError, u, v }: KnownPatch,
): { readonly value: number; readonly weight: number; readonly trust: number }[] {
  const seen = labThroughLight(parameters, linear, { u, v });
  const brighter = labThroughLight(
    parameters,
    [linear[0] + standardError[0], linear[1] + standardError[1], linear[2] + standardError[2]],
    { u, v },
  );
  const far = Math.hypot(lab.L - seen.L, lab.a - seen.a, lab.b - seen.b);
  const trust = far > DOUBTFUL_DELTA_E ? DOUBTFUL_DELTA_E / far : 1;
  return COORDINATES.map((c) => ({
    value: lab[c] - seen[c],
    trust,
    weight: trust / (PATCH_DEVIATION ** 2 + (brighter[c] - seen[c]) ** 2),
  }));
}

function costOf(parameters: readonly number[], patches: readonly KnownPatch[]): number {
  const prior = parameters.reduce((sum, p, i) => sum + (p / (PRIOR_DEVIATION[i] ?? 1)) ** 2, 0);
  return patches
    .flatMap((patch) => residualsOf(parameters, patch))
    .reduce((sum, { value, weight }) => sum + weight * value ** 2, prior);
}

function linearise(
  parameters: readonly number[],
  patches: readonly KnownPatch[],
  widen = 1,
): { normal: number[][]; gradient: number[] } {
  const normal = Array.from({ length: LIGHT_PARAMETERS }, (_, i) =>
    Array.from({ length: LIGHT_PARAMETERS }, (_ignored, j) => (i === j ? (PRIOR_DEVIATION[i] ?? 1) ** -2 : 0)),
  );
  const gradient = parameters.map((p, i) => -p / (PRIOR_DEVIATION[i] ?? 1) ** 2);
  for (const patch of patches) {
    const residuals = residualsOf(parameters, patch);
    const slopes = parameters.map((p, i) => {
      const nudged = labThroughLight(
        parameters.map((q, j) => (j === i ? p + STEP : q)),
        patch.linear,
        patch,
      );
      return COORDINATES.map((c, k) => (nudged[c] - patch.lab[c] + (residuals[k]?.value ?? 0)) / STEP);
    });
    for (const [k, { value, weight }] of residuals.entries()) {
      const w = weight / widen ** 2;
      for (const [i, row] of normal.entries()) {
        const si = slopes[i]?.[k] ?? 0;
        gradient[i] = (gradient[i] ?? 0) + w * si * value;
        for (let j = 0; j < row.length; j += 1) row[j] = (row[j] ?? 0) + w * si * (slopes[j]?.[k] ?? 0);
      }
    }
  }
  return { normal, gradient };
}
