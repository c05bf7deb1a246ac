import { describe, expect, it } from 'vitest';
import { heldMinutes, holdOf, plannedCourse } from '../run/watch-course';
import { sayCourse } from './compare-versions';
import type { HeatLeg } from './course';
import { legNow, stepMinutes, wholeCourse } from './course';

const DIP: readonly HeatLeg[] = [
  { do: 'hold', toC: 45, minutes: 5 },
  { do: 'air', minutes: 15 },
];
const dips = { course: DIP, repeats: 4, durationMin: 0 };

describe('a course gone through several times: dips and airing', () => {
  it('takes the time of all its passes', () => {
    expect(stepMinutes(dips)).toBe(80);
    expect(wholeCourse(dips).map((leg) => leg.do)).toEqual(Array.from({ length: 4 }, () => ['hold', 'air']).flat());
  });
  it.each([
    [0, 'hold', 1, 5],
    [4.5, 'hold', 1, 0.5],
    [5, 'air', 1, 15],
    [21, 'hold', 2, 4],
    [79, 'air', 4, 1],
  ])('at minute %f it is in “%s” of pass %i, with %f min of it left', (minutes, leg, pass, leftMin) => {
    expect(legNow(dips, minutes)).toMatchObject({ leg: { do: leg }, pass, passes: 4, leftMin });
  });
  it('says what comes next, and nothing once it is over', () => {
    expect(legNow(dips, 5)?.next).toEqual(DIP[0]);
    expect(legNow(dips, 79)?.next).toBeUndefined();
    expect(legNow(dips, 80)).toBeUndefined();
    expect(legNow({ course: [], repeats: 1 }, 0)).toBeUndefined();
  });
  it('is said once, with how often', () =>
    expect(sayCourse(dips)).toBe('hold at 45 °C, 5 min; lift and air, 15 min; 4 times'));
  it('is watched over all its passes: held for all of them, at the vat’s warmth while it airs', () => {
    expect(holdOf(dips)).toEqual({ atC: 45, minutes: 20 });
    const course = plannedCourse(dips, { fromC: 45, roomC: 18 });
    expect(course.at(-1)).toEqual({ minute: 80, temperatureC: 45 });
    expect(
      heldMinutes(
        course.filter((p) => p.minute <= 10),
        45,
      ),
    ).toBe(5);
  });
});
