import { describe, expect, it } from 'vitest';
import { baseDisplacementMl, fibresIn, fibreDisplacementMl } from '../bath/fibre';
import type { BlendShare } from '../bath/fibre';
import { checkLot } from '../checks/check-lot';
import { sayPlanCaution } from './plan-caution';
import {
  bathStep,
  input,
  material,
  percent,
  planned,
  pot,
  recipe,
  refusedBy,
  stockLot,
  wool,
} from './plan-lot.fixture';

const share = (fibre: BlendShare['fibre'], sharePercent: number): BlendShare => ({ fibre, sharePercent });
const sock = (...blend: BlendShare[]) => ({ ...wool(4), blend });
const lot = (...blend: BlendShare[]) =>
  input({
    bases: [sock(...blend)],
    recipe: recipe({ steps: [bathStep('dye', [percent('weld', 50)], { title: 'Dye', temperatureC: 95 })] }),
    vessels: [pot('kettle', 40)],
    materials: [material('weld', stockLot('WEL-1', 9000))],
  });

describe('a blend as a base', () => {
  it('takes the room of each fibre by its share', () => {
    const blend = [share('wool', 75), share('nylon', 25)];
    expect(fibresIn({ fibre: 'wool', blend })).toEqual(['wool', 'nylon']);
    expect(baseDisplacementMl({ fibre: 'wool', blend }, 400)).toBeCloseTo(
      fibreDisplacementMl('wool', 300) + fibreDisplacementMl('nylon', 100),
      9,
    );
    expect(baseDisplacementMl({ fibre: 'wool' }, 130)).toBeCloseTo(100, 9);
  });

  it('wants a recipe proven on all that there is much of, and none for a little', () => {
    expect(refusedBy(lot(share('wool', 55), share('cotton', 45)))).toMatchObject({
      code: 'fibreNotSuited',
      fibre: 'cotton',
    });
    expect(planned(lot(share('wool', 80), share('nylon', 20))).groups[0]?.blend).toHaveLength(2);
    expect(
      planned(lot(share('wool', 60), share('synthetic', 40)))
        .cautions.map(sayPlanCaution)
        .join(),
    ).toContain('Synthetic fibre takes nothing');
  });

  it('bears no more heat than its tenderest fibre', () => {
    const of = lot(share('wool', 80), share('silk', 20));
    const plan = planned(of);
    const messages = checkLot({
      plan,
      recipe: of.recipe,
      status: 'proven',
      materials: [],
      vessels: of.vessels,
      stockLots: [],
      intake: { flags: [], syntheticPercent: null },
      house: {},
      water: null,
      otherWaters: [],
      today: '2026-06-01',
    }).map((c) => c.message);
    expect(messages.join()).toMatch(/goes to 95 °C; silk bears about 85 °C/);
  });

  it('goes through steps that are for any of its fibres', () => {
    const of = lot(share('wool', 80), share('nylon', 20));
    const steps = [bathStep('scour', [], { fibres: ['nylon'] }), ...of.recipe.steps];
    expect(planned({ ...of, recipe: { ...of.recipe, steps } }).steps.map((s) => s.kind)).toContain('scour');
  });
});
