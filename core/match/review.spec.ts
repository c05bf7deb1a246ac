import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { broadChannels } from './channels';
import type { Observation } from './posterior';
import { learn } from './posterior';
import { predict } from './predict';
import { reviewRecord } from './review';
import { REFERENCES, dose, dyeing, pastLots, trueShade } from './small-dyehouse.fixture';

const far = (x: Lab, y: Lab): number => ciede2000(x, y, { kL: 1, kC: 1, kH: 1 }).deltaE;
const read = (id: string, d: Observation['dyeing'], lab: Lab): Observation => ({
  id,
  dyeing: d,
  colour: { lab, spectrum: null },
  day: null,
});
/** A record with a lot that went wrong, one out of a jar of its own, and one on a fibre of its own. */
function oddRecord(): Observation[] {
  const [first, ...rest] = pastLots(14);
  const spoilt = { ...first!, colour: { lab: { L: 60, a: 20, b: 30 }, spectrum: null } };
  const own = dyeing([dose('weld', 'weld 3', 40), dose('madder', 'madder 1', 8)]);
  const silk = dyeing([dose('weld', 'weld 1', 40), dose('madder', 'madder 1', 8)], { fibre: 'silk', baseId: 'ribbon' });
  return [spoilt, ...rest, read('own jar', own, trueShade(own)), read('silk', silk, { L: 70, a: 9, b: 52 })];
}

describe('each reading, foretold from all the others', () => {
  const record = oddRecord();
  const review = reviewRecord(record, REFERENCES, ['weld 2', 'weld 3'])!;
  const leftOut = record.map((own) => {
    const posterior = learn(
      broadChannels(),
      record.filter((r) => r !== own),
      REFERENCES,
    );
    return predict(posterior, own.dyeing, { withoutReader: false });
  });

  it('is as if it had been left out in truth: what lies far off, what alone tells of its jar or its fibre as well', () => {
    const apart = review.foretold.map((f, i) => far(f.foretold, leftOut[i]!.lab)).sort((x, y) => x - y);
    expect(apart[Math.floor(apart.length / 2)]).toBeLessThan(0.1);
    expect(apart.at(-1)).toBeLessThan(1);
    review.foretold.forEach((f, i) => {
      expect(f.within80 / leftOut[i]!.within80).toBeGreaterThan(0.75);
      expect(f.within80 / leftOut[i]!.within80).toBeLessThan(1.3);
    });
  });
  it('says of the spoilt lot that it lay far outside, and of the others what share lay inside', () => {
    const [spoilt] = review.foretold;
    expect(spoilt!.deltaE00).toBeGreaterThan(3 * spoilt!.within80);
    expect(review.inside).toBeGreaterThan(0.7);
    expect(review.median).toBeLessThan(1);
  });
  it('a weak jar is told as one, and one that was dyed with once less surely', () => {
    const [weak, once] = review.jars;
    expect(weak!.percent).toBeGreaterThan(60);
    expect(weak!.percent).toBeLessThan(82);
    expect(once!.toPercent / once!.fromPercent).toBeGreaterThan(weak!.toPercent / weak!.fromPercent);
    expect([weak!.readings, once!.readings]).toEqual([7, 1]);
  });
  it('of too few nothing is said', () => expect(reviewRecord(pastLots(2), REFERENCES, [])).toBeUndefined());
});
