import { seeded } from '../../core/photo/seeded';
import type { Dose, Dyehouse, Dyeing, Lab, Order, Outcome, PastDyeing, Reading, Setting, World } from '../world';
import { hash } from './hash';
import { deltaE00, ksOf, labOf, reflectanceOf } from './light';
import { dyeTrue } from './pigment-dyeing';
import type { Jar, Stuff } from './pigment-stock';
import { BEGIN, DAY, FIBRES, YEAR, iso, stockOf } from './pigment-stock';
import { lowest } from './search';

/**
 * A dyehouse of another physics than the match assumes. Every dyestuff is a bright and a dull pigment with bands of their
 * own, which age differently in the jar; they compete for the sites that the mordant left on the fibre (Langmuir), go on
 * by Arrhenius’ law, and are turned by the ions of the water. Half of the seeds own a reader that gives L*a*b* only.
 */

function create(seed: number): Dyehouse {
  const { random, between, hidden, vessels, materials } = stockOf(seed);
  const { stuffs, jarsOf, bases, waters, spectral } = hidden;
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
    const truth = dyeTrue(hidden, really, luckOf(key));
    return { recorded, readings: states.map((s) => read(s, truth, key)), truth: { dry: labOf(truth) } };
  };

  const NO_LUCK = { uptake: 1, hue: 1 };
  const shelfOn = (on: string, materialId: string): Jar[] =>
    (jarsOf.get(materialId) ?? []).filter((j) => j.receivedOn <= on).slice(-2);
  const newest = (on: string, materialId: string): string => shelfOn(on, materialId).at(-1)?.id ?? `${materialId}/1`;
  const masterOf = (c: (typeof colourways)[number]): readonly number[] => {
    const fibre = bases.get(c.baseId);
    return dyeTrue(
      hidden,
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
    materials: materials.map(([id]) => ({
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
        stockLotIds: Object.fromEntries(materials.map(([id]) => [id, shelfOn(on, id).map((j) => j.id)])),
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
            hidden,
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
