import type { LotPlan, PlannedGroup } from './lot-plan';
import { countLabel } from '../quantity/word-list';

/** What of a lot a result is of: a batch, and where they differ its base and part, a zone, a single piece by its mark,
 * one dip of several.
 */
export interface ShadeOf {
  readonly batch: number;
  /** Key of a planned group: pieces of one base that went one way. `null`: the batch as a whole. */
  readonly group: string | null;
  readonly zone: string | null;
  /** The knot mark or tag of a single piece. */
  readonly piece: string | null;
  /** As it was after that many dips, of several; `null`: as it came out at last. */
  readonly dip: number | null;
}

/** All of the first batch, as it came out. */
export const WHOLE: ShadeOf = { batch: 1, group: null, zone: null, piece: null, dip: null };

/** Names a shade of a lot's family: what came out alike, whichever batch it was in. */
export const shadeKey = ({ group, zone, piece, dip }: Omit<ShadeOf, 'batch'>): string =>
  [group ?? '', zone ?? '', piece ?? '', ...(dip === null ? [] : [dip])].join(' · ');

/** How often the pieces of a group (`null`: of the lot) are dipped in a dyebath, all baths together. */
export const dipsOf = ({ steps }: Pick<LotPlan, 'steps'>, group: string | null): number =>
  steps
    .filter((s) => s.kind === 'dye' || s.kind === 'exhaust')
    .filter((s) => s.groups === undefined || group === null || s.groups.includes(group))
    .reduce((sum, s) => sum + s.repeats, 0);

/** The group that a lot is named for: its first base, and of that the part that goes the first way. */
export const mainGroup = (plan: Pick<LotPlan, 'groups'>): PlannedGroup | undefined => plan.groups[0];

/** What a shade is of, as a dyer says it; empty where it is the lot as a whole. */
export function sayShade(plan: Pick<LotPlan, 'groups'>, of: Omit<ShadeOf, 'batch'>): string {
  const group = plan.groups.find((g) => g.key === of.group);
  return [
    group ? sayGroup(plan, group) : '',
    of.zone ?? '',
    of.piece === null ? '' : $localize`piece ${of.piece}`,
    of.dip === null ? '' : $localize`after dip ${of.dip}`,
  ]
    .filter((w) => w !== '')
    .join(', ');
}

/** A group by what sets it apart: its base where there are several, its part where pieces part. */
function sayGroup({ groups }: Pick<LotPlan, 'groups'>, group: PlannedGroup): string {
  const bases = new Set(groups.map((g) => g.baseId));
  const base = bases.size > 1 ? group.baseName : '';
  return [base, group.partName].filter((w) => w !== '').join(', ') || countLabel(group.pieces, group.pieceWord);
}

/** Whether a lot has the shade a result is said to be of; a group, a zone, a dip or a batch that it lacks is none of its. */
export function hasShade(
  plan: Pick<LotPlan, 'groups' | 'batches' | 'pieces' | 'steps' | 'placed'>,
  of: ShadeOf,
  zones: readonly string[] = (plan.placed?.zones ?? []).map((z) => z.title),
): boolean {
  const batch = plan.batches.find((b) => b.number === of.batch);
  if (!batch) return false;
  const isInBatch = batch.groups.length === 0 || batch.groups.some((g) => g.key === of.group);
  // A mark that is a number counts the pieces; any other is a person's own.
  const number = /^\d+$/.test(of.piece?.trim() ?? '') ? Number(of.piece) : undefined;
  const isCounted = number === undefined || (number >= 1 && number <= plan.pieces);
  const isDipped = of.dip === null || (of.dip >= 1 && of.dip <= dipsOf(plan, of.group));
  return isDipped && (of.group === null || isInBatch) && (of.zone === null || zones.includes(of.zone)) && isCounted;
}
