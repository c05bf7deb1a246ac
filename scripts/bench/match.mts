// What foretelling costs: `npm run bench -- --match`. How right it is: `npm run backtest`.
import '@angular/localize/init';
import { learnPast } from '../../backtest/play';
import pigments from '../../backtest/worlds/pigments';
import { correct, learn, learnMore, learntOf, predict, reachWith, reviewRecord } from '../../core/index';

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
  const { translate, strengths } = await learnPast(house, house.history(40));
  const { readings } = translate;
  const posterior = learntOf(readings, strengths);
  const orders = house.orders(40, 8);
  const asked = orders.map((order) => ({
    plan: translate.dyeing(translate.order(order)),
    shelf: translate.shelf(order),
    master: house.setting.colourways.find((c) => c.id === order.colourwayId)?.master ?? { L: 50, a: 0, b: 0 },
  }));
  const [first] = asked;
  if (!first) throw new Error('the world has no orders');
  const { plan, master, shelf } = first;
  console.log(`\n${bands}: ${readings.length} readings, ${posterior.learnt} numbers`);
  say(
    'learning everything anew, 40 lots',
    timed(1, () => learn(posterior.space, readings, strengths)),
    '–',
  );
  say(
    'one prediction',
    timed(20, () => predict(posterior, plan)),
    '5',
  );
  say(
    'a correction, all levers, the mean of eight orders',
    timed(5, () =>
      asked.map((a) => correct(posterior, a.plan, a.master, { shelf: a.shelf, waters: translate.waters })),
    ) / asked.length,
    '100',
  );
  const { fibre, baseId, baseLotId, undyed, water, metal } = plan;
  const ground = { fibre, baseId, baseLotId, undyed, water, metal };
  const brought = {
    readings,
    strengths,
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
      timed(1, () => reviewRecord(readings, strengths, [])),
      '–',
    );
}

const house = pigments.create(1);
const began = performance.now();
const { translate, strengths } = await learnPast(house, house.history(2000));
const brought = performance.now() - began;
const all = translate.readings;
const from = performance.now();
const posterior = learntOf(all.slice(0, -1), strengths);
const took = performance.now() - from;
console.log(`\n${all.length} readings, ${posterior.learnt} numbers`);
say('a studio file of 2,000 lots opened, and the record read', brought, '–');
say('learning everything anew, 2,000 lots', took, '–');
const after = performance.now();
learntOf(all, strengths);
say('a judged lot taken in, 2,000 lots', performance.now() - after, '500');
