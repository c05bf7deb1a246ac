import { describe, expect, it } from 'vitest';
import type { Lab } from './lab';
import { describeColour, describeDifference } from './describe';

const lab = (L: number, a: number, b: number): Lab => ({ L, a, b });

/** A colour of mid lightness by its hue angle, degrees. */
const ofHue = (degrees: number): Lab =>
  lab(60, 45 * Math.cos((degrees * Math.PI) / 180), 45 * Math.sin((degrees * Math.PI) / 180));

describe('describeColour', () => {
  it.each<[Lab, string]>([
    [lab(62, -6, 24), 'muted greenish yellow, L* 62'],
    [lab(75, -4.8, 51), 'yellow, L* 75'],
    [lab(40, 17, 23), 'reddish brown, L* 40'],
    [lab(47, 0.4, 1), 'grey, L* 47'],
    [lab(95, 0, 1), 'white, L* 95'],
    [lab(30, 10, -40), 'deep blue, L* 30'],
    [lab(50, 32, 0), 'pinkish red, L* 50'],
  ])('%j is %s', (colour, label) => expect(describeColour(colour)).toBe(label));

  it('has a word for every hue', () => {
    for (let degrees = 0; degrees < 360; degrees += 1) {
      const label = describeColour(
        lab(60, 40 * Math.cos((degrees * Math.PI) / 180), 40 * Math.sin((degrees * Math.PI) / 180)),
      );
      expect(label).toMatch(/^[a-z ]+, L\* 60$/);
    }
  });
});

describe('describeDifference', () => {
  it.each<[string, Lab, Lab, RegExp]>([
    ['paler', lab(60, 5, 40), lab(64, 5, 40), /^paler|paler/],
    ['deeper', lab(60, 5, 40), lab(55, 5, 40), /deeper/],
    ['duller', lab(60, 5, 40), lab(60, 4, 30), /duller/],
    ['a yellow gone red', lab(70, 0, 50), lab(70, 10, 49), /redder/],
    ['a yellow gone green', lab(70, 0, 50), lab(70, -10, 49), /greener/],
    ['a red gone yellow', lab(45, 40, 20), lab(45, 37, 26), /yellower/],
    ['a golden just short of yellow, a little on', ofHue(79), ofHue(84), /yellower/],
    ['a golden that went through yellow', ofHue(82), ofHue(96), /greener/],
    ['a yellow gone back towards gold', ofHue(87), ofHue(78), /redder/],
    ['a red past the landmark, gone further', ofHue(20), ofHue(14), /more purple/],
    ['a bluish red gone red', ofHue(14), ofHue(22), /redder/],
    ['a blue gone purple', lab(40, 5, -30), lab(40, 14, -27), /purple/],
  ])('says that it is %s', (_name, standard, sample, label) =>
    expect(describeDifference(standard, sample).summary).toMatch(label),
  );

  it('says so when there is none', () => {
    expect(describeDifference(lab(60, 5, 40), lab(60.1, 5, 40)).summary).toBe('no difference an eye would find');
  });
});
