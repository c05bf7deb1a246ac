// Starts a server of its own for tests, pictures and measurements, on a port the system chooses, and stops it by its
// id.
import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from './install.mjs';

const PATIENCE_MS = Number(process.env.SERVE_PATIENCE_MS ?? 90_000);

/**
 * Runs the built server on a data folder. Resolves with its address once it serves; rejects with what it said if it
 * ends first.
 */
export function serve(dataDir, env = {}) {
  const child = spawn(process.execPath, [join(root, 'dist', 'server', 'main.mjs')], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      PORT: '0',
      HOST: '127.0.0.1',
      DATA_DIR: dataDir,
      MIGRATIONS_DIR: join(root, 'server', 'db', 'migrations'),
      WEB_DIR: join(root, 'dist', 'web', 'browser'),
      ...env,
    },
  });
  let said = '';
  const ended = new Promise((resolve) => child.on('exit', (code, signal) => resolve({ code, signal, said })));
  const stop = (signal = 'SIGTERM') => {
    child.kill(signal);
    return ended;
  };
  const address = new Promise((resolve, reject) => {
    const giveUp = setTimeout(() => reject(new Error(`the server did not come up: ${said}`)), PATIENCE_MS);
    const listen = (chunk) => {
      said += chunk;
      const found = /open at (http:\/\/\S+)/.exec(said);
      if (found) {
        clearTimeout(giveUp);
        resolve(found[1]);
      }
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    void ended.then(({ code }) => {
      clearTimeout(giveUp);
      reject(Object.assign(new Error(said.trim()), { code }));
    });
  });
  return address.then((base) => ({ base, pid: child.pid, stop, ended }));
}

/** A new folder under the system's temporary one; `remove` takes it away. */
export function temporaryFolder(name) {
  const folder = mkdtempSync(join(tmpdir(), `vestigia-${name}-`));
  return { folder, remove: () => rmSync(folder, { recursive: true, force: true }) };
}

/**
 * The demo studio in a folder of its own: a copy of one that was opened before (DEMO_TEMPLATE), or opened from its
 * file.
 */
export async function serveDemo(env = {}) {
  const { folder, remove } = temporaryFolder('demo');
  const template = process.env.DEMO_TEMPLATE;
  if (template) {
    cpSync(template, join(folder, 'data'), { recursive: true });
    return { ...(await serve(join(folder, 'data'), env)), dataDir: join(folder, 'data'), remove };
  }
  const { demoDocument } = await import('./demo-document.mjs');
  writeFileSync(join(folder, 'demo-studio.json'), demoDocument());
  const server = await serve(join(folder, 'data'), { OPEN_DOCUMENT: join(folder, 'demo-studio.json'), ...env });
  return { ...server, dataDir: join(folder, 'data'), remove };
}
