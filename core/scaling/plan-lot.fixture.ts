import { ANY_WATER } from '../bath/water';
import type { Vessel } from '../bath/vessel';
import type { LotPlan } from './lot-plan';
import type { PlanRefusal } from './plan-refusal';
import { sayPlanRefusal } from './plan-refusal';
import type { PlanBase, PlanInput, PlanMaterial } from './plan-input';
import { planLot } from './plan-lot';
import type { RecipeVersion } from '../recipe/recipe';
import type { Dose } from '../recipe/dose';
import type { RecipeStep } from '../recipe/recipe-step';
import { recipeStep } from '../recipe/recipe-step';

/** What tests of scaling share: a small dyehouse of two pans, an iron cauldron, alum, weld and wool. */
export const percent = (materialId: string, percentOwf: number): Dose => ({ materialId, by: 'percentOwf', percentOwf });
export const bathStep = (
  kind: RecipeStep['kind'],
  doses: readonly Dose[] = [],
  rest: Partial<RecipeStep> = {},
): RecipeStep => recipeStep({ kind, title: kind, usesBath: true, doses, ...rest });
export const stockLot = (
  stockLotId: string,
  freeG: number,
  rest: Partial<PlanMaterial['stock'][number]> = {},
): PlanMaterial['stock'][number] => ({
  stockLotId,
  tag: stockLotId,
  free: freeG * 1000,
  receivedOn: '2026-01-01',
  ...rest,
});
export const material = (id: string, ...stock: PlanMaterial['stock']): PlanMaterial => ({
  id,
  name: id,
  hazards: [],
  measure: 'weight',
  packet: null,
  spoons: [],
  dryFactor: null,
  stock,
});
export const pot = (id: string, litres: number, rest: Partial<Vessel> = {}): Vessel => ({
  id,
  name: id,
  metal: 'stainless',
  workingMl: litres * 1000,
  ...rest,
});
export const wool = (pieces: number, pieceWeightG = 100, rest: Partial<PlanBase> = {}): PlanBase => ({
  ...material('hanks', stockLot('RUG-1', 50_000)),
  fibre: 'wool',
  pieceWord: 'hank',
  pieces,
  pieceWeightG,
  ...rest,
});
export const linen = (pieces: number, pieceWeightG = 250): PlanBase => ({
  ...material('scrim', stockLot('LIN-1', 50_000)),
  fibre: 'linen',
  pieceWord: 'length',
  pieces,
  pieceWeightG,
});
export const ROOM = { roomC: 18, coldWaterC: 12, hotWaterC: 55, liftLimitKg: 15, energyMinorPerKwh: 30 };

export const recipe = (change: Partial<RecipeVersion> = {}): RecipeVersion => ({
  id: 'r',
  recipeName: 'Weld on alum',
  number: 2,
  fibres: ['wool'],
  liquorRatio: 30,
  minLiquorRatio: null,
  allowedMetals: ['stainless'],
  water: ANY_WATER,
  practice: {},
  parts: [],
  placed: null,
  steps: [
    bathStep('mordant', [percent('alum', 15)], { temperatureC: 85 }),
    bathStep('extract', [percent('weld', 100)]),
    bathStep('dye'),
  ],
  ...change,
});

export const input = (change: Partial<PlanInput> = {}): PlanInput => ({
  today: '2026-06-01',
  water: null,
  room: ROOM,
  recipe: recipe(),
  bases: [wool(12)],
  materials: [
    { ...material('alum', stockLot('ALU-1', 1000)), hazards: ['dust'] },
    material('weld', stockLot('WEL-1', 2000)),
  ],
  vessels: [pot('kettle', 30), pot('pan', 20), pot('cauldron', 60, { metal: 'iron', heldIron: true })],
  balance: { name: 'balance', resolutionG: 0.1, capacityG: 3000 },
  ...change,
});

export function planned(i: PlanInput): LotPlan {
  const result = planLot(i);
  if (!result.ok) throw new Error(sayPlanRefusal(result.refusal));
  return result.plan;
}

export function refusedBy(i: PlanInput): PlanRefusal {
  const result = planLot(i);
  if (result.ok) throw new Error('expected a refusal');
  return result.refusal;
}

export const total = (plan: LotPlan, id: string): number =>
  plan.materials.find((m) => m.materialId === id)?.total.value ?? NaN;
