import type { Vessel } from '../bath/vessel';
import { figure } from '../quantity/figure';
import type { PlannedBatch, PlannedGroup } from './lot-plan';
import type { BathOfSteps } from './collect-baths';
import { bathLiquor } from './bath-liquor';
import { fillLevelFigure } from './bath-shares';
import { asPieces, goesThrough } from './plan-groups';
import type { PlanInput } from './plan-input';
import type { StepKind } from '../recipe/step-kind';
import { splitGroups } from './split/split-groups';
import { suitedVessels } from './vessel-choice';
import { refuseSplit, roomFor } from './ways-out';
import type { PlanRefusal } from './plan-refusal';
import { noVessel } from './refuse-input';

/** Steps at which colour is put on; an exhaust dip is dyeing too. */
const DYEING: readonly StepKind[] = ['dye', 'exhaust'];

/** The bath that decides a group's batches: where it is dyed, or else the last bath it is in. */
export function mainBath(group: PlannedGroup, baths: readonly BathOfSteps[]): BathOfSteps | undefined {
  const groupBaths = baths.filter((b) => b.withPieces && b.steps.some((s) => goesThrough(s, group)));
  return (
    groupBaths.find((b) => b.steps.some((s) => DYEING.includes(s.kind) && goesThrough(s, group))) ?? groupBaths.at(-1)
  );
}

/** Batches over vessels, and the baths that decided them; or why there are none. */
export type Split =
  { readonly batches: PlannedBatch[]; readonly mainOf: ReadonlySet<string> } | { readonly refusal: PlanRefusal };

/**
 * Splits the groups over the vessels of the bath they are dyed in; groups dyed in different baths get batches of
 * their own.
 */
export function splitOverVessels(
  groups: readonly PlannedGroup[],
  baths: readonly BathOfSteps[],
  liquorRatio: number,
  input: PlanInput,
): Split {
  const loose = looseBath(liquorRatio, input);
  const mains = new Map<string, { bath: BathOfSteps; groups: PlannedGroup[] }>();
  for (const group of groups) {
    const bath = mainBath(group, baths) ?? loose;
    mains.set(bath.key, { bath, groups: [...(mains.get(bath.key)?.groups ?? []), group] });
  }
  const batches: PlannedBatch[] = [];
  const vesselsOf = new Map<string, string[]>();
  const inOrder = [...mains.values()].sort((a, b) => baths.indexOf(a.bath) - baths.indexOf(b.bath));
  for (const { bath, groups: bathGroups } of inOrder) {
    const standsIn = vesselsOf.get(bath.liquor);
    const attempts = standsIn ? dipAttempts(standsIn, input) : attemptsFor(bath, batches, input);
    if (attempts.length === 0) return { refusal: noVessel(bath, input) };
    const pieces = bathGroups.map((g) => asPieces(g, bath.matterMlPerG));
    const tried = attempts.map((vessels) => splitGroups(pieces, vessels, roomFor(bath)));
    const found = tried.find((t) => t.ok);
    if (!found?.ok) {
      const allowed = input.vessels.filter((v) => bath.metals.includes(v.metal));
      const maxPieces = Math.max(0, ...tried.map((t) => (t.ok ? 0 : t.maxPieces)));
      return { refusal: refuseSplit(bathGroups, bath, allowed, maxPieces, input) };
    }
    const shares = [...found.shares].sort((a, b) => a.vessel.fill - b.vessel.fill);
    for (const { vessel, counts } of shares)
      batches.push(planBatch(vessel, counts, bathGroups, bath, batches.length + 1));
    vesselsOf.set(bath.liquor, [...new Set(shares.map((s) => s.vessel.id))]);
  }
  return { batches, mainOf: new Set(mains.keys()) };
}
/** Pieces that no step colours need room all the same: in any vessel the recipe allows. */
const looseBath = (liquorRatio: number, { recipe }: PlanInput): BathOfSteps => ({
  key: '',
  liquor: '',
  follows: null,
  steps: [],
  liquorIndexes: [],
  metals: recipe.allowedMetals,
  liquorRatio,
  matterMlPerG: 0,
  pouredMlPerG: 0,
  pouredMl: 0,
  keptMlPerG: 0,
  soakedMlPerG: 0,
  withPieces: true,
});

type FilledVessel = Vessel & { readonly fill: number };

/** Vessels to try, the best choice first: those not used yet, those fit for it, all that are allowed. */
function attemptsFor(bath: BathOfSteps, batches: readonly PlannedBatch[], input: PlanInput): FilledVessel[][] {
  const allowed = input.vessels.filter((v) => bath.metals.includes(v.metal));
  const suited = suitedVessels(allowed, bath.steps, input);
  const unused = suited.filter((v) => !batches.some((b) => b.vesselId === v.id));
  const fills = Array.from({ length: input.fills ?? 1 }, (_, n) => n + 1);
  return [unused, suited, allowed]
    .filter((vessels, i, all) => vessels.length > 0 && (i === 0 || vessels.length > (all[i - 1]?.length ?? 0)))
    .map((vessels) => fills.flatMap((fill) => vessels.map((vessel) => ({ ...vessel, fill }))));
}

/** How many dips of one kind may follow one another in a liquor. */
const MAX_DIPS = 4;

/** A later dip goes where its liquor stands, a few pieces after the others where they don't all go in at once. */
function dipAttempts(standsIn: readonly string[], { vessels }: PlanInput): FilledVessel[][] {
  const there = vessels.filter((v) => standsIn.includes(v.id));
  return Array.from({ length: MAX_DIPS }, (_, n) =>
    Array.from({ length: n + 1 }, (_fill, m) => m + 1).flatMap((fill) => there.map((vessel) => ({ ...vessel, fill }))),
  );
}

/** One batch: which pieces, in which vessel, with how much liquor. */
export function planBatch(
  vessel: Vessel & { readonly fill: number },
  counts: readonly number[],
  groups: readonly PlannedGroup[],
  bath: BathOfSteps,
  number: number,
): PlannedBatch {
  const shares = groups.map((group, i) => ({ group, pieces: counts[i] ?? 0 })).filter((g) => g.pieces > 0);
  const wofG = shares.reduce((sum, { group, pieces }) => sum + pieces * group.pieceWeightG, 0);
  const displacedMl = shares.reduce(
    (sum, { group, pieces }) => sum + pieces * group.pieceWeightG * asPieces(group, bath.matterMlPerG).displacedMlPerG,
    0,
  );
  const liquor = bathLiquor(bath, wofG);
  return {
    number,
    vesselId: vessel.id,
    vesselName: vessel.name,
    metal: vessel.metal,
    fill: vessel.fill,
    pieces: shares.reduce((sum, g) => sum + g.pieces, 0),
    groups: shares.map(({ group, pieces }) => ({ key: group.key, pieces })),
    wof: figure(
      wofG,
      'g',
      $localize`pieces in this vessel × dry weight of one`,
      shares.flatMap(({ group, pieces }) => [
        {
          name: `${group.pieceWord}s${group.partName === '' ? '' : `, ${group.partName}`}`,
          value: pieces,
          unit: '',
          source: $localize`split over the vessels`,
        },
        { name: $localize`dry weight of one`, value: group.pieceWeightG, unit: 'g', source: $localize`as written` },
      ]),
    ),
    liquor,
    fillLevel: fillLevelFigure(liquor.value, displacedMl, vessel),
  };
}
