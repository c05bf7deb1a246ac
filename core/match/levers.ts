import type { BathCourse, Dyeing, MatchDose } from './dyeing';

/** A jar that may be taken. */
export interface ShelfJar {
  readonly stockLotId: string;
  readonly ageYears: number;
}

/** A material on the shelf, with what is usual of it. */
export interface ShelfMaterial {
  readonly materialId: string;
  readonly role: MatchDose['role'];
  readonly jars: readonly ShelfJar[];
  /** The median dose in the record, %. */
  readonly usualPercent: number;
}

/** One thing that can be turned: how much out of one jar, or how long. */
export type Lever =
  | {
      readonly kind: 'jar';
      readonly stage: MatchDose['stage'];
      readonly materialId: string;
      readonly role: MatchDose['role'];
      readonly jar: ShelfJar;
      /** What 1 is: the recipe’s dose; of what the recipe doesn’t have, the usual one. */
      readonly unitPercent: number;
      readonly isOwn: boolean;
      readonly from: number;
    }
  | { readonly kind: 'time'; readonly from: number };

/** What the jars of a recipe’s materials offer: of each jar on the shelf a share, the recipe’s own at 1. */
export function ownLevers(plan: Dyeing, shelf: readonly ShelfMaterial[], withOtherJars: boolean): Lever[] {
  const whole = new Map<string, number>();
  const keyOf = (d: MatchDose): string => `${d.stage}/${d.materialId}`;
  for (const d of plan.doses) whole.set(keyOf(d), (whole.get(keyOf(d)) ?? 0) + d.percentOwf);
  return [...whole].flatMap(([key, unitPercent]): Lever[] => {
    const doses = plan.doses.filter((d) => keyOf(d) === key);
    const [first] = doses;
    if (!first || unitPercent <= 0) return [];
    const planned = doses.map((d) => ({ stockLotId: d.stockLotId, ageYears: d.ageYears, from: d.percentOwf / unitPercent }));
    const others = withOtherJars
      ? (shelf.find((m) => m.materialId === first.materialId)?.jars ?? [])
          .filter((j) => planned.every((p) => p.stockLotId !== j.stockLotId))
          .map((j) => ({ ...j, from: 0 }))
      : [];
    return [...planned, ...others].map(({ from, ...jar }) => ({
      kind: 'jar',
      stage: first.stage,
      materialId: first.materialId,
      role: first.role,
      jar,
      unitPercent,
      isOwn: true,
      from,
    }));
  });
}

/** A little of what the recipe doesn’t have. */
export const addedLever = (stage: MatchDose['stage'], { materialId, role, usualPercent }: ShelfMaterial, jar: ShelfJar): Lever => ({
  kind: 'jar',
  stage,
  materialId,
  role,
  jar,
  unitPercent: usualPercent,
  isOwn: false,
  from: 0,
});

/** A longer or shorter stay at the hottest. */
function stretched(course: BathCourse, factor: number): BathCourse {
  const hottest = Math.max(...course.points.map((p) => p.celsius));
  let later = 0;
  return {
    ...course,
    points: course.points.map((p, i) => {
      const before = course.points[i - 1];
      if (before && Math.min(p.celsius, before.celsius) >= hottest - 6) later += (p.minute - before.minute) * (factor - 1);
      return { ...p, minute: p.minute + later };
    }),
  };
}

const LEAST_SHARE = 0.002;

/** The dyeing with its levers where they are. */
export function pulled(plan: Dyeing, levers: readonly Lever[], at: readonly number[]): Dyeing {
  const isTurned = new Set(levers.flatMap((l) => (l.kind === 'jar' ? [`${l.stage}/${l.materialId}`] : [])));
  const doses = levers.flatMap((lever, i): MatchDose[] => {
    const share = at[i] ?? 0;
    if (lever.kind !== 'jar' || share < LEAST_SHARE) return [];
    const { stage, materialId, role, jar, unitPercent } = lever;
    return [{ stage, materialId, role, ...jar, percentOwf: share * unitPercent }];
  });
  const time = levers.findIndex((l) => l.kind === 'time');
  return {
    ...plan,
    doses: [...plan.doses.filter((d) => !isTurned.has(`${d.stage}/${d.materialId}`)), ...doses],
    courses:
      time < 0 ? plan.courses : plan.courses.map((c) => (c.stage === 'dye' ? stretched(c, Math.exp(at[time] ?? 0)) : c)),
  };
}
