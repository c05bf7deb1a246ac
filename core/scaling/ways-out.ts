import type { Vessel } from '../bath/vessel';
import type { PlannedGroup } from './lot-plan';
import type { LiquorOf } from './bath-liquor';
import { bathLiquor } from './bath-liquor';
import type { BathOfSteps } from './collect-baths';
import { asPieces } from './plan-groups';
import type { PlanInput } from './plan-input';
import type { PlanRefusal } from './plan-refusal';
import { refusal } from './plan-refusal';
import { splitGroups } from './split/split-groups';
import type { WayOut } from './way-out';

/** Jugs and pots are bought in whole litres. */
const LITRE_ML = 1000;

/** The room a batch needs in a bath: its liquor and what lies in it. */
export const roomFor =
  (bath: LiquorOf) =>
  (wofG: number, displacedMl: number): number =>
    bathLiquor(bath, wofG).value + displacedMl;

/** Why a lot fits no way, the largest that does, and every way out that was found to work. */
export function refuseSplit(
  groups: readonly PlannedGroup[],
  bath: BathOfSteps,
  allowed: readonly Vessel[],
  maxPieces: number,
  input: PlanInput,
): PlanRefusal {
  const words = new Set(groups.map((g) => g.pieceWord));
  const pieceWord = words.size === 1 ? ([...words][0] ?? 'piece') : 'piece';
  const { liquorRatio } = bath;
  const ways = [
    ...shorterBath(groups, bath, allowed, input),
    ...twoFills(groups, bath, allowed, input),
    biggerVessel(groups, bath),
  ];
  if (maxPieces === 0) {
    const { pieceWeightG } = groups.reduce((a, b) => (b.pieceWeightG > a.pieceWeightG ? b : a));
    const { name: vesselName, workingMl } = allowed.reduce((a, b) => (b.workingMl > a.workingMl ? b : a));
    return refusal({ code: 'pieceTooBig', pieceWord, pieceWeightG, liquorRatio, vesselName, workingMl }, [
      ...ways.filter((w) => w.code !== 'fills'),
      { code: 'divide', pieceWord },
    ]);
  }
  const pieces = groups.reduce((sum, g) => sum + g.pieces, 0);
  const stepTitle = bath.steps[0]?.title ?? (input.recipe.steps.length > 0 ? input.recipe.recipeName : null);
  return refusal({ code: 'lotTooBig', pieces, pieceWord, stepTitle, maxPieces, liquorRatio }, [
    { code: 'smaller', pieces: maxPieces, pieceWord },
    ...ways,
  ]);
}

/** The longest bath shorter than the recipe's, within its limit, at which all pieces fit. */
function shorterBath(
  groups: readonly PlannedGroup[],
  bath: BathOfSteps,
  vessels: readonly Vessel[],
  { recipe }: PlanInput,
): WayOut[] {
  const min = recipe.minLiquorRatio;
  if (min === null) return [];
  for (let ratio = Math.ceil(bath.liquorRatio) - 1; ratio >= min; ratio -= 1) {
    if (fitsAt(groups, bath, vessels, ratio)) return [{ code: 'ratio', liquorRatio: ratio, min }];
  }
  return [];
}

function twoFills(
  groups: readonly PlannedGroup[],
  bath: BathOfSteps,
  vessels: readonly Vessel[],
  { fills = 1 }: PlanInput,
): WayOut[] {
  if (fills >= 2 || !fitsAt(groups, bath, [...vessels, ...vessels], bath.liquorRatio)) return [];
  return [{ code: 'fills', fills: 2 }];
}

function biggerVessel(groups: readonly PlannedGroup[], bath: BathOfSteps): WayOut {
  const wofG = groups.reduce((sum, g) => sum + g.pieces * g.pieceWeightG, 0);
  const displacedMl = groups.reduce(
    (sum, g) => sum + g.pieces * g.pieceWeightG * asPieces(g, bath.matterMlPerG).displacedMlPerG,
    0,
  );
  const needsMl = Math.ceil(roomFor(bath)(wofG, displacedMl) / LITRE_ML) * LITRE_ML;
  return { code: 'vessel', metals: bath.metals, needsMl };
}

function fitsAt(
  groups: readonly PlannedGroup[],
  bath: BathOfSteps,
  vessels: readonly Vessel[],
  ratio: number,
): boolean {
  return splitGroups(
    groups.map((g) => asPieces(g, bath.matterMlPerG)),
    vessels,
    roomFor({ ...bath, liquorRatio: ratio }),
  ).ok;
}
