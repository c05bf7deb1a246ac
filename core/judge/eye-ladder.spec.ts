import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { seeded } from '../photo/seeded';
import type { LadderPlace } from './eye-ladder';
import { LADDER_QUESTIONS, LADDER_WITHIN80, ladderAxis, ladderRungs, pressRung } from './eye-ladder';
import { layPalette, nearPairs } from './palette';

const EVEN = { kL: 1, kC: 1, kH: 1 };
/** Whoever looks sees each rung a little otherwise, and presses the nearest. */
function nearestRung(place: LadderPlace, truth: Lab, blur: () => number): number {
  const far = ladderRungs(place).map((rung) => ciede2000(rung, truth, EVEN).deltaE + blur());
  return far.indexOf(Math.min(...far));
}

describe('an eye on a ladder', () => {
  it('brackets a colour in few presses, and lies within what is said four times in five', () => {
    const random = seeded(21).uniform;
    let [inside, most] = [0, 0];
    const tries = 300;
    for (let i = 0; i < tries; i++) {
      const truth = { L: 30 + random() * 50, a: random() * 40 - 15, b: 5 + random() * 40 };
      let place: LadderPlace = { middle: { L: 60, a: 4, b: 25 }, question: 0 };
      let presses = 0;
      while (ladderAxis(place) && presses < 40) {
        place = pressRung(
          place,
          nearestRung(place, truth, () => random() * 2),
        );
        presses++;
      }
      expect(place.question).toBe(LADDER_QUESTIONS);
      most = Math.max(most, presses);
      if (ciede2000(truth, place.middle, EVEN).deltaE <= LADDER_WITHIN80) inside++;
    }
    expect(most).toBeLessThan(25);
    expect(inside / tries).toBeGreaterThan(0.8);
  });
  it('asks the same again further along at an end, and nothing once it is done', () => {
    const start = { middle: { L: 60, a: 4, b: 25 }, question: 0 };
    expect(pressRung(start, 4)).toMatchObject({ question: 0, middle: { L: 78 } });
    expect(pressRung(start, 2).question).toBe(1);
    const done = { ...start, question: LADDER_QUESTIONS };
    expect([ladderRungs(done), ladderAxis(done), pressRung(done, 1)]).toEqual([[], undefined, done]);
  });
});

describe('a palette', () => {
  const of = (id: string, L: number, a: number, b: number) => ({ id, lab: { L, a, b } });
  const colours = [of('deep red', 35, 40, 20), of('grey', 60, 1, 1), of('yellow', 80, 2, 60), of('red', 36, 41, 21)];
  it('is laid by hand, from pale to deep, or round the hues with the greys last', () => {
    const ids = (order: 'hand' | 'lightness' | 'hue'): string[] => layPalette(colours, order).map((c) => c.id);
    expect(ids('hand')).toEqual(['deep red', 'grey', 'yellow', 'red']);
    expect(ids('lightness')).toEqual(['yellow', 'grey', 'red', 'deep red']);
    expect(ids('hue')).toEqual(['deep red', 'red', 'yellow', 'grey']);
  });
  it('says which two an eye would take for one', () =>
    expect(nearPairs(colours).map((p) => [p.first, p.second])).toEqual([['deep red', 'red']]));
});
