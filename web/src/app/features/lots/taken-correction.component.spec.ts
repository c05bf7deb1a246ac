import { describe, expect, it } from 'vitest';
import { NOT_CORRECTED, correctedFurther } from './taken-correction';

describe('a plan that is corrected again', () => {
  const once = { ...NOT_CORRECTED, corrected: [{ materialId: 'weld', share: 1.5 }], dyeTimeShare: 1.5 };
  it('is corrected further, and no further than a plan can be', () => {
    const twice = correctedFurther(once, once);
    expect(twice).toMatchObject({ corrected: [{ materialId: 'weld', share: 2.25 }], dyeTimeShare: 2 });
    const often = [1, 2, 3, 4, 5].reduce((now) => correctedFurther(now, once), NOT_CORRECTED);
    const more = correctedFurther(often, { ...once, corrected: [{ materialId: 'weld', share: 9 }] });
    expect(more.corrected).toEqual([{ materialId: 'weld', share: 10 }]);
  });
  it('comes out of the jars that were asked for last, and keeps what else was asked', () => {
    const jar = (materialId: string, stockLotId: string) => ({ materialId, stockLotId, part: 1 });
    const first = { ...NOT_CORRECTED, outOf: [jar('weld', 'A'), jar('madder', 'M')] };
    expect(correctedFurther(first, { ...NOT_CORRECTED, outOf: [jar('weld', 'B')] }).outOf).toEqual([
      jar('madder', 'M'),
      jar('weld', 'B'),
    ]);
  });
});
