import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { broadChannels } from './channels';
import { LEAST_OF_DYESTUFF } from './dyed-before';
import type { Dyeing, KnownStrength } from './dyeing';
import { dyedAndRead, tooFewRead } from './enough-read';
import { forward } from './forward';
import { referenceOf } from './lot-dyeing';
import type { Observation, Posterior } from './posterior';
import { learn } from './posterior';
import { predict } from './predict';

/** One reading on a build-up, as if it had been dyed out of the reference, in the water and for the time of the curve. */
export interface BuildUpPoint {
  readonly id: string;
  /** At the reference’s strength, %. */
  readonly percentOwf: number;
  /** From the undyed base, ΔE00. */
  readonly fromUndyed: number;
  /** What it came out beside what the fit says of just that dyeing, ΔE00. */
  readonly residual: number;
}

/** How deep a dyestuff dyes over one mordanting on one fibre, as it was learnt. */
export interface BuildUp {
  readonly materialId: string;
  readonly mordantIds: readonly string[];
  readonly fibre: string;
  readonly curve: readonly { readonly percentOwf: number; readonly fromUndyed: number; readonly within80: number }[];
  readonly points: readonly BuildUpPoint[];
  /** Half of its readings lie no further from the fit, ΔE00. */
  readonly medianResidual: number;
}

/** Build-ups that stand on enough readings, most read first; and those that do not. */
export interface BuildUps {
  readonly fits: readonly BuildUp[];
  /** Dyed and read, too seldom for a curve. */
  readonly declined: readonly (Pick<BuildUp, 'materialId' | 'mordantIds' | 'fibre'> & { readonly readings: number })[];
}

const EVEN = { kL: 1, kC: 1, kH: 1 };
const STEPS = 24;

/**
 * The build-up of each dyestuff by itself, family by family: only what was dyed with it alone shows what it does, so only
 * that is on the curve. `undefined` where too little was read of anything.
 */
export function buildUps(readings: readonly Observation[], strengths: readonly KnownStrength[]): BuildUps | undefined {
  if (tooFewRead(readings)) return undefined;
  const read = dyedAndRead(readings);
  const posterior = learn(broadChannels(), readings, strengths);
  const families = new Map<string, Observation[]>();
  for (const r of read) {
    const dyes = new Set(r.dyeing.doses.filter((d) => d.role === 'dyestuff').map((d) => d.materialId));
    const isPlain = r.dyeing.dip === 1 && r.dyeing.doses.every((d) => d.role !== 'modifier');
    if (dyes.size !== 1 || !isPlain) continue;
    const key = [[...dyes][0], r.dyeing.fibre, ...mordantsOf(r.dyeing)].join('|');
    families.set(key, [...(families.get(key) ?? []), r]);
  }
  const all = [...families].sort(([x, a], [y, b]) => b.length - a.length || (x < y ? -1 : 1)).map(([, own]) => own);
  return {
    fits: all.filter((own) => own.length >= LEAST_OF_DYESTUFF).map((own) => fitOf(posterior, own)),
    declined: all
      .filter((own) => own.length < LEAST_OF_DYESTUFF)
      .map((own) => ({ ...familyOf(own), readings: own.length })),
  };
}

const mordantsOf = (d: Dyeing): string[] =>
  [...new Set(d.doses.filter((x) => x.role === 'mordant').map((x) => x.materialId))].sort();

function familyOf(own: readonly Observation[]): Pick<BuildUp, 'materialId' | 'mordantIds' | 'fibre'> {
  const dyeing = own[0]?.dyeing;
  return {
    materialId: dyeing?.doses.find((d) => d.role === 'dyestuff')?.materialId ?? '',
    mordantIds: dyeing ? mordantsOf(dyeing) : [],
    fibre: dyeing?.fibre ?? '',
  };
}

function fitOf(posterior: Posterior, own: readonly Observation[]): BuildUp {
  const family = familyOf(own);
  const { space } = posterior;
  const [last] = own.slice(-1);
  if (!last) throw new RangeError('a family of readings is never empty');
  const undyed = last.dyeing.undyed.lab;
  /** As the newest was dyed, out of the reference jar. */
  const at = (percentOwf: number): Dyeing => ({
    ...last.dyeing,
    colourwayId: null,
    doses: [
      ...last.dyeing.doses.filter((d) => d.role !== 'dyestuff'),
      {
        ...(last.dyeing.doses.find((d) => d.role === 'dyestuff') ?? last.dyeing.doses[0]!),
        stockLotId: referenceOf(family.materialId),
        ageYears: 0,
        percentOwf,
      },
    ],
  });
  const far = (lab: Lab): number => ciede2000(undyed, lab, EVEN).deltaE;
  const points = own.map(({ id, dyeing, colour }): BuildUpPoint => {
    const percentOwf = dyeing.doses
      .filter((d) => d.role === 'dyestuff')
      .reduce((sum, d) => sum + d.percentOwf * strengthOf(posterior, d.stockLotId), 0);
    const foretold = space.lab(forward(posterior, dyeing, null, false).channels);
    const onCurve = space.lab(forward(posterior, at(percentOwf), null, false).channels);
    const moved = {
      L: onCurve.L + colour.lab.L - foretold.L,
      a: onCurve.a + colour.lab.a - foretold.a,
      b: onCurve.b + colour.lab.b - foretold.b,
    };
    return {
      id,
      percentOwf,
      fromUndyed: far(moved),
      residual: ciede2000(foretold, colour.lab, EVEN).deltaE,
    };
  });
  const most = 1.25 * Math.max(...points.map((p) => p.percentOwf));
  const residuals = points.map((p) => p.residual).sort((x, y) => x - y);
  return {
    ...family,
    points,
    medianResidual: residuals[Math.floor(residuals.length / 2)] ?? 0,
    curve: Array.from({ length: STEPS }, (_, i) => {
      const percentOwf = (most * (i + 1)) / STEPS;
      const { lab, within80 } = predict(posterior, at(percentOwf));
      return { percentOwf, fromUndyed: far(lab), within80 };
    }),
  };
}

function strengthOf({ book, values, learnt }: Posterior, stockLotId: string): number {
  const place = book.find(`jar/${stockLotId}`);
  return place === undefined || place >= learnt ? 1 : Math.exp(values[place] ?? 0);
}
