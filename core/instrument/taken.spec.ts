import { describe, expect, it } from 'vitest';
import { sayEvenness, sayTaken, takenBy } from './taken';

describe('how a reading was taken', () => {
  it.each<[number, number, string]>([
    [0.3, 0.8, 'even'],
    [0.8, 2, 'a fold mark or a patch shows'],
    [1.8, 2.5, 'patchy'],
    [1, 4, 'patchy'],
  ])('spots %d from their mean, at most %d: %s', (meanDeltaE00, maxDeltaE00, said) =>
    expect(sayEvenness({ meanDeltaE00, maxDeltaE00 })).toBe(said),
  );
  it('says how sure it is, where that is known', () => {
    expect(sayTaken(takenBy('photo', { within80: 2.13, evenness: { meanDeltaE00: 0.3, maxDeltaE00: 0.8 } }))).toBe(
      'from a photograph, within ΔE00 2.1 four times in five, even',
    );
    expect(sayTaken(takenBy('typed'))).toBe('typed');
  });
});
