import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bathMarks, sharedBaths } from './shared-baths';

const chain = (...baths: string[]) => baths.map((bath) => ({ bath, usesBath: true }));

describe('liquors that steps share', () => {
  it('are brackets from the first of their steps to the last', () => {
    const baths = sharedBaths(chain('', 'weld', 'weld', '', 'weld', 'iron'));
    expect(baths).toEqual([{ name: 'weld', steps: [1, 2, 4], from: 1, to: 4, lane: 0 }]);
    expect([0, 1, 2, 3, 4, 5].map((i) => bathMarks(baths, i).map((m) => m.part))).toEqual([
      [],
      ['first'],
      ['in'],
      ['past'],
      ['last'],
      [],
    ]);
  });

  it('are none where a step is in no pot, or names a bath alone', () => {
    expect(sharedBaths([...chain('weld'), { bath: 'weld', usesBath: false }])).toEqual([]);
    expect(sharedBaths(chain(' weld', 'weld ')).map((b) => b.name)).toEqual(['weld']);
  });

  it('never lie over each other', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('', 'a', 'b', 'c', 'd'), { maxLength: 14 }), (names) => {
        const baths = sharedBaths(chain(...names));
        names.forEach((_, i) => {
          const lanes = bathMarks(baths, i).map((m) => m.bath.lane);
          expect(new Set(lanes).size).toBe(lanes.length);
        });
      }),
    );
  });
});
