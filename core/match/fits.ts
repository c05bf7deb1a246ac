import { median } from '../quantity/median';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { worthMinutes } from './bath-heat';
import { LEAST_OF_DYESTUFF } from './dyed-before';
import type { Dyeing, KnownStrength, MatchDose } from './dyeing';
import { dyedAndRead, tooFewRead } from './enough-read';
import { forward } from './forward';
import { referenceOf } from './lot-dyeing';
import type { Observation, Posterior } from './posterior';
import { learntOf } from './learnt';
import { predict } from './predict';

/** What of a dyeing is followed along a fit: how much dye, how long, which dip, how much mordant, how much modifier. */
export const FIT_KINDS = ['dose', 'minutes', 'dip', 'mordant', 'modifier'] as const;
/** One of `FIT_KINDS`. */
export type FitKind = (typeof FIT_KINDS)[number];

/** One reading on a fit, as if it had been dyed as the curve is, but for what is followed. */
export interface FitPoint {
  readonly id: string;
  readonly at: number;
  /** From the undyed base, ΔE00. */
  readonly fromUndyed: number;
  /** What it came out beside what the fit says of just that dyeing, ΔE00. */
  readonly residual: number;
}

/** What is told of together: a dyestuff by itself, over one mordanting, on one fibre. */
export interface FitFamily {
  readonly kind: FitKind;
  readonly materialId: string;
  readonly mordantIds: readonly string[];
  /** Of a modifier’s fit: which. */
  readonly modifierId: string | null;
  readonly fibre: string;
}

/**
 * How a shade goes with one thing, as it was learnt. `at` is per cent of the fibre of a dose (a dyestuff’s at the
 * reference’s strength), minutes at 80 °C of a stay, the number of a dip.
 */
export interface Fit extends FitFamily {
  readonly curve: readonly { readonly at: number; readonly fromUndyed: number; readonly within80: number }[];
  readonly points: readonly FitPoint[];
  /** Half of its readings lie no further from the fit, ΔE00. */
  readonly medianResidual: number;
}

/** Fits that stand on enough readings, most read first; and those that do not. */
export interface Fits {
  readonly fits: readonly Fit[];
  /** Dyed and read, too seldom for a curve. */
  readonly declined: readonly (FitFamily & { readonly readings: number })[];
}

const EVEN = { kL: 1, kC: 1, kH: 1 };
const STEPS = 24;
/** Along what is followed readings have to lie this far apart, the furthest against the nearest. */
const APART = 1.3;

const dosesOf = (d: Dyeing, role: MatchDose['role']): MatchDose[] => d.doses.filter((x) => x.role === role);
const idsOf = (d: Dyeing, role: MatchDose['role']): string[] =>
  [...new Set(dosesOf(d, role).map((x) => x.materialId))].sort();
const percentOf = (d: Dyeing, role: MatchDose['role']): number =>
  dosesOf(d, role).reduce((sum, x) => sum + x.percentOwf, 0);

/** Another amount of what has one role, out of the jars it came from. */
const withAmount = (d: Dyeing, role: MatchDose['role'], percentOwf: number): Dyeing => {
  const now = percentOf(d, role);
  return {
    ...d,
    doses: d.doses.map((x) => (x.role === role ? { ...x, percentOwf: (x.percentOwf / now) * percentOwf } : x)),
  };
};

/** One thing that is followed: where a dyeing lies along it, and a dyeing with it there. */
interface Axis {
  /** Whether a dyeing shows it; families hold together what shows it alike. */
  shows(d: Dyeing): boolean;
  modifierIdOf(d: Dyeing): string | null;
  of(d: Dyeing): number;
  with(d: Dyeing, at: number): Dyeing;
  /** Where its curve begins and ends, and in how many steps. */
  span(most: number): { readonly from: number; readonly to: number; readonly steps: number };
  readonly isVaried: (all: readonly number[]) => boolean;
}

const isPlain = (d: Dyeing): boolean => d.dip === 1 && dosesOf(d, 'modifier').length === 0;
const isSpread = (all: readonly number[]): boolean => Math.max(...all) > APART * Math.min(...all);
const fromNothing = (most: number) => ({ from: (1.25 * most) / STEPS, to: 1.25 * most, steps: STEPS - 1 });

