import { describe, expect, it } from 'vitest';
import { smallerSize } from './smaller-picture';

describe('a picture before it is sent', () => {
  it.each([
    [1600, 1200, 400_000, undefined],
    [2600, 1000, 1_500_000, undefined],
    [4032, 3024, 8_000_000, { width: 2200, height: 1650 }],
    [3024, 4032, 900_000, { width: 1650, height: 2200 }],
    // Few pixels in many bytes are packed anew, and no larger.
    [1200, 900, 5_000_000, { width: 1200, height: 900 }],
    [40_000, 2, 100_000, { width: 2200, height: 1 }],
    [0, 0, 5_000_000, undefined],
  ])('of %i × %i and %i bytes', (width, height, bytes, size) =>
    expect(smallerSize(width, height, bytes)).toEqual(size),
  );
});
