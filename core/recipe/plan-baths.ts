import { fibreDisplacementMl } from '../bath/fibre';
import { fullPotWeight, heatBath, mixToTemperature, wetWeight } from '../bath/heating';
import { liquorVolume } from '../bath/liquor';
import type { Vessel, VesselMetal } from '../bath/vessel';
import { mostC } from '../bath/vessel';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import { formatVolume } from '../quantity/weight';
import type { PlannedBatch, PlannedBath, PlannedGroup } from './lot-plan';
import type { PlanInput } from './plan-input';
import { matterMlPerG, goesThrough } from './plan-groups';
import type { RecipeStep, RecipeVersion } from './recipe';
import { hottestC, takesPieces } from './recipe';

/** Steps that share one liquor, and what all of them allow. */
export interface BathOfSteps {
  readonly key: string;
  readonly steps: readonly RecipeStep[];
  readonly metals: readonly VesselMetal[];
  readonly liquorRatio: number;
  /** What dyestuff left in the pot pushes aside, ml per g of fibre. */
  readonly matterMlPerG: number;
  readonly withPieces: boolean;
}

const LEFT_IN = ['leaveIn', 'bag'];

/** Gathers the steps of a recipe by the bath they share; a step with a bath of its own is its own. */
export function collectBaths(recipe: RecipeVersion, liquorRatio: number): BathOfSteps[] {
  const byKey = new Map<string, RecipeStep[]>();
  recipe.steps.forEach((step, i) => {
    if (!step.usesBath) return;
    const key = step.bath === '' ? `of step ${i + 1}` : step.bath;
    byKey.set(key, [...(byKey.get(key) ?? []), step]);
  });
  const leftIn = recipe.steps.filter(
    (s) =>
      s.kind === 'extract' &&
      s.strain !== null &&
      LEFT_IN.includes(s.strain) &&
      !recipe.steps.some((t) => t.kind === 'strain' && t.strain !== null && !LEFT_IN.includes(t.strain)),
  );
  return [...byKey].map(([key, steps]) => ({
    key,
    steps,
    metals: steps.reduce<readonly VesselMetal[]>(
      (all, s) => all.filter((m) => (s.metals.length > 0 ? s.metals : recipe.allowedMetals).includes(m)),
      [...new Set(steps.flatMap((s) => (s.metals.length > 0 ? s.metals : recipe.allowedMetals)))],
    ),
    liquorRatio: Math.max(...steps.map((s) => s.liquorRatio ?? liquorRatio)),
    matterMlPerG: matterMlPerG([
      ...new Set([
        ...steps.filter((s) => s.kind === 'extract'),
        ...(steps.some((s) => s.kind === 'dye') ? leftIn : []),
      ]),
    ]),
    withPieces: steps.some(takesPieces),
  }));
}

/** What of a batch goes through a bath. */
interface BatchShare {
  readonly batch: number;
  readonly pieces: number;
  readonly wofG: number;
  readonly displacedMl: number;
}

function shareOf(batch: PlannedBatch, bath: BathOfSteps, groups: readonly PlannedGroup[]): BatchShare {
  const its = batch.groups.flatMap(({ key, pieces }) => {
    const group = groups.find((g) => g.key === key);
    return group && bath.steps.some((s) => goesThrough(s, group))
      ? [{ group, pieces, wofG: pieces * group.pieceWeightG }]
      : [];
  });
  const wofG = its.reduce((sum, i) => sum + i.wofG, 0);
  const fibreMl = bath.withPieces ? its.reduce((sum, i) => sum + fibreDisplacementMl(i.group.fibre, i.wofG), 0) : 0;
  return {
    batch: batch.number,
    pieces: its.reduce((sum, i) => sum + i.pieces, 0),
    wofG,
    displacedMl: fibreMl + wofG * bath.matterMlPerG,
  };
}

interface Filling {
  readonly vessel: Vessel;
  readonly shares: readonly BatchShare[];
  readonly turns: number;
}

const add = (shares: readonly BatchShare[], of: (s: BatchShare) => number): number =>
  shares.reduce((sum, s) => sum + of(s), 0);
const room = (shares: readonly BatchShare[], ratio: number): number =>
  liquorVolume(
    add(shares, (s) => s.wofG),
    ratio,
  ).value + add(shares, (s) => s.displacedMl);

/**
 * Where a bath that is not the dye bath is done: as few fillings as hold all batches, since one bath treats them alike; a batch
 * stays whole where any vessel takes it. What no vessel takes at once is done in several turns in the roomiest.
 * Its own vessel is used for a batch alone, where that is allowed, so that nothing is poured over without need.
 */
