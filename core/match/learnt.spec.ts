import { expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import { MATCH_CONDITIONS } from './channels';
import { learntOf } from './learnt';
import { predict } from './predict';
import { smoothSpectrum } from './smooth-spectrum';
import { REFERENCES, pastLots } from './small-dyehouse.fixture';

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
