import { liquorVolume } from '../bath/liquor';
import type { Vessel } from '../bath/vessel';
import { figure } from '../quantity/figure';
import type { PlannedBatch, PlannedGroup } from './lot-plan';
import type { BathOfSteps } from './collect-baths';
import { fillLevelFigure } from './bath-shares';
import { asPieces, goesThrough } from './plan-groups';
import type { PlanInput } from './plan-input';
import { splitGroups } from './split/split-groups';
import { refuseSplit, roomAt } from './ways-out';
import type { PlanRefusal } from './plan-refusal';
import { noVessel } from './refuse-input';

/** The bath that decides a group's batches: where it is dyed, or else the last bath it is in. */
export function mainBath(group: PlannedGroup, baths: readonly BathOfSteps[]): BathOfSteps | undefined {
  const groupBaths = baths.filter((b) => b.withPieces && b.steps.some((s) => goesThrough(s, group)));
  return groupBaths.find((b) => b.steps.some((s) => s.kind === 'dye' && goesThrough(s, group))) ?? groupBaths.at(-1);
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
  const loose: BathOfSteps = {
    key: '',
    steps: [],
    metals: input.recipe.allowedMetals,
    liquorRatio,
    matterMlPerG: 0,
    withPieces: true,
  };
  const mains = new Map<string, { bath: BathOfSteps; groups: PlannedGroup[] }>();
  for (const group of groups) {
    const bath = mainBath(group, baths) ?? loose;
    mains.set(bath.key, { bath, groups: [...(mains.get(bath.key)?.groups ?? []), group] });
  }
  const batches: PlannedBatch[] = [];
  for (const { bath, groups: bathGroups } of mains.values()) {
    const allowed = input.vessels.filter((v) => bath.metals.includes(v.metal));
    if (allowed.length === 0) return { refusal: noVessel(bath, input) };
    const clean = allowed.filter((v) => v.heldIron !== true);
    const unused = clean.filter((v) => !batches.some((b) => b.vesselId === v.id));
    const attempts = [unused, clean, allowed].filter(
      (vessels, i, all) => vessels.length > 0 && (i === 0 || vessels.length > (all[i - 1]?.length ?? 0)),
    );
    const pieces = bathGroups.map((g) => asPieces(g, bath.matterMlPerG));
    const fills = Array.from({ length: input.fills ?? 1 }, (_, n) => n + 1);
    const tried = attempts.map((vessels) =>
      splitGroups(
        pieces,
        fills.flatMap((fill) => vessels.map((vessel) => ({ ...vessel, fill }))),
        roomAt(bath.liquorRatio),
      ),
    );
    const found = tried.find((t) => t.ok);
    if (!found?.ok)
      return {
        refusal: refuseSplit(
          bathGroups,
          bath,
          allowed,
          Math.max(0, ...tried.map((t) => (t.ok ? 0 : t.maxPieces))),
          input,
        ),
      };
    for (const share of [...found.shares].sort((a, b) => a.vessel.fill - b.vessel.fill))
      batches.push(planBatch(share.vessel, share.counts, bathGroups, bath, batches.length + 1));
  }
  return { batches, mainOf: new Set(mains.keys()) };
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
  const liquor = liquorVolume(wofG, bath.liquorRatio);
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
      'pieces in this vessel × dry weight of one',
      shares.flatMap(({ group, pieces }) => [
        {
          name: `${group.pieceWord}s${group.partName === '' ? '' : `, ${group.partName}`}`,
          value: pieces,
          unit: '',
          source: 'split over the vessels',
        },
        { name: 'dry weight of one', value: group.pieceWeightG, unit: 'g', source: 'as written' },
      ]),
    ),
    liquor,
    fillLevel: fillLevelFigure(liquor.value, displacedMl, vessel),
  };
}
