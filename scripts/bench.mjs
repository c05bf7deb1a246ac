// npm run bench: measures what the aims are about, on a studio made by the seeded generator, and prints it.
// `npm run bench -- --scaling` stops after the arithmetic alone, `-- --day` after the bench's own numbers.
import { build } from './build.mjs';
import { root, run } from './install.mjs';

await build();
run(
  process.execPath,
  [`${root}node_modules/tsx/dist/cli.mjs`, `${root}scripts/bench/measure.mts`, ...process.argv.slice(2)],
  { env: { ...process.env, SERVE_PATIENCE_MS: '900000' } },
);
