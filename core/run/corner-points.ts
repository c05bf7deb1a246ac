import type { CoursePoint } from './watch-course';

/** No corner is left out that lies further than this off the straight line, °C. */
const WITHIN_C = 1;
/** So many corners say what any pot did. */
const MOST_CORNERS = 40;

/** How far a point lies off the straight line between two others, °C at its own minute. */
function offLine(p: CoursePoint, from: CoursePoint, to: CoursePoint): number {
  const span = to.minute - from.minute;
  const share = span > 0 ? (p.minute - from.minute) / span : 0;
  return Math.abs(p.temperatureC - (from.temperatureC + share * (to.temperatureC - from.temperatureC)));
}

/**
 * The corners of a bath’s temperature as it was read: of all readings those between which it went straight, within 1 °C
 * (Ramer 1972, Douglas and Peucker 1973), the sharpest 40 at the most. Minutes to a tenth, °C to a tenth.
 */
export function cornerPoints(readings: readonly CoursePoint[]): CoursePoint[] {
  const last = readings.length - 1;
  if (last < 1) return [];
  const kept = new Set([0, last]);
  // The stretch that is furthest from straight is broken first.
  const furthest = (from: number, to: number): { from: number; at: number; to: number; off: number } => {
    const [a, b] = [readings[from] as CoursePoint, readings[to] as CoursePoint];
    let [at, off] = [from, 0];
    for (let i = from + 1; i < to; i += 1) {
      const own = offLine(readings[i] as CoursePoint, a, b);
      if (own > off) [at, off] = [i, own];
    }
    return { from, at, to, off };
  };
  const open = [furthest(0, last)];
  while (kept.size < MOST_CORNERS) {
    open.sort((x, y) => x.off - y.off);
    const next = open.pop();
    if (!next || next.off <= WITHIN_C) break;
    kept.add(next.at);
    open.push(furthest(next.from, next.at), furthest(next.at, next.to));
  }
  const tenth = (value: number): number => Math.round(value * 10) / 10;
  return [...kept]
    .sort((x, y) => x - y)
    .map((i) => {
      const { minute, temperatureC } = readings[i] as CoursePoint;
      return { minute: tenth(minute), temperatureC: tenth(temperatureC) };
    });
}
