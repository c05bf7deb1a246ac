import { expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import { MATCH_CONDITIONS, broadChannels } from './channels';
import { learntOf } from './learnt';
import { learn } from './posterior';
import { predict } from './predict';
import { smoothSpectrum } from './smooth-spectrum';
import { REFERENCES, dose, pastLots, recipeFrom } from './small-dyehouse.fixture';

it('the same record is learnt once, however often it is asked about; another one anew', () => {
  const first = learntOf(pastLots(6), REFERENCES);
  expect(learntOf(pastLots(6), REFERENCES)).toBe(first);
  const more = learntOf(pastLots(7), REFERENCES);
  expect(more.readings).toBe(7);
  expect(learntOf(pastLots(6), REFERENCES)).toBe(first);
});

it('is followed band by band where every lot was read so; a master and a base may lack their spectra', () => {
  const spectral = pastLots(6).map((r) => ({
    ...r,
    colour: { lab: r.colour.lab, spectrum: smoothSpectrum(r.colour.lab, MATCH_CONDITIONS) },
  }));
  const [first, ...rest] = spectral;
  const master = { ...pastLots(1)[0]!, id: 'the master', isMaster: true };
  expect(learntOf([...spectral, master], REFERENCES).space.bands).toBe(16);
  expect(learntOf([{ ...first!, colour: { ...first!.colour, spectrum: null } }, ...rest], REFERENCES).space.bands).toBe(
    3,
  );
  const foretold = predict(learntOf([...spectral, master], REFERENCES), first!.dyeing).lab;
  expect(ciede2000(foretold, first!.colour.lab, { kL: 1, kC: 1, kH: 1 }).deltaE).toBeLessThan(1.5);
});

it('a long record is learnt by blocks, and what came since is taken in: the same whatever was asked before', () => {
  const long = pastLots(270);
  const asked = recipeFrom('weld 2');
  const all = learntOf(long, REFERENCES);
  expect(all.readings).toBe(270);
  const shade = predict(all, asked);
  // Forgotten, and come to by another way.
  for (const seed of [5, 6, 7, 8]) learntOf(pastLots(4, seed), REFERENCES);
  learntOf(long.slice(0, 260), REFERENCES);
  const again = learntOf(long, REFERENCES);
  expect(again).not.toBe(all);
  expect(predict(again, asked)).toEqual(shade);
  // Near to what learning all of it at one time says.
  const atOnce = predict(learn(broadChannels(), long, REFERENCES), asked);
  expect(ciede2000(atOnce.lab, shade.lab, { kL: 1, kC: 1, kH: 1 }).deltaE).toBeLessThan(0.1);
  expect(shade.within80 / atOnce.within80).toBeGreaterThan(0.9);
  expect(shade.within80 / atOnce.within80).toBeLessThan(1.1);
});

it('a dyestuff that comes up in a long record is taken in as well', () => {
  const long = pastLots(258);
  const [first] = long;
  const cutch = { ...first!.dyeing, doses: [dose('cutch', 'cutch 1', 20)], colourwayId: 'dusk' };
  const fresh = { ...first!, id: 'first of cutch', dyeing: cutch };
  const posterior = learntOf([...long, fresh], REFERENCES);
  expect(posterior.usual.get('cutch')).toBe(20);
  expect(ciede2000(predict(posterior, cutch).lab, first!.colour.lab, { kL: 1, kC: 1, kH: 1 }).deltaE).toBeLessThan(6);
});
