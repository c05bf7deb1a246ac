// npm run bench: measures what the aims are about, on a studio made by the seeded generator, and prints it.
// `npm run bench -- --large` measures the large studio alone, `--scaling` stops after the arithmetic alone, `-- --day` after the bench's own numbers; `-- --judge`
// measures colours, photographs and what is nearest instead; `-- --match` what foretelling costs; `-- --frames` what the
// page feels of a large photograph; `-- --interface` what waits in the interface.
import { build } from './build.mjs';
import { root, run } from './install.mjs';

const ofJudging = process.argv.includes('--judge');
const ofMatch = process.argv.includes('--match');
const ofFrames = process.argv.includes('--frames');
const ofInterface = process.argv.includes('--interface');
if (!ofJudging && !ofMatch) await build();
run(
  process.execPath,
  [
    `${root}node_modules/tsx/dist/cli.mjs`,
    `${root}scripts/bench/${ofJudging ? 'judge' : ofMatch ? 'match' : ofFrames ? 'photo-frames' : ofInterface ? 'interface' : 'measure'}.mts`,
    ...process.argv.slice(2),
  ],
  { env: { ...process.env, SERVE_PATIENCE_MS: '900000' } },
);
