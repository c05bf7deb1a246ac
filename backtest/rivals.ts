import { deltaE00 } from './worlds/light';
import type { Dyeing, Order, PastDyeing, Setting } from './world';

/** Plain ways to dye a reorder, to be beaten. */
export interface Rivals {
  readonly lastLot: Dyeing;
  readonly strengthOnly: Dyeing;
  readonly nearest: Dyeing;
}

/** Doses and courses of a past lot, out of today’s jars. */
const repeated = (plan: Dyeing, { recorded }: PastDyeing): Dyeing => ({
  ...plan,
  doses: plan.doses.map((d) => {
    const then = recorded.doses.filter((x) => x.materialId === d.materialId && x.stage === d.stage);
    return then.length === 0 ? d : { ...d, percentOwf: then.reduce((sum, x) => sum + x.percentOwf, 0) };
  }),
  courses: recorded.courses,
});

/** The recipe with whatever a rival would do to it. */
export function rivals(setting: Setting, past: readonly PastDyeing[], order: Order, plan: Dyeing): Rivals {
  const own = past.filter((p) => p.recorded.colourwayId === order.colourwayId && p.recorded.purpose === 'lot');
  const master = setting.colourways.find((c) => c.id === order.colourwayId)?.master;
  const far = (p: PastDyeing): number => {
    const dry = p.readings.find((r) => r.state === 'dry') ?? p.readings.at(-1);
    return dry && master ? deltaE00(master, dry.lab) : Infinity;
  };
  const last = own.at(-1);
  const nearest = own.reduce<PastDyeing | undefined>((best, p) => (best && far(best) <= far(p) ? best : p), undefined);
  const told = new Map(setting.materials.flatMap((m) => m.stockLots.map((j) => [j.id, j.knownStrengthPercent])));
  return {
    lastLot: last ? repeated(plan, last) : plan,
    nearest: nearest ? repeated(plan, nearest) : plan,
    strengthOnly: {
      ...plan,
      doses: plan.doses.map((d) => ({ ...d, percentOwf: (d.percentOwf * 100) / (told.get(d.stockLotId) ?? 100) })),
    },
  };
}
