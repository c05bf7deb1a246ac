import type { BathCourse } from './dyeing';

const GAS_KJ_PER_MOL_K = 8.314e-3;
const REFERENCE_K = 353.15;
const KELVIN = 273.15;
const STEPS = 8;

/** Minutes at 80 °C that a course is worth, and how that turns with the heat it takes. */
export interface WorthMinutes {
  readonly minutes: number;
  readonly perHeat: number;
}

/**
 * Minutes at 80 °C that give a bath’s course: each moment counts by Arrhenius’ law, exp(−E/R (1/T − 1/353 K)).
 * @param heat activation energy, 10 kJ/mol
 */
export function worthMinutes(course: BathCourse | undefined, heat: number): WorthMinutes {
  let [minutes, perHeat] = [0, 0];
  const points = course?.points ?? [];
  for (let i = 1; i < points.length; i += 1) {
    const [from, to] = [points[i - 1], points[i]];
    if (!from || !to || to.minute <= from.minute) continue;
    const step = (to.minute - from.minute) / STEPS;
    for (let k = 0; k < STEPS; k += 1) {
      const celsius = from.celsius + ((to.celsius - from.celsius) * (k + 0.5)) / STEPS;
      const inverse = (1 / (celsius + KELVIN) - 1 / REFERENCE_K) / GAS_KJ_PER_MOL_K;
      const worth = step * Math.exp(-10 * heat * inverse);
      minutes += worth;
      perHeat += worth * -10 * inverse;
    }
  }
  return { minutes, perHeat };
}
