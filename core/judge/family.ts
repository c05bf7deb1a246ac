import type { DeltaEFormula } from '../colour/delta-e';
import type { Lab } from '../colour/lab';
import { sameConditions } from '../colour/lab';
import type { LotPlan } from '../scaling/lot-plan';
import type { ShadeOf } from '../scaling/shade-of';
import { WHOLE, mainGroup, sayShade, shadeKey } from '../scaling/shade-of';
import type { JudgedAlone } from './judged-alone';
import { isWithin, sayAlone, setApart } from './judged-alone';
import type { ShadeReading, Standard, Verdict } from './verdict';
import { lotColour, settledReadings } from './verdict';

/** One shade of a lot: what it is of, what it was to be, and how it came out. */
export interface FamilyMember {
  readonly key: string;
  /** What it is of, as a dyer says it; empty for the lot as a whole. */
  readonly label: string;
  /** The zone it is of; `null` where it is not of one. */
  readonly zone: string | null;
  readonly standard: Standard | null;
  readonly lab: Standard | null;
  /** Of the batch furthest from the standard; `null` without one, or unread. */
  readonly deltaE: number | null;
  readonly betweenBatchesDeltaE: number;
  /** Held or refused by itself, so that the lot is judged without it; `null` for what goes with the lot. */
  readonly apart: Exclude<Verdict, 'pass'> | null;
}

/** What the shades of a lot are to be: the colourway's master for what the lot is named for, expected shades by base. */
export interface FamilyStandards {
  readonly master: Standard | null;
  readonly expected: readonly (Standard & { readonly baseMaterialId: string })[];
  /** What they are judged by; CIEDE2000 where nobody chose. */
  readonly formula?: DeltaEFormula | undefined;
  /** Of a variegated master: what each zone is to be. */
  readonly zones?: readonly ZoneStandard[];
}

/** What one zone of a variegated master is to be. */
export type ZoneStandard = Standard & { readonly zone: string };

type Shape = Pick<LotPlan, 'groups' | 'batches'>;

/**
 * What a reading is of, as exactly as the plan knows it: in a batch of one group it is of that group; where a lot has
 * only one, of the lot.
 */
export function placeShade<S extends ShadeOf>(plan: Shape, of: S): S {
  if (plan.groups.length <= 1) return { ...of, group: null };
  const own = plan.batches.find((b) => b.number === of.batch)?.groups ?? [];
  return { ...of, group: of.group ?? (own.length === 1 ? (own[0]?.key ?? null) : null) };
}

/**
 * What a shade is to be. A zone is what the master's zone of that name is, and unknown where that has none; a single
 * piece is to be as its group.
 */
export function standardFor(plan: Shape, of: Omit<ShadeOf, 'batch'>, standards: FamilyStandards): Standard | null {
  const standard = wantedOf(plan, of, standards);
  const { formula } = standards;
  return standard && formula && formula !== 'de00' ? { ...standard, formula } : standard;
}

function wantedOf(
  plan: Shape,
  of: Omit<ShadeOf, 'batch'>,
  { master, expected, zones = [] }: FamilyStandards,
): Standard | null {
  // What one of several dips is to be, nobody said.
  if (of.dip !== null) return null;
  if (of.zone !== null) return zones.find((z) => z.zone === of.zone) ?? null;
  const main = mainGroup(plan);
  if (of.group === null || !main || of.group === main.key) return master;
  const group = plan.groups.find((g) => g.key === of.group);
  const shade = expected.find((e) => e.baseMaterialId === group?.baseId);
  // Pieces that went another way than the first are another shade, and nobody said which.
  return shade && group?.part === main.part ? shade : null;
}

/** Everything that has to be seen before a lot is passed: each batch, and each group in it where a lot has several. */
export function unitsOf(plan: Shape): (ShadeOf & { readonly label: string })[] {
  return plan.batches.flatMap((batch): (ShadeOf & { readonly label: string })[] => {
    const whole = { ...WHOLE, batch: batch.number };
    if (plan.groups.length <= 1 || batch.groups.length === 0)
      return [{ ...whole, label: $localize`Batch ${batch.number}` }];
    return batch.groups.map(({ key }) => {
      const of = { ...whole, group: key };
      return { ...of, label: $localize`${sayShade(plan, of)} in batch ${batch.number}` };
    });
  });
}

/** What came of one member, from the settled readings of it. */
function colourOf(
  standard: Standard | null,
  own: readonly ShadeReading[],
): Pick<FamilyMember, 'lab' | 'deltaE' | 'betweenBatchesDeltaE'> {
  const under = standard ?? own[0];
  const alike = under ? own.filter((r) => sameConditions(r, under)) : [];
  const colour = alike.length === 0 ? undefined : lotColour(standard as Lab | null, alike);
  return {
    lab: colour && under ? { ...colour.lab, illuminant: under.illuminant, observer: under.observer } : null,
    deltaE: colour?.worstDeltaE ?? null,
    betweenBatchesDeltaE: colour?.betweenBatchesDeltaE ?? 0,
  };
}

/**
 * The shades of a lot as a family: every group it has, and what else was read; last what is held or refused by itself.
 * Readings in the order they were taken; those that count are the latest dry ones under the standard's own conditions.
 */
export function foldFamily(
  plan: Shape,
  standards: FamilyStandards,
  readings: readonly ShadeReading[],
  alone: readonly JudgedAlone[] = [],
): FamilyMember[] {
  const apart = setApart(alone);
  const isLeft = (seen: ShadeOf): boolean => !apart.some(({ of }) => isWithin(seen, of));
  const settled = settledReadings(readings.map((r) => placeShade(plan, r)));
  const left = settled.filter(isLeft);
  const units = unitsOf(plan).filter(isLeft);
  const known = plan.groups.length > 1 ? plan.groups.map((g) => ({ ...WHOLE, group: g.key })) : [WHOLE];
  const going = apart.length === 0 ? known : known.filter(({ group }) => units.some((u) => u.group === group));
  const members = new Map([...going, ...left].map((of) => [shadeKey(of), of] as const));
  return [
    ...[...members].map(([key, { group, zone, piece, dip }]): FamilyMember => {
      const of = { group, zone, piece, dip };
      const standard = standardFor(plan, of, standards);
      const own = left.filter((r) => shadeKey(r) === key);
      return { key, label: sayShade(plan, of), zone, standard, apart: null, ...colourOf(standard, own) };
    }),
    ...apart.map(({ of, verdict }): FamilyMember => {
      const standard = standardFor(plan, of, standards);
      const own = settled.filter((r) => isWithin(r, of));
      const key = `${of.batch} ${shadeKey(of)}`;
      return {
        key,
        label: sayAlone(plan, of),
        zone: of.zone,
        standard,
        apart: verdict === 'hold' ? 'hold' : 'refuse',
        ...colourOf(standard, own),
      };
    }),
  ];
}
