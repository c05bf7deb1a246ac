import { seeded } from '../../core/photo/seeded';
import type { Setting } from '../world';
import { BANDS } from './light';

export interface Pigment {
  readonly centreNm: number;
  readonly widthNm: number;
  readonly tail: number;
}
export interface Stuff {
  readonly id: string;
  readonly name: string;
  readonly bright: Pigment;
  readonly dull: Pigment;
  readonly dullShare: number;
  readonly power: number;
  readonly binding: number;
  readonly rate: number;
  readonly heat: number;
  readonly fades: number;
  readonly hardness: number;
  readonly ph: number;
  readonly iron: number;
  readonly phShiftNm: number;
  readonly usual: number;
}
export interface Jar {
  readonly id: string;
  readonly receivedOn: string;
  readonly strength: number;
  readonly dull: number;
  readonly told: number | null;
}
export interface BaseLot {
  readonly id: string;
  readonly ks: readonly number[];
  readonly sites: number;
}
export interface Hidden {
  readonly stuffs: readonly Stuff[];
  readonly jars: ReadonlyMap<string, Jar>;
  readonly jarsOf: ReadonlyMap<string, readonly Jar[]>;
  readonly bases: ReadonlyMap<
    string,
    { readonly fibre: string; readonly take: number; readonly lots: readonly BaseLot[] }
  >;
  readonly waters: Setting['waters'];
  readonly metals: ReadonlyMap<string, string>;
  readonly spectral: boolean;
}

export const DAY = 86_400_000;
export const iso = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
export const BEGIN = Date.UTC(2021, 2, 1);
export const YEAR = 365.25 * DAY;
const NAMES = ['goldenrod', 'madder', 'cutch', 'weld', 'walnut', 'logwood', 'cochineal'];
export const FIBRES = ['wool', 'linen', 'silk'];

/** What a dyehouse owns, with what nobody there knows of it. */
export function stockOf(seed: number) {
  const random = seeded(seed * 7919 + 17);
  const between = (low: number, high: number): number => low + (high - low) * random.uniform();
  const spectral = seed % 2 === 0;
  const stuffs = NAMES.map((name, i): Stuff => {
    const centreNm = [415, 505, 470, 405, 440, 560, 535][i] ?? 450;
    return {
      id: `dye-${name}`,
      name,
      bright: { centreNm: centreNm + between(-8, 8), widthNm: between(30, 50), tail: between(0.05, 0.25) },
      dull: { centreNm: between(430, 520), widthNm: between(90, 130), tail: between(0.3, 0.7) },
      dullShare: between(0.15, 0.4),
      power: between(5, 9),
      binding: between(0.3, 1.2),
      rate: between(0.015, 0.04),
      heat: between(35, 60),
      fades: between(0.05, 0.2),
      hardness: between(-0.14, 0.2),
      ph: between(-0.08, 0.12),
      iron: between(0.2, 0.8),
      phShiftNm: between(-3, 6),
      usual: between(12, 35),
    };
  });
  const jars = new Map<string, Jar>();
  const jarsOf = new Map<string, Jar[]>();
  const MATERIALS: readonly [string, number][] = [
    ...stuffs.map((s): [string, number] => [s.id, 5]),
    ['alum', 2],
    ['iron', 3],
    ['chalk', 1],
  ];
  for (const [id, count] of MATERIALS) {
    const own: Jar[] = [];
    for (let j = 0; j < count; j += 1) {
      const isPlant = id.startsWith('dye-');
      const spread = isPlant ? 0.25 : id === 'iron' ? 0.3 : 0.01;
      const strength = j === 0 ? 1 : Math.exp(spread * random.normal());
      const jar: Jar = {
        id: `${id}/${j + 1}`,
        receivedOn: iso(BEGIN - 60 * DAY + j * between(0.6, 0.95) * YEAR),
        strength,
        dull: isPlant ? Math.exp(0.4 * random.normal()) : 1,
        told:
          j > 0 && isPlant && random.uniform() < 0.4
            ? Math.round(100 * strength * Math.exp(0.06 * random.normal()))
            : null,
      };
      jars.set(jar.id, jar);
      own.push(jar);
    }
    jarsOf.set(id, own);
  }
  const bases = new Map(
    FIBRES.map((fibre) => {
      const yellow = fibre === 'linen' ? 0.05 : fibre === 'wool' ? 0.035 : 0.02;
      const lots = Array.from({ length: 4 }, (_, j): BaseLot => {
        const y = yellow * Math.exp(0.35 * random.normal());
        const grey = 0.006 * Math.exp(0.3 * random.normal());
        return {
          id: `${fibre}-lot-${j + 1}`,
          ks: BANDS.map((nm) => grey + y * Math.exp(-(nm - 400) / 70)),
          sites: Math.exp(0.04 * random.normal()),
        };
      });
      return [
        `base-${fibre}` as string,
        { fibre, take: fibre === 'wool' ? 1 : fibre === 'silk' ? 0.85 : 0.6, lots },
      ] as const;
    }),
  );
  const waters = [
    { id: 'tap', name: 'Tap', ph: 7.6, hardnessDh: Math.round(between(12, 22)), ironMgPerL: 0.02 },
    { id: 'rain', name: 'Rain barrel', ph: 6.2, hardnessDh: 1, ironMgPerL: 0.01 },
    { id: 'well', name: 'Well', ph: 7.1, hardnessDh: Math.round(between(6, 12)), ironMgPerL: between(0.1, 0.4) },
  ];
  const vessels = [
    { id: 'pot-1', name: 'Large pot', metal: 'steel', litres: 60 },
    { id: 'pot-2', name: 'Middle pot', metal: 'steel', litres: 30 },
    { id: 'pot-3', name: 'Old pot', metal: 'aluminium', litres: 30 },
  ];
  const hidden: Hidden = {
    stuffs,
    jars,
    jarsOf,
    bases,
    waters,
    metals: new Map(vessels.map((v) => [v.id, v.metal])),
    spectral,
  };

  return { random, between, hidden, vessels, materials: MATERIALS };
}
