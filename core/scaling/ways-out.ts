import { liquorVolume } from '../bath/liquor';
import type { Vessel } from '../bath/vessel';
import { formatWeight } from '../quantity/weight';
import type { PlannedGroup, PlanRefusal, WayOut } from './lot-plan';
import type { BathOfSteps } from './collect-baths';
import { asPieces } from './plan-groups';
import type { PlanInput } from './plan-input';
import { splitGroups } from './split/split-groups';
import { formatVolume } from '../quantity/volume';
import { countLabel, joinList } from '../quantity/word-list';

/** Jugs and pots are bought in whole litres. */
const LITRE_ML = 1000;

/** The room a batch needs at a ratio: its liquor and what lies in it. */
export const roomAt =
  (liquorRatio: number) =>
  (wofG: number, displacedMl: number): number =>
    liquorVolume(wofG, liquorRatio).value + displacedMl;

/** Why a lot fits no way, the largest that does, and every way out that was found to work. */
export function refuseSplit(
  groups: readonly PlannedGroup[],
  bath: BathOfSteps,
  allowed: readonly Vessel[],
  maxPieces: number,
  input: PlanInput,
): PlanRefusal {
  const { recipe } = input;
  const word = groups.every((g) => g.pieceWord === groups[0]?.pieceWord) ? (groups[0]?.pieceWord ?? 'piece') : 'piece';
  const ratio = bath.liquorRatio;
  const pieces = groups.reduce((sum, g) => sum + g.pieces, 0);
  const heaviest = groups.reduce((a, b) => (b.pieceWeightG > a.pieceWeightG ? b : a));
  const ways = [
    ...shorterBath(groups, bath, allowed, input),
    ...twoFills(groups, bath, allowed, input),
    biggerVessel(groups, bath),
  ];
  if (maxPieces === 0) {
    const biggest = allowed.reduce((a, b) => (b.workingMl > a.workingMl ? b : a));
    return {
      code: 'pieceTooBig',
      ways: [...ways.filter((w) => w.code !== 'fills'), { code: 'divide', message: `Divide the ${word}.` }],
      message: `One ${word} of ${formatWeight(heaviest.pieceWeightG)} at 1:${ratio} needs more than ${biggest.name}, the biggest, holds (${formatVolume(biggest.workingMl)}). Divide the ${word}, or add a bigger vessel.`,
    };
  }
  return {
    code: 'lotTooBig',
    maxPieces,
    ways: [
      { code: 'smaller', message: `Make it ${countLabel(maxPieces, word)} now, and the rest as a second lot.` },
      ...ways,
    ],
    message: `${countLabel(pieces, word)} are more than the vessels${recipe.steps.length > 0 ? ` for “${bath.steps[0]?.title ?? recipe.recipeName}”` : ''} hold together: ${maxPieces} is the most at 1:${ratio}. Make two lots, or add a vessel.`,
  };
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
    if (fitsAt(groups, bath, vessels, ratio))
      return [
        {
          code: 'ratio',
          liquorRatio: ratio,
          message: `At 1:${ratio} it fits; the recipe allows down to 1:${min}. Less room to turn: expect it deeper, and less even.`,
        },
      ];
  }
  return [];
}

function twoFills(
  groups: readonly PlannedGroup[],
  bath: BathOfSteps,
  vessels: readonly Vessel[],
  { fills = 1 }: PlanInput,
): WayOut[] {
  if (!fitsAt(groups, bath, [...vessels, ...vessels], bath.liquorRatio)) return [];
  return fills >= 2
    ? []
    : [
        {
          code: 'fills',
          fills: 2,
          message:
            'In two runs it fits: the vessels are filled twice, one day after the other. The runs may differ: judge them side by side.',
        },
      ];
}

function biggerVessel(groups: readonly PlannedGroup[], bath: BathOfSteps): WayOut {
  const wofG = groups.reduce((sum, g) => sum + g.pieces * g.pieceWeightG, 0);
  const displacedMl = groups.reduce(
    (sum, g) => sum + g.pieces * g.pieceWeightG * asPieces(g, bath.matterMlPerG).displacedMlPerG,
    0,
  );
  const needsMl = Math.ceil(roomAt(bath.liquorRatio)(wofG, displacedMl) / LITRE_ML) * LITRE_ML;
  return {
    code: 'vessel',
    message: `A vessel of ${joinList(bath.metals, 'or')} that takes ${formatVolume(needsMl)} would hold it in one bath; smaller ones beside those there are would do as well.`,
  };
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
    roomAt(ratio),
  ).ok;
}
