import { readFileSync } from 'node:fs';
import { studioDocument } from '@vestigia/contract';
import type { CheckedMaterial, LotPlan } from '@vestigia/core';
import { catalogueEntry, checkLot, hazardsOf } from '@vestigia/core';
import { describe, expect, it } from 'vitest';

const demo = studioDocument.parse(
  JSON.parse(readFileSync(new URL('../saltgrass-dyehouse.json', import.meta.url), 'utf8')),
);
const materials: CheckedMaterial[] = demo.materials.map(({ id, name, kind, hazards, facts }) => ({
  id,
  name,
  kind,
  hazards: hazardsOf({ hazards, catalogueKey: facts.catalogueKey }),
  ceilingC: facts.ceilingC,
  bringsTannin: facts.bringsTannin,
  catalogueKey: facts.catalogueKey,
  needs: facts.needs ?? catalogueEntry(facts.catalogueKey)?.needs ?? null,
}));

describe('the demo studio', () => {
  const byRecipe = new Map(demo.lots.map((lot) => [`${lot.recipeVersionId} ${lot.baseMaterialId}`, lot]));

  it.each([...byRecipe.values()].map((lot) => [lot.number, lot] as const))(
    'dyes lot %i by a recipe that nothing in it speaks against',
    (_, lot) => {
      const version = demo.recipeVersions.find((v) => v.id === lot.recipeVersionId);
      if (!version) throw new Error('no such version');
      const recipeName = demo.recipes.find((r) => r.id === version.recipeId)?.name ?? '';
      const checks = checkLot({
        plan: lot.plan as LotPlan,
        recipe: { id: version.id, recipeName, number: version.number, ...version.body },
        status: 'proven',
        materials,
        vessels: [],
        stockLots: [],
        intake: { flags: [], syntheticPercent: null },
        house: {},
        water: null,
        otherWaters: [],
        today: demo.asOf.slice(0, 10),
      });
      expect(checks.filter((c) => c.severity === 'stop').map((c) => c.message)).toEqual([]);
    },
  );
});