function axesOf(posterior: Posterior): Readonly<Record<FitKind, Axis>> {
  const strengthOf = (stockLotId: string): number => Math.exp(valueOf(posterior, `jar/${stockLotId}`, 0));
  const heat = valueOf(posterior, 'heat', 4.5);
  return {
    dose: {
      shows: isPlain,
      modifierIdOf: () => null,
      of: (d) => dosesOf(d, 'dyestuff').reduce((sum, x) => sum + x.percentOwf * strengthOf(x.stockLotId), 0),
      with: (d, at) => withAmount(d, 'dyestuff', at),
      span: fromNothing,
      isVaried: () => true,
    },
    minutes: {
      shows: isPlain,
      modifierIdOf: () => null,
      of: (d) =>
        worthMinutes(
          d.courses.find((c) => c.stage === 'dye'),
          heat,
        ).minutes,
      with: (d, at) => ({
        ...d,
        courses: [
          ...d.courses.filter((c) => c.stage !== 'dye'),
          {
            stage: 'dye',
            points: [
              { minute: 0, celsius: 80 },
              { minute: at, celsius: 80 },
            ],
          },
        ],
      }),
      span: fromNothing,
      isVaried: isSpread,
    },
    dip: {
      shows: (d) => dosesOf(d, 'modifier').length === 0,
      modifierIdOf: () => null,
      of: (d) => d.dip,
      with: (d, at) => ({ ...d, dip: at }),
      span: (most) => ({ from: 1, to: most, steps: most - 1 }),
      isVaried: isSpread,
    },
    mordant: {
      shows: (d) => isPlain(d) && idsOf(d, 'mordant').length === 1,
      modifierIdOf: () => null,
      of: (d) => percentOf(d, 'mordant'),
      with: (d, at) => withAmount(d, 'mordant', at),
      span: fromNothing,
      isVaried: isSpread,
    },
    modifier: {
      shows: (d) => d.dip === 1 && idsOf(d, 'modifier').length === 1,
      modifierIdOf: (d) => idsOf(d, 'modifier')[0] ?? null,
      of: (d) => percentOf(d, 'modifier'),
      with: (d, at) => withAmount(d, 'modifier', at),
      span: fromNothing,
      isVaried: isSpread,
    },
  };
}

function valueOf({ book, values, learnt }: Posterior, key: string, otherwise: number): number {
  const place = book.find(key);
  return place === undefined || place >= learnt ? otherwise : (values[place] ?? otherwise);
}

/**
 * What was learnt of each dyestuff by itself, family by family: only what was dyed with it alone shows what it does, so
 * only that is on a curve. `undefined` where too little was read of anything.
 */
export function readFits(readings: readonly Observation[], strengths: readonly KnownStrength[]): Fits | undefined {
  if (tooFewRead(readings)) return undefined;
  const alone = dyedAndRead(readings).filter((r) => idsOf(r.dyeing, 'dyestuff').length === 1);
  const posterior = learntOf(readings, strengths);
  const axes = axesOf(posterior);
  const all = FIT_KINDS.flatMap((kind) => {
    const axis = axes[kind];
    const families = new Map<string, Observation[]>();
    for (const r of alone.filter((x) => axis.shows(x.dyeing))) {
      const { dyeing: d } = r;
      const key = JSON.stringify([idsOf(d, 'dyestuff'), d.fibre, idsOf(d, 'mordant'), axis.modifierIdOf(d)]);
      families.set(key, [...(families.get(key) ?? []), r]);
    }
    return [...families]
      .filter(([, own]) => axis.isVaried(own.map((r) => axis.of(r.dyeing))))
      .sort(([x, a], [y, b]) => b.length - a.length || (x < y ? -1 : 1))
      .map(([, own]) => ({ family: familyOf(kind, axis, own), axis, own }));
  });
  return {
    fits: all
      .filter(({ own }) => own.length >= LEAST_OF_DYESTUFF)
      .map(({ family, axis, own }) => fitOf(posterior, family, axis, own)),
    declined: all
      .filter(({ own }) => own.length < LEAST_OF_DYESTUFF)
      .map(({ family, own }) => ({ ...family, readings: own.length })),
  };
}

function familyOf(kind: FitKind, axis: Axis, [first]: readonly Observation[]): FitFamily {
  if (!first) throw new RangeError('a family of readings is never empty');
  const { dyeing } = first;
  return {
    kind,
    materialId: idsOf(dyeing, 'dyestuff')[0] ?? '',
    mordantIds: idsOf(dyeing, 'mordant'),
    modifierId: axis.modifierIdOf(dyeing),
    fibre: dyeing.fibre,
  };
}

function fitOf(posterior: Posterior, family: FitFamily, axis: Axis, own: readonly Observation[]): Fit {
  const { space } = posterior;
  const [last] = own.slice(-1);
  if (!last) throw new RangeError('a family of readings is never empty');
  const undyed = last.dyeing.undyed.lab;
  /** As the newest was dyed, out of the reference jar. */
  const like: Dyeing = {
    ...last.dyeing,
    colourwayId: null,
    doses: last.dyeing.doses.map((d) =>
      d.role === 'dyestuff' ? { ...d, stockLotId: referenceOf(d.materialId), ageYears: 0 } : d,
    ),
  };
  const shadeAt = (d: Dyeing): Lab => space.lab(forward(posterior, d, null, false).channels);
  const far = (lab: Lab): number => ciede2000(undyed, lab, EVEN).deltaE;
  const points = own.map(({ id, dyeing, colour }): FitPoint => {
    const at = axis.of(dyeing);
    const [foretold, onCurve] = [shadeAt(dyeing), shadeAt(axis.with(like, at))];
    const moved = {
      L: onCurve.L + colour.lab.L - foretold.L,
      a: onCurve.a + colour.lab.a - foretold.a,
      b: onCurve.b + colour.lab.b - foretold.b,
    };
    return { id, at, fromUndyed: far(moved), residual: ciede2000(foretold, colour.lab, EVEN).deltaE };
  });
  const { from, to, steps } = axis.span(Math.max(...points.map((p) => p.at)));
  return {
    ...family,
    points,
    medianResidual: median(points.map((p) => p.residual)),
    curve: Array.from({ length: steps + 1 }, (_, i) => {
      const at = from + ((to - from) * i) / Math.max(1, steps);
      const { lab, within80 } = predict(posterior, axis.with(like, at));
      return { at, fromUndyed: far(lab), within80 };
    }),
  };
}
