// npm run bench: measures what the aims are about, on a studio made by the seeded generator, and prints it.
// `npm run bench -- --large` measures the large studio alone, `--scaling` stops after the arithmetic alone, `-- --day` after the bench's own numbers; `-- --judge`
// measures colours, photographs and what is nearest instead; `-- --match` what foretelling costs; `-- --frames` what the
// page feels of a large photograph; `-- --interface` what waits in the interface; `-- --lighthouse` what Lighthouse
// makes of it; `-- --plan` how good plans are, against an exact solver.
import { build } from './build.mjs';
import { root, run } from './install.mjs';

const OF = {
  judge: 'judge',
  match: 'match',
  frames: 'photo-frames',
  plan: 'plan',
  interface: 'interface',
  lighthouse: 'lighthouse',
};
const asked = Object.keys(OF).find((name) => process.argv.includes(`--${name}`));
if (!['judge', 'match', 'plan'].includes(asked)) await build();
run(
  process.execPath,
  [
    `${root}node_modules/tsx/dist/cli.mjs`,
    `${root}scripts/bench/${asked ? OF[asked] : 'measure'}.mts`,
    ...process.argv.slice(2),
  ],
  { env: { ...process.env, SERVE_PATIENCE_MS: '900000' } },
);