function fillVessels(
  shares: readonly BatchShare[],
  batches: readonly PlannedBatch[],
  bath: BathOfSteps,
  vessels: readonly Vessel[],
): Filling[] {
  const roomiest = [...vessels].sort((a, b) => b.workingMl - a.workingMl);
  const largestFirst = [...shares].sort((a, b) => b.wofG - a.wofG || a.batch - b.batch);
  for (let k = 1; k < shares.length; k += 1) {
    const bins = roomiest.slice(0, k).map((vessel) => ({ vessel, shares: [] as BatchShare[] }));
    const placed = largestFirst.every((share) => {
      const bin = bins.find((b) => room([...b.shares, share], bath.liquorRatio) <= b.vessel.workingMl);
      bin?.shares.push(share);
      return bin !== undefined;
    });
    if (placed)
      return inSmallest(
        bins.filter((b) => b.shares.length > 0),
        roomiest,
        bath.liquorRatio,
      );
  }
  const own = shares.map((share) => ({
    share,
    vessel: vessels.find((v) => v.id === batches.find((b) => b.number === share.batch)?.vesselId),
  }));
  if (own.every(({ share, vessel }) => vessel && room([share], bath.liquorRatio) <= vessel.workingMl))
    return own.map(({ share, vessel }) => ({ vessel: vessel as Vessel, shares: [share], turns: 1 }));
  const free = [...roomiest];
  return largestFirst
    .map((share) => {
      const fitting = free.filter((v) => v.workingMl >= room([share], bath.liquorRatio));
      const vessel = fitting.at(-1) ?? (roomiest[0] as Vessel);
      if (fitting.length > 0) free.splice(free.indexOf(vessel), 1);
      return { vessel, shares: [share], turns: turnsFor(share, bath.liquorRatio, vessel.workingMl) };
    })
    .sort((a, b) => (a.shares[0]?.batch ?? 0) - (b.shares[0]?.batch ?? 0));
}

function inSmallest(
  bins: readonly { vessel: Vessel; shares: BatchShare[] }[],
  vessels: readonly Vessel[],
  ratio: number,
): Filling[] {
  const free = [...vessels].sort((a, b) => a.workingMl - b.workingMl);
  return [...bins]
    .sort((a, b) => room(b.shares, ratio) - room(a.shares, ratio))
    .map(({ vessel, shares }) => {
      const at = free.findIndex((v) => v.workingMl >= room(shares, ratio));
      const [smallest] = at === -1 ? [vessel] : free.splice(at, 1);
      return { vessel: smallest ?? vessel, shares: [...shares].sort((a, b) => a.batch - b.batch), turns: 1 };
    });
}

function turnsFor(share: BatchShare, ratio: number, workingMl: number): number {
  let turns = 1;
  while (
    turns < share.pieces &&
    liquorVolume(share.wofG * largestTurn(share.pieces, turns), ratio).value +
      share.displacedMl * largestTurn(share.pieces, turns) >
      workingMl
  )
    turns += 1;
  return turns;
}

/** The largest turn's share of the whole: pieces are not cut, so five in two turns are three and two. */
const largestTurn = (pieces: number, turns: number): number => Math.ceil(pieces / turns) / pieces;

/** The fillings of one bath for a lot, with how full, how heavy and how long to heat. Empty where no vessel is allowed. */
export function planBath(
  bath: BathOfSteps,
  batches: readonly PlannedBatch[],
  groups: readonly PlannedGroup[],
  isMain: boolean,
  input: PlanInput,
): PlannedBath[] {
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

function describe({ vessel, shares, turns }: Filling, bath: BathOfSteps, input: PlanInput): PlannedBath {
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
  return {
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
      shares.map((s) => ({ name: `batch ${s.batch}`, value: s.wofG, unit: 'g', source: `${s.pieces} pieces` })),
    ),
    fill: fillFigure(liquor.value, displacedMl, vessel),
    notes: bathNotes(
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
    ),
  };
}

export function fillFigure(liquorMl: number, displacedMl: number, vessel: Pick<Vessel, 'name' | 'workingMl'>): Figure {
  return figure(
    Math.round(((liquorMl + displacedMl) / vessel.workingMl) * 100),
    '%',
    '(liquor + room that fibre and dyestuff take) ÷ working volume',
    [
      { name: 'liquor', value: liquorMl, unit: 'ml', source: 'this bath' },
      {
        name: 'room the fibre and dyestuff take',
        value: Math.round(displacedMl),
        unit: 'ml',
        source: 'by their density',
      },
      { name: 'working volume', value: vessel.workingMl, unit: 'ml', source: vessel.name },
    ],
  );
}

interface Noted {
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

function bathNotes(n: Noted, { room: { hotWaterC, coldWaterC, liftLimitKg } }: PlanInput): string[] {
  const notes: string[] = [];
  if (n.shares > 1) notes.push(`${n.shares} batches in one bath: they come out of it alike.`);
  if (n.turns > 1)
    notes.push(
      `${n.turns} turns of up to ${Math.ceil(n.pieces / n.turns)} pieces, one after another, each with its share of what is weighed: the later ones may differ.`,
    );
  if (n.heating && !n.heating.ok) notes.push(n.heating.sentence);
  if (n.toC !== undefined && n.toC > coldWaterC && n.toC <= hotWaterC) {
    const mix = mixToTemperature(n.liquorMl, n.toC, { hotC: hotWaterC, coldC: coldWaterC });
    if (mix.ok)
      notes.push(`${formatVolume(mix.hotMl)} of hot and ${formatVolume(mix.coldMl)} of cold water make ${n.toC} °C.`);
  }
  const most = mostC(n.vessel);
  if (n.toC !== undefined && most !== null && n.toC > most)
    notes.push(
      `${n.vessel.name} (${n.vessel.metal}) takes ${most} °C at most; this step goes to ${n.toC} °C. Choose another vessel.`,
    );
  if (n.fullWeight.value > liftLimitKg)
    notes.push(
      `Full it weighs ${n.fullWeight.value} kg, over the ${liftLimitKg} kg anyone lifts here: fill and empty it where it stands.`,
    );
  const wet = wetWeight(n.wofG);
  if (n.withPieces && wet.value > liftLimitKg)
    notes.push(`The wet pieces weigh about ${wet.value} kg: lift them a few at a time, or two people.`);
  return notes;
}
