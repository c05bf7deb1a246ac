// What foretelling costs: `npm run bench -- --match`. How right it is: `npm run backtest`.
import { learnPast } from '../../backtest/play';
import pigments from '../../backtest/worlds/pigments';
import type { ShelfMaterial } from '../../core/index';
import { correct, learn, learnMore, predict, reachWith, reviewRecord } from '../../core/index';

const timed = (times: number, work: () => unknown): number => {
  work();
  const took = Array.from({ length: times }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  }).sort((x, y) => x - y);
  return took[Math.floor(took.length / 2)] ?? NaN;
};
const say = (what: string, ms: number, aim: string): void =>
  console.log(`${what.padEnd(62)} ${ms.toFixed(1)} ms (aim ${aim})`);

for (const [seed, bands] of [
  [1, 'three broad bands'],
  [2, 'sixteen bands'],
] as const) {
  const house = pigments.create(seed);
  const learnt = learnPast(house, house.history(40));
  const { posterior, translate, readings } = learnt;
  const orders = house.orders(40, 8);
  const plans = orders.map((o) => translate.dyeing(translate.order(o)));
  const [order, plan] = [orders[0], plans[0]];
  if (!order || !plan) throw new Error('the world has no orders');
  const shelf = house.setting.materials.map(({ id, kind }): ShelfMaterial => ({
    materialId: id,
    role: kind,
    usualPercent: posterior.usual.get(id) ?? 1,
    jars: (order.stockLotIds[id] ?? []).map((stockLotId) => ({ stockLotId, ageYears: 1 })),
  }));
  const master = house.setting.colourways[0]?.master ?? { L: 50, a: 0, b: 0 };
  console.log(`\n${bands}: ${readings.length} readings, ${posterior.learnt} numbers`);
  say(
    'learning everything anew, 40 lots',
    timed(1, () => learn(posterior.space, readings, translate.strengths)),
    '–',
  );
  say(
    'one prediction',
    timed(20, () => predict(posterior, plan)),
    '5',
  );
  say(
    'a correction, all levers',
    timed(5, () => correct(posterior, plan, master, { shelf, waters: house.setting.waters })),
    '100',
  );
  const { fibre, baseId, baseLotId, undyed, water, metal } = plan;
  const ground = { fibre, baseId, baseLotId, undyed, water, metal };
  const brought = {
    readings,
    strengths: translate.strengths,
    ground,
    standard: master,
    shelf,
    onlyFromShelf: false,
    mostPercent: null,
  };
  say(
    'every dyestuff and pair ranked for a brought colour',
    timed(5, () => reachWith(posterior, brought)),
    '1000',
  );
  const read = readings.at(-1);
  if (read)
    say(
      'one more reading taken in',
      timed(5, () => learnMore(posterior, read)),
      '–',
    );
  if (seed === 1)
    say(
      'each reading foretold from the others, once learnt',
      timed(1, () => reviewRecord(readings, translate.strengths, [])),
      '–',
    );
}

const house = pigments.create(1);
const from = performance.now();
const many = learnPast(house, house.history(2000));
const took = performance.now() - from;
const last = many.readings.at(-1);
console.log(`\n${many.readings.length} readings, ${many.posterior.learnt} numbers`);
say('learning everything anew, 2,000 lots', took, '–');
if (last)
  say(
    'a judged lot taken in, 2,000 lots',
    timed(3, () => learnMore(many.posterior, last)),
    '500',
  );
