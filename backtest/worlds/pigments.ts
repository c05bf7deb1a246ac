import { seeded } from '../../core/photo/seeded';
import type { Dose, Dyehouse, Dyeing, Lab, Order, Outcome, PastDyeing, Reading, Setting, Stage, World } from '../world';
import { BANDS, labOf, ksOf, reflectanceOf, deltaE00 } from './light';
import { lowest } from './search';

/**
 * A dyehouse of another physics than the match assumes. Every dyestuff is a bright and a dull pigment with bands of their
 * own, which age differently in the jar; they compete for the sites that the mordant left on the fibre (Langmuir), go on
 * by Arrhenius’ law, and are turned by the ions of the water. Half of the seeds own a reader that gives L*a*b* only.
 */

interface Pigment {
  readonly centreNm: number;
  readonly widthNm: number;
  readonly tail: number;
}
interface Stuff {
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
interface Jar {
  readonly id: string;
  readonly receivedOn: string;
  readonly strength: number;
  readonly dull: number;
  readonly told: number | null;
}
interface BaseLot {
  readonly id: string;
  readonly ks: readonly number[];
  readonly sites: number;
}
interface Hidden {
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

const DAY = 86_400_000;
const iso = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
const BEGIN = Date.UTC(2021, 2, 1);
const YEAR = 365.25 * DAY;
const NAMES = ['goldenrod', 'madder', 'cutch', 'weld', 'walnut', 'logwood', 'cochineal'];
const FIBRES = ['wool', 'linen', 'silk'];

function hash(text: string): number {
  let h = 2166136261;
  for (let i = 0; i < text.length; i += 1) h = Math.imul(h ^ text.charCodeAt(i), 16777619);
  return h >>> 0;
}

const absorption = ({ centreNm, widthNm, tail }: Pigment, shift: number): number[] =>
  BANDS.map(
    (nm) =>
      Math.exp(-0.5 * ((nm - centreNm - shift) / widthNm) ** 2) +
      0.6 * Math.exp(-0.5 * ((nm - centreNm - shift + 80) / (widthNm * 1.3)) ** 2) +
      tail * Math.exp(-(nm - 400) / 120),
  );

function create(seed: number): Dyehouse {
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

  const courses = (dyeMinutes: number, dyeC: number, modified: boolean): Dyeing['courses'] => [
    {
      stage: 'mordant',
      points: [
        { minute: 0, celsius: 25 },
        { minute: 45, celsius: 80 },
        { minute: 105, celsius: 80 },
      ],
    },
    {
      stage: 'dye',
      points: [
        { minute: 0, celsius: 30 },
        { minute: 40, celsius: dyeC },
        { minute: 40 + dyeMinutes, celsius: dyeC },
      ],
    },
    ...(modified
      ? [
          {
            stage: 'modifier' as const,
            points: [
              { minute: 0, celsius: 40 },
              { minute: 10, celsius: 40 },
            ],
          },
        ]
      : []),
  ];

  const colourways = Array.from({ length: 6 }, (_, i) => {
    const fibre = FIBRES[i % 3] ?? 'wool';
    const first = stuffs[i % stuffs.length] as Stuff;
    const second = stuffs[(i + 2 + Math.floor(random.uniform() * 3)) % stuffs.length] as Stuff;
    const modified = i === 2 || i === 5;
    const doses: Setting['colourways'][number]['doses'] = [
      { stage: 'mordant', materialId: 'alum', percentOwf: Math.round(between(8, 16)) },
      { stage: 'dye', materialId: first.id, percentOwf: Math.round(first.usual * between(0.6, 1.3)) },
      ...(i % 2 === 1 && second.id !== first.id
        ? [{ stage: 'dye' as const, materialId: second.id, percentOwf: Math.round(second.usual * between(0.15, 0.5)) }]
        : []),
      ...(modified
        ? [{ stage: 'modifier' as const, materialId: 'iron', percentOwf: Math.round(between(5, 20)) / 10 }]
        : []),
    ];
    return {
      id: `colourway-${i + 1}`,
      name: `Colourway ${i + 1}`,
      baseId: `base-${fibre}`,
      toleranceDeltaE00: 2,
      doses,
      courses: courses(Math.round(between(45, 75)), Math.round(between(75, 90)), modified),
      liquorRatio: 30,
      dip: i === 4 ? 2 : 1,
    };
  });

  const luckOf = (key: string): { uptake: number; hue: number } => {
    const luck = seeded(hash(`${seed}/${key}`));
    return { uptake: Math.exp(0.014 * luck.normal()), hue: Math.exp(0.02 * luck.normal()) };
  };
  /** The true spectrum that comes out. */
  const dyeTrue = (d: Dyeing, luck: { uptake: number; hue: number }): number[] => {
    const base = hidden.bases.get(d.baseId);
    const lot = base?.lots.find((l) => l.id === d.baseLotId);
    const water = hidden.waters.find((w) => w.id === d.waterId);
    if (!base || !lot || !water) throw new Error('this dyehouse has no such base or water');
    const minutesAt = (stage: Stage, rate: number, heat: number): number => {
      const points = d.courses.find((c) => c.stage === stage)?.points ?? [];
      let sum = 0;
      for (let i = 1; i < points.length; i += 1) {
        const [from, to] = [points[i - 1], points[i]];
        if (!from || !to) continue;
        for (let k = 0; k < 10; k += 1) {
          const kelvin = 273.15 + from.celsius + ((to.celsius - from.celsius) * (k + 0.5)) / 10;
          sum += ((to.minute - from.minute) / 10) * rate * Math.exp((-heat / 8.314e-3) * (1 / kelvin - 1 / 353.15));
        }
      }
      return 1 - Math.exp(-sum);
    };
    const mordantDose = d.doses
      .filter((x) => x.stage === 'mordant')
      .reduce((sum, x) => sum + x.percentOwf * (hidden.jars.get(x.stockLotId)?.strength ?? 1), 0);
    const sites =
      base.take *
      lot.sites *
      (0.25 + (0.9 * mordantDose) / (mordantDose + 7)) *
      (0.4 + 0.6 * minutesAt('mordant', 0.03, 40));
    const chalk = d.doses.filter((x) => x.materialId === 'chalk').reduce((sum, x) => sum + x.percentOwf, 0);
    const hardness = (water.hardnessDh + chalk * 4) / 10;
    const laid = d.doses
      .filter((x) => x.stage === 'dye' && x.materialId.startsWith('dye-') && x.percentOwf > 0)
      .map((x) => {
        const stuff = stuffs.find((s) => s.id === x.materialId) as Stuff;
        const jar = hidden.jars.get(x.stockLotId) as Jar;
        const years = Math.max(0, Date.parse(d.on) - Date.parse(jar.receivedOn)) / YEAR;
        const bright = jar.strength * Math.exp(-stuff.fades * years);
        const dull = stuff.dullShare * jar.strength * jar.dull * (1 + 0.25 * years * stuff.fades * 4);
        const bath = (x.percentOwf / stuff.usual) * (30 / d.liquorRatio) ** 0.25;
        const left = (0.45 + 0.1 * stuff.binding) ** (d.dip - 1) * (d.dip > 1 ? 0.85 : 1);
        const went = minutesAt('dye', stuff.rate, stuff.heat);
        const ions = Math.exp(stuff.hardness * (hardness - 1) + stuff.ph * (water.ph - 7));
        return { stuff, bright: bath * bright * left * ions * went, dull: bath * dull * left * went, water };
      });
    const wants = laid.reduce((sum, l) => sum + l.stuff.binding * (l.bright + 0.5 * l.dull), 0);
    const room = (sites * luck.uptake * 1.6) / (1.1 + wants);
    const ironStage = d.doses
      .filter((x) => x.materialId === 'iron')
      .reduce((sum, x) => sum + x.percentOwf * (hidden.jars.get(x.stockLotId)?.strength ?? 1), 0);
    const iron =
      (ironStage / (ironStage + 1.5)) * (ironStage > 0 ? 0.5 + 0.5 * minutesAt('modifier', 0.3, 30) : 0) +
      water.ironMgPerL * 0.12;
    const metal = hidden.metals.get(d.vesselId);
    const ks = lot.ks.map((k) => k);
    for (const l of laid) {
      const saddened = Math.min(0.85, iron * l.stuff.iron);
      const shift = l.stuff.phShiftNm * (l.water.ph - 7) + 14 * saddened + (metal === 'aluminium' ? -2 : 0);
      const [bright, dull] = [absorption(l.stuff.bright, shift), absorption(l.stuff.dull, 0)];
      for (let c = 0; c < BANDS.length; c += 1) {
        const own = l.stuff.power * room * (metal === 'aluminium' ? 1.04 : 1);
        const clear = own * l.bright * (1 - 0.55 * saddened) * (bright[c] ?? 0);
        const brown = own * (l.dull * luck.hue + 0.45 * saddened * l.bright) * (dull[c] ?? 0) * 0.8;
        const black = own * saddened * l.bright * 0.16;
        ks[c] = (ks[c] ?? 0) + clear + brown + black;
      }
    }
    return ks.map((k) => reflectanceOf(k + iron * 0.04));
  };

  const read = (state: Reading['state'], truth: readonly number[], key: string): Reading => {
    const reader = seeded(hash(`${seed}/reader/${key}/${state}`));
    const wet = state === 'wet' ? 1.55 : 1;
    const tilt = 0.006 * reader.normal();
    const level = 0.006 * reader.normal();
    const seen = truth.map((r, i) => {
      const k = ksOf(r) * wet;
      const clean = reflectanceOf(k);
      return Math.min(1, Math.max(0.003, clean * (1 + level + tilt * ((i - 15) / 15)) + 0.0012 * reader.normal()));
    });
    return {
      state,
      lab: labOf(seen),
      ...(spectral ? { reflectance: seen.map((r) => Math.round(r * 1e5) / 1e5) } : {}),
    };
  };

  /** What really went in, and what the record has of it. */
  const slipped = (asked: Dyeing, key: string): { really: Dyeing; recorded: Dyeing } => {
    const slip = seeded(hash(`${seed}/slip/${key}`));
    const doses = asked.doses.map((d) => ({ ...d, percentOwf: d.percentOwf * Math.exp(0.015 * slip.normal()) }));
    const late = 1 + 0.04 * slip.normal();
    const warm = 1.2 * slip.normal();
    const run = asked.courses.map((c) => ({
      ...c,
      points: c.points.map((p) => ({ minute: p.minute * late, celsius: p.celsius + (p.celsius > 45 ? warm : 0) })),
    }));
    const really = { ...asked, doses, courses: run };
    return {
      really,
      recorded: {
        ...really,
        doses: doses.map((d) => ({ ...d, percentOwf: d.percentOwf * Math.exp(0.004 * slip.normal()) })),
        courses: run.map((c) => ({
          ...c,
          points: c.points.map((p) => ({ minute: Math.round(p.minute), celsius: Math.round(p.celsius) })),
        })),
      },
    };
  };
  const outcome = (
    asked: Dyeing,
    key: string,
    states: readonly Reading['state'][],
  ): Outcome & { readings: Reading[] } => {
    const { really, recorded } = slipped(asked, key);
    const truth = dyeTrue(really, luckOf(key));
    return { recorded, readings: states.map((s) => read(s, truth, key)), truth: { dry: labOf(truth) } };
  };

  const NO_LUCK = { uptake: 1, hue: 1 };
  const shelfOn = (on: string, materialId: string): Jar[] =>
    (jarsOf.get(materialId) ?? []).filter((j) => j.receivedOn <= on).slice(-2);
  const newest = (on: string, materialId: string): string => shelfOn(on, materialId).at(-1)?.id ?? `${materialId}/1`;
  const masterOf = (c: (typeof colourways)[number]): readonly number[] => {
    const fibre = bases.get(c.baseId);
    return dyeTrue(
      {
        purpose: 'lot',
        colourwayId: c.id,
        on: iso(BEGIN),
        baseId: c.baseId,
        baseLotId: fibre?.lots[0]?.id ?? '',
        fibreG: 1000,
        doses: c.doses.map((d) => ({ ...d, stockLotId: `${d.materialId}/1` })),
        courses: c.courses,
        waterId: 'tap',
        vesselId: 'pot-1',
        liquorRatio: c.liquorRatio,
        dip: c.dip,
      },
      NO_LUCK,
    );
  };
  const masters = new Map(colourways.map((c) => [c.id, masterOf(c)]));
  const masterLab = (id: string): Lab => labOf(masters.get(id) ?? []);

  const setting: Setting = {
    bases: [...bases].map(([id, b]) => ({
      id,
      name: b.fibre,
      fibre: b.fibre,
      lots: b.lots.map((l) => {
        const undyed = l.ks.map(reflectanceOf);
        return { id: l.id, undyed: labOf(undyed), ...(spectral ? { undyedReflectance: undyed } : {}) };
      }),
    })),
    materials: MATERIALS.map(([id]) => ({
      id,
      name: stuffs.find((s) => s.id === id)?.name ?? id,
      kind: id === 'alum' ? 'mordant' : id === 'iron' ? 'modifier' : id === 'chalk' ? 'assistant' : 'dyestuff',
      stockLots: (jarsOf.get(id) ?? []).map((j) => ({
        id: j.id,
        receivedOn: j.receivedOn,
        knownStrengthPercent: j.told,
      })),
    })),
    waters,
    vessels,
    colourways: colourways.map((c) => ({
      ...c,
      master: masterLab(c.id),
      ...(spectral ? { masterReflectance: [...(masters.get(c.id) ?? [])] } : {}),
    })),
    reader: { spectral, repeatabilityDeltaE00: 0.2 },
  };

  const lastDay = (lots: number): number => BEGIN + (lots / 40) * 3.2 * YEAR;
  const asLot = (
    c: (typeof colourways)[number],
    on: string,
    rest: Partial<Dyeing>,
    pick: ReturnType<typeof seeded>,
  ): Dyeing => ({
    purpose: 'lot',
    colourwayId: c.id,
    on,
    baseId: c.baseId,
    baseLotId: bases.get(c.baseId)?.lots[Math.floor(((Date.parse(on) - BEGIN) / (3.4 * YEAR)) * 4) % 4]?.id ?? '',
    fibreG: 1000,
    doses: c.doses.map((d): Dose => ({ ...d, stockLotId: newest(on, d.materialId) })),
    courses: c.courses,
    waterId: pick.uniform() < 0.65 ? 'tap' : pick.uniform() < 0.5 ? 'rain' : 'well',
    vesselId: pick.uniform() < 0.8 ? 'pot-1' : pick.uniform() < 0.6 ? 'pot-2' : 'pot-3',
    liquorRatio: c.liquorRatio * (pick.uniform() < 0.7 ? 1 : 0.8 + 0.5 * pick.uniform()),
    dip: c.dip,
    ...rest,
  });

  const history = (lots: number): PastDyeing[] => {
    const past: PastDyeing[] = [];
    const put = (asked: Dyeing, key: string, states: readonly Reading['state'][]): void => {
      const { recorded, readings } = outcome(asked, key, states);
      past.push({ id: key, asked, recorded, readings });
    };
    // Before anything was promised: a ladder of each dyestuff on wool.
    const strips = seeded(seed + 5);
    for (const s of stuffs.slice(0, Math.min(stuffs.length, 2 + Math.floor(lots / 4))))
      for (const share of [0.3, 1, 1.8])
        put(
          {
            purpose: 'strip',
            colourwayId: null,
            on: iso(BEGIN),
            baseId: 'base-wool',
            baseLotId: 'wool-lot-1',
            fibreG: 10,
            doses: [
              { stage: 'mordant', materialId: 'alum', percentOwf: 12, stockLotId: 'alum/1' },
              { stage: 'dye', materialId: s.id, percentOwf: s.usual * share, stockLotId: `${s.id}/1` },
            ],
            courses: courses(60, 82, false),
            waterId: 'tap',
            vesselId: 'pot-2',
            liquorRatio: 40,
            dip: 1,
          },
          `strip-${s.id}-${share}`,
          ['dry'],
        );
    for (let n = 0; n < lots; n += 1) {
      const pick = seeded(hash(`${seed}/lot/${n}`));
      const c = colourways[Math.floor(pick.uniform() * colourways.length)] as (typeof colourways)[number];
      const on = iso(BEGIN + ((n + 0.5) / 40) * 3.2 * YEAR);
      const asked = asLot(c, on, {}, pick);
      // Now and then somebody changed a dose on purpose.
      const changed =
        pick.uniform() < 0.3
          ? {
              ...asked,
              doses: asked.doses.map((d) => ({ ...d, percentOwf: d.percentOwf * Math.exp(0.15 * pick.normal()) })),
            }
          : asked;
      put(changed, `lot-${n}`, pick.uniform() < 0.4 ? ['wet', 'dry'] : ['dry']);
    }
    return past;
  };

  const orders = (lots: number, count: number): Order[] =>
    Array.from({ length: count }, (_, n) => {
      const pick = seeded(hash(`${seed}/order/${lots}/${n}`));
      const on = iso(lastDay(lots) + (20 + 300 * pick.uniform()) * DAY);
      const c = colourways[Math.floor(pick.uniform() * colourways.length)] as (typeof colourways)[number];
      const asked = asLot(c, on, {}, pick);
      return {
        colourwayId: c.id,
        on,
        fibreG: 1000,
        baseLotId: asked.baseLotId,
        waterId: asked.waterId,
        vesselId: asked.vesselId,
        liquorRatio: asked.liquorRatio,
        stockLotIds: Object.fromEntries(MATERIALS.map(([id]) => [id, shelfOn(on, id).map((j) => j.id)])),
      };
    });

  const limit = (order: Order): { doses: number; allLevers: number } => {
    const c = colourways.find((x) => x.id === order.colourwayId) as (typeof colourways)[number];
    const standard = masterLab(c.id);
    const ask = (doses: readonly Dose[], waterId: string): Dyeing => ({
      ...order,
      purpose: 'lot',
      baseId: c.baseId,
      doses,
      courses: c.courses,
      waterId,
      dip: c.dip,
    });
    const usual = c.doses.map((d): Dose => ({ ...d, stockLotId: order.stockLotIds[d.materialId]?.at(-1) ?? '' }));
    const by = (factors: readonly number[], all: readonly Dose[], waterId: string): number =>
      deltaE00(
        standard,
        labOf(
          dyeTrue(
            ask(
              all.map((d, i) => ({ ...d, percentOwf: d.percentOwf * Math.exp(factors[i] ?? 0) })),
              waterId,
            ),
            NO_LUCK,
          ),
        ),
      );
    const doses = lowest(
      usual.map(() => 0),
      0.2,
      (x) => by(x, usual, order.waterId),
    ).value;
    let allLevers = doses;
    for (const water of waters) {
      const also: Dose[] = c.doses.flatMap((d) =>
        (order.stockLotIds[d.materialId] ?? []).map((stockLotId): Dose => ({
          ...d,
          stockLotId,
          percentOwf: d.percentOwf / (order.stockLotIds[d.materialId]?.length ?? 1),
        })),
      );
      const found = lowest(
        also.map(() => 0),
        0.4,
        (x) => by(x, also, water.id),
      ).value;
      allLevers = Math.min(allLevers, found);
      for (const s of stuffs.filter((x) => !c.doses.some((d) => d.materialId === x.id))) {
        const shaded: Dose[] = [
          ...also,
          {
            stage: 'dye',
            materialId: s.id,
            percentOwf: s.usual * 0.03,
            stockLotId: order.stockLotIds[s.id]?.at(-1) ?? '',
          },
        ];
        allLevers = Math.min(
          allLevers,
          lowest(
            shaded.map(() => 0),
            0.4,
            (x) => by(x, shaded, water.id),
          ).value,
        );
      }
    }
    return { doses, allLevers };
  };

  return {
    setting,
    history,
    orders,
    limit,
    dye: (ask, attempt) => outcome(ask, `${JSON.stringify(ask)}/${attempt}`, ['wet', 'dry']),
  };
}

const pigments: World = { name: 'pigments', create };
export default pigments;
