import { countLabel } from '../quantity/word-list';
import { fullPotWeight, heatBath } from '../bath/heating';
import { liquorVolume } from '../bath/liquor';
import type { Vessel } from '../bath/vessel';
import { figure } from '../quantity/figure';
import type { PlannedBatch, PlannedBath, PlannedGroup } from './lot-plan';
import type { PlanInput } from './plan-input';
import { hottestC } from '../recipe/course';
import type { BathNote } from './bath-note';
import { sayBathNote } from './bath-note';
import { bathNotes } from './bath-notes';
import type { Filling } from './fill-vessels';
import { add, fillVessels, largestTurn } from './fill-vessels';
import type { BathOfSteps } from './collect-baths';
import { shareOf, fillLevelFigure } from './bath-shares';

/** A bath as it is kept with the plan, and what is to be known of it as facts. */
export interface DescribedBath {
  readonly bath: PlannedBath;
  readonly notes: readonly BathNote[];
}

/**
 * The fillings of one bath for a lot, with how full, how heavy and how long to heat. Empty where no vessel is
 * allowed.
 */
export function planBath(
  bath: BathOfSteps,
  batches: readonly PlannedBatch[],
  groups: readonly PlannedGroup[],
  isMain: boolean,
  input: PlanInput,
): DescribedBath[] {
  const shares = batches.map((b) => shareOf(b, bath, groups)).filter((s) => s.pieces > 0);
  const allowed = input.vessels.filter((v) => bath.metals.includes(v.metal));
  const clean = allowed.filter((v) => v.heldIron !== true);
  if (shares.length === 0 || allowed.length === 0) return [];
  const fillings = isMain
    ? shares.map((share) => ({
        vessel: input.vessels.find((v) => v.id === batches.find((b) => b.number === share.batch)?.vesselId) as Vessel,
        shares: [share],
        turns: 1,
      }))
    : fillVessels(shares, batches, bath, clean.length > 0 ? clean : allowed);
  return fillings.map((f) => describe(f, bath, input));
}

function describe({ vessel, shares, turns }: Filling, bath: BathOfSteps, input: PlanInput): DescribedBath {
  const largest = largestTurn(
    add(shares, (s) => s.pieces),
    turns,
  );
  const wofG = add(shares, (s) => s.wofG) * largest;
  const liquor = liquorVolume(wofG, bath.liquorRatio);
  const displacedMl = add(shares, (s) => s.displacedMl) * largest;
  const toC = bath.steps
    .map(hottestC)
    .reduce<number | undefined>((hot, c) => (c === undefined ? hot : Math.max(hot ?? c, c)), undefined);
  const heating =
    toC === undefined || !vessel.heatSource || toC <= input.room.coldWaterC
      ? null
      : heatBath(
          { liquorMl: liquor.value, wofG: bath.withPieces ? wofG : 0, fromC: input.room.coldWaterC, toC },
          vessel.heatSource,
          input.room,
        );
  const fullWeight = fullPotWeight(liquor.value, bath.withPieces ? wofG : 0, vessel.emptyG ?? null);
  const notes = bathNotes(
    {
      vessel,
      toC,
      liquorMl: liquor.value,
      wofG,
      turns,
      pieces: add(shares, (s) => s.pieces),
      shares: shares.length,
      heating,
      fullWeight,
      withPieces: bath.withPieces,
    },
    input,
  );
  const planned: PlannedBath = {
    batches: shares.map((s) => s.batch),
    vesselId: vessel.id,
    vesselName: vessel.name,
    metal: vessel.metal,
    pieces: add(shares, (s) => s.pieces),
    turns,
    liquor,
    heating,
    fullWeight,
    wof: figure(
      add(shares, (s) => s.wofG),
      'g',
      'dry weight of the pieces in it',
      shares.map((s) => ({
        name: `batch ${s.batch}`,
        value: s.wofG,
        unit: 'g',
        source: countLabel(s.pieces, 'piece'),
      })),
    ),
    fillLevel: fillLevelFigure(liquor.value, displacedMl, vessel),
    notes: notes.map(sayBathNote),
  };
  return { bath: planned, notes };
}
