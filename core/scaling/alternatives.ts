import type { LotPlan } from './lot-plan';
import type { PlanEffort } from './plan-effort';
import { planEffort } from './plan-effort';
import type { PlanInput } from './plan-input';
import { planLot } from './plan-lot';

/** Another way to dye the same lot, more alike from batch to batch: what is asked for it, and what it costs. */
export interface Alternative {
  readonly code: 'oneVessel' | 'shorterBath' | 'fewerVessels';
  /** What to ask for: only these vessels, so many fillings, this liquor ratio. As before where absent. */
  readonly vesselIds?: readonly string[];
  readonly fills?: number;
  readonly liquorRatio?: number;
  readonly batches: readonly { readonly vesselName: string; readonly pieces: number; readonly wofG: number }[];
  readonly effort: PlanEffort;
}

/** Batches that weigh within this of one another are alike. */
const ALIKE_SHARE = 0.1;
const MAX_ALTERNATIVES = 3;

/** How far apart the batches of a plan are: the lightest as a share of the heaviest, from 1 downwards. */
export function unevenness({ batches }: Pick<LotPlan, 'batches'>): number {
  const weights = batches.map((b) => b.wof.value);
  return weights.length < 2 ? 0 : 1 - Math.min(...weights) / Math.max(...weights);
}

/**
 * Ways to dye a lot in batches that are more alike than those proposed: two fillings of one vessel, two like vessels,
 * a shorter bath that takes them together. Nothing where the batches are alike. Each was planned through, and works.
 */
export function findAlternatives(input: PlanInput, plan: LotPlan): Alternative[] {
  const uneven = unevenness(plan);
  if (uneven <= ALIKE_SHARE) return [];
  const asked = tries(input, plan);
  const found: Alternative[] = [];
  for (const { change, ...rest } of asked) {
    const result = planLot({ ...input, ...change });
    if (!result.ok || unevenness(result.plan) >= uneven / 2) continue;
    const batches = result.plan.batches.map((b) => ({
      vesselName: b.vesselName,
      pieces: b.pieces,
      wofG: b.wof.value,
    }));
    if (!found.some((f) => JSON.stringify(f.batches) === JSON.stringify(batches)))
      found.push({ ...rest, batches, effort: planEffort(result.plan) });
  }
  return found.slice(0, MAX_ALTERNATIVES);
}

type Try = Pick<Alternative, 'code' | 'vesselIds' | 'fills' | 'liquorRatio'> & { readonly change: Partial<PlanInput> };

/** What is tried, the least trouble first. */
function tries(input: PlanInput, plan: LotPlan): Try[] {
  const used = input.vessels.filter((v) => plan.batches.some((b) => b.vesselId === v.id));
  const min = input.recipe.minLiquorRatio;
  const ratios = min === null ? [] : [Math.ceil((plan.liquorRatio + min) / 2), min];
  const shorter = [...new Set(ratios)].filter((r) => r < plan.liquorRatio && r >= (min ?? Infinity));
  // The others stay for what goes on beside the dye bath.
  const without = (id: string): PlanInput['vessels'] => input.vessels.filter((v) => v.id !== id);
  return [
    ...shorter.map((liquorRatio): Try => ({ code: 'shorterBath', liquorRatio, change: { liquorRatio } })),
    ...used.map((v): Try => {
      const vessels = without(v.id);
      return { code: 'fewerVessels', vesselIds: vessels.map((o) => o.id), change: { vessels } };
    }),
    ...used.map((v): Try => ({ code: 'oneVessel', vesselIds: [v.id], fills: 2, change: { vessels: [v], fills: 2 } })),
  ].filter((t) => t.change.vessels === undefined || t.change.vessels.length > 0);
}
