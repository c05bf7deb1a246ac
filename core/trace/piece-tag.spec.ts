import { describe, expect, it } from 'vitest';
import { bathStep, input, linen, percent, planned, recipe, wool } from '../scaling/plan-lot.fixture';
import { placeOfPiece, sayPieceTag } from './piece-tag';

const mixed = planned(
  input({
    recipe: recipe({
      fibres: ['wool', 'linen'],
      parts: [
        { key: 'plain', name: 'plain', sharePercent: 50 },
        { key: 'sad', name: 'saddened', sharePercent: 50 },
      ],
      steps: [
        bathStep('dye', [percent('weld', 50)], { key: 'd', repeats: 3 }),
        bathStep('modify', [], { key: 'm', title: 'Sadden with iron', parts: ['sad'] }),
      ],
    }),
    bases: [wool(4), linen(2)],
  }),
);

describe('what a piece’s tag says', () => {
  it('counts every piece of the lot once, through batches and groups', () => {
    const places = Array.from({ length: mixed.pieces }, (_, i) => placeOfPiece(mixed, i + 1));
    expect(places.every((p) => p !== undefined)).toBe(true);
    for (const g of mixed.groups) expect(places.filter((p) => p?.group === g.key)).toHaveLength(g.pieces);
    for (const b of mixed.batches) expect(places.filter((p) => p?.batch === b.number)).toHaveLength(b.pieces);
  });
  it.each([0, -1, 7, 2000])('knows no piece %i', (number) => {
    expect(placeOfPiece(mixed, number)).toBeUndefined();
    expect(sayPieceTag(mixed, number)).toBe('');
  });
  it('names base, part, dips and what shifts its shade, where they differ', () => {
    const said = Array.from({ length: mixed.pieces }, (_, i) => sayPieceTag(mixed, i + 1));
    const of = (base: string, part: string) => said.filter((s) => s.includes(base) && s.includes(part));
    expect(of('hanks', 'saddened').every((s) => s.endsWith('3 dips, Sadden with iron'))).toBe(true);
    expect(of('hanks', 'plain').every((s) => s.endsWith('3 dips'))).toBe(true);
    expect(of('scrim', 'saddened')).toHaveLength(1);
  });
  it('says nothing where all pieces are alike', () => {
    const plain = planned(input({ bases: [wool(2)] }));
    expect(sayPieceTag(plain, 1)).toBe('');
  });
});
