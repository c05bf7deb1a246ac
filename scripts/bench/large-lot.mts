import type { PlanInput, PlanMaterial } from '@vestigia/core';
import { ANY_WATER, recipeStep } from '@vestigia/core';

const ROOM = { roomC: 18, coldWaterC: 12, hotWaterC: 55, liftLimitKg: 15, energyMinorPerKwh: 30 };
const largeMaterial = (id: string, free: number, stockLots: number): PlanMaterial => ({
  id,
  name: `Material ${id}`,
  hazards: [],
  measure: 'weight',
  packet: null,
  spoons: [],
  dryFactor: null,
  stock: Array.from({ length: stockLots }, (_, s) => ({
    stockLotId: `s${id}.${s}`,
    free,
    receivedOn: `2026-0${s + 1}-01`,
    strengthPercent: 90 + s * 5,
  })),
});

/** So many pieces over so many pots through so many steps, each with a dose of its own, heated. */
export function largeLot(pieces: number, vessels: number, steps: number): PlanInput {
  const materials = Array.from({ length: steps }, (_, m) => largeMaterial(`m${m}`, 9_000_000, 4));
  return {
    today: '2026-06-01',
    materials,
    water: null,
    room: ROOM,
    balance: { name: 'balance', resolutionG: 0.1, capacityG: 3000 },
    recipe: {
      id: 'r',
      recipeName: 'Large',
      number: 1,
      fibres: ['wool'],
      liquorRatio: 30,
      minLiquorRatio: null,
      allowedMetals: ['stainless'],
      water: ANY_WATER,
      practice: {},
      parts: [],
      placed: null,
      steps: materials.map((m, i) =>
        recipeStep({
          kind: 'dye',
          title: `Step ${i}`,
          usesBath: true,
          temperatureC: 80,
          doses: [{ materialId: m.id, by: 'percentOwf', percentOwf: 10 + i }],
        }),
      ),
    },
    bases: [{ ...largeMaterial('base', 90_000_000, 1), fibre: 'wool', pieceWord: 'hank', pieces, pieceWeightG: 100 }],
    vessels: Array.from({ length: vessels }, (_, v) => ({
      id: `v${v}`,
      name: `Pot ${v}`,
      metal: 'stainless' as const,
      workingMl: 60_000 + v * 12_000,
      heatSource: { id: 'h', name: 'ring', powerW: 7500, efficiencyPercent: 50 },
    })),
  };
}

/** Three fibres of different weights in one pot, some of them saddened: the split has no closed form. */
export function mixedLot(): PlanInput {
  const lot = largeLot(80, 8, 25);
  const [first] = lot.bases;
  return {
    ...lot,
    recipe: { ...lot.recipe, fibres: ['wool', 'linen', 'silk'] },
    bases: [
      first,
      { ...first, id: 'linen', fibre: 'linen', pieceWord: 'length', pieces: 70, pieceWeightG: 150 },
      { ...first, id: 'silk', fibre: 'silk', pieceWord: 'reel', pieces: 50, pieceWeightG: 25 },
    ],
  };
}
