import { mixToTemperature, wetWeight } from '../bath/heating';
import type { Vessel } from '../bath/vessel';
import { maxC } from '../bath/vessel';
import type { Figure } from '../quantity/figure';
import type { BathNote } from './bath-note';
import type { PlannedBath } from './lot-plan';
import type { PlanInput } from './plan-input';

/** What notes on a bath are made from. */
export interface Noted {
  readonly vessel: Vessel;
  readonly toC: number | undefined;
  readonly liquorMl: number;
  readonly wofG: number;
  readonly turns: number;
  readonly pieces: number;
  readonly shares: number;
  readonly heating: PlannedBath['heating'];
  readonly fullWeight: Figure;
  readonly withPieces: boolean;
}

/** What is to be known of one bath: turns, water to mix, heat, weight. */
export function bathNotes(n: Noted, { room: { hotWaterC, coldWaterC, liftLimitKg } }: PlanInput): BathNote[] {
  const notes: BathNote[] = [];
  if (n.shares > 1) notes.push({ code: 'sharedBath', batches: n.shares });
  if (n.turns > 1) notes.push({ code: 'turns', turns: n.turns, pieces: Math.ceil(n.pieces / n.turns) });
  if (n.heating && !n.heating.ok)
    notes.push({
      code: 'tooLittleHeat',
      heatSourceName: n.vessel.heatSource?.name ?? $localize`The heat source`,
      liquorMl: n.liquorMl,
      reachesC: n.heating.reachesC,
    });
  if (n.toC !== undefined && n.toC > coldWaterC && n.toC <= hotWaterC) {
    const mix = mixToTemperature(n.liquorMl, n.toC, { hotC: hotWaterC, coldC: coldWaterC });
    if (mix.ok) notes.push({ code: 'mixWater', hotMl: mix.hotMl, coldMl: mix.coldMl, toC: n.toC });
  }
  const max = maxC(n.vessel);
  if (n.toC !== undefined && max !== null && n.toC > max)
    notes.push({
      code: 'tooHotForVessel',
      vesselName: n.vessel.name,
      metal: n.vessel.metal,
      maxC: max,
      toC: n.toC,
    });
  const weightKg = n.fullWeight.value;
  if (weightKg > liftLimitKg) notes.push({ code: 'heavyPot', weightKg, liftLimitKg });
  const wet = wetWeight(n.wofG);
  if (n.withPieces && wet.value > liftLimitKg) notes.push({ code: 'heavyPieces', weightKg: wet.value });
  return notes;
}
