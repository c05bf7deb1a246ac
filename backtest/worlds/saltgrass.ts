import { seeded } from '../../core/photo/seeded';
import type { Dose, Dyehouse, Dyeing, Lab, Order, Outcome, PastDyeing, Setting, World } from '../world';
import { hash } from './hash';
import { deltaE00 } from './light';
import { lowest } from './search';

/**
 * A dyehouse by the demo studio’s simple law: each dyestuff takes a base a share of the way to a shade of its own, and
 * less and less of it; rain water is a little yellower, an iron pot dull. A reader that gives L*a*b*.
 */

const DAY = 86_400_000;
const BEGIN = Date.UTC(2022, 0, 10);
const YEAR = 365.25 * DAY;
const iso = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
/** So steep is the build-up at the dose that is wanted. */
const STEEP = 1.6;

interface Stuff {
  readonly id: string;
  /** Where it leads. */
  readonly shade: Lab;
  /** The dose that is wanted, %. */
  readonly percent: number;
}
const STUFFS: readonly Stuff[] = [
  { id: 'weld', shade: { L: 74.6, a: -4.8, b: 51.2 }, percent: 50 },
  { id: 'cones', shade: { L: 43.1, a: 3.6, b: 11.4 }, percent: 60 },
  { id: 'cutch', shade: { L: 40.2, a: 17.3, b: 22.8 }, percent: 25 },
  { id: 'bedstraw', shade: { L: 49.7, a: 32.4, b: 25.9 }, percent: 80 },
  { id: 'tansy', shade: { L: 76.3, a: -0.6, b: 42.9 }, percent: 100 },
  { id: 'alkanet', shade: { L: 51.2, a: 7.6, b: -9.8 }, percent: 40 },
];
const BASES = [
  { id: 'wool', undyed: { L: 88, a: 0.6, b: 10.5 } },
  { id: 'linen', undyed: { L: 82, a: 1.4, b: 9.2 } },
];

