import type { Correction, Dyeing, Observation, Posterior, ShelfMaterial } from '@vestigia/core';
import {
  broadChannels,
  correct,
  isStrikeOffWorth,
  learn,
  learnMore,
  predict,
  spectralChannels,
  wayToStrikeOff,
} from '@vestigia/core';
import { rivals } from './rivals';
import type { Scored } from './score';
import type { Translator } from './translate';
import { translator } from './translate';
import type { Dyehouse, Dyeing as WorldDyeing, Order, PastDyeing } from './world';
import { deltaE00 } from './worlds/light';

const DAY = 'the day of the order';
const YEAR_MS = 365.25 * 86_400_000;
/** The luck of what is dyed unchanged, corrected, and corrected after a strike-off; and of that. */
const ATTEMPTS = { unchanged: 1, corrected: 2, strikeOff: 3, struckOff: 4, rival: 5 } as const;

/** What is learnt from a dyehouse’s past. */
export function learnPast(
  house: Dyehouse,
  past: readonly PastDyeing[],
): { translate: Translator; posterior: Posterior; readings: Observation[] } {
  const translate = translator(house.setting);
  const readings = [...translate.masters, ...past.flatMap((p) => translate.past(p))];
  const space = house.setting.reader.spectral ? spectralChannels() : broadChannels();
  return { translate, readings, posterior: learn(space, readings, translate.strengths) };
}

function shelfOn(house: Dyehouse, order: Order, posterior: Posterior): ShelfMaterial[] {
  return house.setting.materials.flatMap((m) => {
    const usualPercent = posterior.usual.get(m.id);
    const jars = (order.stockLotIds[m.id] ?? []).flatMap((id) => {
      const jar = m.stockLots.find((j) => j.id === id);
      return jar
        ? [{ stockLotId: id, ageYears: Math.max(0, (Date.parse(order.on) - Date.parse(jar.receivedOn)) / YEAR_MS) }]
        : [];
    });
    return usualPercent === undefined || jars.length === 0
      ? []
      : [{ materialId: m.id, role: m.kind, jars, usualPercent }];
  });
}

/** A correction as the world is asked for it. */
const asked = (plan: WorldDyeing, dyeing: Dyeing): WorldDyeing => ({
  ...plan,
  doses: dyeing.doses.map(({ stage, materialId, stockLotId, percentOwf }) => ({
    stage,
    materialId,
    stockLotId,
    percentOwf,
  })),
  courses: dyeing.courses,
  waterId: dyeing.water.id,
});

/** One order, dyed in every way there is. */
export function playOrder(
  house: Dyehouse,
  past: readonly PastDyeing[],
  learnt: ReturnType<typeof learnPast>,
  order: Order,
): Scored {
  const { translate, posterior } = learnt;
  const colourway = house.setting.colourways.find((c) => c.id === order.colourwayId);
  if (!colourway) throw new Error('the world orders a colourway that its setting doesn’t have');
  const plan = translate.order(order);
  const dyeing = translate.dyeing(plan);
  const off = (ask: WorldDyeing, attempt: number): number =>
    deltaE00(colourway.master, house.dye(ask, attempt).truth.dry);
  const within = { shelf: shelfOn(house, order, posterior), waters: house.setting.waters, day: DAY };

  const unchanged = house.dye(plan, ATTEMPTS.unchanged).truth.dry;
  const foretold = predict(posterior, dyeing, { day: DAY });
  const ways = correct(posterior, dyeing, colourway.master, within);
  const [first] = ways;
  const bold = wayToStrikeOff(ways);
  const corrected = first ? asked(plan, first.dyeing) : plan;
  const toStrikeOff = bold ? asked(plan, bold.dyeing) : plan;
  const struckOff = house.dye({ ...toStrikeOff, purpose: 'strikeOff', fibreG: 20 }, ATTEMPTS.strikeOff);
  const [read] = translate.past(
    { id: 'strike-off', asked: toStrikeOff, recorded: struckOff.recorded, readings: struckOff.readings },
    DAY,
  );
  const surer = read ? learnMore(posterior, read) : posterior;
  const [second]: (Correction | undefined)[] = bold
    ? correct(surer, bold.dyeing, colourway.master, { ...within, isStruckOff: true })
    : [];
  const plain = rivals(house.setting, past, order, plan);
  return {
    predictedOff: deltaE00(foretold.lab, unchanged),
    within80: foretold.within80,
    ways: {
      unchanged: deltaE00(colourway.master, unchanged),
      corrected: off(corrected, ATTEMPTS.corrected),
      struckOff: off(second ? asked(plan, second.dyeing) : corrected, ATTEMPTS.struckOff),
      lastLot: off(plain.lastLot, ATTEMPTS.rival),
      strengthOnly: off(plain.strengthOnly, ATTEMPTS.rival),
      nearest: off(plain.nearest, ATTEMPTS.rival),
    },
    askedForStrikeOff:
      first !== undefined && bold !== undefined && isStrikeOffWorth(first, bold, colourway.toleranceDeltaE00),
    limit: house.limit?.(order) ?? null,
  };
}
