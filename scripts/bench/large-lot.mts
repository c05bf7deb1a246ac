import type { PlanInput, PlanMaterial } from '@vestigia/core';
import { bathStep, input, material, percent, pot, recipe, stockLot, wool } from '../../core/scaling/plan-lot.fixture';

const largeMaterial = (id: string, freeG: number, stockLots: number): PlanMaterial =>
  material(
    id,
    ...Array.from({ length: stockLots }, (_, s) =>
      stockLot(`s${id}.${s}`, freeG, { receivedOn: `2026-0${s + 1}-01`, strengthPercent: 90 + s * 5 }),
    ),
  );

/** So many pieces over so many pots through so many steps, each with a dose of its own, heated. */
export function largeLot(pieces: number, vessels: number, steps: number): PlanInput {
  const materials = Array.from({ length: steps }, (_, m) => largeMaterial(`m${m}`, 9000, 4));
  return input({
    materials,
    recipe: recipe({
      steps: materials.map((m, i) =>
        bathStep('dye', [percent(m.id, 10 + i)], { title: `Step ${i}`, temperatureC: 80 }),
      ),
    }),
    bases: [wool(pieces, 100, largeMaterial('base', 90_000, 1))],
    vessels: Array.from({ length: vessels }, (_, v) =>
      pot(`v${v}`, 60 + v * 12, { heatSource: { id: 'h', name: 'ring', powerW: 7500, efficiencyPercent: 50 } }),
    ),
  });
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