function create(seed: number): Dyehouse {
  const random = seeded(seed * 104_729 + 3);
  const jarsOf = new Map(
    [...STUFFS.map((s) => s.id), 'alum'].map((id) => [
      id,
      Array.from({ length: 4 }, (_, j) => {
        const strength = j === 0 || id === 'alum' ? 1 : 0.65 + 0.6 * random.uniform();
        return {
          id: `${id}/${j + 1}`,
          receivedOn: iso(BEGIN - 30 * DAY + j * 0.75 * YEAR),
          strength,
          told: j > 0 && random.uniform() < 0.5 ? Math.round(100 * strength * Math.exp(0.05 * random.normal())) : null,
        };
      }),
    ]),
  );
  const jars = new Map([...jarsOf.values()].flat().map((j) => [j.id, j]));
  const lotsOf = new Map(
    BASES.map((b) => [
      b.id,
      Array.from({ length: 3 }, (_, j) => ({
        id: `${b.id}-lot-${j + 1}`,
        undyed: {
          L: b.undyed.L + 0.6 * random.normal(),
          a: b.undyed.a + 0.2 * random.normal(),
          b: b.undyed.b + 0.8 * random.normal(),
        },
      })),
    ]),
  );
  const colourways = STUFFS.map((s, i) => ({
    id: `of-${s.id}`,
    name: `Of ${s.id}`,
    baseId: i % 3 === 1 ? 'linen' : 'wool',
    toleranceDeltaE00: 2,
    doses: [
      { stage: 'mordant' as const, materialId: 'alum', percentOwf: 12 },
      { stage: 'dye' as const, materialId: s.id, percentOwf: s.percent },
    ],
    courses: [
      {
        stage: 'mordant' as const,
        points: [
          { minute: 0, celsius: 20 },
          { minute: 40, celsius: 85 },
          { minute: 100, celsius: 85 },
        ],
      },
      {
        stage: 'dye' as const,
        points: [
          { minute: 0, celsius: 20 },
          { minute: 40, celsius: 85 },
          { minute: 100, celsius: 85 },
        ],
      },
    ],
    liquorRatio: 30,
    dip: 1,
  }));
  const luckOf = (key: string): Lab => {
    const luck = seeded(hash(`${seed}/${key}`));
    return { L: 0.25 * luck.normal(), a: 0.2 * luck.normal(), b: 0.25 * luck.normal() };
  };
  const dyeTrue = (d: Dyeing, luck: Lab): Lab => {
    const base = lotsOf.get(d.baseId)?.find((l) => l.id === d.baseLotId);
    if (!base) throw new Error('this dyehouse has no such base');
    const shares = STUFFS.map((s) => {
      const given = d.doses
        .filter((x) => x.materialId === s.id)
        .reduce((sum, x) => sum + x.percentOwf * (jars.get(x.stockLotId)?.strength ?? 1), 0);
      return { shade: s.shade, depth: (1 - Math.exp((-STEEP * given) / s.percent)) / (1 - Math.exp(-STEEP)) };
    });
    const rain = d.waterId === 'rain' ? 1 : 0;
    const along = (axis: keyof Lab): number =>
      base.undyed[axis] + shares.reduce((sum, s) => sum + s.depth * (s.shade[axis] - base.undyed[axis]), 0);
    const dull = d.vesselId === 'dented' ? 0.8 : 1;
    return {
      L: along('L') + rain * 0.9 - (dull < 1 ? 6 : 0) + luck.L,
      a: along('a') * dull + rain * 0.3 + luck.a,
      b: along('b') * dull - rain * 0.8 + luck.b,
    };
  };
  const NO_LUCK: Lab = { L: 0, a: 0, b: 0 };
  const masters = new Map(
    colourways.map((c) => {
      const shade = STUFFS.find((s) => `of-${s.id}` === c.id)?.shade ?? NO_LUCK;
      return [c.id, shade];
    }),
  );
  const setting: Setting = {
    bases: BASES.map((b) => ({ id: b.id, name: b.id, fibre: b.id, lots: lotsOf.get(b.id) ?? [] })),
    materials: [...jarsOf].map(([id, own]) => ({
      id,
      name: id,
      kind: id === 'alum' ? 'mordant' : 'dyestuff',
      stockLots: own.map((j) => ({ id: j.id, receivedOn: j.receivedOn, knownStrengthPercent: j.told })),
    })),
    waters: [
      { id: 'tap', name: 'Tap', ph: 7.4, hardnessDh: 15, ironMgPerL: 0 },
      { id: 'rain', name: 'Rain barrel', ph: 6.3, hardnessDh: 1, ironMgPerL: 0 },
    ],
    vessels: [
      { id: 'large', name: 'Large pot', metal: 'steel', litres: 60 },
      { id: 'dented', name: 'Dented pot', metal: 'iron', litres: 40 },
    ],
    colourways: colourways.map((c) => ({ ...c, master: masters.get(c.id) ?? NO_LUCK })),
    reader: { spectral: false, repeatabilityDeltaE00: 0.15 },
  };

  const outcome = (asked: Dyeing, key: string): Outcome => {
    const slip = seeded(hash(`${seed}/slip/${key}`));
    const recorded = {
      ...asked,
      doses: asked.doses.map((d) => ({ ...d, percentOwf: d.percentOwf * Math.exp(0.015 * slip.normal()) })),
    };
    const dry = dyeTrue(recorded, luckOf(key));
    const noisy = (v: number): number => Math.round((v + 0.1 * slip.normal()) * 100) / 100;
    const lab = { L: noisy(dry.L), a: noisy(dry.a), b: noisy(dry.b) };
    return {
      recorded,
      readings: [
        { state: 'wet', lab: { L: lab.L * 0.86, a: lab.a * 1.14, b: lab.b * 1.12 } },
        { state: 'dry', lab },
      ],
      truth: { dry },
    };
  };
  const shelf = (on: string, id: string): string[] =>
    (jarsOf.get(id) ?? [])
      .filter((j) => j.receivedOn <= on)
      .slice(-2)
      .map((j) => j.id);
  const lotDay = (n: number): number => BEGIN + ((n + 0.5) / 40) * 2.6 * YEAR;
  const asLot = (c: (typeof colourways)[number], on: string, pick: ReturnType<typeof seeded>): Dyeing => ({
    purpose: 'lot',
    colourwayId: c.id,
    on,
    baseId: c.baseId,
    baseLotId: `${c.baseId}-lot-${1 + (Math.floor(((Date.parse(on) - BEGIN) / (2.8 * YEAR)) * 3) % 3)}`,
    fibreG: 1000,
    doses: c.doses.map((d): Dose => ({ ...d, stockLotId: shelf(on, d.materialId).at(-1) ?? `${d.materialId}/1` })),
    courses: c.courses,
    waterId: pick.uniform() < 0.75 ? 'tap' : 'rain',
    vesselId: pick.uniform() < 0.96 ? 'large' : 'dented',
    liquorRatio: c.liquorRatio,
    dip: 1,
  });
  const colourwayAt = (pick: ReturnType<typeof seeded>): (typeof colourways)[number] =>
    colourways[Math.floor(pick.uniform() * colourways.length)] as (typeof colourways)[number];

  return {
    setting,
    dye: (ask, attempt) => outcome(ask, `${JSON.stringify(ask)}/${attempt}`),
    history: (lots) => {
      const past: PastDyeing[] = [];
      const weld = colourways[0] as (typeof colourways)[number];
      for (const share of [0.25, 0.5, 1, 1.5, 2]) {
        const asked: Dyeing = {
          ...asLot(weld, iso(BEGIN), seeded(1)),
          purpose: 'strip',
          colourwayId: null,
          vesselId: 'large',
          waterId: 'tap',
        };
        const ladder = {
          ...asked,
          doses: asked.doses.map((d) => (d.materialId === 'weld' ? { ...d, percentOwf: d.percentOwf * share } : d)),
        };
        past.push({ id: `strip-${share}`, asked: ladder, ...outcome(ladder, `strip-${share}`) });
      }
      for (let n = 0; n < lots; n += 1) {
        const pick = seeded(hash(`${seed}/lot/${n}`));
        const asked = asLot(colourwayAt(pick), iso(lotDay(n)), pick);
        past.push({ id: `lot-${n}`, asked, ...outcome(asked, `lot-${n}`) });
      }
      return past;
    },
    orders: (lots, count) =>
      Array.from({ length: count }, (_, n): Order => {
        const pick = seeded(hash(`${seed}/order/${lots}/${n}`));
        const on = iso(lotDay(lots) + (10 + 250 * pick.uniform()) * DAY);
        const c = colourwayAt(pick);
        const { fibreG, baseLotId, waterId, liquorRatio } = asLot(c, on, pick);
        return {
          colourwayId: c.id,
          on,
          fibreG,
          baseLotId,
          waterId,
          vesselId: 'large',
          liquorRatio,
          stockLotIds: Object.fromEntries([...jarsOf.keys()].map((id) => [id, shelf(on, id)])),
        };
      }),
    limit: (order) => {
      const c = colourways.find((x) => x.id === order.colourwayId) as (typeof colourways)[number];
      const standard = masters.get(c.id) ?? NO_LUCK;
      const by = (doses: readonly Dose[], waterId: string) => (x: readonly number[]) =>
        deltaE00(
          standard,
          dyeTrue(
            {
              ...order,
              purpose: 'lot',
              baseId: c.baseId,
              courses: c.courses,
              dip: 1,
              waterId,
              doses: doses.map((d, i) => ({ ...d, percentOwf: d.percentOwf * Math.exp(x[i] ?? 0) })),
            },
            NO_LUCK,
          ),
        );
      const own = c.doses.map((d): Dose => ({ ...d, stockLotId: order.stockLotIds[d.materialId]?.at(-1) ?? '' }));
      const doses = lowest(
        own.map(() => 0),
        0.2,
        by(own, order.waterId),
      ).value;
      let allLevers = doses;
      for (const water of ['tap', 'rain'])
        for (const s of STUFFS) {
          const also: Dose[] = c.doses.some((d) => d.materialId === s.id)
            ? own
            : [
                ...own,
                {
                  stage: 'dye',
                  materialId: s.id,
                  percentOwf: s.percent * 0.03,
                  stockLotId: order.stockLotIds[s.id]?.at(-1) ?? '',
                },
              ];
          allLevers = Math.min(
            allLevers,
            lowest(
              also.map(() => 0),
              0.4,
              by(also, water),
            ).value,
          );
        }
      return { doses, allLevers };
    },
  };
}

const saltgrass: World = { name: 'saltgrass', create };
export default saltgrass;
