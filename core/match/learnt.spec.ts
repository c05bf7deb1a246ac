import { expect, it } from 'vitest';
import { learntOf } from './learnt';
import { REFERENCES, pastLots } from './small-dyehouse.fixture';

it('the same record is learnt once, however often it is asked about; another one anew', () => {
  const first = learntOf(pastLots(6), REFERENCES);
  expect(learntOf(pastLots(6), REFERENCES)).toBe(first);
  const more = learntOf(pastLots(7), REFERENCES);
  expect(more.readings).toBe(7);
  expect(learntOf(pastLots(6), REFERENCES)).toBe(first);
});
