import { describe, expect, it } from 'vitest';
import { input, planned } from '../scaling/plan-lot.fixture';
import { codeNames, jarCodes, namesOf, withCodeNames } from './code-names';

describe('code names', () => {
  const plan = planned(input());
  const many = {
    materials: Array.from({ length: 28 }, (_, i) => ({
      ...plan.materials[0]!,
      materialId: `m${i}`,
      kind: 'dyestuff' as const,
    })),
  };
  it('everything but the fibre has a letter, in the order it is used', () => {
    const [base, ...rest] = plan.materials;
    const shaped = { materials: [{ ...base!, kind: 'fibre' as const }, ...rest] };
    expect(codeNames(shaped).map((c) => [c.name, c.code])).toEqual([
      ['alum', 'A'],
      ['weld', 'B'],
    ]);
    expect(
      codeNames(many)
        .map((c) => c.code)
        .slice(24),
    ).toEqual(['Y', 'Z', 'AA', 'AB']);
  });
  it('a name is known by its short form too', () => {
    const named = (name: string) => namesOf({ materialId: 'm', name, code: 'A' }).map(([n]) => n);
    expect(named('Weld, dried tops')).toEqual(['Weld, dried tops', 'Weld']);
    expect(named('Alum (potash)')).toEqual(['Alum (potash)', 'Alum']);
    expect(named('Tin, old')).toEqual(['Tin, old']);
    expect(named('White vinegar')).toEqual(['White vinegar']);
  });
  it('jars are numbered within their letter as they came, and a solution goes by what is in it', () => {
    const codes = [{ materialId: 'w', name: 'weld', code: 'B' }];
    const jars = [
      { id: '1', materialId: 'w' },
      { id: '2', materialId: 'other' },
      { id: '3', materialId: 'w' },
      { id: '0', materialId: 'w solution', solutionOf: { materialId: 'w' } },
    ];
    expect([...jarCodes(jars, codes)]).toEqual([
      ['0', 'B1'],
      ['1', 'B2'],
      ['3', 'B3'],
    ]);
  });
  it.each([
    ['Weld in batch 1', 'B in batch 1'],
    ['weld, then Weld, dried tops', 'B, then C'],
    ['Welding gloves', 'Welding gloves'],
    ['20 g less Alum (potash) than planned', '20 g less A than planned'],
    ['Stir.', 'Stir.'],
  ])('%s', (text, expected) =>
    expect(
      withCodeNames(text, [
        ['Weld', 'B'],
        ['Weld, dried tops', 'C'],
        ['Alum (potash)', 'A'],
        ['', 'Z'],
      ]),
    ).toBe(expected),
  );
});
