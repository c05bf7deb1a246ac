import '@angular/localize/init';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { parseArgs } from 'node:util';
import { learnPast, playOrder } from './play';
import type { Scored } from './score';
import { WAYS, reportOf } from './score';
import type { World } from './world';

/** So many earlier lots a young studio has, and an old one. */
const HISTORIES = [2, 5, 10, 40];

const { values } = parseArgs({
  options: {
    world: { type: 'string', default: 'backtest/worlds/pigments.ts' },
    seed: { type: 'string', default: '1' },
    lots: { type: 'string', default: '40' },
    orders: { type: 'string', default: '20' },
    json: { type: 'boolean', default: false },
  },
});

function whole(name: string, text: string): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 0) throw new RangeError(`--${name} takes a whole number, got “${text}”`);
  return value;
}

const { default: world } = (await import(pathToFileURL(resolve(values.world)).href)) as { default?: World };
if (!world) throw new Error(`${values.world} has no default export: a world is one`);
const house = world.create(whole('seed', values.seed));
const [lots, count] = [whole('lots', values.lots), whole('orders', values.orders)];

async function play(earlier: number): Promise<Scored[]> {
  const past = house.history(earlier);
  const learnt = await learnPast(house, past);
  return house.orders(earlier, count).map((order) => playOrder(house, past, learnt, order));
}

const scored = await play(lots);
const byHistory: Record<string, Scored[]> = {};
for (const n of HISTORIES) byHistory[String(n)] = n === lots ? scored : await play(n);
const report = reportOf(scored, byHistory);
if (values.json) process.stdout.write(`${JSON.stringify(report)}\n`);
else {
  const said = (spread: { median: number; p95: number } | null): string =>
    spread ? `${spread.median.toFixed(2)} (95th ${spread.p95.toFixed(2)})` : 'not told';
  const line = (name: string, text: string): void => void process.stdout.write(`${name.padEnd(14)} ${text}\n`);
  process.stdout.write(`${world.name}, seed ${values.seed}: ${count} orders after ${lots} lots, ΔE00\n`);
  line('predicted', `${said(report.predictions)}, inside the interval ${(100 * report.coverage80).toFixed(0)} %`);
  for (const way of WAYS) line(way, said(report.reorders[way]));
  line(
    'limit',
    report.limit ? `doses ${said(report.limit.doses)}, all levers ${said(report.limit.allLevers)}` : 'not told',
  );
  line('strike-offs', `${report.strikeOffs.asked} asked for, ${report.strikeOffs.worthIt} worth it`);
  for (const [n, own] of Object.entries(report.byHistory))
    line(`after ${n}`, WAYS.map((way) => `${way} ${own.reorders[way]?.median.toFixed(2)}`).join(', '));
}
