// What a studio has to live through; ends with 1 where something broke. All of it, or one part:
//   npm run torture -- --fuzz 20000 --seed 1      requests made of the server's own description
//   npm run torture -- --refused 2000             after each that is refused, nothing may have changed
//   npm run torture -- --kills 500 --postgres 500 the server, and the database, killed under four clients
//   npm run torture -- --full 20                  the disk filled under four clients
//   npm run torture -- --restores 200             a studio brought back, generation after generation
import '@angular/localize/init';
import { parseArgs } from 'node:util';
import { fullDisk } from './torture/full-disk';
import { fuzz } from './torture/fuzz';
import { kills } from './torture/kills';
import { refused } from './torture/refused';
import { restores } from './torture/restores';

const number = { type: 'string' } as const;
const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    ...{ fuzz: number, refused: number, kills: number, postgres: number, full: number, restores: number },
  },
});
const seed = Number(values.seed);
const isAll = Object.keys(values).every((name) => name === 'seed');
const timesOf = (given: string | undefined, usual: number): number => Number(given ?? (isAll ? usual : 0));
let isBroken = false;

async function part(name: string, times: number, run: () => Promise<boolean>): Promise<void> {
  if (times === 0) return;
  const from = performance.now();
  const isWell = await run();
  console.log(`${name}: ${((performance.now() - from) / 1000).toFixed(0)} s, seed ${seed}`);
  isBroken ||= !isWell;
}
const every = (n: number) => (done: number) => {
  if (done % n === 0) console.log(`  ${done} …`);
};

const fuzzed = timesOf(values.fuzz, 2000);
await part('requests', fuzzed, async () => {
  const { asked, byStatus, broken, slow, reasons } = await fuzz(fuzzed, seed);
  console.log(`${asked} requests: by status ${JSON.stringify(byStatus)}`);
  console.log(`${broken.length} broke something, ${slow.length} took over two seconds`);
  for (const [reason, times] of reasons) console.log(`  ${times} × ${reason}`);
  for (const line of [...broken.slice(0, 40), ...slow.slice(0, 10)]) console.log(`  ${line}`);
  return broken.length === 0;
});

const looked = timesOf(values.refused, 500);
await part('refused requests', looked, async () => {
  const report = await refused(looked, seed);
  if (!report) console.log('There is no PostgreSQL here to look into.');
  else console.log(`${report.refused} of ${looked} were refused, ${report.changed.length} of them changed something`);
  for (const line of report?.changed.slice(0, 20) ?? []) console.log(`  ${line}`);
  return !report || report.changed.length === 0;
});

for (const [kind, times] of [
  ['folder', timesOf(values.kills, 20)],
  ['server', timesOf(values.postgres, 20)],
] as const)
  await part(kind === 'folder' ? 'kills' : 'kills with PostgreSQL', times, async () => {
    const report = await kills(kind, times, seed, every(50));
    if (!report) console.log('There is no PostgreSQL here to be killed.');
    else console.log(JSON.stringify(report));
    return !report || report.lost + report.doubled + report.wrongBalances + report.refused === 0;
  });

const fills = timesOf(values.full, 5);
await part('full disks', fills, async () => {
  const report = await fullDisk(fills, seed);
  if (!report) console.log('No small disk can be put in place here: that takes an administrator.');
  else console.log(JSON.stringify(report));
  return !report || report.lost + report.doubled + report.wrongBalances + report.refused + report.said.length === 0;
});

const generations = timesOf(values.restores, 3);
await part('restores', generations, async () => {
  const report = await restores(generations, every(20));
  console.log(JSON.stringify(report));
  return report.different === 0;
});

process.exitCode = isBroken ? 1 : 0;
