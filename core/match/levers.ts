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

/** A jar’s part in what a lever turns. */
export interface JarShare extends ShelfJar {
  readonly share: number;
}

/** One thing that can be turned: how much of a material out of one jar or a mix of jars, or how long. */
export type Lever =
  | {
      readonly kind: 'dose';
      readonly stage: MatchDose['stage'];
      readonly materialId: string;
      readonly role: MatchDose['role'];
      readonly jars: readonly JarShare[];
      /** What 1 is: the recipe’s dose; of what the recipe doesn’t have, the usual one. */
      readonly unitPercent: number;
      readonly isOwn: boolean;
      readonly from: number;
    }
  /** The stay in the dye, ln of what is planned; a dye in dips goes by whole ones, and so many are planned. */
  | { readonly kind: 'time'; readonly from: number; readonly dips?: number };

/**
 * What a recipe’s own materials offer: how much of each, as its jars are mixed now; or of each jar on the shelf by itself.
 * Assistants are left as they are: they serve the bath, and a shade is not steered by them.
 */
export function ownLevers(plan: Dyeing, shelf: readonly ShelfMaterial[], byJar: boolean): Lever[] {
  const keyOf = (d: MatchDose): string => `${d.stage}/${d.materialId}`;
  const turned = plan.doses.filter((d) => d.role !== 'assistant');
  return [...new Set(turned.map(keyOf))].flatMap((key): Lever[] => {
    const doses = turned.filter((d) => keyOf(d) === key);
    const unitPercent = doses.reduce((sum, d) => sum + d.percentOwf, 0);
    const [first] = doses;
    if (!first || unitPercent <= 0) return [];
    const { stage, materialId, role } = first;
    const planned = doses.map(({ stockLotId, ageYears, percentOwf }): JarShare => ({
      stockLotId,
      ageYears,
      share: percentOwf / unitPercent,
    }));
    const lever = (jars: readonly JarShare[], from: number): Lever => ({
      kind: 'dose',
      stage,
      materialId,
      role,
      jars,
      unitPercent,
      isOwn: true,
      from,
    });
    if (!byJar) return [lever(planned, 1)];
    const others = (shelf.find((m) => m.materialId === materialId)?.jars ?? []).filter((j) =>
      planned.every((p) => p.stockLotId !== j.stockLotId),
    );
    return [
      ...planned.map((p) => lever([{ ...p, share: 1 }], p.share)),
      ...others.map((j) => lever([{ ...j, share: 1 }], 0)),
    ];
  });
}

/** A little of what the recipe doesn’t have. */
export const addedLever = (
  stage: MatchDose['stage'],
  { materialId, role, usualPercent }: ShelfMaterial,
  jar: ShelfJar,
): Lever => ({
  kind: 'dose',
  stage,
  materialId,
  role,
  jars: [{ ...jar, share: 1 }],
  unitPercent: usualPercent,
  isOwn: false,
  from: 0,
});

/** A longer or shorter stay at the hottest; of dips, more or fewer of them all. */
function stretched(course: BathCourse, factor: number, dips: number): BathCourse {
  if (dips > 1) return { ...course, points: course.points.map((p) => ({ ...p, minute: p.minute * factor })) };
  const hottest = Math.max(...course.points.map((p) => p.celsius));
  let later = 0;
  return {
    ...course,
    points: course.points.map((p, i) => {
      const before = course.points[i - 1];
      if (before && Math.min(p.celsius, before.celsius) >= hottest - 6)
        later += (p.minute - before.minute) * (factor - 1);
      return { ...p, minute: p.minute + later };
    }),
  };
}

const LEAST_SHARE = 0.002;

/** The dyeing with its levers where they are. */
export function pulled(plan: Dyeing, levers: readonly Lever[], at: readonly number[]): Dyeing {
  const isTurned = new Set(levers.flatMap((l) => (l.kind === 'dose' ? [`${l.stage}/${l.materialId}`] : [])));
  const doses = levers.flatMap((lever, i): MatchDose[] => {
    const amount = at[i] ?? 0;
    if (lever.kind !== 'dose' || amount < LEAST_SHARE) return [];
    const { stage, materialId, role, jars, unitPercent } = lever;
    return jars.map(({ stockLotId, ageYears, share }) => ({
      stage,
      materialId,
      role,
      stockLotId,
      ageYears,
      percentOwf: amount * share * unitPercent,
    }));
  });
  const time = levers.findIndex((l) => l.kind === 'time');
  const stay = levers[time];
  const dips = stay?.kind === 'time' ? (stay.dips ?? 1) : 1;
  return {
    ...plan,
    doses: [...plan.doses.filter((d) => !isTurned.has(`${d.stage}/${d.materialId}`)), ...doses],
    courses:
      time < 0
        ? plan.courses
        : plan.courses.map((c) => (c.stage === 'dye' ? stretched(c, Math.exp(at[time] ?? 0), dips) : c)),
  };
}
