import { describe, expect, it } from 'vitest';
import { pairShades } from './pair-shades';

const lab = (L: number) => ({ L, a: 5, b: 40, illuminant: 'D65' as const, observer: '10' as const });

describe('shades of two lots side by side', () => {
  it('are paired by what they are called, and what only one has stands alone', () => {
    const pairs = pairShades(
      [
        { label: 'Linen', lab: lab(70) },
        { label: 'Wool', lab: lab(60) },
      ],
      [
        { label: 'Wool', lab: lab(62) },
        { label: 'Silk', lab: null },
      ],
    );
    expect(pairs.map((p) => [p.label, p.first?.L, p.second?.L])).toEqual([
      ['Linen', 70, undefined],
      ['Wool', 60, 62],
      ['Silk', undefined, undefined],
    ]);
  });
  it('are a pair where each lot has but one', () =>
    expect(pairShades([{ label: '', lab: lab(70) }], [{ label: 'Wool', lab: lab(60) }])).toEqual([
      { label: '', first: lab(70), second: lab(60) },
    ]));
  it('of nothing are none', () => expect(pairShades([], [])).toEqual([]));
});
