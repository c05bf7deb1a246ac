import type { PlanFacts, PlannableLot, PlannableStep } from './house-plan';
import type { HouseRoom } from './house-times';
import type { PlanNeed, PlanResource } from './plan-problem';
import type { StepTimes } from './step-times';

/** What a house has beside its pots and burners, as a plan names it. */
export const HOUSE_SPACES = { line: 'drying line', cold: 'cold space', balance: 'balance' } as const;

/** The drying line, the cold space and the balances a house says it has; none it has as much of as is wanted. */
export function houseSpaces({ dryingPieces, coldPots, balances }: HouseRoom): PlanResource[] {
  const of = (id: string, name: string, kind: 'space' | 'balance', capacity: number | null): PlanResource[] =>
    capacity === null ? [] : [{ id, name, kind, capacity, out: [] }];
  return [
    ...of(HOUSE_SPACES.line, $localize`Drying line`, 'space', dryingPieces),
    ...of(HOUSE_SPACES.cold, $localize`Cold space`, 'space', coldPots),
    ...of(HOUSE_SPACES.balance, $localize`Balance`, 'balance', balances),
  ];
}

/** All a step takes up beside its pots: a burner where it is hot, and what of the house’s room it wants. */
export const stepNeeds = (facts: PlanFacts, lot: PlannableLot, step: PlannableStep, aloneMin: number): PlanNeed[] => [
  ...heatNeeds(facts, step, aloneMin),
  ...spaceNeeds(facts.times.room, lot, step),
];

/**
 * Pieces that dry hang on the line, as many as it holds at once; a pot left to itself and not hot stands in the cold
 * space; a balance is somebody’s while they weigh.
 */
function spaceNeeds(
  { dryingPieces, coldPots, balances }: HouseRoom,
  lot: PlannableLot,
  step: PlannableStep,
): PlanNeed[] {
  const takes = (resourceId: string, amount: number, onlyToBegin = false): PlanNeed => ({
    amount,
    options: [{ resourceId, extraMin: 0, heatWh: 0 }],
    ...(onlyToBegin ? { onlyToBegin } : {}),
  });
  const pots = step.vesselIds.length;
  const standsCold = pots > 0 && !step.times.isHot && !step.times.watched && step.times.aloneMin > 0;
  return [
    ...(dryingPieces !== null && step.kind === 'dry'
      ? [takes(HOUSE_SPACES.line, Math.max(1, Math.min(lot.pieces, dryingPieces)))]
      : []),
    ...(coldPots !== null && standsCold ? [takes(HOUSE_SPACES.cold, Math.min(pots, coldPots))] : []),
    ...(balances !== null && step.weighs ? [takes(HOUSE_SPACES.balance, 1, true)] : []),
  ];
}

/** A hot bath stands on the burner of its pot; pots of one burner on it together, as many as it carries. */
function heatNeeds(facts: PlanFacts, step: PlannableStep, aloneMin: number): PlanNeed[] {
  return potsOnHeat(facts, step).map(({ id, powerW, pots, room }) => ({
    amount: Math.min(pots, room),
    options: [{ resourceId: id, extraMin: 0, heatWh: Math.round((powerW * aloneMin) / 60) }],
  }));
}

/** How often a burner is heated for a step, where its pots don't all stand on it at once. */
export const turnsOnHeat = (facts: PlanFacts, step: PlannableStep): number =>
  Math.max(1, ...potsOnHeat(facts, step).map(({ pots, room }) => Math.ceil(pots / room)));

/** A step's times where it is heated so many times over. */
export const inTurns = (times: StepTimes, turns: number): StepTimes => ({
  ...times,
  aloneMin: times.aloneMin * turns,
  aloneMaxMin: times.aloneMaxMin === null ? null : times.aloneMaxMin * turns,
});

/** The burners of a hot step, how many of its pots are theirs and how many they carry at once. */
function potsOnHeat(
  facts: PlanFacts,
  step: PlannableStep,
): { id: string; powerW: number; pots: number; room: number }[] {
  if (!step.times.isHot) return [];
  const pots = new Set(step.vesselIds);
  const onSource = new Map<string, number>();
  for (const { id, heatSourceId } of facts.vessels)
    if (pots.has(id) && heatSourceId !== null) onSource.set(heatSourceId, (onSource.get(heatSourceId) ?? 0) + 1);
  return [...onSource].map(([id, many]) => ({
    id,
    pots: many,
    room: facts.times.heat.find((h) => h.heatSourceId === id)?.potsAtOnce ?? 1,
    powerW: facts.heatSources.find((h) => h.id === id)?.powerW ?? 0,
  }));
}
