import { describe, expect, it } from 'vitest';
import type { LotConditions } from './then-and-now';
import { compareThenAndNow } from './then-and-now';

const conditions: LotConditions = {
  recipe: { id: 'r1', name: 'Weld on alum, version 1' },
  base: [{ stockLotId: 'b1', tag: 'RUG-1' }],
  materials: [
    {
      materialId: 'weld',
      name: 'Weld',
      measure: 'weight',
      percentOwf: 100,
      sources: [{ stockLotId: 'w1', tag: 'WEL-1' }],
    },
  ],
  water: { id: 'tap', name: 'Tap', ph: 7.5, hardnessDh: 14 },
  vessels: [{ id: 'k', name: 'Kettle', metal: 'stainless' }],
  liquorRatio: 30,
};
const weld = (change: Partial<LotConditions['materials'][number]>): Partial<LotConditions> => ({
  materials: [{ ...conditions.materials[0]!, ...change }],
});

describe('compareThenAndNow', () => {
  it('finds nothing changed where nothing is', () =>
    expect(compareThenAndNow(conditions, conditions).every((f) => f.same && f.effect === '')).toBe(true));

  it.each<[string, Partial<LotConditions>, string, RegExp]>([
    ['recipe version', { recipe: { id: 'r2', name: 'Weld on alum, version 2' } }, 'Recipe', /what changed/],
    ['base lot', { base: [{ stockLotId: 'b2', tag: 'RUG-2' }] }, 'Base lot', /whiter or yellower/],
    ['stock lot', weld({ sources: [{ stockLotId: 'w2', tag: 'WEL-2' }] }), 'Weld', /strike-off/],
    [
      'one more stock lot',
      weld({
        sources: [
          { stockLotId: 'w1', tag: 'WEL-1' },
          { stockLotId: 'w2', tag: 'WEL-2' },
        ],
      }),
      'Weld',
      /strike-off/,
    ],
    ['more of it', weld({ percentOwf: 110 }), 'Weld', /More than/],
    ['less of it', weld({ percentOwf: 90 }), 'Weld', /Less than/],
    [
      'a weaker stock lot, made up for by the plan',
      weld({ percentOwf: 125, worthPercentOwf: 100, sources: [{ stockLotId: 'w2', tag: 'WEL-2' }] }),
      'Weld',
      /makes up for its strength/,
    ],
    ['a weaker stock lot, dosed as before', weld({ worthPercentOwf: 80 }), 'Weld', /Less than/],
    ['left out', { materials: [] }, 'Weld', /not now/],
    ['water', { water: { id: 'rain', name: 'Rain barrel', ph: 6.3, hardnessDh: 1 } }, 'Water', /shift the shade/],
    [
      'the same tap gone harder',
      { water: { id: 'tap', name: 'Tap', ph: 7.5, hardnessDh: 19 } },
      'Water',
      /shift the shade/,
    ],
    ['no water said', { water: null }, 'Water', /shift the shade/],
    ['pot of the same metal', { vessels: [{ id: 'p', name: 'Pan', metal: 'stainless' }] }, 'Vessel', /same metal/],
    ['pot of another metal', { vessels: [{ id: 'p', name: 'Pot', metal: 'aluminium' }] }, 'Vessel', /iron saddens/],
    ['longer bath', { liquorRatio: 40 }, 'Liquor ratio', /paler/],
    ['shorter bath', { liquorRatio: 20 }, 'Liquor ratio', /deeper/],
  ])('names another %s, and nothing else', (_name, change, factor, effect) => {
    const different = compareThenAndNow(conditions, { ...conditions, ...change }).filter((f) => !f.same);
    expect(different.map((f) => f.name)).toEqual([factor]);
    expect(different[0]?.effect).toMatch(effect);
  });

  it('takes a dose within weighing error as the same', () =>
    expect(compareThenAndNow(conditions, { ...conditions, ...weld({ percentOwf: 101.5 }) }).every((f) => f.same)).toBe(
      true,
    ));
  it('names what was not used then', () => {
    const iron = { materialId: 'iron', name: 'Iron', measure: 'weight' as const, percentOwf: 2, sources: [] };
    expect(
      compareThenAndNow(conditions, { ...conditions, materials: [...conditions.materials, iron] }).find(
        (f) => f.name === 'Iron',
      ),
    ).toMatchObject({ then: 'not used', now: '2 % WOF from none', same: false });
  });
});
