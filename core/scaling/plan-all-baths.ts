import type { Vessel } from '../bath/vessel';
import type { RecipeStep } from '../recipe/recipe-step';
import type { ExtraWaits } from './bath-order';
import { orderBaths } from './bath-order';
import type { BathOfSteps } from './collect-baths';
import type { PlannedBatch, PlannedBath, PlannedGroup } from './lot-plan';
import type { DescribedBath } from './plan-baths';
import { planBath } from './plan-baths';
import { goesThrough } from './plan-groups';
import type { PlanCaution } from './plan-caution';
import type { PlanInput } from './plan-input';
import type { PlanRefusal } from './plan-refusal';
import { refusal } from './plan-refusal';
import { noVessel } from './refuse-input';
import { suitedVessels } from './vessel-choice';

type PotWait = Extract<PlanCaution, { readonly code: 'potWait' }>;

/** The fillings of every step's bath, and what waits for a pot to be free; or why one can't be filled. */
export type AllBaths =
  | {
      readonly ok: true;
      readonly bathsOf: (step: RecipeStep) => readonly DescribedBath[];
      readonly liquorOf: (step: RecipeStep) => string;
      readonly waits: ExtraWaits;
      readonly potWaits: readonly PotWait[];
    }
  | { readonly ok: false; readonly refusal: PlanRefusal };

interface FilledBath {
  readonly bath: BathOfSteps;
  readonly fillings: readonly DescribedBath[];
}

/**
 * Fills every bath of the chain, so that no vessel holds two liquors at once: a bath goes into a vessel that is free
 * while it is in use, or waits until one is emptied.
 * @param mainOf keys of the baths that decided the batches
 */
export function planAllBaths(
  baths: readonly BathOfSteps[],
  { batches, mainOf }: { readonly batches: readonly PlannedBatch[]; readonly mainOf: ReadonlySet<string> },
  groups: readonly PlannedGroup[],
  input: PlanInput,
): AllBaths {
  const order = orderBaths(input.recipe.steps);
  const filled: FilledBath[] = [];
  const potWaits: PotWait[] = [];
  const used = baths.filter((b) => b.steps.some((s) => groups.some((g) => goesThrough(s, g))));
  for (const bath of [...used.filter((b) => mainOf.has(b.key)), ...used.filter((b) => !mainOf.has(b.key))]) {
    const isMain = mainOf.has(bath.key);
    const follows = filled.filter((f) => f.bath.key === bath.follows).flatMap((f) => f.fillings.map((d) => d.bath));
    const overlapping = filled.filter((f) => order.overlap(f.bath, bath));
    const sharing = (fillings: readonly DescribedBath[]): FilledBath[] =>
      overlapping.filter((f) => f.fillings.some((o) => fillings.some((d) => d.bath.vesselId === o.bath.vesselId)));
    const ways = vesselsToTry(bath, { follows, overlapping }, input);
    const tried: (readonly DescribedBath[])[] = [];
    let fillings: readonly DescribedBath[] | undefined;
    for (const vessels of ways) {
      const way = planBath(bath, batches, groups, { isMain, vessels, follows }, input);
      if (way.length === 0) continue;
      tried.push(way);
      if (!sharing(way).every((f) => order.canTakeTurns(f.bath, bath))) continue;
      if (fillings === undefined || costOf(way) < costOf(fillings)) fillings = way;
      if (costOf(fillings) === 0) break;
    }
    const [first] = tried;
    if (!first) return { ok: false, refusal: noVessel(bath, input) };
    if (!fillings) return { ok: false, refusal: potTakenTwice(bath, first, sharing(first)) };
    const over = fillings.find((d) => d.bath.fillLevel.value > 100)?.bath;
    if (over) return { ok: false, refusal: bathTooBig(bath, over.vesselName) };
    for (const other of sharing(fillings)) {
      const turn = order.putInTurn(other.bath, bath);
      if (!turn) return { ok: false, refusal: potTakenTwice(bath, fillings, [other]) };
      potWaits.push({
        code: 'potWait',
        vesselName: sharedVessel(fillings, [other]),
        first: titleOf(turn.first),
        then: titleOf(turn.second),
      });
    }
    filled.push({ bath, fillings });
  }
  const ofStep = new Map(filled.flatMap((f) => f.bath.steps.map((step) => [step, f] as const)));
  return {
    ok: true,
    bathsOf: (step) => ofStep.get(step)?.fillings ?? [],
    liquorOf: (step) => ofStep.get(step)?.bath.liquor ?? '',
    waits: order.waits(),
    potWaits,
  };
}

/** Vessels to try for a bath, the best choice first: free and fit for it, fit for it, free, any. */
function vesselsToTry(
  bath: BathOfSteps,
  { follows, overlapping }: { readonly follows: readonly PlannedBath[]; readonly overlapping: readonly FilledBath[] },
  input: PlanInput,
): (readonly Vessel[])[] {
  if (follows.length > 0) return [input.vessels.filter((v) => follows.some((b) => b.vesselId === v.id))];
  const taken = new Set(overlapping.flatMap((f) => f.fillings.map((d) => d.bath.vesselId)));
  const isFree = (v: Vessel): boolean => !taken.has(v.id);
  const suited = suitedVessels(input.vessels, bath.steps, input);
  return [suited.filter(isFree), suited, input.vessels.filter(isFree), input.vessels];
}

/** Turns beyond the first; one that overflows is never better than one that doesn't. */
const costOf = (fillings: readonly DescribedBath[]): number =>
  fillings.reduce((sum, { bath }) => sum + bath.turns - 1 + (bath.fillLevel.value > 100 ? 1000 : 0), 0);

const titleOf = (bath: BathOfSteps): string => bath.steps[0]?.title ?? '';

const sharedVessel = (fillings: readonly DescribedBath[], others: readonly FilledBath[]): string =>
  fillings.find((d) => others.some((f) => f.fillings.some((o) => o.bath.vesselId === d.bath.vesselId)))?.bath
    .vesselName ?? '';

const bathTooBig = (bath: BathOfSteps, vesselName: string): PlanRefusal =>
  refusal({ code: 'bathTooBig', stepTitle: titleOf(bath), vesselName, metals: bath.metals });

const potTakenTwice = (
  bath: BathOfSteps,
  fillings: readonly DescribedBath[],
  others: readonly FilledBath[],
): PlanRefusal =>
  refusal({
    code: 'potTakenTwice',
    vesselName: sharedVessel(fillings, others),
    stepTitle: titleOf(bath),
    otherTitle: others[0] ? titleOf(others[0].bath) : '',
  });
