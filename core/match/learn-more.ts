import { forward } from './forward';
import { factorise, solveFactorised } from './linear-algebra';
import type { Observation, Posterior } from './posterior';
import { scatterOf, widthsFor } from './posterior';

const PASSES = 3;

/** The posterior with room for numbers that the book has taken up since: each with its prior, tied to nothing. */
function withRoom(posterior: Posterior): Posterior {
  const { book, learnt } = posterior;
  const size = book.size;
  if (size === learnt) return posterior;
  const cells = new Float64Array(size * size);
  for (let i = 0; i < learnt; i += 1)
    cells.set(posterior.covariance.cells.subarray(i * learnt, (i + 1) * learnt), i * size);
  for (let i = learnt; i < size; i += 1) cells[i * size + i] = book.at(i).sd ** 2;
  return {
    ...posterior,
    learnt: size,
    values: Float64Array.from({ length: size }, (_, i) => (i < learnt ? (posterior.values[i] ?? 0) : book.at(i).mean)),
    covariance: { n: size, cells },
  };
}

/**
 * What one more reading teaches, without going through all the others again: the posterior so far is the prior, and the
 * model is made straight about where it comes to lie (iterated extended Kalman update; Bell and Cathey, IEEE Trans.
 * Autom. Control 38, 1993).
 */
export function learnMore(before: Posterior, reading: Observation): Posterior {
  forward(before, reading.dyeing, reading.day);
  const prior = withRoom(before);
  const { space, learnt: size, widths } = prior;
  const { count } = space;
  const seen = space.of(reading.colour);
  let values = prior.values;
  let gain: Float64Array[] = [];
  let spread: Float64Array[] = [];
  for (let pass = 0; pass < PASSES; pass += 1) {
    const said = forward({ ...prior, values }, reading.dyeing, reading.day);
    const entries = [...said.slopes];
    // Σ Jᵀ, a row for each value that is compared.
    spread = Array.from({ length: count }, () => new Float64Array(size));
    for (const [place, slope] of entries) {
      const row = prior.covariance.cells.subarray(place * size, (place + 1) * size);
      spread.forEach((out, c) => {
        const by = slope[c] ?? 0;
        if (by !== 0) for (let i = 0; i < size; i += 1) out[i] = (out[i] ?? 0) + by * (row[i] as number);
      });
    }
    const whole = scatterOf(prior, said, widthsFor(widths, reading), reading.day === null);
    for (const [place, slope] of entries)
      for (let i = 0; i < count; i += 1)
        for (let j = 0; j < count; j += 1)
          whole.cells[i * count + j] = (whole.cells[i * count + j] ?? 0) + (slope[i] ?? 0) * (spread[j]?.[place] ?? 0);
    const low = factorise(whole);
    const off = Float64Array.from(seen, (y, c) => y - (said.channels[c] ?? 0));
    for (const [place, slope] of entries) {
      const moved = (values[place] ?? 0) - (prior.values[place] ?? 0);
      if (moved !== 0) for (let c = 0; c < count; c += 1) off[c] = (off[c] ?? 0) + (slope[c] ?? 0) * moved;
    }
    const pull = solveFactorised(low, off);
    values = Float64Array.from(
      prior.values,
      (v, i) => v + spread.reduce((sum, row, c) => sum + (row[i] as number) * (pull[c] ?? 0), 0),
    );
    // S⁻¹ (J Σ), so that Σ′ = Σ − (J Σ)ᵀ S⁻¹ (J Σ).
    gain = Array.from({ length: count }, () => new Float64Array(size));
    if (pass === PASSES - 1)
      for (let i = 0; i < size; i += 1) {
        const column = solveFactorised(
          low,
          Float64Array.from(spread, (row) => row[i] as number),
        );
        for (let c = 0; c < count; c += 1) (gain[c] as Float64Array)[i] = column[c] ?? 0;
      }
  }
  const cells = Float64Array.from(prior.covariance.cells);
  for (let c = 0; c < count; c += 1) {
    const [from, by] = [spread[c], gain[c]];
    if (!from || !by) continue;
    for (let i = 0; i < size; i += 1) {
      const share = from[i] as number;
      if (share !== 0)
        for (let j = 0; j < size; j += 1)
          cells[i * size + j] = (cells[i * size + j] as number) - share * (by[j] as number);
    }
  }
  return { ...prior, values, covariance: { n: size, cells }, readings: prior.readings + 1 };
}
