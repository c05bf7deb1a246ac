import { worded } from '../words/worded';
import type { PlacedCaution, PlacedFault } from './placed-fault';

/** How colour is put on, or kept off, a stretch of a skein or a length. */
export const ZONE_WAYS = ['tie', 'bind', 'dip', 'spray', 'pour', 'layOn', 'modify', 'leave'] as const;
/** One of `ZONE_WAYS`. */
export type ZoneWay = (typeof ZONE_WAYS)[number];
/** How each way of placing colour is said on screen. */
export const ZONE_LABELS: Readonly<Record<ZoneWay, string>> = worded(() => ({
  tie: $localize`tied`,
  bind: $localize`bound points`,
  dip: $localize`dipped`,
  spray: $localize`sprayed`,
  pour: $localize`poured`,
  layOn: $localize`dyestuff laid on`,
  modify: $localize`modified`,
  leave: $localize`left undyed`,
}));
/** Ways that put liquid on the piece: they creep, and want a margin. */
const WET: readonly ZoneWay[] = ['dip', 'spray', 'pour', 'layOn', 'modify'];

/** A stretch of the piece, from and to in per cent of its length, and what is done to it. */
export interface PlacedZone {
  readonly title: string;
  readonly way: ZoneWay;
  /** Where along the piece, per cent of its length. */
  readonly fromPercent: number;
  readonly toPercent: number;
  /** Turn in which it is done, from 1; zones of one turn are done together. */
  readonly order: number;
  /** Minutes in the liquor, or under the tie. */
  readonly minutes: number;
  /** Minutes to wait after it, before the next turn. */
  readonly waitMin: number;
  /** Liquid for one piece, ml: sprayed, poured, brushed. */
  readonly mlPerPiece: number | null;
  /** Dyestuff or powder for one piece, g: laid on, or dissolved in what is sprayed. */
  readonly gPerPiece: number | null;
  /** What is put on; a material of the stores, or `null` where it is the dye bath itself. */
  readonly materialId: string | null;
  /** Distance between ties or points, cm; with it, how many is worked out. */
  readonly spacingCm: number | null;
}

/** Where colour goes on a piece whose length is in cm, and how far it bleeds, per cent. */
export interface PlacedPlan {
  /** Length of one piece, cm: half the round of a skein laid flat, or the cloth's own. */
  readonly lengthCm: number;
  readonly piece: 'skein' | 'length';
  /** How far liquid creeps beyond an edge, per cent of the length: two wet zones of different turns keep this apart. */
  readonly bleedPercent: number;
  readonly zones: readonly PlacedZone[];
}

const MAX_CM = 5000;

/**
 * What is wrong with a plan of placed colour, first fault only. Zones of one turn may not overlap; those of later
 * turns may (overdyeing).
 */
export function findPlacedFault(plan: PlacedPlan): PlacedFault | undefined {
  if (!(plan.lengthCm > 0 && plan.lengthCm <= MAX_CM)) return { code: 'noLength', maxCm: MAX_CM };
  if (plan.zones.length === 0) return { code: 'noZone' };
  for (const z of plan.zones) {
    const { title, fromPercent, toPercent } = z;
    if (fromPercent < 0 || toPercent > 100) return { code: 'outside', title, fromPercent, toPercent };
    if (toPercent <= fromPercent) return { code: 'backwards', title };
    if ((z.way === 'spray' || z.way === 'pour') && !(z.mlPerPiece !== null && z.mlPerPiece > 0))
      return { code: 'noMl', title };
  }
  const inOrder = [...plan.zones].sort((a, b) => a.order - b.order || a.fromPercent - b.fromPercent);
  for (const [i, z] of inOrder.entries()) {
    const next = inOrder[i + 1];
    if (next && next.order === z.order && next.fromPercent < z.toPercent - 1e-9)
      return {
        code: 'overlap',
        title: z.title,
        otherTitle: next.title,
        fromPercent: next.fromPercent,
        toPercent: Math.min(z.toPercent, next.toPercent),
      };
  }
  return undefined;
}

/** A zone laid out on a piece: its edges and points in cm, and what it takes in ml or g. */
export interface ZoneLayout extends PlacedZone {
  readonly fromCm: number;
  readonly toCm: number;
  /** Middles of the ties or points, cm from the beginning; empty where there are none. */
  readonly pointsCm: readonly number[];
  /** All pieces of the lot, ml; `null` where no liquid is measured. */
  readonly totalMl: number | null;
  /** Minutes from the beginning when its turn starts. */
  readonly startsMin: number;
}

/** Every zone laid out, and cautions where colours run into each other. */
export interface PlacedLayout {
  readonly zones: readonly ZoneLayout[];
  readonly totalMin: number;
  /** Zones that stand nearer than the bleed margin, and what they are tied with. */
  readonly cautions: readonly PlacedCaution[];
}

/**
 * Lays a plan out in centimetres for every piece of a lot alike: edges, ties evenly over each zone (half a spacing in
 * from its edges), ml in all, turns one after another with their waits. The plan must be without fault.
 * @param pieces whole pieces of the lot, 1 or more
 */
export function layOutPlaced(plan: PlacedPlan, pieces: number): PlacedLayout {
  const cm = (percent: number): number => Math.round((percent * plan.lengthCm) / 10) / 10;
  const turns = [...new Set(plan.zones.map((z) => z.order))].sort((a, b) => a - b);
  const startOf = new Map<number, number>();
  let clock = 0;
  for (const turn of turns) {
    startOf.set(turn, clock);
    clock += Math.max(...plan.zones.filter((z) => z.order === turn).map((z) => z.minutes + z.waitMin));
  }
  const zones = [...plan.zones]
    .sort((a, b) => a.order - b.order || a.fromPercent - b.fromPercent)
    .map((z) => {
      const [fromCm, toCm] = [cm(z.fromPercent), cm(z.toPercent)];
      return {
        ...z,
        fromCm,
        toCm,
        pointsCm: pointsIn(fromCm, toCm, z),
        totalMl: z.mlPerPiece === null ? null : Math.round(z.mlPerPiece * pieces * 10) / 10,
        startsMin: startOf.get(z.order) ?? 0,
      };
    });
  return { zones, totalMin: clock, cautions: bleedCautions(plan) };
}

function pointsIn(fromCm: number, toCm: number, { way, spacingCm }: PlacedZone): number[] {
  if (way !== 'tie' && way !== 'bind') return [];
  if (spacingCm === null || !(spacingCm > 0)) return way === 'tie' ? [Math.round(((fromCm + toCm) / 2) * 10) / 10] : [];
  const count = Math.max(1, Math.round((toCm - fromCm) / spacingCm));
  return Array.from(
    { length: count },
    (_, i) => Math.round((fromCm + ((i + 0.5) * (toCm - fromCm)) / count) * 10) / 10,
  );
}

function bleedCautions(plan: PlacedPlan): PlacedCaution[] {
  const wet = plan.zones.filter((z) => WET.includes(z.way)).sort((a, b) => a.fromPercent - b.fromPercent);
  const { bleedPercent } = plan;
  const bleeds = wet.flatMap<PlacedCaution>((z, i) => {
    const next = wet[i + 1];
    const apartPercent = next ? next.fromPercent - z.toPercent : Infinity;
    return next && apartPercent >= 0 && apartPercent < bleedPercent
      ? [{ code: 'bleed', title: z.title, otherTitle: next.title, apartPercent, bleedPercent }]
      : [];
  });
  const tied = plan.zones.some((z) => z.way === 'tie' || z.way === 'bind');
  return tied ? [...bleeds, { code: 'undyedCord' }] : bleeds;
}
