import type { FibreKind } from '../bath/fibre';
import { findChainFault } from '../recipe/chain';
import type { BathOfSteps } from './collect-baths';
import type { PlanInput } from './plan-input';
import type { PlanRefusal } from './plan-refusal';
import { refusal } from './plan-refusal';

/** Why a lot can't be planned whatever vessels there are: its chain, its fibre, its liquor ratio. */
export function refuseInput({ recipe, bases }: PlanInput, liquorRatio: number): PlanRefusal | undefined {
  const { recipeName, fibres } = recipe;
  const fault = findChainFault(recipe.steps, recipe.parts);
  if (fault) return refusal({ code: 'chainFault', fault });
  for (const base of bases) {
    const fibre = mainFibres(base).find((f) => !fibres.includes(f));
    if (fibre) return refusal({ code: 'fibreNotSuited', recipeName, fibres, baseName: base.name, fibre });
  }
  const min = recipe.minLiquorRatio ?? recipe.liquorRatio;
  if (liquorRatio < min || liquorRatio > Math.max(recipe.liquorRatio, min) * 2)
    return refusal({ code: 'ratioOutside', recipeName, liquorRatio, min, max: recipe.liquorRatio * 2 });
  return undefined;
}

/** A share so small doesn't ask for a recipe of its own, per cent. */
const SMALL_SHARE_PERCENT = 30;

/** Fibres a recipe has to be proven on: a little of another in a blend, or what takes no dye, is only told. */
const mainFibres = ({ fibre, blend = [] }: PlanInput['bases'][number]): FibreKind[] => [
  fibre,
  ...blend.filter((b) => b.sharePercent >= SMALL_SHARE_PERCENT && b.fibre !== 'synthetic').map((b) => b.fibre),
];

/** That no vessel of an allowed metal is there. */
export const noVessel = (
  { metals, steps }: Pick<BathOfSteps, 'metals' | 'steps'>,
  { vessels }: PlanInput,
): PlanRefusal =>
  refusal({ code: 'noVesselOfMetal', stepTitle: steps[0]?.title ?? null, metals, anyOwned: vessels.length > 0 });
