// npm run restore -- FILE: brings a studio back from a copy, into DATA_DIR. What it replaces is moved aside.
import { join, resolve } from 'node:path';
import { build } from './build.mjs';
import { root } from './install.mjs';

const [file, ...rest] = process.argv.slice(2);
if (!file || rest.length > 0) {
  console.error('Name the copy: npm run restore -- path/to/studio-2026-06-01T18-00-00Z.zip');
  process.exit(1);
}
await build();
process.env.DATA_DIR = resolve(process.env.DATA_DIR ?? join(root, 'data', 'studio'));
process.env.MIGRATIONS_DIR ??= join(root, 'server', 'db', 'migrations');
process.argv.splice(2, process.argv.length, '--restore', resolve(file));
await import(new URL('../dist/server/main.mjs', import.meta.url));
