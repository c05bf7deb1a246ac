import { countLabel } from '../quantity/word-list';
import { fullPotWeight, heatBath } from '../bath/heating';
import { carriedOffMl } from '../bath/bath-ledger';
import type { Vessel } from '../bath/vessel';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { PlannedBatch, PlannedBath, PlannedGroup } from './lot-plan';
import type { PlanInput } from './plan-input';
import { hottestC } from '../recipe/course';
import { bathLiquor, waterToDraw } from './bath-liquor';
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

/** How a bath is filled: whether it decided the batches, which vessels are free for it, what it goes on from. */
export interface BathPlace {
  readonly isMain: boolean;
  readonly vessels: readonly Vessel[];
  /** The fillings whose liquor it goes on with. */
  readonly follows: readonly PlannedBath[];
}

/**
 * The fillings of one bath for a lot, with how full, how heavy and how long to heat. Empty where no vessel is
 * allowed.
 */
export function planBath(
  bath: BathOfSteps,
  batches: readonly PlannedBatch[],
  groups: readonly PlannedGroup[],
  { isMain, vessels, follows }: BathPlace,
  input: PlanInput,
): DescribedBath[] {
  const shares = batches.map((b) => shareOf(b, bath, groups)).filter((s) => s.pieces > 0);
  const allowed = vessels.filter((v) => bath.metals.includes(v.metal));
  if (shares.length === 0 || allowed.length === 0) return [];
  const fillings = isMain
    ? shares.map((share) => ({
        vessel: input.vessels.find((v) => v.id === batches.find((b) => b.number === share.batch)?.vesselId) as Vessel,
        shares: [share],
        turns: 1,
      }))
    : fillVessels(shares, batches, bath, allowed);
  return fillings.map((f) =>
    describe(
      f,
      bath,
      follows.find((b) => b.vesselId === f.vessel.id),
      input,
    ),
  );
}

function describe(
  { vessel, shares, turns }: Filling,
  bath: BathOfSteps,
  before: PlannedBath | undefined,
  input: PlanInput,
): DescribedBath {
  const largest = largestTurn(
    add(shares, (s) => s.pieces),
    turns,
  );
  const wofG = add(shares, (s) => s.wofG) * largest;
  const displacedMl = add(shares, (s) => s.displacedMl) * largest;
  const standingMl = before ? Math.max(0, before.liquor.value - carriedOffMl(before.wof.value)) : 0;
  const liquor = liquorOfDip(bathLiquor(bath, wofG), Math.min(standingMl, vessel.workingMl - displacedMl));
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
    water: waterToDraw(bath, wofG, liquor.value, Math.round(Math.min(standingMl, liquor.value))),
    heating,
    fullWeight,
    wof: figure(
      add(shares, (s) => s.wofG),
      'g',
      $localize`dry weight of the pieces in it`,
      shares.map((s) => ({
        name: $localize`batch ${s.batch}`,
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

/** A later dip takes the liquor as the dip before left it, or more where its pieces need more room. */
function liquorOfDip(needed: Figure, standingMl: number): Figure {
  if (standingMl <= needed.value) return needed;
  return figure(
    Math.round(standingMl),
    'ml',
    $localize`what the dip before left`,
    [
      {
        name: $localize`left in the pot`,
        value: Math.round(standingMl),
        unit: 'ml',
        source: $localize`less what its pieces carried off`,
      },
    ],
    [$localize`its pieces need ${needed.value} ml of it`],
  );
}
