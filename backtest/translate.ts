import type { Dyeing, KnownStrength, MeasuredColour, Observation } from '@vestigia/core';
import type { Dyeing as WorldDyeing, Lab, Order, PastDyeing, Reading, Setting } from './world';

const YEAR_MS = 365.25 * 86_400_000;

/** What a world tells, in the words of the studio’s record. */
export interface Translator {
  dyeing(asked: WorldDyeing): Dyeing;
  past(past: PastDyeing, day?: string): Observation[];
  order(order: Order): WorldDyeing;
  readonly strengths: readonly KnownStrength[];
  /** Each colourway as its recipe gives it from the reference jars. */
  readonly masters: readonly Observation[];
}

const measured = (lab: Lab, reflectance: readonly number[] | undefined): MeasuredColour => ({
  lab,
  spectrum: reflectance ?? null,
});

/** The reading a shade is known by: dry, else cured. */
const dryOf = (readings: readonly Reading[]): Reading | undefined =>
  readings.find((r) => r.state === 'dry') ?? readings.find((r) => r.state === 'cured');

export function translator(setting: Setting): Translator {
  const materials = new Map(setting.materials.map((m) => [m.id, m]));
  const jars = new Map(setting.materials.flatMap((m) => m.stockLots.map((j) => [j.id, j])));
  const bases = new Map(setting.bases.map((b) => [b.id, b]));
  const waters = new Map(setting.waters.map((w) => [w.id, w]));
  const vessels = new Map(setting.vessels.map((v) => [v.id, v]));
  const colourways = new Map(setting.colourways.map((c) => [c.id, c]));

  const dyeing = (asked: WorldDyeing): Dyeing => {
    const base = bases.get(asked.baseId);
    const lot = base?.lots.find((l) => l.id === asked.baseLotId);
    const water = waters.get(asked.waterId);
    if (!base || !lot || !water) throw new Error('the world asks for a base or a water that its setting doesn’t have');
    return {
      colourwayId: asked.colourwayId,
      purpose: asked.purpose,
      fibre: base.fibre,
      baseId: asked.baseId,
      baseLotId: asked.baseLotId,
      undyed: measured(lot.undyed, lot.undyedReflectance),
      doses: asked.doses.map((d) => ({
        stage: d.stage,
        materialId: d.materialId,
        role: materials.get(d.materialId)?.kind ?? 'assistant',
        stockLotId: d.stockLotId,
        percentOwf: d.percentOwf,
        ageYears: Math.max(
          0,
          (Date.parse(asked.on) - Date.parse(jars.get(d.stockLotId)?.receivedOn ?? asked.on)) / YEAR_MS,
        ),
      })),
      courses: asked.courses,
      water,
      metal: vessels.get(asked.vesselId)?.metal ?? 'steel',
      liquorRatio: asked.liquorRatio,
      dip: asked.dip,
    };
  };
  return {
    dyeing,
    past: ({ id, recorded, readings }, day) => {
      const dry = dryOf(readings);
      return dry
        ? [{ id, dyeing: dyeing(recorded), colour: measured(dry.lab, dry.reflectance), day: day ?? null }]
        : [];
    },
    order: (order) => {
      const c = colourways.get(order.colourwayId);
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
    // Strengths are told against the first lot of each material.
    strengths: setting.materials.flatMap((m) =>
      m.stockLots.flatMap((j, i) =>
        i === 0
          ? [{ stockLotId: j.id, percent: 100, isReference: true }]
          : j.knownStrengthPercent === null
            ? []
            : [{ stockLotId: j.id, percent: j.knownStrengthPercent }],
      ),
    ),
    masters: setting.colourways.map((c): Observation => {
      const [lot] = bases.get(c.baseId)?.lots ?? [];
      const [water] = setting.waters;
      const first = (materialId: string): string => materials.get(materialId)?.stockLots[0]?.id ?? '';
      return {
        id: `master of ${c.id}`,
        dyeing: dyeing({
          purpose: 'lot',
          colourwayId: c.id,
          on: '1970-01-01',
          baseId: c.baseId,
          baseLotId: lot?.id ?? '',
          fibreG: 1000,
          doses: c.doses.map((d) => ({ ...d, stockLotId: first(d.materialId) })),
          courses: c.courses,
          waterId: water?.id ?? '',
          vesselId: setting.vessels.find((v) => v.metal === 'steel')?.id ?? '',
          liquorRatio: c.liquorRatio,
          dip: c.dip,
        }),
        colour: measured(c.master, c.masterReflectance),
        day: null,
        isMaster: true,
      };
    }),
  };
}
