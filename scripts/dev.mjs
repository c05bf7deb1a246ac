// npm run dev: the server on the demo studio and the interface, both made anew whenever a source changes.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { install, root } from './install.mjs';

install();
const dataDir = resolve(process.env.DATA_DIR ?? join(root, 'data', 'dev'));
const env = { ...process.env, DATA_DIR: dataDir, PORT: '4310', LOG_LEVEL: process.env.LOG_LEVEL ?? 'info' };
if (!existsSync(join(dataDir, 'db'))) {
  const { demoDocument } = await import('./demo-document.mjs');
  mkdirSync(dataDir, { recursive: true });
  env.OPEN_DOCUMENT = join(dataDir, 'demo-studio.json');
  writeFileSync(env.OPEN_DOCUMENT, demoDocument());
}

const bin = (...path) => join(root, 'node_modules', ...path);
const started = [
  spawn(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'watch', 'server/main.ts'], {
    cwd: root,
    env,
    stdio: 'inherit',
  }),
  spawn(process.execPath, [bin('@angular', 'cli', 'bin', 'ng.js'), 'serve'], {
    cwd: join(root, 'web'),
    env,
    stdio: 'inherit',
  }),
];
console.log('The interface comes up at http://localhost:4200; it asks the server at http://localhost:4310.');

const stop = () => started.forEach((child) => child.kill('SIGTERM'));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
for (const child of started) child.on('exit', stop);
