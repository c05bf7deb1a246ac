import { mixToTemperature, wetWeight } from '../bath/heating';
import type { Vessel, VesselMetal } from '../bath/vessel';
import { maxC } from '../bath/vessel';
import type { Figure } from '../quantity/figure';
import { formatVolume } from '../quantity/volume';
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

/** Something to be known of one bath, as facts. Temperatures in °C, volumes in ml, weights in kg. */
export type BathNote =
  | { readonly code: 'sharedBath'; readonly batches: number }
  | { readonly code: 'turns'; readonly turns: number; readonly pieces: number }
  | { readonly code: 'tooLittleHeat'; readonly message: string }
  | { readonly code: 'mixWater'; readonly hotMl: number; readonly coldMl: number; readonly toC: number }
  | {
      readonly code: 'tooHotForVessel';
      readonly vesselName: string;
      readonly metal: VesselMetal;
      readonly maxC: number;
      readonly toC: number;
    }
  | { readonly code: 'heavyPot'; readonly weightKg: number; readonly liftLimitKg: number }
  | { readonly code: 'heavyPieces'; readonly weightKg: number };

/** Notes that belong among the cautions of the whole plan. */
const PLAN_CAUTIONS: readonly BathNote['code'][] = ['tooLittleHeat', 'tooHotForVessel'];

/** Whether a note has to be known before the lot is agreed to. */
export const isPlanCaution = (note: BathNote): boolean => PLAN_CAUTIONS.includes(note.code);

/** What is to be known of one bath: turns, water to mix, heat, weight. */
export function bathNotes(n: Noted, { room: { hotWaterC, coldWaterC, liftLimitKg } }: PlanInput): BathNote[] {
  const notes: BathNote[] = [];
  if (n.shares > 1) notes.push({ code: 'sharedBath', batches: n.shares });
  if (n.turns > 1) notes.push({ code: 'turns', turns: n.turns, pieces: Math.ceil(n.pieces / n.turns) });
  if (n.heating && !n.heating.ok) notes.push({ code: 'tooLittleHeat', message: n.heating.message });
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

/** A note in a sentence. */
export function sayBathNote(note: BathNote): string {
  switch (note.code) {
    case 'sharedBath':
      return `${note.batches} batches in one bath: they come out of it alike.`;
    case 'turns':
      return `${note.turns} turns of up to ${note.pieces} pieces, one after another, each with its share of what is weighed: the later ones may differ.`;
    case 'tooLittleHeat':
      return note.message;
    case 'mixWater':
      return `${formatVolume(note.hotMl)} of hot and ${formatVolume(note.coldMl)} of cold water make ${note.toC} °C.`;
    case 'tooHotForVessel':
      return `${note.vesselName} (${note.metal}) takes ${note.maxC} °C at most; this step goes to ${note.toC} °C. Choose another vessel.`;
    case 'heavyPot':
      return `Full it weighs ${note.weightKg} kg, over the ${note.liftLimitKg} kg anyone lifts here: fill and empty it where it stands.`;
    case 'heavyPieces':
      return `The wet pieces weigh about ${note.weightKg} kg: lift them a few at a time, or two people.`;
  }
}
