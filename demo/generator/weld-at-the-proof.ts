import type { StudioFile } from '@vestigia/contract';
import { ciede2000 } from '@vestigia/core';
import type { Body, Teller, RecipeBook } from './recipe-book';
import { D65, DAY_MS, OVERNIGHT_MIN, iso } from './recipe-book';

/** A second version of the weld recipe, at the proof: less alum, and the pot left overnight. */
export function addWeldAtTheProof(
  doc: StudioFile,
  { random, endMs }: Teller,
  { of, version, byId }: RecipeBook,
  weld: { readonly id: string },
  first: { readonly body: Body },
): void {
  const next = version(
    weld.id,
    2,
    {
      ...first.body,
      minLiquorRatio: 22,
      water: { asks: 'hard', hardnessDh: 8 },
      note: 'Less alum, and the pot left overnight. Hard water wanted: chalk if only the barrel is to hand.',
      practice: { mordantHeat: 'hot', aluminium: 'alum12', finish: 'overnight', straining: 'twice' },
      steps: first.body.steps.map((s) => {
        if (s.kind === 'mordant')
          return {
            ...s,
            doses: [of('Potassium alum', 12), of('Cream of tartar', 5)],
            course: [
              { do: 'raise' as const, toC: 82, minutes: 45 },
              { do: 'hold' as const, toC: 82, minutes: 60 },
              { do: 'cool' as const, minutes: OVERNIGHT_MIN },
            ],
          };
        if (s.kind === 'extract')
          return {
            ...s,
            doses: [of('Weld, dried tops', 90, 'dried')],
            strain: 'muslinTwice' as const,
            wait: { minMinutes: 0, maxMinutes: 2880 },
          };
        if (s.kind === 'dye')
          return {
            ...s,
            finishedBy: 'both' as const,
            course: [
              { do: 'raise' as const, toC: 75, minutes: 40 },
              { do: 'hold' as const, toC: 75, minutes: 30 },
              { do: 'coast' as const, minutes: 60 },
              { do: 'raise' as const, toC: 75, minutes: 15 },
              { do: 'cool' as const, minutes: OVERNIGHT_MIN },
            ],
          };
        return s;
      }),
    },
    60,
    'proof',
    'Two proofs within tolerance, one to go',
  );
  const wanted = { L: 74.6, a: -4.8, b: 51.2 };
  for (const [n, lab] of [
    { L: 74.1, a: -4.5, b: 50.1 },
    { L: 75, a: -5, b: 52.4 },
    { L: 71.2, a: -3.6, b: 46.9 },
  ].entries()) {
    const atMs = endMs - (52 - n * 9) * DAY_MS;
    (doc.proofs ??= []).push({
      id: random.id(atMs),
      recipeVersionId: next,
      wofG: 25,
      lab,
      wanted,
      ...D65,
      toleranceDeltaE: 2,
      deltaE: Math.round(ciede2000(wanted, lab, { kL: 1, kC: 1, kH: 1 }).deltaE * 1000) / 1000,
      note: n === 2 ? 'Barrel water, no chalk: paler.' : '',
      byId: byId,
      at: iso(atMs),
    });
  }
}
