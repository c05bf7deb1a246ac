import { describe, expect, it } from 'vitest';
import { FIBRE_KINDS, fibreFamily } from '../bath/fibre';
import { CATALOGUE, catalogueEntry } from '../catalogue/catalogue';
import { usualDose } from '../catalogue/usual-doses';
import { findChainFault } from './chain';
import { starterNeeds, starterRecipe, startersFor } from './starters';

const dyestuffs = CATALOGUE.filter((e) => e.kind === 'dyestuff');
const pairs = FIBRE_KINDS.flatMap((fibre) =>
  dyestuffs.flatMap((dyestuff) => startersFor(fibre, dyestuff).map((starter) => ({ fibre, dyestuff, starter }))),
);

describe('first recipes', () => {
  it('are offered for every fibre that takes plant dye, and every dyestuff but those of a vat', () => {
    for (const fibre of FIBRE_KINDS)
      for (const dyestuff of dyestuffs)
        expect(startersFor(fibre, dyestuff).length > 0, `${fibre} ${dyestuff.key}`).toBe(
          fibre !== 'synthetic' && dyestuff.needs !== 'vat',
        );
    expect(startersFor('wool', { needs: 'direct' })[0]).toBe('direct');
    expect(startersFor('linen', { needs: 'mordant' })[0]).toBe('tanninAcetate');
  });

  it('hold together as chains, weigh every need once, and stay within usual doses and heat', () => {
    expect(pairs.length).toBeGreaterThan(1000);
    for (const { fibre, dyestuff, starter } of pairs) {
      const name = `${starter} ${fibre} ${dyestuff.key}`;
      const { steps } = starterRecipe(starter, fibre, dyestuff, (key) => key);
      expect(findChainFault(steps, []), name).toBeUndefined();
      const dosed = steps.flatMap((s) => s.doses.map((d) => d.materialId)).sort();
      expect(dosed, name).toEqual(
        starterNeeds(starter, dyestuff.key)
          .map((n) => n.key)
          .sort(),
      );
      for (const s of steps) if (s.ceilingC !== undefined) expect(s.temperatureC ?? 0).toBeLessThanOrEqual(s.ceilingC);
      if (fibre === 'silk') for (const s of steps) expect(s.temperatureC ?? 0, name).toBeLessThanOrEqual(70);
      const group = fibreFamily(fibre) === 'cellulose' ? 'cellulose' : 'protein';
      for (const { key, percentOwf } of starterNeeds(starter, dyestuff.key)) {
        const usual = usualDose(key, group);
        if (usual) expect(percentOwf, name).toBeLessThanOrEqual(usual.usual[1]);
      }
    }
  });

  it('name only materials of the catalogue, and measure liquors by volume', () => {
    const { steps } = starterRecipe('soy', 'cotton', catalogueEntry('madder')!, (key) => key);
    expect(steps.find((s) => s.kind === 'mordant')?.doses).toEqual([
      { materialId: 'soy-milk', by: 'solution', mlPer100G: 100, gPerL: null },
    ]);
    for (const { starter, dyestuff } of pairs)
      for (const { key } of starterNeeds(starter, dyestuff.key)) expect(catalogueEntry(key), key).toBeDefined();
  });

  it('refuse a school that doesn’t suit', () =>
    expect(() => starterRecipe('direct', 'wool', catalogueEntry('madder')!, (key) => key)).toThrow(RangeError));
});
