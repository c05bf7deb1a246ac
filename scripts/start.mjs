// npm start: a real studio. npm run demo: the demo studio in a folder of its own; -- --fresh begins it again.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build } from './build.mjs';
import { root } from './install.mjs';

const demo = process.argv.includes('--demo');
const fresh = process.argv.includes('--fresh');
const unknown = process.argv.slice(2).filter((a) => !['--demo', '--fresh'].includes(a));
if (unknown.length > 0 || (fresh && !demo)) {
  console.error(
    fresh && !demo
      ? '--fresh begins the demo studio again; a real studio is never thrown away. Use npm run demo -- --fresh.'
      : `There is no option ${unknown.join(' ')}. npm run demo takes --fresh.`,
  );
  process.exit(1);
}

await build();
const dataDir = resolve(process.env.DATA_DIR ?? join(root, 'data', demo ? 'demo' : 'studio'));
if (fresh && existsSync(dataDir)) beginAgain(dataDir);

process.env.DATA_DIR = dataDir;
process.env.MIGRATIONS_DIR ??= join(root, 'server', 'db', 'migrations');
process.env.WEB_DIR ??= join(root, 'dist', 'web', 'browser');
if (demo && !existsSync(join(dataDir, 'db'))) {
  const { demoDocument } = await import('./demo-document.mjs');
  mkdirSync(dataDir, { recursive: true });
  process.env.OPEN_DOCUMENT = join(dataDir, 'demo-studio.json');
  writeFileSync(process.env.OPEN_DOCUMENT, demoDocument());
  console.log('Opening the demo studio …');
}
await import(new URL('../dist/server/main.mjs', import.meta.url));

/** Throws away a demo's folder, and only one that is a demo's and that no process has open. */
function beginAgain(folder) {
  if (!existsSync(join(folder, 'demo-studio.json'))) {
    console.error(`${folder} was not made by the demo, so it is left alone. Give the demo another DATA_DIR.`);
    process.exit(1);
  }
  const holder = existsSync(join(folder, 'held-by.json'))
    ? JSON.parse(readFileSync(join(folder, 'held-by.json'), 'utf8') || '{}')
    : {};
  if (holder.pid && isAlive(holder.pid)) {
    console.error(`The demo studio is open in process ${holder.pid}. Stop that one first.`);
    process.exit(3);
  }
  rmSync(folder, { recursive: true });
}

function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}
