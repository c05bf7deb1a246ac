import type { MatchRecord } from '@vestigia/contract';
import type { Dyeing, Observation, ReorderWay, ShelfMaterial } from '@vestigia/core';
import {
  ageOn,
  factsOfRecord,
  groundOf,
  metalToMatch,
  observationsOf,
  underOurLight,
  usualDoses,
  waterToMatch,
} from '@vestigia/core';
import type { Ids } from './ids';
import { dayOf, fibresOf, metalOf, under } from './studio-rows';
import type { Dyeing as WorldDyeing, Order, Outcome, Setting } from './world';

/** Between what a world says and what the product keeps and asks. */
export interface Translator {
  readonly readings: readonly Observation[];
  /** What a world asks to be dyed, as the match is asked about it. */
  dyeing(asked: WorldDyeing): Dyeing;
  /** What came out, read dry. */
  observed(id: string, outcome: Outcome): Observation | undefined;
  /** The recipe out of the newest jars there are. */
  order(order: Order): WorldDyeing;
  shelf(order: Order): ShelfMaterial[];
  readonly waters: readonly Dyeing['water'][];
  /** A way as the world is asked for it. */
  asked(plan: WorldDyeing, way: Pick<ReorderWay, 'doses' | 'courses' | 'waterId'>): WorldDyeing;
}

/** @param record what the product made of the world’s past */
export function translator(setting: Setting, record: MatchRecord, ids: Ids): Translator {
  const facts = factsOfRecord(record);
  const readings = observationsOf(record.readings);
  const waters = new Map(record.waters.map((w) => [w.id, waterToMatch(w)]));
  const usual = usualDoses(readings);
  const kindOf = new Map(setting.materials.map((m) => [m.id, m.kind]));
  const atOf = (on: string): string => `${dayOf(on)}T08:00:00.000Z`;
  const fibres = fibresOf(setting);

  const dyeing = (asked: WorldDyeing): Dyeing => {
    const base = setting.bases.find((b) => b.id === asked.baseId);
    const [baseId, baseLotId] = [ids.of('base', asked.baseId), ids.of('jar', asked.baseLotId)];
    const undyed = groundOf(facts, baseId, baseLotId);
    const water = waters.get(ids.of('water', asked.waterId));
    if (!base || !undyed || !water)
      throw new Error('the world asks for a base or a water that its setting doesn’t have');
    return {
      colourwayId: asked.colourwayId === null ? null : ids.of('colourway', asked.colourwayId),
      purpose: asked.purpose,
      fibre: fibres.get(base.fibre) ?? 'wool',
      baseId,
      baseLotId,
      undyed,
      doses: asked.doses.map((d) => {
        const stockLotId = ids.of('jar', d.stockLotId);
        return {
          stage: d.stage,
          materialId: ids.of('material', d.materialId),
          role: kindOf.get(d.materialId) ?? 'assistant',
          stockLotId,
          percentOwf: d.percentOwf,
          ageYears: ageOn(atOf(asked.on), facts.receivedOn.get(stockLotId)),
        };
      }),
      courses: asked.courses,
      water,
      metal: metalToMatch(metalOf(setting.vessels.find((v) => v.id === asked.vesselId)?.metal ?? '')),
      liquorRatio: asked.liquorRatio,
      dip: asked.dip,
    };
  };
  return {
    readings,
    dyeing,
    waters: [...waters.values()],
    observed: (id, { recorded, readings: read }) => {
      const dry = read.find((r) => r.state === 'dry') ?? read.find((r) => r.state === 'cured');
      const colour = dry && underOurLight(under(dry.lab), dry.reflectance ?? null);
      return colour && { id, dyeing: dyeing(recorded), colour, day: null };
    },
    order: (order) => {
      const c = setting.colourways.find((x) => x.id === order.colourwayId);
      if (!c) throw new Error('the world orders a colourway that its setting doesn’t have');
      return {
        purpose: 'lot',
        colourwayId: order.colourwayId,
        on: order.on,
        baseId: c.baseId,
        baseLotId: order.baseLotId,
        fibreG: order.fibreG,
        doses: c.doses.map((d) => ({ ...d, stockLotId: order.stockLotIds[d.materialId]?.at(-1) ?? '' })),
        courses: c.courses,
        waterId: order.waterId,
        vesselId: order.vesselId,
        liquorRatio: order.liquorRatio,
        dip: c.dip,
      };
    },
    shelf: ({ on, stockLotIds }) =>
      setting.materials.flatMap((m) => {
        const materialId = ids.of('material', m.id);
        const usualPercent = usual.get(materialId);
        const jars = (stockLotIds[m.id] ?? []).map((name) => {
          const stockLotId = ids.of('jar', name);
          return { stockLotId, ageYears: ageOn(atOf(on), facts.receivedOn.get(stockLotId)) };
        });
        return usualPercent === undefined || jars.length === 0
          ? []
          : [{ materialId, role: m.kind, jars, usualPercent }];
      }),
    asked: (plan, way) => ({
      ...plan,
      doses: way.doses.map(({ stage, materialId, stockLotId, percentOwf }) => ({
        stage,
        materialId: ids.nameOf(materialId),
        stockLotId: ids.nameOf(stockLotId),
        percentOwf,
      })),
      courses: way.courses,
      waterId: way.waterId === null ? plan.waterId : ids.nameOf(way.waterId),
    }),
  };
}
