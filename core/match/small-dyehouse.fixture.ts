import { reflectanceOfKs } from '../colour/kubelka-munk';
import type { Lab } from '../colour/lab';
import { seeded } from '../photo/seeded';
import { broadChannels } from './channels';
import type { Dyeing, MatchDose } from './dyeing';
import type { Observation } from './posterior';

/** A dyehouse of two dyestuffs on wool whose law is known: what it dyes and reads is what the match is tried on. */

export const MASTER_DOSES = { weld: 40, madder: 8 } as const;
const UNDYED: Lab = { L: 88, a: 0, b: 11 };
const BANDS = { weld: [0.012, 0.02, 1.5], madder: [0.05, 0.9, 1.1] } as const;
/** Strengths nobody tells. */
export const STRENGTHS: Readonly<Record<string, number>> = {
  'weld 1': 1,
  'weld 2': 0.7,
  'weld 3': 1.25,
  'madder 1': 1,
};

export const dose = (
  materialId: string,
  stockLotId: string,
  percentOwf: number,
  rest: Partial<MatchDose> = {},
): MatchDose => ({
  stage: 'dye',
  materialId,
  role: 'dyestuff',
  stockLotId,
  percentOwf,
  ageYears: 0,
  ...rest,
});

export const dyeing = (doses: readonly MatchDose[], rest: Partial<Dyeing> = {}): Dyeing => ({
  colourwayId: 'marram',
  purpose: 'lot',
  fibre: 'wool',
  baseId: 'rug wool',
  baseLotId: 'bale 1',
  undyed: { lab: UNDYED, spectrum: null },
  doses: [dose('alum', 'alum 1', 12, { stage: 'mordant', role: 'mordant' }), ...doses],
  courses: [
    {
      stage: 'mordant',
      points: [
        { minute: 0, celsius: 80 },
        { minute: 60, celsius: 80 },
      ],
    },
    {
      stage: 'dye',
      points: [
        { minute: 0, celsius: 80 },
        { minute: 60, celsius: 80 },
      ],
    },
  ],
  water: { id: 'tap', ph: 7, hardnessDh: 10, ironMgPerL: 0 },
  metal: 'stainless',
  liquorRatio: 20,
  dip: 1,
  ...rest,
});

const space = broadChannels();
/** What truly comes out. */
export function trueShade({ doses, undyed }: Dyeing): Lab {
  const bare = space.reflectances(undyed);
  const ks = bare.map((r) => (1 - r) ** 2 / (2 * r));
  for (const d of doses) {
    const bands = d.materialId === 'weld' ? BANDS.weld : d.materialId === 'madder' ? BANDS.madder : undefined;
    const usual = d.materialId === 'weld' ? MASTER_DOSES.weld : MASTER_DOSES.madder;
    const went = (d.percentOwf / usual) * (STRENGTHS[d.stockLotId] ?? 1);
    const taken = (2.6 * went) / (1.6 + went);
    bands?.forEach((k, c) => (ks[c] = (ks[c] ?? 0) + k * taken));
  }
  return space.lab(space.see(ks.map(reflectanceOfKs)).values);
}

/** So many lots of the colourway out of two jars, as they were read. */
export function pastLots(count: number, seed = 3): Observation[] {
  const random = seeded(seed);
  return Array.from({ length: count }, (_, i) => {
    const by = (): number => Math.exp(0.12 * random.normal());
    const jar = i % 2 === 0 ? 'weld 1' : 'weld 2';
    const d = dyeing([
      dose('weld', jar, MASTER_DOSES.weld * by()),
      dose('madder', 'madder 1', MASTER_DOSES.madder * by()),
    ]);
    const { L, a, b } = trueShade(d);
    const lab = { L: L + 0.15 * random.normal(), a: a + 0.15 * random.normal(), b: b + 0.15 * random.normal() };
    return { id: `lot ${i + 1}`, dyeing: d, colour: { lab, spectrum: null }, day: null };
  });
}

/** The recipe out of a jar of weld. */
export const recipeFrom = (jar: string): Dyeing =>
  dyeing([dose('weld', jar, MASTER_DOSES.weld), dose('madder', 'madder 1', MASTER_DOSES.madder)]);

export const REFERENCES = ['weld 1', 'madder 1', 'alum 1'].map((stockLotId) => ({
  stockLotId,
  percent: 100,
  isReference: true,
}));
