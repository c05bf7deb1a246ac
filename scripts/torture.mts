// What a studio has to live through: `npm run torture -- --fuzz 20000 --seed 1`. Prints what was counted; ends with 1
// where something broke.
import { parseArgs } from 'node:util';
import { fuzz } from './torture/fuzz';

const { values } = parseArgs({
  options: { fuzz: { type: 'string', default: '2000' }, seed: { type: 'string', default: '1' } },
});
const from = performance.now();
const report = await fuzz(Number(values.fuzz), Number(values.seed));
const seconds = (performance.now() - from) / 1000;
console.log(
  `${report.asked} requests in ${seconds.toFixed(0)} s, seed ${values.seed}: by status ${JSON.stringify(report.byStatus)}`,
);
console.log(`${report.broken.length} broke something, ${report.slow.length} took over two seconds`);
for (const [reason, times] of report.reasons) console.log(`  ${times} × ${reason}`);
for (const line of [...report.broken.slice(0, 40), ...report.slow.slice(0, 10)]) console.log(`  ${line}`);
process.exitCode = report.broken.length > 0 ? 1 : 0;
