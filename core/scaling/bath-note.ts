import { said } from '../words/said';
import { formatTemperature } from '../quantity/temperature';
import type { VesselMetal } from '../bath/vessel';
import { formatVolume } from '../quantity/volume';

/** Something to be known of one bath, as facts. Temperatures in °C, volumes in ml, weights in kg. */
export type BathNote =
  | { readonly code: 'sharedBath'; readonly batches: number }
  | { readonly code: 'turns'; readonly turns: number; readonly pieces: number }
  | {
      readonly code: 'tooLittleHeat';
      readonly heatSourceName: string;
      readonly liquorMl: number;
      readonly reachesC: number;
    }
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

/** A note in a sentence. */
export function sayBathNote(note: BathNote): string {
  switch (note.code) {
    case 'sharedBath':
      return $localize`${note.batches} batches in one bath: they come out of it alike.`;
    case 'turns':
      return $localize`${note.turns} turns of up to ${note.pieces} pieces, one after another, each with its share of what is weighed: the later ones may differ.`;
    case 'tooLittleHeat':
      return $localize`${note.heatSourceName} brings ${Math.round(note.liquorMl / 100) / 10} l to about ${formatTemperature(note.reachesC)} and no further: use a stronger heat source, a smaller bath, or hot water to begin with.`;
    case 'mixWater':
      return $localize`${formatVolume(note.hotMl)} of hot and ${formatVolume(note.coldMl)} of cold water make ${formatTemperature(note.toC)}.`;
    case 'tooHotForVessel':
      return $localize`${note.vesselName} (${said(note.metal)}) takes ${formatTemperature(note.maxC)} at most; this step goes to ${formatTemperature(note.toC)}. Choose another vessel.`;
    case 'heavyPot':
      return $localize`Full it weighs ${note.weightKg} kg, over the ${note.liftLimitKg} kg anyone lifts here: fill and empty it where it stands.`;
    case 'heavyPieces':
      return $localize`The wet pieces weigh about ${note.weightKg} kg: lift them a few at a time, or two people.`;
  }
}
